package harpel.theory;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;

/**
 * Steps that a note may go, each with a weight: how often it is drawn against the others. Steps of weight 0 are left out. Immutable.
 *
 * @param steps from the lowest to the highest
 * @param weights of the steps, each above 0
 */
public record Ways(List<Integer> steps, List<Integer> weights) {
    public static final int HEAVIEST = 100;

    public Ways {
        steps = List.copyOf(steps);
        weights = List.copyOf(weights);
    }

    /** Ways from step to weight. */
    public static Ways of(Map<Integer, Integer> weights) {
        List<Integer> steps = new ArrayList<>();
        List<Integer> kept = new ArrayList<>();
        new TreeMap<>(weights).forEach((step, weight) -> {
            if (weight > 0) {
                steps.add(step);
                kept.add(weight);
            }
        });
        return new Ways(steps, kept);
    }

    /** These steps, evenly. */
    public static Ways evenly(int... steps) {
        Map<Integer, Integer> weights = new TreeMap<>();
        for (int step : steps) {
            weights.put(step, 1);
        }
        return of(weights);
    }

    public int size() {
        return steps.size();
    }

    public boolean isEmpty() {
        return steps.isEmpty();
    }

    public int weightOf(int step) {
        int place = steps.indexOf(step);
        return place < 0 ? 0 : weights.get(place);
    }

    public int total() {
        return weights.stream().mapToInt(Integer::intValue).sum();
    }

    /** How often a step is drawn, 0–1. */
    public double share(int step) {
        return isEmpty() ? 0 : weightOf(step) / (double) total();
    }

    /** Whether all ways are equally likely. */
    public boolean isEven() {
        return weights.stream().distinct().count() <= 1;
    }

    public Ways with(int step, int weight) {
        TreeMap<Integer, Integer> changed = asMap();
        changed.put(step, weight);
        return of(changed);
    }

    public TreeMap<Integer, Integer> asMap() {
        TreeMap<Integer, Integer> map = new TreeMap<>();
        for (int i = 0; i < steps.size(); i++) {
            map.put(steps.get(i), weights.get(i));
        }
        return map;
    }

    /**
     * The place among the steps that a draw falls on; never one of those left out.
     *
     * @param unit 0 to just below 1
     * @param out for each place whether it is left out; null for none
     * @return -1 where nothing is left to draw
     */
    public int draw(double unit, boolean[] out) {
        int left = 0;
        for (int i = 0; i < size(); i++) {
            left += out != null && out[i] ? 0 : weights.get(i);
        }
        double at = unit * left;
        int last = -1;
        for (int i = 0; i < size(); i++) {
            if (out == null || !out[i]) {
                last = i;
                at -= weights.get(i);
                if (at < 0) {
                    return i;
                }
            }
        }
        return last;
    }
}
