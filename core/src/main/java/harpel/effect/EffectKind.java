package harpel.effect;

import harpel.event.NoteStart;
import harpel.param.Param;
import harpel.param.ParamSet;
import harpel.param.ParamSpec;
import harpel.param.type.FlagType;
import harpel.param.type.IntType;
import harpel.param.type.TextType;
import harpel.theory.Interval;
import harpel.theory.Key;
import harpel.time.TimeMap;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Set;

/** One kind of effect: its name, what it does, its parameters, and how a running one is made. */
public abstract class EffectKind {
    /** What people look for who want chance. */
    private static final String DRAWING = " random chance probability";

    public static final Param<Boolean> ON =
            Param.of("on", FlagType.FLAG, true, "Off ends what the stage opened and passes everything through.");
    public static final Param<String> LABEL =
            Param.of("label", new TextType(60), "", "A name of your own for this stage.");
    public static final Param<Integer> CHANNEL = Param.of(
            "channel",
            IntType.of(1, 16, "").orWord("all"),
            0,
            "The channel this stage works on; notes of other channels pass by.");
    public static final Param<Integer> SEED = Param.of(
            "seed", IntType.of(0, 999_999, ""), 0, "Another number gives other draws; the same number gives the same.");

    /** Where the kind is found in menus and in the reference. */
    public enum Family {
        HELD("Held notes"),
        NOTES("More notes from one"),
        PITCH("Other pitches"),
        SHAPE("Shape and time"),
        ROUTE("Routes and control");

        private final String label;

        Family(String label) {
            this.label = label;
        }

        public String label() {
            return label;
        }
    }

    private final String id;
    private final String label;
    private final Family family;
    private final String does;
    private final ParamSpec spec;

    /** @param does what it does to the notes, as "plays held notes one at a time" */
    protected EffectKind(String id, String label, Family family, String does, Param<?>... params) {
        this.id = id;
        this.label = label;
        this.family = family;
        this.does = does;
        this.spec = ParamSpec.of(params).and(ParamSpec.of(ON, LABEL, CHANNEL));
    }

    /** The name in files, on the command line and in automation. */
    public final String id() {
        return id;
    }

    public final String label() {
        return label;
    }

    public final Family family() {
        return family;
    }

    public final String does() {
        return does;
    }

    public final ParamSpec spec() {
        return spec;
    }

    /** A running effect with no state yet; {@link Effect#configure} is its first call. */
    public abstract Effect create();

    /**
     * Makes ready what running effects of this kind will need, so that the engine does not wait for it. Called by whoever edits, with the
     * values of all stages of this kind that are about to run; must not take long itself.
     */
    public void prepare(List<ParamSet> stages) {}

    /** What it is set to, in one line: "up down · 1/16 · 2 octaves". */
    public abstract String describe(ParamSet values);

    /**
     * The same with the names of notes, where that says more.
     *
     * @param lastPitch of the note that came in last; -1 before there was one
     */
    public String describe(ParamSet values, Key key, int lastPitch) {
        return describe(values);
    }

    /** Whether it works on notes as long as they are held, so that one put into a running chain takes over those already held. */
    public boolean holdsNotes() {
        return false;
    }

    /** The values as this kind wants them: on a spec with the parameters that the values themselves ask for, as a script's do. */
    public ParamSet fit(ParamSet values) {
        return values;
    }

    /** What else is set when a hand sets one parameter, so that setting it does what the hand wants. */
    public ParamSet completed(ParamSet values, Param<?> set, Key pieceKey) {
        return values;
    }

    /** Whether values may have parameters that the spec of the kind does not list, as a script's controls. */
    public boolean declaresMore() {
        return false;
    }

    /** Whether values are kept that the spec does not know, as those of a script's controls while the script has an error. */
    public boolean keepsUnknown(ParamSet values) {
        return false;
    }

    /** Other words by which people look for it, such as "softer". */
    public String alsoFoundBy() {
        return "";
    }

    /**
     * How well it fits what was typed: 0 its name begins so, 1 its name has it, 2 it is what people look for it by, 3 the beginning of
     * that, 4 all words are somewhere in what is said of it, -1 not at all.
     */
    final int fits(String typed) {
        String wanted = typed.toLowerCase(Locale.ROOT).strip();
        String name = label.toLowerCase(Locale.ROOT);
        String sought = " " + alsoFoundBy().toLowerCase(Locale.ROOT) + (has(Trait.DRAWS) ? DRAWING : "") + " ";
        String all = name + " " + does.toLowerCase(Locale.ROOT) + " "
                + family.label().toLowerCase(Locale.ROOT) + sought;
        if (name.startsWith(wanted)) {
            return 0;
        } else if (name.contains(wanted)) {
            return 1;
        } else if (sought.contains(" " + wanted + " ")) {
            return 2;
        } else if (sought.contains(" " + wanted)) {
            return 3;
        }
        return Arrays.stream(wanted.split("\\s+")).allMatch(all::contains) ? 4 : -1;
    }

    /**
     * What a stage of this kind did to a note, in words: "harmony up two degrees".
     *
     * @param made a note made from {@code from}
     */
    public String tell(NoteStart from, NoteStart made, ParamSet values, Key key, TimeMap time) {
        String away = Interval.told(from.pitch(), made.pitch(), key);
        return (label.toLowerCase(Locale.ROOT) + " " + away).strip();
    }

    /** What sets it apart; one that has a seed draws. */
    protected Set<Trait> traits() {
        return Set.of();
    }

    public final boolean has(Trait trait) {
        return traits().contains(trait) || trait == Trait.DRAWS && spec.has(SEED);
    }

    /** What its one action is called on its button, such as "Let go"; empty for a kind that has none. */
    public String action() {
        return "";
    }

    /** After how many ticks its rows or its pattern come round together; NaN where it has none, or they never do. */
    public double roundTicks(ParamSet values, TimeMap time) {
        return Double.NaN;
    }

    /** How long a step is where it steps through held notes, so that one that is shorter may come to nothing; NaN where it does not. */
    public double stepTicks(ParamSet values, TimeMap time) {
        return Double.NaN;
    }

    /** Whether it is set to change or add messages that are no notes; all others pass untouched. */
    public boolean changesMessages(ParamSet values) {
        return false;
    }

    /** Whether it is set to let its repeats finish after the transport has stopped. */
    public boolean ringsOut(ParamSet values) {
        return false;
    }

    /** Whether a stage of this kind holds branches, each a chain of its own. */
    public boolean branches() {
        return false;
    }

    /** What the reference says beyond the parameters: rules, sources, what was decided where practice differs. */
    public String notes() {
        return "";
    }

    @Override
    public final String toString() {
        return id;
    }
}
