package harpel.port;

import static org.assertj.core.api.Assertions.assertThat;

import harpel.event.Message;
import harpel.event.NoteEnd;
import harpel.event.NoteStart;
import harpel.testkit.StrictPort;
import java.util.ArrayList;
import java.util.HexFormat;
import java.util.List;
import java.util.concurrent.CopyOnWriteArrayList;
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
        now += 4_999_999_999L;
        assertThat(ports.problems()).as("it is said for five seconds").containsKey("A");
        now++;
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

    /** What a port was sent, with when it was to sound. */
    private static final class Log implements OutputPort {
        private final List<String> sent = new CopyOnWriteArrayList<>();
        private boolean closed;

        @Override
        public String name() {
            return "Log";
        }

        @Override
        public void send(byte[] message, long dueNanos) {
            sent.add(HexFormat.of().formatHex(message) + "@" + dueNanos / 1_000_000);
        }

        @Override
        public void close() {
            closed = true;
        }
    }

    private static final long MS = 1_000_000;

    @Test
    void aDelayHoldsBackUntilItsVeryMomentAndAPortThatIsEarlierHoldsBackAllOthers() {
        Log a = new Log();
        Log b = new Log();
        ports.add("A", a);
        ports.add("B", b);
        ports.delay("A", 100);
        ports.send("A", note(0, 60), 5 * MS);
        ports.send("B", note(0, 60), 5 * MS);
        now = 105 * MS - 1;
        ports.pump();
        assertThat(a.sent).isEmpty();
        assertThat(b.sent).containsExactly("903c64@5");
        now++;
        ports.pump();
        assertThat(a.sent).containsExactly("903c64@105");
        ports.delay("A", -50);
        ports.send("A", note(1, 61), now);
        ports.send("B", note(1, 61), now);
        ports.pump();
        assertThat(a.sent).last().isEqualTo("903d64@105");
        assertThat(b.sent).hasSize(1);
        now += 50 * MS;
        ports.pump();
        assertThat(b.sent).last().isEqualTo("903d64@155");
        ports.remove("A");
        ports.send("B", note(2, 62), now);
        ports.pump();
        assertThat(b.sent).as("nobody waits for a port that is gone").last().isEqualTo("903e64@155");
    }

    @Test
    void aPortThatFailedIsTriedEveryTwoSecondsAndThenToldToBeStill() {
        StrictPort port = new StrictPort("A");
        int[] tries = {0};
        Ports own = new Ports(() -> now, false);
        List<String> sent = new ArrayList<>();
        own.add("A", new OutputPort() {
            @Override
            public String name() {
                return "A";
            }

            @Override
            public void send(byte[] message, long dueNanos) {
                port.send(message, dueNanos);
                sent.add(HexFormat.of().formatHex(message));
            }

            @Override
            public void reopen() {
                tries[0]++;
                port.reopen();
            }

            @Override
            public void close() {
                port.close();
            }
        });
        own.send("A", note(0, 60), 0);
        own.pump();
        port.fail(true);
        own.send("A", note(0, 62), 0);
        own.pump();
        now += 1_999 * MS;
        own.pump();
        assertThat(tries[0]).isZero();
        now += MS;
        own.pump();
        assertThat(tries[0]).isEqualTo(1);
        now += 1_999 * MS;
        own.pump();
        assertThat(tries[0]).isEqualTo(1);
        sent.clear();
        port.fail(false);
        now += MS;
        own.pump();
        assertThat(tries[0]).isEqualTo(2);
        assertThat(sent.subList(0, 2)).as("what sounded, or may have").containsExactly("803c40", "803e40");
        assertThat(sent.subList(2, sent.size())).hasSize(32).contains("b07b00", "bf7800");
        port.fail(true);
        own.send("A", note(0, 64), 0);
        own.pump();
        port.fail(false);
        own.close();
        assertThat(tries[0]).as("once more at the end").isEqualTo(3);
        assertThat(port.open()).isEmpty();
    }

    @Test
    void silenceBeginsWithTheChannelsThatWerePlayedOn() {
        Log log = new Log();
        ports.add("A", log);
        NoteStart low = NoteStart.played(0, 0, 5, 60, 90);
        ports.send("A", low, 0);
        ports.sendPlain("A", new byte[] {(byte) 0xF8}, 0);
        ports.pump();
        log.sent.clear();
        ports.silence();
        ports.pump();
        assertThat(log.sent.subList(0, 3)).containsExactly("853c40@0", "b57b00@0", "b57800@0");
        assertThat(log.sent).hasSize(33).doesNotHaveDuplicates();
    }

    @Test
    void listenersHearWhatAnyPortHearsAndAreSilencedWithThem() {
        Log heard = new Log();
        Log port = new Log();
        ports.add("A", port);
        ports.addListener(heard);
        ports.send("A", note(0, 60), 0);
        ports.send("nowhere", note(0, 61), 0);
        ports.sendPlain("A", new byte[] {(byte) 0xF8}, 0);
        ports.pump();
        assertThat(port.sent).containsExactly("903c64@0", "f8@0");
        assertThat(heard.sent).as("what is no music is for its port alone").containsExactly("903c64@0", "903d64@0");
        ports.panic();
        ports.pump();
        assertThat(port.sent).contains("803c40@0");
        assertThat(heard.sent).contains("803c40@0", "803d40@0");
        ports.close();
        assertThat(port.closed && heard.closed).isTrue();
    }

    @Test
    void aPortThatTakesThePlaceOfAnotherEndsWhatSoundsThereAndClosesIt() {
        Log before = new Log();
        Log after = new Log();
        ports.add("A", before);
        NoteStart note = note(0, 60);
        ports.send("A", note, 0);
        ports.pump();
        ports.add("A", after);
        assertThat(before.closed).isTrue();
        assertThat(before.sent).containsExactly("903c64@0", "803c40@0");
        assertThat(after.closed).isFalse();
        ports.send("A", NoteEnd.plain(5, note), 5 * MS);
        ports.send("A", note(9, 62), 9 * MS);
        ports.pump();
        assertThat(after.sent).as("an end of what never began here is none").containsExactly("903e64@9");
    }

    /** A port is stuck once it has not answered for more than a second. */
    @Test
    void oneSecondIsNoTroubleAndMoreIs() {
        List<List<String>> problems = new ArrayList<>();
        ports.add("A", new StrictPort("A") {
            @Override
            public synchronized void send(byte[] message, long dueNanos) {
                now += 1_000 * MS;
                problems.add(List.copyOf(ports.problems().values()));
                now++;
                problems.add(List.copyOf(ports.problems().values()));
            }
        });
        now = 500 * MS;
        ports.send("A", note(0, 60), now);
        ports.pump();
        assertThat(problems).containsExactly(List.of(), List.of("does not take what it is sent"));
    }

    @Test
    void itIsKnownWhenAPortWasUsedLastHowLateAndThatItDoesNotAnswer() {
        List<String> problems = new ArrayList<>();
        ports.add("A", new StrictPort("A") {
            @Override
            public synchronized void send(byte[] message, long dueNanos) {
                now += 1_001 * MS;
                problems.addAll(ports.problems().values());
            }
        });
        assertThat(ports.activeNanos("A")).isZero();
        assertThat(ports.activeNanos("nowhere")).isZero();
        now = 500 * MS;
        ports.send("A", note(0, 60), 450 * MS);
        ports.pump();
        assertThat(problems).containsExactly("does not take what it is sent");
        assertThat(ports.problems()).isEmpty();
        assertThat(ports.activeNanos("A")).isEqualTo(500 * MS);
        assertThat(ports.worstLateNanos(now)).isEqualTo(1_051 * MS);
    }

    @Test
    void aPortOfItsOwnThreadSendsInTimeFallsSilentAtOnceAndIsClosed() throws InterruptedException {
        Log log = new Log();
        Ports threaded = new Ports();
        threaded.add("A", log);
        threaded.delay("A", 60);
        long begun = System.nanoTime();
        threaded.send("A", note(0, 60), begun);
        await(() -> log.sent.size() == 1);
        assertThat(System.nanoTime() - begun).isGreaterThanOrEqualTo(60 * MS);
        threaded.send("A", note(1, 62), System.nanoTime() + 3_600_000 * MS);
        threaded.silence();
        await(() -> log.sent.size() >= 34);
        assertThat(log.sent).noneMatch(one -> one.startsWith("903e"));
        threaded.delay("A", 0);
        threaded.sendPlain("A", new byte[] {(byte) 0xFA}, System.nanoTime());
        await(() -> log.sent.stream().anyMatch(one -> one.startsWith("fa")));
        threaded.close();
        await(() -> log.closed);
    }

    @Test
    void theLastNoteBeforeSilenceIsNotHeardAndTheNextOneIs() {
        Log log = new Log();
        Log heard = new Log();
        ports.add("A", log);
        ports.addListener(heard);
        ports.send("A", note(0, 60), 0);
        ports.silence();
        ports.send("A", note(1, 61), 0);
        ports.pump();
        for (Log one : List.of(log, heard)) {
            assertThat(one.sent)
                    .noneMatch(sent -> sent.startsWith("903c"))
                    .last()
                    .isEqualTo("903d64@0");
        }
        assertThat(ports.names()).containsExactly("A");
    }

    /** More sound at once than ends find room for: what is over is not begun, until Silence has ended all. */
    @Test
    void noMoreIsBegunThanCanBeEndedAndSilenceMakesRoom() {
        Log log = new Log();
        ports.add("A", log);
        List<NoteStart> notes = new ArrayList<>();
        for (int i = 0; i < EdgeQueue.ROOM_FOR_ENDS; i++) {
            notes.add(NoteStart.played(i, 0, i / 128 % 16, i % 128, 90));
            ports.send("A", notes.get(i), 0);
            ports.pump();
        }
        assertThat(ports.problems()).isEmpty();
        log.sent.clear();
        ports.send("A", NoteStart.played(9_000, 0, 0, 60, 91), 0);
        ports.pump();
        assertThat(log.sent).isEmpty();
        assertThat(ports.problems()).containsEntry("A", "gets more than it can send");
        ports.silence();
        NoteStart next = NoteStart.played(9_001, 0, 0, 60, 92);
        ports.send("A", next, 0);
        ports.pump();
        assertThat(log.sent).last().isEqualTo("903c5c@0");
        ports.send("A", NoteEnd.plain(9_002, notes.get(60)), 0);
        ports.pump();
        assertThat(log.sent).as("an end from before ends nothing new").last().isEqualTo("903c5c@0");
        ports.send("A", NoteEnd.plain(9_002, next), 0);
        ports.pump();
        assertThat(log.sent).last().isEqualTo("803c40@0");
    }

    @Test
    void clocksThatFindNoRoomAreLeftOutAndThatIsSaid() {
        Log log = new Log();
        ports.add("A", log);
        for (int i = 0; i < EdgeQueue.ROOM; i++) {
            ports.sendPlain("A", new byte[] {(byte) 0xF8}, 0);
        }
        assertThat(ports.problems()).isEmpty();
        ports.sendPlain("A", new byte[] {(byte) 0xF8}, 0);
        assertThat(ports.problems()).containsEntry("A", "gets more than it can send");
        ports.sendPlain("A", new byte[] {(byte) 0xFC}, 0);
        ports.pump();
        assertThat(log.sent).hasSize(EdgeQueue.ROOM + 1).last().isEqualTo("fc@0");
    }

    private static void await(java.util.function.BooleanSupplier what) throws InterruptedException {
        long giveUp = System.nanoTime() + 20_000 * MS;
        while (!what.getAsBoolean()) {
            assertThat(System.nanoTime()).as("waited 20 s").isLessThan(giveUp);
            Thread.sleep(1);
        }
    }
}
