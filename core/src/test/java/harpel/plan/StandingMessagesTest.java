package harpel.plan;

import static org.assertj.core.api.Assertions.assertThat;

import harpel.chain.Chain;
import harpel.event.Event;
import harpel.event.Message;
import harpel.offline.PrintJob;
import harpel.offline.Tail;
import harpel.phrase.Note;
import harpel.phrase.Phrase;
import harpel.piece.Block;
import harpel.piece.Part;
import harpel.piece.Piece;
import harpel.print.PrintOrder;
import harpel.time.Ticks;
import java.util.HexFormat;
import java.util.List;
import java.util.Set;
import org.junit.jupiter.api.Test;

/** What a phrase has set before the place where play begins stands there, as notes that began before are caught up. */
class StandingMessagesTest {
    private static final long BAR = 4 * Ticks.PER_QUARTER;

    private static Message said(double bar, int... bytes) {
        byte[] all = new byte[bytes.length];
        for (int i = 0; i < bytes.length; i++) {
            all[i] = (byte) bytes[i];
        }
        return new Message((long) (bar * BAR), 0, all);
    }

    private static final Phrase PHRASE = Phrase.of(
                    "Tide", 4 * BAR, List.of(Note.of(0, 4 * BAR, 60, 90), Note.of(3 * BAR, BAR, 64, 90)))
            .withMessages(List.of(
                    said(0, 0xB0, 0, 1),
                    said(0, 0xC0, 12),
                    said(1, 0xB0, 1, 10),
                    said(1.5, 0xB0, 123, 0),
                    said(2, 0xE0, 0, 80),
                    said(3, 0xB0, 1, 20)));

    private static Piece piece() {
        return Piece.empty()
                .withPhrase(PHRASE)
                .withParts(List.of(Part.of("Lead", Chain.EMPTY).withPhrase("tide")));
    }

    /** What is played at a tick, messages in hexadecimal digits, notes by their pitch. */
    private static List<String> at(Piece piece, long tick) {
        return PrintJob.phrases(Program.of(piece), tick, tick + 1).get("lead").events().stream()
                .filter(event -> event.tick() == tick)
                .map(StandingMessagesTest::shown)
                .toList();
    }

    private static String shown(Event event) {
        return event instanceof Message message
                ? HexFormat.of().withUpperCase().formatHex(message.bytes())
                : event.toString().replaceAll(".*pitch=?\\s*(\\d+).*", "$1");
    }

    @Test
    void inTheMiddleOfAPhraseTheLastOfEachStandsBeforeTheNotesThatAreCaughtUp() {
        assertThat(at(piece(), 5 * BAR / 2))
                .startsWith("B00001", "C00C", "B0010A", "E00050")
                .hasSize(5);
        assertThat(at(piece(), 0)).startsWith("B00001", "C00C").hasSize(3);
    }

    @Test
    void inALaterRoundWhatTheRoundBeforeSetStandsToo() {
        assertThat(at(piece(), 4 * BAR + BAR / 2))
                .startsWith("E00050", "B00114", "B00001", "C00C")
                .hasSize(5);
        assertThat(at(piece(), 4 * BAR + 5 * BAR / 2))
                .startsWith("B00001", "C00C", "B0010A", "E00050")
                .hasSize(5);
    }

    @Test
    void aBlockWithAPlaceInItsPhraseBeginsWithWhatStandsThere() throws InterruptedException {
        Piece timeline = piece().withTimeline(true)
                .withPart(
                        "lead",
                        part -> part.withBlocks(
                                List.of(Block.of(8 * BAR, BAR, "tide").withFrom(5 * BAR / 2))));
        // From before it, and as it is printed to files of notes and of sound.
        List<Event> printed = new PrintOrder(timeline, Set.of("lead"), 7 * BAR, 9 * BAR, Tail.CUT)
                .print(done -> {})
                .events()
                .get("lead");
        assertThat(printed.stream().filter(event -> event.tick() == 8 * BAR).map(StandingMessagesTest::shown))
                .startsWith("B00001", "C00C", "B0010A", "E00050")
                .hasSize(5);
    }

    /** A print of bars has what is said within them. */
    @Test
    void whatIsSaidAtTheEndIsNotInThePrintOfTheBarsBefore() throws InterruptedException {
        List<Event> printed = new PrintOrder(piece(), Set.of("lead"), 0, BAR, Tail.STOP)
                .print(done -> {})
                .events()
                .get("lead");
        assertThat(printed.stream().filter(Message.class::isInstance).map(StandingMessagesTest::shown))
                .containsExactly("B00001", "C00C");
        assertThat(printed.get(printed.size() - 1).tick())
                .as("the note ends there")
                .isEqualTo(BAR);
    }
}
