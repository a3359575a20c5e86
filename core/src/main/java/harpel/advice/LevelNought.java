package harpel.advice;

import harpel.piece.Part;
import harpel.piece.Piece;
import java.util.List;
import java.util.stream.Stream;

/** The part's level is nought. */
final class LevelNought implements Rule {
    @Override
    public Stream<Advice> look(Piece piece, Part part, List<String> outputs) {
        return part.mix().level() == 0
                ? Stream.of(Advice.of(
                        part,
                        "Its level is 0 %.",
                        "Level 100 %",
                        one -> one.withMix(one.mix().withLevel(100))))
                : Stream.empty();
    }
}
