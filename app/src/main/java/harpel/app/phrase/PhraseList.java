package harpel.app.phrase;

import harpel.app.desk.PhraseDesk;
import harpel.app.document.Document;
import harpel.app.document.Selection;
import harpel.app.draw.Picture;
import harpel.app.draw.Raster;
import harpel.app.draw.Thumbnail;
import harpel.app.look.Look;
import harpel.app.look.Look.View;
import harpel.app.look.Messages;
import harpel.app.look.Theme;
import harpel.app.ui.Buttons;
import harpel.app.ui.Menus;
import harpel.app.ui.Space;
import harpel.app.ui.TextLine;
import harpel.app.ui.Tips;
import harpel.app.ui.room.SeenRows;
import harpel.phrase.Phrase;
import harpel.piece.Piece;
import javafx.css.PseudoClass;
import javafx.geometry.Pos;
import javafx.scene.AccessibleRole;
import javafx.scene.control.ContextMenu;
import javafx.scene.control.Label;
import javafx.scene.control.MenuItem;
import javafx.scene.input.DragEvent;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.input.MouseButton;
import javafx.scene.input.MouseEvent;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;

/** The phrases of the piece, under the parts: each with its length, who hears it, and a picture of it. */
public final class PhraseList extends VBox {
    private static final PseudoClass SELECTED = PseudoClass.getPseudoClass("selected");

    private final Document document;
    private final Selection selection;
    private final Look look;
    private final PhraseDesk desk;
    private final Messages messages;
    private final SeenRows<Card> cards = new SeenRows<>(this::card);
    /** The phrase that was brought into view last. */
    private String revealed = "";

    public PhraseList(Document document, Selection selection, Look look, PhraseDesk desk, Messages messages) {
        super(Space.TIGHT);
        this.document = document;
        this.selection = selection;
        this.look = look;
        this.desk = desk;
        this.messages = messages;
        setId("phrases");
        Label head = new Label("Phrases");
        head.getStyleClass().add("soft");
        Region space = new Region();
        HBox.setHgrow(space, Priority.ALWAYS);
        HBox row = new HBox(
                Space.TIGHT,
                head,
                space,
                Buttons.button(
                        "+ new",
                        "new-phrase",
                        "A new phrase, empty, of four bars",
                        () -> PhraseActions.fresh(document, selection, desk, messages)));
        row.setAlignment(Pos.CENTER_LEFT);
        VBox.setVgrow(cards.node(), Priority.ALWAYS);
        getChildren().addAll(row, cards.node());
        document.piece().addListener((property, before, now) -> show());
        desk.phraseId().addListener((property, before, now) -> show());
        show();
    }

    private void show() {
        Piece piece = document.piece().get();
        cards.show(piece.phrases().stream().map(Phrase::id).toList());
        cards.made().forEach(card -> show(card, piece));
        String shown = desk.phraseId().get();
        if (!shown.equals(revealed)) {
            revealed = shown;
            cards.reveal(shown);
        }
    }

    private Card card(String id) {
        Card card = new Card(id);
        show(card, document.piece().get());
        return card;
    }

    private static void show(Card card, Piece piece) {
        piece.phrase(card.id).ifPresent(phrase -> card.show(piece, phrase));
    }

    /** Draws a frame. */
    public void draw() {
        cards.made().forEach(Card::draw);
    }

    /** One phrase. */
    private final class Card extends HBox {
        private final String id;
        private final Label name = new Label();
        private final TextLine field;
        private final Label about = new Label();
        private final Picture picture = new Picture(look) {
            @Override
            protected void paint(Raster g, Theme theme) {
                Thumbnail.paint(g, theme, drawn);
            }
        };
        private final VBox words = new VBox(0, name, about);
        private Phrase drawn;

        Card(String id) {
            super(Space.CLOSE);
            this.id = id;
            setId("phrase-" + id);
            getStyleClass().add("phrase-card");
            setAlignment(Pos.CENTER_LEFT);
            setFocusTraversable(true);
            setAccessibleRole(AccessibleRole.LIST_ITEM);
            name.getStyleClass().add("phrase-name");
            about.getStyleClass().addAll("soft", "part-about");
            field = new TextLine("rename-" + id, "What the phrase is called; Enter sets it", "");
            words.setMinWidth(0);
            words.setMouseTransparent(true);
            HBox.setHgrow(words, Priority.ALWAYS);
            picture.setMinSize(52, 26);
            picture.setMaxSize(52, 26);
            picture.setMouseTransparent(true);
            getChildren().addAll(words, picture);
            addEventHandler(MouseEvent.MOUSE_CLICKED, this::clicked);
            addEventHandler(MouseEvent.DRAG_DETECTED, this::drag);
            addEventHandler(KeyEvent.KEY_PRESSED, this::key);
            field.setOnAction(event -> rename());
            field.focusedProperty().addListener((property, before, now) -> {
                if (!now) {
                    words.getChildren().set(0, name);
                }
            });
        }

        private void clicked(MouseEvent event) {
            requestFocus();
            desk.show(id);
            if (event.getButton() == MouseButton.SECONDARY) {
                menu().show(this, event.getScreenX(), event.getScreenY());
            } else if (event.getClickCount() == 2) {
                look.view().set(View.PHRASE);
            }
            event.consume();
        }

        private ContextMenu menu() {
            ContextMenu menu = Menus.list();
            item(menu, "Open in the Phrase view    Enter", () -> look.view().set(View.PHRASE));
            item(
                    menu,
                    "Let the chosen part hear it    Ctrl+Alt+H",
                    () -> PhraseActions.hear(document, selection, desk, messages, id));
            item(menu, "Rename", this::startRename);
            item(menu, "Duplicate", () -> PhraseActions.duplicate(document, desk, id));
            item(menu, "Own copy for the chosen part", () -> PhraseActions.ownCopy(document, selection, desk, id));
            item(menu, "Past the chain, or through it again", () -> PhraseActions.ready(document, id));
            item(menu, "Delete    Delete", () -> PhraseActions.delete(document, messages, id));
            return menu;
        }

        private void item(ContextMenu menu, String text, Runnable action) {
            MenuItem item = new MenuItem(text);
            item.setOnAction(event -> action.run());
            menu.getItems().add(item);
        }

        private void key(KeyEvent event) {
            if (words.getChildren().contains(field)) {
                if (event.getCode() == KeyCode.ESCAPE) {
                    words.getChildren().set(0, name);
                    requestFocus();
                    event.consume();
                }
                return;
            }
            boolean taken = true;
            switch (event.getCode()) {
                case ENTER -> {
                    desk.show(id);
                    look.view().set(View.PHRASE);
                }
                case DELETE -> PhraseActions.delete(document, messages, id);
                case UP, DOWN -> {
                    Card other = cards.beside(id, event.getCode() == KeyCode.UP ? -1 : 1);
                    if (other != null) {
                        desk.show(other.id);
                        other.requestFocus();
                    }
                }
                default -> taken = false;
            }
            if (taken) {
                event.consume();
            }
        }

        void startRename() {
            field.setText(name.getText());
            words.setMouseTransparent(false);
            words.getChildren().set(0, field);
            field.requestFocus();
            field.selectAll();
        }

        private void rename() {
            PhraseActions.rename(document, messages, id, field.getText());
            words.getChildren().set(0, name);
            requestFocus();
        }

        /** Carried, it goes to a part, or as a MIDI file, with Alt as a table of notes, to wherever it is let go. */
        private void drag(MouseEvent event) {
            PhraseActions.carry(document, messages, this, id, event.isAltDown());
            event.consume();
        }

        void show(Piece piece, Phrase phrase) {
            name.setText(phrase.name());
            about.setText(PhraseWords.length(piece, phrase) + (phrase.ready() ? " · ready" : ""));
            setAccessibleText(phrase.name() + ", " + about.getText());
            boolean shown = id.equals(desk.phraseId().get());
            pseudoClassStateChanged(SELECTED, shown);
            String origin = PhraseWords.origin(piece, phrase.origin());
            Tips.set(
                    this,
                    () -> phrase.name() + ": " + PhraseWords.length(piece, phrase) + ", "
                            + PhraseWords.heard(piece, phrase) + (origin.isEmpty() ? "" : "; " + origin)
                            + ".\nClick shows it, a double click or Enter opens it; drag it to a part, or out of the window as a MIDI"
                            + " file, with Alt as a table of notes (CSV); right-click for more.");
        }

        void draw() {
            Phrase phrase = document.piece().get().phrase(id).orElse(null);
            if (phrase == null) {
                return;
            }
            if (phrase != drawn) {
                drawn = phrase;
                picture.repaint();
            }
            picture.draw();
        }
    }

    /** Whether a drag carries a phrase of ours. */
    public static boolean carries(DragEvent event) {
        return event.getDragboard().hasContent(PhraseActions.CARRIED);
    }

    /** The id of the phrase that is carried. */
    public static String carried(DragEvent event) {
        return String.valueOf(event.getDragboard().getContent(PhraseActions.CARRIED));
    }

    /** The phrase that is shown, or a new one, gets the keyboard to be renamed. */
    public void renameShown() {
        Card card = cards.row(desk.phraseId().get());
        if (card != null) {
            card.startRename();
        }
    }
}
