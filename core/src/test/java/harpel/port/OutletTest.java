package harpel.port;

import static org.assertj.core.api.Assertions.assertThat;

import harpel.event.Message;
import harpel.event.NoteEnd;
import harpel.event.NoteStart;
import harpel.testkit.StrictPort;
import java.util.ArrayList;
import java.util.HexFormat;
import java.util.List;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.Test;

/** What stands between the engine and a port: nothing a port does disturbs another, and nothing hangs at it. */
class OutletTest {
    private long now;
    private long asked;
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
        assertThat(ports.problems())
                .containsOnlyKeys("A")
                .containsValue("failed: unplugged; it is tried again every two seconds");
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
    void aPortThatFallsBehindLosesStartsAndSaysSoAndEachEndComesThrough() {
        StrictPort port = new StrictPort("A");
        ports.add("A", port);
        List<NoteStart> notes = new ArrayList<>();
        for (int i = 0; i < 10_000; i++) {
            notes.add(note(i, i % 128));
            ports.send("A", notes.get(i), i);
        }
        notes.forEach(note -> ports.send("A", NoteEnd.plain(note.tick() + 1, note), 0));
        assertThat(ports.problems()).containsEntry("A", "gets more than it can send");
        ports.pump();
        assertThat(port.open()).isEmpty();
        assertThat(port.log().stream().filter(one -> one.startsWith("+"))).hasSize(EdgeQueue.ROOM);
        now += 6_000_000_000L;
        assertThat(ports.problems()).isEmpty();
        ports.send("A", note(10_000, 60), 0);
        ports.pump();
        assertThat(port.open()).containsExactly("0/60");
    }

    @Test
    void aNoteWithADelayEndsThoughItsStartStillWaitedWhenTheQueueRanFull() {
        StrictPort port = new StrictPort("A");
        ports.add("A", port);
        ports.delay("A", 100);
        NoteStart start = note(0, 60);
        ports.send("A", start, now);
        for (int i = 0; i < 2 * EdgeQueue.ROOM; i++) {
            ports.send("A", Message.control(0, 0, 0, 1, i % 128), now);
        }
        ports.pump();
        ports.send("A", NoteEnd.plain(1, start), now);
        now += 200_000_000L;
        ports.pump();
        assertThat(port.log()).containsExactly("+60", "-60");
    }

    /** 3,000 messages at the speed of a cable take 2.9 s (MIDI 1.0: 31,250 bits a second, 3 bytes of 10 bits: 0.96 ms). */
    @Test
    void silenceIsAtThePortWithinOneMessageWhateverWaits() {
        List<Long> ends = new ArrayList<>();
        StrictPort port = new StrictPort("A") {
            @Override
            public synchronized void send(byte[] message, long dueNanos) {
                now += 960_000;
                super.send(message, dueNanos);
                if ((message[0] & 0xF0) == 0x80) {
                    ends.add(now);
                }
                if (now == 1_000 * 960_000L) {
                    asked = now;
                    ports.silence();
                }
            }
        };
        ports.add("A", port);
        ports.send("A", note(0, 60), 0);
        for (int i = 0; i < 3_000; i++) {
            ports.send("A", note(1, 61 + i % 2), 0);
            ports.send("A", Message.control(1, 0, 0, i % 128, i % 128), 0);
        }
        ports.pump();
        assertThat(asked).isPositive();
        long first = ends.stream().filter(at -> at > asked).findFirst().orElseThrow();
        assertThat(first - asked).isLessThanOrEqualTo(960_000);
        assertThat(ends).as("nothing begins after it").last().isEqualTo(asked + 3 * 960_000);
        assertThat(port.open()).isEmpty();
    }

    @Test
    void silenceLetsThroughWhatIsNoNoteTheLatestOfEach() {
        List<String> sent = new ArrayList<>();
        ports.add("A", new StrictPort("A") {
            @Override
            public synchronized void send(byte[] message, long dueNanos) {
                sent.add(HexFormat.of().formatHex(message));
            }
        });
        ports.send("A", Message.control(0, 0, 2, 7, 1), 0);
        ports.send("A", note(0, 60), 0);
        ports.send("A", new Message(0, 0, (byte) 0xC2, (byte) 5), 0);
        ports.sendPlain("A", new byte[] {(byte) 0xF8}, 0);
        ports.sendPlain("A", new byte[] {(byte) 0xFC}, 0);
        ports.send("A", Message.control(0, 0, 2, 7, 90), 0);
        ports.sendPlain("A", new byte[] {(byte) 0x90, 36, 3}, 0);
        ports.silence();
        ports.send("A", note(0, 62), 0);
        ports.pump();
        assertThat(sent.subList(0, 32)).allMatch(one -> one.matches("b.7(b|8)00"));
        assertThat(sent.subList(32, sent.size())).containsExactly("c205", "fc", "b2075a", "902403", "903e64");
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

    @Test
    void latenessIsTheWorstOfTheLastMinute() {
        Lateness lateness = new Lateness();
        lateness.record(10_000_000_000L, 5);
        lateness.record(11_000_000_000L, 3);
        assertThat(lateness.worst(60_000_000_000L)).isEqualTo(5);
        assertThat(lateness.worst(70_000_000_001L)).isEqualTo(3);
        assertThat(lateness.worst(200_000_000_000L)).isZero();
    }
}
