package harpel.effect;

import harpel.event.NoteStart;
import harpel.param.ParamSet;
import harpel.theory.Interval;
import harpel.theory.Key;
import harpel.time.TimeMap;
import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.Arrays;
import java.util.Locale;
import java.util.function.Function;

/**
 * What a kind of effect is called, and what is said of it and of what it did.
 *
 * @param label its name in the window
 * @param does what it does to the notes, as "plays held notes one at a time"
 * @param foundBy other words by which people look for it, such as "softer"
 * @param action what its one action is called on its button, such as "Release"; empty for a kind that has none
 * @param notes what the reference says beyond the parameters: rules, sources, what was decided where practice differs
 */
@RecordBuilder
public record EffectWords(
        String label,
        Family family,
        String does,
        String foundBy,
        String action,
        String notes,
        Setting setting,
        Telling telling)
        implements EffectWordsBuilder.With {
    /** What people look for who want chance. */
    private static final String DRAWING = " random chance probability";

    /** What it is set to, in one line. */
    public interface Setting {
        /**
         * @param key of the piece, as which notes are written
         * @param lastPitch of the note that came in last; −1 before there was one
         */
        String of(ParamSet values, Key key, int lastPitch);
    }

    /** What a stage did to a note. */
    public interface Telling {
        /** @param made a note made from {@code from} */
        String of(NoteStart from, NoteStart made, ParamSet values, Key key, TimeMap time);
    }

    /** A kind that no other word finds, without an action; it tells by its name and how far it moved the note. */
    public static EffectWords of(String label, Family family, String does) {
        return new EffectWords(
                label,
                family,
                does,
                "",
                "",
                "",
                (values, key, lastPitch) -> "",
                (from, made, values, key, time) -> (label.toLowerCase(Locale.ROOT) + " "
                                + Interval.told(from.pitch(), made.pitch(), key))
                        .strip());
    }

    /** One that needs to know nothing but the values to say what they are. */
    public EffectWords withSetting(Function<ParamSet, String> says) {
        return withSetting((values, key, lastPitch) -> says.apply(values));
    }

    /**
     * What it is set to, in one line: "up down · 1/16 · 2 octaves".
     *
     * @param key of the piece, as which notes are written
     * @param lastPitch of the note that came in last; −1 before there was one
     */
    public String describe(ParamSet values, Key key, int lastPitch) {
        return setting.of(values, key, lastPitch);
    }

    /**
     * What a stage of this kind did to a note, in words: "harmony up two degrees".
     *
     * @param made a note made from {@code from}
     */
    public String tell(NoteStart from, NoteStart made, ParamSet values, Key key, TimeMap time) {
        return telling.of(from, made, values, key, time);
    }

    /**
     * How well it fits what was typed: 0 its name begins so, 1 its name has it, 2 it is what people look for it by, 3 the beginning of
     * that, 4 all words are somewhere in what is said of it, −1 not at all.
     *
     * @param draws whether it is found by the words for chance, too
     */
    int fits(String typed, boolean draws) {
        String wanted = typed.toLowerCase(Locale.ROOT).strip();
        String name = label.toLowerCase(Locale.ROOT);
        String sought = " " + foundBy.toLowerCase(Locale.ROOT) + (draws ? DRAWING : "") + " ";
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
}
