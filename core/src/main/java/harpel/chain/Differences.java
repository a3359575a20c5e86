package harpel.chain;

import harpel.effect.route.Split;
import harpel.param.Param;
import harpel.param.ParamSet;
import harpel.theory.Spelling;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;

/** What differs between two chains, in words; stages are told apart by their ids. */
public final class Differences {
    private final List<String> found = new ArrayList<>();

    private final Spelling spelling;

    private Differences(Spelling spelling) {
        this.spelling = spelling;
    }

    /** Each difference as a line, such as "Arpeggio: gate 60 % → 80 %"; empty for chains that are alike. */
    public static List<String> between(Chain a, Chain b, Spelling spelling) {
        Differences differences = new Differences(spelling);
        differences.chains("", a, b);
        return List.copyOf(differences.found);
    }

    private void chains(String where, Chain a, Chain b) {
        for (Stage stage : a.stages()) {
            b.find(stage.id())
                    .filter(other -> Objects.equals(other.kind(), stage.kind()))
                    .ifPresentOrElse(
                            other -> stages(where, stage, other),
                            () -> found.add(where + stage.name() + ": only in the first"));
        }
        for (Stage stage : b.stages()) {
            if (a.find(stage.id())
                    .filter(other -> Objects.equals(other.kind(), stage.kind()))
                    .isEmpty()) {
                found.add(where + stage.name() + ": only in the second");
            }
        }
        if (!idsAlsoIn(a, b).equals(idsAlsoIn(b, a))) {
            found.add(where + "the order of stages");
        }
    }

    private static List<String> idsAlsoIn(Chain chain, Chain other) {
        return chain.stages().stream()
                .map(Stage::id)
                .filter(id -> other.indexOf(id) >= 0)
                .toList();
    }

    private void stages(String where, Stage a, Stage b) {
        String name = where + a.name();
        values(name, a.params(), b.params());
        if (!a.moves().equals(b.moves())) {
            found.add(name + ": what moves its controls");
        }
        if (!a.unknown().equals(b.unknown())) {
            found.add(name + ": what this version does not know");
        }
        if (a.branches().size() != b.branches().size()) {
            found.add(name + ": " + a.branches().size() + " → " + b.branches().size() + " branches");
        }
        for (int i = 0; i < Math.min(a.branches().size(), b.branches().size()); i++) {
            Branch before = a.branches().get(i);
            Branch after = b.branches().get(i);
            String branch = name + ", branch " + (i + 1);
            if (!before.takes().equals(after.takes())) {
                found.add(branch + ": takes " + Split.describeTakes(before.takes(), spelling) + " → "
                        + Split.describeTakes(after.takes(), spelling));
            }
            chains(branch + ", ", before.chain(), after.chain());
        }
    }

    private void values(String name, ParamSet a, ParamSet b) {
        for (Param<?> param : a.spec().params()) {
            if (!b.spec().has(param)) {
                found.add(name + ": " + param.label().toLowerCase(java.util.Locale.ROOT) + " only in the first");
            } else if (!a.get(param).equals(b.get(param))) {
                found.add(name + ": " + param.label().toLowerCase(java.util.Locale.ROOT) + " " + param.show(a, spelling)
                        + " → " + param.show(b, spelling));
            }
        }
    }
}
