package harpel.advice;

import harpel.piece.Part;
import harpel.piece.Piece;
import java.util.List;
import java.util.stream.Stream;

/** The part is mute. */
final class Muted implements Rule {
    @Override
    public Stream<Advice> look(Piece piece, Part part, List<String> outputs) {
        return part.mix().mute()
                ? Stream.of(Advice.of(
                        part,
                        "It is mute.",
                        "Unmute",
                        one -> one.withMix(one.mix().withMute(false))))
                : Stream.empty();
    }
}
