package harpel.print;

import harpel.offline.PrintJob;
import harpel.offline.Tail;
import harpel.phrase.Phrase;
import harpel.piece.Block;
import harpel.piece.Hearing;
import harpel.piece.Part;
import harpel.piece.Piece;
import harpel.piece.Routes;
import harpel.plan.Program;
import harpel.run.Tap;
import harpel.time.Ticks;
import java.util.ArrayDeque;
import java.util.Collection;
import java.util.Collections;
import java.util.Deque;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.DoubleConsumer;

/**
 * What is to be printed of a piece: parts, from one bar line to another, with all that they hear of others, with levers and movers.
 *
 * @param parts ids, in the order in which they are wanted
 * @param from the first tick
 * @param to where the transport stops
 */
public record PrintOrder(Piece piece, Set<String> parts, long from, long to, Tail tail) {
    /** So many bars where no phrase says how long a print is. */
    public static final int PLAIN_BARS = 8;

    private static final int MOST_BARS_TOGETHER = 64;

    public PrintOrder {
        parts = Collections.unmodifiableSet(new LinkedHashSet<>(parts));
        if (parts.isEmpty()) {
            throw new IllegalArgumentException("a print is of one part at least");
        }
        for (String id : parts) {
            if (piece.part(id).isEmpty()) {
                throw new IllegalArgumentException("there is no part \"" + id + "\"; there are "
                        + String.join(", ", piece.parts().stream().map(Part::id).toList()));
            }
        }
        if (piece.timeline() && tail == Tail.ROUND) {
            throw new IllegalArgumentException(
                    "a timeline goes on and not round; what sounds over the end of it rings or is cut");
        }
        if (from < 0 || to <= from) {
            throw new IllegalArgumentException("a print ends behind its beginning");
        }
    }

    /** One part, once through the phrase it hears as loops. */
    public static PrintOrder of(Piece piece, String part, Tail tail) {
        Piece loops = piece.withTimeline(false);
        return new PrintOrder(loops, Set.of(part), 0, onceThrough(loops, Set.of(part)), tail);
    }

    /**
     * One part once through the phrase it hears as loops, and with it all whose notes would be lost or come twice were it printed alone:
     * those it sends notes to, those that send notes to it, and those that hear its phrase beside one of their own; as long as all their
     * phrases together.
     */
    public static PrintOrder together(Piece piece, String part, Tail tail) {
        Piece loops = piece.withTimeline(false);
        Set<String> touched = touched(loops, part);
        return new PrintOrder(
                loops, touched, 0, touched.size() == 1 ? onceThrough(loops, touched) : round(loops, touched), tail);
    }

    private static Set<String> touched(Piece piece, String part) {
        List<Routes.Way> ways = Routes.of(piece).ways();
        Set<String> touched = new LinkedHashSet<>();
        Deque<String> next = new ArrayDeque<>(List.of(part));
        while (!next.isEmpty()) {
            String one = next.poll();
            if (piece.part(one).isEmpty() || !touched.add(one)) {
                continue;
            }
            for (Routes.Way way : ways) {
                if (way.sent() && way.from().equals(one)) {
                    next.add(way.to());
                } else if (way.sent() && way.to().equals(one)) {
                    next.add(way.from());
                }
            }
            // In loops it can keep the phrase; on the timeline it is blocks that it hears.
            piece.hearing(Hearing.Source.INPUT_OF, one).stream()
                    .filter(id -> piece.timeline()
                            || !piece.part(id).orElseThrow().phrase().isEmpty())
                    .forEach(next::add);
        }
        return touched;
    }

    /** Until the phrases of some parts begin together again; that of the longest one where that takes too long. */
    private static long round(Piece piece, Set<String> parts) {
        long most = piece.time().meter().tickOfBar(MOST_BARS_TOGETHER);
        long round = 1;
        for (String id : parts) {
            long length = phraseLength(piece, Set.of(id)).orElse(1L);
            round = Ticks.together(round, length);
            if (round > most) {
                return onceThrough(piece, parts);
            }
        }
        return round > 1 ? round : onceThrough(piece, parts);
    }

    /** Some blocks of a part on the timeline, with what rings on, and with it all that share notes with it over the same bars. */
    public static PrintOrder together(Piece piece, String part, List<Block> blocks) {
        long from = blocks.stream().mapToLong(Block::at).min().orElseThrow();
        long to = blocks.stream().mapToLong(Block::end).max().orElseThrow();
        Piece along = piece.withTimeline(true);
        return new PrintOrder(along, touched(along, part), from, to, Tail.RING);
    }

    /**
     * How long it is once through the longest phrase of some parts, 8 bars where they have none; a timeline is as long as its blocks, in
     * whole bars.
     */
    public static long onceThrough(Piece piece, Set<String> parts) {
        if (piece.timeline() && piece.timelineEnd() > 0) {
            return piece.time().meter().barLineAtOrAfter(piece.timelineEnd());
        }
        return phraseLength(piece, parts).orElse(piece.time().meter().tickOfBar(PLAIN_BARS));
    }

    /** The length of the longest phrase of some parts, or nothing where they hear none. */
    public static Optional<Long> phraseLength(Piece piece, Set<String> parts) {
        return parts.stream()
                .flatMap(id -> piece.part(id).stream())
                .flatMap(part -> piece.phrase(part.phrase()).stream())
                .map(Phrase::length)
                .filter(length -> length > 0)
                .max(Long::compare);
    }

    /** The same without some parts, which others may hear all the same. */
    public PrintOrder without(Collection<String> silent) {
        Set<String> left = new LinkedHashSet<>(parts);
        left.removeAll(silent);
        return new PrintOrder(piece, left, from, to, tail);
    }

    public PrintOrder withVariation(long variation) {
        return new PrintOrder(piece.withVariation(variation), parts, from, to, tail);
    }

    /**
     * Prints, which can be done on any thread.
     *
     * @param progress told now and then how much is done, 0 to 1
     * @throws InterruptedException when the thread was interrupted
     */
    public Printed print(DoubleConsumer progress) throws InterruptedException {
        return print(progress, Tap.NONE);
    }

    /** @param tap is shown what happens on the way */
    public Printed print(DoubleConsumer progress, Tap tap) throws InterruptedException {
        // Straight on, whatever comes round when it is played.
        Program program = Program.of(piece.withBracket(piece.bracket().withOn(false)));
        Losses losses = new Losses(piece, parts);
        Tap shown = tap == Tap.NONE ? losses : Tap.both(losses, tap);
        PrintJob.Result result = new PrintJob(program.plan(), parts, tail, shown)
                .from(from)
                .onProgress(progress)
                .print(program, to);
        return new Printed(this, result.parts(), result.lengthTicks(), losses.found(result.refused()));
    }
}
