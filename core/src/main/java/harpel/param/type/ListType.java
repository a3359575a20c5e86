package harpel.param.type;

import harpel.param.ParamException;
import harpel.param.ParamType;
import harpel.param.Plain;
import harpel.theory.Spelling;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.function.DoubleSupplier;
import java.util.function.Function;

/**
 * Up to {@code most} values of one type.
 *
 * @param following proposes the next to those that are there; by itself one like the last
 */
public record ListType<T>(ParamType<T> item, int most, Function<List<T>, T> following) implements ParamType<List<T>> {
    public ListType(ParamType<T> item, int most) {
        this(item, most, values -> values.get(values.size() - 1));
    }

    /** What is added to those that are there: what the effect proposes, or the first of the defaults. */
    public T next(List<T> values, List<T> defaults) {
        return values.isEmpty() ? fresh(defaults) : following.apply(values);
    }

    @Override
    public List<T> read(Object plain) {
        List<?> given = Plain.list(plain, range());
        if (given.size() > most) {
            throw new ParamException("holds at most " + most + " entries but has " + given.size());
        }
        List<T> values = new ArrayList<>();
        for (int i = 0; i < given.size(); i++) {
            try {
                values.add(item.read(given.get(i)));
            } catch (ParamException e) {
                throw e.under("[" + i + "]");
            } catch (IllegalArgumentException e) {
                throw new ParamException("[" + i + "]", e.getMessage());
            }
        }
        return List.copyOf(values);
    }

    @Override
    public List<T> parse(String typed) {
        String bare = typed.strip();
        if (bare.isEmpty() || bare.equals("none")) {
            return List.of();
        }
        if (!bare.contains(",")) {
            try {
                return List.of(item.parse(bare));
            } catch (IllegalArgumentException e) {
                // several, parted by spaces
            }
        }
        List<T> values = Arrays.stream(bare.split(bare.contains(",") ? "\\s*,\\s*" : "\\s+"))
                .map(item::parse)
                .toList();
        if (values.size() > most) {
            throw new ParamException("holds at most " + most + " entries but has " + values.size());
        }
        return values;
    }

    /** What a new value is: the first of the defaults, else nought, or where there is none the middle. */
    public T fresh(List<T> defaults) {
        if (!defaults.isEmpty()) {
            return defaults.get(0);
        }
        try {
            return item.parse("0");
        } catch (IllegalArgumentException e) {
            return item.atFraction(0.5);
        }
    }

    @Override
    public boolean canShuffle(List<T> value) {
        return !value.isEmpty() && value.stream().allMatch(item::canShuffle);
    }

    @Override
    public List<T> shuffled(List<T> value, double most, DoubleSupplier unit) {
        return canShuffle(value)
                ? value.stream().map(one -> item.shuffled(one, most, unit)).toList()
                : value;
    }

    @Override
    public Object write(List<T> value) {
        return value.stream().map(item::write).toList();
    }

    @Override
    public Map<String, Object> schema() {
        return Map.of("type", "array", "items", item.schema(), "maxItems", most);
    }

    @Override
    public String show(List<T> value) {
        return show(value, Spelling.SHARPS);
    }

    @Override
    public String show(List<T> value, Spelling spelling) {
        List<String> shown = value.stream().map(one -> item.show(one, spelling)).toList();
        boolean spaces = shown.stream().anyMatch(one -> one.indexOf(' ') >= 0);
        return value.isEmpty() ? "none" : String.join(spaces ? ", " : " ", shown);
    }

    @Override
    public String range() {
        return "a list of up to " + most + ", each " + item.range();
    }
}
