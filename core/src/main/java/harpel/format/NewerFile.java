package harpel.format;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;

/**
 * What the file of a newer version says otherwise than this one writes what it read of it, such as a value this version does not know and
 * holds a default for. Each is written again until that very thing is edited, wherever it has gone meanwhile.
 *
 * @param version the newer version's number
 */
record NewerFile(Object version, List<Other> others) {
    /** By what an item of a list is known again when something of it has been edited. */
    private static final List<String> NAMED_BY = List.of("id", "name", "effect", "by", "at");

    /** Stands for a field that is not there. */
    private enum Gone {
        GONE
    }

    /**
     * A step into a file: a field of an object, or an item of a list.
     *
     * @param item as this version writes it, to be found again; null for a field
     * @param size how many items the list had
     */
    record Step(String field, int place, Object item, int size) {}

    /**
     * A place where the file says something else.
     *
     * @param ours what this version writes there
     * @param theirs what the file says
     */
    record Other(List<Step> way, Object ours, Object theirs) {}

    /**
     * @param file what was read
     * @param written what this version writes of it
     */
    static NewerFile of(Object version, Map<String, Object> file, Map<String, Object> written) {
        List<Other> others = new ArrayList<>();
        compare(file, written, List.of(), others);
        return new NewerFile(version, List.copyOf(others));
    }

    private static void compare(Object theirs, Object ours, List<Step> way, List<Other> others) {
        if (isSame(theirs, ours)) {
            return;
        }
        if (theirs instanceof Map<?, ?> theirMap && ours instanceof Map<?, ?> ourMap) {
            Set<Object> fields = new LinkedHashSet<>(theirMap.keySet());
            fields.addAll(ourMap.keySet());
            for (Object field : fields) {
                compare(
                        theirMap.containsKey(field) ? theirMap.get(field) : Gone.GONE,
                        ourMap.containsKey(field) ? ourMap.get(field) : Gone.GONE,
                        with(way, new Step((String) field, 0, null, 0)),
                        others);
            }
        } else if (theirs instanceof List<?> theirList
                && ours instanceof List<?> ourList
                && theirList.size() == ourList.size()) {
            compareItems(theirList, ourList, way, others);
        } else {
            others.add(new Other(way, ours, theirs));
        }
    }

    /** Items that do not read stand behind the others when they are written: those that are there anyway need nothing. */
    private static void compareItems(List<?> theirs, List<?> ours, List<Step> way, List<Other> others) {
        List<Integer> left = new ArrayList<>();
        for (int i = 0; i < ours.size(); i++) {
            left.add(i);
        }
        List<Object> changed = new ArrayList<>();
        for (Object item : theirs) {
            Optional<Integer> same =
                    left.stream().filter(i -> isSame(ours.get(i), item)).findFirst();
            same.ifPresentOrElse(left::remove, () -> changed.add(item));
        }
        for (int i = 0; i < changed.size(); i++) {
            int place = left.get(i);
            Object item = ours.get(place);
            compare(changed.get(i), item, with(way, new Step("", place, item, ours.size())), others);
        }
    }

    private static List<Step> with(List<Step> way, Step step) {
        List<Step> longer = new ArrayList<>(way);
        longer.add(step);
        return List.copyOf(longer);
    }

    /** Whether two plain values say the same: numbers by what they are worth. */
    private static boolean isSame(Object one, Object other) {
        if (one instanceof Number number && other instanceof Number another) {
            return number.doubleValue() == another.doubleValue();
        }
        if (one instanceof Map<?, ?> map && other instanceof Map<?, ?> another) {
            return map.size() == another.size()
                    && map.keySet().stream()
                            .allMatch(
                                    field -> another.containsKey(field) && isSame(map.get(field), another.get(field)));
        }
        if (one instanceof List<?> list && other instanceof List<?> another) {
            boolean same = list.size() == another.size();
            for (int i = 0; same && i < list.size(); i++) {
                same = isSame(list.get(i), another.get(i));
            }
            return same;
        }
        return Objects.equals(one, other);
    }

    /** With what the newer version said where nothing was edited. */
    Map<String, Object> over(Map<String, Object> written) {
        @SuppressWarnings("unchecked") // an object is copied as one
        Map<String, Object> copy = (Map<String, Object>) copy(written);
        // All are found before the first is written: what is written is not what it was known by.
        List<Runnable> changes = new ArrayList<>();
        Finding finding = new Finding();
        others.forEach(other -> finding.place(copy, other, changes));
        changes.forEach(Runnable::run);
        return copy;
    }

    private static Object copy(Object plain) {
        if (plain instanceof Map<?, ?> map) {
            Map<Object, Object> copy = new LinkedHashMap<>();
            map.forEach((field, value) -> copy.put(field, copy(value)));
            return copy;
        }
        if (plain instanceof List<?> list) {
            List<Object> copy = new ArrayList<>(list.size());
            list.forEach(item -> copy.add(copy(item)));
            return copy;
        }
        return plain;
    }

    /** Finds places again; two items that are alike are not taken for one. */
    private static final class Finding {
        private final Map<List<Step>, Integer> found = new LinkedHashMap<>();
        private final Map<List<Step>, Set<Integer>> taken = new LinkedHashMap<>();

        @SuppressWarnings("unchecked") // plain objects and lists are those of the copy
        void place(Object root, Other other, List<Runnable> changes) {
            Object at = root;
            for (int i = 0; i < other.way.size(); i++) {
                Step step = other.way.get(i);
                boolean last = i == other.way.size() - 1;
                if (step.item == null) {
                    if (!(at instanceof Map<?, ?> map)) {
                        return;
                    }
                    Object now = map.containsKey(step.field) ? map.get(step.field) : Gone.GONE;
                    if (last && isSame(now, other.ours)) {
                        changes.add(() -> set((Map<String, Object>) map, step.field, other.theirs));
                    }
                    at = now;
                } else {
                    int place = at instanceof List<?> list ? item(list, other.way.subList(0, i + 1)) : -1;
                    if (place < 0) {
                        return;
                    }
                    List<Object> list = (List<Object>) at;
                    if (last && isSame(list.get(place), other.ours)) {
                        changes.add(() -> list.set(place, other.theirs));
                    }
                    at = list.get(place);
                }
            }
        }

        private static void set(Map<String, Object> map, String field, Object value) {
            if (value == Gone.GONE) {
                map.remove(field);
            } else {
                map.put(field, value);
            }
        }

        private int item(List<?> list, List<Step> way) {
            Integer known = found.get(way);
            if (known == null) {
                known = find(
                        list,
                        way.get(way.size() - 1),
                        taken.computeIfAbsent(way.subList(0, way.size() - 1), one -> new HashSet<>()));
                found.put(way, known);
            }
            return known;
        }

        private static int find(List<?> list, Step step, Set<Integer> taken) {
            int place = -1;
            for (int i = 0; i < list.size() && place < 0; i++) {
                place = !taken.contains(i) && isSame(list.get(i), step.item) ? i : -1;
            }
            for (int i = 0; i < list.size() && place < 0; i++) {
                place = !taken.contains(i) && isNamedAlike(list.get(i), step.item) ? i : -1;
            }
            if (place < 0 && list.size() == step.size && !taken.contains(step.place)) {
                place = step.place;
            }
            taken.add(place);
            return place;
        }

        private static boolean isNamedAlike(Object one, Object other) {
            return one instanceof Map<?, ?> map
                    && other instanceof Map<?, ?> another
                    && NAMED_BY.stream().anyMatch(another::containsKey)
                    && NAMED_BY.stream().allMatch(field -> isSame(map.get(field), another.get(field)));
        }
    }
}
