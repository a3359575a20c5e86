package harpel.engine;

import harpel.event.Event;
import harpel.event.EventBuffer;
import harpel.event.NoteStart;
import java.util.List;
import java.util.function.DoubleConsumer;

/** Sends written events through a part's chain as fast as it can; what other parts send to it is heard, too. */
public final class PrintJob {
    /** Repeats that never end would be a mistake of an effect: after so many bars of ringing out everything ends. */
    private static final int LONGEST_RING_BARS = 256;

    private final Plan plan;
    private final String part;
    private final boolean ringOut;
    private final Tap tap;
    private DoubleConsumer progress = done -> {};

    /**
     * @param ringOut whether repeats finish after the end, also of stages not set to
     * @param tap sees what leaves each stage
     */
    public PrintJob(Plan plan, String part, boolean ringOut, Tap tap) {
        this.plan = plan;
        this.part = part;
        this.ringOut = ringOut;
        this.tap = tap;
    }

    /** Called now and then with how much is done, 0 to 1, on the printing thread; interrupting that thread cancels. */
    public PrintJob onProgress(DoubleConsumer newProgress) {
        progress = newProgress;
        return this;
    }

    /**
     * What is heard.
     *
     * @param lengthTicks where it ends: the end that was asked for, or later if repeats ring out
     */
    public record Result(List<Event> events, long lengthTicks) {}

    /**
     * Prints.
     *
     * @param input in the order of events
     * @param endTick where the transport stops; notes that start there or later are not played
     * @throws InterruptedException when the thread was interrupted
     */
    public Result print(List<Event> input, long endTick) throws InterruptedException {
        EventBuffer heard = new EventBuffer();
        Renderer renderer = new Renderer(
                plan,
                (from, event) -> {
                    if (from.equals(part)) {
                        heard.add(event);
                    }
                },
                tap);
        renderer.start(0);
        int next = 0;
        long bar = 0;
        while (renderer.position() < endTick) {
            bar++;
            long to = Math.min(endTick, plan.time().meter().tickOfBar(bar));
            while (next < input.size() && input.get(next).tick() < to) {
                renderer.play(part, input.get(next++));
            }
            renderer.render(to);
            progress.accept(to / (double) endTick);
            if (Thread.interrupted()) {
                throw new InterruptedException("printing was cancelled");
            }
        }
        // Ends and messages at the very end still count; starts there do not.
        for (; next < input.size() && input.get(next).tick() == endTick; next++) {
            if (!(input.get(next) instanceof NoteStart)) {
                renderer.play(part, input.get(next));
            }
        }
        renderer.render(endTick);
        renderer.stop(ringOut);
        long limit = plan.time().meter().tickOfBar(plan.time().meter().barAt(endTick) + LONGEST_RING_BARS);
        while (!renderer.isQuiet() && renderer.nextTick() < limit) {
            renderer.render(renderer.nextTick() + 1);
        }
        renderer.silence();
        heard.sortAll();
        long last = heard.isEmpty() ? 0 : heard.get(heard.size() - 1).tick();
        return new Result(heard, Math.max(endTick, last));
    }
}
