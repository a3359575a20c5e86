package harpel.piece.perform;

import harpel.chain.StageAddress;
import harpel.effect.EffectKind;
import harpel.piece.Lane;
import harpel.piece.Part;
import harpel.piece.Piece;
import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.ArrayList;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/**
 * What is on, and where the levers stand, under a name: recalled as a whole. It changes no note that sounds.
 *
 * @param parts by the ids of the parts; those it does not name stay as they are
 * @param levers where they stand, 0–100 %, by their names
 * @param when it is recalled
 * @param glide over so many beats the levers come to where they stand, 0–64
 * @param unknown what a newer version wrote
 */
@RecordBuilder
public record Moment(
        String name,
        Map<String, State> parts,
        Map<String, Double> levers,
        When when,
        double glide,
        Map<String, Object> unknown)
        implements MomentBuilder.With {
    public static final double LONGEST_GLIDE = 64;

    /**
     * How a part is.
     *
     * @param chain the letter of the chain that is heard
     * @param off whether the part is heard without its chain
     * @param phrase the phrase it plays in loops
     * @param stages whether they are on, by their addresses
     */
    public record State(
            boolean mute, boolean solo, char chain, boolean off, String phrase, Map<String, Boolean> stages) {
        public State {
            stages = Collections.unmodifiableMap(new LinkedHashMap<>(stages));
            // What cannot be read is not to be found only when the moment is recalled.
            stages.keySet().forEach(StageAddress::parse);
        }

        static State of(Part part) {
            Map<String, Boolean> stages = new LinkedHashMap<>();
            Lane.eachStage(part.id(), List.of(), part.chain(), (address, stage) -> {
                if (stage.isKnown()) {
                    stages.put(address.toString(), stage.on());
                }
            });
            return new State(
                    part.mix().mute(),
                    part.mix().solo(),
                    part.rack().letter(),
                    part.rack().off(),
                    part.phrase(),
                    stages);
        }

        Part on(Part part, Piece piece) {
            Part with = part.rack().letter() == chain || part.rack().other() == null ? part : part.withOtherChain();
            with = with.withMix(with.mix().withMute(mute).withSolo(solo)).withChainOff(off);
            if (phrase.isEmpty() || piece.phrase(phrase).isPresent()) {
                with = with.withPhrase(phrase);
            }
            for (Map.Entry<String, Boolean> stage : stages.entrySet()) {
                StageAddress address = StageAddress.parse(stage.getKey());
                boolean isThere = with.chain()
                        .at(address)
                        .filter(one -> one.isKnown() && one.on() != stage.getValue())
                        .isPresent();
                if (isThere) {
                    with = with.withChain(with.chain()
                            .within(
                                    address.chainWay(),
                                    chain -> chain.withStage(
                                            address.stageId(), one -> one.with(EffectKind.ON, stage.getValue()))));
                }
            }
            return with;
        }
    }

    public Moment {
        if (name.isBlank()) {
            throw new IllegalArgumentException("a moment has a name");
        }
        if (!(glide >= 0 && glide <= LONGEST_GLIDE)) {
            throw new IllegalArgumentException(
                    "moment \"" + name + "\": levers glide over 0–64 beats but were to over " + glide);
        }
        parts = Collections.unmodifiableMap(new LinkedHashMap<>(parts));
        levers = Collections.unmodifiableMap(new LinkedHashMap<>(levers));
        unknown = unknown.isEmpty() ? Map.of() : Collections.unmodifiableMap(new LinkedHashMap<>(unknown));
    }

    /** The piece as it is, under a name. */
    public static Moment of(String name, Piece piece) {
        return new Moment(name, Map.of(), Map.of(), When.BAR, 0, Map.of()).taken(piece);
    }

    /** This moment with what the piece is like now. */
    public Moment taken(Piece piece) {
        Map<String, State> states = new LinkedHashMap<>();
        piece.parts().forEach(part -> states.put(part.id(), State.of(part)));
        Map<String, Double> stand = new LinkedHashMap<>();
        piece.levers().forEach(lever -> stand.put(lever.name(), lever.value()));
        return withParts(states).withLevers(stand);
    }

    /** The piece in this moment. Parts, stages, levers and phrases that are gone are passed over; new ones stay as they are. */
    public Piece on(Piece piece) {
        List<Part> changed = new ArrayList<>();
        for (Part part : piece.parts()) {
            State state = parts.get(part.id());
            changed.add(state == null ? part : state.on(part, piece));
        }
        return piece.withParts(changed)
                .withLevers(piece.levers().stream()
                        .map(lever -> lever.withValue(levers.getOrDefault(lever.name(), lever.value())))
                        .toList());
    }

    /** The same where a lever has another name. */
    public Moment withLeverRenamed(String before, String now) {
        Map<String, Double> renamed = new LinkedHashMap<>();
        levers.forEach((lever, value) -> renamed.put(lever.equals(before) ? now : lever, value));
        return withLevers(renamed);
    }

    /** Whether the piece is in this moment. */
    public boolean isNow(Piece piece) {
        return on(piece).equals(piece);
    }
}
