package harpel.bench;

import harpel.chain.Branch;
import harpel.chain.Chain;
import harpel.chain.Stage;
import harpel.effect.EffectCatalog;
import harpel.effect.EffectKind;
import harpel.event.Event;
import harpel.phrase.Phrase;
import harpel.plan.Plan;
import harpel.run.Renderer;
import harpel.run.Tap;
import harpel.theory.Key;
import harpel.time.TimeMap;
import java.util.ArrayList;
import java.util.List;

/** What one stage of each kind costs beside a stage that passes notes on, per event that comes in and per event that goes out. */
final class EffectBench {
    private static final int NOTES = 20_000;
    private static final int ROUNDS = 9;

    private EffectBench() {}

    private record Run(double nanos, long sent) {}

    public static void main(String[] args) {
        Phrase phrase = Material.phrase(NOTES);
        Chain empty = Chain.EMPTY;
        Chain passing = Chain.EMPTY.plus(0, EffectCatalog.of("transpose"));
        List<EffectKind> kinds = EffectCatalog.kinds();
        for (EffectKind kind : kinds) {
            for (int i = 0; i < 6; i++) {
                run(phrase, chain(kind));
            }
        }
        double base = median(phrase, empty).nanos;
        double pass = median(phrase, passing).nanos - base;
        System.out.printf("a pass-through stage: %.0f ns an event that comes in%n", pass / (2.0 * NOTES));
        System.out.println("effect        ns/event in   × pass-through   events out   ns/event out");
        for (EffectKind kind : kinds) {
            Run run = median(phrase, chain(kind));
            double cost = Math.max(0, run.nanos - base);
            System.out.printf(
                    "%-13s %-13.0f %-16.1f %-12d %.0f%n",
                    kind.id(), cost / (2.0 * NOTES), cost / pass, run.sent, cost / Math.max(1, run.sent));
        }
    }

    private static Chain chain(EffectKind kind) {
        Stage stage = Stage.of(kind.id(), kind);
        return Chain.EMPTY.plus(
                0, kind.nature().branches() ? stage.withBranches(List.of(Branch.DRY, Branch.DRY)) : stage);
    }

    private static Run median(Phrase phrase, Chain chain) {
        List<Run> runs = new ArrayList<>();
        for (int i = 0; i < ROUNDS; i++) {
            runs.add(run(phrase, chain));
        }
        runs.sort((a, b) -> Double.compare(a.nanos, b.nanos));
        return runs.get(ROUNDS / 2);
    }

    private static Run run(Phrase phrase, Chain chain) {
        List<Event> events = Material.events(phrase);
        long[] sent = {0};
        Renderer renderer = new Renderer(
                Plan.ofChain("bench", chain, Key.C_MAJOR, TimeMap.DEFAULT, 1), (part, event) -> sent[0]++, Tap.NONE);
        renderer.start(0);
        long begin = System.nanoTime();
        for (Event event : events) {
            renderer.play("bench", event);
        }
        renderer.render(phrase.length());
        return new Run(System.nanoTime() - begin, sent[0]);
    }
}
