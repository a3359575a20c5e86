package harpel.engine;

import static org.assertj.core.api.Assertions.assertThat;

import harpel.event.NoteEnd;
import harpel.event.NoteStart;
import harpel.phrase.Note;
import harpel.phrase.Phrase;
import harpel.piece.Piece;
import harpel.plan.Line;
import harpel.time.Ticks;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;

class PlayersTest {
    private static final long Q = Ticks.PER_QUARTER;

    private final Players players = new Players();
    private final List<String> heard = new ArrayList<>();

    /** Parts that play the same phrase: a note of half a beat at each beat of four. */
    private static Map<String, Line> lines(String... parts) {
        List<Note> notes = new ArrayList<>();
        for (int i = 0; i < 4; i++) {
            notes.add(Note.of(i * Q, Q / 2, 60 + i, 90));
        }
        Piece piece = Piece.empty()
                .withPhrase(Phrase.of("Tide", 4 * Q, notes))
                .withPart("part-1", part -> part.withPhrase("tide"));
        Line line = Line.of(piece, piece.part("part-1").orElseThrow(), null);
        Map<String, Line> lines = new LinkedHashMap<>();
        for (String part : parts) {
            lines.put(part, line);
        }
        return lines;
    }

    private void take(long position, String... parts) {
        players.take(lines(parts), position, (part, ready, end) -> hear(part, end));
    }

    private List<String> playBefore(long tick) {
        players.playBefore(tick, (part, ready, event) -> {
            if (event instanceof NoteStart note) {
                heard.add(part + " +" + note.pitch() + " at " + note.tick());
            } else if (event instanceof NoteEnd end) {
                hear(part, end);
            }
        });
        List<String> copy = List.copyOf(heard);
        heard.clear();
        return copy;
    }

    private void hear(String part, NoteEnd end) {
        heard.add(part + " -" + end.start().pitch() + " at " + end.tick());
    }

    @Test
    void whatComesAtOneTickComesInTheOrderOfTheParts() {
        take(0, "whistle", "bass");
        assertThat(players.nextTick()).isZero();
        assertThat(playBefore(1)).containsExactly("whistle +60 at 0", "bass +60 at 0");
        assertThat(players.nextTick()).isEqualTo(Q / 2);
    }

    @Test
    void aPartThatIsGoneEndsItsNotesAndTheOthersGoOn() {
        take(0, "whistle", "bass");
        playBefore(1);
        take(10, "bass");
        assertThat(heard).containsExactly("whistle -60 at 10");
        heard.clear();
        assertThat(playBefore(Q + 1)).containsExactly("bass -60 at " + Q / 2, "bass +61 at " + Q);
    }

    @Test
    void aPartThatComesBeginsWithItsNextNote() {
        take(0, "bass");
        playBefore(Q / 4);
        take(Q / 4, "bass", "drums");
        assertThat(playBefore(Q + 1)).containsExactly("bass -60 at " + Q / 2, "bass +61 at " + Q, "drums +61 at " + Q);
    }

    @Test
    void allGoToAPlaceTogether() {
        take(0, "whistle", "bass");
        players.locate(2 * Q);
        assertThat(playBefore(2 * Q + 1)).containsExactly("whistle +62 at " + 2 * Q, "bass +62 at " + 2 * Q);
    }

    @Test
    void withoutPartsNothingEverComes() {
        take(0);
        assertThat(players.nextTick()).isEqualTo(Ticks.NEVER);
        assertThat(playBefore(Long.MAX_VALUE)).isEmpty();
    }
}
