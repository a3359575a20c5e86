package harpel.engine;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import harpel.chain.Chain;
import harpel.event.NoteEnd;
import harpel.event.NoteStart;
import harpel.format.PieceFile;
import harpel.param.type.PathType;
import harpel.phrase.Note;
import harpel.phrase.Phrase;
import harpel.piece.Block;
import harpel.piece.Bracket;
import harpel.piece.KeyChange;
import harpel.piece.Part;
import harpel.piece.Piece;
import harpel.plan.Program;
import harpel.run.Tap;
import harpel.testkit.Outputs;
import harpel.testkit.Played;
import harpel.testkit.Randoms;
import harpel.testkit.Tries;
import harpel.theory.Key;
import harpel.time.MeterMap;
import harpel.time.TempoMap;
import harpel.time.Ticks;
import harpel.time.TimeMap;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import org.junit.jupiter.api.Test;

/** A stretch of the timeline that is played over and over. */
class LoopTest {
    private static final long QUARTER = Ticks.PER_QUARTER;
    private static final long BAR = 4 * QUARTER;

    private final List<String> heard = new ArrayList<>();
    private final Set<NoteStart> open = new HashSet<>();
    private long now;
    private LiveCycle cycle;

    /** Four bars of C D E F, a bar each, each held a bar and a half; bars 2 and 3 come round. */
    private static Piece piece(String chain) {
        List<Note> notes = new ArrayList<>();
        int[] pitches = {60, 62, 64, 65};
        for (int i = 0; i < 4; i++) {
            notes.add(Note.of(i * BAR, i == 3 ? BAR : BAR + 2 * QUARTER, pitches[i], 90));
        }
        return Piece.empty()
                .withTimeline(true)
                .withBracket(new Bracket(BAR, 3 * BAR, true))
                .withPhrase(Phrase.of("Tide", 4 * BAR, notes))
                .withTime(new TimeMap(
                        new TempoMap(List.of(new TempoMap.Change(0, 120), new TempoMap.Change(2 * BAR, 240))),
                        MeterMap.FOUR_FOUR))
                .withParts(List.of(Part.of("Lead", chain.isEmpty() ? Chain.EMPTY : Played.chain(chain))
                        .withBlocks(List.of(Block.of(0, 4 * BAR, "tide")))));
    }

    private LiveCycle play(Piece piece) {
        cycle = new LiveCycle(
                Program.of(piece),
                () -> now,
                Outputs.to((port, event) -> {
                    if (event instanceof NoteStart note) {
                        open.add(note);
                        heard.add(note.tick() / (double) BAR + " +" + note.pitch());
                    } else if (event instanceof NoteEnd end) {
                        open.remove(end.start());
                        heard.add(end.tick() / (double) BAR + " -" + end.start().pitch());
                    }
                }),
                Tap.NONE);
        cycle.play(0);
        return cycle;
    }

    private void until(double bars, Piece piece) {
        long last =
                (long) Math.ceil(Unrolled.of(piece, 100 * BAR).time().tempo().nanosAt((long) (bars * BAR)));
        while (now < last) {
            cycle.render(now);
            now = Math.max(now + 1, Math.min(last, cycle.nextNanos()));
        }
        cycle.render(last - 1);
    }

    @Test
    void whatIsHeldAtTheEndEndsAndWhatSoundsAtTheBeginningBegins() {
        Piece piece = piece("");
        play(piece);
        until(5.1, piece);
        assertThat(heard)
                .containsExactly(
                        "0.0 +60",
                        "1.0 +62",
                        "1.5 -60",
                        "2.0 +64",
                        "2.5 -62",
                        "3.0 -64",
                        // Round two: C sounds on from before the loop's beginning.
                        "3.0 +60",
                        "3.0 +62",
                        "3.5 -60",
                        "4.0 +64",
                        "4.5 -62",
                        "5.0 -64",
                        "5.0 +60",
                        "5.0 +62");
        assertThat(cycle.status(now).songTickAt(now) / BAR).isBetween(1.0, 1.2);
        cycle.stop(now);
        assertThat(cycle.status(now).tickAt(now) / BAR)
                .as("it stands where the piece is")
                .isBetween(1.0, 1.2);
        assertThat(open).isEmpty();
    }

    @Test
    void tempoKeysAndAutomationAreThoseOfThePlace() {
        Piece piece = piece("{'effect':'touch','fixed':1,'move':{'fixed':[{'by':'automation','between':'hold',"
                        + "'points':[[0,10],[61440,20],[122880,30],[184320,40]]}]}}")
                .withKeys(List.of(KeyChange.of(2 * BAR, Key.parse("E major"))));
        TempoMap tempo = Program.of(piece).plan().time().tempo();
        assertThat(List.of(tempo.bpmAt(2 * BAR), tempo.bpmAt(3 * BAR), tempo.bpmAt(4 * BAR), tempo.bpmAt(19 * BAR)))
                .containsExactly(240.0, 120.0, 240.0, 120.0);
        Piece unrolled = Unrolled.of(piece, 20 * BAR);
        assertThat(unrolled.keyAt(2 * BAR)).isEqualTo(Key.parse("E major"));
        assertThat(unrolled.keyAt(3 * BAR)).isEqualTo(Key.C_MAJOR);
        assertThat(unrolled.keyAt(4 * BAR)).isEqualTo(Key.parse("E major"));
        List<Integer> velocities = new ArrayList<>();
        cycle = new LiveCycle(
                Program.of(piece),
                () -> now,
                Outputs.to((port, event) -> {
                    if (event instanceof NoteStart note) {
                        velocities.add(note.velocity());
                    }
                }),
                Tap.NONE);
        cycle.play(0);
        until(5.5, piece);
        assertThat(velocities).containsExactly(10, 20, 30, 20, 20, 30, 20, 20);
    }

    @Test
    void repeatsRingOverTheSeam() {
        Piece piece = piece("{'effect':'echo','repeats':1,'time':'1/2','fade':0}");
        play(piece);
        until(3.9, piece);
        assertThat(heard).contains("2.5 +64", "3.5 +60", "3.5 +62");
    }

    @Test
    void aRampThatTheEndCutsBeginsAnew() {
        Piece piece = piece("")
                .withTime(new TimeMap(
                        new TempoMap(List.of(new TempoMap.Change(0, 100, true), new TempoMap.Change(4 * BAR, 200))),
                        new MeterMap(List.of(new MeterMap.Change(0, 4, 4), new MeterMap.Change(2 * BAR, 2, 4)))));
        TimeMap time = Program.of(piece).plan().time();
        TempoMap tempo = time.tempo();
        for (long tick = BAR; tick < 3 * BAR - 1; tick += 1777) {
            assertThat(tempo.bpmAt(tick + 4 * BAR))
                    .isCloseTo(tempo.bpmAt(tick), org.assertj.core.api.Assertions.within(1e-3));
        }
        assertThat(time.meter().at(3 * BAR).shown()).isEqualTo("4/4");
        assertThat(time.meter().at(4 * BAR).shown()).isEqualTo("2/4");
    }

    @Test
    void aLoopThatIsMovedInPlayHangsNothing() {
        Piece piece = piece("{'effect':'echo','repeats':3}");
        play(piece);
        Piece other = piece.withBracket(new Bracket(0, BAR, true));
        until(6.3, piece);
        cycle.update(Program.of(other), now);
        assertThat(cycle.status(now).songTickAt(now)).isLessThan(BAR);
        now += 3_000_000_000L;
        cycle.render(now);
        cycle.update(Program.of(other.withBracket(Bracket.NONE)), now);
        now += 500_000_000L;
        cycle.render(now);
        cycle.stop(now);
        cycle.locate(0, now);
        assertThat(open).isEmpty();
    }

    @Test
    void mutesComeRoundToo() {
        Piece piece = piece("");
        piece = piece.withPart(
                "lead",
                part -> part.withPlaying(part.playing()
                        .withMutes(
                                List.of(new PathType.Point<>(2 * BAR, true), new PathType.Point<>(3 * BAR, false)))));
        play(piece);
        until(5.1, piece);
        assertThat(heard)
                .containsExactly(
                        "0.0 +60", "1.0 +62", "1.5 -60", "2.0 -62", "3.0 +60", "3.0 +62", "3.5 -60", "4.0 -62",
                        "5.0 +60", "5.0 +62");
    }

    @Test
    void behindTheLoopPlayGoesOnUntilItIsGoneBack() {
        Piece piece = piece("").withBracket(new Bracket(BAR, 2 * BAR, true));
        play(piece);
        cycle.locate(2 * BAR, now);
        heard.clear();
        now += 10;
        cycle.render(now + 2_100_000_000L);
        assertThat(heard).contains("2.0 +64", "3.0 +65");
        assertThat(cycle.status(now).bracket().on()).isFalse();
        cycle.locate(BAR, now);
        heard.clear();
        cycle.render(now + 2_100_000_000L);
        assertThat(heard).contains("1.0 +62", "2.0 +62").doesNotContain("2.0 +64");
        assertThat(cycle.status(now).bracket().on()).isTrue();
    }

    /** The same in two ways: ticks, bars and nanoseconds of a stretch that comes round, and of that stretch written out. */
    @Test
    void timeThatComesRoundIsItsUnrolling() {
        Tries.of(200, "time that comes round", seed -> {
            Randoms randoms = new Randoms(seed);
            long from = randoms.tick(6 * BAR);
            Bracket loop = new Bracket(from, from + QUARTER / 4 + randoms.tick(6 * BAR), true);
            Piece piece =
                    Piece.empty().withTimeline(true).withTime(randoms.time()).withBracket(loop);
            TimeMap round = Program.of(piece).plan().time();
            TimeMap written = Unrolled.of(piece, 60 * BAR).time();
            for (int i = 0; i < 60; i++) {
                long tick = randoms.tick(50 * BAR);
                String which = "tick " + tick + " of " + loop + " in " + piece.time();
                double nanos = written.tempo().nanosAt(tick);
                assertThat(round.tempo().nanosAt(tick)).as(which).isCloseTo(nanos, within(100.0));
                assertThat(round.tempo().ticksAt(nanos)).as(which).isCloseTo(tick, within(0.01));
                assertThat(round.meter().at(tick).shown())
                        .as(which)
                        .isEqualTo(written.meter().at(tick).shown());
                assertThat(round.meter().barAt(tick))
                        .as(which)
                        .isEqualTo(written.meter().barAt(tick));
                assertThat(round.meter().barLineAtOrAfter(tick))
                        .as(which)
                        .isEqualTo(written.meter().barLineAtOrAfter(tick));
                if (round.meter().tickOfBar(i) < 50 * BAR) {
                    assertThat(round.meter().tickOfBar(i))
                            .as(which)
                            .isEqualTo(written.meter().tickOfBar(i));
                }
            }
        });
    }

    @Test
    void theLoopStandsInTheFile() throws Exception {
        Piece piece = piece("");
        assertThat(PieceFile.read(PieceFile.write(piece))).isEqualTo(piece);
        assertThat(PieceFile.read(PieceFile.write(piece.withBracket(Bracket.NONE)))
                        .bracket())
                .isEqualTo(Bracket.NONE);
        assertThatThrownBy(() -> PieceFile.read("{\"harpel\":1,\"loop\":{\"from\":9,\"to\":9,\"on\":true}}"))
                .hasMessageContaining("loop")
                .hasMessageContaining("3840 ticks later at least")
                .hasMessageContaining("was to go from tick 9 to 9");
    }
}
