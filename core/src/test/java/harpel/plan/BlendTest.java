package harpel.plan;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import harpel.format.PieceFile;
import harpel.offline.PrintJob;
import harpel.offline.Tail;
import harpel.phrase.Note;
import harpel.phrase.Phrase;
import harpel.piece.Part;
import harpel.piece.Piece;
import harpel.piece.perform.Lever;
import harpel.run.Tap;
import harpel.testkit.Heard;
import harpel.testkit.Played;
import harpel.time.Ticks;
import java.util.List;
import org.junit.jupiter.api.Test;

/** A lever between the two chains of a part. */
class BlendTest {
    private static Piece piece(String a, String b, double lever) {
        return Piece.empty()
                .withPhrase(Phrase.of("Tide", 4 * Ticks.PER_QUARTER, List.of(Note.of(0, Ticks.PER_QUARTER, 60, 100))))
                .withLevers(List.of(Lever.of("Tide", lever)))
                .withParts(List.of(Part.of("Lead", Played.chain(a))
                        .withPhrase("tide")
                        .withRack(Part.of("Lead", Played.chain(a))
                                .rack()
                                .withOther(Played.chain(b))
                                .withBetween("Tide"))));
    }

    private static List<Heard> print(Piece piece) throws InterruptedException {
        Program program = Program.of(piece);
        return Heard.of(new PrintJob(program.plan(), "lead", Tail.RING, Tap.NONE)
                .print(program, 4 * Ticks.PER_QUARTER)
                .events());
    }

    private static final String FEW = "{'effect':'echo','repeats':1,'time':'1/4','fade':0,'ring-out':true}";
    private static final String MANY =
            "{'effect':'echo','repeats':5,'time':'1/4','fade':0,'first':'drop','ring-out':true}";

    @Test
    void numbersAreInBetweenAndChoicesChangeInTheMiddle() throws Exception {
        assertThat(print(piece(FEW, MANY, 0))).hasSize(2);
        assertThat(print(piece(FEW, MANY, 100))).as("the first is dropped").hasSize(5);
        assertThat(print(piece(FEW, MANY, 49)))
                .as("three repeats behind the first")
                .hasSize(4);
        assertThat(print(piece(FEW, MANY, 51))).as("three repeats without it").hasSize(3);
    }

    @Test
    void theLeverLeadsFromAToBWhicheverIsHeard() throws Exception {
        Piece a = piece(FEW, MANY, 100);
        Piece b = a.withPart("lead", Part::withOtherChain);
        assertThat(print(b)).isEqualTo(print(a));
        assertThat(print(b.withLevers(List.of(Lever.of("Tide", 0))))).hasSize(2);
    }

    @Test
    void chainsWithOtherStagesHaveNothingBetween() throws Exception {
        Piece piece = piece(FEW, "{'effect':'transpose','semitones':12}", 100);
        assertThat(piece.parts().get(0).rack().isAlike()).isFalse();
        assertThat(print(piece)).hasSize(2);
    }

    @Test
    void aLeverThatMovesOnTheTimelineMovesThroughIt() throws Exception {
        String soft = "{'effect':'touch','fixed':20}";
        String loud = "{'effect':'touch','fixed':120}";
        Piece piece = piece(soft, loud, 0)
                .withTimeline(true)
                .withLevers(List.of(Lever.of("Tide", 0)
                        .withPoint(new Lever.Point(0, 0))
                        .withPoint(new Lever.Point(8 * Ticks.PER_QUARTER, 100))))
                .withPart(
                        "lead",
                        part -> part.withBlocks(List.of(harpel.piece.Block.of(0, 8 * Ticks.PER_QUARTER, "tide"))));
        Program program = Program.of(piece);
        List<Heard> heard = Heard.of(new PrintJob(program.plan(), "lead", Tail.CUT, Tap.NONE)
                .print(program, 8 * Ticks.PER_QUARTER)
                .events());
        assertThat(heard).hasSize(2);
        assertThat((double) heard.get(0).velocity()).isCloseTo(20, within(1.0));
        assertThat((double) heard.get(1).velocity()).isCloseTo(70, within(2.0));
    }

    @Test
    void itIsKeptInTheFile() throws Exception {
        Piece piece = piece(FEW, MANY, 30);
        assertThat(PieceFile.read(PieceFile.write(piece))).isEqualTo(piece);
    }
}
