package harpel.engine;

import harpel.event.Event;
import harpel.event.EventBuffer;
import harpel.event.EventOrder;
import harpel.event.NoteStart;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.BooleanSupplier;
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
    private BooleanSupplier cancelled = () -> Thread.currentThread().isInterrupted();
    private boolean hurried;
    private long from;

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

    /** Prints as live play does, waiting for nobody, and gives up when it is told; for warming up. */
    PrintJob hurried(BooleanSupplier giveUp) {
        hurried = true;
        cancelled = giveUp;
        return this;
    }

    /** Begins at a tick other than 0, as play does that is begun there. */
    public PrintJob from(long tick) {
        from = tick;
        return this;
    }

    /**
     * What is heard.
     *
     * @param lengthTicks where it ends: the end that was asked for, or later if repeats ring out
     * @param refused how many notes were left out since too many sounded or waited at once
     */
    public record Result(List<Event> events, long lengthTicks, long refused) {}

    /**
     * Prints.
     *
     * @param input in the order of events
     * @param endTick where the transport stops; notes that start there or later are not played
     * @throws InterruptedException when the thread was interrupted
     */
    public Result print(List<Event> input, long endTick) throws InterruptedException {
        return printed(List.of(new Reading(part, input, false)), endTick);
    }

    /**
     * Prints with what every part hears of its phrase, over and over as the transport plays it.
     *
     * @param endTick where the transport stops; notes that start there or later are not played
     * @throws InterruptedException when the thread was interrupted
     */
    public Result print(Program program, long endTick) throws InterruptedException {
        List<Reading> readings = new ArrayList<>();
        phrases(program, from, endTick)
                .forEach((to, input) -> readings.add(
                        new Reading(to, input, program.scores().get(to).ready())));
        return printed(readings, endTick);
    }

    /** What every part hears of its phrase from one tick up to another. */
    public static Map<String, List<Event>> phrases(Program program, long fromTick, long endTick) {
        Map<String, List<Event>> inputs = new LinkedHashMap<>();
        long arrival = 0;
        for (Map.Entry<String, Score> entry : program.scores().entrySet()) {
            PhrasePlayer player = new PhrasePlayer(entry.getValue());
            player.locate(fromTick);
            List<Event> events = new ArrayList<>();
            while (player.nextTick() <= endTick) {
                Event event = player.next(arrival++);
                if (event != null) {
                    events.add(event);
                }
            }
            events.sort(EventOrder.INSTANCE);
            inputs.put(entry.getKey(), events);
        }
        return inputs;
    }

    /** Where one part's input has been read up to. */
    private static final class Reading {
        final String part;
        final List<Event> input;
        /** Whether it is heard past the chain. */
        final boolean ready;

        int next;

        Reading(String part, List<Event> input, boolean ready) {
            this.part = part;
            this.input = input;
            this.ready = ready;
        }

        void playNext(Renderer renderer) {
            play(renderer, input.get(next++));
        }

        void play(Renderer renderer, Event event) {
            if (ready) {
                renderer.playReady(part, event);
            } else {
                renderer.play(part, event);
            }
        }

        boolean liesBefore(long tick) {
            return next < input.size() && input.get(next).tick() < tick;
        }
    }

    private Result printed(List<Reading> readings, long endTick) throws InterruptedException {
        try {
            return rendered(readings, endTick);
        } catch (Renderer.Interrupted e) {
            throw new InterruptedException("printing was cancelled");
        }
    }

    private Result rendered(List<Reading> readings, long endTick) {
        EventBuffer heard = new EventBuffer();
        Renderer renderer = new Renderer(
                        plan,
                        (from, event) -> {
                            if (from.equals(part)) {
                                heard.add(event);
                            }
                        },
                        tap)
                .hurried(hurried)
                .interruptedWhen(cancelled);
        renderer.start(from);
        long bar = plan.time().meter().barAt(from);
        while (renderer.position() < endTick) {
            bar++;
            long to = Math.min(endTick, plan.time().meter().tickOfBar(bar));
            for (Reading reading : readings) {
                while (reading.liesBefore(to)) {
                    reading.playNext(renderer);
                }
            }
            renderer.render(to);
            progress.accept((to - from) / (double) (endTick - from));
            if (cancelled.getAsBoolean()) {
                throw new Renderer.Interrupted();
            }
        }
        // Ends and messages at the very end still count; starts there do not.
        for (Reading reading : readings) {
            while (reading.liesBefore(endTick + 1)) {
                Event event = reading.input.get(reading.next++);
                if (!(event instanceof NoteStart)) {
                    reading.play(renderer, event);
                }
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
        return new Result(heard, Math.max(endTick, last), renderer.refused());
    }
}
