package harpel.app.phrase;

import harpel.app.desk.PhraseDesk;
import harpel.app.desk.Recorder;
import harpel.app.look.Messages;
import harpel.app.transport.Transport;
import harpel.phrase.Note;
import harpel.phrase.Notes;
import harpel.phrase.Phrase;
import harpel.phrase.action.Edited;
import harpel.phrase.action.NoteAction;
import harpel.phrase.action.NoteActions;
import harpel.phrase.action.Shapes;
import harpel.phrase.action.Times;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;

/** What keys do in the roll, so that all of it is done without a mouse. Interface thread. */
final class RollKeys {
    private static final int MIDDLE = 60;

    private final Messages messages;
    private final PhraseDesk desk;
    private final RollWindow window;
    private final RollTouch touch;

    RollKeys(Transport transport, PhraseDesk desk, Recorder recorder, Messages messages, RollWindow window) {
        this.messages = messages;
        this.desk = desk;
        this.window = window;
        this.touch = new RollTouch(transport, desk, recorder);
    }

    /** Takes a key; false when it means nothing here. */
    boolean take(KeyEvent event) {
        Phrase phrase = desk.phrase().orElse(null);
        if (phrase == null) {
            return false;
        }
        if (desk.stepping().get() && !event.getCode().isArrowKey()) {
            return step(event);
        }
        KeyCode code = event.getCode();
        if (event.isShortcutDown() && !code.isArrowKey()) {
            return false;
        }
        if (code == KeyCode.HOME || code == KeyCode.END) {
            desk.mark().set(code == KeyCode.HOME ? 0 : Math.max(0, phrase.length() - 1));
            window.scrollTime(desk.mark().get() - window.fromTick(), phrase.length());
        } else if (code == KeyCode.N || code == KeyCode.INSERT) {
            add(phrase);
        } else if (code == KeyCode.TAB) {
            next(phrase, event.isShiftDown() ? -1 : 1);
        } else if (code.isArrowKey() && desk.picked().get().isEmpty()) {
            look(event);
        } else {
            Optional<NoteAction> action =
                    NoteActions.byKey(name(event), desk.inKey().get());
            action.ifPresent(this::act);
            return action.isPresent();
        }
        return true;
    }

    /** A key as actions name theirs. */
    private static String name(KeyEvent event) {
        String key = switch (event.getCode()) {
            // Plus lies on Shift in some layouts and not in others.
            case PLUS, EQUALS, ADD -> "+";
            case MINUS, SUBTRACT -> "−";
            case BACK_SPACE -> KeyCode.DELETE.getName();
            default -> event.getCode().getName();
        };
        boolean sign = key.equals("+") || key.equals("−");
        return (event.isShortcutDown() ? "Shortcut+" : "")
                + (event.isAltDown() ? "Alt+" : "")
                + (event.isShiftDown() && !sign ? "Shift+" : "")
                + key;
    }

    private void act(NoteAction action) {
        if (desk.picked().get().isEmpty()) {
            messages.say("Pick notes first: Tab goes from note to note, Ctrl+A picks all.");
            return;
        }
        desk.act(action);
        if (action.group() == NoteAction.Group.PITCH) {
            sound();
        }
        desk.phrase().ifPresent(this::reveal);
    }

    /** Arrows where nothing is picked: the mark goes along, or the roll scrolls. */
    private void look(KeyEvent event) {
        switch (event.getCode()) {
            case LEFT -> moveMark(-1);
            case RIGHT -> moveMark(1);
            default -> window.scrollPitch((event.getCode() == KeyCode.UP ? 1 : -1) * (event.isShiftDown() ? 12 : 2));
        }
    }

    /** While keys are stepped in: a rest, or the last notes longer. */
    private boolean step(KeyEvent event) {
        switch (event.getCode()) {
            case PERIOD -> moveMark(1);
            case COMMA -> {
                tie();
                moveMark(1);
            }
            case DELETE, BACK_SPACE -> moveMark(-1);
            default -> {
                return false;
            }
        }
        return true;
    }

    private void tie() {
        if (desk.picked().get().isEmpty()) {
            messages.say("Nothing has been stepped in yet.");
        } else {
            desk.act("Tie", (one, ids) -> Times.lengthen(one, ids, desk.stepTicks()));
        }
    }

    void moveMark(int steps) {
        Phrase phrase = desk.phrase().orElseThrow();
        long at = desk.mark().get() + steps * desk.stepTicks();
        desk.mark().set(Math.max(0, Math.min(phrase.length() - 1, at)));
    }

    /** The first picked note is heard for a moment, where it has come to. */
    private void sound() {
        desk.phrase()
                .flatMap(phrase -> desk.picked().get().stream()
                        .findFirst()
                        .flatMap(id -> phrase.notes().find(id)))
                .ifPresent(touch::tap);
    }

    private void add(Phrase phrase) {
        int pitch = desk.picked().get().stream()
                .findFirst()
                .flatMap(id -> phrase.notes().find(id))
                .map(Note::pitch)
                .orElse(MIDDLE);
        desk.act(
                "New note",
                (one, ids) -> Shapes.paste(
                        one,
                        List.of(Note.of(0, desk.drawnLength().get(), pitch, desk.lastVelocity())),
                        desk.mark().get()));
        moveMark(1);
        sound();
        desk.phrase().ifPresent(this::reveal);
    }

    private void next(Phrase phrase, int way) {
        Notes notes = phrase.notes();
        if (notes.isEmpty()) {
            return;
        }
        Function<Note, Integer> place = notes::indexOf;
        List<Note> picked = Edited.meant(phrase, desk.picked().get());
        // What is picked may be another phrase's, as after undo.
        int at = desk.picked().get().isEmpty() || picked.isEmpty()
                ? (way > 0 ? 0 : notes.size() - 1)
                : Math.floorMod(
                        place.apply(way > 0 ? picked.get(picked.size() - 1) : picked.get(0)) + way, notes.size());
        Note note = notes.get(at);
        desk.pick(Set.of(note.id()));
        desk.mark().set(note.tick());
        desk.like(note);
        window.reveal(note);
        sound();
    }

    private void reveal(Phrase before) {
        desk.phrase()
                .filter(phrase -> !desk.picked().get().isEmpty())
                .flatMap(phrase ->
                        Edited.meant(phrase, desk.picked().get()).stream().findFirst())
                .ifPresent(window::reveal);
    }
}
