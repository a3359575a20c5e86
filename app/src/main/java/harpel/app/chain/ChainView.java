package harpel.app.chain;

import harpel.advice.Advice;
import harpel.advice.Advisor;
import harpel.app.phrase.HeardStrip;
import harpel.app.session.Change;
import harpel.app.session.Made;
import harpel.app.session.Places;
import harpel.app.session.Places.Place;
import harpel.app.session.Session;
import harpel.app.session.TraceStore;
import harpel.app.session.Words;
import harpel.app.ui.Buttons;
import harpel.app.ui.Scrolling;
import harpel.app.ui.Space;
import harpel.chain.Branch;
import harpel.chain.Chain;
import harpel.chain.Stage;
import harpel.chain.StageAddress;
import harpel.chain.StageAddress.Step;
import harpel.effect.route.Split;
import harpel.engine.LiveStatus;
import harpel.event.NoteStart;
import harpel.piece.Part;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.SimpleObjectProperty;
import javafx.collections.SetChangeListener;
import javafx.geometry.Bounds;
import javafx.geometry.Insets;
import javafx.geometry.Point2D;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ToggleButton;
import javafx.scene.input.KeyCode;
import javafx.scene.input.MouseButton;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.ColumnConstraints;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;

/** The chain of the shown part as a score: input at the top, stages one under another, sound at the bottom. */
public final class ChainView extends BorderPane {
    private static final int MOST_COLUMNS = 3;
    /** Six rows and the lines between them. */
    private static final int TOGETHER = 12;

    private static final double INSERT_WIDE = 230;
    private static final double OVER_ROWS = 7;
    private static final double SHORTEST = 36;
    private static final double TALLEST = 150;
    /** Kept for a line or two that rows will say later. */
    private static final double SPARE = 44;
    /** So often height is shared out anew until all of it is. */
    private static final int SHARINGS = 12;

    private static final int COUNT_EVERY = 15;
    private static final int ADVISE_EVERY = 60;

    private final Session session;
    private final TimeWindow window = new TimeWindow();
    private final ObjectProperty<NoteStart> pointed = new SimpleObjectProperty<>();
    private final ChainHead head;
    private final HeardStrip heard;
    private final Ruler ruler;
    private double tall = SHORTEST;
    private double sharedRoom;
    private List<Place> sharedPlaces = List.of();
    private int sharing;
    private final VBox rows = new VBox();
    private final Scrolling scroll = new Scrolling(rows);
    /** Since when the chain stands as it stands: what came before it did says nothing of it. */
    private double standsSince = Double.NEGATIVE_INFINITY;

    private double countsSince = Double.NEGATIVE_INFINITY;
    private long movedBefore;

    private final Map<String, StageRow> kept = new HashMap<>();
    private final List<StageRow> shown = new ArrayList<>();
    private List<Advice> advice = List.of();
    private Change lastChange;
    private final List<TraceStore.Drawn> found = new ArrayList<>();
    private long frame;

    public ChainView(Session session) {
        this.session = session;
        getStyleClass().add("chain-view");
        head = new ChainHead(session, window);
        rows.setPadding(new Insets(0, Space.ROOM, Space.HAIR, Space.EDGE));
        rows.setId("rows");
        rows.getStyleClass().add("rows");
        ruler = new Ruler(session, window);
        setTop(new VBox(head, ruler));
        setCenter(scroll);
        heard = new HeardStrip(session);
        setBottom(heard);
        session.document().onChange(change -> lastChange = change);
        session.document().piece().addListener((property, before, now) -> take(lastChange));
        session.selection().partId().addListener((property, before, now) -> build());
        session.selection().selected().addListener((property, before, now) -> {
            select();
            // Only then: an edit does not take back what a hand has scrolled to.
            selectedRow().ifPresent(scroll::reveal);
        });
        session.look().folded().addListener((SetChangeListener<StageAddress>) change -> build());
        head.difference().addListener((property, before, now) -> select());
        pointed.addListener((property, before, now) -> head.point(now));
        build();
    }

    /** Shows something over the rows, or with null the rows. */
    public void cover(Node over) {
        setCenter(over == null ? scroll : over);
        ruler.setVisible(over == null);
        ruler.setManaged(over == null);
        heard.setVisible(over == null);
        heard.setManaged(over == null);
    }

    public TimeWindow window() {
        return window;
    }

    /** Gives the keyboard to the row of the selected stage. */
    public void focusSelected() {
        selectedRow().ifPresent(Node::requestFocus);
    }

    private Optional<StageRow> selectedRow() {
        return shown.stream()
                .filter(row -> row.address != null
                        && row.address.equals(session.selection().selected().get()))
                .findFirst();
    }

    public void toggleDifference() {
        head.difference().set(!head.difference().get());
    }

    /** Makes the rows anew where stages come or go; a value that is set changes what its row says. */
    private void take(Change change) {
        if (!change.parts().isEmpty()) {
            standsSince = window.nowTick();
            if (session.transport().status().mode() == LiveStatus.Mode.STOPPED) {
                // What the stages made before is forgotten, so what came in before counts for nothing.
                countsSince = window.nowTick();
            }
        }
        if (!change.onlyValues(session.selection().partId().get())) {
            build();
            return;
        }
        advice = Advisor.chain(
                session.document().piece().get(), session.selection().part());
        for (StageRow row : shown) {
            if (row.address != null) {
                session.selection().stage(row.address).ifPresent(stage -> show(row, stage));
            }
        }
    }

    private void show(StageRow row, Stage stage) {
        row.showStage(stage, session.document().piece().get().key());
        row.showAdvice(advice.stream()
                .filter(one -> row.address.chainWay().isEmpty() && one.stage().equals(stage.id()))
                .findFirst()
                .orElse(null));
    }

    private void build() {
        Part part = session.selection().part();
        head.show();
        rows.getChildren().clear();
        rows.pseudoClassStateChanged(
                javafx.css.PseudoClass.getPseudoClass("off"), part.rack().off());
        shown.clear();
        StageRow input = row(null, Places.input(part.id()), false);
        input.showWords("Input", Words.takes(session.document().piece().get(), part));
        rows.getChildren().add(input);
        advice = Advisor.chain(session.document().piece().get(), part);
        addChain(rows, part.chain(), List.of());
        gather();
        StageRow sound = row(null, Places.sound(part.id()), false);
        sound.showWords(
                "Sound", (part.port().isEmpty() ? part.sound() : part.port()) + " · channel " + (part.channel() + 1));
        rows.getChildren().add(sound);
        // Folding leaves the other rows where the hand has them.
        List<Place> places = shown.stream().map(StageRow::place).toList();
        if (!places.equals(sharedPlaces)) {
            sharedPlaces = places;
            sharing = SHARINGS;
        }
        kept.keySet().removeIf(place -> shown.stream().noneMatch(one -> one == kept.get(place)));
        select();
    }

    /**
     * Gathers the rows of a long chain in boxes of a few: where more than a dozen children of one node change in a frame, all of it
     * is drawn anew, words and all.
     */
    private void gather() {
        List<Node> nodes = List.copyOf(rows.getChildren());
        rows.getChildren().clear();
        for (int from = 0; from < nodes.size(); from += TOGETHER) {
            VBox box = new VBox();
            box.getChildren().addAll(nodes.subList(from, Math.min(nodes.size(), from + TOGETHER)));
            rows.getChildren().add(box);
        }
    }

    private StageRow row(StageAddress address, Place place, boolean narrow) {
        StageRow row = kept.computeIfAbsent(
                place.part() + "|" + place.name() + "|" + narrow, key -> makeRow(address, place, narrow));
        shown.add(row);
        row.tall(tall);
        return row;
    }

    private StageRow makeRow(StageAddress address, Place place, boolean narrow) {
        StageRow row = new StageRow(session, window, pointed, address, place, narrow);
        if (address != null) {
            row.setOnMousePressed(event -> {
                row.requestFocus();
                session.selection().selected().set(address);
            });
            row.setOnKeyPressed(event -> {
                boolean up = event.getCode() == KeyCode.UP;
                if ((up || event.getCode() == KeyCode.DOWN) && !event.isAltDown() && !event.isShortcutDown()) {
                    StageActions.step(session, up ? -1 : 1);
                    focusSelected();
                    event.consume();
                }
            });
            row.setOnMouseClicked(event -> {
                if (event.getClickCount() == 2 && event.isStillSincePress()) {
                    session.look().large().set(true);
                }
            });
            row.setOnMouseDragged(event -> {
                if (event.getButton() == MouseButton.PRIMARY) {
                    row.setViewOrder(-1);
                    row.getParent().setViewOrder(-1);
                    row.setTranslateY(row.getTranslateY() + event.getY() - row.getHeight() / 2);
                }
            });
            row.setOnMouseReleased(event -> {
                if (row.getTranslateY() != 0) {
                    row.setTranslateY(0);
                    row.setViewOrder(0);
                    row.getParent().setViewOrder(0);
                    drop(address, event.getSceneY());
                }
            });
        }
        return row;
    }

    /** Moves a dragged stage to where it was let go, among the stages of its own chain. */
    private void drop(StageAddress address, double sceneY) {
        int place = 0;
        for (StageRow other : shown) {
            boolean sameChain = other.address != null
                    && !other.address.equals(address)
                    && other.address.chainWay().equals(address.chainWay());
            if (sameChain) {
                Point2D middle = other.localToScene(0, other.getHeight() / 2);
                place += middle.getY() < sceneY ? 1 : 0;
            }
        }
        int target = place;
        session.selection()
                .edit(
                        "Move "
                                + session.selection()
                                        .stage(address)
                                        .map(Stage::name)
                                        .orElse("stage"),
                        "",
                        address.chainWay(),
                        chain -> chain.moved(address.stageId(), target));
    }

    private void addChain(VBox column, Chain chain, List<Step> way) {
        String part = session.selection().partId().get();
        for (int i = 0; i < chain.stages().size(); i++) {
            Stage stage = chain.stages().get(i);
            column.getChildren().add(insertLine(way, i));
            StageAddress address = StageAddress.of(part, way, stage.id());
            StageRow row = row(address, Places.at(address), !way.isEmpty());
            show(row, stage);
            column.getChildren().add(row);
            if (!stage.branches().isEmpty() && !session.look().isFolded(address)) {
                column.getChildren().add(branches(stage, address));
            }
        }
        Node last = insertLine(way, chain.stages().size());
        if (way.isEmpty()) {
            // At the end of the chain it is always to be seen.
            last.getStyleClass().add("insert-last");
        }
        column.getChildren().add(last);
    }

    /** The branches of a split side by side; one under another where they lie in a branch themselves. */
    private GridPane branches(Stage stage, StageAddress address) {
        GridPane grid = new GridPane();
        grid.setHgap(Space.CLOSE);
        grid.setVgap(Space.FINE);
        int columns = address.chainWay().isEmpty()
                ? Math.min(MOST_COLUMNS, stage.branches().size())
                : 1;
        for (int i = 0; i < columns; i++) {
            ColumnConstraints share = new ColumnConstraints();
            share.setPercentWidth(100.0 / columns);
            grid.getColumnConstraints().add(share);
        }
        for (int b = 0; b < stage.branches().size(); b++) {
            VBox column = new VBox();
            column.getStyleClass().add("branch");
            column.getChildren().add(branchHead(stage, b, address.branch(b + 1)));
            Chain inside = stage.branches().get(b).chain();
            addChain(column, inside, address.branchWay(b + 1));
            if (inside.stages().isEmpty()) {
                Label dry = new Label("Notes pass unchanged.");
                dry.getStyleClass().add("soft");
                column.getChildren().add(dry);
            }
            grid.add(column, b % columns, b / columns);
        }
        return grid;
    }

    private Node branchHead(Stage stage, int number, StageAddress address) {
        Branch branch = stage.branches().get(number);
        Button head = Buttons.button(
                (number + 1) + " takes " + Split.describeTakes(branch.takes())
                        + (branch.chain().stages().isEmpty() ? " · dry" : ""),
                "branch-" + stage.id() + "-" + (number + 1),
                "Choose which notes branch " + (number + 1) + " takes",
                () -> session.selection().selected().set(address));
        head.getStyleClass().add("branch-head");
        head.setMinWidth(0);
        head.setMaxWidth(Double.MAX_VALUE);
        HBox.setHgrow(head, Priority.ALWAYS);
        ToggleButton solo = Buttons.toggle(
                "solo",
                "solo-" + stage.id() + "-" + (number + 1),
                "Hear only this branch, and others that are solo",
                on -> session.selection()
                        .editStage(
                                "Solo branch " + (number + 1),
                                "",
                                address,
                                one -> one.withTakes(number + 1, takes -> takes.with(Split.SOLO, on))));
        solo.setAccessibleText("Solo branch " + (number + 1));
        solo.setSelected(branch.takes().get(Split.SOLO));
        HBox line = new HBox(Space.TIGHT, head, solo);
        line.setAlignment(javafx.geometry.Pos.CENTER_LEFT);
        return line;
    }

    private Node insertLine(List<Step> way, int place) {
        String ways = way.stream()
                .map(step -> step.stage() + "-" + step.branch() + "-")
                .reduce("", String::concat);
        Button line = Buttons.button(
                "+ add effect",
                "insert-" + ways + place,
                "Add an effect here  (Ctrl+E adds after the selected stage)",
                () -> {});
        line.getStyleClass().add("insert-line");
        boolean last = place == session.selection().chainAt(way).stages().size();
        line.setMaxWidth(last ? Double.MAX_VALUE : INSERT_WIDE);
        if (!last) {
            // As tall as a target has to be, over the edges of the rows beside it, and only where no trace is taken
            // from the hand.
            VBox.setMargin(line, new Insets(-OVER_ROWS, 0, -OVER_ROWS, 0));
            line.setViewOrder(-1);
        }
        line.setOnAction(event -> EffectMenu.show(line, session, way, place));
        return line;
    }

    private void select() {
        boolean difference = head.difference().get();
        for (StageRow row : shown) {
            boolean selected = row.address != null
                    && row.address.equals(session.selection().selected().get());
            row.setSelected(selected, difference);
        }
    }

    /** Draws a frame. */
    public void draw(long nanos) {
        long moved = session.transport().traces().movedInAll();
        standsSince -= moved - movedBefore;
        countsSince -= moved - movedBefore;
        movedBefore = moved;
        lookAhead();
        heard.draw();
        window.follow(session.transport().traces());
        window.follow(session.transport().status(), session.document().piece().get(), nanos);
        if (frame % COUNT_EVERY == 0) {
            fitPitches();
            shown.forEach(row -> row.showCount(
                    row.address == null ? -1 : count(Places.before(session, row.address), window.toTick())));
            shown.forEach(StageRow::showAgain);
            head.draw();
        }
        if (frame++ % ADVISE_EVERY == 0) {
            advise();
        }
        if (getCenter() != scroll) {
            return;
        }
        shown.forEach(StageRow::draw);
        shareHeight();
        Bounds trace = shown.get(0).traceIn(ruler);
        if (trace != null) {
            ruler.draw(trace.getMinX() + TraceCanvas.EDGE, trace.getWidth() - 2 * TraceCanvas.EDGE);
        }
    }

    /**
     * While time stands and there is nothing of what the chain made, what it is going to make is shown: the phrase at the input before it
     * is played, and after an edit never what another chain made.
     */
    private void lookAhead() {
        Part part = session.selection().part();
        TraceStore traces = session.transport().traces();
        boolean wanted = session.transport().status().mode() == LiveStatus.Mode.STOPPED
                && !window.isFrozen()
                && traces.isBlank(part.id());
        if (wanted) {
            session.made().ask(session.document().piece().get(), part.id());
        }
        Made.Result result = session.made().result().get();
        boolean there = wanted && result != null && result.part().equals(part.id());
        traces.showAhead(there ? result : null);
        window.ahead(there);
    }

    /** Rows are as tall as there is height for all of them. */
    private void shareHeight() {
        double room = scroll.getViewportBounds().getHeight();
        if (room != sharedRoom) {
            sharedRoom = room;
            sharing = SHARINGS;
        }
        // Only after rows have come or gone or the window has another size: what is said under a row moves no other
        // row.
        if (sharing == 0 || room <= 0 || rows.isNeedsLayout()) {
            return;
        }
        sharing--;
        double left = Math.floor((room - SPARE - rows.getHeight()) / shown.size());
        double wanted = Math.max(SHORTEST, Math.min(TALLEST, tall + left));
        // A row of branches side by side takes less than its share; what is left then goes round again.
        if (wanted != tall) {
            tall = wanted;
            shown.forEach(row -> row.tall(tall));
        }
    }

    private int count(Place place, double to) {
        return countSince(place, countsSince, to);
    }

    private int countSince(Place place, double since, double to) {
        double from = window.isAhead() ? window.fromTick() : Math.max(window.fromTick(), since);
        return from >= to ? 0 : session.transport().traces().countWithin(place, (long) from, (long) to);
    }

    private List<TraceStore.Drawn> within(Place place, double to) {
        session.transport().traces().within(place, (long) window.fromTick(), (long) to, found);
        return found;
    }

    private void fitPitches() {
        String part = session.selection().partId().get();
        window.resetPitches();
        for (Place place : List.of(Places.input(part), Places.sound(part))) {
            within(place, window.toTick()).forEach(drawn -> window.include(drawn.note.pitch()));
        }
    }

    /** Says what the notes of the last bars show: where they stop, and how many leave the key. */
    private void advise() {
        Part part = session.selection().part();
        standsSince = Math.min(standsSince, window.nowTick());
        countsSince = Math.min(countsSince, window.nowTick());
        // What came in within the last bar may still be on its way.
        double settled = window.toTick() - (window.toTick() - window.fromTick()) / window.bars();
        Optional<Advice> full =
                Advisor.tooMany(part, session.transport().traces().fullSince(part.id(), window.fromTick()));
        Optional<Advice> stop = part.rack().off() || full.isPresent()
                ? full
                : Advisor.notesStop(
                        part,
                        countSince(Places.input(part.id()), standsSince, settled),
                        id -> countSince(
                                Places.at(StageAddress.of(part.id(), List.of(), id)), standsSince, window.toTick()));
        Set<Integer> pitches = new TreeSet<>();
        within(Places.sound(part.id()), window.toTick()).forEach(drawn -> pitches.add(drawn.note.pitch()));
        Advice leaves = Advisor.leavesTheKey(session.document().piece().get(), part, pitches)
                .orElse(null);
        for (StageRow row : shown) {
            if (row.address != null) {
                row.showLiveAdvice(stop.filter(one ->
                                row.address.chainWay().isEmpty() && one.stage().equals(row.address.stageId()))
                        .orElse(null));
            } else if (row.place().equals(Places.sound(part.id()))) {
                row.showLiveAdvice(leaves);
            }
        }
    }
}
