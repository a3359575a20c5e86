package harpel.effect;

import harpel.param.ParamSet;
import harpel.time.TimeMap;
import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.Set;
import java.util.function.Predicate;
import java.util.function.ToDoubleBiFunction;

/**
 * What a kind of effect is like, as far as others must know it.
 *
 * @param holdsNotes whether it works on notes as long as they are held, so that one put into a running chain takes over those held
 * @param branches whether a stage of this kind holds branches, each a chain of its own
 * @param round after how many ticks its rows or its pattern come round together; NaN where it has none, or they never do
 * @param step how many ticks a step is where it steps through held notes, so that a note that is shorter may come to nothing; NaN where
 *     it does not
 * @param messages whether it is set to change or add messages that are no notes; all others pass untouched
 * @param takesAll whether it is set so that no note that comes in goes on
 * @param rings whether it is set to let its repeats finish after the transport has stopped
 */
@RecordBuilder
public record EffectNature(
        Set<Trait> traits,
        boolean holdsNotes,
        boolean branches,
        ToDoubleBiFunction<ParamSet, TimeMap> round,
        ToDoubleBiFunction<ParamSet, TimeMap> step,
        Predicate<ParamSet> messages,
        Predicate<ParamSet> takesAll,
        Predicate<ParamSet> rings)
        implements EffectNatureBuilder.With {
    /** Nothing sets it apart. */
    public static final EffectNature PLAIN = of();

    public static EffectNature of(Trait... traits) {
        return new EffectNature(
                Set.of(traits),
                false,
                false,
                (values, time) -> Double.NaN,
                (values, time) -> Double.NaN,
                values -> false,
                values -> false,
                values -> false);
    }

    public double roundTicks(ParamSet values, TimeMap time) {
        return round.applyAsDouble(values, time);
    }

    public double stepTicks(ParamSet values, TimeMap time) {
        return step.applyAsDouble(values, time);
    }

    public boolean changesMessages(ParamSet values) {
        return messages.test(values);
    }

    public boolean letsNoneOn(ParamSet values) {
        return takesAll.test(values);
    }

    public boolean ringsOut(ParamSet values) {
        return rings.test(values);
    }
}
