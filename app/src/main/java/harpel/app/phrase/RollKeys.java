package harpel.app.phrase;

import harpel.app.desk.PhraseDesk;
import harpel.app.desk.Recorder;
import harpel.app.look.Messages;
import harpel.app.transport.Transport;
import harpel.phrase.Note;
import harpel.phrase.Notes;
import harpel.phrase.Phrase;
import harpel.phrase.action.Edited;
import harpel.phrase.action.Pitches;
import harpel.phrase.action.Shapes;
import harpel.phrase.action.Times;
import harpel.phrase.action.Velocities;
import java.util.List;
import java.util.Set;
import java.util.function.Function;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;

/** What keys do in the roll, so that all of it is done without a mouse. Interface thread. */
final class RollKeys {
    private static final int LOUDER = 5;
    private static final int CHANCE = 10;
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
        boolean shift = event.isShiftDown();
        KeyCode code = event.getCode();
        if (event.isShortcutDown() && !code.isArrowKey()) {
            return false;
        }
        switch (code) {
            case LEFT, RIGHT -> sideways(event, code == KeyCode.LEFT ? -1 : 1, phrase);
            case UP, DOWN -> upwards(event, code == KeyCode.UP ? 1 : -1);
            case N, INSERT -> add(phrase);
            case TAB -> next(phrase, shift ? -1 : 1);
            case PLUS, EQUALS, ADD -> each("Louder", (one, ids) -> Velocities.louder(one, ids, LOUDER));
            case MINUS, SUBTRACT -> each("Softer", (one, ids) -> Velocities.louder(one, ids, -LOUDER));
            case C -> chance(shift ? CHANCE : -CHANCE);
            case O -> each("Off or on", Velocities::off);
            case DELETE, BACK_SPACE -> {
                if (!desk.picked().get().isEmpty()) {
                    desk.act("Remove notes", Shapes::remove);
                }
            }
            default -> {
                return false;
            }
        }
        return true;
    }

    /** While keys are stepped in: a rest, or the last notes longer. */
    private boolean step(KeyEvent event) {
        switch (event.getCode()) {
            case PERIOD -> moveMark(1);
            case COMMA -> {
                each("Tie", (one, ids) -> Times.lengthen(one, ids, desk.stepTicks()));
                moveMark(1);
            }
            case DELETE, BACK_SPACE -> moveMark(-1);
            default -> {
                return false;
            }
        }
        return true;
    }

    private void each(String label, PhraseDesk.Action action) {
        if (desk.picked().get().isEmpty()) {
            messages.say("Pick notes first: Tab goes from note to note, Ctrl+A picks all.");
        } else {
            desk.act(label, action);
        }
    }

    void moveMark(int steps) {
        Phrase phrase = desk.phrase().orElseThrow();
        long at = desk.mark().get() + steps * desk.stepTicks();
        desk.mark().set(Math.max(0, Math.min(phrase.length() - 1, at)));
    }

    private void sideways(KeyEvent event, int way, Phrase phrase) {
        if (desk.picked().get().isEmpty()) {
            moveMark(way);
        } else if (event.isShortcutDown()) {
            desk.act(way < 0 ? "Shorter" : "Longer", (one, ids) -> Times.lengthen(one, ids, way * desk.stepTicks()));
        } else {
            long bar = desk.around().time().meter().at(0).barTicks();
            long by = event.isShiftDown()
                    ? bar
                    : event.isAltDown() ? Math.max(1, desk.stepTicks() / 24) : desk.stepTicks();
            desk.act(way < 0 ? "Earlier" : "Later", (one, ids) -> Times.move(one, ids, way * by));
        }
        reveal(phrase);
    }

    private void upwards(KeyEvent event, int way) {
        if (desk.picked().get().isEmpty()) {
            window.scrollPitch(way * (event.isShiftDown() ? 12 : 2));
        } else if (event.isShiftDown()) {
            desk.act(way > 0 ? "Octave up" : "Octave down", (one, ids) -> Pitches.transpose(one, ids, 12 * way));
        } else if (desk.inKey().get()) {
            desk.act(
                    way > 0 ? "Degree up" : "Degree down", (one, ids) -> Pitches.degrees(one, ids, way, desk.around()));
        } else {
            desk.act(way > 0 ? "Semitone up" : "Semitone down", (one, ids) -> Pitches.transpose(one, ids, way));
        }
        sound();
        desk.phrase().ifPresent(this::reveal);
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
                        List.of(Note.of(0, desk.stepTicks(), pitch, desk.lastVelocity())),
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
        int at = desk.picked().get().isEmpty()
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

    private void chance(int by) {
        each("Chance", (one, ids) -> {
            int first = Edited.meant(one, ids).get(0).traits().chance();
            int wanted = first + by < 0 ? 100 : first + by > 100 ? 0 : first + by;
            return Velocities.chance(one, ids, Math.max(0, Math.min(100, wanted)), desk.around());
        });
    }

    private void reveal(Phrase before) {
        desk.phrase()
                .filter(phrase -> !desk.picked().get().isEmpty())
                .ifPresent(phrase ->
                        window.reveal(Edited.meant(phrase, desk.picked().get()).get(0)));
    }
}
