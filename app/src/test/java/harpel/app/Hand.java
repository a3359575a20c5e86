package harpel.app;

import java.util.ArrayDeque;
import java.util.Deque;
import java.util.List;
import java.util.concurrent.Callable;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import java.util.function.Consumer;
import java.util.function.Predicate;
import java.util.function.Supplier;
import javafx.application.Platform;
import javafx.collections.ListChangeListener;
import javafx.geometry.Bounds;
import javafx.geometry.Point2D;
import javafx.geometry.VerticalDirection;
import javafx.scene.Node;
import javafx.scene.Scene;
import javafx.scene.input.InputEvent;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.input.MouseButton;
import javafx.scene.input.MouseEvent;
import javafx.scene.input.ScrollEvent;
import javafx.scene.robot.Robot;
import javafx.stage.Window;
import org.testfx.api.FxRobot;
import org.testfx.service.query.NodeQuery;
import org.testfx.util.WaitForAsyncUtils;

/**
 * A hand at the pointer and the keys of the display. It goes on as soon as what it did has arrived at a window and was worked out there,
 * not after a time: quick on a quick machine, patient on a slow one. Looking for nodes is left to TestFX.
 */
class Hand {
    private static final int STILL_TRIES = 10;
    private static final long PATIENCE_SECONDS = 30;

    private static final FxRobot FINDER = new FxRobot();
    private static Robot robot;
    /** What is waited for, and who waits; both belong to the interface thread. */
    private static Predicate<InputEvent> awaited = event -> false;

    private static CountDownLatch arrival = new CountDownLatch(0);

    private final Deque<KeyCode> keysDown = new ArrayDeque<>();
    private final Deque<MouseButton> buttonsDown = new ArrayDeque<>();

    static <T> T onFx(Callable<T> question) {
        try {
            return WaitForAsyncUtils.waitForAsyncFx(PATIENCE_SECONDS * 1000, question);
        } catch (RuntimeException e) {
            if (e.getCause() instanceof TimeoutException) {
                throw late("the interface did not answer", e);
            }
            throw e;
        }
    }

    /** Something did not come in time: says where the interface thread and the one that draws are, which is what it most likely waited for. */
    private static AssertionError late(String what, Throwable cause) {
        Object keyboard =
                typedAt().getScene() == null ? null : typedAt().getScene().getFocusOwner();
        AssertionError error =
                new AssertionError(what + ", for " + PATIENCE_SECONDS + " s; the keyboard is with " + keyboard, cause);
        Thread.getAllStackTraces().forEach((thread, frames) -> {
            boolean draws = thread.getName().startsWith("QuantumRenderer");
            if (draws || thread.getName().equals("JavaFX Application Thread")) {
                Throwable at = new Throwable("where the " + (draws ? "drawing" : "interface") + " thread is");
                at.setStackTrace(frames);
                error.addSuppressed(at);
            }
        });
        return error;
    }

    static void await(Callable<Boolean> condition) {
        await(condition, () -> "it did not happen");
    }

    /** @param otherwise says how things stand where it does not happen */
    static void await(Callable<Boolean> condition, Supplier<String> otherwise) {
        try {
            WaitForAsyncUtils.waitFor(PATIENCE_SECONDS, TimeUnit.SECONDS, condition);
        } catch (TimeoutException e) {
            throw late(otherwise.get(), e);
        }
    }

    /** Lets the interface work out what has been asked of it, and lay out what it shows: until the next pulse has done so. */
    static void settle() {
        CountDownLatch pulse = new CountDownLatch(1);
        Platform.runLater(() -> {
            Scene scene = typedAt().getScene();
            Runnable[] once = new Runnable[1];
            once[0] = () -> {
                scene.removePostLayoutPulseListener(once[0]);
                pulse.countDown();
            };
            scene.addPostLayoutPulseListener(once[0]);
            Platform.requestNextPulse();
        });
        await(pulse, PATIENCE_SECONDS * 1000);
    }

    private static boolean await(CountDownLatch latch, long millis) {
        try {
            return latch.await(millis, TimeUnit.MILLISECONDS);
        } catch (InterruptedException e) {
            throw new AssertionError(e);
        }
    }

    /** Takes the display's robot and looks at what arrives at each window, those that open later too. Interface thread. */
    static void begin() {
        if (robot == null) {
            robot = new Robot();
            Window.getWindows().forEach(Hand::watch);
            Window.getWindows().addListener((ListChangeListener<Window>) change -> {
                while (change.next()) {
                    change.getAddedSubList().forEach(Hand::watch);
                }
            });
        }
    }

    private static void watch(Window window) {
        window.addEventFilter(InputEvent.ANY, event -> {
            if (awaited.test(event)) {
                arrival.countDown();
            }
        });
    }

    private static void act(String what, Predicate<InputEvent> arrives, Consumer<Robot> act) {
        if (!acted(PATIENCE_SECONDS * 1000, arrives, act)) {
            throw late("no window got this: " + what, null);
        }
    }

    /** @return whether it has arrived within so many milliseconds */
    private static boolean acted(long patience, Predicate<InputEvent> arrives, Consumer<Robot> act) {
        CountDownLatch latch = new CountDownLatch(1);
        Platform.runLater(() -> {
            awaited = arrives;
            arrival = latch;
            act.accept(robot);
        });
        return await(latch, patience);
    }

    private static Predicate<InputEvent> isKey(javafx.event.EventType<KeyEvent> type, KeyCode code) {
        return event -> event.getEventType() == type && ((KeyEvent) event).getCode() == code;
    }

    Hand interact(Runnable work) {
        onFx(() -> {
            work.run();
            return null;
        });
        settle();
        return this;
    }

    private void key(boolean down, KeyCode code) {
        if (down) {
            keysDown.push(code);
            act(code + " pressed", isKey(KeyEvent.KEY_PRESSED, code), robot -> robot.keyPress(code));
        } else {
            keysDown.remove(code);
            act(code + " released", isKey(KeyEvent.KEY_RELEASED, code), robot -> robot.keyRelease(code));
        }
    }

    Hand press(KeyCode... codes) {
        List.of(codes).forEach(code -> key(true, code));
        settle();
        return this;
    }

    Hand release(KeyCode... codes) {
        List.of(codes).forEach(code -> key(false, code));
        settle();
        return this;
    }

    /** Presses one after the other and releases them the other way round. */
    Hand push(KeyCode... codes) {
        List.of(codes).forEach(code -> key(true, code));
        for (int i = codes.length - 1; i >= 0; i--) {
            key(false, codes[i]);
        }
        settle();
        return this;
    }

    /** Types letters, also ones that no key of this display has. */
    Hand write(String words) {
        for (char letter : words.toCharArray()) {
            interact(() -> {
                Scene scene = typedAt().getScene();
                Node owner = scene.getFocusOwner();
                KeyCode code = KeyCode.getKeyCode(String.valueOf(letter).toUpperCase(java.util.Locale.ROOT));
                KeyCode known = code == null ? KeyCode.UNDEFINED : code;
                for (var type : List.of(KeyEvent.KEY_PRESSED, KeyEvent.KEY_TYPED, KeyEvent.KEY_RELEASED)) {
                    boolean typed = type == KeyEvent.KEY_TYPED;
                    // What has the keyboard may change with the key's being pressed.
                    Node at = scene.getFocusOwner() == null ? owner : scene.getFocusOwner();
                    javafx.event.Event.fireEvent(
                            at,
                            new KeyEvent(
                                    type,
                                    typed ? String.valueOf(letter) : KeyEvent.CHAR_UNDEFINED,
                                    "",
                                    typed ? KeyCode.UNDEFINED : known,
                                    false,
                                    false,
                                    false,
                                    false));
                }
            });
        }
        return this;
    }

    private static Window typedAt() {
        return Window.getWindows().stream()
                .filter(Window::isFocused)
                .findFirst()
                .orElseGet(() -> Window.getWindows().get(0));
    }

    private void button(boolean down, MouseButton button) {
        if (down) {
            buttonsDown.push(button);
            act(
                    button + " pressed",
                    event -> event.getEventType() == MouseEvent.MOUSE_PRESSED,
                    robot -> robot.mousePress(button));
        } else {
            buttonsDown.remove(button);
            // It belongs to what was pressed; where that is gone by then, a field opened in its place, no window gets
            // it.
            acted(500, event -> event.getEventType() == MouseEvent.MOUSE_RELEASED, robot -> robot.mouseRelease(button));
        }
    }

    Hand press(MouseButton button) {
        button(true, button);
        settle();
        return this;
    }

    Hand release(MouseButton button) {
        button(false, button);
        settle();
        return this;
    }

    Hand moveTo(double x, double y) {
        move(x, y);
        settle();
        return this;
    }

    private void move(double x, double y) {
        // The pointer stands on whole pixels.
        Point2D to = new Point2D(Math.floor(x), Math.floor(y));
        if (onFx(() -> robot.getMousePosition()).distance(to) >= 0.5) {
            act(
                    "moved to " + to,
                    event -> event.getEventType() == MouseEvent.MOUSE_MOVED
                            || event.getEventType() == MouseEvent.MOUSE_DRAGGED,
                    robot -> robot.mouseMove(to));
        }
    }

    Hand moveBy(double x, double y) {
        Point2D from = onFx(() -> robot.getMousePosition());
        return moveTo(from.getX() + x, from.getY() + y);
    }

    /** Nodes of the windows that are open, by a selector as in a style sheet or by the words they show. */
    static NodeQuery lookup(String query) {
        return FINDER.lookup(query);
    }

    private static Bounds bounds(Node node) {
        return onFx(() -> node.localToScreen(node.getBoundsInLocal()));
    }

    /** Where a node is on the screen, once it is seen and what is laid out anew has come to rest. */
    static Bounds bounds(String query) {
        settle();
        // As a person does, it waits until what it is to press is seen.
        await(() -> seen(query).tryQuery().isPresent());
        Bounds at = bounds(seen(query).query());
        for (int i = 0; i < STILL_TRIES; i++) {
            settle();
            Bounds again = seen(query).tryQuery().map(Hand::bounds).orElse(at);
            if (again.equals(at)) {
                break;
            }
            at = again;
        }
        return at;
    }

    private static Point2D middle(Bounds bounds) {
        return new Point2D(bounds.getCenterX(), bounds.getCenterY());
    }

    private static Point2D middle(String query) {
        return middle(bounds(query));
    }

    private static NodeQuery seen(String query) {
        return lookup(query)
                .match(node -> onFx(() -> {
                    for (Node one = node; one != null; one = one.getParent()) {
                        if (!one.isVisible()) {
                            return false;
                        }
                    }
                    return true;
                }));
    }

    /** Whether it is in a window that is open, and all that holds it is visible. */
    static boolean isSeen(String query) {
        return seen(query).tryQuery().isPresent();
    }

    private Hand click(Point2D point, MouseButton button, int times) {
        move(point.getX(), point.getY());
        buttonsDown.push(button);
        int[] left = {times};
        // All at once: where the machine is busy, each after the one before has arrived would be two clicks, not a
        // double one.
        act(button + " pressed", event -> event.getEventType() == MouseEvent.MOUSE_PRESSED && --left[0] == 0, robot -> {
            robot.mousePress(button);
            for (int i = 1; i < times; i++) {
                robot.mouseRelease(button);
                robot.mousePress(button);
            }
        });
        button(false, button);
        settle();
        return this;
    }

    private static MouseButton of(MouseButton... buttons) {
        return buttons.length == 0 ? MouseButton.PRIMARY : buttons[0];
    }

    Hand clickOn(String query, MouseButton... buttons) {
        return click(middle(query), of(buttons), 1);
    }

    Hand clickOn(Node node, MouseButton... buttons) {
        return click(middle(bounds(node)), of(buttons), 1);
    }

    Hand clickOn(Point2D point, MouseButton... buttons) {
        return click(point, of(buttons), 1);
    }

    Hand doubleClickOn(String query, MouseButton... buttons) {
        return click(middle(query), of(buttons), 2);
    }

    Hand doubleClickOn(Point2D point) {
        return click(point, MouseButton.PRIMARY, 2);
    }

    Hand rightClickOn(String query) {
        return click(middle(query), MouseButton.SECONDARY, 1);
    }

    Hand rightClickOn(Point2D point) {
        return click(point, MouseButton.SECONDARY, 1);
    }

    Hand moveTo(Point2D point) {
        return moveTo(point.getX(), point.getY());
    }

    Hand moveTo(Node node) {
        return moveTo(middle(bounds(node)));
    }

    Hand drag(String query, MouseButton... buttons) {
        return moveTo(middle(query)).press(of(buttons));
    }

    Hand drag(Point2D from, MouseButton... buttons) {
        return moveTo(from).press(of(buttons));
    }

    Hand drop() {
        return release(MouseButton.PRIMARY);
    }

    Hand scroll(int amount, VerticalDirection direction) {
        act(
                "wheel turned",
                event -> event.getEventType() == ScrollEvent.SCROLL,
                robot -> robot.mouseWheel(direction == VerticalDirection.UP ? -amount : amount));
        settle();
        return this;
    }

    /** Lets go of all that a test may have left pressed. */
    void letGo() {
        List.copyOf(keysDown)
                .forEach(key -> onFx(() -> {
                    robot.keyRelease(key);
                    return null;
                }));
        List.copyOf(buttonsDown)
                .forEach(button -> onFx(() -> {
                    robot.mouseRelease(button);
                    return null;
                }));
        keysDown.clear();
        buttonsDown.clear();
    }
}
