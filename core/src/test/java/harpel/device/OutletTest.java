package harpel.device;

import static org.assertj.core.api.Assertions.assertThat;

import harpel.event.NoteEnd;
import harpel.event.NoteStart;
import harpel.testkit.StrictPort;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.Test;

/** What stands between the engine and a port: nothing a port does disturbs another, and nothing hangs at it. */
class OutletTest {
    private long now;
    private final Ports ports = new Ports(() -> now, false);

    private static NoteStart note(long tick, int pitch) {
        return NoteStart.played(tick, 0, 0, pitch, 100);
    }

    @Test
    void twoPartsOnOneChannelStrikeAgainAndTheLastEndEnds() {
        StrictPort port = new StrictPort("A");
        ports.add("A", port);
        NoteStart first = note(0, 60);
        NoteStart second = note(5, 60);
        ports.send("A", first, 0);
        ports.send("A", second, 5);
        ports.send("A", NoteEnd.plain(7, first), 7);
        ports.pump();
        assertThat(port.log()).containsExactly("+60", "-60", "+60");
        ports.send("A", NoteEnd.plain(9, second), 9);
        ports.pump();
        assertThat(port.log()).containsExactly("+60", "-60", "+60", "-60");
    }

    @Test
    void aPortThatFailsIsNamedEndsWhatSoundedWhenItIsBackAndTellsItsSoundAgain() {
        StrictPort bad = new StrictPort("A");
        StrictPort good = new StrictPort("B");
        ports.add("A", bad);
        ports.add("B", good);
        assertThat(ports.takeOpened()).isEqualTo("A");
        assertThat(ports.takeOpened()).isEqualTo("B");
        ports.send("A", note(0, 60), 0);
        ports.pump();
        bad.fail(true);
        ports.send("A", note(1, 62), 0);
        ports.send("B", note(1, 62), 0);
        ports.pump();
        assertThat(ports.problems()).containsOnlyKeys("A").containsValue("failed: unplugged");
        assertThat(good.log()).containsExactly("+62");
        now += 3_000_000_000L;
        ports.pump();
        assertThat(ports.problems()).as("still away").containsOnlyKeys("A");
        bad.fail(false);
        now += 3_000_000_000L;
        ports.pump();
        assertThat(ports.problems()).isEmpty();
        assertThat(bad.open()).isEmpty();
        assertThat(ports.takeOpened()).isEqualTo("A");
        ports.send("A", note(2, 64), 0);
        ports.pump();
        assertThat(bad.log()).endsWith("+64");
    }

    @Test
    void aPortThatFallsBehindLosesStartsAndLeavesNothingHanging() {
        StrictPort port = new StrictPort("A");
        ports.add("A", port);
        for (int i = 0; i < 10_000; i++) {
            ports.send("A", note(i, i % 128), i);
        }
        ports.pump();
        assertThat(port.open()).isEmpty();
        ports.send("A", note(10_000, 60), 0);
        ports.pump();
        assertThat(port.open()).containsExactly("0/60");
    }

    @Test
    void aPortThatIsTakenAwayEndsWhatSoundedThere() {
        StrictPort port = new StrictPort("A");
        ports.add("A", port);
        ports.send("A", note(0, 60), 0);
        ports.remove("A");
        assertThat(port.log()).containsExactly("+60", "-60");
        assertThat(ports.names()).isEmpty();
    }

    @Test
    void aPortThatBlocksHoldsUpNoOther() throws InterruptedException {
        CountDownLatch blocked = new CountDownLatch(1);
        CountDownLatch arrived = new CountDownLatch(1);
        try (Ports threaded = new Ports()) {
            threaded.add("stuck", new StrictPort("stuck") {
                @Override
                public void send(byte[] message, long dueNanos) {
                    try {
                        blocked.await();
                    } catch (InterruptedException e) {
                        Thread.currentThread().interrupt();
                    }
                }
            });
            threaded.add("fine", new StrictPort("fine") {
                @Override
                public void send(byte[] message, long dueNanos) {
                    arrived.countDown();
                }
            });
            threaded.send("stuck", note(0, 60), 0);
            threaded.send("fine", note(0, 60), 0);
            assertThat(arrived.await(10, TimeUnit.SECONDS)).isTrue();
            blocked.countDown();
        }
    }

    @Test
    void panicEndsEverythingWithoutTheEngine() {
        StrictPort port = new StrictPort("A");
        ports.add("A", port);
        ports.send("A", note(0, 60), 0);
        ports.pump();
        ports.send("A", note(1, 61), 0);
        ports.panic();
        ports.pump();
        assertThat(port.log()).containsExactly("+60", "-60");
    }

    @Test
    void whatWaitedWhenPanicCameIsNotHeardAfterIt() {
        StrictPort port = new StrictPort("A") {
            @Override
            public synchronized void send(byte[] message, long dueNanos) {
                super.send(message, dueNanos);
                if (log().size() == 1) {
                    ports.panic();
                }
            }
        };
        ports.add("A", port);
        ports.send("A", note(0, 60), 0);
        ports.send("A", note(1, 61), 0);
        ports.send("A", note(1, 62), 0);
        ports.pump();
        assertThat(port.log()).containsExactly("+60", "-60");
        assertThat(port.open()).isEmpty();
    }
}
