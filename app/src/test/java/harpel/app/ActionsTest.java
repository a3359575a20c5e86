package harpel.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.concurrent.atomic.AtomicBoolean;
import java.util.concurrent.atomic.AtomicInteger;
import javafx.scene.control.MenuItem;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import org.junit.jupiter.api.Test;

class ActionsTest {
    private final Actions actions = new Actions(() -> harpel.app.look.Look.View.CHAIN);
    private final AtomicInteger done = new AtomicInteger();
    private final AtomicBoolean enabled = new AtomicBoolean(true);
    private final Actions.Action open =
            actions.add("open", "Open a piece", "Shortcut+O", enabled::get, done::incrementAndGet);

    private static KeyEvent pressed(KeyCode code, boolean shortcut) {
        return new KeyEvent(KeyEvent.KEY_PRESSED, "", "", code, false, shortcut, false, false);
    }

    @Test
    void anActionAnswersItsKeysAndNoOthers() {
        assertThat(actions.take(pressed(KeyCode.O, true))).isTrue();
        assertThat(done).hasValue(1);
        assertThat(actions.take(pressed(KeyCode.O, false))).isFalse();
        assertThat(actions.take(pressed(KeyCode.P, true))).isFalse();
        assertThat(done).hasValue(1);
    }

    @Test
    void oneThatCannotBeDoneTakesItsKeysAndDoesNothing() {
        enabled.set(false);
        assertThat(actions.take(pressed(KeyCode.O, true)))
                .as("so that nothing else is done by mistake")
                .isTrue();
        assertThat(done).hasValue(0);
    }

    @Test
    void aMenuShowsWordsKeysAndWhetherItCanBeDone() {
        MenuItem item = actions.item(open);
        assertThat(item.getText()).isEqualTo("Open a piece");
        assertThat(item.getAccelerator()).isEqualTo(open.key());
        assertThat(open.keys()).contains("O");
        enabled.set(false);
        actions.refresh();
        assertThat(item.isDisable()).isTrue();
        enabled.set(true);
        actions.refresh();
        assertThat(item.isDisable()).isFalse();
        item.fire();
        assertThat(done).hasValue(1);
    }

    @Test
    void aNameOrKeysAreGivenOnce() {
        assertThatThrownBy(() -> actions.add("open", "Open again", "Shortcut+Q", () -> true, () -> {}))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessageContaining("open");
        assertThatThrownBy(() -> actions.add("other", "Other", "Shortcut+O", () -> true, () -> {}))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessageContaining("Shortcut+O");
        assertThat(actions.all()).as("the first stays").containsExactly(open);
    }

    @Test
    void aKeyThatDoesNotExistIsRefused() {
        assertThatThrownBy(() -> actions.add("silence", "Silence", "Escape", () -> true, () -> {}))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessageContaining("no key called \"Escape\"");
        actions.add("silence", "Silence", "Esc", () -> true, done::incrementAndGet);
        assertThat(actions.take(pressed(KeyCode.ESCAPE, false))).isTrue();
        assertThat(done).hasValue(1);
    }
}
