package harpel.piece;

import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.Map;

/**
 * A named performance control that moves any number of parameters, each by an amount of its own.
 *
 * @param value where it stands, 0–100 %
 * @param controller the controller that moves it on any input, 0–127, or -1 for none
 * @param unknown what a newer version wrote
 */
@RecordBuilder
public record Lever(String name, double value, int controller, Map<String, Object> unknown)
        implements LeverBuilder.With {
    public Lever {
        if (name.isBlank()) {
            throw new IllegalArgumentException("a lever has a name");
        }
        if (!(value >= 0 && value <= 100)) {
            throw new IllegalArgumentException("lever \"" + name + "\" must stand at 0–100 % but was at " + value);
        }
        if (controller < -1 || controller > 127) {
            throw new IllegalArgumentException("lever \"" + name + "\": a controller is 0–127 but was " + controller);
        }
        unknown = unknown.isEmpty() ? Map.of() : Collections.unmodifiableMap(new LinkedHashMap<>(unknown));
    }

    public static Lever of(String name, double value, int controller) {
        return new Lever(name, value, controller, Map.of());
    }
}
