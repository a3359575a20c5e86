package harpel.print;

import static org.assertj.core.api.Assertions.assertThat;

import harpel.format.FileException;
import harpel.format.PieceFile;
import harpel.phrase.Note;
import harpel.phrase.Phrase;
import harpel.piece.Block;
import harpel.piece.Mix;
import harpel.piece.Part;
import harpel.piece.Piece;
import harpel.print.WhyNothing.Answer;
import harpel.print.WhyNothing.Does;
import harpel.print.WhyNothing.Now;
import harpel.time.Ticks;
import java.util.List;
import java.util.function.UnaryOperator;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Every way to silence: the first place where notes stop is named, and the action offered brings them back. */
class WhyNothingTest {
    private static final long BAR = 4L * Ticks.PER_QUARTER;
    private static final Now PLAYS = new Now(true, 0, "", List.of("", "Pier"));

    private static Piece piece(String chain) {
        String text = ("{'harpel':1,'parts':[{'name':'Lead','phrase':'tide','chain':[" + chain
                        + "]},{'name':'Bass','chain':[]}],"
                        + "'phrases':[{'name':'Tide','length':" + BAR + ",'notes':[[0,15360,60,90]]}]}")
                .replace('\'', '"');
        try {
            return PieceFile.read(text);
        } catch (FileException e) {
            throw new AssertionError(e);
        }
    }

    private static Answer why(Piece piece, Now now) throws InterruptedException {
        return WhyNothing.of(piece, piece.part("lead").orElseThrow(), now);
    }

    private static Answer why(Piece piece) throws InterruptedException {
        return why(piece, PLAYS);
    }

    private static Piece lead(Piece piece, UnaryOperator<Part> change) {
        return piece.withPart("lead", change);
    }

    private static void isHeardAgain(Piece silent, Answer answer) throws InterruptedException {
        assertThat(answer.does()).isEqualTo(Does.EDIT);
        assertThat(answer.action()).isNotEmpty();
        assertThat(why(answer.fix().apply(silent)).text()).startsWith("Lead is on its way");
    }

    @Test
    void whatIsOnItsWayIsSaidWithWhereItGoes() throws Exception {
        Answer answer = why(piece(""));
        assertThat(answer.text())
                .startsWith("Lead is on its way: it sends notes and go to")
                .contains("channel 1");
        assertThat(answer.does()).isEqualTo(Does.NOTHING);
    }

    @Test
    void timeThatStandsStillIsStarted() throws Exception {
        Answer answer = why(piece(""), new Now(false, 0, "", List.of("")));
        assertThat(answer.text()).contains("Time stands still");
        assertThat(answer.does()).isEqualTo(Does.PLAY);
    }

    @Test
    void mutedSoloedElsewhereAndLevelNought() throws Exception {
        Piece mute = lead(piece(""), part -> part.withMix(Mix.PLAIN.withMute(true)));
        assertThat(why(mute).text()).isEqualTo("Muted.");
        isHeardAgain(mute, why(mute));
        Piece solo = piece("").withPart("bass", part -> part.withMix(Mix.PLAIN.withSolo(true)));
        assertThat(why(solo).text()).isEqualTo("Another part is solo.");
        isHeardAgain(solo, why(solo));
        Piece low = lead(piece(""), part -> part.withMix(Mix.PLAIN.withLevel(0)));
        assertThat(why(low).text()).contains("level");
        isHeardAgain(low, why(low));
    }

    /** Each stage swallows what comes in: a range that lets nothing through, a key that is too short, a pitch that does not exist. */
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "{'effect':'echo'},{'effect':'sieve','keys':['C7','C8']}| Sieve",
                "{'effect':'transpose','octaves':4},{'effect':'transpose','octaves':4}| outside 0–127",
                "{'effect':'note-bend'}| Note Bend"
            })
    void theChainIsTriedAndTheFirstPlaceWhereNotesStopIsNamed(String chain, String named) throws Exception {
        assertThat(why(piece(chain.replace('"', '\''))).text()).contains(named);
    }

    @Test
    void keysAloneAreTriedWithThreeNotes() throws Exception {
        Piece keys = lead(piece("{'effect':'sieve','keys':['C7','C8']}"), part -> part.withPhrase(""));
        assertThat(why(keys, new Now(false, 0, "", List.of(""))).text()).contains("Sieve");
        Piece open = lead(piece(""), part -> part.withPhrase(""));
        assertThat(why(open, new Now(false, 0, "", List.of(""))).text())
                .as("keys need no transport")
                .startsWith("Lead is on its way: keys that are played");
    }

    @Test
    void devicesThatAreNotThere() throws Exception {
        Piece lost = lead(piece(""), part -> part.withPort("Crane"));
        assertThat(why(lost).text()).contains("“Crane” is not connected");
        isHeardAgain(lost, why(lost));
        Now mute = new Now(true, 0, "This machine has no sound device.", List.of("", "Pier"));
        Answer answer = why(piece(""), mute);
        assertThat(answer.action()).isEqualTo("Send to Pier");
        Now alone = new Now(true, 0, "This machine has no sound device.", List.of(""));
        assertThat(why(piece(""), alone).text()).isEqualTo("This machine has no sound device.");
    }

    @Test
    void beforeAndAfterItsBlocksAndAnEmptyPlace() throws Exception {
        Piece timeline =
                lead(piece("").withTimeline(true), part -> part.withBlocks(List.of(Block.of(2 * BAR, BAR, "tide"))));
        assertThat(why(timeline).text()).isEqualTo("Lead is not heard: nothing here until bar 3.");
        isHeardAgain(timeline, why(timeline));
        assertThat(why(timeline, new Now(true, 5 * BAR, "", List.of(""))).text())
                .isEqualTo("Lead is not heard: nothing here any more.");
        Piece empty =
                lead(piece("").withPhrase(Phrase.of("Calm", BAR, List.<Note>of())), part -> part.withPhrase("calm"));
        assertThat(why(empty).text()).startsWith("Nothing comes in within 4 bars");
        Piece nothing = lead(piece(""), part -> part.withPhrase("gone"));
        assertThat(why(nothing).action()).isNotEmpty();
    }
}
