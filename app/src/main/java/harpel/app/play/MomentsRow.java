package harpel.app.play;

import harpel.app.desk.TimelineDesk;
import harpel.app.document.Document;
import harpel.app.look.Messages;
import harpel.app.perform.Performing;
import harpel.app.transport.Words;
import harpel.app.ui.Buttons;
import harpel.app.ui.Field;
import harpel.app.ui.Menus;
import harpel.app.ui.Space;
import harpel.app.ui.Tips;
import harpel.piece.Piece;
import harpel.piece.PieceEdit;
import harpel.piece.perform.Moment;
import harpel.piece.perform.When;
import java.util.ArrayList;
import java.util.List;
import java.util.function.UnaryOperator;
import javafx.css.PseudoClass;
import javafx.geometry.Pos;
import javafx.geometry.VPos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.Menu;
import javafx.scene.control.MenuButton;
import javafx.scene.control.SeparatorMenuItem;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;

/** The moments of the piece: kept with one press, recalled with one. */
final class MomentsRow extends HBox {
    private static final PseudoClass NOW = PseudoClass.getPseudoClass("on");
    private static final PseudoClass WAITS = PseudoClass.getPseudoClass("waits");
    private static final List<When> TIMES = List.of(When.NOW, When.BEAT, When.BAR, new When(2), new When(4));
    private static final double[] GLIDES = {0, 1, 2, 4, 8, 16};

    private final Document document;
    private final TimelineDesk timeline;
    private final Performing performing;
    private final Messages messages;
    private final Label head = new Label("Moments");
    private final FlowPane tiles = new FlowPane(Space.GAP, Space.CLOSE);
    private final Button keep;
    private String renaming = "";
    /** What the tiles say. */
    private List<Object> shown = List.of();

    /** @param beside stands at the right */
    MomentsRow(Document document, TimelineDesk timeline, Performing performing, Messages messages, Node... beside) {
        super(Space.GAP);
        this.document = document;
        this.timeline = timeline;
        this.performing = performing;
        this.messages = messages;
        setId("moments");
        head.getStyleClass().addAll("part-title", "moments-head");
        Tips.set(head, "What is on, and where the levers stand: kept with one press, come back to with one");
        HBox buttons = new HBox(Space.GAP, beside);
        buttons.setAlignment(Pos.CENTER_RIGHT);
        buttons.setMinWidth(USE_PREF_SIZE);
        HBox.setHgrow(tiles, Priority.ALWAYS);
        tiles.setRowValignment(VPos.CENTER);
        keep = Buttons.button(
                "+ keep this moment", "keep-moment", "Keeps what is on now, and where the levers stand", this::keep);
        getChildren().addAll(tiles, buttons);
    }

    private Piece piece() {
        return document.piece().get();
    }

    private void keep() {
        int number = piece().moments().size() + 1;
        while (piece().moment("Moment " + number).isPresent()) {
            number++;
        }
        String name = "Moment " + number;
        document.apply(PieceEdit.of("Keep a moment", piece -> {
            List<Moment> more = new ArrayList<>(piece.moments());
            more.add(Moment.of(name, piece));
            return piece.withMoments(more);
        }));
        messages.say("Kept “" + name + "”: press it to come back here.");
    }

    /** Shows the moments as they are; what is shown already is not made anew. */
    void show() {
        List<Moment> moments = piece().moments();
        List<Object> now = new ArrayList<>(List.of(renaming));
        for (Moment moment : moments) {
            now.add(List.of(moment, waits(moment), moment.isNow(piece())));
        }
        if (now.equals(shown)) {
            return;
        }
        shown = now;
        tiles.getChildren().setAll(head);
        for (int i = 0; i < moments.size(); i++) {
            tiles.getChildren().add(tile(moments.get(i), i));
        }
        tiles.getChildren().add(keep);
    }

    private String waits(Moment moment) {
        return performing
                .waitsFor(moment)
                .map(tick -> "next, at " + timeline.place(tick))
                .orElse("");
    }

    private HBox tile(Moment moment, int place) {
        String waits = waits(moment);
        boolean now = moment.isNow(piece());
        Label title = new Label(moment.name());
        title.getStyleClass().add("pad-title");
        Label about = new Label(waits.isEmpty() ? now ? "now" : how(moment) : waits);
        about.getStyleClass().addAll("soft", "part-about");
        Button press = Buttons.picture(
                new VBox(0, title, about),
                "moment-" + place,
                moment.name() + ", " + about.getText(),
                "Recalls “" + moment.name() + "”, " + how(moment) + "; pressed again while it waits it is taken back",
                () -> performing.recall(moment));
        press.getStyleClass().add("moment");
        press.pseudoClassStateChanged(NOW, now);
        press.pseudoClassStateChanged(WAITS, !waits.isEmpty());
        HBox box = new HBox(0);
        box.setAlignment(Pos.CENTER_LEFT);
        if (renaming.equals(moment.name())) {
            Field name =
                    new Field("moment-name", "What the moment is called", text -> rename(place, text), messages::say);
            name.show(moment.name());
            name.setPrefColumnCount(10);
            box.getChildren().add(name);
        } else {
            box.getChildren().add(press);
        }
        box.getChildren().add(menu(moment, place));
        return box;
    }

    private static String how(Moment moment) {
        return moment.when().shown() + (moment.glide() > 0 ? ", over " + beats(moment.glide()) : "");
    }

    private static String beats(double beats) {
        return Words.number(beats) + (beats == 1 ? " beat" : " beats");
    }

    private MenuButton menu(Moment moment, int place) {
        MenuButton menu = Menus.button("", "moment-menu-" + place, "What becomes of the moment " + moment.name());
        menu.getStyleClass().add("moment-menu");
        menu.setAccessibleText("What becomes of the moment " + moment.name());
        Menu when = new Menu("Recalled");
        for (When one : TIMES) {
            when.getItems()
                    .add(Menus.item(one.shown(), "moment-when-" + one, () -> change(place, m -> m.withWhen(one))));
        }
        Menu glide = new Menu("Levers glide over");
        for (double beats : GLIDES) {
            glide.getItems()
                    .add(Menus.item(
                            beats == 0 ? "nothing, at once" : beats(beats),
                            "moment-glide-" + (int) beats,
                            () -> change(place, m -> m.withGlide(beats))));
        }
        menu.getItems()
                .addAll(
                        Menus.item("Takes what is on now", "moment-take", () -> change(place, m -> m.taken(piece()))),
                        Menus.item("Rename…", "moment-rename", () -> {
                            renaming = moment.name();
                            show();
                            tiles.lookup("#moment-name").requestFocus();
                        }),
                        when,
                        glide,
                        new SeparatorMenuItem(),
                        Menus.item("Earlier", "moment-earlier", () -> move(place, -1)),
                        Menus.item("Later", "moment-later", () -> move(place, 1)),
                        new SeparatorMenuItem(),
                        Menus.item(
                                "Remove", "moment-remove", () -> edit("Remove a moment", list -> list.remove(place))));
        return menu;
    }

    private void rename(int place, String text) {
        if (text.isBlank() || !text.equals(renaming) && piece().moment(text).isPresent()) {
            throw new IllegalArgumentException(
                    text.isBlank() ? "a moment has a name" : "another moment is called “" + text + "”");
        }
        String before = renaming;
        renaming = "";
        document.apply(PieceEdit.of("Rename a moment", piece -> {
            List<Moment> moments = new ArrayList<>(piece.moments());
            moments.set(place, moments.get(place).withName(text));
            return piece.withMoments(moments)
                    .withPads(piece.pads().stream()
                            .map(pad -> pad.does() == harpel.piece.perform.Pad.Does.MOMENT
                                            && pad.what().equals(before)
                                    ? pad.withWhat(text)
                                    : pad)
                            .toList());
        }));
        show();
    }

    private void change(int place, UnaryOperator<Moment> change) {
        edit("Change a moment", list -> list.set(place, change.apply(list.get(place))));
    }

    private void move(int place, int by) {
        edit("Move a moment", list -> {
            int to = Math.max(0, Math.min(list.size() - 1, place + by));
            list.add(to, list.remove(place));
        });
    }

    private void edit(String label, java.util.function.Consumer<List<Moment>> change) {
        document.apply(PieceEdit.of(label, piece -> {
            List<Moment> moments = new ArrayList<>(piece.moments());
            change.accept(moments);
            return piece.withMoments(moments);
        }));
    }
}
