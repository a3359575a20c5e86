package harpel.engine;

import harpel.event.Event;
import java.util.function.BiConsumer;

/** Outputs for tests that look at what is sent and where. */
final class Outputs {
    private Outputs() {}

    /** Hands each event with its port's name to a taker; nobody asks for silence. */
    static LiveOutput to(BiConsumer<String, Event> taker) {
        return to(taker, () -> {
            throw new AssertionError("nobody asked for silence");
        });
    }

    static LiveOutput to(BiConsumer<String, Event> taker, Runnable silence) {
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
