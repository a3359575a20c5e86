package harpel.move;

import harpel.param.Param;
import harpel.param.ParamSet;
import harpel.theory.GeneralMidi;
import java.util.Collections;
import java.util.LinkedHashMap;
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
