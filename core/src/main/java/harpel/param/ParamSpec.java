package harpel.param;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/** The parameters of one effect, in the order they are shown. */
public final class ParamSpec {
    private final List<Param<?>> params;
    private final Map<Param<?>, Integer> index = new HashMap<>();
    private final ParamSet defaults;

    private ParamSpec(List<Param<?>> params) {
        this.params = List.copyOf(params);
        Object[] values = new Object[params.size()];
        for (int i = 0; i < values.length; i++) {
            if (byId(params.get(i).id()).map(index::get).isPresent()) {
                throw new IllegalArgumentException(
                        "two parameters are called " + params.get(i).id());
            }
            index.put(params.get(i), i);
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
        Integer found = index.get(param);
        if (found == null) {
            throw new IllegalArgumentException("no parameter " + param.id() + " here; there are " + ids());
        }
        return found;
    }

    public boolean has(Param<?> param) {
        return index.containsKey(param);
    }

    public String ids() {
        return String.join(", ", params.stream().map(Param::id).toList());
    }
}
