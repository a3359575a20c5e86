package harpel.app.play;

import harpel.app.desk.TimelineDesk;
import harpel.app.document.Document;
import harpel.app.draw.Drawing;
import harpel.app.look.Messages;
import harpel.app.perform.ControllerDesk;
import harpel.app.perform.LeverWiring;
import harpel.app.transport.Transport;
import harpel.app.ui.Buttons;
import harpel.app.ui.Field;
import harpel.app.ui.Menus;
import harpel.app.ui.Space;
import harpel.app.ui.Tips;
import harpel.chain.Stage;
import harpel.engine.LiveStatus;
import harpel.move.Mover;
import harpel.move.Source;
import harpel.piece.Lane;
import harpel.piece.Part;
import harpel.piece.Piece;
import harpel.piece.PieceEdit;
import harpel.piece.perform.Lever;
import harpel.theory.GeneralMidi;
import harpel.time.Ticks;
import java.util.List;
import java.util.OptionalDouble;
import java.util.function.UnaryOperator;
import javafx.css.PseudoClass;
import javafx.geometry.Pos;
import javafx.scene.AccessibleRole;
import javafx.scene.control.Button;
import javafx.scene.control.CheckMenuItem;
import javafx.scene.control.ContextMenu;
import javafx.scene.control.Label;
import javafx.scene.control.Menu;
import javafx.scene.control.SeparatorMenuItem;
import javafx.scene.input.KeyEvent;
import javafx.scene.input.MouseButton;
import javafx.scene.input.MouseEvent;
import javafx.scene.input.ScrollEvent;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Pane;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;

/** A lever as a tall string with a bead: dragged, turned by the wheel, moved by keys, or typed. */
final class LeverString extends VBox {
    private static final PseudoClass MET = PseudoClass.getPseudoClass("met");
    private static final double WIDE = 76;
    private static final double WIDEST = 110;
    private static final double EDGE = 14;
    private static final double BEAD = 24;
    private static final double RING = 12;
    private static final int[] CURVES = {-100, -75, -50, -25, 0, 25, 50, 75, 100};
    private static final int[] STEPS = {0, 2, 3, 4, 5, 8, 9, 11, 13, 16, 21};

    private final Document document;
    private final Transport transport;
    private final LeverWiring levers;
    private final TimelineDesk timeline;
    private final ControllerDesk controller;
    private final String name;
    private final Pane string = new Pane();
    private final Region line = new Region();
    private final Region below = new Region();
    private final Region bead = new Region();
    private final Region ring = new Region();
    private final Field value;
    private final Label knob = new Label();
    private final Label moves = new Label();
    private final Button learn;
    private String movesWords = "";
    private double shown = -1;
    private double shownRing = -1;
    private double shownTall = -1;
    private int gestures;
    private double pressedFrom;

    LeverString(
            Document document,
            Transport transport,
            LeverWiring levers,
            TimelineDesk timeline,
            ControllerDesk controller,
            Messages messages,
            String name) {
        super(Space.FINE);
        this.document = document;
        this.transport = transport;
        this.levers = levers;
        this.timeline = timeline;
        this.controller = controller;
        this.name = name;
        getStyleClass().add("lever-string");
        setId("string-" + name.toLowerCase(java.util.Locale.ROOT).replace(' ', '-'));
        setAlignment(Pos.TOP_CENTER);
        setMinWidth(WIDE);
        setPrefWidth(WIDE);
        setMaxWidth(WIDEST);
        HBox.setHgrow(this, Priority.ALWAYS);
        string.getStyleClass().add("string");
        string.setFocusTraversable(true);
        string.setAccessibleRole(AccessibleRole.SLIDER);
        string.setAccessibleText("Lever " + name);
        string.setMinHeight(120);
        VBox.setVgrow(string, Priority.ALWAYS);
        line.getStyleClass().add("string-line");
        below.getStyleClass().add("string-below");
        bead.getStyleClass().add("bead");
        ring.getStyleClass().add("knob-ring");
        for (Region one : List.of(line, below, ring, bead)) {
            one.setManaged(false);
            one.setMouseTransparent(true);
        }
        string.getChildren().addAll(line, below, ring, bead);
        Tips.set(
                string,
                "Drag the bead, turn the wheel, or use the arrow keys (Page Up and Down in tens, Home and End). The ring shows where"
                        + " its knob stands until it has come to the bead. The other mouse button: whether it returns, on how many places it stands, what follows it and how.");
        string.addEventHandler(MouseEvent.MOUSE_PRESSED, event -> {
            if (event.getButton() == MouseButton.PRIMARY) {
                string.requestFocus();
                gestures++;
                pressedFrom = lever().value();
                drag(event);
            } else if (event.getButton() == MouseButton.SECONDARY) {
                menu().show(string, event.getScreenX(), event.getScreenY());
            }
            event.consume();
        });
        string.addEventHandler(MouseEvent.MOUSE_DRAGGED, this::drag);
        string.addEventHandler(MouseEvent.MOUSE_RELEASED, event -> {
            if (event.getButton() == MouseButton.PRIMARY && lever().returns()) {
                set(pressedFrom, "drag " + gestures);
            }
            document.endGesture();
        });
        string.addEventHandler(ScrollEvent.SCROLL, event -> {
            if (event.getDeltaY() != 0) {
                set(lever().value() + Math.signum(event.getDeltaY()) * (event.isControlDown() ? 1 : 5), "wheel");
                event.consume();
            }
        });
        string.addEventHandler(KeyEvent.KEY_PRESSED, this::key);
        value = new Field("string-value-" + name, "Where “" + name + "” stands, 0–100 %", this::typed, messages::say);
        value.getStyleClass().add("string-value");
        Label title = new Label(name);
        title.getStyleClass().add("string-name");
        knob.getStyleClass().addAll("soft", "part-about");
        moves.getStyleClass().addAll("soft", "part-about");
        learn = Buttons.small(
                "Learn",
                "string-learn-" + name,
                "Press, then move a knob of your device to take it",
                () -> levers.learn(name));
        getChildren().addAll(value, string, title, knob, moves, learn);
    }

    private Piece piece() {
        return document.piece().get();
    }

    private Lever lever() {
        return piece().levers().stream()
                .filter(one -> one.name().equals(name))
                .findFirst()
                .orElse(Lever.of(name, 0));
    }

    private void drag(MouseEvent event) {
        if (event.getButton() == MouseButton.PRIMARY) {
            double share = 1 - (event.getY() - EDGE) / Math.max(1, string.getHeight() - 2 * EDGE);
            set(share * 100, "drag " + gestures);
            event.consume();
        }
    }

    private void key(KeyEvent event) {
        double by = switch (event.getCode()) {
            case UP -> event.isShiftDown() ? 0.1 : 1;
            case DOWN -> event.isShiftDown() ? -0.1 : -1;
            case PAGE_UP -> 10;
            case PAGE_DOWN -> -10;
            case HOME -> 200;
            case END -> -200;
            default -> 0;
        };
        if (by != 0 && !event.isShortcutDown() && !event.isAltDown()) {
            set(lever().value() + by, "keys");
            event.consume();
        }
    }

    /** What the lever is like, besides where it stands. */
    private ContextMenu menu() {
        ContextMenu menu = Menus.list();
        menu.setId("lever-menu");
        CheckMenuItem returns = new CheckMenuItem("Returns when let go of");
        returns.setId("lever-returns");
        returns.setSelected(lever().returns());
        returns.setOnAction(event -> change("Lever returns", one -> one.withReturns(!one.returns())));
        Menu steps = new Menu("Stands");
        steps.setId("lever-steps");
        for (int count : STEPS) {
            CheckMenuItem item = new CheckMenuItem(count == 0 ? "anywhere" : "on " + count + " places");
            item.setId("lever-steps-" + count);
            item.setSelected(lever().steps() == count);
            item.setOnAction(event -> change(
                    "Lever steps",
                    one -> one.withSteps(count).withValue(one.withSteps(count).nearest(one.value()))));
            steps.getItems().add(item);
        }
        Menu follows = new Menu("What it moves follows");
        follows.setId("lever-curve");
        for (int curve : CURVES) {
            CheckMenuItem item = new CheckMenuItem(followed(curve));
            item.setId("lever-curve-" + curve);
            item.setSelected(lever().curve() == curve);
            item.setOnAction(event -> change("Lever curve", one -> one.withCurve(curve)));
            follows.getItems().add(item);
        }
        menu.getItems()
                .addAll(
                        returns,
                        steps,
                        follows,
                        new SeparatorMenuItem(),
                        Menus.item("Learn one more controller", "lever-learn-more", () -> levers.learnMore(name)));
        for (int controller : lever().controllers()) {
            menu.getItems()
                    .add(Menus.item(
                            "No longer moved by " + GeneralMidi.controller(controller),
                            "lever-forget-" + controller,
                            () -> change(
                                    "Forget controller",
                                    one -> one.withControllers(one.controllers().stream()
                                            .filter(each -> each != controller)
                                            .toList()))));
        }
        return menu;
    }

    private static String followed(int curve) {
        return curve == 0
                ? "evenly"
                : (curve > 0 ? "fast first, " : "slowly first, ") + (curve > 0 ? "+" : "−") + Math.abs(curve);
    }

    private void change(String label, UnaryOperator<Lever> change) {
        levers.change(label, name, change);
    }

    private void typed(String text) {
        String bare = text.replace("%", "").replace(',', '.').strip();
        if (!bare.matches("\\d{1,3}(\\.\\d{1,3})?") || Double.parseDouble(bare) > 100) {
            throw new IllegalArgumentException("“" + name + "” stands at 0–100 %, but was to stand at “" + text + "”");
        }
        set(Double.parseDouble(bare), "");
    }

    private void set(double wanted, String gesture) {
        double at = lever().nearest(Math.round(Drawing.clamp(wanted, 0, 100) * 10) / 10.0);
        transport.traces().forgetLever(name);
        Lane<Double> lane = new Lane.OfLever(name);
        document.apply(new PieceEdit(
                "Move lever",
                gesture.isEmpty() ? "" : "string " + name + gesture,
                piece -> lane.isIn(piece) ? lane.withBase(piece, at) : piece));
    }

    /** How many controls it moves. */
    private int moved() {
        int[] count = {0};
        for (Part part : piece().parts()) {
            Lane.eachStage(part.id(), List.of(), part.chain(), (address, stage) -> count[0] += moved(stage));
        }
        return count[0];
    }

    private int moved(Stage stage) {
        int count = 0;
        for (List<Mover> movers : stage.moves().byParam().values()) {
            for (Mover mover : movers) {
                if (mover.source() == Source.LEVER
                        && mover.settings().get(Source.NAME).equals(name)) {
                    count++;
                }
            }
        }
        return count;
    }

    /** The piece has changed. */
    void show() {
        Lever lever = lever();
        boolean learning = name.equals(levers.learning().get());
        List<Integer> by = lever.controllers();
        knob.setText(by.isEmpty() ? "no knob" : by.size() > 1 ? by.size() + " controllers" : "controller " + by.get(0));
        Tips.set(knob, by.isEmpty() ? "Moved by hand only" : GeneralMidi.controllers(by));
        learn.setText(learning ? "move a knob" : "Learn");
        int count = moved();
        movesWords = (count == 0 ? "moves nothing" : "moves " + count + (lever.curve() == 0 ? "" : ", bent"));
        Tips.set(
                moves,
                "How many controls it moves"
                        + (lever.curve() == 0 ? "" : "; they follow " + followed(lever.curve()) + " of 100"));
    }

    /** Where it stands: on the timeline where its points say. */
    private double stands() {
        Piece piece = piece();
        Lever lever = lever();
        boolean follows = piece.timeline()
                && !lever.points().isEmpty()
                && transport.status().mode() == LiveStatus.Mode.PLAYING
                && transport.traces().held(name, timeline.now()).isEmpty();
        return follows ? Math.round(lever.at(timeline.now())) : lever.value();
    }

    /** Who holds it where it has points: they, or a hand until the next of them. */
    private void showHolder() {
        boolean plays = piece().timeline()
                && !lever().points().isEmpty()
                && transport.status().mode() == LiveStatus.Mode.PLAYING;
        String words = !plays
                ? ""
                : transport
                        .traces()
                        .held(name, timeline.now())
                        .map(one -> one.until() == Ticks.NEVER ? "held" : "held until " + timeline.place(one.until()))
                        .orElse("by its points");
        String text = words.isEmpty() ? movesWords : words;
        if (!text.equals(moves.getText())) {
            moves.setText(text);
        }
    }

    /** Draws a frame. */
    void draw() {
        OptionalDouble controlled = transport.traces().lever(name);
        double at = controlled.isPresent() ? controlled.getAsDouble() * 100 : stands();
        double knobAt =
                controller.unmet(name).orElse(transport.traces().knob(name).orElse(-1));
        showHolder();
        if (at == shown && knobAt == shownRing && string.getHeight() == shownTall) {
            return;
        }
        shown = at;
        shownRing = knobAt;
        shownTall = string.getHeight();
        value.show(at == Math.rint(at) ? String.valueOf((long) at) : String.format(java.util.Locale.ROOT, "%.1f", at));
        double tall = string.getHeight() - 2 * EDGE;
        double middle = string.getWidth() / 2;
        double y = EDGE + (1 - at / 100) * tall;
        line.resizeRelocate(middle - 1, EDGE, 2, tall);
        below.resizeRelocate(middle - 2, y, 4, Math.max(0, EDGE + tall - y));
        bead.resizeRelocate(middle - BEAD / 2, y - BEAD / 2, BEAD, BEAD);
        boolean apart = knobAt >= 0 && Math.abs(knobAt * 100 - at) > 2;
        ring.setVisible(apart);
        ring.resizeRelocate(middle - RING / 2, EDGE + (1 - knobAt) * tall - RING / 2, RING, RING);
        bead.pseudoClassStateChanged(MET, !apart && knobAt >= 0);
    }
}
