package harpel.app.phrase;

import harpel.app.desk.PhraseDesk;
import harpel.app.print.PrintButtons;
import harpel.app.session.Session;
import harpel.app.transport.Made;
import harpel.app.transport.Places;
import harpel.app.transport.TraceStore.Drawn;
import harpel.app.ui.Buttons;
import harpel.app.ui.Choice;
import harpel.app.ui.NameLabel;
import harpel.app.ui.Space;
import harpel.app.ui.Tips;
import harpel.engine.LiveStatus;
import harpel.phrase.Phrase;
import harpel.phrase.action.Shapes;
import harpel.piece.Piece;
import harpel.theory.GeneralMidi;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import javafx.geometry.Insets;
import javafx.geometry.Point2D;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.ToggleGroup;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;

/** The Phrase view: the roll with its lanes, and the words and buttons above them. */
public final class PhraseView extends BorderPane {
    /** How wide the names beside the lanes are. */
    private static final double NAMES = 74;

    private static final double CLOSER = 1.4;
    private static final int FIT_FRAMES = 40;

    private final Session session;
    private final PhraseDesk desk;
    /** What was seen of each phrase that was shown before. */
    private final Map<String, RollWindow.Place> places = new HashMap<>();

    private final RollWindow window = new RollWindow();
    private final NameLabel title = new NameLabel();
    private final Label about = new Label();
    private final PrintButtons print;
    private final ToggleButton past;
    private final ToggleButton draw;
    private final ToggleButton pick;
    private final ToggleButton step;
    private final Choice<String> grid;
    private final Label drawn = new Label();
    private final Label none = new Label();
    private final VBox nothing = new VBox(Space.EDGE);
    private static final double GRID_WIDE = 104;
    private final StackPane center = new StackPane();
    private final VBox laneNames = new VBox(0);
    private final StepInput steps;
    private final HeardStrip heard;
    private final VBox page;
    private final Roll roll;
    private final Lane lane;
    private final Overview overview;
    private String shownId = "";
    private final NotesPanel panel;
    private final MakerPanel maker;
    private final ToggleButton make;
    private final BorderPane right = new BorderPane();
    /** For so many frames more all is brought into view. */
    private int fitting;

    /** @param read asks for a MIDI file and reads it as a phrase */
    public PhraseView(Session session, Runnable read) {
        this.session = session;
        this.desk = session.desk();
        setId("phrase-view");
        getStyleClass().add("phrase-view");
        steps = new StepInput(session.selection(), session.transport(), session.desk());
        heard = new HeardStrip(
                session.document(),
                session.selection(),
                session.look(),
                session.transport(),
                session.desk(),
                session.keeping(),
                session.messages());
        title.getStyleClass().add("part-title");
        about.setId("phrase-about");
        about.getStyleClass().add("soft");
        about.setMinWidth(0);
        print = new PrintButtons(
                session.document(), session.selection(), session.variations(), session.printing(), "phrase");
        make = Buttons.toggle(
                "make…",
                "make-phrase",
                "Makes melodies, chords and rhythms to take into a phrase, seen and heard first  (Ctrl+Shift+M)",
                desk.making()::set);
        past = Buttons.toggle(
                "Ready",
                "phrase-ready",
                "A phrase that is the result of a chain already is heard past it; switched off it goes through the chain",
                on -> PhraseActions.ready(session.document(), desk.phraseId().get()));
        HBox first = new HBox(Space.ROOM, title, about, space(), make, print, past);
        first.setAlignment(Pos.CENTER_LEFT);
        ToggleGroup tools = new ToggleGroup();
        draw = tool("Draw", "tool-draw", "Press and drag draws a note; Shift and drag picks  (Ctrl+D)", tools, true);
        pick = tool("Pick", "tool-pick", "Press and drag picks notes by a frame  (Ctrl+D)", tools, false);
        grid = new Choice<>(
                "grid", "The grid that notes are drawn and moved on", text -> "grid " + text, desk.grid()::set);
        grid.setPrefWidth(GRID_WIDE);
        grid.setMinWidth(GRID_WIDE);
        ToggleButton inKey = Buttons.toggle("in key", "in-key", "Draws and moves within the key", desk.inKey()::set);
        ToggleButton show = Buttons.toggle(
                "what the chain makes",
                "show-made",
                "Shows in brass what the chain makes of the phrase",
                desk.showMade()::set);
        show.setSelected(desk.showMade().get());
        step = Buttons.toggle(
                "step",
                "step",
                "Keys and chords that are played go in at the mark, which moves on by the grid; full stop is a rest, comma ties  (Ctrl+E)",
                desk.stepping()::set);
        desk.stepping().addListener((property, before, now) -> step.setSelected(now));
        drawn.setId("drawn-length");
        drawn.getStyleClass().add("soft");
        drawn.setMinWidth(0);
        Tips.set(
                drawn,
                "How long the next note is drawn: like the last one, but no longer than the grid unless you set it");
        desk.drawnLength().addListener((property, before, now) -> showDrawn());
        FlowPane second = new FlowPane(
                Space.CLOSE,
                Space.FINE,
                draw,
                pick,
                grid,
                drawn,
                inKey,
                step,
                show,
                Buttons.small(
                        "fit",
                        "roll-fit",
                        "Shows the whole phrase  (Ctrl+0); Ctrl+wheel shows more or less",
                        this::fit));
        second.setAlignment(Pos.CENTER_LEFT);
        VBox head = new VBox(Space.CLOSE, first, second);
        head.setPadding(new Insets(Space.GAP, Space.EDGE, Space.CLOSE, Space.EDGE));
        setTop(head);
        none.setId("no-phrase");
        none.getStyleClass().add("part-title");
        Label how = new Label(
                "A phrase is what a chain works on: drawn here, played in, made, or read from a MIDI file. The list at the left has"
                        + " those of other parts.");
        how.setWrapText(true);
        how.getStyleClass().add("soft");
        Button begin = Buttons.button(
                "New phrase",
                "begin-phrase",
                "An empty phrase of four bars, heard by the chosen part",
                () -> PhraseActions.fresh(session.document(), session.selection(), session.desk(), session.messages()));
        Button beginMaking = Buttons.button(
                "Make one…",
                "begin-making",
                "Melodies, chords and rhythms to choose from  (Ctrl+Shift+M)",
                () -> desk.making().set(true));
        right.getStyleClass().add("inspector");
        Button beginReading = Buttons.button(
                "From a MIDI file…",
                "begin-reading",
                "Reads a MIDI file as the phrase of the chosen part  (Ctrl+I)",
                read);
        nothing.getChildren().addAll(none, how, new HBox(Space.GAP, begin, beginMaking, beginReading));
        nothing.setPadding(new Insets(Space.FAR));
        roll = new Roll(
                session.document(),
                session.look(),
                session.transport(),
                session.desk(),
                session.recorder(),
                session.made(),
                session.messages(),
                window);
        lane = new Lane(session.look(), session.desk(), window);
        overview = new Overview(session.look(), session.desk(), window);
        panel = new NotesPanel(session.document(), session.desk(), session.made(), session.messages(), roll);
        maker = new MakerPanel(
                session.document(),
                session.selection(),
                session.look(),
                session.desk(),
                session.audition(),
                session.messages());
        desk.making().addListener((property, before, now) -> {
            make.setSelected(now);
            if (now && desk.phrase().isEmpty()) {
                // What is made is seen in a roll.
                PhraseActions.fresh(session.document(), session.selection(), session.desk(), session.messages());
            }
            if (desk.phrase().isPresent()) {
                right.setCenter(now ? maker : panel);
            }
        });
        page = makePage();
        setCenter(center);
        setBottom(heard);
        session.document().piece().addListener((property, before, now) -> show());
        desk.phraseId().addListener((property, before, now) -> take());
        session.selection().partId().addListener((property, before, now) -> show());
        take();
    }

    private ToggleButton tool(String words, String id, String tip, ToggleGroup group, boolean drawing) {
        ToggleButton button = Buttons.oneOf(
                group,
                words,
                id,
                tip,
                desk.drawing().get() == drawing,
                () -> desk.drawing().set(drawing));
        desk.drawing().addListener((property, before, now) -> button.setSelected(now == drawing));
        return button;
    }

    private static Region space() {
        Region space = new Region();
        HBox.setHgrow(space, Priority.ALWAYS);
        return space;
    }

    /** Another phrase is shown, as it was seen last. */
    private void take() {
        if (!shownId.isEmpty()) {
            places.put(shownId, window.place());
        }
        Phrase phrase = desk.phrase().orElse(null);
        shownId = phrase == null ? "" : phrase.id();
        roll.pointed().set(null);
        if (phrase == null) {
            desk.making().set(false);
            right.setCenter(null);
            center.getChildren().setAll(nothing);
        } else {
            RollWindow.Place place = places.get(shownId);
            fitting = place == null ? FIT_FRAMES : 0;
            if (place != null) {
                window.go(place);
            }
            right.setCenter(desk.making().get() ? maker : panel);
            center.getChildren().setAll(page);
        }
        show();
    }

    private VBox makePage() {
        VBox.setVgrow(roll, Priority.ALWAYS);
        ToggleGroup lanes = new ToggleGroup();
        for (Lane.Of one : Lane.Of.values()) {
            ToggleButton button = Buttons.toggle(
                    one.words,
                    "lane-" + one.name().toLowerCase(java.util.Locale.ROOT),
                    "Shows " + one.words.toLowerCase(java.util.Locale.ROOT) + " below the roll",
                    on -> {});
            button.getStyleClass().add("lane-name");
            button.setToggleGroup(lanes);
            button.setSelected(one == lane.of().get());
            button.setOnAction(event -> {
                button.setSelected(true);
                if (one == Lane.Of.CONTROLLER) {
                    // Pressed again it shows the next of those the phrase holds.
                    if (lane.of().get() == one) {
                        lane.nextController();
                    }
                    button.setText("CC " + lane.controller().get());
                    Tips.set(
                            button,
                            GeneralMidi.controller(lane.controller().get())
                                    + "; again shows the next controller that the phrase holds");
                }
                lane.of().set(one);
            });
            laneNames.getChildren().add(button);
        }
        StackPane lanePlace = new StackPane(lane);
        HBox.setHgrow(lanePlace, Priority.ALWAYS);
        HBox laneRow = new HBox(0, laneNames, lanePlace);
        laneNames.setMinWidth(NAMES);
        laneNames.setPrefWidth(NAMES);
        HBox overviewRow = new HBox(0, overview);
        HBox.setHgrow(overview, Priority.ALWAYS);
        // The lane lies exactly under the field of the roll.
        VBox.setMargin(roll, new Insets(0, 0, 0, NAMES - Roll.GUTTER));
        VBox.setMargin(overviewRow, new Insets(0, 0, 0, NAMES));
        VBox made = new VBox(Space.CLOSE, roll, laneRow, overviewRow);
        made.setPadding(new Insets(0, Space.EDGE, Space.GAP, Space.GAP));
        return made;
    }

    /** What is picked and what can be done with it, for the right. */
    public Region panel() {
        return right;
    }

    private void showDrawn() {
        drawn.setText("draws " + desk.drawnLengthInWords());
    }

    private void show() {
        showDrawn();
        Piece piece = session.document().piece().get();
        Phrase phrase = desk.phrase().orElse(null);
        grid.show(PhraseDesk.GRIDS, desk.grid().get());
        past.setVisible(phrase != null);
        print.setVisible(phrase != null && session.selection().part().phrase().equals(phrase.id()));
        if (phrase == null) {
            title.setText("Phrase");
            about.setText("");
            none.setText(session.selection().part().name() + " plays no phrase.");
            return;
        }
        title.setText(phrase.name());
        String origin = PhraseWords.origin(piece, phrase.origin());
        about.setText(PhraseWords.length(piece, phrase) + " · " + PhraseWords.heard(piece, phrase)
                + (origin.isEmpty() ? "" : " · " + origin));
        Tips.set(about, about.getText());
        past.setSelected(phrase.ready());
        roll.repaint();
        lane.repaint();
    }

    private void zoomTime(double factor) {
        desk.phrase().ifPresent(phrase -> window.zoomTime(factor, 0.5, phrase.length()));
    }

    /** Shows fewer or more pitches. */
    public void zoomPitch(boolean closer) {
        window.zoomPitch(closer ? CLOSER : 1 / CLOSER, 0.5);
    }

    /** Shows less or more time. */
    public void zoom(boolean closer) {
        zoomTime(closer ? 1 / CLOSER : CLOSER);
    }

    /** Scrolls in time by a share of what is seen. */
    public void scroll(double share) {
        desk.phrase().ifPresent(phrase -> window.scrollTime(share * window.ticks(), phrase.length()));
    }

    public void fit() {
        desk.phrase().ifPresent(phrase -> window.fit(phrase, made(phrase), desk.isDrums(), roll.fieldHeight()));
    }

    private List<Drawn> made(Phrase phrase) {
        Made.Result result = session.made().result().get();
        return result == null
                        || !result.phrase().equals(phrase.id())
                        || !desk.showMade().get()
                ? List.of()
                : result.at(Places.sound(result.part()));
    }

    /** Gives the keyboard to the values of what is picked, where these are at the right. */
    public void focusPanel() {
        if (right.getCenter() == panel) {
            panel.focusFirst();
        }
    }

    /** What lies behind the roll, which keeps Tab for itself. */
    public List<Node> behind() {
        return List.of(laneNames, heard);
    }

    /** Gives the keyboard to the roll. */
    public void focusRoll() {
        roll.requestFocus();
    }

    /** Where on the screen a place of the roll is, in the middle of the pitch's row. */
    public Point2D place(double tick, int pitch) {
        double x = Roll.GUTTER + window.x(tick, roll.fieldWidth());
        double y = Roll.RULER + window.y(pitch) + window.rowHeight() / 2;
        return roll.localToScreen(x, y);
    }

    /** Whether a node lies in the roll. */
    public boolean isOverRoll(Node node) {
        Node at = node;
        while (at != null && at != roll) {
            at = at.getParent();
        }
        return at != null;
    }

    /** Whether a node is the roll, where keys mean notes. */
    public boolean isRoll(Node node) {
        return node != null && node == roll;
    }

    /** Cuts at the mark. */
    public void cutAtMark() {
        desk.act(
                "Cut at the mark",
                (phrase, picked) -> Shapes.cutAt(phrase, picked, desk.mark().get()));
    }

    /** Draws a frame; takes what was played while steps are wanted. */
    public void draw(long nanos) {
        Phrase phrase = desk.phrase().orElse(null);
        desk.hearer()
                .ifPresent(part -> session.made().ask(session.document().piece().get(), part.id()));
        steps.take();
        heard.draw();
        if (phrase == null) {
            return;
        }
        if (fitting > 0 && roll.getHeight() > 0) {
            // What the chain makes of it is there some frames later, and is to be seen, too.
            fitting = made(phrase).isEmpty() && desk.hearer().isPresent() ? fitting - 1 : 0;
            fit();
        }
        LiveStatus status = session.transport().status();
        double now = status.mode() == LiveStatus.Mode.KEYS || desk.hearer().isEmpty()
                ? -1
                : status.tickAt(nanos) % Math.max(1, phrase.length());
        roll.draw(now);
        lane.drawSeen();
        overview.draw(phrase);
    }
}
