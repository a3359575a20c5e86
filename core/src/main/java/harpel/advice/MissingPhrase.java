package harpel.advice;

import harpel.piece.Block;
import harpel.piece.Part;
import harpel.piece.Piece;
import java.util.List;
import java.util.stream.Stream;

/** The part is to play a phrase that is not there. */
final class MissingPhrase implements Rule {
    @Override
    public Stream<Advice> look(Piece piece, Part part, List<String> outputs) {
        return Stream.concat(
                        Stream.of(part.phrase()).filter(phrase -> !piece.timeline()),
                        part.blocks().stream().filter(block -> piece.timeline()).map(Block::phrase))
                .filter(phrase -> isMissing(piece, phrase))
                .distinct()
                .map(phrase -> Advice.of(
                        part,
                        "It plays “" + phrase + "”, and there is no such phrase.",
                        piece.timeline() ? "Take those blocks away" : "Play none",
                        one -> piece.timeline()
                                ? one.withBlocks(one.blocks().stream()
                                        .filter(block -> !block.phrase().equals(phrase))
                                        .toList())
                                : one.withPhrase("")));
    }

    private static boolean isMissing(Piece piece, String phrase) {
        return !phrase.isEmpty() && piece.phrase(phrase).isEmpty();
    }
}
