package harpel.param.type;

import harpel.param.ParamException;
import harpel.param.ParamType;
import harpel.param.Plain;
import java.util.Map;

/** Yes or no. */
public record FlagType() implements ParamType<Boolean> {
    public static final FlagType FLAG = new FlagType();

    @Override
    public boolean flows() {
        return false;
    }

    @Override
    public Boolean read(Object plain) {
        if (plain instanceof Boolean flag) {
            return flag;
        }
        throw new ParamException("must be true or false but was " + Plain.quote(plain));
    }

    @Override
    public Boolean parse(String typed) {
        return switch (typed.strip()) {
            case "yes", "on", "true" -> true;
            case "no", "off", "false" -> false;
            default -> read(typed);
        };
    }

    @Override
    public Object write(Boolean value) {
        return value;
    }

    @Override
    public Map<String, Object> schema() {
        return Map.of("type", "boolean");
    }

    @Override
    public String show(Boolean value) {
        return value ? "yes" : "no";
    }

    @Override
    public String range() {
        return "true, false";
    }

    @Override
    public double fraction(Boolean value) {
        return value ? 1 : 0;
    }

    @Override
    public Boolean atFraction(double fraction) {
        return fraction >= 0.5;
    }

    @Override
    public Boolean step(Boolean value, int direction, boolean fine) {
        return direction > 0;
    }
}
