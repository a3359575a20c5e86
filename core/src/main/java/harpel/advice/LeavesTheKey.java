package harpel.advice;

import harpel.chain.Stage;
import harpel.effect.EffectCatalog;
import harpel.effect.EffectKind;
import harpel.effect.Trait;
import harpel.piece.Part;
import harpel.piece.Piece;
import harpel.theory.GeneralMidi;
import harpel.theory.Pitch;
import harpel.theory.Spelling;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;

/** Pitches that sound lie outside the key, and nothing at the end of the chain brings them in. */
final class LeavesTheKey {
    private static final int NAMED = 4;

    private LeavesTheKey() {}

    static Optional<Advice> look(Piece piece, Part part, Set<Integer> pitches) {
        List<Integer> outside = new TreeSet<>(pitches)
                .stream().filter(pitch -> !piece.key().contains(pitch)).toList();
        List<Stage> stages = part.chain().stages().stream().filter(Stage::on).toList();
        boolean fitted =
                !stages.isEmpty() && stages.get(stages.size() - 1).kind().has(Trait.FITS_THE_KEY);
        if (outside.isEmpty() || fitted || part.channel() == GeneralMidi.PERCUSSION_CHANNEL) {
            return Optional.empty();
        }
        String names = outside.stream()
                .limit(NAMED)
                .map(pitch -> Pitch.shown(pitch, Spelling.of(piece.key())))
                .collect(Collectors.joining(" "));
        boolean one = outside.size() == 1;
        EffectKind fit = EffectCatalog.kinds().stream()
                .filter(kind -> kind.has(Trait.FITS_THE_KEY))
                .findFirst()
                .orElseThrow();
        return Optional.of(Advice.of(
                part,
                outside.size() + " of " + pitches.size() + (one ? " pitches leaves" : " pitches leave") + " the key: "
                        + names + (outside.size() > NAMED ? " …" : ""),
                "Fit them at the end",
                before -> before.withChain(
                        before.chain().plus(before.chain().stages().size(), fit))));
    }
}
