package harpel.app.parts;

import harpel.advice.Advice;
import harpel.advice.Advisor;
import harpel.app.document.Change;
import harpel.app.look.Look.View;
import harpel.app.phrase.PhraseList;
import harpel.app.session.Session;
import harpel.app.transport.Words;
import harpel.app.ui.AdviceLine;
import harpel.app.ui.Buttons;
import harpel.app.ui.Choice;
import harpel.app.ui.Field;
import harpel.app.ui.Menus;
import harpel.app.ui.Space;
import harpel.app.ui.room.OnlyShown;
import harpel.app.ui.room.Scrolling;
import harpel.app.ui.room.SeenRows;
import harpel.phrase.Phrase;
import harpel.piece.Hearing;
import harpel.piece.Part;
import harpel.piece.Piece;
import harpel.piece.PieceEdit;
import harpel.piece.Routes;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.IntStream;
import javafx.geometry.Insets;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.control.ToggleButton;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;

/** The parts at the left, and what the shown one hears and sounds like. */
public final class PartPanel extends VBox {
    private static final String KEYS_ONLY = "keys only";
    private static final String BUILT_IN = "sounds";

    private final Session session;
    private final SeenRows<PartCard> cards = new SeenRows<>(this::card);
    private final Field name;
    private final Choice<Hearing> input;
    private final ToggleButton keysHere;
    private final Choice<Integer> channel;
    private final AdviceLine why = AdviceLine.below("problem").ids("why-silent", "help-silent");
    private final LeversPanel levers;
    private final Choice<String> phrase;
    private final Choice<String> sound;
    private final Choice<String> output;
    private final SoundFinder finder;
    private final VBox chosen;
    private final PhraseList phrases;
    private Change lastChange;

    public PartPanel(Session session) {
        super(0);
        this.session = session;
        getStyleClass().add("part-panel");
        setPrefWidth(214);
        setMinWidth(200);
        levers = new LeversPanel(session.document(), session.transport(), session.levers(), session.messages());
        input = new Choice<>(
                "input",
                "Where the part takes its notes from, besides its phrase",
                this::called,
                chosen -> editPart("Choose input", part -> part.withHearing(chosen)));
        keysHere = Buttons.toggle(
                "keys play this part",
                "keys-here",
                "On, keys play this part past the ones before it; off, they play the part at the head of the way",
                on -> editPart(
                        "Where keys go", part -> part.withHearing(part.hearing().withKeysHere(on))));
        channel = new Choice<>(
                "channel",
                "The channel the part sends on",
                number -> String.valueOf(number + 1),
                chosen -> editPart("Choose channel", part -> part.withChannel(chosen)));
        name = new Field("part-name", "The part’s name", this::rename, session::say);
        phrase = new Choice<>(
                "phrase",
                "What the part hears while the transport runs, besides the keys",
                this::phraseLabel,
                chosen -> editPart("Choose phrase", part -> part.withPhrase(chosen)));
        sound = new Choice<>(
                "sound",
                "The sound of the part, where it goes to the built-in ones",
                chosen -> chosen,
                chosen -> session.sounds().choose(session.selection().partId().get(), chosen, ""));
        output = new Choice<>(
                "output",
                "Where the part’s notes go",
                port -> port.isEmpty() ? BUILT_IN : port,
                chosen -> editPart("Choose output", part -> part.withPort(chosen)));
        channel.setPrefWidth(48);
        channel.setMinWidth(48);
        HBox.setHgrow(output, Priority.ALWAYS);
        HBox goesTo = new HBox(Space.TIGHT, output, channel);
        finder = new SoundFinder(session.document(), session.selection(), session.transport(), session.sounds());
        ToggleButton find = Buttons.toggle(
                "find",
                "find-sound",
                "Finds sounds by name or family; each is heard as the arrow keys go through them",
                finder::show);
        find.setMinWidth(Region.USE_PREF_SIZE);
        finder.visibleProperty().addListener((property, before, now) -> find.setSelected(now));
        HBox.setHgrow(sound, Priority.ALWAYS);
        HBox soundRow = new HBox(Space.TIGHT, sound, find);
        chosen = new VBox(
                Space.TIGHT,
                why.node(),
                row("Keys", input),
                keysHere,
                row("Phrase", phrase),
                row("Sound", soundRow),
                finder,
                row("To", goesTo));
        chosen.getStyleClass().add("chosen-part");
        OnlyShown.in(chosen);
        HBox.setHgrow(name, Priority.ALWAYS);
        HBox head = new HBox(Space.TIGHT, name, partMenu());
        head.setAlignment(Pos.CENTER_LEFT);
        Scrolling list = cards.node();
        // The parts have the height they need; what is left is the levers', so that their head stays where it is when
        // one is added.
        list.setMinHeight(80);
        Scrolling leverList = new Scrolling(levers);
        VBox.setVgrow(leverList, Priority.ALWAYS);
        leverList.setMinHeight(52);
        leverList.setPrefHeight(52);
        setSpacing(Space.CLOSE);
        setPadding(new Insets(Space.GAP, Space.GAP, Space.GAP, Space.ROOM));
        PhraseList phrases = new PhraseList(
                session.document(), session.selection(), session.look(), session.desk(), session.messages());
        this.phrases = phrases;
        VBox.setVgrow(phrases, Priority.ALWAYS);
        phrases.setMinHeight(120);
        getChildren().addAll(head, list, levers.head(), leverList);
        session.sounds().bank().addListener((property, before, now) -> show());
        session.look().view().addListener((property, before, now) -> {
            boolean phraseView = now == View.PHRASE;
            if (phraseView) {
                getChildren().setAll(head, list, phrases);
            } else {
                getChildren().setAll(head, list, levers.head(), leverList);
            }
            show();
        });
        session.document().onChange(change -> lastChange = change);
        session.document().piece().addListener((property, before, now) -> take(lastChange));
        session.selection().partId().addListener((property, before, now) -> {
            show();
            cards.reveal(now);
        });
        session.transport().noSound().addListener((property, before, now) -> show());
        output.setOnShowing(event -> show());
        show();
    }

    private static Node row(String text, Region control) {
        Label label = small(text);
        label.setMinWidth(50);
        label.setLabelFor(control);
        HBox.setHgrow(control, Priority.ALWAYS);
        HBox row = new HBox(Space.TIGHT, label, control);
        row.setAlignment(Pos.CENTER_LEFT);
        return row;
    }

    private MenuButton partMenu() {
        MenuButton menu = Menus.button("Part", "part-menu", "Add, duplicate, move or delete parts");
        menu.setMinWidth(Region.USE_PREF_SIZE);
        item(
                menu,
                "Add part    Ctrl+Shift+N",
                "add-part",
                () -> PartActions.add(session.document(), session.selection()));
        item(
                menu,
                "Duplicate, on the next free channel    Ctrl+Shift+D",
                "duplicate-part",
                () -> PartActions.duplicate(session.document(), session.selection(), session.messages()));
        item(
                menu,
                "Add a part that hears the same",
                "add-section",
                () -> PartActions.addSection(session.document(), session.selection()));
        item(
                menu,
                "Routes: who hears whom    F8",
                "show-routes",
                () -> session.look().routes().set(true));
        item(
                menu,
                "Why do I hear nothing?    Ctrl+Shift+H",
                "why-nothing",
                () -> session.whySilent().ask());
        item(menu, "Next colour", "colour-part", () -> PartActions.colour(session.document(), session.selection()));
        item(menu, "Move up", "part-up", () -> PartActions.move(session.document(), session.selection(), -1));
        item(menu, "Move down", "part-down", () -> PartActions.move(session.document(), session.selection(), 1));
        item(
                menu,
                "Delete part    Ctrl+Shift+Delete",
                "delete-part",
                () -> PartActions.delete(session.document(), session.selection(), session.messages()));
        return menu;
    }

    private static void item(MenuButton menu, String text, String id, Runnable action) {
        MenuItem item = new MenuItem(text);
        item.setId(id);
        item.setOnAction(event -> action.run());
        menu.getItems().add(item);
    }

    /** Every input there is. */
    private List<Hearing> inputs() {
        Set<Hearing> inputs = new LinkedHashSet<>(List.of(Hearing.KEYS, Hearing.NOTHING));
        session.transport().inputs().forEach(device -> inputs.add(new Hearing(Hearing.Source.DEVICE, device, 0)));
        for (Part other : session.document().piece().get().parts()) {
            if (!other.id().equals(session.selection().partId().get())) {
                inputs.add(new Hearing(Hearing.Source.INPUT_OF, other.id(), 0));
                inputs.add(new Hearing(Hearing.Source.OUTPUT_OF, other.id(), 0));
            }
        }
        inputs.add(session.selection().part().hearing());
        return List.copyOf(inputs);
    }

    private String called(Hearing hearing) {
        return switch (hearing.source()) {
            case KEYS -> "when chosen";
            case NONE -> "none";
            default -> Words.hears(session.document().piece().get(), hearing);
        };
    }

    private void rename(String text) {
        if (text.isEmpty()) {
            throw new IllegalArgumentException("a part needs a name; Escape brings back the one it has");
        }
        editPart("Rename part", part -> part.withName(text));
    }

    private static Label small(String text) {
        Label label = new Label(text);
        label.getStyleClass().add("soft");
        return label;
    }

    private void editPart(String label, java.util.function.UnaryOperator<Part> change) {
        String id = session.selection().partId().get();
        session.document().apply(PieceEdit.of(label, piece -> piece.withPart(id, change)));
    }

    /** Values of stages are not shown here, so an edit of nothing else makes no list anew; only the advice may be another. */
    private void take(Change change) {
        if (!change.around() && change.parts().stream().allMatch(change::onlyValues)) {
            showAdvice(change.after(), session.selection().part());
        } else {
            show();
        }
    }

    private void show() {
        Piece piece = session.document().piece().get();
        Part part = session.selection().part();
        cards.show(piece.parts().stream().map(Part::id).toList());
        cards.row(part.id());
        cards.made().forEach(card -> show(card, piece));
        input.show(inputs(), part.hearing());
        showKeysHere(piece, part);
        channel.show(IntStream.range(0, 16).boxed().toList(), part.channel());
        name.show(part.name());
        showAdvice(piece, part);
        List<String> phrases = new ArrayList<>(List.of(""));
        piece.phrases().forEach(one -> phrases.add(one.id()));
        phrase.show(phrases, part.phrase());
        finder.show(part);
        sound.show(session.sounds().names(part), part.sound());
        List<String> outputs = new ArrayList<>(List.of(""));
        session.transport().outputs().stream().filter(port -> !port.isEmpty()).forEach(outputs::add);
        output.show(outputs, part.port());
    }

    /** Whose keys they are: offered only where a part hears what another sends. */
    private void showKeysHere(Piece piece, Part part) {
        boolean offered = part.hearing().source() == Hearing.Source.OUTPUT_OF;
        keysHere.setManaged(offered);
        keysHere.setVisible(offered);
        keysHere.setSelected(part.hearing().keysHere());
        keysHere.setText(Routes.played(piece, part.id())
                .filter(played -> !played.id().equals(part.id()))
                .map(played -> "keys play " + played.name())
                .orElse("keys play this part"));
    }

    /** A phrase's name; with its id where two have one name. */
    private String phraseLabel(String id) {
        List<Phrase> phrases = session.document().piece().get().phrases();
        return phrases.stream()
                .filter(one -> one.id().equals(id))
                .findFirst()
                .map(phrase -> phrases.stream()
                                        .filter(one -> one.name().equals(phrase.name()))
                                        .count()
                                > 1
                        ? phrase.name() + " · " + id
                        : phrase.name())
                .orElse(KEYS_ONLY);
    }

    private PartCard card(String id) {
        PartCard card = new PartCard(
                session.document(), session.selection(), session.transport(), session.desk(), session.messages(), id);
        show(card, session.document().piece().get());
        return card;
    }

    private void show(PartCard card, Piece piece) {
        boolean isChosen = card.part().equals(session.selection().partId().get());
        boolean briefly = session.look().view().get() == View.PHRASE;
        piece.part(card.part()).ifPresent(part -> card.show(part, isChosen));
        card.shorten(!isChosen, briefly);
        card.unfold(isChosen && !briefly ? chosen : null);
    }

    /** Says where the notes stop, and offers the one action that helps; names what is wrong with the ways between parts. */
    private void showAdvice(Piece piece, Part part) {
        Optional<Advice> advice = Advisor.silence(
                        piece, part, session.transport().outputs())
                .or(() -> Advisor.noSound(
                        part,
                        session.transport().noSound().get(),
                        session.transport().outputs()))
                .or(() -> Advisor.missing(piece, part).stream().findFirst());
        List<String> problems = Routes.of(piece).problems(session.transport().outputs());
        why.show(
                advice.map(Advice::text).orElse(problems.isEmpty() ? "" : problems.get(0)),
                advice.map(Advice::action).orElse(""),
                () -> advice.ifPresent(one -> session.document().apply(PieceEdit.of(one.action(), one.fix()))));
    }

    /** Draws a frame. */
    public void draw() {
        cards.made().forEach(PartCard::draw);
        if (session.look().view().get() == View.PHRASE) {
            phrases.draw();
        } else {
            levers.draw();
        }
    }
}
