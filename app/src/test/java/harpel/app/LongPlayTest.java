package harpel.app;

import static org.assertj.core.api.Assertions.assertThat;

import harpel.app.look.Look.View;
import harpel.engine.LiveStatus.Mode;
import harpel.piece.Part;
import harpel.piece.Piece;
import harpel.port.OutputPort;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicLong;
import org.junit.jupiter.api.Test;
import org.testfx.util.WaitForAsyncUtils;

/** A piece of many parts that plays on and on, looked at in one view after the other; {@code ./harpel soak --long} goes on for two hours. */
class LongPlayTest extends WindowCase {
    private static final int SECONDS = Integer.getInteger("long.seconds", 5);
    private static final int PARTS = Integer.getInteger("long.parts", 64);
    private static final long LOOK_MS = 1_000;

    private final AtomicLong started = new AtomicLong();
    private final AtomicLong open = new AtomicLong();

    /** Counts only: what it kept would count as the window's. */
    private final class Counting implements OutputPort {
        @Override
        public String name() {
            return "Counting";
        }

        @Override
        public void send(byte[] message, long dueNanos) {
            int kind = message[0] & 0xF0;
            if (kind == 0x90 && message[2] > 0) {
                started.incrementAndGet();
                open.incrementAndGet();
            } else if (kind == 0x80 || kind == 0x90) {
                open.decrementAndGet();
            }
        }

        @Override
        public void close() {
            // it keeps nothing
        }
    }

    @Override
    String parts() {
        return "";
    }

    /** The parts of the demo again and again, as loops. */
    @Override
    Piece piece() {
        Piece demo = demo().withTimeline(false);
        List<Part> parts = new ArrayList<>(demo.parts());
        for (int i = parts.size(); i < PARTS; i++) {
            Part of = demo.parts().get(i % demo.parts().size());
            parts.add(
                    Part.of(of.name() + " " + i, of.chain()).withChannel(i % 16).withPhrase(of.phrase()));
        }
        return demo.withParts(parts);
    }

    @Override
    OutputPort listener() {
        return new Counting();
    }

    @Test
    void manyPartsPlayOnWithinTheMemoryThatIsMeantForThem() {
        // Beside other tests theirs is there, too.
        HeapCap heap = new HeapCap(SECONDS > 60 ? 0 : HeapCap.kept());
        interact(() -> session.transport().play());
        await(() -> session.transport().status().mode() == Mode.PLAYING);
        long end = System.nanoTime() + TimeUnit.SECONDS.toNanos(SECONDS);
        for (int look = 0; System.nanoTime() < end; look++) {
            View view = View.values()[look % View.values().length];
            Part part = session.document().piece().get().parts().get(look * 7 % PARTS);
            interact(() -> {
                session.look().view().set(view);
                session.selection().partId().set(part.id());
            });
            long before = started.get();
            WaitForAsyncUtils.sleep(LOOK_MS, TimeUnit.MILLISECONDS);
            await(() -> started.get() > before, () -> "nothing is heard any more, after " + heap);
            assertThat(session.transport().status().mode()).isEqualTo(Mode.PLAYING);
            assertThat(uncaught).isEmpty();
            if (look % 60 == 0) {
                heap.look(() -> started + " notes of " + PARTS + " parts");
            }
        }
        heap.look(() -> started + " notes of " + PARTS + " parts");
        System.out.println(PARTS + " parts for " + SECONDS + " s: " + started + " notes, " + heap);
        interact(() -> session.transport().silence());
        await(() -> open.get() == 0, () -> open + " notes are left sounding");
    }
}
