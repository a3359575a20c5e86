package harpel.capture;

import harpel.event.Message;
import harpel.event.NoteEnd;
import harpel.event.NoteMap;
import harpel.event.NoteStart;
import java.util.ArrayDeque;
import java.util.function.Consumer;

/**
 * What came by one place, in 16 bytes a note. Written by the engine's thread alone; others read what was there at a moment: chunks are never
 * used again, and a count is told after what it counts.
 */
final class HeardPlace {
    /** Notes of a chunk. */
    static final int CHUNK = 4096;
    /** What a note takes. */
    static final int NOTE_BYTES = 16;

    static final int CHUNK_BYTES = CHUNK * NOTE_BYTES;
    /** The length of a note that has not ended. */
    private static final int SOUNDS = -1;

    private static final int MOST_MESSAGES = 100_000;

    /** A note that has not ended: where it is kept. */
    private record Kept(Chunk chunk, int place) {}

    /** A run of notes, rising in tick. */
    static final class Chunk {
        private final long[] ticks = new long[CHUNK];
        private final int[] lengths = new int[CHUNK];
        /** Pitch, velocity and release velocity, seven bits each. */
        private final int[] words = new int[CHUNK];

        private volatile int count;
    }

    private record Said(long tick, Message message) {}

    private volatile Chunk[] chunks = {};
    private final NoteMap<Kept> open = new NoteMap<>();
    private final ArrayDeque<Said> messages = new ArrayDeque<>();

    /** Takes a start, at a tick of the heard axis; true when a chunk was begun for it. */
    boolean start(NoteStart note, long tick) {
        Chunk[] all = chunks;
        boolean begun = all.length == 0 || all[all.length - 1].count == CHUNK;
        if (begun) {
            Chunk[] more = java.util.Arrays.copyOf(all, all.length + 1);
            more[all.length] = new Chunk();
            chunks = more;
            all = more;
        }
        Chunk chunk = all[all.length - 1];
        int place = chunk.count;
        chunk.ticks[place] = tick;
        chunk.lengths[place] = SOUNDS;
        chunk.words[place] = note.pitch() << 14 | note.velocity() << 7 | NoteEnd.PLAIN_RELEASE;
        chunk.count = place + 1;
        open.put(note, new Kept(chunk, place));
        return begun;
    }

    void end(NoteEnd end, long tick) {
        Kept kept = open.remove(end.start());
        if (kept != null) {
            end(kept, tick, end.releaseVelocity());
        }
    }

    private static void end(Kept kept, long tick, int release) {
        Chunk chunk = kept.chunk;
        chunk.words[kept.place] = chunk.words[kept.place] & ~0x7F | release;
        chunk.lengths[kept.place] = (int) Math.min(Integer.MAX_VALUE, Math.max(1, tick - chunk.ticks[kept.place]));
        // Told anew, so that whoever reads the count sees the length.
        chunk.count = chunk.count;
    }

    /** Ends all that sounds. */
    void endAll(long tick) {
        open.forEach((note, kept) -> end(kept, tick, NoteEnd.PLAIN_RELEASE));
        open.clear();
    }

    void message(Message message, long tick) {
        synchronized (messages) {
            messages.add(new Said(tick, message));
            if (messages.size() > MOST_MESSAGES) {
                messages.removeFirst();
            }
        }
    }

    /** The tick of the oldest note, or {@link Long#MAX_VALUE} where a chunk could not be given up. */
    long oldest() {
        return chunks.length < 2 ? Long.MAX_VALUE : chunks[0].ticks[0];
    }

    void dropOldest() {
        chunks = java.util.Arrays.copyOfRange(chunks, 1, chunks.length);
    }

    /** A note as it was heard, on the heard axis; it ends at {@link Long#MAX_VALUE} while it sounds. */
    interface Taker {
        void take(long tick, long endTick, int pitch, int velocity, int release);
    }

    /** Gives the notes that sounded in a stretch, in order. */
    void read(long fromTick, long toTick, Taker taker) {
        for (Chunk chunk : chunks) {
            int count = chunk.count;
            if (count == 0 || chunk.ticks[0] >= toTick) {
                continue;
            }
            for (int i = 0; i < count && chunk.ticks[i] < toTick; i++) {
                int length = chunk.lengths[i];
                long end = length == SOUNDS ? Long.MAX_VALUE : chunk.ticks[i] + length;
                if (end > fromTick) {
                    int word = chunk.words[i];
                    taker.take(chunk.ticks[i], end, word >>> 14, word >>> 7 & 0x7F, word & 0x7F);
                }
            }
        }
    }

    void readMessages(long fromTick, long toTick, Consumer<Message> taker) {
        synchronized (messages) {
            for (Said said : messages) {
                if (said.tick >= fromTick && said.tick < toTick) {
                    taker.accept(said.message.at(said.tick - fromTick, 0));
                }
            }
        }
    }

    /** The first tick of which all is kept. */
    long from() {
        Chunk[] all = chunks;
        return all.length == 0 || all[0].count == 0 ? Long.MAX_VALUE : all[0].ticks[0];
    }
}
