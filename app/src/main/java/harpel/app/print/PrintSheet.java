package harpel.app.print;

import harpel.app.document.Document;
import harpel.app.document.Selection;
import harpel.app.look.Look;
import harpel.app.look.Look.View;
import harpel.app.ui.Asking;
import harpel.app.ui.Space;
import harpel.offline.Tail;
import harpel.piece.Piece;
import harpel.print.PrintOrder;
import harpel.print.Provenance;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import javafx.geometry.Insets;
import javafx.scene.layout.GridPane;
import javafx.stage.Window;

/** Asks which parts and bars are printed as ready phrases, how often round, which variations, and what becomes of the end. */
public final class PrintSheet {
    private PrintSheet() {}

    /** What to print, one a variation; nothing when it was put away. */
    public static Optional<List<PrintOrder>> ask(Document document, Selection selection, Look look, Window owner) {
        Piece piece = document.piece().get();
        // From the timeline all that is heard is meant.
        boolean timeline = piece.timeline() && look.view().get() == View.TIMELINE;
        String chosen = selection.partId().get();
        Stretch stretch = new Stretch(
                document,
                selection,
                part -> timeline && piece.isHeard(part) || part.id().equals(chosen),
                piece.timeline() ? Tail.RING : Tail.ROUND);
        GridPane rows = new GridPane(Space.ROOM, Space.GAP);
        rows.setPadding(new Insets(Space.ROOM));
        Stretch.row(rows, "Parts", stretch.parts());
        Stretch.row(rows, "From bar", stretch.bars());
        Stretch.row(rows, "Variation", stretch.variations());
        Stretch.row(rows, "What sounds over the end", stretch.tail());
        return Asking.forValues(
                owner, look.styles(), "Print", "Print", "print", rows, () -> stretch.orders(PrintSheet::behindPrints));
    }

    /** Of a part that plays a print already it is the phrase behind that which goes through the chain. */
    private static Piece behindPrints(Piece piece, Set<String> parts) {
        Piece of = piece;
        for (String part : parts) {
            of = Provenance.back(of, part);
        }
        return of;
    }
}
