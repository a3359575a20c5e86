package harpel.advice;

import harpel.chain.Stage;
import harpel.effect.Trait;
import harpel.piece.Part;
import harpel.piece.Piece;
import harpel.time.Ticks;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.ToIntFunction;
import java.util.stream.IntStream;
import java.util.stream.Stream;

/** Asks the rules. */
public final class Advisor {
    /** Why a part cannot be heard; the first that finds something says it. */
    private static final List<Rule> SILENCE =
            List.of(new TurnedDown(), new OthersSolo(), new NotConnected(), Missing.PHRASES, new HearsNothing());

    private static final List<Rule> MISSING = List.of(Missing.PHRASES, Missing.LEVERS, Missing.SOUND);

    private static final List<Rule> CHAIN = List.of(
            new Restarts(),
            new UnevenChords(),
            new KeyTooEarly(),
            new DeadSend(),
            new NothingComes(),
            new WorkedOnTwice());

    /** Notes nearer to one another than a 32nd are one chord. */
    private static final long A_CHORD = Ticks.PER_QUARTER / 8;
    /** So many single notes are no accident. */
    private static final int FEW = 4;

    private Advisor() {}

    /**
     * Why a part cannot be heard, or nothing when it can.
     *
     * @param outputs the names of the outputs there are
     */
    public static Optional<Advice> silence(Piece piece, Part part, List<String> outputs) {
        return look(SILENCE, piece, part, outputs).findFirst();
    }

    /** What a part names and what is not there: phrases, levers, its sound. */
    public static List<Advice> missing(Piece piece, Part part) {
        return look(MISSING, piece, part, List.of()).toList();
    }

    /** What will surprise in a part's chain. */
    public static List<Advice> chain(Piece piece, Part part) {
        return look(CHAIN, piece, part, List.of()).toList();
    }

    private static Stream<Advice> look(List<Rule> rules, Piece piece, Part part, List<String> outputs) {
        return rules.stream().flatMap(rule -> rule.look(piece, part, outputs));
    }

    /** Why the built-in sounds are not heard on a machine without a sound device; with the first MIDI output as the way out. */
    public static Optional<Advice> noSound(Part part, String noSound, List<String> outputs) {
        return NoSound.look(part, noSound, outputs);
    }

    /**
     * The stage at which the notes of a part stop, if they do.
     *
     * @param came how many notes lately came in
     * @param left how many lately left the stage of that id
     */
    public static Optional<Advice> notesStop(Part part, int came, ToIntFunction<String> left) {
        return NotesStop.look(part, came, left);
    }

    /**
     * What to do about a stage that works on chords and is given single notes.
     *
     * @param starts the ticks at which notes lately came to it, rising
     */
    public static Optional<Advice> oneByOne(Part part, Stage stage, List<Long> starts) {
        boolean needs = stage.isKnown() && stage.on() && stage.kind().has(Trait.NEEDS_CHORDS);
        boolean single = IntStream.range(1, starts.size()).allMatch(i -> starts.get(i) - starts.get(i - 1) > A_CHORD);
        return needs && single && starts.size() >= FEW
                ? Optional.of(NotesStop.oneByOne(part, stage))
                : Optional.empty();
    }

    /**
     * How many of the pitches that lately sounded leave the key.
     *
     * @param pitches 0–127
     */
    public static Optional<Advice> leavesTheKey(Piece piece, Part part, Set<Integer> pitches) {
        return LeavesTheKey.look(piece, part, pitches);
    }

    /** A pitch at which a program of General MIDI 1 is at home: the C below the middle of its usual range. */
    public static int homely(int program) {
        return OutOfRange.homely(program);
    }

    /**
     * How many of the pitches that lately sounded lie where the part's sound is not at home.
     *
     * @param pitches 0–127
     */
    public static Optional<Advice> outOfRange(Piece piece, Part part, Set<Integer> pitches) {
        return OutOfRange.look(piece, part, pitches);
    }

    /** The stage that has lately left notes out since too many sounded or waited there. */
    public static Optional<Advice> tooMany(Part part, Set<String> fullStages) {
        return TooMany.look(part, fullStages);
    }
}
