package harpel.app.timeline;

import harpel.app.desk.TimelineDesk;
import harpel.app.desk.TimelineDesk.Snap;
import harpel.app.parts.PartCard;
import harpel.app.session.Session;
import harpel.app.ui.Buttons;
import harpel.app.ui.Field;
import harpel.app.ui.Space;
import harpel.engine.LiveStatus;
import harpel.piece.Mark;
import harpel.piece.Part;
import harpel.piece.Piece;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import javafx.geometry.Insets;
import javafx.geometry.Point2D;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.ToggleGroup;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Pane;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import javafx.scene.shape.Rectangle;

/** The Timeline view: the parts as rows, with their cards at the left, and blocks in them. */
public final class TimelineView extends BorderPane {
    private static final double CARDS_WIDE = 214;
    private static final double ZOOM = 1.5;

    private final Session session;
    private final TimelineDesk desk;
    private final TimelineWindow window = new TimelineWindow();
    private final Board board;
    private final BlockPanel panel;
    private final Map<String, PartCard> cards = new HashMap<>();
    private final Pane rows = new Pane();
    private final LanesArea lanes;
    private final WholeStrip whole;
    private final Label length = new Label();
    private final ToggleButton loops;
    private final ToggleButton timeline;
    private boolean fitted;
    private double drawnTop = -1;
    private double lastNow;
    private String shownPart = "";
    private double shownTall;
    private Piece drawn;

    public TimelineView(Session session) {
        this.session = session;
        this.desk = session.timeline();
        getStyleClass().add("phrase-view");
        setId("timeline-view");
        board = new Board(
                session.document(),
                session.selection(),
                session.look(),
                session.transport(),
                session.timeline(),
                session.timelineMade(),
                session.messages(),
                window);
        panel = new BlockPanel(
                session.document(),
                session.selection(),
                session.look(),
                session.desk(),
                session.timeline(),
                session.messages());
        ToggleGroup plays = new ToggleGroup();
        loops = Buttons.oneOf(
                plays,
                "Loops",
                "plays-loops",
                "Each part plays its phrase over and over",
                false,
                () -> desk.playsTimeline(false));
        timeline = Buttons.oneOf(
                plays,
                "Timeline",
                "plays-timeline",
                "Parts play in their blocks; one without blocks is always there",
                true,
                () -> desk.playsTimeline(true));
        ToggleGroup snaps = new ToggleGroup();
        FlowPane tools = new FlowPane(Space.CLOSE, Space.FINE, loops, timeline, gap(), new Label("Snap"));
        for (Snap snap : Snap.values()) {
            String words = snap.name().toLowerCase(Locale.ROOT);
            tools.getChildren()
                    .add(Buttons.oneOf(
                            snaps,
                            words,
                            "snap-" + words,
                            snap == Snap.OFF ? "Blocks begin and end anywhere" : "Blocks begin and end on " + words,
                            desk.snap().get() == snap,
                            () -> desk.snap().set(snap)));
        }
        Field bars = new Field("bars-count", "How many bars come or go, 1–999", this::barsTyped, session::say);
        bars.setPrefColumnCount(2);
        desk.bars().addListener((property, before, now) -> bars.show(now.toString()));
        bars.show("1");
        tools.getChildren()
                .addAll(
                        gap(),
                        Buttons.small(
                                "+",
                                "insert-bars",
                                "Makes room for so many bars in all parts, where now is",
                                desk::insertBars),
                        bars,
                        Buttons.small(
                                "−",
                                "take-out-bars",
                                "Takes so many bars out of all parts, from where now is",
                                desk::takeOutBars),
                        new Label("bars"),
                        gap(),
                        length,
                        Buttons.small(
                                "fit",
                                "timeline-fit",
                                "Shows all of it  (Ctrl+0); Ctrl+wheel shows more or less",
                                this::fit));
        tools.setAlignment(Pos.CENTER_LEFT);
        tools.setPadding(new Insets(Space.GAP, Space.EDGE, Space.CLOSE, Space.EDGE));
        length.getStyleClass().add("soft");
        length.setId("timeline-length");
        whole = new WholeStrip(session.document(), session.look(), window);
        HBox.setHgrow(whole, Priority.ALWAYS);
        Label all = new Label("All of it");
        all.getStyleClass().add("soft");
        all.setMinWidth(CARDS_WIDE);
        all.setPadding(new Insets(0, 0, 0, Space.EDGE));
        all.getStyleClass().add("part-panel");
        all.setMaxHeight(Double.MAX_VALUE);
        HBox wholeRow = new HBox(all, whole);
        wholeRow.setAlignment(Pos.CENTER_LEFT);
        setTop(new VBox(tools, wholeRow));
        VBox names = new VBox();
        for (Lanes lane : Lanes.values()) {
            Label name = new Label(lane.title);
            name.getStyleClass().add("soft");
            name.setMinHeight(Lanes.TALL);
            name.setPadding(new Insets(0, 0, 0, Space.EDGE));
            names.getChildren().add(name);
        }
        Rectangle clip = new Rectangle();
        clip.widthProperty().bind(rows.widthProperty());
        clip.heightProperty().bind(rows.heightProperty());
        rows.setClip(clip);
        VBox.setVgrow(rows, Priority.ALWAYS);
        rows.setMinHeight(0);
        VBox left = new VBox(names, rows);
        left.setMinWidth(CARDS_WIDE);
        left.setPrefWidth(CARDS_WIDE);
        left.getStyleClass().add("part-panel");
        HBox.setHgrow(board, Priority.ALWAYS);
        HBox middle = new HBox(left, board);
        setCenter(middle);
        lanes = new LanesArea(
                session.document(),
                session.selection(),
                session.look(),
                session.timeline(),
                session.writing(),
                session.messages(),
                window,
                CARDS_WIDE);
        setBottom(lanes);
        session.document().piece().addListener((property, before, now) -> show());
        session.selection().partId().addListener((property, before, now) -> show());
        show();
    }

    private void barsTyped(String text) {
        String bare = text.replaceAll("\\s*bars?$", "");
        if (!bare.matches("[1-9]\\d{0,2}")) {
            throw new IllegalArgumentException("so many bars come or go: 1–999, but it was “" + text + "”");
        }
        desk.bars().set(Integer.parseInt(bare));
    }

    private static Region gap() {
        Region gap = new Region();
        gap.setMinWidth(10);
        return gap;
    }

    private static Region space() {
        Region space = new Region();
        HBox.setHgrow(space, Priority.ALWAYS);
        return space;
    }

    /** What is picked and what can be done with it, for the right. */
    public Region panel() {
        return panel;
    }

    public void focusBoard() {
        board.requestFocus();
    }

    /** What lies behind the board, which keeps Tab for itself. */
    public List<Node> behind() {
        return List.of(lanes);
    }

    /** Whether a node is what letters belong to here. */
    public boolean isBoard(Node node) {
        return node == board;
    }

    /** Where on the screen a place, 0–1 of its range, of a lane below lies at a tick. */
    public Point2D lanePlace(int lane, double tick, double share) {
        return lanes.place(lane, tick, share);
    }

    /** Where on the screen a tick lies in a row, or with a row below 0 in a lane, −1 being the lowest. */
    public Point2D place(double tick, double row) {
        return board.place(tick, row);
    }

    public void zoom(boolean in) {
        board.zoom(in ? 1 / ZOOM : ZOOM, 0.5);
    }

    /** Scrolls by a share of what is seen. */
    public void scroll(double share) {
        window.scroll(share * window.ticks(), session.document().piece().get().timelineEnd());
    }

    public void fit() {
        window.fit(session.document().piece().get().timelineEnd());
    }

    /** Goes to the next mark, or the one before. */
    public void toMark(int by) {
        long now = desk.now();
        List<Mark> marks = session.document().piece().get().marks();
        Mark found = null;
        for (Mark mark : marks) {
            if (by > 0 && mark.tick() > now && found == null || by < 0 && mark.tick() < now) {
                found = mark;
            }
        }
        if (found == null) {
            session.say(by > 0 ? "There is no mark behind this place." : "There is no mark before this place.");
        } else {
            session.transport().player().locate(found.tick());
            window.reveal(found.tick());
            session.say("At “" + found.name() + "”, " + desk.place(found.tick()) + ".");
        }
    }

    private void show() {
        Piece piece = session.document().piece().get();
        lanes.show();
        loops.setSelected(!piece.timeline());
        timeline.setSelected(piece.timeline());
        long end = piece.timelineEnd();
        long seconds = Math.round(piece.time().tempo().nanosAt(end) / 1e9);
        long bars = end == 0 ? 0 : piece.time().meter().barAt(end - 1) + 1;
        length.setText(
                bars + (bars == 1 ? " bar · " : " bars · ") + seconds / 60 + ":" + String.format("%02d", seconds % 60));
    }

    /** The cards stand beside their rows. */
    private void place(Piece piece) {
        cards.keySet().retainAll(piece.parts().stream().map(Part::id).toList());
        rows.getChildren().clear();
        double y = -window.top() - TimelineWindow.ROW;
        for (Part part : piece.parts()) {
            y += TimelineWindow.ROW;
            if (y + TimelineWindow.ROW < 0 || y > rows.getHeight()) {
                // Only what is seen has to be there.
                continue;
            }
            PartCard card = cards.computeIfAbsent(
                    part.id(),
                    id -> new PartCard(
                            session.document(),
                            session.selection(),
                            session.transport(),
                            session.desk(),
                            session.messages(),
                            id));
            card.show(part, part.id().equals(session.selection().partId().get()));
            StackPane place = new StackPane(card);
            place.setPadding(new Insets(Space.TIGHT, Space.CLOSE, Space.TIGHT, Space.GAP));
            place.resizeRelocate(0, y, CARDS_WIDE, TimelineWindow.ROW);
            place.setPrefSize(CARDS_WIDE, TimelineWindow.ROW);
            place.setMaxSize(CARDS_WIDE, TimelineWindow.ROW);
            rows.getChildren().add(place);
        }
    }

    /** Draws a frame. */
    public void draw() {
        Piece piece = session.document().piece().get();
        if (!fitted) {
            fitted = true;
            fit();
        }
        session.timelineMade().ask();
        if (piece != drawn || window.top() != drawnTop || needsCards()) {
            drawn = piece;
            drawnTop = window.top();
            place(piece);
        }
        rows.getChildren()
                .forEach(place -> ((PartCard) ((StackPane) place).getChildren().get(0)).draw());
        double now = session.transport().songTick();
        boolean playing = session.transport().status().mode() == LiveStatus.Mode.PLAYING;
        boolean gone = playing ? window.shows(lastNow) : now != lastNow;
        if (gone && !window.shows(now)) {
            // It was seen, and runs out of sight; or someone went elsewhere.
            window.reveal(now);
        }
        lastNow = now;
        board.draw(now);
        whole.draw(now);
        panel.draw();
        lanes.draw();
    }

    private boolean needsCards() {
        String part = session.selection().partId().get();
        boolean needs = !part.equals(shownPart) || rows.getHeight() != shownTall;
        shownPart = part;
        shownTall = rows.getHeight();
        return needs;
    }
}
