package harpel.engine;

import harpel.event.Event;
import harpel.event.EventBuffer;
import harpel.run.Renderer;
import java.util.ArrayList;
import java.util.List;

/** What came in for each part and has not been played yet. Looked through at each turn, with nothing made for it. Owned by the engine thread. */
final class PartInputs {
    /** Those that ever had any, and what they have now, in the same order. */
    private final List<String> parts = new ArrayList<>();

    private final List<EventBuffer> buffers = new ArrayList<>();

    void add(String part, Event event) {
        int place = parts.indexOf(part);
        if (place < 0) {
            place = parts.size();
            parts.add(part);
            buffers.add(new EventBuffer());
        }
        buffers.get(place).add(event);
    }

    /** The last tick of all; later than now where time was nudged. -1 for none. */
    long lastTick() {
        long last = -1;
        for (int in = 0; in < buffers.size(); in++) {
            EventBuffer came = buffers.get(in);
            for (int i = 0; i < came.size(); i++) {
                last = Math.max(last, came.get(i).tick());
            }
        }
        return last;
    }

    boolean isEmpty() {
        for (int in = 0; in < buffers.size(); in++) {
            if (!buffers.get(in).isEmpty()) {
                return false;
            }
        }
        return true;
    }

    /** Plays what lies before a tick to its parts, in order. */
    void playBefore(long end, Renderer renderer) {
        for (int in = 0; in < parts.size(); in++) {
            EventBuffer came = buffers.get(in);
            if (!came.isEmpty()) {
                came.sortAll();
                int taken = 0;
                while (taken < came.size() && came.get(taken).tick() < end) {
                    renderer.play(parts.get(in), came.get(taken++));
                }
                came.removeFirst(taken);
            }
        }
    }

    /** Forgets all of it. */
    void clear() {
        buffers.forEach(EventBuffer::clear);
    }
}
