package harpel.plan;

import harpel.chain.Chain;
import harpel.chain.Stage;
import harpel.param.Param;
import harpel.param.ParamSet;
import harpel.param.ParamType;
import harpel.piece.Lane;
import harpel.piece.Part;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/**
 * A lever that stands between the two chains of a part: numbers are in between, choices and switches change in the middle.
 *
 * @param lever its name
 * @param fromB whether the chain that runs is B, so that the lever leads away from it at its lowest
 * @param other the values in the other chain, by the addresses of stages
 */
public record Blend(String lever, boolean fromB, Map<String, ParamSet> other) {
    /** The blend of a part; null where there is none, or its chains have not the same stages. */
    static Blend of(Part part) {
        Chain chain = part.rack().chain();
        Chain other = part.rack().other();
        if (part.rack().between().isEmpty() || other == null || !part.rack().isAlike()) {
            return null;
        }
        Map<String, ParamSet> values = new HashMap<>();
        Lane.eachStage(
                part.id(),
                List.of(),
                chain,
                (address, stage) -> other.at(address)
                        .filter(Stage::isKnown)
                        .filter(one -> !one.params().equals(stage.params()))
                        .ifPresent(one -> values.put(address.toString(), one.params())));
        return new Blend(part.rack().between(), part.rack().letter() == 'B', values);
    }

    /** How far from the chain that runs to the other it is, 0–1, where the lever stands. */
    public double way(double lever) {
        return fromB ? 1 - lever : lever;
    }

    /** Values so much of the way from one to another. */
    public static ParamSet between(ParamSet one, ParamSet other, double way) {
        if (way <= 0 || one.spec() != other.spec()) {
            return one;
        }
        ParamSet values = one;
        for (Param<?> param : one.spec().params()) {
            values = with(values, param, one, other, way);
        }
        return values;
    }

    private static <T> ParamSet with(ParamSet values, Param<T> param, ParamSet one, ParamSet other, double way) {
        T from = one.get(param);
        T to = other.get(param);
        if (from.equals(to)) {
            return values;
        }
        ParamType<T> type = one.typeOf(param);
        boolean flows = type.flows() && !Double.isNaN(type.fraction(from)) && !Double.isNaN(type.fraction(to));
        T at = flows && way < 1 ? type.between(from, to, way) : way < 0.5 ? from : to;
        return values.with(param, at);
    }
}
