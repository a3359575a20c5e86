package harpel.app.timeline;

import harpel.app.desk.TimelineDesk;
import harpel.app.document.Document;
import harpel.app.document.Selection;
import harpel.app.look.Look;
import harpel.app.look.Messages;
import harpel.app.perform.Writing;
import harpel.app.ui.Buttons;
import harpel.app.ui.Menus;
import harpel.app.ui.Space;
import harpel.chain.Stage;
import harpel.chain.StageAddress;
import harpel.move.Moves;
import harpel.param.Param;
import harpel.piece.Lane;
import harpel.piece.Part;
import harpel.piece.Piece;
import harpel.piece.PieceEdit;
import harpel.piece.perform.Lever;
import java.util.List;
import javafx.geometry.Insets;
import javafx.geometry.Point2D;
import javafx.geometry.Pos;
import javafx.scene.control.Label;
import javafx.scene.control.Menu;
import javafx.scene.control.MenuButton;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.ToggleButton;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;

/** The lanes of points with their names at the left, and a way to begin one. */
final class LanesArea extends VBox {
    private static final int MOST_SEEN = 4;

    private final Document document;
    private final Selection selection;
    private final Messages messages;
    private final PointLanes lanes;
    private final VBox names = new VBox();
    private final HBox row;
    private final ScrollPane scroll;
    private final MenuButton add = Menus.button(
            "+ lane",
            "add-lane",
            "Lets a lever, a value of a stage, its switch, or the mute of the chosen part go by points along the timeline",
            button -> fill());
    private final Label more = new Label();
    private final double namesWide;
    /** What the names say; null before the first time, since of no lanes nothing has to be seen either. */
    private List<String> shown;

    LanesArea(
            Document document,
            Selection selection,
            Look look,
            TimelineDesk timeline,
            Writing writing,
            Messages messages,
            TimelineWindow window,
            double namesWide) {
        this.document = document;
        this.selection = selection;
        this.messages = messages;
        this.namesWide = namesWide;
        lanes = new PointLanes(document, look, timeline, messages, window);
        HBox.setHgrow(lanes, Priority.ALWAYS);
        names.setMinWidth(namesWide);
        names.setPrefWidth(namesWide);
        names.setMaxWidth(namesWide);
        names.getStyleClass().add("part-panel");
        row = new HBox(names, lanes);
        scroll = new ScrollPane(row);
        scroll.setFitToWidth(true);
        scroll.setHbarPolicy(ScrollPane.ScrollBarPolicy.NEVER);
        // A bar would take its width from the lanes alone, and times would not stand under one another any more.
        scroll.setVbarPolicy(ScrollPane.ScrollBarPolicy.NEVER);
        scroll.getStyleClass().add("lanes-scroll");
        scroll.setFocusTraversable(false);
        add.getStyleClass().add("small-toggle");
        Label hint = new Label("brass line: through the chain · dots: ready, past it");
        hint.getStyleClass().add("soft");
        HBox left = new HBox(add);
        left.setMinWidth(namesWide);
        left.setPadding(new Insets(0, 0, 0, Space.EDGE));
        Region space = new Region();
        HBox.setHgrow(space, Priority.ALWAYS);
        more.getStyleClass().add("soft");
        ToggleButton write = Buttons.toggle(
                "Write moves",
                "write",
                "While the timeline plays, levers, mutes and switches that are moved become points of its lanes; one undo"
                        + "  (Ctrl+Alt+W)",
                on -> writing.toggle());
        ToggleButton adding = Buttons.toggle(
                "Only touched",
                "write-adding",
                "What stands written gives way only while it is touched; else from the first touch to the end",
                writing.adding()::set);
        writing.armed().addListener((property, before, now) -> write.setSelected(now));
        write.selectedProperty()
                .addListener((property, before, now) ->
                        write.setSelected(writing.armed().get()));
        HBox foot = new HBox(Space.GAP, left, write, adding, hint, space, more);
        foot.setAlignment(Pos.CENTER_LEFT);
        foot.setPadding(new Insets(Space.TIGHT, Space.EDGE, Space.CLOSE, 0));
        setId("lanes");
        getChildren().addAll(scroll, foot);
        show();
    }

    /** Where on the screen a place, 0–1 of its range, of a lane lies. */
    Point2D place(int lane, double tick, double share) {
        return lanes.place(lane, tick, share);
    }

    void show() {
        Piece piece = document.piece().get();
        List<Lane<?>> all = lanes.lanes();
        List<String> words = all.stream().map(lane -> words(piece, lane)).toList();
        if (!words.equals(shown)) {
            shown = words;
            names.getChildren().clear();
            for (int i = 0; i < all.size(); i++) {
                names.getChildren().add(name(piece, all.get(i), words.get(i), i));
            }
            double tall = all.size() * PointLanes.TALL;
            row.setMinHeight(tall);
            row.setPrefHeight(tall);
            row.setMaxHeight(tall);
            double seen = Math.min(all.size(), MOST_SEEN) * PointLanes.TALL;
            scroll.setMinHeight(seen);
            scroll.setPrefHeight(seen);
            scroll.setMaxHeight(seen);
            more.setText(all.size() > MOST_SEEN ? all.size() + " lanes: the wheel shows the others" : "");
        }
    }

    private static String words(Piece piece, Lane<?> lane) {
        return lane.name(piece)
                + piece.part(lane.part()).map(part -> " · " + part.name()).orElse("");
    }

    private HBox name(Piece piece, Lane<?> lane, String words, int place) {
        Label name = new Label(words);
        name.getStyleClass().add("soft");
        name.setWrapText(true);
        name.setMaxWidth(namesWide - 50);
        Region space = new Region();
        HBox.setHgrow(space, Priority.ALWAYS);
        HBox box = new HBox(Space.TIGHT, name, space);
        box.getChildren()
                .add(Buttons.remove(
                        "remove-lane-" + place,
                        "the points of " + lane.name(piece),
                        () -> document.apply(PieceEdit.of("Remove points of " + lane.name(piece), lane::removed))));
        box.setAlignment(Pos.CENTER_LEFT);
        box.setMinHeight(PointLanes.TALL);
        box.setMaxHeight(PointLanes.TALL);
        box.setPadding(new Insets(0, Space.CLOSE, 0, Space.EDGE));
        return box;
    }

    private void fill() {
        Part part = selection.part();
        add.getItems().clear();
        List<Lever> levers = document.piece().get().levers();
        for (int i = 0; i < levers.size(); i++) {
            String lever = levers.get(i).name();
            add.getItems()
                    .add(Menus.item("Lever “" + lever + "”", "lane-lever-" + i, () -> begin(new Lane.OfLever(lever))));
        }
        add.getItems().add(Menus.item("Mute of " + part.name(), "lane-mute", () -> begin(new Lane.OfMute(part.id()))));
        Lane.eachStage(part.id(), List.of(), part.chain(), this::fill);
    }

    private void fill(StageAddress address, Stage stage) {
        if (!stage.isKnown()) {
            return;
        }
        Menu menu = new Menu(stage.name());
        menu.setId("lanes-" + stage.id());
        for (Param<?> param : stage.params().spec().params()) {
            if (Moves.canMove(stage.kind(), param)) {
                menu.getItems()
                        .add(Menus.item(
                                param.label(), "lane-" + param.id(), () -> begin(new Lane.OfStage<>(address, param))));
            }
        }
        if (!menu.getItems().isEmpty()) {
            add.getItems().add(menu);
        }
    }

    /** Begins a lane where the timeline begins, with what holds. */
    private <T> void begin(Lane<T> lane) {
        Piece piece = document.piece().get();
        if (!lane.points(piece).isEmpty()) {
            messages.say(lane.name(piece) + " has its lane already.");
            return;
        }
        document.apply(PieceEdit.of("Lane of " + lane.name(piece), before -> lane.with(before, 0, lane.base(before))));
        messages.say("Press in the lane of " + lane.name(piece) + " to set points.");
    }

    /** Draws a frame. */
    void draw() {
        lanes.drawFrame();
    }
}
