package harpel.engine;

import harpel.event.Event;
import harpel.event.EventBuffer;
import harpel.event.EventOrder;
import harpel.event.NoteStart;
import harpel.piece.Part;
import harpel.piece.Phrase;
import harpel.piece.Piece;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
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
        return print(Map.of(part, input), endTick);
    }

    /**
     * What every part hears of its phrase up to a tick, over and over as the transport plays it; for a part that hears others.
     */
    public static Map<String, List<Event>> phrases(Piece piece, long endTick) {
        Map<String, List<Event>> inputs = new LinkedHashMap<>();
        long arrival = 0;
        for (Part one : piece.parts()) {
            Optional<Phrase> phrase = piece.phrase(one.phrase());
            if (phrase.isPresent()) {
                PhrasePlayer player = new PhrasePlayer(phrase.get().onChannel(one.channel()));
                player.locate(0);
                List<Event> events = new ArrayList<>();
                while (player.nextTick() <= endTick) {
                    Event event = player.next(arrival++);
                    if (event != null) {
                        events.add(event);
                    }
                }
                events.sort(EventOrder.INSTANCE);
                inputs.put(one.id(), events);
            }
        }
        return inputs;
    }

    /**
     * Prints, with input for several parts, each in the order of events.
     *
     * @param endTick where the transport stops; notes that start there or later are not played
     * @throws InterruptedException when the thread was interrupted
     */
    public Result print(Map<String, List<Event>> inputs, long endTick) throws InterruptedException {
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
        Map<String, Integer> next = new HashMap<>();
        long bar = 0;
        while (renderer.position() < endTick) {
            bar++;
            long to = Math.min(endTick, plan.time().meter().tickOfBar(bar));
            inputs.forEach((target, input) -> {
                int i = next.getOrDefault(target, 0);
                while (i < input.size() && input.get(i).tick() < to) {
                    renderer.play(target, input.get(i++));
                }
                next.put(target, i);
            });
            renderer.render(to);
            progress.accept(to / (double) endTick);
            if (Thread.interrupted()) {
                throw new InterruptedException("printing was cancelled");
            }
        }
        // Ends and messages at the very end still count; starts there do not.
        inputs.forEach((to, input) -> {
            for (int i = next.get(to); i < input.size() && input.get(i).tick() == endTick; i++) {
                if (!(input.get(i) instanceof NoteStart)) {
                    renderer.play(to, input.get(i));
                }
            }
        });
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
