package harpel.app;

import static org.assertj.core.api.Assertions.assertThat;

import harpel.app.look.Look.View;
import harpel.chain.StageAddress;
import harpel.effect.held.Arpeggio;
import harpel.piece.Piece;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import java.util.concurrent.TimeUnit;
import javafx.application.Platform;
import javafx.event.Event;
import javafx.event.EventType;
import javafx.scene.AccessibleRole;
import javafx.scene.Node;
import javafx.scene.Parent;
import javafx.scene.Scene;
import javafx.scene.control.ButtonBase;
import javafx.scene.control.ComboBoxBase;
import javafx.scene.control.ContextMenu;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextInputControl;
import javafx.scene.control.ToggleButton;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.stage.Stage;
import javafx.stage.Window;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.testfx.util.WaitForAsyncUtils;

/**
 * A walk with keys alone through every view and sheet: the keyboard is always with something that is seen, everything that takes it is
 * come by, and a screen reader can say what each is. The keys are put in behind the display, since there are thousands.
 */
class WindowWalkTest extends WindowCase {
    /** After so many steps to nothing new the walk has been everywhere it comes. */
    private static final int IN_VAIN = 24;

    @Override
    String parts() {
        return "";
    }

    @Override
    Piece piece() {
        return demo();
    }

    private static void collect(Node node, List<Node> into) {
        if (!node.isVisible() || node.isDisabled()) {
            return;
        }
        if (node.isFocusTraversable() && !(node instanceof ScrollPane)) {
            into.add(node);
        }
        boolean whole = node instanceof ComboBoxBase || node instanceof TextInputControl || node instanceof ButtonBase;
        if (node instanceof Parent parent && !whole) {
            parent.getChildrenUnmodifiable().forEach(child -> collect(child, into));
        }
    }

    /** What the keyboard is with: a sheet of its own, or the window. */
    private static Scene scene() {
        return Window.getWindows().stream()
                .filter(window -> window instanceof Stage && window.isShowing() && window.isFocused())
                .findFirst()
                .orElse(stage)
                .getScene();
    }

    private static Node owner() {
        return scene().getFocusOwner();
    }

    private static void press(KeyCode code) {
        for (EventType<KeyEvent> type : List.of(KeyEvent.KEY_PRESSED, KeyEvent.KEY_RELEASED)) {
            Node to = owner() == null ? scene().getRoot() : owner();
            Event.fireEvent(to, new KeyEvent(type, "", "", code, false, false, false, false));
        }
    }

    private static boolean isShown(Node node) {
        for (Node at = node; at != null; at = at.getParent()) {
            if (!at.isVisible() || at.isDisabled()) {
                return false;
            }
        }
        return node.getScene() != null;
    }

    /** What the keyboard comes by: Tab, and where that comes to nothing new, F6. */
    private Set<Node> walk(List<String> wrong) {
        Set<Node> reached = new LinkedHashSet<>();
        interact(() -> {
            for (int vain = 0; vain < IN_VAIN; vain++) {
                KeyCode code = vain % 4 == 3 ? KeyCode.F6 : KeyCode.TAB;
                press(code);
                Node now = owner();
                if (now == null || !isShown(now)) {
                    wrong.add(code + " leads to nothing that is seen: " + now);
                } else if (reached.add(now)) {
                    vain = -1;
                }
            }
        });
        return reached;
    }

    /** Whether it is one of several that are one stop, among which arrow keys go. */
    private static boolean isOfAGroup(Node node, Set<Node> reached) {
        if (node instanceof ToggleButton toggle && toggle.getToggleGroup() != null) {
            return reached.stream()
                    .anyMatch(one ->
                            one instanceof ToggleButton other && other.getToggleGroup() == toggle.getToggleGroup());
        }
        return isPad(node) && reached.stream().anyMatch(WindowWalkTest::isPad);
    }

    private static boolean isPad(Node node) {
        return node.getStyleClass().contains("pad");
    }

    private List<Node> things() {
        return onFx(() -> {
            List<Node> all = new ArrayList<>();
            collect(scene().getRoot(), all);
            return all;
        });
    }

    /** What there is a little later. */
    private List<Node> twice() {
        WaitForAsyncUtils.sleep(100, TimeUnit.MILLISECONDS);
        settle();
        return things();
    }

    private void look(String place) {
        settle();
        // What is worked out in the background, such as cards of variations, may come while one walks.
        for (int tries = 0; tries < 20 && !things().equals(twice()); tries++) {
            settle();
        }
        List<String> wrong = new ArrayList<>();
        Set<Node> reached = walk(wrong);
        settle();
        List<Node> all = things();
        interact(() -> {
            for (Node node : all) {
                if (node != pane && !reached.contains(node) && !isOfAGroup(node, reached)) {
                    wrong.add("not reached: " + node);
                }
                if (WindowReachTest.name(node).isBlank()) {
                    wrong.add("without a name: " + node);
                }
                boolean plain = node.getAccessibleRole() == AccessibleRole.PARENT
                        || node.getAccessibleRole() == AccessibleRole.NODE;
                if (plain && node != pane) {
                    wrong.add("without a role: " + node);
                }
            }
        });
        assertThat(reached.size()).as("things in %s", place).isGreaterThan(1);
        assertThat(wrong).as(place).isEmpty();
    }

    @ParameterizedTest
    @ValueSource(strings = {"CHAIN", "PHRASE", "TIMELINE", "PLAY", "DEVICES"})
    void everythingInAViewIsComeByWithKeysAlone(View view) {
        interact(() -> session.look().view().set(view));
        look(view.toString());
    }

    @ParameterizedTest
    @ValueSource(strings = {"print-sheet", "variations", "export", "keys", "first-steps", "help", "routes", "large"})
    void everythingInASheetIsComeByWithKeysAlone(String action) {
        interact(() -> session.selection().selected().set(StageAddress.parse("harbour-bells/arpeggio")));
        Runnable opens = pane.actions().all().stream()
                .filter(one -> one.id().equals(action))
                .findFirst()
                .orElseThrow(() -> new AssertionError("there is no " + action))
                .run();
        // A sheet that is a window of its own comes back when it is closed.
        Platform.runLater(opens);
        look(action);
    }

    @Test
    void inAnOpenListLettersMoveTheHighlightAndOnlyEnterTakes() {
        select("arpeggio");
        focus("#param-order");
        Arpeggio.Order before = value("arpeggio", Arpeggio.ORDER);
        push(KeyCode.ENTER);
        await(() -> onFx(() -> Window.getWindows().stream().anyMatch(ContextMenu.class::isInstance)));
        push(KeyCode.R);
        settle();
        assertThat(value("arpeggio", Arpeggio.ORDER))
                .as("what stands behind the list")
                .isEqualTo(before);
        push(KeyCode.ENTER);
        await(() -> value("arpeggio", Arpeggio.ORDER) == Arpeggio.Order.RANDOM);
        push(KeyCode.CONTROL, KeyCode.Z);
        await(() -> value("arpeggio", Arpeggio.ORDER) == before);
    }

    @Test
    void theLineForEverythingGivesTheKeyboardBack() {
        focus("#play");
        push(KeyCode.CONTROL, KeyCode.K);
        await(() -> isSeen("#do-line"));
        push(KeyCode.ESCAPE);
        await(() -> !isSeen("#do-line"));
        assertThat(onFx(() -> owner().getId())).isEqualTo("play");
    }
}
