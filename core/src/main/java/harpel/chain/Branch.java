package harpel.chain;

import harpel.effect.route.Split;
import harpel.param.ParamSet;

/**
 * One way through a split.
 *
 * @param takes which notes take it, values of {@link Split#TAKES}
 */
public record Branch(ParamSet takes, Chain chain) {
    /** A branch that takes every note and changes none. */
    public static final Branch DRY = new Branch(Split.TAKES.defaults(), Chain.EMPTY);
}
