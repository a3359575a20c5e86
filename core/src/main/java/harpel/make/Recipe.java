package harpel.make;

import harpel.param.Param;
import harpel.param.ParamException;
import harpel.param.ParamSet;
import harpel.param.ParamSpec;
import harpel.param.type.ChoiceType;
import harpel.phrase.Note;
import harpel.phrase.Origin;
import harpel.theory.Key;
import harpel.time.Ticks;
import harpel.time.TimeMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;

/**
 * What is to be made, with all its settings: the same recipe always makes the same notes.
 *
 * @param values on the spec of the kind
 */
public record Recipe(Kind kind, ParamSet values) {
    /** What can be made. */
    public enum Kind {
        MELODY(MelodyMaker.SPEC),
        CHORDS(ChordsMaker.SPEC),
        RHYTHM(RhythmMaker.SPEC);

        private final ParamSpec spec;

        Kind(ParamSpec spec) {
            this.spec = spec;
        }

        public Recipe plain() {
            return new Recipe(this, spec.defaults());
        }
    }

    /**
     * What was made.
     *
     * @param notes from tick 0 on
     */
    public record Result(List<Note> notes, long length) {}

    public <T> Recipe with(Param<T> param, T value) {
        return new Recipe(kind, values.with(param, value));
    }

    /** @throws IllegalArgumentException when what is set makes no sense, in words */
    public Result make(Key key, TimeMap time) {
        return switch (kind) {
            case MELODY -> new Result(MelodyMaker.notes(values, key, time), MelodyMaker.length(values, time));
            case CHORDS -> new Result(ChordsMaker.notes(values, key, time), ChordsMaker.length(values, key, time));
            case RHYTHM -> {
                long length = time.meter().tickOfBar(values.get(RhythmMaker.BARS));
                long step = Math.max(1, Ticks.round(values.get(RhythmMaker.GRID).ticksAt(0, time)));
                yield new Result(RhythmMaker.notes(RhythmMaker.rows(values), step, length), length);
            }
        };
    }

    /** Another one like it: the next seed, or the next of the common progressions; a rhythm is as it is set. */
    public Recipe another() {
        return switch (kind) {
            case MELODY -> with(MelodyMaker.SEED, (values.get(MelodyMaker.SEED) + 1) % 10_000);
            case CHORDS -> {
                List<String> all =
                        Progression.COMMON.stream().map(Progression::text).toList();
                int next = (all.indexOf(values.get(ChordsMaker.PROGRESSION)) + 1) % all.size();
                yield with(ChordsMaker.PROGRESSION, all.get(next));
            }
            case RHYTHM -> this;
        };
    }

    /** So many further: what comes of asking for another so often. */
    public Recipe another(long times) {
        Recipe recipe = this;
        for (long i = 0; i < times; i++) {
            recipe = recipe.another();
        }
        return recipe;
    }

    /** What a phrase was made by, if it was made and another can be. */
    public static Optional<Recipe> of(Origin origin) {
        if (origin.kind() != Origin.Kind.MADE) {
            return Optional.empty();
        }
        Map<String, Object> how = new LinkedHashMap<>(origin.how());
        try {
            Kind kind = new ChoiceType<>(Kind.class).read(how.remove("make"));
            Recipe recipe = new Recipe(kind, ParamSet.read(kind.spec, how));
            return Optional.of(recipe).filter(one -> !one.another().equals(one));
        } catch (ParamException e) {
            // Another version made it: it is what it is.
            return Optional.empty();
        }
    }

    /** Where a phrase made so comes from, with all that is set. */
    public Origin origin() {
        Map<String, Object> how = new LinkedHashMap<>();
        how.put("make", ChoiceType.word(kind));
        how.putAll(values.write());
        String what = switch (kind) {
            case MELODY -> "seed " + values.get(MelodyMaker.SEED);
            case CHORDS -> values.get(ChordsMaker.PROGRESSION);
            case RHYTHM -> values.get(RhythmMaker.LOW);
        };
        return new Origin(Origin.Kind.MADE, "", kind.name().toLowerCase(Locale.ROOT) + ", " + what, how, Map.of());
    }
}
