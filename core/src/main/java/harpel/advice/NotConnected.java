package harpel.advice;

import harpel.piece.Part;
import harpel.piece.Piece;
import java.util.List;
import java.util.stream.Stream;

/** The part's output is not there. */
final class NotConnected implements Rule {
    @Override
    public Stream<Advice> look(Piece piece, Part part, List<String> outputs) {
        return part.port().isEmpty() || outputs.contains(part.port())
                ? Stream.empty()
                : Stream.of(Advice.of(
                        part,
                        "Its output “" + part.port() + "” is not connected.",
                        "Use the built-in sounds",
                        one -> one.withPort("")));
    }
}
