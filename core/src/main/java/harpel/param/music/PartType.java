package harpel.param.music;

import harpel.param.Ids;
import harpel.param.ParamException;
import harpel.param.ParamType;
import harpel.param.Plain;
import java.util.Map;

/** The id of another part whose held notes are listened to; empty for none. */
public record PartType() implements ParamType<String> {
    public static final PartType PART = new PartType();
    private static final String ID = "(" + Ids.FORM + ")?";

    @Override
    public String read(Object plain) {
        if (plain instanceof String text && (text.isEmpty() || Ids.isOne(text))) {
            return text;
        }
        throw new ParamException("must be " + range() + " but was " + Plain.quote(plain));
    }

    @Override
    public Object write(String value) {
        return value;
    }

    @Override
    public Map<String, Object> schema() {
        return Map.of("type", "string", "pattern", "^" + ID + "$");
    }

    @Override
    public String show(String value) {
        return value.isEmpty() ? "none" : value;
    }

    @Override
    public String parse(String typed) {
        return typed.strip().equals("none") ? "" : read(typed.strip());
    }

    @Override
    public String range() {
        return "the id of a part, such as tide-bass";
    }
}
