package harpel.plan;

import harpel.event.Event;
import harpel.event.Message;
import harpel.event.NoteEnd;
import harpel.event.NoteStart;
import harpel.phrase.Note;
import harpel.plan.Line.Passage;
import harpel.time.Ticks;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.PriorityQueue;

/**
 * Plays a line: passage after passage, in each its phrase over and over. A note that would last past the end of the phrase or the passage
 * ends there. Another line may take the place of this one at any time: notes that are in both go on sounding. Owned by the engine thread.
 */
public final class PhrasePlayer {
    /** A note that sounds, and when it ends. */
    private record Sounding(Passage of, int id, long round, NoteStart start, long endTick, int release) {}

    /** Takes the ends of notes, and whether they are heard past the chain. */
    public interface Ends {
        void end(NoteEnd end, boolean ready);
    }

    private static final Comparator<Sounding> BY_END = Comparator.comparingLong(Sounding::endTick)
            .thenComparingLong(one -> one.start.arrival())
            .thenComparingInt(one -> one.start.pitch());

    private static final int ORDER_SHIFT = 40;

    private final PriorityQueue<Sounding> sounding = new PriorityQueue<>(BY_END);
    private Line line;
    /** The passage that is played; none before the first. */
    private Passage now;
    /** Where the next one begins. */
    private long nextPassage;

    private Score score;
    private long nextNoteRound;
    private int nextNote;
    private long nextMessageRound;
    private int nextMessage;
    /** The places of notes that began before where play began, and begin there. */
    private final ArrayDeque<Integer> chased = new ArrayDeque<>();

    /** What the phrase has set before where play began, and stands there: the places of messages. */
    private final ArrayDeque<Integer> standing = new ArrayDeque<>();

    private long chasedTick;
    /** Whether the last event is heard past the chain. */
    private boolean ready;

    /** What it plays arrives after what players before it play at one tick, and after keys: live as printed. */
    private long arrivals;

    /** @param order its place among the players of the piece */
    public PhrasePlayer(Line line, int order) {
        this.line = line;
        this.arrivals = order + 1L << ORDER_SHIFT;
        aim(0);
    }

    /** Whether the event that {@link #next} gave is heard past the chain. */
    public boolean isReady() {
        return ready;
    }

    /** Goes to {@code tick}: what was written to begin before and last past it begins there, and keeps its end. */
    public void locate(long tick) {
        sounding.clear();
        aim(tick);
        chase(tick);
    }

    private void chase(long tick) {
        if (now != null && tick < now.to() && !score.isEmpty()) {
            chased.addAll(score.notes().soundingAcross((tick - now.base()) % score.length()));
        }
        stand(tick);
    }

    /** Controllers, bends and programs stand as the phrase has set them by then, in this round or the one before. */
    private void stand(long tick) {
        chasedTick = tick;
        if (now != null && tick < now.to() && !score.isEmpty()) {
            standing.addAll(score.standing((tick - now.base()) % score.length(), tick - now.base() >= score.length()));
        }
    }

    /** The start of a note that is played, or null; it will last as long as it is written, but not past its phrase or passage. */
    private NoteStart begin(int index, long round, long tick, long arrival) {
        if (!score.plays(index, round)) {
            return null;
        }
        Note note = score.notes().get(index);
        NoteStart start = NoteStart.played(tick, arrival, score.channel(), note.pitch(), note.velocity());
        long end = endOf(now, note, round);
        sounding.add(new Sounding(now, note.id(), round, start, end, note.release()));
        return start.lasting(end - start.tick());
    }

    private static long endOf(Passage passage, Note note, long round) {
        long length = passage.score().length();
        return Math.min(passage.to(), passage.base() + round * length + Math.min(length, note.endTick()));
    }

    /** Joins in at a tick, in play: notes that began before are not caught up. */
    public void join(long tick) {
        sounding.clear();
        aim(tick);
        stand(tick);
    }

    /** Finds what comes next from a tick on. */
    private void aim(long tick) {
        chased.clear();
        standing.clear();
        now = line.passageAt(tick);
        nextPassage = line.nextPassage(tick);
        score = now == null ? null : now.score();
        if (now == null || score.isEmpty()) {
            return;
        }
        long round = (tick - now.base()) / score.length();
        long within = tick - now.base() - round * score.length();
        nextNoteRound = round;
        nextNote = score.notes().indexAtOrAfter(within);
        if (nextNote >= score.notes().size()) {
            nextNote = 0;
            nextNoteRound++;
        }
        nextMessageRound = round;
        nextMessage = 0;
        List<Message> messages = score.messages();
        while (nextMessage < messages.size() && messages.get(nextMessage).tick() < within) {
            nextMessage++;
        }
        if (nextMessage >= messages.size()) {
            nextMessage = 0;
            nextMessageRound++;
        }
    }

    /**
     * Takes another line from {@code tick} on. What sounds and is still written where it sounds, with the same pitch, goes on to its
     * new end; all else ends.
     *
     * @param end takes the ends, at {@code tick}
     */
    public void take(Line newLine, long tick, Ends end) {
        if (newLine == line) {
            return;
        }
        line = newLine;
        aim(tick);
        List<Sounding> before = new ArrayList<>(sounding);
        before.sort(BY_END);
        sounding.clear();
        for (Sounding one : before) {
            boolean same = now != null && now.from() <= one.start.tick() && now.continues(one.of);
            Note note = same ? score.notes().findOrNull(one.id) : null;
            long endTick = note == null ? 0 : endOf(now, note, one.round);
            boolean covers = note != null
                    && note.pitch() == one.start.pitch()
                    && now.base() + one.round * score.length() + note.tick() < tick
                    && endTick > tick
                    && !note.traits().off();
            if (covers) {
                sounding.add(new Sounding(now, one.id, one.round, one.start, endTick, note.release()));
            } else {
                end.end(NoteEnd.plain(tick, one.start), one.of.score().ready());
            }
        }
    }

    private long noteTick() {
        return score == null || score.isEmpty() || score.notes().isEmpty()
                ? Ticks.NEVER
                : within(nextNoteRound, score.notes().get(nextNote).tick());
    }

    private long messageTick() {
        return score == null || score.isEmpty() || score.messages().isEmpty()
                ? Ticks.NEVER
                : within(nextMessageRound, score.messages().get(nextMessage).tick());
    }

    private long within(long round, long tick) {
        long at = now.base() + round * score.length() + tick;
        return at < now.to() ? at : Ticks.NEVER;
    }

    private boolean isChasing() {
        return !standing.isEmpty() || !chased.isEmpty();
    }

    private long endTick() {
        return sounding.isEmpty() ? Ticks.NEVER : sounding.peek().endTick;
    }

    public long nextTick() {
        if (isChasing()) {
            return chasedTick;
        }
        return Math.min(Math.min(endTick(), nextPassage), Math.min(messageTick(), noteTick()));
    }

    /** The ends, at {@code tick}, of the notes that sound. */
    public void endAll(long tick, Ends end) {
        List<Sounding> all = new ArrayList<>(sounding);
        all.sort(BY_END);
        sounding.clear();
        chased.clear();
        standing.clear();
        all.forEach(
                one -> end.end(NoteEnd.plain(tick, one.start), one.of.score().ready()));
    }

    /** The next event at its place in the piece; null when it is a note that is not played, or only another passage begins. */
    public Event next() {
        long arrival = arrivals++;
        long tick = nextTick();
        if (!isChasing() && endTick() == tick) {
            Sounding one = sounding.poll();
            ready = one.of.score().ready();
            return new NoteEnd(tick, one.start, one.release);
        }
        if (!isChasing() && nextPassage == tick) {
            aim(tick);
            chase(tick);
            return null;
        }
        ready = score.ready();
        if (!standing.isEmpty()) {
            return score.messages().get(standing.poll()).at(chasedTick, arrival);
        }
        if (!chased.isEmpty()) {
            return begin(chased.poll(), (chasedTick - now.base()) / score.length(), chasedTick, arrival);
        }
        if (messageTick() == tick) {
            Message message = score.messages().get(nextMessage++);
            if (nextMessage == score.messages().size()) {
                nextMessage = 0;
                nextMessageRound++;
            }
            return message.at(tick, arrival);
        }
        int index = nextNote++;
        long round = nextNoteRound;
        if (nextNote == score.notes().size()) {
            nextNote = 0;
            nextNoteRound++;
        }
        return begin(index, round, tick, arrival);
    }
}
