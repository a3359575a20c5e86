package harpel.move;

import harpel.param.Param;
import harpel.param.ParamSet;
import harpel.param.ParamType;
import harpel.param.type.IntType;
import harpel.theory.GeneralMidi;
import harpel.time.TimeValue;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/**
 * One thing that moves one parameter.
 *
 * @param settings values of the source's {@link Source#spec}
 * @param unknown what a newer version wrote
 */
public record Mover(Source source, ParamSet settings, Map<String, Object> unknown) {
    public Mover {
        unknown = unknown.isEmpty() ? Map.of() : Collections.unmodifiableMap(new LinkedHashMap<>(unknown));
    }

    public Mover(Source source, ParamSet settings) {
        this(source, settings, Map.of());
    }

    public Mover withSettings(ParamSet newSettings) {
        return new Mover(source, newSettings, unknown);
    }

    public static Mover of(Source source, Param<?> moved) {
        return new Mover(source, source.spec(moved).defaults());
    }

    /** One as it is proposed for a parameter: by an octave where it counts semitones or degrees, not by half of all there are. */
    public static Mover proposed(Source source, Param<?> moved) {
        Mover plain = of(source, moved);
        if (source == Source.AUTOMATION || !(moved.type() instanceof IntType type)) {
            return plain;
        }
        int octave = switch (type.unit()) {
            case "semitones" -> 12;
            case "degrees" -> 7;
            case "octaves" -> 1;
            default -> 0;
        };
        return octave == 0
                ? plain
                : plain.withSettings(plain.settings.with(
                        Source.AMOUNT, (int) Math.round(100.0 * octave / (type.max() - type.min()))));
    }

    /** Whether another mover is by the same lever. */
    boolean isOfTheSameLever(Mover other) {
        return source == Source.LEVER
                && other.source == Source.LEVER
                && settings.get(Source.NAME).equals(other.settings.get(Source.NAME));
    }

    /** A value moved by a share of its range, as its movers let it; note values keep to those that they allow. */
    public static <T> T moved(ParamType<T> type, T value, double offset, List<Mover> movers) {
        return allowed(type.moved(value, offset), offset, movers);
    }

    /** What was moved by so much, as its movers let it. */
    public static <T> T allowed(T moved, double offset, List<Mover> movers) {
        if (offset == 0 || !(moved instanceof TimeValue.Note note)) {
            return moved;
        }
        Source.NoteValues allowed = Source.NoteValues.STRAIGHT;
        for (Mover mover : movers) {
            if (mover.settings.spec().has(Source.NOTE_VALUES)) {
                allowed = allowed.and(mover.settings.get(Source.NOTE_VALUES));
            }
        }
        @SuppressWarnings("unchecked") // a note value where there was one
        T kept = (T) allowed.nearest(note);
        return kept;
    }

    /** What it adds, from −1 to 1 of the control's range, when the source stands at {@code place}, 0–1. */
    public double offset(double place) {
        double low = settings.get(Source.RANGE).low() / 100.0;
        double high = settings.get(Source.RANGE).high() / 100.0;
        double within = high > low ? Math.max(0, Math.min(1, (place - low) / (high - low))) : place < low ? 0 : 1;
        double bent = bent(within, settings.get(Source.BEND));
        double way = settings.get(Source.BOTH_WAYS) ? 2 * bent - 1 : bent;
        return way * settings.get(Source.AMOUNT) / 100.0;
    }

    /** A place from 0 to 1 along a curve, −100 to 100: straight at 0, above it fast first, below it slowly first. */
    public static double bent(double place, int curve) {
        return curve == 0 ? place : Math.pow(place, Math.pow(2, -curve / 100.0));
    }

    /** "lfo 1/1", "lever Tide", "velocity". */
    public String shown() {
        return switch (source) {
            case LEVER -> "lever " + settings.get(Source.NAME);
            case CONTROLLER -> GeneralMidi.controller(settings.get(Source.NUMBER));
            case LFO -> Source.SHAPE.show(settings) + " wave " + Source.PACE.show(settings);
            case CURVE -> "curve over " + Source.LOOP.show(settings);
            case KEYS_HELD -> "keys held";
            default -> source.word();
        };
    }
}
