package harpel.chain;

import harpel.effect.route.Split;
import harpel.param.ParamSet;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.Map;

/**
 * One way through a split.
 *
 * @param takes which notes take it, values of {@link Split#TAKES}
 * @param unknown what a newer version wrote
 */
public record Branch(ParamSet takes, Chain chain, Map<String, Object> unknown) {
    /** A branch that takes every note and changes none. */
    public static final Branch DRY = new Branch(Split.TAKES.defaults(), Chain.EMPTY);

    public Branch {
        unknown = unknown.isEmpty() ? Map.of() : Collections.unmodifiableMap(new LinkedHashMap<>(unknown));
    }

    public Branch(ParamSet takes, Chain chain) {
        this(takes, chain, Map.of());
    }

    public Branch withTakes(ParamSet newTakes) {
        return new Branch(newTakes, chain, unknown);
    }

    public Branch withChain(Chain newChain) {
        return new Branch(takes, newChain, unknown);
    }
}
