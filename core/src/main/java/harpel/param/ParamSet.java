package harpel.param;

import harpel.param.type.ListType;
import harpel.param.type.RowType;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
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
        int place = spec.placeOf(param);
        if (place >= 0) {
            return (T) values[place];
        }
        ParamSpec.Inside inside = insideOf(param);
        List<?> list = (List<?>) get(inside.list());
        if (inside.place() >= list.size()) {
            return param.defaultValue();
        }
        Object item = list.get(inside.place());
        return (T) (inside.of() == null ? item : ((ParamSet) item).get(inside.of()));
    }

    public <T> ParamSet with(Param<T> param, T value) {
        int place = spec.placeOf(param);
        if (place < 0) {
            return withInside(insideOf(param), value);
        }
        Object[] changed = values.clone();
        changed[place] = value;
        return new ParamSet(spec, changed);
    }

    private ParamSpec.Inside insideOf(Param<?> param) {
        ParamSpec.Inside inside = spec.inside(param);
        if (inside == null) {
            throw new IllegalArgumentException("no parameter " + param.id() + " here; there are " + spec.ids());
        }
        return inside;
    }

    @SuppressWarnings("unchecked") // the value is of the type of what lies there
    private ParamSet withInside(ParamSpec.Inside inside, Object value) {
        Param<List<Object>> list = (Param<List<Object>>) inside.list();
        List<Object> items = get(list);
        if (inside.place() >= items.size()) {
            return this;
        }
        List<Object> changed = new ArrayList<>(items);
        Object item = items.get(inside.place());
        changed.set(
                inside.place(),
                inside.of() == null ? value : ((ParamSet) item).with((Param<Object>) inside.of(), value));
        return with(list, List.copyOf(changed));
    }

    /** The type of a parameter as it is here: a row's values may have a range that another of its parameters says. */
    @SuppressWarnings("unchecked") // a row says a narrower type of the same class
    public <T> ParamType<T> typeOf(Param<T> param) {
        ParamSpec.Inside inside = spec.inside(param);
        List<?> list = inside == null ? List.of() : (List<?>) get(inside.list());
        boolean row = inside != null
                && inside.of() != null
                && inside.place() < list.size()
                && ((ListType<?>) inside.list().type()).item() instanceof RowType;
        if (!row) {
            return param.type();
        }
        RowType type = (RowType) ((ListType<?>) inside.list().type()).item();
        return (ParamType<T>) type.types().apply((ParamSet) list.get(inside.place()), inside.of());
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
