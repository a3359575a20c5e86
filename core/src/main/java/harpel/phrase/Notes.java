package harpel.phrase;

import harpel.event.Event;
import harpel.event.NoteEnd;
import harpel.event.NoteStart;
import java.util.AbstractList;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collection;
import java.util.Collections;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.IdentityHashMap;
import java.util.Iterator;
import java.util.List;
import java.util.Map;
import java.util.NoSuchElementException;
import java.util.Objects;
import java.util.Optional;
import java.util.RandomAccess;
import java.util.Set;
import java.util.Spliterator;
import java.util.Spliterators;

/**
 * The notes of a phrase in order: by start, then pitch, then id. Immutable and in chunks of a few hundred: an edit makes notes that
 * share every chunk it did not touch. Two are equal when they say the same, whatever the ids of their notes.
 */
public final class Notes extends AbstractList<Note> implements RandomAccess {
    public static final Notes EMPTY = new Notes(new Note[0][], new int[] {0}, TickOfNote.EMPTY, 0);
    private static final int CHUNK = 256;
    private static final int LARGEST = 2 * CHUNK;
    /** So many are changed one by one; for more all is put in order anew. */
    private static final int FEW = 64;

    /** What a note without traits takes, with its place by id. */
    private static final int NOTE_BYTES = 64;

    public static final Comparator<Note> ORDER =
            Comparator.comparingLong(Note::tick).thenComparingInt(Note::pitch).thenComparingInt(Note::id);

    private final Note[][] chunks;
    /** How many notes lie before each chunk, and in all. */
    private final int[] before;

    private final TickOfNote ticks;
    private final int nextId;
    /** For each chunk the latest end of a note in it; made when it is asked for first. */
    private volatile long[] lastEnds;

    private Notes(Note[][] chunks, int[] before, TickOfNote ticks, int nextId) {
        this.chunks = chunks;
        this.before = before;
        this.ticks = ticks;
        this.nextId = nextId;
    }

    /**
     * Notes in any order; those without an id get the next free ones in the order given.
     *
     * @throws IllegalArgumentException when two have one id
     */
    public static Notes of(Collection<Note> notes) {
        return EMPTY.plusAll(notes);
    }

    /**
     * The notes that sound in a stretch of events, from its beginning on; one that began before begins there, and one that sounds on
     * ends at its end.
     *
     * @param events in their order
     */
    public static Notes heard(List<? extends Event> events, long from, long to) {
        List<Note> notes = new ArrayList<>();
        Map<NoteStart, Integer> open = new IdentityHashMap<>();
        for (Event event : events) {
            if (event instanceof NoteStart start && start.tick() < to) {
                open.put(start, notes.size());
                long begin = Math.max(from, start.tick());
                notes.add(Note.of(begin - from, to - begin, start.pitch(), start.velocity()));
            } else if (event instanceof NoteEnd end && open.containsKey(end.start())) {
                int index = open.remove(end.start());
                Note note = notes.get(index);
                long lasts = Math.min(to, end.tick()) - from - note.tick();
                // One that ended before, or at, the beginning is none of the stretch.
                notes.set(
                        index,
                        lasts < 1 && end.start().tick() < from
                                ? null
                                : new Note(
                                        Note.NEW,
                                        note.tick(),
                                        Math.max(1, lasts),
                                        note.pitch(),
                                        note.velocity(),
                                        end.releaseVelocity(),
                                        Traits.PLAIN));
            }
        }
        return of(notes.stream().filter(Objects::nonNull).toList());
    }

    /** With more notes; those without an id get the next free ones in the order given. */
    public Notes plusAll(Collection<Note> added) {
        if (added.size() == 1) {
            return plus(added.iterator().next());
        }

        int next = nextId;
        for (Note note : added) {
            next = Math.max(next, note.id() + 1);
        }
        List<Note> all = new ArrayList<>(size() + added.size());
        all.addAll(this);
        Set<Integer> ids = new HashSet<>();
        for (Note note : added) {
            Note named = note.id() == Note.NEW ? note.withId(next++) : note;
            if (!ids.add(named.id()) || ticks.of(named.id()) >= 0) {
                throw new IllegalArgumentException("two notes have the id " + named.id());
            }
            all.add(named);
        }
        return ordered(all, next);
    }

    private static Notes ordered(List<Note> all, int nextId) {
        Note[] sorted = all.toArray(Note[]::new);
        Arrays.sort(sorted, ORDER);
        List<Note[]> chunks = new ArrayList<>();
        for (int from = 0; from < sorted.length; from += CHUNK) {
            chunks.add(Arrays.copyOfRange(sorted, from, Math.min(sorted.length, from + CHUNK)));
        }
        TickOfNote ticks = TickOfNote.fresh();
        for (Note note : sorted) {
            ticks = ticks.owned(note.id(), note.tick());
        }
        return of(chunks.toArray(Note[][]::new), ticks, nextId);
    }

    private static Notes of(Note[][] chunks, TickOfNote ticks, int nextId) {
        int[] before = new int[chunks.length + 1];
        for (int i = 0; i < chunks.length; i++) {
            before[i + 1] = before[i] + chunks[i].length;
        }
        return new Notes(chunks, before, ticks, nextId);
    }

    @Override
    public Note get(int index) {
        int found = Arrays.binarySearch(before, java.util.Objects.checkIndex(index, size()));
        // Empty chunks are never kept, so a hit is the chunk that begins there.
        int chunk = found >= 0 ? found : -found - 2;
        return chunks[chunk][index - before[chunk]];
    }

    @Override
    public int size() {
        return before[before.length - 1];
    }

    @Override
    public Iterator<Note> iterator() {
        return new Iterator<>() {
            private int chunk;
            private int place;

            @Override
            public boolean hasNext() {
                return chunk < chunks.length;
            }

            @Override
            public Note next() {
                if (chunk >= chunks.length) {
                    throw new NoSuchElementException();
                }
                Note note = chunks[chunk][place++];
                if (place == chunks[chunk].length) {
                    chunk++;
                    place = 0;
                }
                return note;
            }
        };
    }

    @Override
    public Spliterator<Note> spliterator() {
        return Spliterators.spliterator(iterator(), size(), Spliterator.ORDERED | Spliterator.IMMUTABLE);
    }

    /** The place in order of the first note that starts at or after a tick. */
    public int indexAtOrAfter(long tick) {
        int low = 0;
        int high = size();
        while (low < high) {
            int middle = low + high >>> 1;
            if (get(middle).tick() < tick) {
                low = middle + 1;
            } else {
                high = middle;
            }
        }
        return low;
    }

    /** The notes that start from {@code fromTick} to before {@code toTick}. */
    public List<Note> startingIn(long fromTick, long toTick) {
        int from = indexAtOrAfter(fromTick);
        return subList(from, Math.max(from, indexAtOrAfter(toTick)));
    }

    /** Adds the notes that start from {@code fromTick} to before {@code toTick} to a list, which is quicker than to ask for each. */
    public void addStartingIn(long fromTick, long toTick, List<Note> found) {
        int index = indexAtOrAfter(fromTick);
        if (index == size()) {
            return;
        }
        int at = Arrays.binarySearch(before, index);
        int chunk = at >= 0 ? at : -at - 2;
        int place = index - before[chunk];
        for (; chunk < chunks.length; chunk++, place = 0) {
            Note[] notes = chunks[chunk];
            for (; place < notes.length; place++) {
                if (notes[place].tick() >= toTick) {
                    return;
                }
                found.add(notes[place]);
            }
        }
    }

    /** The note of that id. */
    public Optional<Note> find(int id) {
        return Optional.ofNullable(findOrNull(id));
    }

    /** The note of that id, or null: for the engine, which makes nothing anew. */
    public Note findOrNull(int id) {
        long tick = ticks.of(id);
        if (tick >= 0) {
            for (int i = indexAtOrAfter(tick); ; i++) {
                Note note = get(i);
                if (note.id() == id) {
                    return note;
                }
            }
        }
        return null;
    }

    /** The places, rising, of the notes that began before a tick and end after it. */
    public List<Integer> soundingAcross(long tick) {
        prepare();
        List<Integer> found = new ArrayList<>();
        for (int chunk = 0; chunk < chunks.length && chunks[chunk][0].tick() < tick; chunk++) {
            for (int i = 0; lastEnds[chunk] > tick && i < chunks[chunk].length; i++) {
                Note note = chunks[chunk][i];
                if (note.tick() < tick && note.endTick() > tick) {
                    found.add(before[chunk] + i);
                }
            }
        }
        return found;
    }

    /** Works out beforehand what {@link #soundingAcross} needs. */
    public void prepare() {
        if (lastEnds == null) {
            long[] ends = new long[chunks.length];
            for (int chunk = 0; chunk < chunks.length; chunk++) {
                for (Note note : chunks[chunk]) {
                    ends[chunk] = Math.max(ends[chunk], note.endTick());
                }
            }
            lastEnds = ends;
        }
    }

    /** How many that start at the same tick with the same pitch come before this place. */
    public int alikeBefore(int index) {
        Note note = get(index);
        int count = 0;
        for (int i = index - 1; i >= 0 && get(i).tick() == note.tick() && get(i).pitch() == note.pitch(); i--) {
            count++;
        }
        return count;
    }

    /** With a note more; one without an id gets the next. */
    public Notes plus(Note note) {
        Note named = note.id() == Note.NEW ? note.withId(nextId) : note;
        if (ticks.of(named.id()) >= 0) {
            throw new IllegalArgumentException("two notes have the id " + named.id());
        }
        return inserted(named, Math.max(nextId, named.id() + 1));
    }

    /** With the note of that id as this one says; the same notes where it says nothing new. */
    public Notes with(Note note) {
        Note old = findOrNull(note.id());
        if (old == null) {
            throw new IllegalArgumentException("there is no note of the id " + note.id());
        }
        return old.equals(note) ? this : minus(note.id()).inserted(note, nextId);
    }

    /** With many notes as these say; the same notes where they say nothing new. */
    public Notes withAll(Collection<Note> changed) {
        if (changed.size() <= FEW) {
            Notes result = this;
            for (Note note : changed) {
                result = result.with(note);
            }
            return result;
        }
        Map<Integer, Note> byId = new HashMap<>();
        changed.forEach(note -> byId.put(note.id(), note));
        List<Note> all = new ArrayList<>(size());
        boolean same = true;
        for (Note note : this) {
            Note now = byId.getOrDefault(note.id(), note);
            same &= now.equals(note);
            all.add(now);
        }
        return same ? this : ordered(all, nextId);
    }

    /** Without the notes of those ids, which are not used again. */
    public Notes minusAll(Set<Integer> ids) {
        if (ids.size() <= FEW) {
            Notes result = this;
            for (int id : ids) {
                result = result.minus(id);
            }
            return result;
        }
        return ordered(stream().filter(note -> !ids.contains(note.id())).toList(), nextId);
    }

    /** Without the note of that id, whose id is not used again; the same notes where there is none. */
    public Notes minus(int id) {
        Note note = findOrNull(id);
        if (note == null) {
            return this;
        }
        int chunk = chunkOf(note);
        Note[] old = chunks[chunk];
        int place = Arrays.binarySearch(old, note, ORDER);
        Note[] shorter = new Note[old.length - 1];
        System.arraycopy(old, 0, shorter, 0, place);
        System.arraycopy(old, place + 1, shorter, place, shorter.length - place);
        Note[][] changed = shorter.length == 0 ? replaced(chunk) : replaced(chunk, shorter);
        return of(changed, ticks.with(id, TickOfNote.NONE), nextId);
    }

    private Notes inserted(Note note, int newNextId) {
        TickOfNote newTicks = ticks.with(note.id(), note.tick());
        if (chunks.length == 0) {
            return of(new Note[][] {{note}}, newTicks, newNextId);
        }
        int chunk = chunkOf(note);
        Note[] old = chunks[chunk];
        int place = -Arrays.binarySearch(old, note, ORDER) - 1;
        Note[] longer = new Note[old.length + 1];
        System.arraycopy(old, 0, longer, 0, place);
        longer[place] = note;
        System.arraycopy(old, place, longer, place + 1, old.length - place);
        Note[][] changed = longer.length <= LARGEST
                ? replaced(chunk, longer)
                : replaced(
                        chunk, Arrays.copyOfRange(longer, 0, CHUNK), Arrays.copyOfRange(longer, CHUNK, longer.length));
        return of(changed, newTicks, newNextId);
    }

    /** The chunk that holds a note, or that it would go into. */
    private int chunkOf(Note note) {
        int low = 0;
        int high = chunks.length - 1;
        while (low < high) {
            int middle = low + high + 1 >>> 1;
            if (ORDER.compare(chunks[middle][0], note) <= 0) {
                low = middle;
            } else {
                high = middle - 1;
            }
        }
        return low;
    }

    private Note[][] replaced(int chunk, Note[]... by) {
        Note[][] changed = new Note[chunks.length - 1 + by.length][];
        System.arraycopy(chunks, 0, changed, 0, chunk);
        System.arraycopy(by, 0, changed, chunk, by.length);
        System.arraycopy(chunks, chunk + 1, changed, chunk + by.length, chunks.length - chunk - 1);
        return changed;
    }

    /** About how many bytes these take besides what they share with others. */
    public long bytesBeside(Notes other) {
        if (this == other) {
            return 0;
        }
        Set<Object> shared = Collections.newSetFromMap(new IdentityHashMap<>());
        Collections.addAll(shared, (Object[]) other.chunks);
        Set<Object> own = Collections.newSetFromMap(new IdentityHashMap<>());
        Collections.addAll(own, (Object[]) chunks);
        for (Note[] chunk : other.chunks) {
            if (!own.contains(chunk)) {
                Collections.addAll(shared, (Object[]) chunk);
            }
        }
        long bytes = 12L * chunks.length + 4 * TickOfNote.BYTES;
        for (Note[] chunk : chunks) {
            if (!shared.contains(chunk)) {
                bytes += 4L * chunk.length + 56;
                for (Note note : chunk) {
                    bytes += shared.contains(note) ? 0 : NOTE_BYTES;
                }
            }
        }
        return bytes;
    }

    @Override
    public boolean equals(Object other) {
        if (other == this) {
            return true;
        }
        if (!(other instanceof Notes notes)) {
            return super.equals(other);
        }
        if (notes.size() != size()) {
            return false;
        }
        int chunk = 0;
        int place = 0;
        int otherChunk = 0;
        int otherPlace = 0;
        while (chunk < chunks.length) {
            if (place == 0 && otherPlace == 0 && chunks[chunk] == notes.chunks[otherChunk]) {
                chunk++;
                otherChunk++;
                continue;
            }
            Note own = chunks[chunk][place];
            Note others = notes.chunks[otherChunk][otherPlace];
            if (own != others && !own.alike(others)) {
                return false;
            }
            if (++place == chunks[chunk].length) {
                place = 0;
                chunk++;
            }
            if (++otherPlace == notes.chunks[otherChunk].length) {
                otherPlace = 0;
                otherChunk++;
            }
        }
        return true;
    }

    @Override
    public int hashCode() {
        return size() == 0
                ? 0
                : 31 * size() + Long.hashCode(get(0).tick()) + get(size() - 1).pitch();
    }
}
