package harpel.app.parts;

import harpel.app.document.Document;
import harpel.app.document.Selection;
import harpel.app.ui.Buttons;
import harpel.app.ui.Space;
import harpel.app.ui.room.Scrolling;
import harpel.piece.Part;
import java.util.ArrayList;
import java.util.List;
import javafx.css.PseudoClass;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.layout.VBox;

/** The parts where there is no room for their cards: the colour and initials of each; one that is pressed is shown. */
public final class PartStrip extends VBox {
    private static final PseudoClass SELECTED = PseudoClass.getPseudoClass("selected");

    private final Document document;
    private final Selection selection;
    private final VBox column = new VBox(Space.FINE);
    private List<Part> shown = List.of();

    public PartStrip(Document document, Selection selection) {
        this.document = document;
        this.selection = selection;
        getStyleClass().add("part-strip");
        setId("part-strip");
        Scrolling scroll = new Scrolling(column);
        getChildren().add(scroll);
        document.piece().addListener((property, before, now) -> show());
        selection.partId().addListener((property, before, now) -> show());
        show();
    }

    private void show() {
        List<Part> parts = document.piece().get().parts();
        boolean same = shown.stream()
                .map(PartStrip::face)
                .toList()
                .equals(parts.stream().map(PartStrip::face).toList());
        if (!same) {
            List<Node> buttons = new ArrayList<>();
            parts.forEach(part -> buttons.add(button(part)));
            column.getChildren().setAll(buttons);
        }
        shown = parts;
        for (int i = 0; i < parts.size(); i++) {
            boolean chosen = parts.get(i).id().equals(selection.partId().get());
            column.getChildren().get(i).pseudoClassStateChanged(SELECTED, chosen);
        }
    }

    private static List<Object> face(Part part) {
        return List.of(part.id(), part.name(), part.mix().colour());
    }

    private Button button(Part part) {
        Button button = Buttons.button(
                initials(part.name()),
                "strip-" + part.id(),
                part.name() + "\nShow this part’s chain and play it with the keys",
                () -> selection.partId().set(part.id()));
        button.getStyleClass()
                .addAll("part-initials", "part-colour-" + part.mix().colour());
        button.setAccessibleText(part.name());
        return button;
    }

    /** The first letters of the first two words. */
    static String initials(String name) {
        StringBuilder letters = new StringBuilder();
        for (String word : name.strip().split("\\s+")) {
            if (letters.length() < 2 && !word.isEmpty()) {
                letters.appendCodePoint(word.codePointAt(0));
            }
        }
        return letters.toString();
    }
}
