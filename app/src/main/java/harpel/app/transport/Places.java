package harpel.app.transport;

import harpel.app.document.Document;
import harpel.app.document.Selection;
import harpel.chain.Chain;
import harpel.chain.Stage;
import harpel.chain.StageAddress;
import harpel.chain.StageAddress.Step;
import harpel.effect.notes.Carom;
import harpel.piece.Lane;
import harpel.piece.Part;
import harpel.run.Tap;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/** Where notes can be seen in a part: its input, each of its stages, its sound. Places are what the trace store is asked by. */
public final class Places {
    /** The board that is played: that of the chosen part, or else the first of the piece. */
    public static Optional<StageAddress> board(Document document, Selection selection) {
        return board(selection.part())
                .or(() -> document.piece().get().parts().stream()
                        .flatMap(part -> board(part).stream())
                        .findFirst());
    }

    /** The first board in a part's chain: that of a Carom. */
    public static Optional<StageAddress> board(Part part) {
        List<StageAddress> found = new ArrayList<>();
        Lane.eachStage(part.id(), List.of(), part.chain(), (address, stage) -> {
            if (stage.isKnown() && stage.kind() instanceof Carom) {
                found.add(address);
            }
        });
        return found.stream().findFirst();
    }

    private Places() {}

    /**
     * One place.
     *
     * @param part the part's id
     * @param name a stage's address, or that of the input or the sound
     */
    public record Place(String part, String name) {}

    /** The place behind a stage. */
    public static Place at(StageAddress address) {
        return new Place(address.part(), address.toString());
    }

    public static Place input(String part) {
        return new Place(part, Tap.INPUT);
    }

    public static Place sound(String part) {
        return new Place(part, Tap.SOUND);
    }

    /** All places of a part in the order in which notes come by. */
    public static List<Place> of(Part part) {
        List<Place> places = new ArrayList<>();
        places.add(input(part.id()));
        add(places, part.id(), part.chain(), List.of());
        places.add(sound(part.id()));
        return places;
    }

    private static void add(List<Place> places, String part, Chain chain, List<Step> way) {
        for (Stage stage : chain.stages()) {
            StageAddress address = StageAddress.of(part, way, stage.id());
            // What goes through branches comes by them before it leaves the split.
            for (int b = 0; b < stage.branches().size(); b++) {
                add(places, part, stage.branches().get(b).chain(), address.branchWay(b + 1));
            }
            places.add(at(address));
        }
    }

    /** Where the notes come from that a stage is given: the stage before it, or what its chain is given. */
    public static Place before(Document document, StageAddress address) {
        String part = address.part();
        List<Step> way = address.chainWay();
        Chain chain = document.piece()
                .get()
                .part(part)
                .map(one -> one.chain().at(way))
                .orElse(Chain.EMPTY);
        List<Stage> stages = chain.stages();
        int at = chain.indexOf(address.stageId());
        if (at > 0) {
            return at(StageAddress.of(part, way, stages.get(at - 1).id()));
        }
        if (way.isEmpty()) {
            return input(part);
        }
        // The first stage of a branch is given what the split is given, as far as the branch takes it.
        String split = way.get(way.size() - 1).stage();
        return before(document, StageAddress.of(part, way.subList(0, way.size() - 1), split));
    }
}
