package harpel.app;

import static org.assertj.core.api.Assertions.assertThat;

import ch.qos.logback.classic.Level;
import ch.qos.logback.classic.spi.ILoggingEvent;
import ch.qos.logback.classic.spi.ThrowableProxy;
import ch.qos.logback.core.AppenderBase;
import harpel.app.look.Look.View;
import harpel.engine.LiveStatus;
import harpel.port.OutputPort;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Deque;
import java.util.List;
import java.util.Random;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ConcurrentLinkedQueue;
import javafx.geometry.Bounds;
import javafx.geometry.Point2D;
import javafx.scene.Node;
import javafx.scene.Parent;
import javafx.scene.control.TextInputControl;
import javafx.scene.image.PixelReader;
import javafx.scene.image.WritableImage;
import javafx.scene.input.KeyCode;
import javafx.scene.input.MouseButton;
import javafx.scene.robot.Robot;
import javafx.stage.Window;
import org.junit.jupiter.api.Test;
import org.slf4j.LoggerFactory;

/**
 * A hand that knows nothing: clicks, keys, drags and the wheel by chance, over every view, sheet and menu, on the demo piece while it
 * plays. What it does is drawn from a seed that a failure names; {@code ./harpel soak --window} goes on for an hour.
 */
class RobotTest extends WindowCase {
    private static final int SECONDS = Integer.getInteger("robot.seconds", 60);
    private static final long SEED = Long.getLong("robot.seed", 1);
    private static final int LOOK_EVERY = 40;
    private static final int TOLD = 12;

    private static final List<KeyCode> KEYS = List.of(
            KeyCode.UP,
            KeyCode.DOWN,
            KeyCode.LEFT,
            KeyCode.RIGHT,
            KeyCode.ENTER,
            KeyCode.SPACE,
            KeyCode.TAB,
            KeyCode.ESCAPE,
            KeyCode.DELETE,
            KeyCode.HOME,
            KeyCode.END,
            KeyCode.PAGE_UP,
            KeyCode.PAGE_DOWN,
            KeyCode.INSERT,
            KeyCode.F1,
            KeyCode.F2,
            KeyCode.F3,
            KeyCode.F4,
            KeyCode.F5,
            KeyCode.F6,
            KeyCode.F7,
            KeyCode.F8,
            KeyCode.F9,
            KeyCode.PERIOD,
            KeyCode.COMMA,
            KeyCode.MINUS,
            KeyCode.EQUALS,
            KeyCode.OPEN_BRACKET,
            KeyCode.CLOSE_BRACKET);
    private static final List<KeyCode> VIEWS = List.of(KeyCode.DIGIT1, KeyCode.DIGIT2, KeyCode.DIGIT3, KeyCode.DIGIT4);

    /** What sounds at the outputs: every start without its end. */
    private static final class OpenVoices implements OutputPort {
        private final Set<Integer> open = ConcurrentHashMap.newKeySet();

        @Override
        public String name() {
            return "Open voices";
        }

        @Override
        public void send(byte[] message, long dueNanos) {
            int kind = message[0] & 0xF0;
            if (kind == 0x90 && message[2] > 0) {
                open.add((message[0] & 0x0F) << 7 | message[1]);
            } else if (kind == 0x80 || kind == 0x90) {
                open.remove((message[0] & 0x0F) << 7 | message[1]);
            }
        }

        @Override
        public void close() {
            // it keeps what it knows
        }
    }

    /** Takes what is logged as an error. */
    private static final class Errors extends AppenderBase<ILoggingEvent> {
        private final ConcurrentLinkedQueue<String> found;

        Errors(ConcurrentLinkedQueue<String> found) {
            this.found = found;
        }

        @Override
        protected void append(ILoggingEvent event) {
            if (event.getLevel().isGreaterOrEqual(Level.ERROR)) {
                Throwable thrown =
                        event.getThrowableProxy() instanceof ThrowableProxy proxy ? proxy.getThrowable() : null;
                found.add(event.getFormattedMessage() + (thrown == null ? "" : told(thrown)));
            }
        }
    }

    /** The toolkit's own fault, where one drag begins before the system has done with the last. */
    private static boolean isTheToolkits(Throwable thrown) {
        return String.valueOf(thrown.getMessage()).startsWith("dndGesture.dragboard is null");
    }

    private void broke(Throwable thrown) {
        if (!isTheToolkits(thrown)) {
            wrong.add(told(thrown));
        }
    }

    private final OpenVoices voices = new OpenVoices();
    private final Random random = new Random(SEED);
    private final Deque<String> did = new ArrayDeque<>();
    private final ConcurrentLinkedQueue<String> wrong = new ConcurrentLinkedQueue<>();
    private Robot robot;
    private final HeapCap heap = new HeapCap();
    /** Used again for each picture, so that those do not count as the window's. */
    private WritableImage image;

    @Override
    String parts() {
        return "";
    }

    @Override
    harpel.piece.Piece piece() {
        return demo();
    }

    @Override
    OutputPort listener() {
        return voices;
    }

    private static String told(Throwable thrown) {
        return thrown + " at " + Arrays.stream(thrown.getStackTrace()).limit(8).toList();
    }

    @Test
    void whateverAHandDoesNothingBreaksAndNothingHangs() {
        Errors errors = new Errors(wrong);
        ch.qos.logback.classic.Logger root =
                (ch.qos.logback.classic.Logger) LoggerFactory.getLogger(org.slf4j.Logger.ROOT_LOGGER_NAME);
        errors.setContext(root.getLoggerContext());
        errors.start();
        root.addAppender(errors);
        var before = Thread.getDefaultUncaughtExceptionHandler();
        Thread.setDefaultUncaughtExceptionHandler((thread, thrown) -> broke(thrown));
        interact(() -> {
            Thread.currentThread().setUncaughtExceptionHandler((thread, thrown) -> broke(thrown));
            robot = new Robot();
            session.transport().play();
        });
        try {
            long end = System.nanoTime() + SECONDS * 1_000_000_000L;
            int i = 1;
            for (; System.nanoTime() < end; i++) {
                act();
                assertThat(wrong).as(this::story).isEmpty();
                if (i % LOOK_EVERY == 0) {
                    lookAtPicture();
                    heap.look(this::story);
                }
            }
            nothingIsLeftSounding();
        } finally {
            root.detachAppender(errors);
            Thread.setDefaultUncaughtExceptionHandler(before);
        }
    }

    /** What was done last, and the seed to do it again. */
    private String story() {
        return "seed " + SEED + ", after " + String.join("; ", did);
    }

    private void note(String what) {
        did.addLast(what);
        if (did.size() > TOLD) {
            did.removeFirst();
        }
    }

    private void act() {
        int what = random.nextInt(100);
        if (what < 45) {
            clickNode();
        } else if (what < 55) {
            Point2D at = place();
            note("a click at " + at);
            click(at, random.nextInt(8) == 0 ? MouseButton.SECONDARY : MouseButton.PRIMARY);
        } else if (what < 68) {
            drag();
        } else if (what < 92) {
            key();
        } else if (what < 96) {
            Point2D at = place();
            int turns = random.nextInt(7) - 3;
            note("the wheel by " + turns + " at " + at);
            onFx(() -> {
                robot.mouseMove(at);
                robot.mouseWheel(turns);
                return null;
            });
        } else {
            type();
        }
        settle();
    }

    /** Something that can be pressed, in whichever window is open. */
    private void clickNode() {
        List<Node> nodes = onFx(() -> {
            List<Node> found = new ArrayList<>();
            for (Window window : List.copyOf(Window.getWindows())) {
                if (window.getScene() != null && window.isShowing()) {
                    pressable(window.getScene().getRoot(), found);
                }
            }
            return found;
        });
        if (nodes.isEmpty()) {
            return;
        }
        Node node = nodes.get(random.nextInt(nodes.size()));
        Point2D at = onFx(() -> {
            Bounds bounds = node.localToScreen(node.getBoundsInLocal());
            return bounds == null
                    ? null
                    : new Point2D(
                            bounds.getMinX() + bounds.getWidth() * (0.2 + 0.6 * random.nextDouble()),
                            bounds.getMinY() + bounds.getHeight() * (0.2 + 0.6 * random.nextDouble()));
        });
        if (at != null && at.getX() >= 0 && at.getY() >= 0 && at.getX() < WIDTH && at.getY() < HEIGHT) {
            note("a click on " + (node.getId() == null ? node.getClass().getSimpleName() : node.getId()));
            click(at, random.nextInt(12) == 0 ? MouseButton.SECONDARY : MouseButton.PRIMARY);
        }
    }

    private static void pressable(Node node, List<Node> found) {
        if (!node.isVisible() || node.isDisabled()) {
            return;
        }
        if (node.isFocusTraversable() || node.getStyleClass().contains("menu-item")) {
            found.add(node);
        }
        if (node instanceof Parent parent) {
            parent.getChildrenUnmodifiable().forEach(child -> pressable(child, found));
        }
    }

    private Point2D place() {
        return new Point2D(random.nextInt((int) WIDTH), random.nextInt((int) HEIGHT));
    }

    private void click(Point2D at, MouseButton button) {
        int times = random.nextInt(10) == 0 ? 2 : 1;
        onFx(() -> {
            robot.mouseMove(at);
            for (int i = 0; i < times; i++) {
                robot.mousePress(button);
                robot.mouseRelease(button);
            }
            return null;
        });
    }

    private void drag() {
        Point2D from = place();
        Point2D to = random.nextBoolean() ? place() : from.add(random.nextInt(120) - 60.0, random.nextInt(80) - 40.0);
        KeyCode held = random.nextInt(4) == 0 ? KeyCode.SHIFT : random.nextInt(5) == 0 ? KeyCode.CONTROL : null;
        note("a drag from " + from + " to " + to + (held == null ? "" : " with " + held));
        onFx(() -> {
            if (held != null) {
                robot.keyPress(held);
            }
            robot.mouseMove(from);
            robot.mousePress(MouseButton.PRIMARY);
            return null;
        });
        for (int i = 1; i <= 4; i++) {
            Point2D at = from.interpolate(to, i / 4.0);
            onFx(() -> {
                robot.mouseMove(at);
                return null;
            });
            settle();
        }
        onFx(() -> {
            robot.mouseRelease(MouseButton.PRIMARY);
            if (held != null) {
                robot.keyRelease(held);
            }
            return null;
        });
    }

    private void key() {
        KeyCode key = random.nextBoolean()
                ? KEYS.get(random.nextInt(KEYS.size()))
                : KeyCode.getKeyCode(String.valueOf(
                        (char) (random.nextInt(4) == 0 ? '0' + random.nextInt(10) : 'A' + random.nextInt(26))));
        List<KeyCode> held = new ArrayList<>();
        if (random.nextInt(3) == 0) {
            held.add(KeyCode.CONTROL);
        }
        if (random.nextInt(4) == 0) {
            held.add(KeyCode.SHIFT);
        }
        if (random.nextInt(8) == 0) {
            held.add(KeyCode.ALT);
        }
        note(held + " " + key);
        strike(held, key);
    }

    private void strike(List<KeyCode> held, KeyCode key) {
        onFx(() -> {
            held.forEach(robot::keyPress);
            robot.keyPress(key);
            robot.keyRelease(key);
            held.forEach(robot::keyRelease);
            return null;
        });
    }

    /** Something that is hardly a value, into whatever is typed in. */
    private void type() {
        boolean typing = onFx(() -> stage.getScene().getFocusOwner() instanceof TextInputControl);
        String words = List.of("0", "-3", "999999", "1/8", "x", "…", "10–14", "C4", "", "🎹")
                .get(random.nextInt(10));
        note((typing ? "typed “" : "not typed “") + words + "”");
        if (typing) {
            onFx(() -> {
                if (stage.getScene().getFocusOwner() instanceof TextInputControl field) {
                    field.setText(words);
                }
                robot.keyPress(KeyCode.ENTER);
                robot.keyRelease(KeyCode.ENTER);
                return null;
            });
        }
    }

    /** Puts away what is open beside the window, as a person does by Escape. */
    private void comeBack() {
        for (int i = 0; i < 3; i++) {
            strike(List.of(), KeyCode.ESCAPE);
            settle();
        }
        interact(() -> List.copyOf(Window.getWindows()).stream()
                .filter(window -> window != stage)
                .forEach(Window::hide));
        interact(() -> {
            stage.requestFocus();
            pane.requestFocus();
        });
    }

    /** A key that must change something does: another view, night or day, the routes, the sheet of variations, play, undo. */
    private void lookAtPicture() {
        comeBack();
        // While it plays every picture is another one.
        interact(() -> session.transport().silence());
        await(() -> session.transport().status().mode() == LiveStatus.Mode.STOPPED);
        await(this::standsStill, () -> "it never stands still; " + story());
        switch (random.nextInt(7)) {
            case 5 -> {
                note("looked: Space");
                strike(List.of(), KeyCode.SPACE);
                await(
                        () -> session.transport().status().mode() == LiveStatus.Mode.PLAYING,
                        () -> "Space plays nothing; " + story());
            }
            case 6 -> undoesAndDoesAgain();
            case 0 -> changes(List.of(KeyCode.CONTROL), KeyCode.T);
            case 1 -> changes(List.of(KeyCode.CONTROL, KeyCode.SHIFT), KeyCode.V);
            case 2 -> {
                interact(() -> session.look().view().set(View.CHAIN));
                changes(List.of(), KeyCode.F8);
            }
            default -> {
                int now = session.look().view().get().ordinal();
                changes(List.of(KeyCode.CONTROL), VIEWS.get((now + 1 + random.nextInt(3)) % 4));
            }
        }
        interact(() -> session.transport().play());
    }

    private void undoesAndDoesAgain() {
        harpel.piece.Piece now = session.document().piece().get();
        if (session.document().undoLabel().isEmpty()) {
            return;
        }
        String label = session.document().undoLabel().orElse("");
        note("looked: undo and redo");
        strike(List.of(KeyCode.CONTROL), KeyCode.Z);
        await(() -> session.document().piece().get() != now, () -> "nothing is undone; " + story());
        strike(List.of(KeyCode.CONTROL), KeyCode.Y);
        await(
                () -> session.document().piece().get() == now,
                () -> "it is not done again; to undo " + session.document().undoLabel() + ", to do again "
                        + session.document().redoLabel() + ", before " + label + "; " + story());
    }

    private void changes(List<KeyCode> held, KeyCode key) {
        View view = session.look().view().get();
        boolean isThere = view.ordinal() < VIEWS.size() && VIEWS.get(view.ordinal()) == key;
        if (isThere && held.equals(List.of(KeyCode.CONTROL))) {
            return;
        }
        settle();
        int before = picture();
        note("looked: " + held + " " + key);
        strike(held, key);
        await(() -> picture() != before, () -> "the picture stayed; " + story());
    }

    private boolean standsStill() {
        int before = picture();
        settle();
        settle();
        return picture() == before;
    }

    private int picture() {
        return onFx(() -> {
            image = stage.getScene().snapshot(image);
            PixelReader pixels = image.getPixelReader();
            int hash = 1;
            for (int y = 60; y < HEIGHT - 160; y += 3) {
                for (int x = 240; x < WIDTH - 300; x += 3) {
                    hash = 31 * hash + pixels.getArgb(x, y);
                }
            }
            return hash;
        });
    }

    private void nothingIsLeftSounding() {
        comeBack();
        interact(() -> session.transport().silence());
        await(voices.open::isEmpty, () -> "left sounding: " + voices.open + "; " + story());
    }
}
