package harpel.engine;

import harpel.piece.Block;
import harpel.piece.Bracket;
import harpel.piece.KeyChange;
import harpel.piece.Part;
import harpel.piece.Piece;
import harpel.time.MeterMap;
import harpel.time.TempoMap;
import harpel.time.TimeMap;
import java.util.ArrayList;
import java.util.List;

/**
 * The other way to play a timeline with a loop, for comparing: written out, so that what comes round stands there so many times, one
 * behind the other, and time only goes on. What is held at the end of a round ends there, what was written to sound at its beginning begins, and repeats ring over.
 */
final class Unrolled {
    private static final long FAR = 1L << 40;

    private Unrolled() {}

    /** Whether a piece is played round and round. */
    static boolean goesRound(Piece piece) {
        return piece.timeline() && piece.bracket().on();
    }

    /**
     * A piece that can be played from its beginning to a tick without coming to an end of what is written out.
     *
     * @param until counted on and on
     */
    static Piece of(Piece piece, long until) {
        if (!goesRound(piece)) {
            return piece;
        }
        Bracket loop = piece.bracket();
        long rounds = 1 + Math.max(0, until - loop.to()) / loop.length();
        return piece.withTime(new TimeMap(
                        tempo(piece.time().tempo(), loop, rounds),
                        meter(piece.time().meter(), loop, rounds)))
                .withKeys(keys(piece, loop, rounds))
                .withParts(piece.parts().stream()
                        .map(part -> blocks(piece, part, loop, rounds))
                        .toList());
    }

    private static long at(Bracket loop, long round) {
        return loop.to() + round * loop.length();
    }

    private static Part blocks(Piece piece, Part part, Bracket loop, long rounds) {
        if (part.blocks().isEmpty()) {
            return part;
        }
        List<Block> blocks = new ArrayList<>();
        List<Block> round = new ArrayList<>();
        for (Block block : part.blocks()) {
            // Whose rounds are counted on, as they are where it is not written out.
            long length = piece.phrase(block.phrase()).map(phrase -> FAR).orElse(0L);
            if (block.at() < loop.to()) {
                blocks.add(block.within(0, loop.to(), length));
            }
            if (block.at() < loop.to() && block.end() > loop.from()) {
                round.add(block.within(loop.from(), loop.to(), length));
            }
        }
        for (long i = 0; i < rounds; i++) {
            long by = at(loop, i) - loop.from();
            round.forEach(block -> blocks.add(block.withAt(block.at() + by)));
        }
        // A part without any is present all along; one that has none here is not.
        return part.withBlocks(blocks.isEmpty() ? List.of(Block.of(FAR, 1, "")) : blocks);
    }

    private static List<KeyChange> keys(Piece piece, Bracket loop, long rounds) {
        List<KeyChange> keys = new ArrayList<>();
        List<KeyChange> round = new ArrayList<>();
        if (!piece.keyAt(loop.from()).equals(piece.keyAt(loop.to() - 1))) {
            round.add(KeyChange.of(Math.max(1, loop.from()), piece.keyAt(loop.from())));
        }
        for (KeyChange change : piece.keys()) {
            if (change.tick() < loop.to()) {
                keys.add(change);
            }
            if (change.tick() > loop.from() && change.tick() < loop.to()) {
                round.add(change);
            }
        }
        for (long i = 0; i < rounds; i++) {
            long by = at(loop, i) - loop.from();
            for (KeyChange change : round) {
                // What holds where the loop begins may stand at tick 0, where nothing changes.
                long tick = change.tick() == Math.max(1, loop.from()) ? loop.from() : change.tick();
                keys.add(KeyChange.of(tick + by, change.key()));
            }
        }
        return keys;
    }

    private static TempoMap tempo(TempoMap tempo, Bracket loop, long rounds) {
        List<TempoMap.Change> changes = new ArrayList<>();
        List<TempoMap.Change> round = new ArrayList<>();
        round.add(new TempoMap.Change(loop.from(), tempo.bpmAt(loop.from()), tempo.rampsAt(loop.from())));
        for (TempoMap.Change change : tempo.changes()) {
            if (change.tick() < loop.to()) {
                changes.add(change);
            }
            if (change.tick() > loop.from() && change.tick() < loop.to()) {
                round.add(change);
            }
        }
        long last = loop.to() - 1;
        if (tempo.rampsAt(last) && round.get(round.size() - 1).tick() < last) {
            // A ramp that the end cuts goes as far as it comes by then.
            TempoMap.Change cut = new TempoMap.Change(last, tempo.bpmAt(last));
            changes.add(cut);
            round.add(cut);
        } else if (round.size() == 1 && tempo.bpmAt(loop.from()) == tempo.bpmAt(last)) {
            return new TempoMap(changes);
        }
        for (long i = 0; i < rounds; i++) {
            long by = at(loop, i) - loop.from();
            round.forEach(change -> changes.add(new TempoMap.Change(change.tick() + by, change.bpm(), change.ramp())));
        }
        return new TempoMap(changes);
    }

    private static MeterMap meter(MeterMap meter, Bracket loop, long rounds) {
        List<MeterMap.Change> changes = new ArrayList<>();
        List<MeterMap.Change> round = new ArrayList<>();
        MeterMap.Change first = meter.at(loop.from());
        round.add(new MeterMap.Change(loop.from(), first.beats(), first.unit()));
        for (MeterMap.Change change : meter.changes()) {
            if (change.tick() < loop.to()) {
                changes.add(change);
            }
            if (change.tick() > loop.from() && change.tick() < loop.to()) {
                round.add(change);
            }
        }
        boolean whole = meter.barLineAtOrAfter(loop.from()) == loop.from() && loop.length() % first.barTicks() == 0;
        if (round.size() == 1 && whole) {
            return new MeterMap(changes);
        }
        for (long i = 0; i < rounds; i++) {
            long by = at(loop, i) - loop.from();
            round.forEach(
                    change -> changes.add(new MeterMap.Change(change.tick() + by, change.beats(), change.unit())));
        }
        return new MeterMap(changes);
    }
}
