package harpel.port;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.concurrent.atomic.AtomicReferenceArray;
import org.jctools.queues.atomic.SpscAtomicArrayQueue;

/**
 * The queue at an edge. One thread puts in and one takes out, and neither waits for the other. What there is no room for is left out in an
 * order that can be said: of controllers, bends and other values the latest of each stays and comes where it belongs; then starts are left
 * out, and counted; ends never are. For ends there is room of their own, so whoever puts in ends no more than began.
 */
final class EdgeQueue<T> {
    /** So many messages may wait before values have to. */
    static final int ROOM_FOR_VALUES = 1024;
    /** So many may wait before starts are left out. */
    static final int ROOM = 4096;
    /** So many ends find room beyond that. */
    static final int ROOM_FOR_ENDS = 4096;

    /** What is put in: all there is room for, but for ends. */
    enum Kind {
        END,
        VALUE,
        OTHER
    }

    /** What waits, and which in order it was, from 1. */
    record Entry<T>(T item, long order, int slot) {}

    private final SpscAtomicArrayQueue<Entry<T>> queue = new SpscAtomicArrayQueue<>(ROOM + ROOM_FOR_ENDS);
    /** The latest value of each slot for which there was no room. */
    private final AtomicReferenceArray<Entry<T>> aside = new AtomicReferenceArray<>(Slots.COUNT);

    /** The order of what was put in last. Written by who puts in, as the two below. */
    private volatile long order;
    /** The order of the last value that was put aside: written after it, so that who sees this finds it. */
    private volatile long asideOrder;

    private volatile long leftOut;

    /** Values that were found aside, in order. Owned by who takes out, as the one below. */
    private final ArrayDeque<Entry<T>> found = new ArrayDeque<>();
    /** Up to which order all that lay aside has been found. */
    private long foundOrder;

    /**
     * Puts something in; never waits.
     *
     * @param slot of a value, by which a later one outdates it; else {@link Slots#NONE}
     * @return false when it was left out
     */
    boolean offer(T item, Kind kind, int slot) {
        Entry<T> entry = new Entry<>(item, order + 1, slot);
        order = entry.order;
        if (slot >= 0 && aside.get(slot) != null) {
            aside.set(slot, null);
        }
        int room = switch (kind) {
            case END -> ROOM + ROOM_FOR_ENDS;
            case VALUE -> ROOM_FOR_VALUES;
            case OTHER -> ROOM;
        };
        if (queue.size() < room && queue.offer(entry)) {
            return true;
        }
        if (slot >= 0) {
            aside.set(slot, entry);
            asideOrder = entry.order;
            return true;
        }
        leftOut++;
        return false;
    }

    /** Whether there is room for whatever comes. By who puts in. */
    boolean hasRoom() {
        return queue.size() < ROOM;
    }

    /** The order of what was put in last. */
    long lastOrder() {
        return order;
    }

    /** How many were left out. */
    long leftOut() {
        return leftOut;
    }

    /** What comes first of what waits, left where it is; null for nothing. */
    Entry<T> peek() {
        lookAside(queue.peek());
        // Looked at only now: whatever came before what was found is there.
        Entry<T> head = queue.peek();
        while (!found.isEmpty() && (head == null || found.peek().order < head.order)) {
            if (aside.get(found.peek().slot) == found.peek()) {
                return found.peek();
            }
            found.poll();
        }
        return head;
    }

    /** Takes out what comes first; null for nothing. */
    Entry<T> poll() {
        for (Entry<T> first = peek(); first != null; first = peek()) {
            if (first != found.peek()) {
                return queue.poll();
            }
            found.poll();
            // A later one of its slot may have come this moment: then that counts.
            if (aside.compareAndSet(first.slot, first, null)) {
                return first;
            }
        }
        return null;
    }

    /** Finds what was put aside before the head of the queue was put in: all that came before it has been taken out. */
    private void lookAside(Entry<T> head) {
        long last = asideOrder;
        if (last <= foundOrder || head != null && head.order <= foundOrder + 1) {
            return;
        }
        List<Entry<T>> values = new ArrayList<>();
        for (int slot = 0; slot < Slots.COUNT; slot++) {
            Entry<T> value = aside.get(slot);
            if (value != null) {
                values.add(value);
            }
        }
        values.sort(Comparator.comparingLong(Entry::order));
        found.clear();
        found.addAll(values);
        foundOrder = last;
    }

    boolean isEmpty() {
        return queue.isEmpty() && found.isEmpty() && asideOrder <= foundOrder;
    }
}
