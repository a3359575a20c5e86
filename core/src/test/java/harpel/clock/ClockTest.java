package harpel.clock;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import harpel.engine.LiveCycle;
import harpel.engine.LiveStatus.Mode;
import harpel.event.Event;
import harpel.event.NoteEnd;
import harpel.event.NoteStart;
import harpel.phrase.Note;
import harpel.phrase.Phrase;
import harpel.piece.Bracket;
import harpel.piece.Piece;
import harpel.plan.Program;
import harpel.port.InputPort;
import harpel.port.LiveOutput;
import harpel.run.Tap;
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
import org.junit.jupiter.params.provider.EnumSource;
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

    // What comes in is late, early, together and lost

    /** How even clocks of a partner arrive. */
    private enum Arrival {
        JITTER(20, 0, 0, false),
        JITTER_AND_STALLS(20, 0, 0, true),
        LUMPS(0, 24, 0, false),
        LOST(0, 0, 5, false),
        LOST_AND_STALLS(0, 0, 5, true),
        /** A clock that may come early or late by more than a quarter of its period does not show which one was lost. */
        LOST_AND_A_LITTLE_JITTER(-1, 0, 5, false);

        private final int jitterMillis;
        private final int lump;
        private final int lostPercent;
        private final boolean stalls;

        Arrival(int jitterMillis, int lump, int lostPercent, boolean stalls) {
            this.jitterMillis = jitterMillis;
            this.lump = lump;
            this.lostPercent = lostPercent;
            this.stalls = stalls;
        }

        /** When those of so many clocks arrive that do; the last one does. */
        List<Long> of(int count, double period, Random random) {
            List<Long> arrivals = new ArrayList<>();
            // What does not come for a second is lost.
            int together = lump == 0 ? 1 : 1 + random.nextInt((int) Math.min(lump, 900 * MS / period));
            double most = jitterMillis < 0 ? period / 4 : jitterMillis * MS;
            double until = 0;
            long last = 0;
            for (int i = 0; i < count; i++) {
                if (i > 0 && i < count - 1 && random.nextInt(100) < lostPercent) {
                    continue;
                }
                double due = i * period;
                if (stalls && i > 48 && due > until && random.nextInt(200) == 0) {
                    until = due + random.nextDouble() * 1_000 * MS;
                }
                int with = Math.min(count - 1, (i / together + 1) * together - 1);
                double at = Math.max(with * period + (2 * random.nextDouble() - 1) * most, due < until ? until : 0);
                last = Math.max(last, Math.round(at));
                arrivals.add(last);
            }
            return arrivals;
        }
    }

    @ParameterizedTest
    @EnumSource(Arrival.class)
    void howeverEvenClocksArriveTimeIsWithinAQuarterAndNothingIsStruckTwiceOrInALump(Arrival arrival) {
        for (long seed = 1; seed <= 25; seed++) {
            Random random = new Random(seed);
            double bpm = 20 * Math.pow(20, random.nextDouble());
            double period = 60e9 / bpm / 24;
            int count = 192 + random.nextInt(900);
            starts.clear();
            pitches.clear();
            now = 0;
            begin(sixteenths(20 * Math.pow(20, random.nextDouble())));
            cycle.followClock(SYNC, 0);
            take(ClockOut.START, 0, 0);
            for (long at : arrival.of(count, period, random)) {
                runTo(Math.max(now, at));
                take(ClockOut.CLOCK, 0, 0);
                cycle.render(now);
            }
            String which = arrival + " with seed " + seed;
            assertThat(cycle.status(now).mode()).as(which).isEqualTo(Mode.PLAYING);
            assertThat(cycle.status(now).tickAt(now))
                    .as("ticks, %s", which)
                    .isCloseTo(now / period * 640, within((double) Ticks.PER_QUARTER));
            for (int i = 0; i < pitches.size(); i++) {
                assertThat(pitches.get(i)).as("note %d, %s", i, which).isEqualTo(36 + i % 16);
                if (i > 0) {
                    assertThat(starts.get(i) - starts.get(i - 1))
                            .as("from note to note at %d, %s", i, which)
                            .isGreaterThan(10 * MS);
                }
            }
        }
    }

    private static Piece sixteenths(double bpm) {
        List<Note> notes = new ArrayList<>();
        for (int i = 0; i < 16; i++) {
            notes.add(Note.of(i * Ticks.PER_QUARTER / 4, Ticks.PER_QUARTER / 8, 36 + i, 90));
        }
        return Piece.empty()
                .withTime(new TimeMap(TempoMap.of(bpm), MeterMap.FOUR_FOUR))
                .withPhrase(Phrase.of("Tide", BAR, notes))
                .withPart("part-1", part -> part.withPhrase("tide"));
    }

    @ParameterizedTest
    @ValueSource(doubles = {20, 25, 33, 120, 399})
    void aClockOfAnyTempoIsFollowedFromAnyOther(double bpm) {
        for (double own : new double[] {20, 90, 400}) {
            now = 0;
            begin(piece(own));
            cycle.followClock(SYNC, 0);
            take(ClockOut.START, 0, 0);
            partner = 0;
            clocks(193, 60e9 / bpm / 24, 0, null);
            assertThat(cycle.status(now).tempo().bpmAt(0)).isCloseTo(bpm, within(0.1));
            clocks(24 * 32, 60e9 / bpm / 24, 0, null);
            assertThat(cycle.status(now).tickAt(now) / Ticks.PER_QUARTER).isCloseTo(40, within(0.01));
            assertThat(cycle.status(now).trouble()).isEmpty();
        }
    }

    @ParameterizedTest
    @ValueSource(doubles = {9, 14, 450, 700})
    void aClockThatCannotBeFollowedIsToldWithTheRange(double bpm) {
        begin(piece(120));
        cycle.followClock(SYNC, 0);
        take(ClockOut.START, 0, 0);
        clocks(200, 60e9 / bpm / 24, 0, null);
        assertThat(cycle.status(now).trouble())
                .isEqualTo("The clock of “Partner” runs at " + Math.round(bpm)
                        + " quarters a minute, which cannot be followed: 20–400 can.");
    }

    @ParameterizedTest
    @ValueSource(ints = {4, 6, 24})
    void clocksThatArriveTogetherAreCountedAndNoMore(int together) {
        begin(piece(120));
        cycle.followClock(SYNC, 0);
        take(ClockOut.START, 0, 0);
        double period = 60e9 / 120 / 24;
        for (int i = together; i <= 192; i += together) {
            runTo(Math.round(i * period));
            for (int k = 0; k < together; k++) {
                take(ClockOut.CLOCK, 0, 0);
            }
            cycle.render(now);
        }
        assertThat(cycle.status(now).tickAt(now) / Ticks.PER_QUARTER).isCloseTo(8, within(1.0));
        assertThat(starts.size()).isLessThanOrEqualTo(9);
    }

    @ParameterizedTest
    @ValueSource(doubles = {120, 97, 180.5})
    void twoClocksAtOnePortAreNoticed(double other) {
        begin(piece(120));
        cycle.followClock(SYNC, 0);
        List<Long> both = new ArrayList<>();
        for (int i = 0; i < 200; i++) {
            both.add(Math.round(i * 60e9 / 120 / 24));
            both.add(Math.round(6 * MS + i * 60e9 / other / 24));
        }
        both.sort(null);
        for (long at : both.subList(0, 200)) {
            now = at;
            take(ClockOut.CLOCK, 0, 0);
        }
        assertThat(cycle.status(now).trouble()).startsWith("Two clocks come from “Partner”");
    }

    @Test
    void oneClockIsNotTakenForTwoHoweverItArrives() {
        for (long seed = 1; seed < 60; seed++) {
            ClockPair pair = new ClockPair();
            Random random = new Random(seed);
            double period = 60e9 / (20 * Math.pow(20, random.nextDouble())) / 24;
            for (long at : Arrival.values()[(int) seed % 6].of(2_000, period, random)) {
                assertThat(pair.hears(at)).as("seed %d", seed).isFalse();
            }
        }
    }

    // What came first is done first

    @ParameterizedTest
    @ValueSource(ints = {ClockOut.STOP, ClockOut.START, ClockOut.POSITION})
    void aKeyAndWhatMovesTimeInOneTurnAreDoneInTheirOrder(int status) {
        for (boolean playing : new boolean[] {true, false}) {
            for (boolean keyFirst : new boolean[] {true, false}) {
                now = 0;
                begin(piece(120));
                cycle.followClock(SYNC, 0);
                if (playing) {
                    cycle.play(0);
                }
                runTo(1_700 * MS);
                if (keyFirst) {
                    cycle.take(InputPort.KEYS, new InputPort.Played(0x90, 80, 90, now - 20));
                }
                cycle.take(SYNC, new InputPort.Played(status, 4, 0, now - 10));
                if (!keyFirst) {
                    cycle.take(InputPort.KEYS, new InputPort.Played(0x90, 80, 90, now));
                }
                cycle.render(now);
                runTo(now + 100 * MS);
                assertThat(pitches).as("struck").contains(80);
                cycle.take(InputPort.KEYS, new InputPort.Played(0x80, 80, 64, now));
                runTo(now + 100 * MS);
                assertThat(open).extracting(NoteStart::pitch).doesNotContain(80);
                assertThat(cycle.openInputs("part-1"))
                        .extracting(NoteStart::pitch)
                        .doesNotContain(80);
            }
        }
    }

    @Test
    void playBeginsAtOnceWhereAClockHasNotComeForHalfASecond() {
        begin(piece(120));
        cycle.followClock(SYNC, 0);
        partner = 0;
        clocks(48, 60e9 / 120 / 24, 0, null);
        runTo(now + 499 * MS);
        cycle.play(now);
        assertThat(cycle.status(now).mode()).as("it may still come").isEqualTo(Mode.STOPPED);
        cycle.stop(now);
        runTo(now + 2 * MS);
        cycle.play(now);
        assertThat(cycle.status(now).mode()).isEqualTo(Mode.PLAYING);
    }
}
