package harpel.app.transport;

import harpel.app.transport.Places.Place;
import harpel.event.Event;
import harpel.event.Message;
import harpel.event.NoteEnd;
import harpel.event.NoteStart;
import harpel.param.ParamSet;
import harpel.run.Told;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.Collections;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Stream;

/**
 * The notes that lately left each place, for the traces. They stay when time starts anew: what was before is moved to the left by whole
 * bars, so that it ends where the new begins, and a mark stands there. Owned by the interface thread.
 */
public final class TraceStore {
    /**
     * So many notes, bends and controllers are kept of all places together: with what they are made of about 150 bytes each, so 15 MB. A
     * piece of seven parts of five stages keeps some 2,500 of each place.
     */
    public static final int MOST_IN_ALL = 100_000;

    private static final int MOST_MARKS = 64;
    private static final int MOST_ASTRAY = 8000;
    /** A note as it is drawn; it ends at {@link Long#MAX_VALUE} while it sounds. */
    public static final class Drawn {
        public final NoteStart note;
        /** Whether it left for another part or output, and does not go on. */
        public final boolean away;

        long endTick = Long.MAX_VALUE;
        long moved;

        public Drawn(NoteStart note, boolean away) {
            this.note = note;
            this.away = away;
        }

        public void end(long tick) {
            endTick = tick;
        }

        /** Where it is drawn. */
        public long startTick() {
            return note.tick() + moved;
        }

        public long endTick() {
            return endTick;
        }

        public boolean sounds() {
            return endTick == Long.MAX_VALUE;
        }
    }

    /** A bend, a controller, or a pitch that was lost, as it is drawn. */
    public static final class Mark {
        /** Null for a lost pitch. */
        public final Message message;
        /** The lost pitch. */
        public final int pitch;

        long tick;

        Mark(Message message, int pitch, long tick) {
            this.message = message;
            this.pitch = pitch;
            this.tick = tick;
        }

        /** Where it is drawn. */
        public long tick() {
            return tick;
        }
    }

    /** Of a place that nothing has left; never written to. */
    private static final TraceRow NOTHING = new TraceRow();

    private final Map<Place, TraceRow> rows = new HashMap<>();
    /** What was heard before an edit, until time starts anew. */
    private final Map<Place, TraceRow> outdated = new HashMap<>();

    private final Sayings sayings = new Sayings();
    private final Map<String, ParamSet> moved = new HashMap<>();
    private final Map<String, Map<String, Object>> inForce = new HashMap<>();
    private final Map<String, List<Integer>> steps = new HashMap<>();
    private final Map<String, Map<Integer, Integer>> drivers = new HashMap<>();
    private final Map<String, Double> levers = new HashMap<>();
    private final Map<String, Double> knobs = new HashMap<>();
    private final Map<String, Told.LeverHeld> held = new HashMap<>();
    private final List<Drawn> counted = new ArrayList<>();
    /** For each stage that has left notes out, the tick at which it did so last. */
    private final Map<String, Long> full = new HashMap<>();

    /** For each stage, when it sent a note to a part that is not there, rising. */
    private final Map<String, ArrayDeque<Long>> astray = new HashMap<>();

    private final List<Long> marks = new ArrayList<>();
    /** From where on something was not told. */
    private final List<Long> gaps = new ArrayList<>();
    /** The part that is looked at; what is kept of it gives way last. */
    private String seen = "";
    /** At most so much is kept. */
    private int kept;

    private long movedInAll;
    private boolean forgetting;
    private Made.Result ahead;
    private int most = MOST_IN_ALL;
    private long count;

    public void take(Told told) {
        if (told instanceof Told.Left left) {
            take(row(left.part(), left.place()), left.event(), false);
        } else if (told instanceof Told.Away away) {
            take(row(away.part(), away.place()), away.event(), true);
        } else if (told instanceof Told.Lost lost) {
            mark(row(lost.part(), lost.place()), new Mark(null, lost.pitch(), lost.tick()));
        } else if (told instanceof Told.Stepped at) {
            List<Integer> all = steps.computeIfAbsent(at.place(), place -> new ArrayList<>());
            while (all.size() <= at.row()) {
                all.add(-1);
            }
            all.set(at.row(), at.step());
        } else if (told instanceof Told.Drives now) {
            drivers.computeIfAbsent(now.place(), place -> new HashMap<>()).put(now.row(), now.pitch());
        } else if (told instanceof Told.Moved values) {
            moved.put(values.place(), values.values());
        } else if (told instanceof Told.InForce now) {
            inForce.computeIfAbsent(now.place(), place -> new HashMap<>()).put(now.param(), now.value());
        } else if (told instanceof Told.Full at) {
            full.put(at.place(), at.tick());
        } else if (told instanceof Told.Astray gone) {
            ArrayDeque<Long> ticks = astray.computeIfAbsent(gone.place(), place -> new ArrayDeque<>());
            ticks.addLast(gone.tick());
            if (ticks.size() > MOST_ASTRAY) {
                ticks.removeFirst();
            }
        } else if (told instanceof Told.LeverAt at) {
            levers.put(at.name(), at.value());
            knobs.put(at.name(), at.value());
        } else if (told instanceof Told.LeverHeld now) {
            held.put(now.name(), now);
        } else if (told instanceof Told.KnobAt at) {
            knobs.put(at.name(), at.value());
        } else if (told instanceof Told.Said said) {
            sayings.take(said);
        } else if (told instanceof Told.Fine fine) {
            sayings.take(fine);
        } else if (told instanceof Told.Restarted restarted) {
            restart(restarted.tick(), restarted.barTicks());
        }
    }

    private void take(TraceRow row, Event event, boolean away) {
        if (event instanceof NoteStart note) {
            row.start(note, away);
            count += away ? 0 : 1;
            keep();
        } else if (event instanceof NoteEnd end) {
            row.end(end);
        } else if (event instanceof Message message) {
            mark(row, new Mark(message, -1, message.tick()));
        }
    }

    private void mark(TraceRow row, Mark mark) {
        row.marks.add(mark);
        keep();
    }

    /** One more is kept; where those are too many in all, the oldest of what is not looked at gives way. */
    private void keep() {
        if (++kept <= most) {
            return;
        }
        giveWay();
    }

    /** Keeps no more than that from now on, where memory is short. */
    public void keepAtMost(int newMost) {
        most = newMost;
        giveWay();
    }

    /** How many are kept at most. */
    public int most() {
        return most;
    }

    private void giveWay() {
        outdated.keySet().removeIf(place -> !place.part().equals(seen));
        kept = keptInAll();
        for (TraceRow row = oldest(); kept > most - most / 10 && row != null; row = oldest()) {
            kept -= row.dropOldest();
        }
    }

    /** How many notes, bends and controllers are kept of all places together. */
    public int keptInAll() {
        return Stream.concat(rows.values().stream(), outdated.values().stream())
                .mapToInt(TraceRow::size)
                .sum();
    }

    private TraceRow oldest() {
        TraceRow unseen = null;
        TraceRow any = null;
        for (Map.Entry<Place, TraceRow> entry : rows.entrySet()) {
            TraceRow row = entry.getValue();
            long first = row.oldest();
            if (first < Long.MAX_VALUE && (any == null || first < any.oldest())) {
                any = row;
            }
            if (first < Long.MAX_VALUE
                    && !entry.getKey().part().equals(seen)
                    && (unseen == null || first < unseen.oldest())) {
                unseen = row;
            }
        }
        return unseen == null ? any : unseen;
    }

    /** From now on this part is looked at: what is kept of the others gives way first. */
    public void look(String part) {
        seen = part;
    }

    /** Something was not told, from the one told last to now: nobody knows whether what sounds has ended. */
    public void missed(long tick) {
        rows.values().forEach(row -> row.endAll(tick));
        gaps.add(tick);
        if (gaps.size() > MOST_MARKS) {
            gaps.remove(0);
        }
        count++;
    }

    /** Where something was not told, as it is drawn, rising. */
    public List<Long> gaps() {
        return Collections.unmodifiableList(gaps);
    }

    private void restart(long tick, long barTicks) {
        steps.clear();
        drivers.clear();
        held.clear();
        inForce.clear();
        full.clear();
        astray.clear();
        outdated.clear();
        if (forgetting) {
            forgetting = false;
            rows.clear();
            marks.clear();
            gaps.clear();
            return;
        }
        long last = rows.values().stream().mapToLong(TraceRow::last).max().orElse(Long.MIN_VALUE);
        if (last == Long.MIN_VALUE) {
            return;
        }
        long by = last <= tick ? 0 : -Math.floorDiv(tick - last, barTicks) * barTicks;
        rows.values().forEach(row -> row.move(by, last));
        marks.replaceAll(mark -> mark - by);
        gaps.replaceAll(gap -> gap - by);
        marks.add(tick);
        if (marks.size() > MOST_MARKS) {
            marks.remove(0);
        }
        movedInAll += by;
    }

    /** Another piece is shown: forgets all notes, now and when time starts anew next, since some may still be on their way. */
    public void forget() {
        forgetting = true;
        rows.clear();
        outdated.clear();
        marks.clear();
        gaps.clear();
        count++;
    }

    /** What a part heard and made holds no longer, since it was edited; it is kept to compare with until time starts anew. */
    public void outdate(String part) {
        rows.entrySet().removeIf(entry -> {
            boolean gone = entry.getKey().part().equals(part);
            if (gone && !entry.getValue().notes.isEmpty()) {
                entry.getValue().move(0, entry.getValue().last());
                outdated.put(entry.getKey(), entry.getValue());
            }
            return gone;
        });
        count++;
    }

    /** Finds what a place heard before the last edit, in a list that is used again and again. */
    public void outdatedWithin(Place place, long fromTick, long toTick, List<Drawn> found) {
        found.clear();
        find(outdated.getOrDefault(place, NOTHING), fromTick, toTick, found);
    }

    /** Where time began anew, as it is drawn, rising. */
    public List<Long> marks() {
        return Collections.unmodifiableList(marks);
    }

    /** How far all that was has been moved to the left so far, in ticks. */
    public long movedInAll() {
        return movedInAll;
    }

    /** Shows what a part's chain would make in place of what it made, which is none; with null no longer. */
    public void showAhead(Made.Result newAhead) {
        ahead = newAhead;
    }

    /** What is shown of what is to come; null where what was played is shown. */
    public Made.Result ahead() {
        return ahead;
    }

    /** Whether nothing of what a part's chain made is kept. */
    public boolean isBlank(String part) {
        return rows.entrySet().stream()
                .noneMatch(entry -> entry.getKey().part().equals(part)
                        && !entry.getKey().equals(Places.input(part))
                        && !entry.getValue().notes.isEmpty());
    }

    /** The first tick at which anything is drawn; 0 where there is nothing before it. */
    public long earliest() {
        long earliest = 0;
        for (TraceRow row : rows.values()) {
            earliest = row.notes.isEmpty()
                    ? earliest
                    : Math.min(earliest, row.notes.get(0).startTick());
        }
        return earliest;
    }

    private TraceRow row(String part, String name) {
        Place place = new Place(part, name);
        TraceRow row = rows.get(place);
        if (row == null) {
            row = new TraceRow();
            rows.put(place, row);
        }
        return row;
    }

    private TraceRow row(Place place) {
        return rows.getOrDefault(place, NOTHING);
    }

    /** What stages have said. */
    public Sayings sayings() {
        return sayings;
    }

    /** The ids of the stages of a chain of a part that have left notes out since a tick. */
    public Set<String> fullSince(String part, double tick) {
        Set<String> stages = new TreeSet<>();
        full.forEach((place, when) -> {
            if (place.startsWith(part + "/") && when >= tick) {
                stages.add(place.substring(part.length() + 1));
            }
        });
        return stages;
    }

    /** How many notes a stage has sent to a part that is not there since a tick. */
    public int astraySince(String place, double tick) {
        return (int) astray.getOrDefault(place, new ArrayDeque<>()).stream()
                .filter(when -> when >= tick)
                .count();
    }

    /** The values that a stage was moved to last, or null. */
    public ParamSet moved(String place) {
        return moved.get(place);
    }

    /** The value of a parameter that a stage had in force last, whatever is set; null when it has said nothing of it. */
    public Object inForce(String place, String param) {
        return inForce.getOrDefault(place, Map.of()).get(param);
    }

    /** The pitch of the note that left a place last, or -1. */
    public int lastPitch(Place place) {
        List<Drawn> notes = row(place).notes;
        return notes.isEmpty() ? -1 : notes.get(notes.size() - 1).note.pitch();
    }

    /** The step that a row of a stage has come to, counted from 0, or -1. */
    public int step(String place, int row) {
        List<Integer> all = steps(place);
        return row < all.size() ? all.get(row) : -1;
    }

    /** The steps that all rows of a stage have come to. */
    public List<Integer> steps(String place) {
        return List.copyOf(steps.getOrDefault(place, List.of()));
    }

    /** The held note that a row of a stage works on, 0–127, or −1. */
    public int driver(String place, int row) {
        return drivers.getOrDefault(place, Map.of()).getOrDefault(row, -1);
    }

    /** Where a controller has brought a lever, 0–1, if one has. */
    public OptionalDouble lever(String name) {
        Double value = levers.get(name);
        return value == null ? OptionalDouble.empty() : OptionalDouble.of(value);
    }

    /** Where the controller of a lever stands, 0–1, once it has been moved. */
    public OptionalDouble knob(String name) {
        Double value = knobs.get(name);
        return value == null ? OptionalDouble.empty() : OptionalDouble.of(value);
    }

    /** How a hand holds a lever against its points at a place of the piece, if one does. */
    public Optional<Told.LeverHeld> held(String name, double song) {
        return Optional.ofNullable(held.get(name)).filter(one -> one.from() <= song && song < one.until());
    }

    /** Forgets where a controller brought a lever, since a hand has moved it in the window. */
    public void forgetLever(String name) {
        levers.remove(name);
    }

    /** How many notes have been taken in all, to know whether anything is new. */
    public long count() {
        return count;
    }

    /** The notes of a place, oldest first. */
    public List<Drawn> notes(Place place) {
        return Collections.unmodifiableList(row(place).notes);
    }

    /** The last notes of a place, at most so many, oldest first. */
    public List<Drawn> last(Place place, int most) {
        List<Drawn> notes = notes(place);
        return List.copyOf(notes.subList(Math.max(0, notes.size() - most), notes.size()));
    }

    /** Whether that very note came by a place. */
    public boolean has(Place place, NoteStart note) {
        TraceRow row = row(place);
        // The latest first: what is asked for mostly came lately.
        for (int i = row.notes.size() - 1; i >= 0; i--) {
            if (row.notes.get(i).note == note) {
                return true;
            }
        }
        return false;
    }

    /** Whether anything sounds at a place. */
    public boolean sounds(Place place) {
        return !row(place).open.isEmpty();
    }

    /** Says which pitches sound at a place. */
    public void sounding(Place place, BitSet pitches) {
        pitches.clear();
        TraceRow row = row(place);
        if (!row.open.isEmpty()) {
            row.open.forEach((note, drawn) -> pitches.set(note.pitch()));
        }
    }

    /** Finds the notes of a place that sound or sounded in a stretch of time, in a list that is used again and again. */
    public void within(Place place, long fromTick, long toTick, List<Drawn> found) {
        found.clear();
        if (ahead != null && place.part().equals(ahead.part())) {
            for (Drawn drawn : ahead.at(place)) {
                if (drawn.startTick() < toTick && drawn.endTick > fromTick) {
                    found.add(drawn);
                }
            }
            return;
        }
        find(row(place), fromTick, toTick, found);
    }

    private static void find(TraceRow row, long fromTick, long toTick, List<Drawn> found) {
        int first = row.firstAt((double) fromTick - row.longest);
        if (!row.open.isEmpty()) {
            for (Drawn drawn : row.open.values()) {
                if (drawn.startTick() < fromTick - row.longest) {
                    found.add(drawn);
                }
            }
        }
        for (int i = first; i < row.notes.size(); i++) {
            Drawn drawn = row.notes.get(i);
            if (drawn.startTick() >= toTick) {
                break;
            }
            if (drawn.endTick > fromTick) {
                found.add(drawn);
            }
        }
    }

    /**
     * Finds the bends, controllers and lost pitches of a place in a stretch of time, and the last of each before it that still holds, in a
     * list that is used again and again.
     */
    public void marksWithin(Place place, long fromTick, long toTick, List<Mark> found) {
        found.clear();
        List<Mark> marks = row(place).marks;
        int low = 0;
        int high = marks.size();
        while (low < high) {
            int middle = (low + high) >>> 1;
            if (marks.get(middle).tick < fromTick) {
                low = middle + 1;
            } else {
                high = middle;
            }
        }
        // The bend that holds at the beginning.
        for (int i = low - 1; i >= Math.max(0, low - TraceRow.LOOKED_BACK); i--) {
            Message message = marks.get(i).message;
            if (message != null && message.isBend()) {
                found.add(marks.get(i));
                break;
            }
        }
        for (int i = low; i < marks.size() && marks.get(i).tick < toTick; i++) {
            found.add(marks.get(i));
        }
    }

    /** How many notes of a place sound or sounded in a stretch of time. */
    public int countWithin(Place place, long fromTick, long toTick) {
        within(place, fromTick, toTick, counted);
        int count = 0;
        for (Drawn drawn : counted) {
            count += drawn.away ? 0 : 1;
        }
        return count;
    }
}
