package harpel.format;

import harpel.param.ParamException;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Function;

/** Reads the fields of one object of a file, and knows which were not asked for. */
final class PlainMap {
    private final Map<String, Object> left;
    private final String path;

    PlainMap(Object plain, String path) {
        this.path = path;
        if (!(plain instanceof Map<?, ?> map)) {
            throw new ParamException(path, "must be an object { … } but was " + plain);
        }
        left = new LinkedHashMap<>();
        map.forEach((key, value) -> left.put(String.valueOf(key), value));
    }

    String path(String field) {
        return path.isEmpty() ? field : path + "." + field;
    }

    boolean has(String field) {
        return left.containsKey(field);
    }

    /** The field as it is, or null; it counts as read. */
    Object take(String field) {
        return left.remove(field);
    }

    /** The field through a reader whose complaints get its path; the fallback when there is no such field. */
    <T> T take(String field, T fallback, Function<Object, T> reader) {
        if (!left.containsKey(field)) {
            return fallback;
        }
        return at(path(field), () -> reader.apply(left.remove(field)));
    }

    String text(String field, String fallback) {
        return take(field, fallback, value -> {
            if (value instanceof String text) {
                return text;
            }
            throw new ParamException("must be text but was " + value);
        });
    }

    long whole(String field, long fallback, long min, long max) {
        return take(field, fallback, value -> whole(value, min, max));
    }

    static long whole(Object value, long min, long max) {
        if (value instanceof Number number
                && number.doubleValue() == Math.rint(number.doubleValue())
                && number.doubleValue() >= min
                && number.doubleValue() <= max) {
            return number.longValue();
        }
        throw new ParamException("must be a whole number " + min + "–" + max + " but was " + value);
    }

    static List<?> list(Object value) {
        if (value instanceof List<?> list) {
            return list;
        }
        throw new ParamException("must be a list [ … ] but was " + value);
    }

    /** Runs a reader and puts the path in front of what it complains about. */
    static <T> T at(String path, java.util.function.Supplier<T> reader) {
        try {
            return reader.get();
        } catch (ParamException e) {
            throw e.path().startsWith(path) ? e : e.under(path);
        } catch (IllegalArgumentException e) {
            throw new ParamException(path, e.getMessage());
        }
    }

    /** What was not read. */
    Map<String, Object> rest() {
        return left;
    }

    /**
     * Ends reading: what was not read is kept if a newer version wrote it, and otherwise refused.
     *
     * @return what to keep
     */
    Map<String, Object> end(boolean newer, String known) {
        if (!newer && !left.isEmpty()) {
            String name = left.keySet().iterator().next();
            throw new ParamException(path(name), "there is no \"" + name + "\" here; use one of " + known);
        }
        return left;
    }
}
