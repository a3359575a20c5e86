package harpel.param;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;

/** The parameters of one effect, in the order they are shown. */
public final class ParamSpec {
    private final List<Param<?>> params;
    private final Param<?>[] places;
    private final ParamSet defaults;

    private ParamSpec(List<Param<?>> params) {
        this.params = List.copyOf(params);
        this.places = params.toArray(Param<?>[]::new);
        Object[] values = new Object[params.size()];
        Set<String> ids = new HashSet<>();
        for (int i = 0; i < values.length; i++) {
            if (!ids.add(params.get(i).id())) {
                throw new IllegalArgumentException(
                        "two parameters are called " + params.get(i).id());
            }
            values[i] = params.get(i).defaultValue();
        }
        defaults = new ParamSet(this, values);
    }

    public static ParamSpec of(Param<?>... params) {
        return new ParamSpec(List.of(params));
    }

    /** These parameters and then {@code more}. */
    public ParamSpec and(ParamSpec more) {
        List<Param<?>> all = new ArrayList<>(params);
        all.addAll(more.params);
        return new ParamSpec(all);
    }

    public List<Param<?>> params() {
        return params;
    }

    public ParamSet defaults() {
        return defaults;
    }

    public Optional<Param<?>> byId(String id) {
        return params.stream().filter(param -> param.id().equals(id)).findFirst();
    }

    int indexOf(Param<?> param) {
        // A dozen at most, and asked for each note: looking along them is faster than a table.
        for (int i = 0; i < places.length; i++) {
            if (places[i] == param) {
                return i;
            }
        }
        throw new IllegalArgumentException("no parameter " + param.id() + " here; there are " + ids());
    }

    public boolean has(Param<?> param) {
        return params.contains(param);
    }

    public String ids() {
        return String.join(", ", params.stream().map(Param::id).toList());
    }
}
