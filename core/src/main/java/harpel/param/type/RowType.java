package harpel.param.type;

import harpel.param.Param;
import harpel.param.ParamException;
import harpel.param.ParamSet;
import harpel.param.ParamSpec;
import harpel.param.ParamType;
import harpel.param.Plain;
import harpel.theory.Spelling;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.function.BiFunction;
import java.util.function.Consumer;

/**
 * A little set of parameters as one value, such as one voice or one step.
 *
 * @param check refuses with a {@link ParamException} what does not go together
 * @param types the type that one of the parameters has in a row, where the row narrows it
 */
public record RowType(ParamSpec spec, Consumer<ParamSet> check, BiFunction<ParamSet, Param<?>, ParamType<?>> types)
        implements ParamType<ParamSet> {
    public RowType(ParamSpec spec) {
        this(spec, values -> {});
    }

    public RowType(ParamSpec spec, Consumer<ParamSet> check) {
        this(spec, check, (row, param) -> param.type());
    }

    @Override
    public ParamSet read(Object plain) {
        if (!(plain instanceof Map<?, ?> map)) {
            throw new ParamException("must be " + range() + " but was " + Plain.quote(plain));
        }
        Map<String, Object> named = new LinkedHashMap<>();
        map.forEach((key, value) -> named.put(String.valueOf(key), value));
        ParamSet values = ParamSet.read(spec, named);
        check.accept(values);
        return values;
    }

    @Override
    public Object write(ParamSet value) {
        return value.write();
    }

    @Override
    public Map<String, Object> schema() {
        return schemaOf(spec);
    }

    /** The schema of an object with these parameters, each with its sentence. */
    public static Map<String, Object> schemaOf(ParamSpec spec) {
        Map<String, Object> properties = new LinkedHashMap<>();
        for (Param<?> param : spec.params()) {
            Map<String, Object> one = new LinkedHashMap<>(param.type().schema());
            one.put("description", param.help());
            properties.put(param.id(), one);
        }
        Map<String, Object> schema = new LinkedHashMap<>();
        schema.put("type", "object");
        schema.put("properties", properties);
        schema.put("additionalProperties", false);
        return schema;
    }

    @Override
    public String show(ParamSet value) {
        return show(value, Spelling.SHARPS);
    }

    @Override
    public String show(ParamSet value, Spelling spelling) {
        StringBuilder text = new StringBuilder();
        for (Param<?> param : spec.params()) {
            if (!value.isDefault(param)) {
                String shown = param.show(value, spelling);
                // "2 degrees" names itself; "80 %" does not.
                text.append(text.isEmpty() ? "" : " · ")
                        .append(shown.contains(param.id().replaceFirst("s$", "")) ? "" : param.id() + " ")
                        .append(shown);
            }
        }
        return text.isEmpty() ? "plain" : text.toString();
    }

    @Override
    public String range() {
        return "an object with any of " + spec.ids();
    }
}
