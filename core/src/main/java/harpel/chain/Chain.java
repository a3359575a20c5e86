package harpel.chain;

import harpel.effect.EffectKind;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.function.UnaryOperator;

/** Stages one after another. The ids of its stages are unique. */
public record Chain(List<Stage> stages) {
    public static final Chain EMPTY = new Chain(List.of());

    public Chain {
        stages = List.copyOf(stages);
        Set<String> ids = new HashSet<>();
        for (Stage stage : stages) {
            if (!ids.add(stage.id())) {
                throw new IllegalArgumentException("two stages of one chain are called \"" + stage.id() + "\"");
            }
        }
    }

    /** An id no stage here has: the wanted one, or with the next free number. */
    public String freeId(String wanted) {
        String base = wanted.replaceFirst("-\\d+$", "");
        String id = wanted;
        for (int number = 2; indexOf(id) >= 0; number++) {
            id = base + "-" + number;
        }
        return id;
    }

    /** The place of a stage, or -1. */
    public int indexOf(String id) {
        for (int i = 0; i < stages.size(); i++) {
            if (stages.get(i).id().equals(id)) {
                return i;
            }
        }
        return -1;
    }

    public Chain plus(int place, EffectKind kind) {
        return plus(place, Stage.of(kind.id(), kind));
    }

    /** With a stage more; its id is made unique. */
    public Chain plus(int place, Stage stage) {
        List<Stage> changed = new ArrayList<>(stages);
        changed.add(place, stage.withId(freeId(stage.id())));
        return new Chain(changed);
    }

    public Chain minus(String id) {
        return new Chain(stages.stream().filter(stage -> !stage.id().equals(id)).toList());
    }

    /** With the stage at another place, counted among the stages as they will be. */
    public Chain moved(String id, int place) {
        Stage stage = stages.get(indexOf(id));
        List<Stage> changed = new ArrayList<>(minus(id).stages);
        changed.add(Math.max(0, Math.min(changed.size(), place)), stage);
        return new Chain(changed);
    }

    /**
     * With a chain somewhere within changed.
     *
     * @param way the splits and branches that lead to it; empty for this chain itself
     */
    public Chain within(List<StageAddress.Step> way, UnaryOperator<Chain> change) {
        if (way.isEmpty()) {
            return change.apply(this);
        }
        StageAddress.Step step = way.get(0);
        return withStage(step.stage(), stage -> {
            List<Branch> branches = new ArrayList<>(stage.branches());
            Branch branch = branches.get(step.branch() - 1);
            Chain changed = branch.chain().within(way.subList(1, way.size()), change);
            branches.set(step.branch() - 1, branch.withChain(changed));
            return stage.withBranches(branches);
        });
    }

    /** The stage of that id. */
    public java.util.Optional<Stage> find(String id) {
        return stages.stream().filter(stage -> stage.id().equals(id)).findFirst();
    }

    /** The chain that a way of splits and branches leads to; an empty one where there is none. */
    public Chain at(List<StageAddress.Step> way) {
        Chain found = this;
        for (StageAddress.Step step : way) {
            List<Branch> branches =
                    found.find(step.stage()).map(Stage::branches).orElse(List.of());
            if (step.branch() > branches.size()) {
                return EMPTY;
            }
            found = branches.get(step.branch() - 1).chain();
        }
        return found;
    }

    /** The stage at an address of this chain's part; that of the split for the address of a branch. */
    public java.util.Optional<Stage> at(StageAddress address) {
        return at(address.chainWay()).find(address.stageId());
    }

    /** With the stage of that id replaced by what {@code change} makes of it. */
    public Chain withStage(String id, UnaryOperator<Stage> change) {
        return new Chain(stages.stream()
                .map(stage -> stage.id().equals(id) ? change.apply(stage) : stage)
                .toList());
    }
}
