package harpel.engine;

import harpel.effect.EffectCatalog;
import harpel.effect.EffectKind;
import harpel.testkit.Laws;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;

/**
 * Tries the laws over every kind until so many events have been looked at or so many seconds have passed; prints counts.
 * Arguments: events, seconds, first seed, and if wanted the name of the only law. Exit code 1 when a law did not hold.
 */
public final class Soak {
    private Soak() {}

    public static void main(String[] args) {
        long events = args.length > 0 ? Long.parseLong(args[0]) : 1_000_000;
        long seconds = args.length > 1 ? Long.parseLong(args[1]) : 600;
        long seed = args.length > 2 ? Long.parseLong(args[2]) : 1;
        Map<String, Laws.Law> laws = EngineLaws.all();
        if (args.length > 3) {
            laws.keySet().retainAll(List.of(args[3]));
        }
        Map<String, Integer> tried = new TreeMap<>();
        List<EffectKind> kinds = EffectCatalog.kinds();
        long end = System.nanoTime() + seconds * 1_000_000_000L;
        long first = seed;
        int failed = 0;
        while (Laws.EVENTS.sum() < events && System.nanoTime() < end && failed < 5) {
            for (EffectKind kind : kinds) {
                for (Map.Entry<String, Laws.Law> law : laws.entrySet()) {
                    failed += holds(law.getKey(), law.getValue(), kind, seed) ? 0 : 1;
                    tried.merge(law.getKey(), 1, Integer::sum);
                }
            }
            seed++;
        }
        tried.forEach((law, count) -> System.out.printf("%8d tries  %s%n", count, law));
        System.out.printf(
                "%d events at %d kinds, seeds %d–%d, %d failed%s%n",
                Laws.EVENTS.sum(),
                kinds.size(),
                first,
                seed - 1,
                failed,
                Laws.EVENTS.sum() < events && failed == 0 ? " (time was up)" : "");
        System.exit(failed == 0 ? 0 : 1);
    }

    private static boolean holds(String name, Laws.Law law, EffectKind kind, long seed) {
        try {
            law.holds(kind, seed);
            return true;
        } catch (Exception | AssertionError e) {
            System.out.printf("%s did not hold for %s with seed %d: %s%n", name, kind, seed, e);
            return false;
        }
    }
}
