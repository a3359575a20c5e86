package harpel.app.timeline;

import harpel.app.desk.PhraseDesk;
import harpel.app.desk.TimelineDesk;
import harpel.app.document.Document;
import harpel.app.document.Selection;
import harpel.app.look.Look;
import harpel.app.look.Messages;
import harpel.app.phrase.PhraseList;
import harpel.app.transport.Words;
import harpel.app.ui.Buttons;
import harpel.app.ui.Choice;
import harpel.app.ui.Field;
import harpel.app.ui.Space;
import harpel.app.ui.room.Scrolling;
import harpel.phrase.Phrase;
import harpel.piece.Block;
import harpel.piece.Bracket;
import harpel.piece.Part;
import harpel.piece.Piece;
import harpel.piece.Timeline;
import harpel.piece.Timeline.Ref;
import harpel.time.MeterMap;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import javafx.geometry.Insets;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.ToggleGroup;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;

/** What is picked in the timeline, at the right: where it lies and what can be done with it. */
final class BlockPanel extends BorderPane {
    private static final double PHRASES_TALL = 300;
    private static final double PHRASES_LOW = 132;

    private final Document document;
    private final TimelineDesk desk;
    private final Label title = new Label();
    private final Label about = new Label();
    private final Field begins;
    private final Field lasts;
    private final Field from;
    private final Field variation;
    private final Choice<String> phrase;
    private final ToggleButton chain;
    private final ToggleButton past;
    private final Label way = soft("Through the chain");
    private final VBox one = new VBox(Space.GAP);
    private final VBox any = new VBox(Space.GAP);
    private final Label loopTitle = new Label();
    private final ToggleButton loopOn;
    private final PhraseList phrases;

    BlockPanel(
            Document document,
            Selection selection,
            Look look,
            PhraseDesk phraseDesk,
            TimelineDesk desk,
            Messages messages) {
        this.document = document;
        this.desk = desk;
        setId("block-panel");
        phrases = new PhraseList(document, selection, look, phraseDesk, messages);
        getStyleClass().add("inspector");
        title.setId("block-title");
        title.getStyleClass().add("part-title");
        title.setWrapText(true);
        about.setId("block-about");
        about.getStyleClass().add("soft");
        about.setWrapText(true);
        begins =
                new Field("block-begins", "Where the block begins: bar, or bar . beat", this::setBegins, messages::say);
        lasts = new Field("block-lasts", "How many bars it lasts, from where it begins", this::setLasts, messages::say);
        from = new Field(
                "block-from", "The place in its phrase at which it begins: bar . beat", this::setFrom, messages::say);
        variation = new Field(
                "block-variation",
                "A variation of its own, 0–999999; empty for the part’s",
                this::setVariation,
                messages::say);
        phrase = new Choice<>("block-phrase", "What is heard in it", this::phraseName, desk::phrase);
        ToggleGroup ways = new ToggleGroup();
        chain = Buttons.oneOf(
                ways, "chain", "block-chain", "Through the part’s chain", true, () -> desk.throughChain(true));
        past = Buttons.oneOf(
                ways,
                "past it",
                "block-past",
                "Past the chain, as it is written",
                false,
                () -> desk.throughChain(false));
        one.getChildren()
                .addAll(
                        new HBox(Space.CLOSE, grow(named("Begins", begins)), grow(named("Lasts, bars", lasts))),
                        new HBox(Space.CLOSE, grow(named("Phrase from", from)), grow(named("Variation", variation))),
                        named("Phrase", phrase));
        any.getChildren()
                .addAll(
                        way,
                        new FlowPane(Space.CLOSE, Space.CLOSE, chain, past),
                        soft("Blocks"),
                        new FlowPane(
                                Space.CLOSE,
                                Space.CLOSE,
                                Buttons.small("cut at now", "block-cut", "Cuts them where now is  (X)", desk::cutHere),
                                Buttons.small(
                                        "join",
                                        "block-join",
                                        "Joins those that lie side by side; notes of several phrases become one phrase  (J)",
                                        desk::join),
                                Buttons.small("repeat", "block-repeat", "Lays a copy right behind  (D)", desk::repeat),
                                Buttons.small(
                                        "own copy of the phrase",
                                        "block-own",
                                        "The block plays a phrase of its own from now on",
                                        desk::ownCopy),
                                Buttons.small(
                                        "open phrase", "block-open", "Shows its phrase  (Enter)", desk::openPhrase),
                                Buttons.small("remove", "block-remove", "Takes them away  (Delete)", desk::remove)));
        loopTitle.setId("loop-title");
        loopTitle.getStyleClass().add("soft");
        loopTitle.setWrapText(true);
        loopOn = Buttons.toggle(
                "loop", "loop-on", "The stretch comes round, or play goes on behind it  (L)", desk::loopOn);
        VBox loop = new VBox(
                Space.CLOSE,
                soft("Loop"),
                loopTitle,
                new FlowPane(
                        Space.CLOSE,
                        Space.CLOSE,
                        loopOn,
                        Buttons.small(
                                "to the selection", "loop-picked", "What is picked comes round  (L)", desk::loop)));
        VBox content = new VBox(Space.ROOM, title, about, one, any, loop);
        content.setPadding(new Insets(Space.ROOM, Space.EDGE, Space.EDGE, Space.EDGE));
        setCenter(new Scrolling(content));
        phrases.setPadding(new Insets(Space.TIGHT, Space.EDGE, Space.GAP, Space.EDGE));
        // What is picked needs room, too.
        phrases.minHeightProperty().bind(desk.picked().map(picked -> picked.isEmpty() ? PHRASES_TALL : PHRASES_LOW));
        phrases.prefHeightProperty().bind(phrases.minHeightProperty());
        setBottom(phrases);
        desk.picked().addListener((property, before, now) -> show());
        document.piece().addListener((property, before, now) -> show());
        show();
    }

    /** Draws a frame. */
    void draw() {
        phrases.draw();
    }

    private static Label soft(String words) {
        Label label = new Label(words);
        label.getStyleClass().add("soft");
        return label;
    }

    private static VBox named(String name, Node control) {
        Label label = new Label(name);
        label.getStyleClass().add("tile-name");
        label.setLabelFor(control);
        return new VBox(Space.HAIR, label, control);
    }

    private static VBox grow(VBox box) {
        HBox.setHgrow(box, Priority.ALWAYS);
        box.setPrefWidth(120);
        return box;
    }

    private Piece piece() {
        return document.piece().get();
    }

    private MeterMap meter() {
        return piece().time().meter();
    }

    private String phraseName(String id) {
        return id.isEmpty()
                ? "none: present only"
                : piece().phrase(id).map(Phrase::name).orElse(id);
    }

    private Ref ref() {
        return desk.picked().get().iterator().next();
    }

    /** A place that was typed: a bar, or a bar and a beat, counted from 1. */
    private long place(String text) {
        String[] words = text.replace("bar", "").strip().split("[ .:]+");
        if (words.length > 2 || !String.join("", words).matches("\\d{1,7}")) {
            throw new IllegalArgumentException(
                    "A place is a bar such as 9, or a bar and a beat such as 9 . 3, but was “" + text + "”.");
        }
        long bar = Long.parseLong(words[0]);
        long beat = words.length == 2 ? Long.parseLong(words[1]) : 1;
        if (bar < 1 || beat < 1) {
            throw new IllegalArgumentException("Bars and beats are counted from 1, but it was “" + text + "”.");
        }
        long tick = meter().tickOfBar(bar - 1);
        return tick + (beat - 1) * meter().at(tick).beatTicks();
    }

    private void setBegins(String text) {
        long tick = place(text);
        desk.move(tick - ref().at(), 0, false);
    }

    private void setLasts(String text) {
        if (!text.matches("\\d{1,5}([.,]\\d{1,4})?") || Double.parseDouble(text.replace(',', '.')) <= 0) {
            throw new IllegalArgumentException(
                    "A block lasts a number of bars such as 8 or 0.5, but was “" + text + "”.");
        }
        double bars = Double.parseDouble(text.replace(',', '.'));
        desk.resize(
                ref(),
                ref().at(),
                ref().at()
                        + Math.max(1, Math.round(bars * meter().at(ref().at()).barTicks())));
    }

    private void setFrom(String text) {
        Block block = desk.one().orElseThrow();
        long length = piece().phrase(block.phrase()).map(Phrase::length).orElse(0L);
        long tick = place(text);
        if (tick >= length) {
            throw new IllegalArgumentException("The phrase ends before “" + text + "”.");
        }
        desk.from(tick);
    }

    private void setVariation(String text) {
        if (!text.isEmpty() && !text.matches("\\d{1,6}")) {
            throw new IllegalArgumentException(
                    "A variation is a number 0–999999, or nothing for the part’s, but was “" + text + "”.");
        }
        desk.variation(text.isEmpty() ? Block.OF_THE_PART : Long.parseLong(text));
    }

    private void show() {
        Set<Ref> picked = desk.picked().get();
        Block block = desk.one().orElse(null);
        one.setVisible(block != null);
        one.setManaged(block != null);
        Bracket loop = piece().bracket();
        loopOn.setSelected(loop.on());
        loopOn.setDisable(!loop.isThere());
        loopTitle.setText(
                loop.isThere()
                        ? desk.place(loop.from()) + " to " + desk.place(loop.to())
                                + (loop.on() ? " comes round; the rest waits." : ", which is off.")
                        : "None. Shift and drag in the bars lets a stretch come round.");
        any.setVisible(!picked.isEmpty());
        any.setManaged(!picked.isEmpty());
        if (picked.isEmpty()) {
            long end = piece().timelineEnd();
            title.setText("Timeline");
            about.setText(
                    end == 0
                            ? "Press and drag in a part’s row: the part is present there, with what it plays."
                            : "Nothing is picked. Press a block, Shift and drag for several, N for a new one where now is, or drag a phrase onto a row.");
            return;
        }
        if (block == null) {
            title.setText(picked.size() + " blocks");
            about.setText("of "
                    + Words.count(picked.stream().map(Ref::part).distinct().count(), "part"));
        } else {
            Part part = piece().part(ref().part()).orElseThrow();
            String name = piece().phrase(block.phrase())
                    .map(Phrase::name)
                    .orElse(part.hearing().ofPart() ? "plays along" : "no phrase");
            title.setText(name);
            about.setText(part.name() + ", " + desk.place(block.at()) + " to " + desk.place(block.end()));
            begins.show(desk.place(block.at()).replace("bar ", ""));
            double bars = block.length() / (double) meter().at(block.at()).barTicks();
            lasts.show(
                    bars == Math.rint(bars)
                            ? String.valueOf((long) bars)
                            : String.valueOf(Math.round(bars * 1000) / 1000.0));
            from.show(meter().placeAt(block.from()).toString());
            variation.show(block.variation() == Block.OF_THE_PART ? "" : String.valueOf(block.variation()));
            List<String> ids = new ArrayList<>(List.of(""));
            piece().phrases().forEach(each -> ids.add(each.id()));
            phrase.show(ids, block.phrase());
        }
        boolean all = picked.stream()
                .flatMap(ref -> Timeline.find(piece(), ref).stream())
                .allMatch(each -> each.chain()
                        && piece().phrase(each.phrase()).filter(Phrase::ready).isEmpty());
        chain.setSelected(all);
        past.setSelected(!all);
        boolean ready = block != null
                && piece().phrase(block.phrase()).filter(Phrase::ready).isPresent();
        chain.setDisable(ready);
        way.setText(ready ? "A ready phrase goes past the chain" : "Through the chain");
    }
}
