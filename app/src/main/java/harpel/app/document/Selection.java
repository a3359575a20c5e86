package harpel.app.document;

import harpel.chain.Chain;
import harpel.chain.Stage;
import harpel.chain.StageAddress;
import harpel.piece.Part;
import harpel.piece.Piece;
import harpel.piece.PieceEdit;
import java.util.List;
import java.util.Optional;
import java.util.function.UnaryOperator;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.SimpleObjectProperty;
import javafx.beans.property.SimpleStringProperty;
import javafx.beans.property.StringProperty;

/** The part that is shown and the stage that is chosen, and edits of these. Interface thread. */
public final class Selection {
    private final Document document;
    private final StringProperty partId = new SimpleStringProperty();
    /** The selected stage, or branch where it ends in one; null for none. */
    private final ObjectProperty<StageAddress> selected = new SimpleObjectProperty<>();

    public Selection(Document document) {
        this.document = document;
        partId.set(document.piece().get().parts().get(0).id());
        // A stage is chosen in the part that is shown, and in no other.
        partId.addListener((property, before, now) -> {
            if (selected.get() != null && !selected.get().part().equals(now)) {
                selected.set(null);
            }
        });
        document.onChange(change -> keepTo(change.after()));
    }

    /** What is gone is not selected any more. */
    private void keepTo(Piece piece) {
        if (piece.part(partId.get()).isEmpty()) {
            partId.set(piece.parts().get(0).id());
        }
        if (selected.get() != null && stage(piece, selected.get()).isEmpty()) {
            selected.set(null);
        }
    }

    public StringProperty partId() {
        return partId;
    }

    public ObjectProperty<StageAddress> selected() {
        return selected;
    }

    /** The piece that is open. */
    public Piece piece() {
        return document.piece().get();
    }

    public Part part() {
        Piece now = document.piece().get();
        // Where another piece is being taken the id may be that of the other for a moment.
        return now.part(partId.get()).orElseGet(() -> now.parts().get(0));
    }

    /** The stage at an address; that of the split for the address of a branch. */
    public Optional<Stage> stage(StageAddress address) {
        return stage(document.piece().get(), address);
    }

    private static Optional<Stage> stage(Piece piece, StageAddress address) {
        return piece.part(address.part()).flatMap(part -> part.chain().at(address));
    }

    public Chain chainAt(List<StageAddress.Step> way) {
        return part().chain().at(way);
    }

    /** Changes a chain of the shown part as one edit. */
    public void edit(String label, String gesture, List<StageAddress.Step> way, UnaryOperator<Chain> change) {
        edit(label, gesture, partId.get(), way, change);
    }

    private void edit(
            String label, String gesture, String id, List<StageAddress.Step> way, UnaryOperator<Chain> change) {
        document.apply(new PieceEdit(
                label,
                gesture,
                before -> before.part(id).isEmpty()
                        ? before
                        : before.withPart(
                                id, part -> part.withChain(part.chain().within(way, change)))));
    }

    /** Changes one stage, of whichever part, as one edit. */
    public void editStage(String label, String gesture, StageAddress address, UnaryOperator<Stage> change) {
        edit(label, gesture, address.part(), address.chainWay(), chain -> chain.withStage(address.stageId(), change));
    }

    /** Hears the other of the part's two chains, from now on, in time. */
    public void hearOther() {
        String id = partId.get();
        char letter = part().rack().otherLetter();
        document.apply(PieceEdit.of("Hear chain " + letter, before -> before.withPart(id, Part::withOtherChain)));
    }

    /** Hears the part without its whole chain, or with it again. */
    public void switchChain() {
        String id = partId.get();
        boolean off = !part().rack().off();
        document.apply(PieceEdit.of(
                off ? "Switch the chain off" : "Switch the chain on",
                before -> before.withPart(id, part -> part.withChainOff(off))));
    }
}
