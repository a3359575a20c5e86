package harpel.advice;

import harpel.chain.Stage;
import harpel.effect.EffectKind;
import harpel.piece.Part;
import java.util.Optional;
import java.util.Set;

/** So many notes sound or wait at a stage that further ones are left out. */
final class TooMany {
    private TooMany() {}

    static Optional<Advice> look(Part part, Set<String> fullStages) {
        for (Stage stage : part.chain().stages()) {
            if (stage.on() && fullStages.contains(stage.id())) {
                return Optional.of(Advice.of(
                        part,
                        stage,
                        "More notes sound or wait here than can be carried; further ones are left out.",
                        "Switch it off",
                        one -> one.with(EffectKind.ON, false)));
            }
        }
        return Optional.empty();
    }
}
