package harpel.piece;

import harpel.phrase.Notes;
import harpel.phrase.Phrase;
import java.util.ArrayDeque;
import java.util.Collections;
import java.util.Deque;
import java.util.IdentityHashMap;
import java.util.Optional;
import java.util.Set;

/** The piece as it is, what it was before each edit, and which state is saved. Owned by one thread. */
public final class History {
    /** So many bytes may be kept of what was, besides what it shares with what is; and so many steps. */
    static final long MOST_BYTES = 64L << 20;

    /** A part with a chain of a dozen stages, roughly. */
    private static final long PART_BYTES = 6_000;

    private static final int DEEPEST = 10_000;

    private record Step(Piece before, Piece after, String label, String gesture, long bytes) {}

    private final Deque<Step> done = new ArrayDeque<>();
    private final Deque<Step> undone = new ArrayDeque<>();
    private long bytes;
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
        if (after == current || after.equals(current)) {
            return;
        }
        Step last = done.peek();
        boolean goesOn =
                last != null && !edit.gesture().isEmpty() && edit.gesture().equals(last.gesture) && undone.isEmpty();
        Piece before = goesOn ? pop().before : current;
        if (!after.equals(before)) {
            Step step = new Step(before, after, edit.label(), edit.gesture(), bytesBetween(before, after));
            done.push(step);
            bytes += step.bytes;
        }
        undone.clear();
        current = after;
        while (done.size() > 1 && (bytes > MOST_BYTES || done.size() > DEEPEST)) {
            bytes -= done.removeLast().bytes;
        }
    }

    /** Does an edit, and makes one step of it and of all that has been done since a piece was current. */
    public void together(Piece since, PieceEdit edit) {
        apply(edit);
        if (done.stream().noneMatch(step -> step.before == since)) {
            return;
        }
        Piece before = current;
        while (before != since) {
            before = pop().before;
        }
        if (!current.equals(since)) {
            Step step = new Step(since, current, edit.label(), "", bytesBetween(since, current));
            done.push(step);
            bytes += step.bytes;
        }
        undone.clear();
    }

    private Step pop() {
        Step step = done.pop();
        bytes -= step.bytes;
        return step;
    }

    /** About how much is kept for a step: what of the piece before is not in the piece after. */
    static long bytesBetween(Piece before, Piece after) {
        long bytes = 500;
        Set<Object> kept = Collections.newSetFromMap(new IdentityHashMap<>());
        kept.addAll(after.parts());
        for (Part part : before.parts()) {
            bytes += kept.contains(part) ? 4 : PART_BYTES;
        }
        for (Phrase phrase : before.phrases()) {
            Phrase now = after.phrase(phrase.id()).orElse(null);
            bytes += now == phrase ? 4 : 100 + phrase.notes().bytesBeside(now == null ? Notes.EMPTY : now.notes());
        }
        return bytes;
    }

    /** How many bytes are kept of what was, about. */
    public long bytes() {
        return bytes;
    }

    /** Ends a gesture: the next edit is undone on its own. */
    public void endGesture() {
        if (!done.isEmpty()) {
            Step last = done.pop();
            done.push(new Step(last.before, last.after, last.label, "", last.bytes));
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
        Step step = pop();
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
        bytes += step.bytes;
        current = step.after;
        return true;
    }

    public void markSaved() {
        saved = current;
    }

    /** What was saved is another piece, or another state of it. */
    public void markSaved(Piece piece) {
        saved = piece;
    }

    public Piece saved() {
        return saved;
    }

    public boolean hasUnsavedChanges() {
        return !current.equals(saved);
    }
}
