package harpel.effect.shape;

import com.google.auto.service.AutoService;
import harpel.effect.Effect;
import harpel.effect.EffectContext;
import harpel.effect.EffectKind;
import harpel.effect.EffectWords;
import harpel.effect.Emitter;
import harpel.effect.Family;
import harpel.event.NoteEnd;
import harpel.event.NoteStart;
import harpel.param.Param;
import harpel.param.ParamSet;
import harpel.param.music.TimeType;
import harpel.param.type.ChoiceType;
import harpel.param.type.IntType;
import harpel.param.type.OffType;
import harpel.time.Ticks;
import harpel.time.TimeMap;
import harpel.time.TimeValue;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/** Says how long notes last. */
@AutoService(EffectKind.class)
public final class Duration extends EffectKind {
    /** What the length is taken from. */
    public enum Length {
        AS_PLAYED,
        FIXED,
        SHARE,
        UNTIL_NEXT
    }

    /** When a note sounds. */
    public enum SoundsOn {
        PRESS,
        RELEASE
    }

    public static final Param<Length> LENGTH = Param.of(
            "length",
            ChoiceType.of(Length.class),
            Length.FIXED,
            "As played, always the same, a share of the played length, or until the next note starts (legato).");
    public static final Param<TimeValue> FIXED = Param.of(
            "fixed",
            TimeType.TIME,
            TimeValue.ofNote("1/8"),
            "The length when it is fixed, or when notes sound on release.");
    public static final Param<Integer> SHARE = Param.of(
            "share",
            IntType.percent(1, 400),
            150,
            "With length share: so much of the played length; below 100 % only notes whose length is known are shortened, not keys that"
                    + " are still down.");
    public static final Param<Optional<TimeValue>> AT_LEAST =
            Param.of("at-least", new OffType<>(TimeType.TIME), Optional.empty(), "No note is shorter than this.");
    public static final Param<Optional<TimeValue>> AT_MOST =
            Param.of("at-most", new OffType<>(TimeType.TIME), Optional.empty(), "No note is longer than this.");
    public static final Param<SoundsOn> SOUNDS_ON = Param.of(
            "sounds-on",
            ChoiceType.of(SoundsOn.class),
            SoundsOn.PRESS,
            "press, or release: the note starts when the key is let go and lasts the fixed length.");

    private static final EffectWords WORDS = EffectWords.of("Duration", Family.SHAPE, "says how long notes last")
            .withFoundBy("length gate legato short long staccato")
            .withSetting(Duration::describe)
            .withNotes(
                    "A note from a phrase, a step or another duration knows how long it will last, so a share below 100 % shortens it, live"
                            + " and printed alike. A key that is still down cannot be shortened before its end is known: it ends when it is let go."
                            + " Until the next note of the same channel: notes that start together last together; the last one"
                            + " lasts until the stop unless `at-most` ends it. `at-most` is kept while the key is still down.");

    public Duration() {
        super("duration", WORDS, LENGTH, FIXED, SHARE, AT_LEAST, AT_MOST, SOUNDS_ON);
    }

    @Override
    public Effect create() {
        return new Running();
    }

    private static String describe(ParamSet values) {
        if (values.get(SOUNDS_ON) == SoundsOn.RELEASE) {
            return "sounds on release for " + FIXED.show(values);
        }
        String length = switch (values.get(LENGTH)) {
            case AS_PLAYED -> "as played";
            case FIXED -> "always " + FIXED.show(values);
            case SHARE ->
                SHARE.show(values) + " of the played length" + (values.get(SHARE) < 100 ? ", keys as played" : "");
            case UNTIL_NEXT -> "until the next note";
        };
        String least = values.get(AT_LEAST).isPresent() ? " · at least " + AT_LEAST.show(values) : "";
        String most = values.get(AT_MOST).isPresent() ? " · at most " + AT_MOST.show(values) : "";
        return length + least + most;
    }

    private static final class Running implements Effect {
        private final Map<NoteStart, NoteStart> sounding = new HashMap<>();
        private final List<NoteStart> untilNext = new ArrayList<>();
        private ParamSet values;
        private TimeMap time;
        /** After a stop no next note can be counted on: what still rings out ends as played. */
        private boolean stopped;

        @Override
        public void configure(ParamSet newValues, EffectContext context, long tick) {
            values = newValues;
            time = context.time();
        }

        @Override
        public void start(NoteStart note, Emitter out) {
            if (values.get(SOUNDS_ON) == SoundsOn.RELEASE) {
                sounding.put(note, note);
                return;
            }
            untilNext.removeIf(before -> {
                boolean earlier = before.tick() < note.tick() && before.channel() == note.channel();
                if (earlier) {
                    out.end(before, atLeast(before, note.tick()), NoteEnd.PLAIN_RELEASE);
                }
                return earlier;
            });
            // A note of its own, since it may last longer or shorter than those before this stage know.
            NoteStart made = note.copy().lasting(0);
            sounding.put(note, made);
            out.start(made);
            values.get(AT_MOST)
                    .ifPresent(most -> out.end(made, time.after(note.tick(), most, 1), NoteEnd.PLAIN_RELEASE));
            if (values.get(LENGTH) == Length.FIXED) {
                out.end(made, bounded(note, time.after(note.tick(), values.get(FIXED), 1)), NoteEnd.PLAIN_RELEASE);
            } else if (note.lasts() > 0 && values.get(LENGTH) != Length.UNTIL_NEXT) {
                out.end(made, bounded(note, note.tick() + share(note.lasts())), NoteEnd.PLAIN_RELEASE);
            } else {
                // At most so long, but nobody knows how long.
                made.lasting(0);
                if (values.get(LENGTH) == Length.UNTIL_NEXT && !stopped) {
                    untilNext.add(made);
                }
            }
        }

        private long share(long length) {
            return values.get(LENGTH) == Length.SHARE ? Ticks.round(length * values.get(SHARE) / 100.0) : length;
        }

        @Override
        public void end(NoteEnd end, Emitter out) {
            NoteStart note = sounding.remove(end.start());
            if (values.get(SOUNDS_ON) == SoundsOn.RELEASE) {
                // A key that was pressed when notes sounded on press has its note ended.
                out.end(note, end.tick(), end.releaseVelocity());
                NoteStart released = note.derive(end.tick(), note.pitch(), note.velocity());
                out.start(released);
                out.end(released, time.after(end.tick(), values.get(FIXED), 1), end.releaseVelocity());
                return;
            }
            long played = end.tick() - note.tick();
            switch (values.get(LENGTH)) {
                case AS_PLAYED, SHARE ->
                    out.end(note, bounded(note, note.tick() + share(played)), end.releaseVelocity());
                case FIXED -> {
                    // Its end was set when it started.
                }
                case UNTIL_NEXT -> {
                    if (!untilNext.contains(note)) {
                        // It started before the length was set so, or after a stop.
                        out.end(note, end.tick(), end.releaseVelocity());
                    }
                }
            }
        }

        private long atLeast(NoteStart note, long end) {
            return values.get(AT_LEAST)
                    .map(least -> Math.max(end, time.after(note.tick(), least, 1)))
                    .orElse(end);
        }

        private long bounded(NoteStart note, long end) {
            long longEnough = atLeast(note, end);
            return values.get(AT_MOST)
                    .map(most -> Math.min(longEnough, time.after(note.tick(), most, 1)))
                    .orElse(longEnough);
        }

        @Override
        public void stopGenerating(Emitter out) {
            untilNext.forEach(note -> out.end(note, out.tick(), NoteEnd.PLAIN_RELEASE));
            untilNext.clear();
            stopped = true;
        }
    }
}
