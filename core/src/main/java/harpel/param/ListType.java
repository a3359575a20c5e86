package harpel.param;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;

/** Up to {@code most} values of one type. */
public record ListType<T>(ParamType<T> item, int most) implements ParamType<List<T>> {
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
        return bare.isEmpty() || bare.equals("none")
                ? List.of()
                : java.util.Arrays.stream(bare.split("[,\\s]+"))
                        .map(item::parse)
                        .toList();
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
        return value.isEmpty() ? "none" : value.stream().map(item::show).collect(Collectors.joining(" "));
    }

    @Override
    public String range() {
        return "a list of up to " + most + ", each " + item.range();
    }
}
