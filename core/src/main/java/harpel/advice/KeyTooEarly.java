package harpel.advice;

import harpel.chain.Stage;
import harpel.effect.Trait;
import harpel.piece.Part;
import harpel.piece.Piece;
import harpel.theory.GeneralMidi;
import java.util.List;
import java.util.Optional;
import java.util.stream.IntStream;
import java.util.stream.Stream;

/** A key set early does not hold for what is made after it. */
final class KeyTooEarly implements Rule {
    @Override
    public Stream<Advice> look(Piece piece, Part part, List<String> outputs) {
        if (part.channel() == GeneralMidi.PERCUSSION_CHANNEL) {
            // Drums have no key.
            return Stream.empty();
        }
        List<Stage> stages = part.chain().stages();
        return IntStream.range(0, stages.size())
                .filter(place -> has(stages.get(place), Trait.FITS_THE_KEY))
                .mapToObj(place -> tooEarly(part, stages.get(place), stages.subList(place + 1, stages.size())))
                .flatMap(Optional::stream);
    }

    private static boolean has(Stage stage, Trait trait) {
        return stage.on() && stage.kind().has(trait);
    }

    private static Optional<Advice> tooEarly(Part part, Stage stage, List<Stage> after) {
        boolean again = after.stream().anyMatch(one -> has(one, Trait.FITS_THE_KEY));
        return after.stream()
                .filter(one -> !again && has(one, Trait.LEAVES_THE_KEY))
                .findFirst()
                .map(leaving -> new Advice(
                        stage.id(),
                        "What " + leaving.name() + " makes after it can leave the key.",
                        "Move it to the end",
                        piece -> piece.withPart(
                                part.id(),
                                one -> one.withChain(one.chain()
                                        .moved(stage.id(), one.chain().stages().size() - 1)))));
    }
}
