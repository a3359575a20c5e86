package harpel.app.parts;

import harpel.app.desk.PhraseDesk;
import harpel.app.document.Document;
import harpel.app.document.Selection;
import harpel.app.look.Messages;
import harpel.app.phrase.PhraseActions;
import harpel.app.phrase.PhraseList;
import harpel.app.transport.Places;
import harpel.app.transport.Places.Place;
import harpel.app.transport.Transport;
import harpel.app.ui.Buttons;
import harpel.app.ui.NameLabel;
import harpel.app.ui.Slide;
import harpel.app.ui.Space;
import harpel.app.ui.Tips;
import harpel.piece.Hearing;
import harpel.piece.Mix;
import harpel.piece.Part;
import harpel.piece.Routes;
import harpel.piece.Standing;
import java.util.List;
import javafx.css.PseudoClass;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ToggleButton;
import javafx.scene.input.MouseEvent;
import javafx.scene.input.TransferMode;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;

/** One part in the list: its name and colour, what it hears and sounds like, mute, solo and level, and what comes in and goes out. */
public final class PartCard extends VBox {
    private static final PseudoClass SELECTED = PseudoClass.getPseudoClass("selected");
    private static final PseudoClass ACTIVE = PseudoClass.getPseudoClass("active");

    /** Its name and no more than a word. */
    private static final PseudoClass LINE = PseudoClass.getPseudoClass("line");

    private static final PseudoClass SILENT = PseudoClass.getPseudoClass("silent");
    private static final int STANDING_EVERY = 15;

    /** Without the part's own settings. */
    private static final int ROWS = 3;

    /** So far a press may move without carrying the part. */
    private static final double FAR = 6;

    private final Document document;
    private final Transport transport;
    private final String id;
    private final Place input;
    private final Place sound;
    private final NameLabel name = new NameLabel();
    private final Label about = new Label();
    private final Label word = new Label();
    private final Label arrow = new Label("→");
    private final Button choose;
    private final ToggleButton mute;
    private final ToggleButton solo;
    private final HBox mix;
    private final Slide level;
    private final Region in = light("What comes in");
    private final Region out = light("What goes out");
    private final LevelBar loudness = new LevelBar();
    private Part shown;
    private Standing standing = Standing.HEARD;
    private String hearsAndSounds = "";
    private int frame;
    private double pressedY;
    private boolean carrying;

    public PartCard(
            Document document,
            Selection selection,
            Transport transport,
            PhraseDesk desk,
            Messages messages,
            String id) {
        this.document = document;
        this.transport = transport;
        this.id = id;
        input = Places.input(id);
        sound = Places.sound(id);
        getStyleClass().add("part-card");
        name.getStyleClass().add("stage-name");
        about.getStyleClass().addAll("soft", "part-about");
        Region space = new Region();
        HBox.setHgrow(space, Priority.ALWAYS);
        arrow.getStyleClass().add("soft");
        HBox lights = new HBox(Space.TIGHT, in, arrow, out);
        lights.setMinWidth(USE_PREF_SIZE);
        lights.setAlignment(Pos.CENTER);
        word.getStyleClass().addAll("soft", "part-about");
        HBox top = new HBox(Space.TIGHT, name, space, word, lights);
        top.setAlignment(Pos.CENTER_LEFT);
        VBox words = new VBox(0, top, about);
        choose = Buttons.picture(
                words, "part-" + id, "", "", () -> selection.partId().set(id));
        choose.getStyleClass().add("part-choose");
        choose.setMaxWidth(Double.MAX_VALUE);
        choose.addEventFilter(MouseEvent.MOUSE_PRESSED, this::carried);
        choose.addEventFilter(MouseEvent.MOUSE_DRAGGED, this::carried);
        choose.addEventFilter(MouseEvent.MOUSE_RELEASED, this::carried);
        choose.widthProperty().addListener((property, before, now) -> words.setPrefWidth(now.doubleValue() - 14));
        mute = Buttons.toggle(
                "mute",
                "mute-" + id,
                "Not heard, while its chain goes on",
                on -> edit("Mute", "", mix -> mix.withMute(on)));
        solo = Buttons.toggle(
                "solo",
                "solo-" + id,
                "Only this part, and others that are solo, are heard",
                on -> edit("Solo", "", mix -> mix.withSolo(on)));
        level = new Slide(
                "level-" + id,
                "Level: the volume of the part's channel",
                0,
                100,
                value -> edit("Set level", "level " + id, mix -> mix.withLevel((int) Math.round(value))),
                document::endGesture);
        level.setPrefWidth(72);
        HBox.setHgrow(level, Priority.ALWAYS);
        mix = new HBox(Space.TIGHT, mute, solo, level);
        mix.setAlignment(Pos.CENTER_LEFT);
        Tips.set(loudness, "How loud the part sounds, from −60 to 0 dB, on the built-in sounds");
        getChildren().addAll(choose, mix, loudness);
        shorten(false, false);
        setOnDragOver(event -> {
            if (PhraseList.carries(event)) {
                event.acceptTransferModes(TransferMode.COPY);
                event.consume();
            }
        });
        setOnDragDropped(event -> {
            if (PhraseList.carries(event)) {
                PhraseActions.hear(document, selection, desk, messages, PhraseList.carried(event), id);
                event.setDropCompleted(true);
                event.consume();
            }
        });
    }

    /** Carried up or down the list and let go between two other parts, it moves there. */
    private void carried(MouseEvent event) {
        if (event.getEventType() == MouseEvent.MOUSE_PRESSED) {
            pressedY = event.getSceneY();
        } else if (event.getEventType() == MouseEvent.MOUSE_DRAGGED) {
            double away = event.getSceneY() - pressedY;
            carrying |= Math.abs(away) > FAR;
            setTranslateY(carrying ? away : 0);
            setViewOrder(carrying ? -1 : 0);
        } else if (carrying) {
            carrying = false;
            setTranslateY(0);
            setViewOrder(0);
            long above = getParent().getChildrenUnmodifiable().stream()
                    .filter(other -> other != this)
                    .filter(other ->
                            other.localToScene(0, other.getLayoutBounds().getHeight() / 2)
                                            .getY()
                                    < event.getSceneY())
                    .count();
            PartActions.moveTo(document, id, (int) above);
            event.consume();
        }
    }

    private static Region light(String what) {
        Region light = new Region();
        light.getStyleClass().add("light");
        Tips.set(light, what);
        return light;
    }

    private void edit(String label, String gesture, java.util.function.UnaryOperator<Mix> change) {
        document.apply(new harpel.piece.PieceEdit(
                label, gesture, piece -> piece.withPart(id, part -> part.withMix(change.apply(part.mix())))));
    }

    public void show(Part part, boolean selected) {
        shown = part;
        name.setText(part.name());
        String hears = part.hearing().equals(Hearing.KEYS) ? "" : hears(part.hearing()) + " ";
        String phrase = document.piece()
                .get()
                .phrase(part.phrase())
                .map(one -> "“" + one.name() + "” ")
                .orElse("");
        List<String> senders = Routes.of(document.piece().get()).senders(part.id());
        String fed = senders.isEmpty() ? "" : "from " + String.join(", ", senders);
        String from = (hears + phrase + fed).strip();
        hearsAndSounds = (!from.isEmpty() ? from : part.hearing().equals(Hearing.KEYS) ? "keys" : "no phrase") + " → "
                + (part.port().isEmpty() ? part.sound() : part.port()) + " · " + (part.channel() + 1);
        showStanding();
        choose.setAccessibleText(part.name() + ", " + about.getText());
        mute.setSelected(part.mix().mute());
        mute.setAccessibleText("Mute " + part.name());
        solo.setSelected(part.mix().solo());
        solo.setAccessibleText("Solo " + part.name());
        level.setAccessibleText("Level of " + part.name());
        if (Math.round(level.getValue()) != part.mix().level()) {
            level.show(part.mix().level());
        }
        Tips.set(
                choose,
                hearsAndSounds + "\nShow this part’s chain and play it with the keys; drag to move it in the list");
        pseudoClassStateChanged(SELECTED, selected);
        getStyleClass().removeIf(style -> style.startsWith("part-colour-"));
        getStyleClass().add("part-colour-" + part.mix().colour());
    }

    /** What it hears, with other parts by their names. */
    private String hears(Hearing input) {
        String other = document.piece().get().part(input.from()).map(Part::name).orElse(input.from());
        return switch (input.source()) {
            case NONE -> "";
            case INPUT_OF -> "as " + other;
            case OUTPUT_OF -> "after " + other;
            default -> input.toString();
        };
    }

    /** The id of the part. */
    public String part() {
        return id;
    }

    /**
     * Shows less of it.
     *
     * @param line only its name, how it stands and what sounds, in one line
     * @param brief without level and loudness
     */
    void shorten(boolean line, boolean brief) {
        seen(about, !line);
        seen(mix, !line && !brief);
        seen(loudness, !line && !brief);
        seen(word, line);
        seen(arrow, !line);
        pseudoClassStateChanged(LINE, line);
    }

    private static void seen(Node node, boolean on) {
        node.setVisible(on);
        node.setManaged(on);
    }

    /** Shows the part's own settings in its card, or with null nothing more. */
    void unfold(Region settings) {
        boolean there = getChildren().size() > ROWS;
        if (settings == null && there) {
            getChildren().remove(ROWS);
        } else if (settings != null && !getChildren().contains(settings)) {
            getChildren().add(settings);
        }
    }

    /** How the part stands comes first: what is muted looks like nothing that sounds. */
    private void showStanding() {
        standing = transport.standing(document.piece().get(), shown);
        String text = standing.words().isEmpty() ? hearsAndSounds : standing.words() + " · " + hearsAndSounds;
        if (!text.equals(about.getText())) {
            about.setText(text);
            word.setText(standing.word());
            pseudoClassStateChanged(SILENT, standing.silent());
        }
    }

    /** Lights up what sounds. */
    public void draw() {
        if (shown != null && frame++ % STANDING_EVERY == 0) {
            showStanding();
        }
        in.pseudoClassStateChanged(ACTIVE, transport.traces().sounds(input));
        out.pseudoClassStateChanged(
                ACTIVE, !standing.silent() && transport.traces().sounds(sound));
        if (loudness.isVisible()) {
            loudness.show(transport.sound().peak(id));
        }
    }
}
