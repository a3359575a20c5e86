package harpel.param;

import harpel.param.type.ListType;
import harpel.param.type.RowType;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** The parameters of one effect, in the order they are shown. */
public final class ParamSpec {
    private static final Pattern INSIDE = Pattern.compile("([a-z][a-z0-9-]*)\\.([1-9]\\d{0,2})(?:\\.(.+))?");

    private final List<Param<?>> params;
    private final Param<?>[] places;
    private final ParamSet defaults;
    /** What has been asked for inside lists, by id and the other way round. */
    private final Map<String, Optional<Param<?>>> inside = new ConcurrentHashMap<>();

    private final Map<Param<?>, Inside> insides = new ConcurrentHashMap<>();

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

    /**
     * The parameter of that id, or a value inside a list as a parameter of its own: {@code voices.2.chance} is the chance of the second
     * voice, {@code accents.3} the third accent. Where the list is shorter it has its default, and setting it does nothing.
     */
    public Optional<Param<?>> anywhere(String id) {
        return byId(id).or(() -> id.indexOf('.') < 0 ? Optional.empty() : inside.computeIfAbsent(id, this::findInside));
    }

    private Optional<Param<?>> findInside(String id) {
        Matcher matcher = INSIDE.matcher(id);
        Param<?> list = matcher.matches() ? byId(matcher.group(1)).orElse(null) : null;
        if (list == null || !(list.type() instanceof ListType<?> type)) {
            return Optional.empty();
        }
        int place = Integer.parseInt(matcher.group(2)) - 1;
        String rest = matcher.group(3);
        Param<?> of = rest != null && type.item() instanceof RowType row
                ? row.spec().anywhere(rest).orElse(null)
                : null;
        if (place >= type.most() || rest != null && of == null || rest == null && type.item() instanceof RowType) {
            return Optional.empty();
        }
        String label = list.label() + " " + (place + 1)
                + (of == null ? "" : " " + of.label().toLowerCase(Locale.ROOT));
        Param<?> found = of == null
                ? plainInside(id, label, type, list)
                : new Param<>(id, label, typed(of), of.defaultValue(), of.help());
        insides.put(found, new Inside(list, place, of));
        return Optional.of(found);
    }

    @SuppressWarnings("unchecked") // a parameter's default is of its own type
    private static ParamType<Object> typed(Param<?> param) {
        return (ParamType<Object>) param.type();
    }

    @SuppressWarnings("unchecked") // a list's default holds values of its type
    private static <T> Param<T> plainInside(String id, String label, ListType<T> type, Param<?> list) {
        return new Param<>(id, label, type.item(), type.fresh((List<T>) list.defaultValue()), list.help());
    }

    /**
     * A value inside a list.
     *
     * @param of the parameter of the list's rows; null where the list holds plain values
     */
    record Inside(Param<?> list, int place, Param<?> of) {}

    /** Where a parameter that {@link #anywhere} found lies; null for one of the spec's own. */
    Inside inside(Param<?> param) {
        return insides.get(param);
    }

    /** The place of one of the spec's own parameters, or -1. */
    int placeOf(Param<?> param) {
        // A dozen at most, and asked for each note: looking along them is faster than a table.
        for (int i = 0; i < places.length; i++) {
            if (places[i] == param) {
                return i;
            }
        }
        return -1;
    }

    public boolean has(Param<?> param) {
        return params.contains(param) || insides.containsKey(param);
    }

    public String ids() {
        return String.join(", ", params.stream().map(Param::id).toList());
    }
}
