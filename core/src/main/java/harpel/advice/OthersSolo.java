package harpel.advice;

import harpel.piece.Part;
import harpel.piece.Piece;
import java.util.List;
import java.util.stream.Stream;

/** Others are solo and this part is not. */
final class OthersSolo implements Rule {
    @Override
    public Stream<Advice> look(Piece piece, Part part, List<String> outputs) {
        return piece.isHeard(part)
                ? Stream.empty()
                : Stream.of(new Advice("", "Another part is solo.", "Solo off", OthersSolo::withoutSolo));
    }

    private static Piece withoutSolo(Piece piece) {
        return piece.withParts(piece.parts().stream()
                .map(part -> part.withMix(part.mix().withSolo(false)))
                .toList());
    }
}
