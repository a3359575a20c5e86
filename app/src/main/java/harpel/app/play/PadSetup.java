package harpel.app.play;

import harpel.app.document.Document;
import harpel.app.document.Selection;
import harpel.app.look.Messages;
import harpel.app.transport.Places;
import harpel.app.transport.Transport;
import harpel.app.ui.Buttons;
import harpel.app.ui.Choice;
import harpel.app.ui.Field;
import harpel.app.ui.Space;
import harpel.chain.StageAddress;
import harpel.event.NoteStart;
import harpel.phrase.Phrase;
import harpel.piece.Lane;
import harpel.piece.Part;
import harpel.piece.Piece;
import harpel.piece.PieceEdit;
import harpel.piece.perform.Moment;
import harpel.piece.perform.Pad;
import harpel.piece.perform.Pad.Does;
import harpel.piece.perform.When;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeSet;
import java.util.stream.Collectors;
import javafx.geometry.Insets;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ToggleButton;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;

/** What one pad does, in plain words: chosen, not typed, but for a chord. */
final class PadSetup extends VBox {
    private static final List<When> TIMES =
            List.of(When.NOW, When.BEAT, When.BAR, new When(2), new When(4), new When(8));

    private final Document document;
    private final Selection selection;
    private final Transport transport;
    private final Messages messages;
    private final Label title = new Label();
    private final Choice<Does> does;
    private final Choice<String> part;
    private final Choice<String> what;
    private final Field chord;
    private final Choice<When> when;
    private final Field name;
    private final VBox partBox;
    private final VBox whatBox;
    private final VBox chordBox;
    private final VBox whenBox;
    private final VBox nameBox;
    private final Button empty;
    private final ToggleButton learn;
    private final TreeSet<Integer> heard = new TreeSet<>();
    /** The last note of the part before it was listened to; null for none. */
    private NoteStart seen;

    private int at;

    PadSetup(Document document, Selection selection, Transport transport, Messages messages, Runnable leave) {
        super(Space.GAP);
        this.document = document;
        this.selection = selection;
        this.transport = transport;
        this.messages = messages;
        setId("pad-setup");
        setPadding(new Insets(Space.ROOM, Space.EDGE, Space.EDGE, Space.EDGE));
        title.getStyleClass().add("part-title");
        does = new Choice<>("pad-does", "What the pad does", Does::words, one -> change(pad -> withDoes(pad, one)));
        part = new Choice<>(
                "pad-part", "Which part it is about", this::partName, id -> change(pad -> withPart(pad, id)));
        what = new Choice<>("pad-what", "What it is about", this::whatName, id -> change(pad -> pad.withWhat(id)));
        chord = new Field("pad-chord", "The chord, such as Dm7 or F#maj9", this::chordTyped, messages::say);
        when = new Choice<>("pad-when", "When it is done", When::shown, one -> change(pad -> pad.withWhen(one)));
        name = new Field(
                "pad-name",
                "What stands on the pad; empty for what it does",
                text -> change(pad -> pad.withName(text)),
                messages::say);
        partBox = named("Part", part);
        whatBox = named("What", what);
        learn = Buttons.toggle(
                "learn by playing it",
                "pad-learn-chord",
                "Play the chord into the part and let it go: the pad plays those notes",
                on -> listen());
        whenBox = named("When", when);
        does.setPromptText("choose what it does");
        nameBox = named("Name", name);
        empty = Buttons.small("empty this pad", "pad-clear", "The pad does nothing any more", this::clear);
        chordBox = named("Chord", new HBox(Space.CLOSE, chord, learn));
        getChildren()
                .addAll(
                        title,
                        named("It", does),
                        partBox,
                        whatBox,
                        chordBox,
                        whenBox,
                        nameBox,
                        empty,
                        Buttons.small("done", "pad-done", "Back to playing", leave));
    }

    private static VBox named(String words, Node control) {
        Label label = new Label(words);
        label.getStyleClass().add("tile-name");
        label.setLabelFor(control);
        return new VBox(Space.HAIR, label, control);
    }

    private Piece piece() {
        return document.piece().get();
    }

    private String partName(String id) {
        return piece().part(id).map(Part::name).orElse(id);
    }

    private String whatName(String id) {
        Does now = pad().does();
        if (now == Does.PHRASE || now == Does.ONCE || now == Does.FILL) {
            return piece().phrase(id).map(Phrase::name).orElse(id);
        }
        if (now == Does.STAGE || now == Does.ACT) {
            return piece().part(pad().part())
                    .flatMap(one -> one.chain().at(StageAddress.parse(id)))
                    .map(one -> one.name()
                            + (now == Does.ACT && one.isKnown()
                                    ? ": " + one.kind().words().action()
                                    : ""))
                    .orElse(id);
        }
        return id;
    }

    private Pad pad() {
        return piece().pad(at)
                .orElseGet(() -> new Pad(at, "", Does.MUTE, selection.partId().get(), "", When.BAR, Map.of()));
    }

    /** What a pad can be about. */
    private List<String> things(Does does, String partId) {
        List<String> ids = new ArrayList<>();
        switch (does) {
            case TILT -> ids.addAll(List.of("down", "up", "left", "right"));
            case PHRASE, ONCE, FILL -> piece().phrases().forEach(one -> ids.add(one.id()));
            case MOMENT -> piece().moments().stream().map(Moment::name).forEach(ids::add);
            case STAGE, ACT ->
                piece().part(partId)
                        .ifPresent(one -> Lane.eachStage(one.id(), List.of(), one.chain(), (address, stage) -> {
                            if (stage.isKnown()
                                    && (does == Does.STAGE
                                            || !stage.kind().words().action().isEmpty())) {
                                ids.add(address.toString());
                            }
                        }));
            default -> {}
        }
        return ids;
    }

    private Pad withDoes(Pad pad, Does to) {
        return fitted(
                pad.withDoes(to).withWhen(to.holds() || to == Does.TAP || to == Does.SILENCE ? When.NOW : When.BAR));
    }

    private Pad withPart(Pad pad, String id) {
        return fitted(pad.withPart(id));
    }

    /** With a thing that it can be about. */
    private Pad fitted(Pad pad) {
        if (pad.does() == Does.CHORD) {
            boolean isOne = true;
            try {
                pad.pitches(60);
            } catch (IllegalArgumentException e) {
                isOne = false;
            }
            return isOne ? pad : pad.withWhat("Dm7");
        }
        List<String> things = things(pad.does(), pad.part());
        return things.contains(pad.what()) ? pad : pad.withWhat(things.isEmpty() ? "" : things.get(0));
    }

    private void chordTyped(String text) {
        pad().withWhat(text).pitches(60);
        change(pad -> pad.withWhat(text));
    }

    private void change(java.util.function.UnaryOperator<Pad> change) {
        Pad changed = change.apply(pad());
        boolean needs = !changed.does().what().isEmpty() && changed.what().isEmpty();
        if (needs) {
            messages.say(
                    "There is no " + changed.does().what().replaceAll("^an? ", "") + " for this pad to be about yet.");
            show(at);
            return;
        }
        document.apply(PieceEdit.of("Set up a pad", piece -> piece.withPad(changed)));
        show(at);
    }

    private void clear() {
        document.apply(PieceEdit.of("Empty a pad", piece -> piece.withoutPad(at)));
        show(at);
    }

    /** Shows what a pad does. */
    void show(int newAt) {
        at = newAt;
        Pad pad = pad();
        boolean isThere = piece().pad(at).isPresent();
        title.setText("Pad " + (at + 1) + (isThere ? "" : ", empty"));
        does.show(List.of(Does.values()), isThere ? pad.does() : null);
        part.show(piece().parts().stream().map(Part::id).toList(), pad.part());
        List<String> things = things(pad.does(), pad.part());
        what.show(things, things.contains(pad.what()) ? pad.what() : null);
        chord.show(pad.what());
        when.show(TIMES, pad.when());
        name.show(pad.name());
        seen(partBox, isThere && pad.does().hasPart());
        seen(whatBox, isThere && !things.isEmpty());
        seen(nameBox, isThere);
        seen(empty, isThere);
        seen(whenBox, isThere && pad.does().hasWhen());
        seen(chordBox, isThere && pad.does() == Does.CHORD);
    }

    private List<NoteStart> notes() {
        return transport.traces().notes(Places.input(pad().part())).stream()
                .map(drawn -> drawn.note)
                .toList();
    }

    private void listen() {
        List<NoteStart> notes = notes();
        seen = notes.isEmpty() ? null : notes.get(notes.size() - 1);
        heard.clear();
        selection.partId().set(pad().part());
        messages.say(learn.isSelected() ? "Play the chord, and let it go." : "");
    }

    /** Listens while it learns; once a frame. */
    void draw() {
        if (!learn.isSelected()) {
            return;
        }
        List<NoteStart> notes = notes();
        int last = notes.lastIndexOf(seen);
        notes.subList(last + 1, notes.size()).forEach(note -> heard.add(note.pitch()));
        if (!heard.isEmpty() && !transport.traces().sounds(Places.input(pad().part()))) {
            String pitches = heard.stream().map(String::valueOf).collect(Collectors.joining(" "));
            learn.setSelected(false);
            change(pad -> pad.withWhat(pitches));
            messages.say("The pad plays " + pad().title(piece()) + ".");
        }
    }

    private static void seen(Node node, boolean seen) {
        node.setVisible(seen);
        node.setManaged(seen);
    }
}
