package harpel.engine;

import harpel.event.Event;
import harpel.event.EventOrder;
import harpel.event.Message;
import harpel.event.NoteEnd;
import harpel.event.NoteStart;
import harpel.piece.Phrase;
import harpel.time.Ticks;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;

/** Plays a phrase over and over from tick 0 of the piece. Owned by the engine thread. */
final class PhrasePlayer {
    private final long length;
    private final List<Event> written;
    private final Map<NoteStart, NoteStart> sounding = new IdentityHashMap<>();
    private long round;
    private int next;

    PhrasePlayer(Phrase phrase) {
        length = phrase.lengthTicks();
        written = phrase.events(0, 0).stream().sorted(EventOrder.INSTANCE).toList();
    }

    /** Goes to the first event at or after {@code tick}; notes that began before are not caught up. */
    void locate(long tick) {
        sounding.clear();
        if (written.isEmpty() || length == 0) {
            return;
        }
        round = tick / length;
        next = 0;
        while (nextTick() < tick) {
            advance();
        }
    }

    long nextTick() {
        return written.isEmpty() || length == 0
                ? Ticks.NEVER
                : round * length + written.get(next).tick();
    }

    private void advance() {
        next++;
        if (next == written.size()) {
            next = 0;
            round++;
        }
    }

    /** The ends, at {@code tick}, of the notes that sound. */
    List<NoteEnd> endAll(long tick) {
        List<NoteEnd> ends = sounding.values().stream()
                .map(note -> NoteEnd.plain(tick, note))
                .toList();
        sounding.clear();
        return ends;
    }

    /** The next event at its place in the piece; null when it is the end of a note that was not played. */
    Event next(long arrival) {
        Event event = written.get(next);
        long tick = nextTick();
        advance();
        if (event instanceof NoteStart note) {
            NoteStart start = NoteStart.played(tick, arrival, note.channel(), note.pitch(), note.velocity());
            sounding.put(note, start);
            return start;
        }
        if (event instanceof NoteEnd end) {
            NoteStart start = sounding.remove(end.start());
            return start == null ? null : new NoteEnd(tick, start, end.releaseVelocity());
        }
        return new Message(tick, arrival, ((Message) event).bytes());
    }
}
