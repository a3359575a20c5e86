package harpel.capture;

import harpel.event.Message;
import harpel.event.NoteEnd;
import harpel.event.NoteMap;
import harpel.event.NoteStart;
import java.util.Arrays;
import java.util.function.Consumer;

/**
 * What came by one place: notes in 16 bytes each, and other messages. Written by the engine's thread alone; others read what was there at
 * a moment and keep nobody waiting: runs are never used again, and a count is told after what it counts.
 */
final class HeardPlace {
    /** What a note takes. */
    static final int NOTE_BYTES = 16;
    /** What a message takes, with its place. */
    static final int MESSAGE_BYTES = 64;
    /** Notes of a run at most; the first runs of a place are shorter, since there may be many places where little comes by. */
    static final int LONGEST = 4096;

    private static final int SHORTEST = 256;
    private static final int MESSAGES = 512;
    /** The length of a note that has not ended. */
    private static final int SOUNDS = -1;

    /** A note that has not ended: where it is kept. */
    private record Kept(Run run, int place) {}

    /** Notes, rising in tick. */
    private static final class Run {
        private final long[] ticks;
        private final int[] lengths;
        /** Pitch, velocity and release velocity, seven bits each. */
        private final int[] words;

        private volatile int count;

        Run(int size) {
            ticks = new long[size];
            lengths = new int[size];
            words = new int[size];
        }
    }

    /** Messages, rising in tick. */
    private static final class Said {
        private final long[] ticks = new long[MESSAGES];
        private final Message[] messages = new Message[MESSAGES];
        private volatile int count;
    }

    private volatile Run[] runs = {};
    private volatile Said[] said = {};
    private final NoteMap<Kept> open = new NoteMap<>();

    /** Takes a start, at a tick of the heard axis; gives how many bytes were taken for it. */
    int start(NoteStart note, long tick) {
        Run[] all = runs;
        int taken = 0;
        if (all.length == 0 || all[all.length - 1].count == all[all.length - 1].ticks.length) {
            int size = all.length == 0 ? SHORTEST : Math.min(LONGEST, 2 * all[all.length - 1].ticks.length);
            all = Arrays.copyOf(all, all.length + 1);
            all[all.length - 1] = new Run(size);
            runs = all;
            taken = size * NOTE_BYTES;
        }
        Run run = all[all.length - 1];
        int place = run.count;
        run.ticks[place] = tick;
        run.lengths[place] = SOUNDS;
        run.words[place] = note.pitch() << 14 | note.velocity() << 7 | NoteEnd.PLAIN_RELEASE;
        run.count = place + 1;
        open.put(note, new Kept(run, place));
        return taken;
    }

    void end(NoteEnd end, long tick) {
        Kept kept = open.remove(end.start());
        if (kept != null) {
            end(kept, tick, end.releaseVelocity());
        }
    }

    private static void end(Kept kept, long tick, int release) {
        Run run = kept.run;
        run.words[kept.place] = run.words[kept.place] & ~0x7F | release;
        run.lengths[kept.place] = (int) Math.min(Integer.MAX_VALUE, Math.max(1, tick - run.ticks[kept.place]));
        // Told anew, so that whoever reads the count sees the length.
        run.count = run.count;
    }

    /** Ends all that sounds. */
    void endAll(long tick) {
        open.forEach((note, kept) -> end(kept, tick, NoteEnd.PLAIN_RELEASE));
        open.clear();
    }

    /** Takes a message; gives how many bytes were taken for it. */
    int message(Message message, long tick) {
        Said[] all = said;
        int taken = 0;
        if (all.length == 0 || all[all.length - 1].count == MESSAGES) {
            all = Arrays.copyOf(all, all.length + 1);
            all[all.length - 1] = new Said();
            said = all;
            taken = MESSAGES * MESSAGE_BYTES;
        }
        Said last = all[all.length - 1];
        last.ticks[last.count] = tick;
        last.messages[last.count] = message;
        last.count = last.count + 1;
        return taken;
    }

    /** The tick of the oldest that can be given up, or {@link Long#MAX_VALUE} where only the last of each is left. */
    long oldest() {
        long notes = runs.length < 2 ? Long.MAX_VALUE : runs[0].ticks[0];
        long messages = said.length < 2 ? Long.MAX_VALUE : said[0].ticks[0];
        return Math.min(notes, messages);
    }

    /** Gives up the oldest; says how many bytes are free then. */
    int dropOldest() {
        if (runs.length > 1 && runs[0].ticks[0] == oldest()) {
            int free = runs[0].ticks.length * NOTE_BYTES;
            runs = Arrays.copyOfRange(runs, 1, runs.length);
            return free;
        }
        said = Arrays.copyOfRange(said, 1, said.length);
        return MESSAGES * MESSAGE_BYTES;
    }

    /** A note as it was heard, on the heard axis; it ends at {@link Long#MAX_VALUE} while it sounds. */
    interface Taker {
        void take(long tick, long endTick, int pitch, int velocity, int release);
    }

    /** Gives the notes that sounded in a stretch, in order. */
    void read(long fromTick, long toTick, Taker taker) {
        for (Run run : runs) {
            int count = run.count;
            for (int i = 0; i < count && run.ticks[i] < toTick; i++) {
                int length = run.lengths[i];
                long end = length == SOUNDS ? Long.MAX_VALUE : run.ticks[i] + length;
                if (end > fromTick) {
                    int word = run.words[i];
                    taker.take(run.ticks[i], end, word >>> 14, word >>> 7 & 0x7F, word & 0x7F);
                }
            }
        }
    }

    /** Gives the messages of a stretch, counted from its beginning. */
    void readMessages(long fromTick, long toTick, Consumer<Message> taker) {
        for (Said one : said) {
            int count = one.count;
            for (int i = 0; i < count && one.ticks[i] < toTick; i++) {
                if (one.ticks[i] >= fromTick) {
                    taker.accept(one.messages[i].at(one.ticks[i] - fromTick, 0));
                }
            }
        }
    }

    /** The first tick of which all notes are kept. */
    long from() {
        Run[] all = runs;
        return all.length == 0 || all[0].count == 0 ? Long.MAX_VALUE : all[0].ticks[0];
    }
}
