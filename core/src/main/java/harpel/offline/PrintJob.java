package harpel.offline;

import harpel.event.Event;
import harpel.event.EventBuffer;
import harpel.event.EventOrder;
import harpel.event.Message;
import harpel.event.NoteEnd;
import harpel.plan.Line;
import harpel.plan.PhrasePlayer;
import harpel.plan.Plan;
import harpel.plan.Program;
import harpel.run.Renderer;
import harpel.run.Tap;
import harpel.time.MeterMap;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.CancellationException;
import java.util.function.BooleanSupplier;
import java.util.function.DoubleConsumer;

/** Sends written events through a part's chain as fast as it can; what other parts send to it is heard, too. */
public final class PrintJob {
    /** Repeats that never end would be a mistake of an effect: after so many bars of ringing out everything ends. */
    private static final int LONGEST_RING_BARS = 256;

    private final Plan plan;
    private final Set<String> parts;
    private final Tail tail;
    private final Tap tap;
    private DoubleConsumer progress = done -> {};
    private BooleanSupplier cancelled = () -> Thread.currentThread().isInterrupted();
    private boolean hurried;
    private boolean toTheLast;
    private long from;

    /** @param tap sees what leaves each stage */
    public PrintJob(Plan plan, String part, Tail tail, Tap tap) {
        this(plan, Set.of(part), tail, tap);
    }

    /**
     * @param parts those whose notes are wanted
     * @param tap sees what leaves each stage
     */
    public PrintJob(Plan plan, Set<String> parts, Tail tail, Tap tap) {
        this.plan = plan;
        this.parts = parts;
        this.tail = tail;
        this.tap = tap;
    }

    /** Called now and then with how much is done, 0 to 1, on the printing thread; interrupting that thread cancels. */
    public PrintJob onProgress(DoubleConsumer newProgress) {
        progress = newProgress;
        return this;
    }

    /** Prints as live play does, waiting for nobody, and gives up when it is told; for warming up. */
    public PrintJob hurried(BooleanSupplier giveUp) {
        hurried = true;
        cancelled = giveUp;
        return this;
    }

    /** The input ends where the print does: what is said at its very end, such as the pedal let go, belongs to it. */
    public PrintJob toTheLast(boolean whole) {
        toTheLast = whole;
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
     * @param parts what each part sent, in the order of events; those that sent nothing, too
     * @param lengthTicks where it ends: the end that was asked for, or later if repeats ring out
     * @param refused how many notes were left out since too many sounded or waited at once
     */
    public record Result(Map<String, List<Event>> parts, long lengthTicks, long refused) {
        /** Of a print of one part. */
        public List<Event> events() {
            return parts.values().iterator().next();
        }
    }

    /**
     * Prints one part.
     *
     * @param input in the order of events
     * @param endTick where the transport stops; notes that start there or later are not played
     * @throws InterruptedException when the thread was interrupted
     */
    public Result print(List<Event> input, long endTick) throws InterruptedException {
        String part = parts.iterator().next();
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
        phrases(program, from, endTick).forEach((to, input) -> {
            readings.add(new Reading(to, input.played, false));
            readings.add(new Reading(to, input.ready, true));
        });
        return printed(readings, endTick);
    }

    /**
     * What a part hears of its phrases.
     *
     * @param played what goes through its chain, in the order of events
     * @param ready what is heard past the chain, in the order of events
     */
    public record Input(List<Event> played, List<Event> ready) {
        /** All of it in the order of events. */
        public List<Event> events() {
            List<Event> events = new ArrayList<>(played);
            events.addAll(ready);
            events.sort(EventOrder.INSTANCE);
            return events;
        }
    }

    /** What every part hears of its phrases from one tick up to another. */
    public static Map<String, Input> phrases(Program program, long fromTick, long endTick) {
        Map<String, Input> inputs = new LinkedHashMap<>();
        for (Map.Entry<String, Line> entry : program.lines().entrySet()) {
            PhrasePlayer player = new PhrasePlayer(entry.getValue(), inputs.size());
            player.locate(fromTick);
            Input input = new Input(new ArrayList<>(), new ArrayList<>());
            while (player.nextTick() <= endTick) {
                Event event = player.next();
                if (event != null) {
                    (player.isReady() ? input.ready : input.played).add(event);
                }
            }
            input.played.sort(EventOrder.INSTANCE);
            input.ready.sort(EventOrder.INSTANCE);
            inputs.put(entry.getKey(), input);
        }
        return inputs;
    }

    /** Where one part's input has been read up to. */
    private static final class Reading {
        final String part;
        final List<Event> input;
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
        } catch (Renderer.Interrupted | CancellationException e) {
            throw new InterruptedException("printing was cancelled");
        }
    }

    private Result rendered(List<Reading> readings, long endTick) {
        Map<String, EventBuffer> heard = new LinkedHashMap<>();
        parts.forEach(part -> heard.put(part, new EventBuffer()));
        Renderer renderer = new Renderer(
                        plan,
                        (part, event) -> {
                            EventBuffer buffer = heard.get(part);
                            if (buffer != null) {
                                buffer.add(event);
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
        // Ends at the very end still count; what begins there does not, but for messages at the end of all there is.
        for (Reading reading : readings) {
            while (reading.liesBefore(endTick + 1)) {
                Event event = reading.input.get(reading.next++);
                boolean last =
                        toTheLast && reading.input.get(reading.input.size() - 1).tick() == endTick;
                if (event instanceof NoteEnd || last && event instanceof Message) {
                    reading.play(renderer, event);
                }
            }
        }
        renderer.render(endTick);
        if (tail != Tail.CUT) {
            ringOut(renderer, endTick);
        }
        renderer.silence();
        Map<String, List<Event>> sent = new LinkedHashMap<>();
        long last = endTick;
        for (Map.Entry<String, EventBuffer> entry : heard.entrySet()) {
            EventBuffer events = entry.getValue();
            events.sortAll();
            if (tail == Tail.ROUND) {
                sent.put(entry.getKey(), FirstRound.of(events, from, endTick));
            } else {
                sent.put(entry.getKey(), events);
                last = Math.max(
                        last,
                        events.isEmpty() ? 0 : events.get(events.size() - 1).tick());
            }
        }
        return new Result(sent, last, renderer.refused());
    }

    private void ringOut(Renderer renderer, long endTick) {
        renderer.stop(tail != Tail.STOP);
        MeterMap meter = plan.time().meter();
        long limit = meter.tickOfBar(meter.barAt(endTick) + LONGEST_RING_BARS);
        while (!renderer.isQuiet() && renderer.nextTick() < limit) {
            renderer.render(renderer.nextTick() + 1);
        }
    }
}
