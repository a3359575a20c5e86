package harpel.plan;

import harpel.chain.Chain;
import harpel.chain.Stage;
import harpel.effect.Draws;
import harpel.effect.EffectKind;
import harpel.param.ParamSet;
import harpel.phrase.Phrase;
import harpel.piece.Bracket;
import harpel.piece.Hearing;
import harpel.piece.Part;
import harpel.piece.Piece;
import harpel.piece.Routes;
import harpel.piece.perform.Lever;
import harpel.theory.Key;
import harpel.time.Rising;
import harpel.time.Ticks;
import harpel.time.TimeMap;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/**
 * All that the renderer needs of a piece, as one immutable value that is handed over whole.
 *
 * @param bracket what comes round: places of automation are counted in it
 * @param parts in an order in which each comes after those that it hears
 */
public record Plan(
        Key key,
        TimeMap time,
        long variation,
        List<PartPlan> parts,
        List<Lever> levers,
        List<Stretch> course,
        Bracket bracket) {
    /**
     * What holds on the timeline from a tick on, until the next.
     *
     * @param parts as those of the plan, in the same order; one that does not change is the same object
     */
    public record Stretch(long tick, Key key, List<PartPlan> parts) {}

    /**
     * One part.
     *
     * @param channel 0–15, for notes that come from no played one
     * @param outputTo the parts that hear what this one sends
     * @param inputTo the parts that hear what this one hears
     * @param hears which part it hears so, and which way; empty for none
     * @param fed whether any other part sends something to it
     * @param dry whether it is heard without its chain
     * @param draws the numbers that its draws depend on, or null for those of the piece
     * @param present whether it hears its phrase and other parts and plays by itself while the transport runs
     * @param silent whether nothing of it goes out while the transport runs
     * @param blend what stands between its two chains; null for nothing
     */
    public record PartPlan(
            String id,
            Chain chain,
            int channel,
            List<String> outputTo,
            List<String> inputTo,
            String hears,
            boolean fed,
            boolean dry,
            Draws draws,
            boolean present,
            boolean silent,
            Blend blend) {
        public static PartPlan of(String id, Chain chain) {
            return new PartPlan(id, chain, 0, List.of(), List.of(), "", false, false, null, true, false, null);
        }

        private PartPlan withDry() {
            return new PartPlan(id, chain, channel, outputTo, inputTo, hears, fed, true, draws, present, silent, blend);
        }

        PartPlan with(boolean newPresent, Draws newDraws, boolean newSilent) {
            return new PartPlan(
                    id, chain, channel, outputTo, inputTo, hears, fed, dry, newDraws, newPresent, newSilent, blend);
        }
    }

    public Plan {
        parts = List.copyOf(parts);
        levers = List.copyOf(levers);
        course = List.copyOf(course);
    }

    /** A plan in which the same holds all along. */
    public Plan(Key key, TimeMap time, long variation, List<PartPlan> parts, List<Lever> levers) {
        this(key, time, variation, parts, levers, List.of(), Bracket.NONE);
    }

    /** The place in the course of what holds at a tick, counted on and on; -1 where there is none. */
    public int stretchAt(long tick) {
        return Rising.lastAtOrBefore(course, Stretch::tick, bracket.song(tick));
    }

    /** The next tick behind one at which something else may hold, or {@link Ticks#NEVER}. */
    public long nextStretch(long tick) {
        if (course.isEmpty()) {
            return Ticks.NEVER;
        }
        long place = bracket.song(tick);
        int next = stretchAt(tick) + 1;
        long there = next < course.size() ? course.get(next).tick() : Ticks.NEVER;
        if (bracket.on()) {
            there = Math.min(there, bracket.to());
        }
        return there == Ticks.NEVER ? there : tick + there - place;
    }

    /** The same where nothing comes round. */
    Plan straight(TimeMap straightTime) {
        return new Plan(key, straightTime, variation, parts, levers, course, bracket.withOn(false));
    }

    /** Lets every kind of effect in it make ready what it will need. */
    void prepare() {
        Map<EffectKind, List<ParamSet>> byKind = new LinkedHashMap<>();
        parts.forEach(part -> gather(part.chain, byKind));
        byKind.forEach(EffectKind::prepare);
    }

    private static void gather(Chain chain, Map<EffectKind, List<ParamSet>> byKind) {
        for (Stage stage : chain.stages()) {
            if (stage.isKnown()) {
                byKind.computeIfAbsent(stage.kind(), kind -> new ArrayList<>()).add(stage.params());
            }
            stage.branches().forEach(branch -> gather(branch.chain(), byKind));
        }
    }

    /** Whether another plan has the same piece around its parts. */
    public boolean isAround(Plan other) {
        return key.equals(other.key) && time.equals(other.time) && variation == other.variation;
    }

    /**
     * The plan of a piece; parts that are as they were in the plan before are the same objects.
     *
     * @param before what was compiled before, or null
     */
    static Plan of(Piece piece, Plan before) {
        Map<String, PartPlan> old = new HashMap<>();
        if (before != null) {
            before.parts.forEach(part -> old.put(part.id, part));
        }
        Routes routes = Routes.of(piece);
        List<PartPlan> parts = new ArrayList<>();
        for (Part part : routes.inOrder()) {
            PartPlan plan = partPlan(piece, routes, part);
            PartPlan same = old.get(part.id());
            parts.add(plan.equals(same) ? same : plan);
        }
        Bracket bracket = piece.timeline() ? piece.bracket() : Bracket.NONE;
        return new Plan(
                piece.key(),
                time(piece, bracket, before),
                piece.variation(),
                parts,
                piece.levers(),
                Course.of(piece, parts),
                bracket);
    }

    private static TimeMap time(Piece piece, Bracket bracket, Plan before) {
        TimeMap time = bracket.on() ? piece.time().goingRound(bracket.round()) : piece.time();
        return before != null && time.equals(before.time) ? before.time : time;
    }

    public static Plan of(Piece piece) {
        return of(piece, null);
    }

    private static PartPlan partPlan(Piece piece, Routes routes, Part part) {
        Hearing input = part.hearing();
        return new PartPlan(
                part.id(),
                part.chain(),
                part.channel(),
                piece.hearing(Hearing.Source.OUTPUT_OF, part.id()),
                piece.hearing(Hearing.Source.INPUT_OF, part.id()),
                input.ofPart() ? input.toString() : "",
                routes.isFed(part.id()),
                part.rack().off(),
                draws(piece, part),
                true,
                false,
                Blend.of(part));
    }

    /** The numbers that a part takes in turn, round by round of its phrase; null where it takes that of the piece. */
    static Draws draws(Piece piece, Part part) {
        List<Long> numbers = part.playing().variations();
        // On the timeline a block says which.
        long round = piece.timeline()
                ? 0
                : piece.phrase(part.phrase()).map(Phrase::length).orElse(0L);
        return numbers.isEmpty() || round == 0 ? null : Draws.inTurn(numbers, round);
    }

    /** A single chain, whose stages have {@code partId} in their addresses. */
    public static Plan ofChain(String partId, Chain chain, Key key, TimeMap time, long variation) {
        return new Plan(key, time, variation, List.of(PartPlan.of(partId, chain)), List.of());
    }

    /** The same plan with one part heard without its chain where {@code dry}. */
    public Plan withDry(String partId, boolean dry) {
        return new Plan(
                key,
                time,
                variation,
                parts.stream()
                        .map(part -> dry && part.id.equals(partId) ? part.withDry() : part)
                        .toList(),
                levers,
                course,
                bracket);
    }
}
