package harpel.app;

import harpel.app.desk.Recorder;
import harpel.app.document.Document;
import harpel.app.document.TypedValue;
import harpel.app.look.Look;
import harpel.app.look.Look.View;
import harpel.app.look.Messages;
import harpel.app.look.Theme;
import harpel.app.perform.Performing;
import harpel.app.transport.Transport;
import harpel.app.transport.Words;
import harpel.app.ui.Buttons;
import harpel.app.ui.Field;
import harpel.app.ui.Menus;
import harpel.app.ui.Space;
import harpel.app.ui.Tips;
import harpel.engine.LiveStatus;
import harpel.engine.LiveStatus.Mode;
import harpel.piece.Piece;
import harpel.piece.PieceEdit;
import harpel.time.MeterMap;
import java.util.List;
import java.util.Locale;
import java.util.function.Function;
import java.util.function.UnaryOperator;
import javafx.beans.property.BooleanProperty;
import javafx.css.PseudoClass;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.CheckMenuItem;
import javafx.scene.control.Label;
import javafx.scene.control.MenuButton;
import javafx.scene.control.RadioMenuItem;
import javafx.scene.control.SeparatorMenuItem;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.ToggleGroup;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import org.kordamp.ikonli.feather.Feather;
import org.kordamp.ikonli.javafx.FontIcon;

/** The bar at the top: the piece, playing, and what the clock says. */
final class TopBar extends HBox {
    /** What is later than this is told. */
    private static final int LATE_MS = 10;

    private static final PseudoClass SEEN = PseudoClass.getPseudoClass("seen");
    private static final PseudoClass LATE = PseudoClass.getPseudoClass("late");

    private final Document document;
    private final Look look;
    private final Transport transport;
    private final Recorder recorder;
    private final Messages messages;
    /** From this width of the window on there is room for the name of the piece. */
    private static final double NAME_FROM = 1130;

    private static final double UNDO_FROM = 1080;
    private static final double HARPEL_FROM = 990;
    private static final double CLOCK_FROM = 930;
    private static final double METER_FROM = 810;
    private static final double TEMPO_FROM = 680;
    private static final double THEME_FROM = 870;
    private static final double DRY_FROM = 760;
    private static final double RECORD_FROM = 640;
    /** Below it the views are a list. */
    private static final double VIEWS_FROM = 620;

    private final Label piece = new Label();
    private final Label position = new Label("1 . 1");
    private final Label clock = new Label("stands");
    private final Region inTime = new Region();
    private final Label late = new Label("", inTime);
    private final FontIcon playIcon = new FontIcon(Feather.PLAY);
    private final Button play;
    private final Button undo;
    private final Button redo;
    private final Field tempo;
    private final Field meter;

    TopBar(
            Document document,
            Look look,
            Transport transport,
            Recorder recorder,
            Performing performing,
            Messages messages,
            MenuButton menu) {
        this.document = document;
        this.look = look;
        this.transport = transport;
        this.recorder = recorder;
        this.messages = messages;
        getStyleClass().add("top-bar");
        setAlignment(Pos.CENTER_LEFT);
        setSpacing(Space.CLOSE);
        Label harpel = new Label("Harpel");
        harpel.getStyleClass().add("name-of-program");
        piece.getStyleClass().add("name-of-piece");
        piece.setMinWidth(40);
        // Where there is little room the actions have it; the name is in the title of the window, too.
        from(NAME_FROM, piece);
        from(HARPEL_FROM, harpel);
        Region space = new Region();
        HBox.setHgrow(space, Priority.ALWAYS);
        ToggleButton dry = Buttons.stays(
                "Hear dry",
                "hear-dry",
                "Hear the part without its chain, in time  (F3 while held; click to lock)",
                on -> {});
        dry.selectedProperty().bindBidirectional(transport.dry());
        play = Buttons.picture(
                playIcon,
                "play",
                "Play or stop",
                "Play or stop  (Space; Home goes to the start)",
                () -> transport.togglePlay());
        play.getStyleClass().add("play");
        Region dot = new Region();
        dot.getStyleClass().add("record-dot");
        ToggleButton record = Buttons.stays(
                "",
                "record",
                "Records the chosen part: what is played goes into its phrase, round by round, or into a new one"
                        + "  (Ctrl+Shift+R)",
                on -> recorder.toggle());
        record.setGraphic(dot);
        record.getStyleClass().addAll("icon-button", "record");
        record.setAccessibleText("Record");
        recorder.armed().addListener((property, before, now) -> record.setSelected(now));
        MenuButton how =
                Menus.button("", "record-how", "How it records: count-in, click, what becomes of what is there");
        how.getStyleClass().add("record-how");
        how.setAccessibleText("How it records");
        fillRecording(how);
        HBox recording = new HBox(0, record, how);
        recording.setAlignment(Pos.CENTER);
        Button silence = Buttons.button(
                "Silence",
                "silence",
                "End every sounding and waiting note everywhere, at once  (Escape)",
                performing::silence);
        undo = icon(Feather.CORNER_UP_LEFT, "undo", "Undo", document::undo);
        redo = icon(Feather.CORNER_UP_RIGHT, "redo", "Redo", document::redo);
        // Undo and redo have keys; where there is little room the words of buttons have it.
        from(UNDO_FROM, undo, redo);
        tempo = field("tempo", 52, "Tempo in quarters a minute, 20–400", TypedValue::tempo);
        meter = field("meter", 40, "Meter, such as 4/4 or 7/8", TypedValue::meter);
        Button theme = Buttons.button(
                "Night",
                "theme",
                "Paper by day, ink by night  (Ctrl+T)",
                () -> look.theme().set(look.theme().get().other()));
        look.theme().addListener((property, before, now) -> theme.setText(now == Theme.DAY ? "Night" : "Day"));
        HBox views = new HBox(
                Space.FINE,
                view("Chain", View.CHAIN, "Ctrl+1"),
                view("Phrase", View.PHRASE, "Ctrl+2"),
                view("Timeline", View.TIMELINE, "Ctrl+3"),
                view("Play", View.PLAY, "Ctrl+4"));
        views.setAlignment(Pos.CENTER_LEFT);
        MenuButton viewList = Menus.button(
                "View",
                "views",
                "Chain, Phrase, Timeline or Play",
                list -> list.getItems()
                        .setAll(
                                Menus.item(
                                        "Chain", "to-chain", () -> look.view().set(View.CHAIN)),
                                Menus.item(
                                        "Phrase", "to-phrase", () -> look.view().set(View.PHRASE)),
                                Menus.item(
                                        "Timeline",
                                        "to-timeline",
                                        () -> look.view().set(View.TIMELINE)),
                                Menus.item("Play", "to-play", () -> look.view().set(View.PLAY))));
        from(VIEWS_FROM, views);
        viewList.visibleProperty().bind(views.visibleProperty().not());
        viewList.managedProperty().bind(viewList.visibleProperty());
        VBox tempoReading = reading("tempo", tempo, 52);
        VBox meterReading = reading("meter", meter, 40);
        VBox clockReading = reading("clock", clock, 52);
        from(CLOCK_FROM, clockReading);
        from(METER_FROM, meterReading);
        from(TEMPO_FROM, tempoReading);
        from(THEME_FROM, theme);
        from(DRY_FROM, dry);
        from(RECORD_FROM, recording);
        for (Region one : List.of(menu, viewList, silence, dry, theme)) {
            one.setMinWidth(USE_PREF_SIZE);
        }
        getChildren()
                .addAll(
                        harpel,
                        piece,
                        menu,
                        undo,
                        redo,
                        views,
                        viewList,
                        space,
                        dry,
                        play,
                        recording,
                        reading("bar · beat", position, 62),
                        tempoReading,
                        meterReading,
                        clockReading,
                        late,
                        silence,
                        theme);
        position.setId("position");
        late.setId("late");
        late.setMinWidth(USE_PREF_SIZE);
        late.getStyleClass().add("in-time-words");
        inTime.getStyleClass().add("in-time");
        Tips.set(
                late,
                () -> "The latest note of the last minute was sent " + Words.milliseconds(Math.max(0, shownLate))
                        + " late. Up to " + LATE_MS + " ms is in time.");
        Tips.set(clock, "What makes time go: the transport, the keys, or nothing");
        document.piece().addListener((property, before, now) -> showPiece());
        document.unsaved().addListener((property, before, now) -> showPiece());
        showPiece();
    }

    /** What gives way where there is little room, to play, the place and Silence; all of it has keys or is said elsewhere, too. */
    private void from(double width, Node... nodes) {
        for (Node node : nodes) {
            node.visibleProperty().bind(widthProperty().greaterThanOrEqualTo(width));
            node.managedProperty().bind(node.visibleProperty());
        }
    }

    private void fillRecording(MenuButton how) {
        ToggleGroup counts = new ToggleGroup();
        for (int bars = 0; bars <= 2; bars++) {
            int count = bars;
            RadioMenuItem item =
                    new RadioMenuItem(bars == 0 ? "No count-in" : "Count in " + bars + (bars == 1 ? " bar" : " bars"));
            item.setId("count-in-" + bars);
            item.setToggleGroup(counts);
            item.setSelected(recorder.countIn().get() == bars);
            item.setOnAction(event -> recorder.countIn().set(count));
            how.getItems().add(item);
        }
        how.getItems().add(new SeparatorMenuItem());
        check(how, "record-click", "Click on the beats", recorder.click());
        ToggleGroup levels = new ToggleGroup();
        for (String[] level : new String[][] {{"Click softly", "60"}, {"Click", "100"}, {"Click loudly", "127"}}) {
            int velocity = Integer.parseInt(level[1]);
            RadioMenuItem item = new RadioMenuItem(level[0] + ", level " + velocity);
            item.setId("click-level-" + velocity);
            item.setToggleGroup(levels);
            item.setSelected(recorder.clickLevel().get() == velocity);
            item.setOnAction(event -> recorder.clickLevel().set(velocity));
            how.getItems().add(item);
        }
        how.getItems().add(new SeparatorMenuItem());
        check(how, "record-add", "Add to what is there (else a round takes its place)", recorder.adding());
        check(how, "record-sent", "Record what the chain sends, as a ready phrase", recorder.sent());
        check(how, "record-grid", "Onto the grid of the roll", recorder.ontoGrid());
    }

    private static void check(MenuButton menu, String id, String words, BooleanProperty property) {
        CheckMenuItem item = new CheckMenuItem(words);
        item.setId(id);
        item.selectedProperty().bindBidirectional(property);
        menu.getItems().add(item);
    }

    private Button view(String words, View view, String keys) {
        Button button = Buttons.button(
                words,
                "view-" + words.toLowerCase(Locale.ROOT),
                "Shows the " + words + " view  (" + keys + ")",
                () -> look.view().set(view));
        button.getStyleClass().add("view-name");
        button.pseudoClassStateChanged(SEEN, look.view().get() == view);
        look.view().addListener((property, before, now) -> button.pseudoClassStateChanged(SEEN, now == view));
        return button;
    }

    private static Button icon(Feather icon, String id, String name, Runnable action) {
        Button button = Buttons.picture(new FontIcon(icon), id, name, name, action);
        button.getStyleClass().add("icon-button");
        return button;
    }

    private Field field(String id, double width, String what, Function<String, UnaryOperator<Piece>> change) {
        Field field = new Field(
                id, what, text -> document.take(PieceEdit.of("Set " + id, change.apply(text))), messages::say);
        field.setPrefWidth(width);
        return field;
    }

    private static VBox reading(String name, Node value, double width) {
        Label small = new Label(name);
        small.getStyleClass().add("reading-name");
        value.getStyleClass().add("reading");
        VBox box = new VBox(-1, small, value);
        box.setAlignment(Pos.CENTER_LEFT);
        box.setMinWidth(width);
        return box;
    }

    private void showPiece() {
        Piece now = document.piece().get();
        piece.setText(now.name());
        undo.setDisable(document.undoLabel().isEmpty());
        redo.setDisable(document.redoLabel().isEmpty());
        Tips.set(undo, "Undo" + document.undoLabel().map(label -> ": " + label).orElse("") + "  (Ctrl+Z)");
        Tips.set(redo, "Redo" + document.redoLabel().map(label -> ": " + label).orElse("") + "  (Ctrl+Shift+Z)");
        tempo.show(tenths(now.time().tempo().bpmAt(0)));
        meter.show(now.time().meter().at(0).shown());
    }

    private static String tenths(double bpm) {
        return String.valueOf(Math.round(bpm * 10) / 10.0);
    }

    private double shownBpm;
    private long shownBeat = -1;
    private MeterMap.Change shownMeter;
    private long shownLate = -1;

    void draw(long nanos) {
        LiveStatus status = transport.status();
        long tick = Math.max(0, (long) status.songTickAt(nanos));
        MeterMap.Change meter = document.piece().get().time().meter().at(tick);
        long beat = tick / meter.beatTicks();
        if (beat != shownBeat || meter != shownMeter) {
            shownBeat = beat;
            shownMeter = meter;
            position.setText(document.piece().get().time().meter().placeAt(tick).toString());
        }
        set(
                clock,
                switch (status.mode()) {
                    case STOPPED -> "stands";
                    case KEYS -> "keys";
                    case PLAYING -> status.clock().isEmpty() ? "own" : "follows";
                });
        double bpm = status.clock().isEmpty()
                ? document.piece().get().time().tempo().bpmAt(0)
                : status.tempo().bpmAt(0);
        if (Math.abs(bpm - shownBpm) >= 0.05) {
            shownBpm = bpm;
            tempo.show(tenths(bpm));
        }
        if (status.worstLateNanos() != shownLate) {
            shownLate = status.worstLateNanos();
            boolean isLate = shownLate > LATE_MS * 1_000_000L;
            set(late, isLate ? "late " + Words.milliseconds(shownLate) : "");
            inTime.pseudoClassStateChanged(LATE, isLate);
        }
        Feather icon = status.mode() == Mode.PLAYING ? Feather.SQUARE : Feather.PLAY;
        if (playIcon.getIconCode() != icon) {
            playIcon.setIconCode(icon);
        }
    }

    private static void set(Label label, String text) {
        if (!text.equals(label.getText())) {
            label.setText(text);
        }
    }
}
