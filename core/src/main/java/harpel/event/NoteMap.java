package harpel.event;

import java.util.Arrays;
import java.util.function.BiConsumer;
import java.util.function.BiPredicate;

/**
 * What is kept for each of a number of notes: one place in a table a note, nothing allocated when one comes or goes. A few stand in a row
 * and are looked through; more are found by a hash made of what the note says, so the order of going through them is the same on every
 * machine. One writer.
 */
public final class NoteMap<V> {
    /** A table of this size is a row, filled to its half. */
    private static final int SMALLEST = 16;

    private NoteStart[] keys = new NoteStart[SMALLEST];
    private Object[] values = new Object[SMALLEST];
    private int size;

    /** @return what was kept before, or null */
    public V put(NoteStart note, V value) {
        if (size * 2 >= keys.length) {
            grow();
        }
        int place = find(note);
        V before = valueAt(place);
        if (keys[place] == null) {
            keys[place] = note;
            size++;
        }
        values[place] = value;
        return before;
    }

    /** What is kept for a note, or null. */
    public V get(NoteStart note) {
        return valueAt(find(note));
    }

    public boolean containsKey(NoteStart note) {
        return keys[find(note)] != null;
    }

    /** Forgets a note; gives what was kept, or null. */
    public V remove(NoteStart note) {
        int place = find(note);
        V before = valueAt(place);
        if (keys[place] != null) {
            removeAt(place);
        }
        return before;
    }

    /** Goes through all; the map may not be changed meanwhile. */
    public void forEach(BiConsumer<? super NoteStart, ? super V> each) {
        for (int i = 0; i < keys.length && size > 0; i++) {
            if (keys[i] != null) {
                each.accept(keys[i], valueAt(i));
            }
        }
    }

    /** Forgets every note for which {@code gone} says so; what stays may be asked twice, where the table's end meets its beginning. */
    public void removeIf(BiPredicate<? super NoteStart, ? super V> gone) {
        for (int i = 0; i < keys.length && size > 0; i++) {
            while (keys[i] != null && gone.test(keys[i], valueAt(i))) {
                removeAt(i);
            }
        }
    }

    public int size() {
        return size;
    }

    public boolean isEmpty() {
        return size == 0;
    }

    public void clear() {
        if (size > 0) {
            Arrays.fill(keys, null);
            Arrays.fill(values, null);
            size = 0;
        }
    }

    /** The place of a note, or the free one where it would stand. */
    private int find(NoteStart note) {
        if (isRow()) {
            int place = 0;
            while (place < size && keys[place] != note) {
                place++;
            }
            return place;
        }
        int place = home(note);
        while (keys[place] != null && keys[place] != note) {
            place = place + 1 & keys.length - 1;
        }
        return place;
    }

    private boolean isRow() {
        return keys.length == SMALLEST;
    }

    private int home(NoteStart note) {
        return note.hashCode() & keys.length - 1;
    }

    @SuppressWarnings("unchecked") // only values of this map's type are put in
    private V valueAt(int place) {
        return (V) values[place];
    }

    private void removeAt(int place) {
        size--;
        int free = isRow() ? moveLastTo(place) : moveUpBehind(place);
        keys[free] = null;
        values[free] = null;
    }

    private int moveLastTo(int place) {
        move(size, place);
        return size;
    }

    /** Moves up what stands behind a place only because it was taken; gives the place that is free in the end. */
    private int moveUpBehind(int place) {
        int mask = keys.length - 1;
        int free = place;
        for (int next = free + 1 & mask; keys[next] != null; next = next + 1 & mask) {
            int wanted = home(keys[next]);
            if ((next - wanted & mask) >= (next - free & mask)) {
                move(next, free);
                free = next;
            }
        }
        return free;
    }

    private void move(int from, int to) {
        keys[to] = keys[from];
        values[to] = values[from];
    }

    private void grow() {
        NoteStart[] oldKeys = keys;
        Object[] oldValues = values;
        keys = new NoteStart[oldKeys.length * 2];
        values = new Object[keys.length];
        for (int i = 0; i < oldKeys.length; i++) {
            if (oldKeys[i] != null) {
                int place = find(oldKeys[i]);
                keys[place] = oldKeys[i];
                values[place] = oldValues[i];
            }
        }
    }
}
