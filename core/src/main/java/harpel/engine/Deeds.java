package harpel.engine;

import harpel.time.Ticks;
import java.util.ArrayList;
import java.util.List;
import java.util.function.LongConsumer;

/** What is done at ticks that are still to come, in their order. Owned by the engine thread. */
final class Deeds {
    /**
     * Something that is done at a tick.
     *
     * @param edits whether it takes a program, which another that is taken outdates
     * @param does takes the moment it is done, in nanoseconds
     */
    private record Deed(long tick, boolean edits, LongConsumer does) {}

    private final List<Deed> deeds = new ArrayList<>();

    /** Adds what is done at a tick, after what is done there already. */
    void add(long tick, boolean edits, LongConsumer does) {
        int place = deeds.size();
        while (place > 0 && deeds.get(place - 1).tick() > tick) {
            place--;
        }
        deeds.add(place, new Deed(tick, edits, does));
    }

    /** Another program has been taken: what would take one is forgotten. */
    void forgetEdits() {
        deeds.removeIf(Deed::edits);
    }

    /** When the next is done, or {@link Ticks#NEVER}. */
    long nextTick() {
        return deeds.isEmpty() ? Ticks.NEVER : deeds.get(0).tick();
    }

    /** Does the next one now. */
    void doNext(long now) {
        deeds.remove(0).does().accept(now);
    }

    /** Does all at once, where their ticks do not come. */
    void doAll(long now) {
        while (!deeds.isEmpty()) {
            doNext(now);
        }
    }
}
