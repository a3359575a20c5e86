package harpel.engine;

import static org.assertj.core.api.Assertions.assertThat;

import harpel.capture.Heard;
import harpel.effect.EffectKind;
import harpel.event.Event;
import harpel.event.NoteStart;
import harpel.format.PieceFile;
import harpel.offline.PrintJob;
import harpel.offline.Tail;
import harpel.phrase.Note;
import harpel.phrase.Notes;
import harpel.phrase.Phrase;
import harpel.piece.Block;
import harpel.piece.Bracket;
import harpel.piece.Hearing;
import harpel.piece.Part;
import harpel.piece.Piece;
import harpel.plan.Program;
import harpel.run.Tap;
import harpel.run.Told;
import harpel.testkit.Laws;
import harpel.testkit.Laws.World;
import harpel.testkit.Outputs;
import harpel.testkit.Randoms;
import harpel.time.MeterMap;
import harpel.time.TempoMap;
import harpel.time.TimeMap;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;

/** The promises about phrases with chances, notes that are off, and ready ones, whichever tick is played from. */
final class PhraseLaws {
    private static final int BARS = 3;

    private PhraseLaws() {}

    private static Part lead(World world) {
        Part plain = Part.of("Lead", world.chain);
        return world.randoms.oneIn(4) ? world.randoms.blended(plain) : plain;
    }

    private static Piece piece(World world) {
        Randoms randoms = world.randoms;
        Piece loops = world.piece(
                        lead(world)
                                .withPhrase("tide")
                                .withVariations(randoms.oneIn(3) ? List.of(3L, 9L, 4L) : List.of()),
                        Part.of("Second", randoms.chain(1)).withPhrase("crab"),
                        Part.of("Hearer", randoms.chain(1))
                                .withHearing(new Hearing(
                                        randoms.oneIn(2) ? Hearing.Source.OUTPUT_OF : Hearing.Source.INPUT_OF,
                                        "lead",
                                        0)))
                .withPhrases(List.of(randoms.phrase("Tide"), randoms.phrase("Crab")));
        return randoms.oneIn(2) ? randoms.onTimeline(loops) : loops;
    }

    /** What is printed from a tick is what is heard when play begins there, with every draw and every note that is chased. */
    static void printedFromAnywhereAsHeard(EffectKind kind, long seed) throws InterruptedException {
        World world = new World(kind, seed);
        Piece piece = piece(world);
        long from = world.randoms.tick(piece.time().meter().tickOfBar(4));
        long end = piece.time().meter().tickOfBar(piece.time().meter().barAt(from) + BARS);
        Program program = Program.of(piece);
        String looked = world.randoms.oneOf(piece.parts()).id();
        List<String> heard = new ArrayList<>();
        play(program, from, end, told -> {
            if (told instanceof Told.Left left
                    && left.part().equals(looked)
                    && left.place().equals(Tap.SOUND)
                    && left.event().tick() < end) {
                heard.add(left.event().toString());
            }
        });
        assertThat(heard).isEqualTo(printed(piece, looked, from, end));
        Laws.EVENTS.add(heard.size());
    }

    /** Plays live from a tick to another. */
    private static void play(Program program, long from, long end, Tap tap) {
        long[] now = {0};
        LiveCycle cycle = new LiveCycle(program, () -> now[0], Outputs.to((port, event) -> {}), tap);
        cycle.locate(from, 0);
        cycle.play(0);
        TempoMap tempo = program.plan().time().tempo();
        long last = (long) Math.ceil(tempo.nanosAt(end) - tempo.nanosAt(from)) + 1;
        while (now[0] < last) {
            cycle.render(now[0]);
            now[0] = Math.max(now[0] + 1, Math.min(last, cycle.nextNanos()));
        }
        cycle.render(last);
    }

    /**
     * What is heard of the first round when play begins is what is printed, whatever the tail is, but for what the tail adds; so it is what
     * is drawn (a print that stops at the end), what a card of variations shows (one that goes round) and what a file has.
     */
    static void theFirstRoundIsHeardAndPrinted(EffectKind kind, long seed) throws InterruptedException {
        World world = new World(kind, seed);
        Piece piece = piece(world).withTimeline(false);
        long end = piece.time().meter().tickOfBar(world.randoms.between(1, 2));
        Program program = Program.of(piece);
        Heard heard = new Heard();
        play(program, 0, end, heard);
        List<String> live = shown(heard.take("lead", Tap.SOUND, 0, end).notes());
        for (Tail tail : Tail.values()) {
            List<Event> events = new PrintJob(program.plan(), "lead", tail, Tap.NONE)
                    .print(program, end)
                    .events();
            Notes printed = Notes.heard(events, 0, end);
            if (tail != Tail.ROUND) {
                assertThat(shown(printed.stream().toList())).as("%s", tail).containsExactlyInAnyOrderElementsOf(live);
            }
        }
        List<Event> ringing = new PrintJob(program.plan(), "lead", Tail.RING, Tap.NONE)
                .print(program, end)
                .events();
        PrintJob.Result round = new PrintJob(program.plan(), "lead", Tail.ROUND, Tap.NONE).print(program, end);
        assertThat(round.lengthTicks()).isEqualTo(end);
        assertThat(round.events()).allMatch(event -> event.tick() <= end);
        List<String> starts = starts(round.events(), end);
        List<String> first = starts(ringing, end);
        if (ringing.stream().noneMatch(event -> event instanceof NoteStart && event.tick() >= end)) {
            assertThat(shown(Notes.heard(round.events(), 0, end).stream().toList()))
                    .containsExactlyInAnyOrderElementsOf(live);
        }
        assertThat(starts).containsAll(first);
        ringing.stream()
                .filter(event -> event instanceof NoteStart && event.tick() >= end)
                .forEach(event -> assertThat(starts).contains(start((NoteStart) event, event.tick() % end)));
        Laws.EVENTS.add(live.size() + 1L);
    }

    private static List<String> shown(List<Note> notes) {
        return notes.stream().map(PhraseLaws::shown).toList();
    }

    private static List<String> starts(List<Event> events, long end) {
        return events.stream()
                .filter(event -> event instanceof NoteStart && event.tick() < end)
                .map(event -> start((NoteStart) event, event.tick()))
                .toList();
    }

    private static String start(NoteStart note, long tick) {
        return note.channel() + ":" + note.pitch() + " at " + tick;
    }

    /** Phrases over and over are the same as blocks of them without an end, whichever tick is printed from. */
    static void loopsAreTheirUnrolling(EffectKind kind, long seed) throws InterruptedException {
        World world = new World(kind, seed);
        Piece loops = piece(world).withTimeline(false).withLevers(List.of());
        loops = loops.withParts(loops.parts().stream()
                .map(part -> part.withVariations(List.of()))
                .toList());
        MeterMap meter = loops.time().meter();
        long from = world.randoms.tick(meter.tickOfBar(2));
        long end = meter.tickOfBar(meter.barAt(from) + BARS);
        Piece unrolled = loops.withTimeline(true)
                .withKeys(List.of())
                .withParts(loops.parts().stream()
                        .map(part -> part.withPlaying(part.playing()
                                .withMutes(List.of())
                                .withBlocks(
                                        part.phrase().isEmpty()
                                                ? List.of()
                                                : List.of(Block.of(0, end + meter.tickOfBar(4), part.phrase())))))
                        .toList());
        String looked = world.randoms.oneOf(loops.parts()).id();
        List<String> round = printed(loops, looked, from, end);
        assertThat(printed(unrolled, looked, from, end)).isEqualTo(round);
        Laws.EVENTS.add(round.size() + 1L);
    }

    private static List<String> printed(Piece piece, String part, long from, long end) throws InterruptedException {
        Program program = Program.of(piece);
        return new PrintJob(program.plan(), part, Tail.STOP, Tap.NONE)
                .from(from).print(program, end).events().stream()
                        .filter(event -> event.tick() < end)
                        .map(Object::toString)
                        .toList();
    }

    /** A stretch that comes round is heard as if it were written out, round behind round. */
    static void whatComesRoundIsItsUnrolling(EffectKind kind, long seed) throws InterruptedException {
        World world = new World(kind, seed);
        Randoms randoms = world.randoms;
        Piece piece = randoms.onTimeline(piece(world).withTimeline(true)).withLevers(List.of());
        piece = piece.withParts(piece.parts().stream()
                .map(part -> part.withPlaying(part.playing().withMutes(List.of())))
                .toList());
        // Automation is written along the piece, which the other piece goes on with.
        if (PieceFile.write(piece).contains("automation")) {
            return;
        }
        long from = randoms.tick(Laws.LENGTH / 3);
        Bracket loop = new Bracket(from, from + Bracket.SHORTEST + randoms.tick(Laws.LENGTH / 3), true);
        long end = Laws.LENGTH;
        // What lies behind the loop's end is never come to, but the slowest tempo of a piece bounds its shortest steps.
        piece = piece.withTime(new TimeMap(
                new TempoMap(piece.time().tempo().changes().stream()
                        .filter(change -> change.tick() < loop.to())
                        .toList()),
                piece.time().meter()));
        Piece written = Unrolled.of(piece.withBracket(loop), end + Laws.LENGTH).withBracket(Bracket.NONE);
        String looked = randoms.oneOf(piece.parts()).id();
        List<String> round = printed(piece.withBracket(loop), looked, 0, end);
        assertThat(round).isEqualTo(printed(written, looked, 0, end));
        Laws.EVENTS.add(round.size() + 1L);
    }

    private static String shown(Note note) {
        return note.tick() + "+" + note.length() + " " + note.pitch() + " " + note.velocity();
    }

    /** A phrase that is edited over and over while it plays leaves nothing hanging. */
    static void edited(EffectKind kind, long seed, int edits) {
        World world = new World(kind, seed);
        Randoms randoms = world.randoms;
        Piece piece = piece(world);
        Program program = Program.of(piece);
        Set<NoteStart> open = new HashSet<>();
        long[] now = {0};
        LiveCycle cycle = new LiveCycle(program, () -> now[0], Outputs.counting(open), Tap.NONE);
        cycle.play(0);
        for (int i = 0; i < edits; i++) {
            piece = randoms.oneIn(4) && piece.timeline()
                    ? randoms.onTimeline(piece)
                    : piece.withPhrase(changed(randoms, randoms.oneOf(piece.phrases())));
            program = Program.after(program, piece);
            cycle.update(program, now[0]);
            now[0] += randoms.between(0, 20) * 1_000_000L;
            cycle.render(now[0]);
        }
        cycle.stop(now[0]);
        // Repeats that ring out end there, too.
        cycle.locate(0, now[0]);
        assertThat(open).isEmpty();
        Laws.EVENTS.add(edits);
    }

    private static Phrase changed(Randoms randoms, Phrase phrase) {
        Notes notes = phrase.notes();
        return switch (randoms.between(0, notes.isEmpty() ? 1 : 5)) {
            case 0 -> phrase.withNotes(notes.plus(randoms.note(phrase.length())));
            case 1 -> phrase.withReady(!phrase.ready());
            case 2 -> phrase.withNotes(notes.minus(randoms.oneOf(notes).id()));
            default -> {
                Note note = randoms.oneOf(notes);
                yield phrase.withNotes(notes.with(randoms.note(phrase.length()).withId(note.id())));
            }
        };
    }
}
