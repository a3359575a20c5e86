package harpel.app.print;

import harpel.app.desk.Printing;
import harpel.app.desk.VariationSheet;
import harpel.app.document.Document;
import harpel.app.document.Selection;
import harpel.app.ui.Buttons;
import harpel.app.ui.Space;
import harpel.app.ui.room.OnlyShown;
import javafx.css.PseudoClass;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.layout.HBox;

/** Print, or, where the part plays a print already, print again, and the way back through the chain. */
public final class PrintButtons extends HBox {
    private static final PseudoClass STALE = PseudoClass.getPseudoClass("stale");

    private final Printing printing;
    private final Button print;
    private final Button back;

    /** @param where what the ids begin with, such as "chain" */
    public PrintButtons(
            Document document, Selection selection, VariationSheet variations, Printing printing, String where) {
        super(Space.TIGHT);
        this.printing = printing;
        print = Buttons.button(
                "Print",
                where + "-print",
                "Sends the part’s phrase once through its chain and puts the result in its place, as a ready phrase  (Ctrl+P)",
                printing::once);
        back = Buttons.button(
                "through the chain again",
                where + "-unprint",
                "The part plays its phrase through its chain again; the print stays in the list",
                printing::back);
        print.getStyleClass().add("small-toggle");
        back.getStyleClass().add("small-toggle");
        back.managedProperty().bind(back.visibleProperty());
        Button vary = Buttons.button(
                "Variations",
                where + "-vary",
                "Other results of the same phrase and chain, to hear and choose from  (Ctrl+Shift+V)",
                variations::toggleSheet);
        vary.getStyleClass().add("small-toggle");
        getChildren().addAll(print, back, vary);
        OnlyShown.in(this);
        setAlignment(Pos.CENTER_LEFT);
        setMinWidth(USE_PREF_SIZE);
        document.piece().addListener((property, before, now) -> show());
        selection.partId().addListener((property, before, now) -> show());
        show();
    }

    private void show() {
        boolean printed = printing.isPrinted();
        boolean stale = printed && printing.isStale();
        back.setVisible(printed);
        print.setText(printed ? stale ? "Print again: changed since" : "Print again" : "Print");
        print.pseudoClassStateChanged(STALE, stale);
    }
}
