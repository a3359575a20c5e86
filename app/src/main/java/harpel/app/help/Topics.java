package harpel.app.help;

import com.fasterxml.jackson.jr.ob.JSON;
import harpel.app.look.Look.View;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import javafx.scene.Node;

/** What the window has besides effects, each with a page of help: declared as data, in {@code topics.json} beside this. */
public final class Topics {
    /**
     * One page.
     *
     * @param at where it is the page that answers: ids and style classes of what has the keyboard, or of what that is in, or a view
     * @param does what it is and what it is for, in two sentences
     * @param has what can be done with it, by name
     */
    public record Topic(String id, List<String> at, String title, String does, List<Line> has) {}

    /** One thing, and what it does. */
    public record Line(String name, String words) {}

    private static final List<Topic> ALL = read();

    private Topics() {}

    public static List<Topic> all() {
        return ALL;
    }

    /** @throws IllegalArgumentException when there is none of that name */
    public static Topic of(String id) {
        return ALL.stream()
                .filter(topic -> topic.id().equals(id))
                .findFirst()
                .orElseThrow(() -> new IllegalArgumentException("there is no page of help \"" + id + "\""));
    }

    /** The page about what has the keyboard, or, where that has none of its own, about the view. */
    public static Topic at(Node owner, View view) {
        for (Node at = owner; at != null; at = at.getParent()) {
            for (Topic topic : ALL) {
                boolean named = topic.at().contains("#" + at.getId());
                if (named
                        || at.getStyleClass().stream()
                                .anyMatch(style -> topic.at().contains("." + style))) {
                    return topic;
                }
            }
        }
        return ALL.stream()
                .filter(topic -> topic.at().contains(view.name()))
                .findFirst()
                .orElseThrow(() -> new IllegalArgumentException("no page of help for the view " + view));
    }

    @SuppressWarnings("unchecked") // it is ours, and a test reads all of it
    private static List<Topic> read() {
        try (InputStream in = Topics.class.getResourceAsStream("topics.json")) {
            List<Topic> all = new ArrayList<>();
            for (Object one : JSON.std.listFrom(in)) {
                Map<String, Object> topic = (Map<String, Object>) one;
                List<Line> has = ((List<List<String>>) topic.get("has"))
                        .stream()
                                .map(line -> new Line(line.get(0), line.get(1)))
                                .toList();
                all.add(new Topic(
                        (String) topic.get("id"),
                        (List<String>) topic.get("at"),
                        (String) topic.get("title"),
                        (String) topic.get("does"),
                        has));
            }
            return List.copyOf(all);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}
