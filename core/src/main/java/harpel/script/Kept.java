package harpel.script;

import java.lang.reflect.Array;
import java.lang.reflect.Field;
import java.lang.reflect.Modifier;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Collections;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.mozilla.javascript.Context;
import org.mozilla.javascript.ContextFactory;

/**
 * Measures what a script keeps: walks from its world through all that the language has made, whatever holds it (variables, closures,
 * maps, functions that wait for their next turn), and adds up about what that takes.
 */
final class Kept {
    private static final long OBJECT_BYTES = 16;
    private static final long FIELD_BYTES = 8;
    private static final long ENTRY_BYTES = 48;
    private static final long TEXT_BYTES = 40;
    private static final String LANGUAGE = "org.mozilla.";

    /** The fields of a class that lead on. */
    private static final ClassValue<List<Field>> FIELDS = new ClassValue<>() {
        @Override
        protected List<Field> computeValue(Class<?> type) {
            List<Field> fields = new ArrayList<>();
            for (Class<?> of = type; of != null && of != Object.class; of = of.getSuperclass()) {
                for (Field field : of.getDeclaredFields()) {
                    boolean leadsOn = !Modifier.isStatic(field.getModifiers())
                            && !field.getType().isPrimitive();
                    if (leadsOn && of.getName().startsWith(LANGUAGE) && field.trySetAccessible()) {
                        fields.add(field);
                    }
                }
            }
            return List.copyOf(fields);
        }
    };

    private final Set<Object> seen = Collections.newSetFromMap(new IdentityHashMap<>());
    private final ArrayDeque<Object> waiting = new ArrayDeque<>();
    private long bytes;

    private Kept() {}

    /**
     * About how many bytes are reached.
     *
     * @param most counts no further than this
     */
    static long bytes(Object from, long most) {
        Kept kept = new Kept();
        kept.reach(from);
        while (!kept.waiting.isEmpty() && kept.bytes <= most) {
            kept.add(kept.waiting.poll());
        }
        return kept.bytes;
    }

    private void reach(Object object) {
        // What is ours, and what all scripts share, is not the script's.
        boolean others = object == null
                || object instanceof Context
                || object instanceof ContextFactory
                || object instanceof Class<?>
                || object instanceof Enum<?>
                || object.getClass().getName().startsWith("harpel.");
        if (!others && seen.add(object)) {
            waiting.add(object);
        }
    }

    private void add(Object object) {
        Class<?> type = object.getClass();
        if (object instanceof String text) {
            bytes += TEXT_BYTES + text.length();
        } else if (type.isArray()) {
            int length = Array.getLength(object);
            if (object instanceof Object[] items) {
                bytes += OBJECT_BYTES + FIELD_BYTES * length;
                for (Object item : items) {
                    reach(item);
                }
            } else {
                bytes += OBJECT_BYTES + FIELD_BYTES / 2 * length;
            }
        } else if (object instanceof Map<?, ?> map && !type.getName().startsWith(LANGUAGE)) {
            bytes += ENTRY_BYTES * (1L + map.size());
            map.forEach((key, value) -> {
                reach(key);
                reach(value);
            });
        } else if (object instanceof Collection<?> items && !type.getName().startsWith(LANGUAGE)) {
            bytes += ENTRY_BYTES + FIELD_BYTES * items.size();
            items.forEach(this::reach);
        } else {
            List<Field> fields = FIELDS.get(type);
            bytes += OBJECT_BYTES + FIELD_BYTES * fields.size();
            for (Field field : fields) {
                reach(value(field, object));
            }
        }
    }

    private static Object value(Field field, Object of) {
        try {
            return field.get(of);
        } catch (IllegalAccessException e) {
            throw new IllegalStateException(e);
        }
    }
}
