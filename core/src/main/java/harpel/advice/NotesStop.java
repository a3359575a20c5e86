package harpel.advice;

import harpel.chain.Stage;
import harpel.effect.EffectCatalog;
import harpel.effect.EffectKind;
import harpel.effect.Trait;
import harpel.effect.held.Arpeggio;
import harpel.param.music.RouteType;
import harpel.piece.Part;
import harpel.piece.Routes;
import java.util.Optional;
import java.util.function.ToIntFunction;

/** Notes come to a stage and none goes on, or none comes as it needs them. */
final class NotesStop {
    /** So many notes without any that goes on are no accident. */
    private static final int FEW = 3;

    private NotesStop() {}

    static Optional<Advice> look(Part part, int came, ToIntFunction<String> left) {
        int before = came;
        for (Stage stage : part.chain().stages()) {
            int after = left.applyAsInt(stage.id());
            if (before >= FEW && after == 0 && stage.on() && !leads(stage)) {
                return Optional.of(stopped(part, stage, before));
            }
            before = after;
        }
        return Optional.empty();
    }

    /** A stage that works on chords is given single notes. */
    static Advice oneByOne(Part part, Stage stage) {
        return new Advice(
                stage.id(),
                "Nothing for " + stage.name() + " to do: the notes come one at a time.",
                "Make chords of them before it",
                piece -> piece.withPart(
                        part.id(),
                        one -> one.withChain(
                                one.chain().plus(one.chain().indexOf(stage.id()), EffectCatalog.of("chord-keys")))));
    }

    /** Whether what comes in may well go elsewhere than on. */
    private static boolean leads(Stage stage) {
        return stage.kind().has(Trait.SWALLOWS)
                || stage.kind().nature().letsNoneOn(stage.params())
                || stage.kind().nature().changesMessages(stage.params())
                || stage.kind().nature().branches()
                || Routes.routes(stage.params()).stream().anyMatch(RouteType.Route::leaves);
    }

    private static Advice stopped(Part part, Stage stage, int came) {
        if (stage.params().spec().has(Arpeggio.LATCH)) {
            return Advice.of(
                    part,
                    stage,
                    "Notes stop here: " + came + " came and were let go before a step.",
                    "Keep them until the next chord",
                    one -> one.with(Arpeggio.LATCH, Arpeggio.LatchMode.REPLACE));
        }
        return Advice.of(
                part,
                stage,
                "Notes stop here: " + came + " came in, none went out.",
                "Switch it off",
                one -> one.with(EffectKind.ON, false));
    }
}
