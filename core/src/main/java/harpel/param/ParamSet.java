package harpel.param;

import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.Map;

/** A value for every parameter of a spec. Immutable. */
public final class ParamSet {
    private final ParamSpec spec;
    private final Object[] values;

    ParamSet(ParamSpec spec, Object[] values) {
        this.spec = spec;
        this.values = values;
    }

    public ParamSpec spec() {
        return spec;
    }

    @SuppressWarnings("unchecked") // only with() writes, and it takes a T
    public <T> T get(Param<T> param) {
        return (T) values[spec.indexOf(param)];
    }

    public <T> ParamSet with(Param<T> param, T value) {
        Object[] changed = values.clone();
        changed[spec.indexOf(param)] = value;
        return new ParamSet(spec, changed);
    }

    /**
     * These values with one of them read from its plain form.
     *
     * @throws ParamException with the parameter's id as path
     */
    public <T> ParamSet withPlain(Param<T> param, Object plain) {
        try {
            return with(param, param.type().read(plain));
        } catch (ParamException e) {
            throw e.under(param.id());
        } catch (IllegalArgumentException e) {
            throw new ParamException(param.id(), e.getMessage());
        }
    }

    public <T> boolean isDefault(Param<T> param) {
        return get(param).equals(param.defaultValue());
    }

    /**
     * Reads values by id; what is not named keeps its default.
     *
     * @throws ParamException for an unknown id or a value that does not fit
     */
    public static ParamSet read(ParamSpec spec, Map<String, ?> plain) {
        ParamSet result = spec.defaults();
        for (Map.Entry<String, ?> entry : plain.entrySet()) {
            Param<?> param = spec.byId(entry.getKey())
                    .orElseThrow(() -> new ParamException(
                            entry.getKey(), "there is no such parameter here; use one of " + spec.ids()));
            result = result.withPlain(param, entry.getValue());
        }
        return result;
    }

    /** The same values on another spec: by id where they fit, else the default. */
    public ParamSet onto(ParamSpec other) {
        if (other == spec) {
            return this;
        }
        ParamSet result = other.defaults();
        for (Param<?> param : other.params()) {
            result = result.withIfItFits(param.id(), this);
        }
        return result;
    }

    /** With the value that another set has under that id, if both have one of it and it fits here. */
    public ParamSet withIfItFits(String id, ParamSet other) {
        Param<?> here = spec.byId(id).orElse(null);
        Param<?> there = other.spec.byId(id).orElse(null);
        if (here == null || there == null) {
            return this;
        }
        try {
            return withPlain(here, other.writeOne(there));
        } catch (ParamException e) {
            return this;
        }
    }

    /** The plain form of every value that is not the default. */
    public Map<String, Object> write() {
        Map<String, Object> plain = new LinkedHashMap<>();
        for (Param<?> param : spec.params()) {
            if (!isDefault(param)) {
                plain.put(param.id(), writeOne(param));
            }
        }
        return plain;
    }

    private <T> Object writeOne(Param<T> param) {
        return param.type().write(get(param));
    }

    @Override
    public boolean equals(Object other) {
        return other instanceof ParamSet set && set.spec == spec && Arrays.equals(set.values, values);
    }

    @Override
    public int hashCode() {
        return Arrays.hashCode(values);
    }

    @Override
    public String toString() {
        return write().toString();
    }
}
