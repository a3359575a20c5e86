package harpel.param.type;

import harpel.param.ParamException;
import harpel.param.ParamType;
import harpel.param.Plain;
import harpel.theory.Spelling;
import java.util.List;
import java.util.Map;
import java.util.function.DoubleSupplier;

/** One value that holds for every step, or a row with a value for each: {@code 20} or {@code [0, 20, 50]}. A row begins again after its end. */
public record SharedOrOwnType<T>(ParamType<T> item, int most) implements ParamType<List<T>> {
    private ListType<T> list() {
        return new ListType<>(item, most);
    }

    @Override
    public List<T> read(Object plain) {
        if (!(plain instanceof List<?>)) {
            return List.of(item.read(plain));
        }
        List<T> values = list().read(plain);
        if (values.isEmpty()) {
            throw new ParamException("must be " + range() + " but was an empty list");
        }
        return values;
    }

    @Override
    public List<T> parse(String typed) {
        List<T> values = list().parse(typed);
        if (values.isEmpty()) {
            throw new ParamException("must be " + range() + " but was " + Plain.quote(typed));
        }
        return values;
    }

    /** The value at a step. */
    public static <T> T at(List<T> values, int step) {
        return values.get(step % values.size());
    }

    @Override
    public Object write(List<T> value) {
        return value.size() == 1 ? item.write(value.get(0)) : list().write(value);
    }

    @Override
    public Map<String, Object> schema() {
        return Map.of("anyOf", List.of(item.schema(), list().schema()));
    }

    @Override
    public String show(List<T> value) {
        return show(value, Spelling.SHARPS);
    }

    @Override
    public String show(List<T> value, Spelling spelling) {
        return list().show(value, spelling);
    }

    @Override
    public String range() {
        return item.range() + ", one for all steps or a list of up to " + most;
    }

    /** That of the mean, where it is a row. */
    @Override
    public double fraction(List<T> value) {
        return value.stream().mapToDouble(item::fraction).average().orElse(0);
    }

    @Override
    public List<T> atFraction(double fraction) {
        return List.of(item.atFraction(fraction));
    }

    @Override
    public List<T> moved(List<T> value, double offset) {
        return value.stream().map(one -> item.moved(one, offset)).toList();
    }

    @Override
    public List<T> between(List<T> from, List<T> to, double way, double offset) {
        return from.size() == to.size()
                ? java.util.stream.IntStream.range(0, from.size())
                        .mapToObj(i -> item.between(from.get(i), to.get(i), way, offset))
                        .toList()
                : moved(way < 1 ? from : to, offset);
    }

    @Override
    public boolean flows() {
        return item.flows();
    }

    @Override
    public List<T> shuffled(List<T> value, double most, DoubleSupplier unit) {
        return list().shuffled(value, most, unit);
    }

    @Override
    public List<T> step(List<T> value, int direction, boolean fine) {
        return value.stream().map(one -> item.step(one, direction, fine)).toList();
    }
}
