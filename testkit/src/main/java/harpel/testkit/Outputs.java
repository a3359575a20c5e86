package harpel.testkit;

import static org.assertj.core.api.Assertions.assertThat;

import harpel.event.Event;
import harpel.event.NoteEnd;
import harpel.event.NoteStart;
import harpel.port.LiveOutput;
import java.util.Set;
import java.util.function.BiConsumer;

/** Outputs for tests that look at what is sent and where. */
public final class Outputs {
    private Outputs() {}

    /** Hands each event with its port's name to a taker; nobody asks for silence. */
    public static LiveOutput to(BiConsumer<String, Event> taker) {
        return to(taker, () -> {
            throw new AssertionError("nobody asked for silence");
        });
    }

    /** Keeps which notes are open; none starts twice or ends without having begun. */
    public static LiveOutput counting(Set<NoteStart> open) {
        return to((port, event) -> {
            if (event instanceof NoteStart note) {
                assertThat(open.add(note)).isTrue();
            } else if (event instanceof NoteEnd end) {
                assertThat(open.remove(end.start())).isTrue();
            }
        });
    }

    public static LiveOutput to(BiConsumer<String, Event> taker, Runnable silence) {
        return new LiveOutput() {
            @Override
            public void send(String port, Event event, long dueNanos) {
                taker.accept(port, event);
            }

            @Override
            public void silence() {
                silence.run();
            }
        };
    }
}
