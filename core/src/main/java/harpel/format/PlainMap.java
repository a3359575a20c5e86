package harpel.format;

import harpel.param.ParamException;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import java.util.function.Supplier;

/**
 * Reads the fields of one object of a file, and knows which were not asked for. In a file that a newer version wrote, a field whose
 * value does not read counts as not asked for: it is kept, and its default holds.
 */
final class PlainMap {
    /** Reads one item of a list. */
    interface ItemReader<T> {
        T read(Object plain, String path);
    }

    private final Map<String, Object> left;
    private final Map<String, Object> kept = new LinkedHashMap<>();
    private final String path;
    private final boolean newer;

    PlainMap(Object plain, String path, boolean newer) {
        this.path = path;
        this.newer = newer;
        if (!(plain instanceof Map<?, ?> map)) {
            throw new ParamException(path, "must be an object { … } but was " + plain);
        }
        left = new LinkedHashMap<>();
        map.forEach((key, value) -> left.put(String.valueOf(key), value));
    }

    String path(String field) {
        return path.isEmpty() ? field : path + "." + field;
    }

    boolean newer() {
        return newer;
    }

    boolean has(String field) {
        return left.containsKey(field);
    }

    /** The names of the fields not read yet. */
    List<String> names() {
        return List.copyOf(left.keySet());
    }

    /** The field as it is, or null; it is read later. */
    Object see(String field) {
        return left.get(field);
    }

    /** The field as it is, or null; it counts as read. */
    Object take(String field) {
        return left.remove(field);
    }

    /** Keeps a value for the file although its field was read. */
    void keep(String field, Object plain) {
        kept.put(field, plain);
    }

    /** The field through a reader whose complaints get its path; the fallback when there is no such field. */
    <T> T take(String field, T fallback, Function<Object, T> reader) {
        if (!left.containsKey(field)) {
            return fallback;
        }
        Object plain = left.remove(field);
        try {
            return at(path(field), () -> reader.apply(plain));
        } catch (ParamException e) {
            if (!newer) {
                throw e;
            }
            kept.put(field, plain);
            return fallback;
        }
    }

    /** The items of a list; those of a newer file that do not read are kept. */
    <T> List<T> list(String field, ItemReader<T> reader) {
        List<T> items = new ArrayList<>();
        List<Object> foreign = new ArrayList<>();
        List<?> plain = take(field, List.of(), PlainMap::list);
        for (int i = 0; i < plain.size(); i++) {
            Object item = plain.get(i);
            String itemPath = path(field) + "[" + i + "]";
            try {
                items.add(at(itemPath, () -> reader.read(item, itemPath)));
            } catch (ParamException e) {
                if (!newer) {
                    throw e;
                }
                foreign.add(item);
            }
        }
        if (!foreign.isEmpty()) {
            kept.put(field, foreign);
        }
        return items;
    }

    String text(String field, String fallback) {
        return take(field, fallback, PlainMap::text);
    }

    static String text(Object value) {
        if (value instanceof String text) {
            return text;
        }
        throw new ParamException("must be text but was " + value);
    }

    boolean flag(String field, boolean fallback) {
        return take(field, fallback, value -> {
            if (value instanceof Boolean flag) {
                return flag;
            }
            throw new ParamException("must be true or false but was " + value);
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

    static double number(Object value) {
        if (value instanceof Number number) {
            return number.doubleValue();
        }
        throw new ParamException("must be a number but was " + value);
    }

    /** A number as it is written: without a point where it is whole. */
    static Object plain(double value) {
        if (value == Math.rint(value)) {
            return (long) value;
        }
        return value;
    }

    static List<?> list(Object value) {
        if (value instanceof List<?> list) {
            return list;
        }
        throw new ParamException("must be a list [ … ] but was " + value);
    }

    /** Runs a reader and puts the path in front of what it complains about. */
    static <T> T at(String path, Supplier<T> reader) {
        try {
            return reader.get();
        } catch (ParamException e) {
            throw e.path().startsWith(path) ? e : e.under(path);
        } catch (IllegalArgumentException e) {
            throw new ParamException(path, e.getMessage());
        }
    }

    /**
     * Ends reading: what was not read is kept if a newer version wrote it, and otherwise refused.
     *
     * @return what to keep
     */
    Map<String, Object> end(String known) {
        return end(newer, known);
    }

    Map<String, Object> end(boolean keeps, String known) {
        if (!keeps && !left.isEmpty()) {
            String name = left.keySet().iterator().next();
            throw new ParamException(path(name), "there is no \"" + name + "\" here; use one of " + known);
        }
        kept.putAll(left);
        return kept;
    }

    /** An object to write, of names and values in turn. */
    static Map<String, Object> of(Object... pairs) {
        Map<String, Object> map = new LinkedHashMap<>();
        for (int i = 0; i < pairs.length; i += 2) {
            map.put(String.valueOf(pairs[i]), pairs[i + 1]);
        }
        return map;
    }

    /** Puts what was kept into an object that is written: fields it lacks, and items of lists behind its own. */
    static void merge(Map<String, Object> plain, Map<String, Object> kept) {
        kept.forEach((field, value) -> {
            Object own = plain.get(field);
            if (own == null) {
                plain.put(field, value);
            } else if (own instanceof List<?> list && value instanceof List<?> more) {
                List<Object> both = new ArrayList<>(list);
                both.addAll(more);
                plain.put(field, both);
            }
        });
    }
}
