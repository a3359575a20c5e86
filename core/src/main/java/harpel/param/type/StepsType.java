package harpel.param.type;

import harpel.param.ParamException;
import harpel.param.ParamType;
import harpel.param.Plain;
import java.util.Map;

/**
 * A row of steps as text: {@code x} sounds, {@code 1}–{@code 9} sounds with so many tenths of the velocity, {@code .} rests.
 *
 * @param most the most steps
 */
public record StepsType(int most) implements ParamType<String> {
    @Override
    public String read(Object plain) {
        if (plain instanceof String text && text.matches("[x.1-9]{1," + most + "}")) {
            return text;
        }
        throw new ParamException("must be " + range() + " but was " + Plain.quote(plain));
    }

    /** How much of its velocity step n has, 0–1; 0 is a rest. The row begins again after its end. */
    public static double at(String steps, long n) {
        char step = steps.charAt((int) Math.floorMod(n, (long) steps.length()));
        return step == 'x' ? 1 : step == '.' ? 0 : (step - '0') / 10.0;
    }

    @Override
    public Object write(String value) {
        return value;
    }

    @Override
    public Map<String, Object> schema() {
        return Map.of("type", "string", "pattern", "^[x.1-9]{1," + most + "}$");
    }

    @Override
    public String show(String value) {
        return value;
    }

    @Override
    public String range() {
        return "1–" + most + " steps: x sounds, 1–9 sounds with so many tenths of the velocity, . rests";
    }
}
