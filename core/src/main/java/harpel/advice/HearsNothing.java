package harpel.advice;

import harpel.effect.Trait;
import harpel.piece.Hearing;
import harpel.piece.Part;
import harpel.piece.Piece;
import harpel.piece.Routes;
import java.util.List;
import java.util.stream.Stream;

/** Nothing comes to the part and nothing in it plays by itself. */
final class HearsNothing implements Rule {
    @Override
    public Stream<Advice> look(Piece piece, Part part, List<String> outputs) {
        Hearing hearing = part.hearing();
        boolean toNobody = hearing.ofPart() && piece.part(hearing.from()).isEmpty();
        boolean plays = part.chain().stages().stream()
                .anyMatch(stage -> stage.on() && stage.kind().has(Trait.PLAYS_BY_ITSELF));
        boolean heard = hearing.source() != Hearing.Source.NONE && !toNobody;
        if (heard || !part.phrase().isEmpty() || plays || Routes.of(piece).isFed(part.id())) {
            return Stream.empty();
        }
        return Stream.of(Advice.of(
                part,
                toNobody ? "It hears “" + hearing.from() + "”, and there is no such part." : "It hears nothing.",
                "Hear the keys",
                one -> one.withHearing(Hearing.KEYS)));
    }
}
