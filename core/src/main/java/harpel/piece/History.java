package harpel.piece;

import java.util.ArrayDeque;
import java.util.Deque;
import java.util.Optional;

/** The piece as it is, what it was before each edit, and which state is saved. Owned by one thread. */
public final class History {
    private static final int DEEPEST = 1000;

    private record Step(Piece before, Piece after, String label, String gesture) {}

    private final Deque<Step> done = new ArrayDeque<>();
    private final Deque<Step> undone = new ArrayDeque<>();
    private Piece current;
    private Piece saved;

    public History(Piece piece) {
        current = piece;
        saved = piece;
    }

    public Piece current() {
        return current;
    }

    /** Does an edit; one that changes nothing leaves no trace. */
    public void apply(PieceEdit edit) {
        Piece after = edit.change().apply(current);
        if (after.equals(current)) {
            return;
        }
        Step last = done.peek();
        boolean goesOn =
                last != null && !edit.gesture().isEmpty() && edit.gesture().equals(last.gesture) && undone.isEmpty();
        Piece before = goesOn ? done.pop().before : current;
        if (!after.equals(before)) {
            done.push(new Step(before, after, edit.label(), edit.gesture()));
        }
        undone.clear();
        current = after;
        if (done.size() > DEEPEST) {
            done.removeLast();
        }
    }

    /** Ends a gesture: the next edit is undone on its own. */
    public void endGesture() {
        if (!done.isEmpty()) {
            Step last = done.pop();
            done.push(new Step(last.before, last.after, last.label, ""));
        }
    }

    /** What undo would take back. */
    public Optional<String> undoLabel() {
        return Optional.ofNullable(done.peek()).map(Step::label);
    }

    public Optional<String> redoLabel() {
        return Optional.ofNullable(undone.peek()).map(Step::label);
    }

    public boolean undo() {
        if (done.isEmpty()) {
            return false;
        }
        Step step = done.pop();
        undone.push(step);
        current = step.before;
        return true;
    }

    public boolean redo() {
        if (undone.isEmpty()) {
            return false;
        }
        Step step = undone.pop();
        done.push(step);
        current = step.after;
        return true;
    }

    public void markSaved() {
        saved = current;
    }

    public boolean hasUnsavedChanges() {
        return !current.equals(saved);
    }
}
