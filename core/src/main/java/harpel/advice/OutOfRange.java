package harpel.advice;

import harpel.chain.Chain;
import harpel.chain.Stage;
import harpel.effect.EffectCatalog;
import harpel.effect.pitch.Transpose;
import harpel.param.type.SpanType.Span;
import harpel.piece.Part;
import harpel.piece.Piece;
import harpel.theory.GeneralMidi;
import harpel.theory.Pitch;
import harpel.theory.Spelling;
import java.util.List;
import java.util.Optional;
import java.util.Set;

/** Notes lie where the part's sound is not usual: too low to be heard well, or thin and shrill. */
final class OutOfRange {
    /**
     * The lowest and highest notes of the sixteen families of eight programs of General MIDI 1 (common practice: the ranges of the
     * instruments of a family together); pads, leads, effects and what has no pitch play anywhere.
     */
    private static final List<Span> FAMILIES = List.of(
            new Span(21, 108), // piano
            new Span(48, 108), // bells and mallets
            new Span(36, 96), // organ
            new Span(40, 88), // guitar
            new Span(23, 67), // bass
            new Span(28, 103), // strings
            new Span(28, 103), // ensemble
            new Span(26, 91), // brass
            new Span(34, 91), // reed
            new Span(55, 108), // pipe
            new Span(0, 127),
            new Span(0, 127),
            new Span(0, 127),
            new Span(40, 96), // from all over the world
            new Span(0, 127),
            new Span(0, 127));

    private static final int PROGRAMS = 8;
    private static final int FURTHEST = 8;

    private OutOfRange() {}

    /** A pitch at which a sound is at home: the C below the middle of its range. */
    static int homely(int program) {
        Span usual = FAMILIES.get(program / PROGRAMS);
        return (usual.low() + usual.high()) / 24 * 12;
    }

    static Optional<Advice> look(Piece piece, Part part, Set<Integer> pitches) {
        if (part.channel() == GeneralMidi.PERCUSSION_CHANNEL || part.voice().preset() != null) {
            return Optional.empty();
        }
        Span usual = FAMILIES.get(part.voice().played().program() / PROGRAMS);
        long low = pitches.stream().filter(pitch -> pitch < usual.low()).count();
        long high = pitches.stream().filter(pitch -> pitch > usual.high()).count();
        if (low + high == 0) {
            return Optional.empty();
        }
        boolean up = low >= high;
        long count = Math.max(low, high);
        Spelling spelling = Spelling.of(piece.key());
        return Optional.of(Advice.of(
                part,
                count + " of " + pitches.size() + (count == 1 ? " pitches lies" : " pitches lie")
                        + (up ? " below" : " above")
                        + " where " + part.sound() + " is at home: " + Pitch.shown(usual.low(), spelling) + "–"
                        + Pitch.shown(usual.high(), spelling),
                up ? "An octave up" : "An octave down",
                before -> before.withChain(moved(before.chain(), up ? 1 : -1))));
    }

    /** A stage that moves all by an octave, at the end; one that is there already moves by one more. */
    private static Chain moved(Chain chain, int octaves) {
        int last = chain.stages().size() - 1;
        Stage there = last < 0 ? null : chain.stages().get(last);
        if (there == null || !there.isKnown() || !there.on() || !(there.kind() instanceof Transpose)) {
            Chain longer = chain.plus(last + 1, EffectCatalog.of("transpose"));
            return longer.withStage(longer.stages().get(last + 1).id(), stage -> by(stage, octaves));
        }
        return chain.withStage(there.id(), stage -> by(stage, octaves));
    }

    private static Stage by(Stage stage, int octaves) {
        int wanted = Math.max(-FURTHEST, Math.min(FURTHEST, stage.params().get(Transpose.OCTAVES) + octaves));
        return stage.withParams(stage.params().with(Transpose.OCTAVES, wanted));
    }
}
