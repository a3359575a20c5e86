package harpel.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import javafx.application.Platform;
import javafx.scene.control.TextArea;
import javafx.scene.input.KeyCode;
import org.junit.jupiter.api.Test;

/** What nobody caught is said calmly, with the details one click away, and the window goes on. */
class WindowUncaughtTest extends WindowCase {
    @Override
    String parts() {
        return "{'name':'Lead','chain':[]}";
    }

    @Test
    void whatNobodyCaughtIsSaidWithItsDetailsAndOnce() {
        interact(() -> Uncaught.takeAll(session, stage));
        Platform.runLater(() -> {
            throw new IllegalStateException("no such tide");
        });
        await(() -> text("#message").equals("Something went wrong, and Harpel goes on."));
        push(KeyCode.CONTROL, KeyCode.ENTER);
        await(() -> onFx(() -> lookup("#details").tryQuery().isPresent()));
        assertThat(lookup("#details").queryAs(TextArea.class).getText())
                .contains("IllegalStateException: no such tide", "harpel.log", "WindowUncaughtTest");
        push(KeyCode.ESCAPE);
        await(() -> onFx(() -> lookup("#details").tryQuery().isEmpty()));
        push(KeyCode.SPACE);
        await(() -> session.transport().status().mode() == harpel.engine.LiveStatus.Mode.PLAYING);
    }

    @Test
    void anErrorOfAnotherThreadIsSaidToo() throws InterruptedException {
        interact(() -> Uncaught.takeAll(session, stage));
        for (int i = 0; i < 3; i++) {
            Thread thread = new Thread(
                    () -> {
                        throw new StackOverflowError("on purpose");
                    },
                    "some worker");
            thread.start();
            thread.join();
        }
        await(() -> text("#message").equals("Something went wrong, and Harpel goes on."));
        interact(() -> session.say("Later"));
        assertThat(List.of(text("#message"))).as("not again").containsExactly("Later");
    }
}
