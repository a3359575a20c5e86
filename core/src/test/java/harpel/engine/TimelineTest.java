package harpel.engine;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.tuple;

import harpel.chain.Chain;
import harpel.format.PieceFile;
import harpel.offline.PrintJob;
import harpel.offline.Tail;
import harpel.param.type.PathType;
import harpel.phrase.Note;
import harpel.phrase.Phrase;
import harpel.piece.Block;
import harpel.piece.Hearing;
import harpel.piece.KeyChange;
import harpel.piece.Part;
import harpel.piece.Piece;
import harpel.piece.perform.Lever;
import harpel.plan.Program;
import harpel.run.Tap;
import harpel.testkit.Heard;
import harpel.testkit.Played;
import harpel.theory.Key;
import harpel.time.Ticks;
import java.util.List;
import java.util.Set;
import org.junit.jupiter.api.Test;

/** The timeline as it is printed; that it is heard so is a law. */
class TimelineTest {
    private static final long QUARTER = Ticks.PER_QUARTER;
    private static final long BAR = 4 * QUARTER;

    /** A part with a phrase of four quarters, C to F, and these blocks. */
    private static Piece piece(String chain, Block... blocks) {
        List<Note> notes = List.of(
                Note.of(0, QUARTER, 60, 90),
                Note.of(QUARTER, QUARTER, 62, 90),
                Note.of(2 * QUARTER, QUARTER, 64, 90),
                Note.of(3 * QUARTER, QUARTER, 65, 90));
        return Piece.empty()
                .withTimeline(true)
                .withPhrase(Phrase.of("Tide", BAR, notes))
                .withParts(List.of(Part.of("Lead", chain.isEmpty() ? Chain.EMPTY : Played.chain(chain))
                        .withBlocks(List.of(blocks))));
    }

    private static List<Heard> print(Piece piece, String part, int bars) {
        return print(piece, part, 0, bars);
    }

    private static List<Heard> print(Piece piece, String part, long from, int bars) {
        Program program = Program.of(piece);
        try {
            return Heard.of(new PrintJob(program.plan(), Set.of(part), Tail.CUT, Tap.NONE)
                    .from(from)
                    .print(program, from + bars * BAR)
                    .events());
        } catch (InterruptedException e) {
            throw new AssertionError(e);
        }
    }

    @Test
    void aPhraseRepeatsInItsBlockFromAPlaceOnAndEndsWithIt() {
        Block block = Block.of(BAR, BAR + QUARTER / 2, "tide").withFrom(3 * QUARTER);
        assertThat(print(piece("", block), "lead", 4))
                .extracting(Heard::beat, Heard::pitch, Heard::length)
                .containsExactly(
                        tuple(4.0, 65, 1.0),
                        tuple(5.0, 60, 1.0),
                        tuple(6.0, 62, 1.0),
                        tuple(7.0, 64, 1.0),
                        tuple(8.0, 65, 0.5));
    }

    @Test
    void aPartIsMuteWhereTheTimelineSaysSoAndOthersHearItAllTheSame() {
        Piece piece = piece("", Block.of(0, 3 * BAR, "tide"));
        Piece muted = piece.withParts(List.of(
                piece.parts()
                        .get(0)
                        .withPlaying(piece.parts()
                                .get(0)
                                .playing()
                                .withMutes(List.of(
                                        new PathType.Point<>(BAR / 8, true), new PathType.Point<>(2 * BAR, false)))),
                Part.of("Hearer", Chain.EMPTY).withHearing(new Hearing(Hearing.Source.OUTPUT_OF, "lead", 0))));
        assertThat(print(muted, "lead", 3))
                .extracting(Heard::beat, Heard::pitch, Heard::length)
                .containsExactly(
                        tuple(0.0, 60, 0.5),
                        tuple(8.0, 60, 1.0),
                        tuple(9.0, 62, 1.0),
                        tuple(10.0, 64, 1.0),
                        tuple(11.0, 65, 1.0));
        assertThat(print(muted, "hearer", 3)).hasSize(12);
        assertThat(print(muted.withTimeline(false).withPart("lead", part -> part.withPhrase("tide")), "lead", 3))
                .hasSize(12);
    }

    @Test
    void whoHasNoBlocksIsAlwaysThereAndLoopsAreAnotherMatter() {
        Piece piece = piece("{'effect':'pulse'}", Block.of(BAR, BAR, ""));
        Piece without = piece.withPart("lead", part -> part.withBlocks(List.of()));
        assertThat(print(without, "lead", 3)).anyMatch(note -> note.beat() < 4).anyMatch(note -> note.beat() >= 8);
        assertThat(print(without.withPart("lead", part -> part.withPhrase("tide")), "lead", 3))
                .as("also where it has a phrase, which only blocks play")
                .isEqualTo(print(without, "lead", 3));
        assertThat(print(piece, "lead", 3)).isNotEmpty().allMatch(note -> note.beat() >= 4 && note.beat() < 8);
        Piece loops = piece.withTimeline(false).withPart("lead", part -> part.withPhrase("tide"));
        assertThat(print(loops, "lead", 3)).anyMatch(note -> note.beat() >= 8);
    }

    /** Two whole notes long it would sound for bars in which the part is not there. */
    @Test
    void whatPlaysByItselfEndsItsLastNoteWithItsBlockAsAPhraseDoes() {
        Piece piece = piece(
                "{'effect':'pulse','pace':'1/1','length':200,'layers':[{'every':1}]},{'effect':'touch'}",
                Block.of(0, 3 * QUARTER, ""));
        assertThat(print(piece, "lead", 3))
                .extracting(Heard::beat, Heard::length)
                .containsExactly(tuple(0.0, 3.0));
    }

    @Test
    void repeatsRingOverTheEndOfABlock() {
        Piece piece = piece("{'effect':'echo','repeats':2,'time':'1/4','fade':0}", Block.of(0, QUARTER, "tide"));
        assertThat(print(piece, "lead", 2))
                .extracting(Heard::beat, Heard::pitch)
                .containsExactly(tuple(0.0, 60), tuple(1.0, 60), tuple(2.0, 60));
    }

    @Test
    void whoHearsAnotherDoesSoInItsBlocks() {
        Piece lead = piece("", Block.of(0, 2 * BAR, "tide"));
        Part below = Part.of("Below", Played.chain("{'effect':'transpose','octaves':-1}"))
                .withHearing(new Hearing(Hearing.Source.OUTPUT_OF, "lead", 0))
                .withBlocks(List.of(Block.of(2 * QUARTER, BAR, "")));
        Piece piece = lead.withParts(List.of(lead.parts().get(0), below));
        assertThat(print(piece, "below", 2))
                .extracting(Heard::beat, Heard::pitch)
                .containsExactly(tuple(2.0, 52), tuple(3.0, 53), tuple(4.0, 48), tuple(5.0, 50));
    }

    @Test
    void everyEffectReadsTheKeyAtItsTick() {
        Piece piece = piece("{'effect':'scale-fit'}", Block.of(0, 3 * BAR, "tide"))
                .withKeys(
                        List.of(KeyChange.of(BAR, Key.parse("E major")), KeyChange.of(2 * BAR, Key.parse("C major"))));
        List<Heard> notes = print(piece, "lead", 3);
        assertThat(notes.subList(0, 4)).extracting(Heard::pitch).containsExactly(60, 62, 64, 65);
        assertThat(notes.subList(4, 8))
                .extracting(Heard::pitch)
                .allMatch(pitch -> Key.parse("E major").contains(pitch));
        assertThat(notes.subList(8, 12)).extracting(Heard::pitch).containsExactly(60, 62, 64, 65);
        assertThat(print(piece, "lead", BAR + 2 * QUARTER, 1).subList(0, 2))
                .as("also where play begins in the midst")
                .extracting(Heard::pitch)
                .containsExactly(notes.get(6).pitch(), notes.get(7).pitch());
    }

    @Test
    void aBlockPastTheChainAndOneWithItsOwnVariation() {
        Piece piece = piece(
                "{'effect':'stray','amount':100,'reach':12}",
                Block.of(0, BAR, "tide"),
                Block.of(BAR, BAR, "tide").withChain(false),
                Block.of(2 * BAR, BAR, "tide").withVariation(23));
        List<Heard> notes = print(piece, "lead", 3);
        assertThat(notes.subList(4, 8)).extracting(Heard::pitch).containsExactly(60, 62, 64, 65);
        List<Heard> own = print(piece.withVariation(23), "lead", 3);
        assertThat(own.subList(8, 12)).isEqualTo(notes.subList(8, 12));
        assertThat(own.subList(0, 4)).isNotEqualTo(notes.subList(0, 4));
    }

    @Test
    void aLeverStandsWhereItsPointsSayWhileTheTimelinePlays() throws Exception {
        Piece piece = piece(
                        "{'effect':'touch','fixed':1,'move':{'fixed':[{'by':'lever','lever':'Tide','amount':100}]}}",
                        Block.of(0, 2 * BAR, "tide"))
                .withLevers(List.of(Lever.of("Tide", 50)
                        .withPoint(new Lever.Point(0, 0))
                        .withPoint(new Lever.Point(BAR, 100))
                        .withPoint(new Lever.Point(BAR + 2 * QUARTER, 20))));
        assertThat(print(piece, "lead", 2)).extracting(Heard::velocity).containsExactly(1, 33, 65, 96, 127, 77, 26, 26);
        Piece loops = piece.withTimeline(false).withPart("lead", part -> part.withPhrase("tide"));
        assertThat(print(loops, "lead", 1)).extracting(Heard::velocity).containsOnly(65);
        assertThat(PieceFile.read(PieceFile.write(piece))).isEqualTo(piece);
        assertThat(piece.levers().get(0).withoutPoint(0).at(0)).isEqualTo(100);
        assertThatThrownBy(() -> new Lever.Point(0, 101)).hasMessageContaining("0–100 %");
    }

    @Test
    void blocksStandInTheFile() throws Exception {
        Piece piece = piece(
                        "",
                        Block.of(0, BAR, "tide"),
                        Block.of(BAR, BAR, "").withVariation(7),
                        Block.of(3 * BAR, 2, "tide").withFrom(9).withChain(false))
                .withKeys(List.of(KeyChange.of(5, Key.parse("F# dorian"))));
        assertThat(PieceFile.read(PieceFile.write(piece))).isEqualTo(piece);
        String over = PieceFile.write(piece).replaceFirst("\"at\":\\s*61440", "\"at\": 61000");
        assertThatThrownBy(() -> PieceFile.read(over))
                .hasMessageContaining("blocks")
                .hasMessageContaining("begins at tick 61000 before another ends at 61440");
    }
}
