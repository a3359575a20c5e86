package harpel.chain;

import harpel.effect.EffectKind;
import harpel.move.Mover;
import harpel.move.Moves;
import harpel.param.Ids;
import harpel.param.Param;
import harpel.param.ParamSet;
import java.util.ArrayList;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.UnaryOperator;

/**
 * One effect in its place in a chain.
 *
 * @param id the stage's name in addresses, unique in its chain; it stays when the stage moves
 * @param kind null for an effect this version does not know: it passes notes through and is kept for the file
 * @param moves what moves its parameters
 * @param branches for a kind that branches
 * @param unknown what a newer version wrote and this one does not know, in plain form
 */
public record Stage(
        String id, EffectKind kind, ParamSet params, Moves moves, List<Branch> branches, Map<String, Object> unknown) {
    public Stage {
        if (!Ids.isOfStage(id)) {
            throw new IllegalArgumentException(
                    "a stage's id is lower-case letters, digits and hyphens, such as echo-2, but was \"" + id + "\"");
        }
        params = kind == null ? params : kind.fit(params);
        branches = List.copyOf(branches);
        unknown = Collections.unmodifiableMap(new LinkedHashMap<>(unknown));
    }

    public static Stage of(String id, EffectKind kind) {
        return new Stage(id, kind, kind.spec().defaults(), Moves.NONE, List.of(), Map.of());
    }

    public boolean isKnown() {
        return kind != null;
    }

    public boolean on() {
        return isKnown() && params.get(EffectKind.ON);
    }

    /** The user's name for it, or the effect's. */
    public String name() {
        if (!isKnown()) {
            return String.valueOf(unknown.get("effect"));
        }
        String label = params.get(EffectKind.LABEL);
        return label.isEmpty() ? kind.words().label() : label;
    }

    public <T> Stage with(Param<T> param, T value) {
        return withParams(params.with(param, value));
    }

    public Stage withParams(ParamSet newParams) {
        return new Stage(id, kind, newParams, moves, branches, unknown);
    }

    public Stage withMoves(Moves newMoves) {
        return new Stage(id, kind, params, newMoves, branches, unknown);
    }

    public Stage withBranches(List<Branch> newBranches) {
        return new Stage(id, kind, params, moves, newBranches, unknown);
    }

    /** With what one of its branches takes changed; branches are counted from 1. */
    public Stage withTakes(int branch, UnaryOperator<ParamSet> change) {
        List<Branch> changed = new ArrayList<>(branches);
        Branch before = changed.get(branch - 1);
        changed.set(branch - 1, before.withTakes(change.apply(before.takes())));
        return withBranches(changed);
    }

    /** Another effect in this place, with what was set here and fits there: values by name, movers, branches. */
    public Stage replacedBy(EffectKind other) {
        Stage fresh = of(id, other);
        if (!isKnown()) {
            return fresh;
        }
        ParamSet kept = fresh.params();
        for (Param<?> param : params.spec().params()) {
            if (!params.isDefault(param)) {
                kept = kept.withIfItFits(param.id(), params);
            }
        }
        Map<String, List<Mover>> movers = new LinkedHashMap<>();
        for (Param<?> param : kept.spec().params()) {
            boolean sameType = params.spec()
                    .byId(param.id())
                    .filter(own -> own.type().equals(param.type()))
                    .isPresent();
            if (sameType && Moves.canMove(other, param)) {
                movers.put(param.id(), moves.of(param));
            }
        }
        return fresh.withParams(kept)
                .withMoves(new Moves(movers))
                .withBranches(other.nature().branches() ? branches : List.of());
    }

    public Stage withId(String newId) {
        return new Stage(newId, kind, params, moves, branches, unknown);
    }
}
