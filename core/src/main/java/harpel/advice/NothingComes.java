package harpel.advice;

import harpel.chain.Stage;
import harpel.effect.EffectKind;
import harpel.effect.Trait;
import harpel.piece.Part;
import harpel.piece.Piece;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;

/** A stage stands behind one that lets no note on, such as one that turns every note into bend. */
final class NothingComes implements Rule {
    @Override
    public Stream<Advice> look(Piece piece, Part part, List<String> outputs) {
        List<Stage> stages = part.chain().stages().stream().filter(Stage::on).toList();
        return stages.stream()
                // One that works on one channel lets notes of others by.
                .filter(stage -> stage.params().get(EffectKind.CHANNEL) == 0)
                .filter(stage -> stage.kind().nature().letsNoneOn(stage.params()))
                .findFirst()
                .flatMap(taker -> next(stages, taker).map(dead -> say(part, taker, dead)))
                .stream();
    }

    /** The stage behind that waits for notes in vain. */
    private static Optional<Stage> next(List<Stage> stages, Stage taker) {
        int place = stages.indexOf(taker) + 1;
        return place == stages.size() || stages.get(place).kind().has(Trait.PLAYS_BY_ITSELF)
                ? Optional.empty()
                : Optional.of(stages.get(place));
    }

    private static Advice say(Part part, Stage taker, Stage dead) {
        return new Advice(
                dead.id(),
                "No note comes here: " + taker.name() + " before it lets none on.",
                "Move it before " + taker.name(),
                piece -> piece.withPart(
                        part.id(),
                        one -> one.withChain(
                                one.chain().moved(dead.id(), one.chain().indexOf(taker.id())))));
    }
}
