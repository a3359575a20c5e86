package harpel.param;

import java.util.List;
import java.util.Map;

/** Helpers around plain values, as files hold them. */
public final class Plain {
    public static final Map<String, Object> PITCH_NAME_SCHEMA =
            Map.of("type", "string", "pattern", "^([A-Ga-g][#♯b♭]{0,2}-?[0-9]+|[0-9]+)$");

    private Plain() {}

    /** A value as an error message quotes it. */
    public static String quote(Object plain) {
        return plain instanceof String ? "\"" + plain + "\"" : String.valueOf(plain);
    }

    /** The list, or a complaint that says what was wanted. */
    public static List<?> list(Object plain, String wanted) {
        if (plain instanceof List<?> list) {
            return list;
        }
        throw new ParamException("must be " + wanted + " but was " + quote(plain));
    }

    /** A number as a file shows it: whole where it is. */
    public static Number whole(double value) {
        if (value == Math.rint(value)) {
            return (long) value;
        }
        return value;
    }

    public static String number(double value) {
        String text = value == Math.rint(value) ? String.valueOf((long) value) : String.valueOf(value);
        return text.replace('-', '−');
    }
}
