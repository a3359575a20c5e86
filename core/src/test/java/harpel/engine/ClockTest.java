package harpel.engine;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import harpel.engine.LiveStatus.Mode;
import harpel.event.Event;
import harpel.event.NoteEnd;
import harpel.event.NoteStart;
import harpel.phrase.Note;
import harpel.phrase.Phrase;
import harpel.piece.Bracket;
import harpel.piece.Piece;
import harpel.time.MeterMap;
import harpel.time.TempoMap;
import harpel.time.Ticks;
import harpel.time.TimeMap;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.HexFormat;
import java.util.List;
import java.util.Random;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/**
 * Clocks out and in, byte by byte: MIDI 1.0 Detailed Specification, "System Real Time Messages" (F8 timing clock, 24 a quarter note; FA
 * start; FB continue; FC stop) and "System Common Messages" (F2 song position pointer, in MIDI beats of six clocks, low seven bits first).
 */
class ClockTest {
    private static final long BAR = 4L * Ticks.PER_QUARTER;
    private static final long MS = 1_000_000;
    private static final String SYNC = "Partner";

    private record Sent(String bytes, long nanos) {}

    private final List<Sent> sent = new ArrayList<>();
    private final List<Long> starts = new ArrayList<>();
    private final List<Integer> pitches = new ArrayList<>();
    private final Set<NoteStart> open = new HashSet<>();
    private long now;
    private LiveCycle cycle;
    private long partner;

    private void begin(Piece piece) {
        cycle = new LiveCycle(
                Program.of(piece),
                () -> now,
                new LiveOutput() {
                    @Override
                    public void send(String port, Event event, long dueNanos) {
                        if (event instanceof NoteStart note) {
                            starts.add(dueNanos);
                            pitches.add(note.pitch());
                            open.add(note);
                        } else if (event instanceof NoteEnd end) {
                            assertThat(open.remove(end.start())).isTrue();
                        }
                    }

                    @Override
                    public void sendPlain(String port, byte[] message, long dueNanos) {
                        sent.add(new Sent(HexFormat.of().formatHex(message), dueNanos));
                    }

                    @Override
                    public void silence() {
                        open.clear();
                    }
                },
                Tap.NONE);
    }

    private static Piece piece(double bpm) {
        List<Note> notes = new ArrayList<>();
        for (int i = 0; i < 4; i++) {
            notes.add(Note.of(i * Ticks.PER_QUARTER, Ticks.PER_QUARTER / 2, 60 + i, 90));
        }
        return Piece.empty()
                .withTime(new TimeMap(TempoMap.of(bpm), MeterMap.FOUR_FOUR))
                .withPhrase(Phrase.of("Tide", BAR, notes))
                .withPart("part-1", part -> part.withPhrase("tide"));
    }

    private void runTo(long nanos) {
        while (now < nanos) {
            cycle.render(now);
            now = Math.max(now + 1, Math.min(nanos, cycle.nextNanos()));
        }
        cycle.render(now);
    }

    private String bytes() {
        StringBuilder bytes = new StringBuilder();
        sent.forEach(one -> bytes.append(one.bytes).append(' '));
        return bytes.toString().strip();
    }

    // Out

    @Test
    void aQuarterHasTwentyFourClocksBehindAStartAndThenAStop() {
        begin(piece(120));
        cycle.clockTo(List.of("Pier"), 0);
        cycle.play(0);
        runTo(499 * MS);
        cycle.stop(now);
        assertThat(bytes()).isEqualTo("fa " + "f8 ".repeat(24) + "fc");
        for (int i = 0; i < 24; i++) {
            assertThat(sent.get(i + 1).nanos).isCloseTo(Math.round(i * 500 * MS / 24.0), within(1L));
        }
    }

    @Test
    void fromElsewhereTheSongPositionIsToldAndItContinuesAtTheSixteenth() {
        begin(piece(120));
        cycle.clockTo(List.of("Pier"), 0);
        cycle.locate(40 * BAR + 5, 0);
        cycle.play(0);
        runTo(125 * MS);
        // 40 bars are 640 sixteenths, and the next one is 641 = 5 * 128 + 1.
        assertThat(bytes()).startsWith("f20105 fb f8");
        assertThat(sent.get(0).nanos).isZero();
        assertThat(sent.get(1).nanos).isBetween(124 * MS, 125 * MS);
    }

    @Test
    void clocksStayEvenThroughRampsOfTheTempo() {
        TempoMap ramp = TempoMap.ofChanges(List.of(
                new TempoMap.Change(0, 60, true), new TempoMap.Change(BAR, 180), new TempoMap.Change(2 * BAR, 90)));
        begin(piece(120).withTime(new TimeMap(ramp, MeterMap.FOUR_FOUR)));
        cycle.clockTo(List.of("Pier"), 0);
        cycle.play(0);
        runTo(5_000 * MS);
        for (int i = 0; i < 190; i++) {
            long due = (long) Math.ceil(ramp.nanosAt(i * 640L));
            assertThat(sent.get(i + 1).nanos).isCloseTo(due, within(2L));
        }
    }

    @Test
    void whereALoopComesRoundTheOtherSideIsToldSo() {
        begin(piece(120).withTimeline(true).withBracket(new Bracket(BAR, 2 * BAR, true)));
        cycle.clockTo(List.of("Pier"), 0);
        cycle.play(0);
        runTo(4_000 * MS);
        assertThat(bytes()).startsWith("fa " + "f8 ".repeat(192) + "fc f21000 fb f8");
    }

    // In

    private void take(int status, int data1, int data2) {
        cycle.take(SYNC, new InputPort.Played(status, data1, data2, now));
    }

    /** So many clocks of a partner, each off by up to so much. */
    private void clocks(int count, double period, long jitter, Random random) {
        for (int i = 0; i < count; i++) {
            long due = partner + Math.round(i * period) + (jitter == 0 ? 0 : random.nextLong(-jitter, jitter + 1));
            runTo(Math.max(now, due));
            take(ClockOut.CLOCK, 0, 0);
            cycle.render(now);
        }
        partner += Math.round(count * period);
    }

    @ParameterizedTest
    @ValueSource(longs = {1, 2, 3, 4, 5, 6, 7, 8})
    void aSteadyClockWithJitterGivesTempoAndPhaseAfterTwoBars(long seed) {
        Random random = new Random(seed);
        double bpm = 60 + random.nextInt(120);
        double period = 60e9 / bpm / 24;
        ClockFollower follower = new ClockFollower(60e9 / 100 / 24);
        for (int i = 0; i <= 192; i++) {
            follower.clock(Math.round(i * period) + random.nextLong(-2 * MS, 2 * MS + 1));
        }
        assertThat(follower.bpm()).isCloseTo(bpm, within(0.1));
        assertThat(follower.nanosOf(192)).isCloseTo(192 * period, within(1.0 * MS));
    }

    @Test
    void anotherTempoIsFollowedWithinAQuarter() {
        ClockFollower follower = new ClockFollower(60e9 / 100 / 24);
        double at = 0;
        for (int i = 0; i < 200; i++) {
            follower.clock(Math.round(at));
            at += 60e9 / 100 / 24;
        }
        for (int i = 0; i < 24; i++) {
            follower.clock(Math.round(at));
            at += 60e9 / 140 / 24;
        }
        assertThat(follower.bpm()).isCloseTo(140, within(0.5));
    }

    @Test
    void startPlaysFromTheFirstClockAndNotesLieWhereTheOtherSidesDo() {
        begin(piece(96));
        cycle.followClock(SYNC, 0);
        double period = 60e9 / 120 / 24;
        take(ClockOut.START, 0, 0);
        assertThat(cycle.status(now).mode()).isEqualTo(Mode.STOPPED);
        partner = 10 * MS;
        clocks(24 * 16 + 1, period, 2 * MS, new Random(5));
        assertThat(cycle.status(now).clock()).isEqualTo(SYNC);
        assertThat(cycle.status(now).tempo().bpmAt(0)).isCloseTo(120, within(0.1));
        for (int quarter = 8; quarter < 16; quarter++) {
            assertThat(starts.get(quarter)).isCloseTo(10 * MS + quarter * 500 * MS, within(3 * MS / 2));
        }
        take(ClockOut.STOP, 0, 0);
        assertThat(cycle.status(now).mode()).isNotEqualTo(Mode.PLAYING);
        assertThat(open).isEmpty();
    }

    @Test
    void aPositionIsGoneToAndContinuedFrom() {
        begin(piece(120));
        cycle.followClock(SYNC, 0);
        // 16 sixteenths and 4 more: the second quarter of the second bar.
        take(ClockOut.POSITION, 20, 0);
        take(ClockOut.CONTINUE, 0, 0);
        partner = now;
        clocks(30, 60e9 / 120 / 24, 0, null);
        assertThat(pitches).startsWith(61, 62);
        assertThat(cycle.status(now).tickAt(now)).isCloseTo(20 * 3840 + 29 * 640.0, within(2.0));
        // The other side jumps to the very start while both play.
        take(ClockOut.POSITION, 0, 0);
        clocks(2, 60e9 / 120 / 24, 0, null);
        assertThat(pitches.get(pitches.size() - 1)).isEqualTo(60);
        assertThat(cycle.status(now).mode()).isEqualTo(Mode.PLAYING);
    }

    @Test
    void aGapOfLessThanASecondIsBridgedAndALongerOneStopsAndSaysSo() {
        begin(piece(120));
        cycle.followClock(SYNC, 0);
        double period = 60e9 / 120 / 24;
        take(ClockOut.START, 0, 0);
        clocks(96, period, 0, null);
        // Forty clocks, 833 ms, do not come.
        partner += Math.round(40 * period);
        clocks(96, period, 0, null);
        assertThat(cycle.status(now).mode()).isEqualTo(Mode.PLAYING);
        assertThat(cycle.status(now).tickAt(now)).isCloseTo((96 + 40 + 95) * 640.0, within(10.0));
        for (int quarter = 0; quarter < 9; quarter++) {
            assertThat(starts.get(quarter)).isCloseTo(quarter * 500 * MS, within(MS / 5));
        }
        runTo(now + 1_100 * MS);
        assertThat(cycle.status(now).mode()).isNotEqualTo(Mode.PLAYING);
        assertThat(cycle.status(now).trouble()).contains("Partner").contains("stopped");
        assertThat(open).isEmpty();
    }

    @Test
    void playingByHandBeginsInStepWithAClockThatRunsAndWithoutOneAtOnce() {
        begin(piece(120));
        cycle.followClock(SYNC, 0);
        cycle.play(0);
        assertThat(cycle.status(now).mode()).isEqualTo(Mode.PLAYING);
        cycle.stop(0);
        cycle.locate(0, 0);
        partner = 0;
        clocks(48, 60e9 / 120 / 24, 0, null);
        cycle.play(now);
        assertThat(cycle.status(now).mode()).as("it waits for the next clock").isEqualTo(Mode.STOPPED);
        clocks(1, 60e9 / 120 / 24, 0, null);
        assertThat(cycle.status(now).mode()).isEqualTo(Mode.PLAYING);
        cycle.followClock("", now);
        runTo(now + 3_000 * MS);
        assertThat(cycle.status(now).mode()).as("its own time goes on").isEqualTo(Mode.PLAYING);
    }

    @Test
    void clocksOfOthersAreNotHeard() {
        begin(piece(120));
        cycle.followClock(SYNC, 0);
        cycle.take("Someone", new InputPort.Played(ClockOut.START, 0, 0, 0));
        cycle.take("Someone", new InputPort.Played(ClockOut.CLOCK, 0, 0, 0));
        assertThat(cycle.status(now).mode()).isEqualTo(Mode.STOPPED);
    }
}
