package harpel.param.type;

import harpel.param.ParamException;
import harpel.param.ParamType;
import harpel.param.Plain;
import java.util.Map;

/** A line of text. */
public record TextType(int longest) implements ParamType<String> {
    @Override
    public String read(Object plain) {
        if (plain instanceof String text && text.length() <= longest) {
            return text;
        }
        throw new ParamException("must be " + range() + " but was " + Plain.quote(plain));
    }

    @Override
    public String parse(String typed) {
        return read(typed);
    }

    @Override
    public Object write(String value) {
        return value;
    }

    @Override
    public Map<String, Object> schema() {
        return Map.of("type", "string", "maxLength", longest);
    }

    @Override
    public String show(String value) {
        return value;
    }

    @Override
    public String range() {
        return "text of at most " + longest + " characters";
    }
}
