package harpel.bench;

import com.sun.management.ThreadMXBean;
import harpel.event.Event;
import harpel.offline.PrintJob;
import harpel.offline.Tail;
import harpel.phrase.Phrase;
import harpel.plan.Plan;
import harpel.run.Tap;
import harpel.theory.Key;
import harpel.time.TimeMap;
import java.lang.management.ManagementFactory;
import java.util.List;

/** Bytes allocated for each event that goes through a chain. */
final class BytesBench {
    private BytesBench() {}

    public static void main(String[] args) throws InterruptedException {
        ThreadMXBean threads = (ThreadMXBean) ManagementFactory.getThreadMXBean();
        Phrase phrase = Material.phrase(100_000);
        System.out.println("stages  bytes an event  bytes an event and stage");
        for (int stages : new int[] {1, 4, 8}) {
            for (int round = 0; round < 3; round++) {
                List<Event> events = Material.events(phrase);
                Plan plan = Plan.ofChain("bench", Material.stages(stages), Key.C_MAJOR, TimeMap.DEFAULT, 1);
                long before =
                        threads.getThreadAllocatedBytes(Thread.currentThread().getId());
                new PrintJob(plan, "bench", Tail.STOP, Tap.NONE).print(events, phrase.length());
                double each =
                        (threads.getThreadAllocatedBytes(Thread.currentThread().getId()) - before)
                                / (double) events.size();
                if (round == 2) {
                    System.out.printf("%-7d %-15.0f %.0f%n", stages, each, each / stages);
                }
            }
        }
    }
}
