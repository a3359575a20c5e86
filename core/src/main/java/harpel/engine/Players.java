package harpel.engine;

import harpel.event.Event;
import harpel.event.NoteEnd;
import harpel.plan.Line;
import harpel.plan.PhrasePlayer;
import harpel.time.Ticks;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.Map;

/**
 * The players of a piece's lines, in the order of its parts, so that what comes at one tick comes in the same order as in a print.
 * Owned by the engine thread.
 */
final class Players {
    /** Takes what is played to a part, and whether it is heard past its chain. */
    interface Ear<E extends Event> {
        void hear(String part, boolean ready, E event);
    }

    private final Map<String, PhrasePlayer> byPart = new LinkedHashMap<>();
    /** The same, looked through at each turn, with nothing made for it. */
    private PhrasePlayer[] players = {};

    private String[] parts = {};

    /**
     * Goes on with these lines, a line for a part.
     *
     * @param ends hears the ends of notes that sound and are in none of them
     */
    void take(Map<String, Line> lines, long position, Ear<NoteEnd> ends) {
        if (!byPart.keySet().equals(lines.keySet())) {
            join(lines, position, ends);
        }
        for (int i = 0; i < players.length; i++) {
            String part = parts[i];
            players[i].take(lines.get(part), position, (end, ready) -> ends.hear(part, ready, end));
        }
    }

    private void join(Map<String, Line> lines, long position, Ear<NoteEnd> ends) {
        Map<String, PhrasePlayer> before = new HashMap<>(byPart);
        byPart.clear();
        lines.forEach((part, line) -> {
            PhrasePlayer player = before.remove(part);
            if (player == null) {
                player = new PhrasePlayer(line, byPart.size());
                player.join(position);
            }
            byPart.put(part, player);
        });
        before.forEach((part, player) -> player.endAll(position, (end, ready) -> ends.hear(part, ready, end)));
        players = byPart.values().toArray(PhrasePlayer[]::new);
        parts = byPart.keySet().toArray(String[]::new);
    }

    /** All go to a tick. */
    void locate(long tick) {
        for (PhrasePlayer player : players) {
            player.locate(tick);
        }
    }

    /** Plays what comes before a tick. */
    void playBefore(long tick, Ear<Event> ear) {
        for (int i = 0; i < players.length; i++) {
            PhrasePlayer player = players[i];
            while (player.nextTick() < tick) {
                Event event = player.next();
                if (event != null) {
                    ear.hear(parts[i], player.isReady(), event);
                }
            }
        }
    }

    /** When the next event comes, or {@link Ticks#NEVER}. */
    long nextTick() {
        long next = Ticks.NEVER;
        for (PhrasePlayer player : players) {
            next = Math.min(next, player.nextTick());
        }
        return next;
    }
}
