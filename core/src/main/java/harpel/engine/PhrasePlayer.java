package harpel.engine;

import harpel.event.Event;
import harpel.event.Message;
import harpel.event.NoteEnd;
import harpel.event.NoteStart;
import harpel.phrase.Note;
import harpel.phrase.Notes;
import harpel.time.Ticks;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.PriorityQueue;
import java.util.function.Consumer;

/**
 * Plays a score over and over from tick 0 of the piece. A note that would last past the end of the phrase ends there. Another score may
 * take the place of this one at any time: notes that are in both go on sounding. Owned by the engine thread.
 */
final class PhrasePlayer {
    /** A note that sounds, and when it ends. */
    private record Sounding(int id, long round, NoteStart start, long endTick, int release) {}

    private static final Comparator<Sounding> BY_END = Comparator.comparingLong(Sounding::endTick)
            .thenComparingLong(one -> one.start.arrival())
            .thenComparingInt(one -> one.start.pitch());

    private final PriorityQueue<Sounding> sounding = new PriorityQueue<>(BY_END);
    private Score score;
    private long nextNoteRound;
    private int nextNote;
    private long nextMessageRound;
    private int nextMessage;
    /** The places of notes that began before where play began, and begin there. */
    private final ArrayDeque<Integer> chased = new ArrayDeque<>();

    private long chasedTick;

    PhrasePlayer(Score score) {
        this.score = score;
    }

    Score score() {
        return score;
    }

    /** Goes to {@code tick}: what was written to begin before and last past it begins there, and keeps its end. */
    void locate(long tick) {
        sounding.clear();
        chased.clear();
        aim(tick);
        if (score.isEmpty()) {
            return;
        }
        chasedTick = tick;
        chased.addAll(score.notes().soundingAcross(tick % score.length()));
    }

    /** The start of a note that is played, or null; it will last as long as it is written, but not past its phrase. */
    private NoteStart begin(int index, long round, long tick, long arrival) {
        if (!score.plays(index, round)) {
            return null;
        }
        Note note = score.notes().get(index);
        NoteStart start = NoteStart.played(tick, arrival, score.channel(), note.pitch(), note.velocity());
        long end = round * score.length() + Math.min(score.length(), note.endTick());
        sounding.add(new Sounding(note.id(), round, start, end, note.release()));
        return start.lasting(end - start.tick());
    }

    /** Joins in at a tick, in play: what began before is not caught up. */
    void join(long tick) {
        sounding.clear();
        chased.clear();
        aim(tick);
    }

    private void aim(long tick) {
        if (score.isEmpty()) {
            return;
        }
        long round = tick / score.length();
        long within = tick - round * score.length();
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
     * Takes another score from {@code tick} on. What sounds and is still written where it sounds, with the same pitch, goes on to its
     * new end; all else ends.
     *
     * @param end takes the ends, at {@code tick}
     */
    void take(Score newScore, long tick, Consumer<NoteEnd> end) {
        boolean samePhrase = score.phrase().id().equals(newScore.phrase().id())
                && score.channel() == newScore.channel()
                && score.ready() == newScore.ready()
                && score.length() == newScore.length();
        List<Sounding> before = new ArrayList<>(sounding);
        before.sort(BY_END);
        sounding.clear();
        chased.clear();
        Notes notes = newScore.notes();
        for (Sounding one : before) {
            Note note = samePhrase ? notes.findOrNull(one.id) : null;
            long begin = one.round * newScore.length();
            long endTick = note == null ? 0 : begin + Math.min(newScore.length(), note.endTick());
            boolean covers = note != null
                    && note.pitch() == one.start.pitch()
                    && begin + note.tick() < tick
                    && endTick > tick
                    && !note.traits().off();
            if (covers) {
                sounding.add(new Sounding(one.id, one.round, one.start, endTick, note.release()));
            } else {
                end.accept(NoteEnd.plain(tick, one.start));
            }
        }
        score = newScore;
        aim(tick);
    }

    private long noteTick() {
        return score.isEmpty() || score.notes().isEmpty()
                ? Ticks.NEVER
                : nextNoteRound * score.length() + score.notes().get(nextNote).tick();
    }

    private long messageTick() {
        return score.isEmpty() || score.messages().isEmpty()
                ? Ticks.NEVER
                : nextMessageRound * score.length()
                        + score.messages().get(nextMessage).tick();
    }

    private long endTick() {
        return sounding.isEmpty() ? Ticks.NEVER : sounding.peek().endTick;
    }

    long nextTick() {
        if (!chased.isEmpty()) {
            return chasedTick;
        }
        return Math.min(endTick(), Math.min(messageTick(), noteTick()));
    }

    /** The ends, at {@code tick}, of the notes that sound. */
    void endAll(long tick, Consumer<NoteEnd> end) {
        List<Sounding> all = new ArrayList<>(sounding);
        all.sort(BY_END);
        sounding.clear();
        chased.clear();
        all.forEach(one -> end.accept(NoteEnd.plain(tick, one.start)));
    }

    /** The next event at its place in the piece; null when it is a note that is not played. */
    Event next(long arrival) {
        if (!chased.isEmpty()) {
            return begin(chased.poll(), chasedTick / score.length(), chasedTick, arrival);
        }
        long tick = nextTick();
        if (endTick() == tick) {
            Sounding one = sounding.poll();
            return new NoteEnd(tick, one.start, one.release);
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
