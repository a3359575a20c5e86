package harpel.plan;

import harpel.effect.Draws;
import harpel.phrase.Phrase;
import harpel.piece.Block;
import harpel.piece.Part;
import harpel.piece.Piece;
import harpel.time.Rising;
import harpel.time.Round;
import harpel.time.Ticks;
import java.util.ArrayList;
import java.util.List;

/**
 * What a part plays of itself, all along: as loops one passage without an end, on the timeline one for each block that has a phrase, and
 * where a stretch of it comes round those again and again. Immutable.
 */
public final class Line {
    /** As it was compiled from, with the phrases it plays; for telling whether it is the same. */
    private final Part part;

    private final List<Phrase> phrases;
    private final Draws draws;
    private final boolean timeline;
    /** As they lie there. */
    private final List<Passage> passages;

    private final Round round;
    /** What is played the first time, and what each time that it comes round. */
    private final List<Passage> first;

    private final List<Passage> again;

    private Line(Part part, List<Phrase> phrases, Draws draws, boolean timeline, List<Passage> passages, Round round) {
        this.part = part;
        this.phrases = phrases;
        this.draws = draws;
        this.timeline = timeline;
        this.passages = passages;
        this.round = round;
        first = round.isThere() ? within(0) : passages;
        again = round.isThere() ? within(round.from()) : List.of();
    }

    private List<Passage> within(long from) {
        return passages.stream()
                .filter(one -> one.from < round.to() && one.to > from)
                .map(one -> new Passage(one.score, one.base, Math.max(from, one.from), Math.min(round.to(), one.to)))
                .toList();
    }

    /** The same where nothing comes round. */
    Line straight() {
        return round.isThere() ? new Line(part, phrases, draws, timeline, passages, Round.NONE) : this;
    }

    /** The passage that has begun last at a tick, counted on and on; null before any. */
    Passage passageAt(long tick) {
        boolean behind = round.isBehind(tick);
        List<Passage> among = behind ? again : first;
        int place = Rising.lastAtOrBefore(among, Passage::from, round.place(tick));
        return place < 0 ? null : among.get(place).later(round.shift(tick));
    }

    /** Where behind a tick the next passage begins, or {@link Ticks#NEVER}. */
    long nextPassage(long tick) {
        boolean behind = round.isBehind(tick);
        List<Passage> among = behind ? again : first;
        int next = Rising.lastAtOrBefore(among, Passage::from, round.place(tick)) + 1;
        if (next < among.size()) {
            return among.get(next).from + round.shift(tick);
        }
        long comesRound = round.shift(tick) + round.to();
        return again.isEmpty() ? Ticks.NEVER : comesRound + again.get(0).from - round.from();
    }

    /**
     * A stretch of a line.
     *
     * @param base where the first round of the phrase begins, which may lie before {@code from}
     * @param from the first tick
     * @param to the first tick behind it
     */
    record Passage(Score score, long base, long from, long to) {
        private Passage later(long by) {
            return by == 0 ? this : new Passage(score, base + by, from + by, to + by);
        }

        /** Whether a note of another passage may go on in this one. */
        boolean continues(Passage other) {
            return base == other.base
                    && score.phrase().id().equals(other.score.phrase().id())
                    && score.channel() == other.score.channel()
                    && score.ready() == other.score.ready()
                    && score.length() == other.score.length();
        }
    }

    /** The line of a part; that of before where nothing about it has changed. Null where it plays nothing. */
    public static Line of(Piece piece, Part part, Line before) {
        Draws own = Plan.draws(piece, part);
        Draws draws = own == null ? Draws.of(piece.variation()) : own;
        List<Phrase> phrases = phrases(piece, part);
        Round round = piece.timeline() ? piece.bracket().round() : Round.NONE;
        if (phrases.isEmpty()) {
            return null;
        }
        if (before != null
                && before.timeline == piece.timeline()
                && before.round.equals(round)
                && before.part.playing().equals(part.playing())
                && before.part.channel() == part.channel()
                && before.draws.equals(draws)
                && same(before.phrases, phrases)) {
            return before;
        }
        List<Passage> passages = new ArrayList<>();
        if (piece.timeline()) {
            for (Block block : part.playing().blocks()) {
                piece.phrase(block.phrase())
                        .filter(phrase -> phrase.length() > 0)
                        .ifPresent(phrase -> {
                            Draws drawn = block.variation() == Block.OF_THE_PART ? draws : Draws.of(block.variation());
                            Score score = score(
                                    block.chain() ? phrase : phrase.withReady(true), part, drawn, passages, before);
                            passages.add(new Passage(score, block.at() - block.from(), block.at(), block.end()));
                        });
            }
        } else {
            passages.add(new Passage(Score.of(phrases.get(0), part.channel(), draws), 0, 0, Ticks.NEVER));
        }
        return new Line(part, phrases, draws, piece.timeline(), List.copyOf(passages), round);
    }

    /** The score of a phrase; one that was compiled already where that is the same. */
    private static Score score(Phrase phrase, Part part, Draws draws, List<Passage> passages, Line before) {
        for (Passage passage : passages) {
            if (passage.score.isOf(phrase, part.channel(), draws)) {
                return passage.score;
            }
        }
        if (before != null) {
            for (Passage passage : before.passages) {
                if (passage.score.isOf(phrase, part.channel(), draws)) {
                    return passage.score;
                }
            }
        }
        return Score.of(phrase, part.channel(), draws);
    }

    private static List<Phrase> phrases(Piece piece, Part part) {
        if (!piece.timeline()) {
            return piece.phrase(part.phrase()).map(List::of).orElse(List.of());
        }
        List<Phrase> phrases = new ArrayList<>();
        for (Block block : part.playing().blocks()) {
            Phrase phrase = piece.phrase(block.phrase()).orElse(null);
            boolean isNew = phrase != null;
            for (int i = 0; i < phrases.size(); i++) {
                isNew &= phrases.get(i) != phrase;
            }
            if (isNew) {
                phrases.add(phrase);
            }
        }
        return phrases;
    }

    private static boolean same(List<Phrase> one, List<Phrase> other) {
        boolean same = one.size() == other.size();
        for (int i = 0; same && i < one.size(); i++) {
            same = one.get(i) == other.get(i);
        }
        return same;
    }
}
