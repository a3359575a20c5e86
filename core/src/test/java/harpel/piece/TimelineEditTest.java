package harpel.piece;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.tuple;

import harpel.chain.Chain;
import harpel.phrase.Note;
import harpel.phrase.Phrase;
import harpel.piece.Timeline.Ref;
import harpel.piece.perform.Lever;
import harpel.testkit.Randoms;
import harpel.testkit.Tries;
import harpel.theory.Key;
import harpel.time.MeterMap;
import harpel.time.TempoMap;
import harpel.time.TimeMap;
import java.util.List;
import java.util.Set;
import org.junit.jupiter.api.Test;

/** Edits of the timeline. */
class TimelineEditTest {
    private static final long BAR = 61_440;
    private static final Ref FIRST = new Ref("lead", 0);

    private static Piece piece(Block... blocks) {
        return Piece.empty()
                .withPhrase(Phrase.of("Tide", 2 * BAR, List.of(Note.of(0, BAR, 60, 90))))
                .withParts(List.of(
                        Part.of("Lead", Chain.EMPTY).withBlocks(List.of(blocks)), Part.of("Bass", Chain.EMPTY)));
    }

    private static List<Block> blocks(Piece piece, String part) {
        return piece.part(part).orElseThrow().blocks();
    }

    private static void shows(Piece piece, org.assertj.core.groups.Tuple... wanted) {
        assertThat(blocks(piece, "lead"))
                .extracting(
                        block -> block.at() / (double) BAR,
                        block -> block.length() / (double) BAR,
                        block -> block.from() / (double) BAR)
                .containsExactly(wanted);
    }

    @Test
    void whatIsLaidOverABlockCutsIt() {
        Piece long4 = piece(Block.of(0, 5 * BAR, "tide"));
        shows(
                Timeline.put(long4, "lead", Block.of(BAR, BAR, "tide")),
                tuple(0.0, 1.0, 0.0),
                tuple(1.0, 1.0, 0.0),
                tuple(2.0, 3.0, 0.0));
        shows(Timeline.put(long4, "lead", Block.of(0, 3 * BAR, "")), tuple(0.0, 3.0, 0.0), tuple(3.0, 2.0, 1.0));
        shows(Timeline.put(long4, "lead", Block.of(0, 9 * BAR, "")), tuple(0.0, 9.0, 0.0));
    }

    @Test
    void blocksMoveTogetherAndNoFurtherThanTheBeginning() {
        Piece two = piece(Block.of(BAR, BAR, "tide"), Block.of(3 * BAR, BAR, "tide"));
        Timeline.Result moved = Timeline.move(two, Timeline.all(two), -2 * BAR, 0, false);
        shows(moved.piece(), tuple(0.0, 1.0, 0.0), tuple(2.0, 1.0, 0.0));
        assertThat(moved.refs()).containsExactly(new Ref("lead", 0), new Ref("lead", 2 * BAR));
        Timeline.Result down = Timeline.move(two, Timeline.all(two), BAR, 5, true);
        assertThat(blocks(down.piece(), "bass")).extracting(Block::at).containsExactly(2 * BAR, 4 * BAR);
        assertThat(blocks(down.piece(), "lead")).hasSize(2);
    }

    @Test
    void cutAndJoinedItIsAsBefore() {
        Piece one = piece(Block.of(0, 5 * BAR, "tide").withVariation(4));
        Piece cut = Timeline.cut(one, Set.of(FIRST), 3 * BAR);
        shows(cut, tuple(0.0, 3.0, 0.0), tuple(3.0, 2.0, 1.0));
        assertThat(Timeline.cut(one, Set.of(FIRST), 5 * BAR)).isEqualTo(one);
        Timeline.Result joined = Timeline.join(cut, Timeline.all(cut));
        assertThat(joined.piece()).isEqualTo(one);
        assertThat(joined.refs()).containsExactly(FIRST);
        Piece other = Timeline.change(cut, Set.of(new Ref("lead", 3 * BAR)), block -> block.withVariation(5));
        assertThat(Timeline.join(other, Timeline.all(other)).piece())
                .as("another variation")
                .isEqualTo(other);
    }

    @Test
    void blocksOfDifferentPhrasesJoinAndTheirNotesBecomeOnePhrase() {
        Piece two = piece(
                        Block.of(0, BAR + BAR / 2, "tide").withFrom(BAR / 2), Block.of(BAR + BAR / 2, BAR / 2, "crab"))
                .withPhrases(List.of(
                        Phrase.of("Tide", BAR, List.of(Note.of(0, BAR / 4, 60, 90), Note.of(BAR * 3 / 4, BAR, 64, 80))),
                        Phrase.of("Crab", 2 * BAR, List.of(Note.of(0, BAR, 72, 70), Note.of(BAR, 10, 74, 70)))));
        Timeline.Result joined = Timeline.join(two, Timeline.all(two));
        assertThat(joined.refs()).containsExactly(FIRST);
        Block block = blocks(joined.piece(), "lead").get(0);
        assertThat(block).isEqualTo(Block.of(0, 2 * BAR, "tide-crab"));
        Phrase both = joined.piece().phrase("tide-crab").orElseThrow();
        assertThat(both.name()).isEqualTo("Tide + Crab");
        assertThat(both.notes())
                .extracting(Note::tick, Note::length, Note::pitch)
                .as("from the middle of the first, round again, and cut where each block ends")
                .containsExactly(
                        tuple(BAR / 4, BAR, 64),
                        tuple(BAR / 2, BAR / 4, 60),
                        tuple(BAR + BAR / 4, BAR / 4, 64),
                        tuple(BAR + BAR / 2, BAR / 2, 72));
        Piece past = Timeline.change(two, Set.of(FIRST), one -> one.withChain(false));
        assertThat(Timeline.join(past, Timeline.all(past)).piece())
                .as("one past the chain, one through it")
                .isEqualTo(past);
    }

    @Test
    void repeatedAndResizedThePhraseStaysInTime() {
        Piece one = piece(Block.of(0, BAR, "tide"));
        Timeline.Result three = Timeline.repeat(one, Set.of(FIRST), 2);
        shows(three.piece(), tuple(0.0, 1.0, 0.0), tuple(1.0, 1.0, 0.0), tuple(2.0, 1.0, 0.0));
        assertThat(three.refs()).hasSize(2);
        Piece later = piece(Block.of(2 * BAR, 2 * BAR, "tide"));
        Ref ref = new Ref("lead", 2 * BAR);
        shows(Timeline.resize(later, ref, BAR, 4 * BAR).piece(), tuple(1.0, 3.0, 1.0));
        shows(Timeline.resize(later, ref, 2 * BAR, 3 * BAR).piece(), tuple(2.0, 1.0, 0.0));
        shows(Timeline.resize(later, ref, 9 * BAR, 4 * BAR).piece(), tuple(4 - 1.0 / BAR, 1.0 / BAR, 2 - 1.0 / BAR));
    }

    @Test
    void barsComeAndGoInAllPartsAndAbove() {
        Piece piece = piece(Block.of(0, 4 * BAR, "tide"), Block.of(5 * BAR, BAR, "tide"))
                .withTime(new TimeMap(
                        new TempoMap(List.of(new TempoMap.Change(0, 100), new TempoMap.Change(3 * BAR, 120))),
                        MeterMap.FOUR_FOUR))
                .withMarks(List.of(Mark.of(BAR, "Lamp"), Mark.of(5 * BAR, "Morning")))
                .withLevers(List.of(Lever.of("Tide", 0)
                        .withPoint(new Lever.Point(BAR, 10))
                        .withPoint(new Lever.Point(4 * BAR, 90))))
                .withKeys(List.of(KeyChange.of(3 * BAR, Key.parse("F major"))));
        Piece longer = Timeline.insert(piece, 2 * BAR, 2 * BAR);
        shows(longer, tuple(0.0, 2.0, 0.0), tuple(4.0, 2.0, 0.0), tuple(7.0, 1.0, 0.0));
        assertThat(longer.keys()).extracting(KeyChange::tick).containsExactly(5 * BAR);
        assertThat(longer.marks()).extracting(Mark::tick).containsExactly(BAR, 7 * BAR);
        assertThat(longer.levers().get(0).points())
                .extracting(Lever.Point::tick)
                .containsExactly(BAR, 6 * BAR);
        assertThat(longer.time().tempo().bpmAt(5 * BAR - 1)).isEqualTo(100);
        assertThat(longer.time().tempo().bpmAt(5 * BAR)).isEqualTo(120);
        Piece back = Timeline.takeOut(longer, 2 * BAR, 4 * BAR);
        assertThat(Timeline.join(back, Timeline.all(back)).piece()).isEqualTo(piece);
        Piece shorter = Timeline.takeOut(piece, 0, 4 * BAR);
        shows(shorter, tuple(1.0, 1.0, 0.0));
        assertThat(shorter.key()).as("what changed within holds behind").isEqualTo(Key.parse("F major"));
        assertThat(shorter.keys()).isEmpty();
        assertThat(shorter.time().tempo().changes()).containsExactly(new TempoMap.Change(0, 120));
        assertThat(shorter.marks()).extracting(Mark::tick).containsExactly(BAR);
        assertThat(shorter.levers().get(0).points()).containsExactly(new Lever.Point(0, 90));
    }

    /** Whatever is done, blocks lie side by side; a copy cut and joined again plays the same. */
    @Test
    void blocksNeverOverlap() {
        Tries.of(200, "timeline edits", seed -> {
            Randoms randoms = new Randoms(seed);
            Piece piece =
                    randoms.onTimeline(piece().withPhrases(List.of(randoms.phrase("Tide"), randoms.phrase("Crab"))));
            for (int i = 0; i < 20; i++) {
                Set<Ref> some = Timeline.all(piece);
                some.removeIf(ref -> randoms.oneIn(2));
                long tick = randoms.tick(600_000);
                piece = switch (randoms.between(0, 6)) {
                    case 0 ->
                        Timeline.move(piece, some, tick - 300_000, randoms.between(-1, 1), randoms.oneIn(2))
                                .piece();
                    case 1 -> Timeline.cut(piece, some, tick);
                    case 2 -> Timeline.join(piece, some).piece();
                    case 3 ->
                        some.isEmpty() ? piece : Timeline.repeat(piece, some, 1).piece();
                    case 4 -> Timeline.insert(piece, tick, 1 + randoms.tick(90_000));
                    case 5 -> Timeline.takeOut(piece, tick, tick + 1 + randoms.tick(90_000));
                    default ->
                        some.isEmpty()
                                ? piece
                                : Timeline.resize(piece, some.iterator().next(), tick, tick + 1 + randoms.tick(90_000))
                                        .piece();
                };
                // A part refuses blocks that overlap; and every block is found by where it stands.
                Piece now = piece;
                assertThat(Timeline.all(now))
                        .allMatch(ref -> Timeline.find(now, ref).isPresent());
            }
        });
    }
}
