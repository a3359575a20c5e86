package harpel.chain;

import harpel.param.Ids;
import java.util.ArrayList;
import java.util.List;
import java.util.regex.Pattern;
import java.util.stream.Collectors;

/**
 * Where a stage stands: {@code lead/split.2/echo} is the echo in the second branch of the split in the part lead.
 *
 * @param part the part's id
 * @param way the splits and branches on the way, then the stage
 */
public record StageAddress(String part, List<Step> way) {
    private static final Pattern ONE = Pattern.compile("[^/]+(/" + Ids.STAGE_FORM + "\\.[1-9]\\d?)*/" + Ids.STAGE_FORM);

    /**
     * A stage, and the branch of it that the way goes on in.
     *
     * @param branch counted from 1; 0 where the way ends
     */
    public record Step(String stage, int branch) {
        @Override
        public String toString() {
            return branch == 0 ? stage : stage + "." + branch;
        }
    }

    public StageAddress {
        way = List.copyOf(way);
    }

    /** Whether {@link #parse} can read it. */
    public static boolean isOne(String text) {
        return ONE.matcher(text).matches();
    }

    /**
     * Reads what {@link #toString} writes.
     *
     * @throws IllegalArgumentException when it is no address
     */
    public static StageAddress parse(String text) {
        String[] words = text.split("/");
        if (!isOne(text)) {
            throw new IllegalArgumentException(
                    "a stage's address is written like lead/split.2/echo but was \"" + text + "\"");
        }
        List<Step> way = new ArrayList<>();
        for (int i = 1; i < words.length; i++) {
            String[] both = words[i].split("\\.");
            way.add(new Step(both[0], both.length == 1 ? 0 : Integer.parseInt(both[1])));
        }
        return new StageAddress(words[0], way);
    }

    /** The address of a stage in the chain that a way leads to. */
    public static StageAddress of(String part, List<Step> chainWay, String stageId) {
        return new StageAddress(part, chainWay).with(new Step(stageId, 0));
    }

    private StageAddress with(Step step) {
        List<Step> longer = new ArrayList<>(way);
        longer.add(step);
        return new StageAddress(part, longer);
    }

    /** The way to the chain of a branch of this stage, counted from 1. */
    public List<Step> branchWay(int branch) {
        return new StageAddress(part, chainWay()).with(new Step(stageId(), branch)).way;
    }

    /** The address of a branch of this stage, which ends in it. */
    public StageAddress branch(int branch) {
        return new StageAddress(part, branchWay(branch));
    }

    /** The number of the branch that the address ends in, counted from 1; 0 for a stage. */
    public int branch() {
        return way.get(way.size() - 1).branch();
    }

    /** The splits and branches that lead to the stage's chain. */
    public List<Step> chainWay() {
        return way.subList(0, way.size() - 1);
    }

    /** The stage's id in its chain. */
    public String stageId() {
        return way.get(way.size() - 1).stage();
    }

    @Override
    public String toString() {
        return part + "/" + way.stream().map(Step::toString).collect(Collectors.joining("/"));
    }
}
