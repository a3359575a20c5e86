package harpel.engine;

import static org.assertj.core.api.Assertions.assertThat;

import harpel.chain.Chain;
import harpel.effect.EffectCatalog;
import harpel.event.NoteEnd;
import harpel.event.NoteStart;
import harpel.offline.PrintJob;
import harpel.offline.Tail;
import harpel.phrase.Note;
import harpel.phrase.Phrase;
import harpel.phrase.Traits;
import harpel.piece.Hearing;
import harpel.piece.Part;
import harpel.piece.Piece;
import harpel.plan.Program;
import harpel.run.Tap;
import harpel.time.Ticks;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;

/** Phrases in the engine: chance before the chain, notes that are off, what is chased, what is heard past the chain. */
class ReadyPhraseTest {
    private static final long QUARTER = Ticks.PER_QUARTER;
    private static final long BAR = 4 * QUARTER;

    private static Piece piece(Phrase phrase, String effect, String... more) {
        Chain chain = Chain.EMPTY.plus(0, EffectCatalog.of(effect));
        Part lead = Part.of("Lead", chain).withPhrase(phrase.id());
        Piece piece = Piece.empty().withPhrase(phrase);
        Part second = more.length == 0
                ? null
                : Part.of("Second", Chain.EMPTY).withHearing(new Hearing(Hearing.Source.valueOf(more[0]), "lead", 0));
        return piece.withParts(second == null ? List.of(lead) : List.of(lead, second));
    }

    private static List<String> printed(Piece piece, String part, long from, long end) throws InterruptedException {
        Program program = Program.of(piece);
        return new PrintJob(program.plan(), part, Tail.STOP, Tap.NONE)
                .from(from).print(program, end).events().stream()
                        .filter(NoteStart.class::isInstance)
                        .map(NoteStart.class::cast)
                        .map(note -> note.pitch() + " at " + note.tick() * 480 / QUARTER)
                        .toList();
    }

    private static Note note(int pitch, int chance, boolean off) {
        return Note.of(0, BAR, pitch, 90).withTraits(Traits.of(chance, off, Map.of()));
    }

    /** Four notes 57 60 64 67 held a bar with chances 100 100 0 100 before an arpeggio in eighths. */
    @Test
    void aNoteThatIsNotTakenMakesTheChordSmallerNotHoled() throws InterruptedException {
        Phrase phrase = Phrase.of(
                "P",
                BAR,
                List.of(note(57, 100, false), note(60, 100, false), note(64, 0, false), note(67, 100, false)));
        Piece plain = piece(phrase, "arpeggio");
        Piece eighths = plain.withPart(
                "lead",
                part -> part.withChain(part.chain()
                        .withStage(
                                "arpeggio",
                                stage -> stage.with(
                                        harpel.effect.held.Arpeggio.PACE, harpel.time.TimeValue.parse("1/8")))));
        assertThat(printed(eighths, "lead", 0, BAR))
                .containsExactly(
                        "57 at 0",
                        "60 at 240",
                        "67 at 480",
                        "57 at 720",
                        "60 at 960",
                        "67 at 1200",
                        "57 at 1440",
                        "60 at 1680");
    }

    @Test
    void aNoteThatIsOffIsKeptAndNotPlayed() throws InterruptedException {
        Phrase phrase = Phrase.of("P", BAR, List.of(note(57, 100, true), note(60, 100, false)));
        assertThat(printed(piece(phrase, "transpose"), "lead", 0, BAR)).containsExactly("60 at 0");
    }

    @Test
    void aNoteThatPlayBeginsInsideOfStartsThereAndKeepsItsEnd() throws InterruptedException {
        Phrase phrase = Phrase.of("P", BAR, List.of(Note.of(0, BAR, 57, 90), Note.of(QUARTER, QUARTER, 60, 90)));
        Program program = Program.of(piece(phrase, "transpose"));
        long from = BAR + 3 * QUARTER / 2;
        var events = new PrintJob(program.plan(), "lead", Tail.STOP, Tap.NONE)
                .from(from)
                .print(program, 2 * BAR)
                .events();
        assertThat(events.stream().filter(NoteStart.class::isInstance).map(event -> event.tick() - from))
                .containsExactly(0L, 0L);
        assertThat(events.stream().filter(NoteEnd.class::isInstance).map(event -> event.tick()))
                .containsExactly(BAR + 2 * QUARTER, 2 * BAR);
    }

    @Test
    void aReadyPhraseIsHeardPastTheChainAndByPartsThatHearWhatIsSent() throws InterruptedException {
        Phrase ready = Phrase.of("P", BAR, List.of(note(57, 100, false))).withReady(true);
        Piece after = piece(ready, "chord-keys", "OUTPUT_OF");
        assertThat(printed(after, "lead", 0, BAR)).containsExactly("57 at 0");
        assertThat(printed(after, "second", 0, BAR)).containsExactly("57 at 0");
        assertThat(printed(piece(ready, "chord-keys", "INPUT_OF"), "second", 0, BAR))
                .isEmpty();
        Piece again = piece(ready.withReady(false), "chord-keys", "INPUT_OF");
        assertThat(printed(again, "lead", 0, BAR))
                .as("unticked, it is worked on")
                .hasSize(3);
        assertThat(printed(again, "second", 0, BAR)).containsExactly("57 at 0");
    }

    @Test
    void aThousandEditsInPlayLeaveNothingHanging() {
        PhraseLaws.edited(EffectCatalog.of("echo"), 11, 1000);
    }
}
