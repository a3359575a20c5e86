package harpel.app.session;

import static org.assertj.core.api.Assertions.assertThat;

import harpel.app.look.Messages;
import harpel.app.transport.TraceStore;
import harpel.capture.Heard;
import java.util.ArrayDeque;
import java.util.Deque;
import org.junit.jupiter.api.Test;

class ShortMemoryTest {
    private final TraceStore traces = new TraceStore();
    private final Heard heard = new Heard();
    private final Messages messages = new Messages();
    private final Deque<Runnable> later = new ArrayDeque<>();
    private boolean isShort = true;

    @Test
    void tracesGoFirstThenWhatWasHeardIsHalvedAndSaidUntilThereIsEnough() {
        ShortMemory memory = new ShortMemory(traces, heard, messages, () -> isShort, later::add);
        memory.give();
        assertThat(traces.most()).isEqualTo(TraceStore.MOST_IN_ALL / 10);
        assertThat(heard.mostBytes()).isEqualTo(Heard.MOST_BYTES);
        assertThat(messages.last().get()).isEmpty();
        memory.give();
        assertThat(later).as("it looks again before it gives more").hasSize(1);
        later.poll().run();
        assertThat(heard.mostBytes()).isEqualTo(Heard.MOST_BYTES / 2);
        assertThat(messages.last().get()).isEqualTo("Memory is short: what was heard longest ago is forgotten.");
        isShort = false;
        later.poll().run();
        assertThat(heard.mostBytes()).isEqualTo(Heard.MOST_BYTES / 2);
        assertThat(later).as("nothing more is looked at").isEmpty();
        isShort = true;
        memory.give();
        while (!later.isEmpty()) {
            later.poll().run();
        }
        assertThat(heard.mostBytes()).as("never nothing").isPositive();
    }
}
