package harpel.advice;

import harpel.chain.Stage;
import harpel.effect.Trait;
import harpel.effect.held.Arpeggio;
import harpel.param.ParamSet;
import harpel.piece.Hearing;
import harpel.piece.Part;
import harpel.piece.Piece;
import harpel.time.TimeMap;
import harpel.time.TimeValue;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.IntStream;
import java.util.stream.Stream;

/** A pattern fed by a pattern begins anew with each of its notes. */
final class Restarts implements Rule {
    @Override
    public Stream<Advice> look(Piece piece, Part part, List<String> outputs) {
        List<Stage> stages = part.chain().stages();
        return IntStream.range(0, stages.size())
                .mapToObj(place -> restart(piece, part, stages, place))
                .flatMap(Optional::stream);
    }

    /** What comes before a stage in its chain, and before that in the parts that its part hears. */
    private static List<Feeding> before(Piece piece, Part part, List<Stage> stages) {
        List<Feeding> before = new ArrayList<>();
        if (part.hearing().source() == Hearing.Source.OUTPUT_OF) {
            piece.part(part.hearing().from()).ifPresent(other -> {
                before.addAll(before(piece, other, other.chain().stages()));
                before.replaceAll(one -> one.of().isEmpty() ? new Feeding(one.stage(), " of " + other.name()) : one);
            });
        }
        stages.forEach(stage -> before.add(new Feeding(stage, "")));
        return before;
    }

    /** @param of whose it is: " of Salt bells", or empty for the part that is looked at */
    private record Feeding(Stage stage, String of) {
        String name() {
            return stage.name() + of;
        }
    }

    private static Optional<Advice> restart(Piece piece, Part part, List<Stage> stages, int place) {
        Stage stage = stages.get(place);
        if (!stage.on() || !stage.params().spec().has(Arpeggio.START_OVER)) {
            return Optional.empty();
        }
        Arpeggio.StartOver startOver = stage.params().get(Arpeggio.START_OVER);
        boolean restarts = startOver == Arpeggio.StartOver.EACH_NOTE || startOver == Arpeggio.StartOver.EACH_CHORD;
        Optional<Feeding> feeding = before(piece, part, stages.subList(0, place)).stream()
                .filter(one -> one.stage.on() && one.stage.kind().has(Trait.MAKES_A_PATTERN))
                .findFirst();
        if (!restarts || feeding.isEmpty()) {
            return Optional.empty();
        }
        return Optional.of(Advice.of(
                part,
                stage,
                "It is fed by " + feeding.get().name() + " and starts over with its notes, so that "
                        + neverReached(stage.params(), feeding.get().stage.params()),
                "Start over never",
                one -> one.with(Arpeggio.START_OVER, Arpeggio.StartOver.NEVER)));
    }

    /** "steps 3–8 are never reached", where the paces of both say so. */
    private static String neverReached(ParamSet values, ParamSet feeding) {
        int steps = values.get(Arpeggio.PATTERN).size();
        Optional<TimeValue> between = feeding.spec()
                .byId("pace")
                .map(feeding::get)
                .filter(TimeValue.class::isInstance)
                .map(TimeValue.class::cast);
        if (between.isPresent()) {
            double fed = between.get().ticksAt(0, TimeMap.DEFAULT);
            double own = values.get(Arpeggio.PACE).ticksAt(0, TimeMap.DEFAULT);
            int reached = (int) Math.max(1, Math.ceil(fed / own - 1e-9));
            if (reached < steps) {
                return (reached + 1 == steps
                                ? "step " + steps + " is"
                                : "steps " + (reached + 1) + "–" + steps + " are")
                        + " never reached.";
            }
        }
        return "it never gets past its beginning.";
    }
}
