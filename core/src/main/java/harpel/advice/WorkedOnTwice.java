package harpel.advice;

import harpel.chain.Stage;
import harpel.piece.Part;
import harpel.piece.Piece;
import java.util.List;
import java.util.stream.Stream;

/** A phrase that is the result of a chain goes through one again. */
final class WorkedOnTwice implements Rule {
    @Override
    public Stream<Advice> look(Piece piece, Part part, List<String> outputs) {
        Stage first =
                part.chain().stages().stream().filter(Stage::on).findFirst().orElse(null);
        if (first == null || part.rack().off()) {
            return Stream.empty();
        }
        return piece
                .phrase(part.phrase())
                .filter(phrase -> !phrase.ready() && phrase.origin().isResult())
                .map(phrase -> new Advice(
                        first.id(),
                        "“" + phrase.name() + "” is the result of a chain and is worked on twice.",
                        "Hear it past the chain",
                        one -> one.withPhrase(phrase.withReady(true))))
                .stream();
    }
}
