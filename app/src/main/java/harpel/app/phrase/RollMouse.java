package harpel.app.phrase;

import harpel.app.desk.PhraseDesk;
import harpel.app.desk.Recorder;
import harpel.app.document.Document;
import harpel.app.transport.Transport;
import harpel.phrase.Note;
import harpel.phrase.Notes;
import harpel.phrase.Phrase;
import harpel.phrase.action.Edited;
import harpel.phrase.action.Times;
import harpel.theory.Key;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;

/**
 * What a press and a drag on the roll mean: drawing, moving, copying, resizing, picking by a frame. Places are given in ticks and
 * pitches, so that it knows nothing of pixels. Interface thread.
 */
final class RollMouse {
    /** Where a note was taken hold of. */
    enum Hold {
        BODY,
        LEFT,
        RIGHT
    }

    /**
     * The keys held with a press or drag.
     *
     * @param add picks more, or draws a frame while drawing
     * @param copy leaves the notes and moves copies; at an end, stretches all that is picked
     * @param free keeps off the grid
     */
    record Held(boolean add, boolean copy, boolean free) {}

    private enum Doing {
        NOTHING,
        DRAW,
        MOVE,
        LEFT,
        RIGHT,
        FRAME
    }

    private final Document document;
    private final PhraseDesk desk;
    private Doing doing = Doing.NOTHING;
    private Phrase before;
    private List<Note> held = List.of();
    private Note main;
    private double pressTick;
    private int pressPitch;
    private double dragTick;
    private int dragPitch;
    private Set<Integer> pickedBefore = Set.of();
    private final RollTouch touch;
    private int gestures;
    private boolean changed;

    RollMouse(Document document, Transport transport, PhraseDesk desk, Recorder recorder) {
        this.document = document;
        this.desk = desk;
        this.touch = new RollTouch(transport, desk, recorder);
    }

    boolean isFraming() {
        return doing == Doing.FRAME;
    }

    double frameFromTick() {
        return Math.min(pressTick, dragTick);
    }

    double frameToTick() {
        return Math.max(pressTick, dragTick);
    }

    int frameLowest() {
        return Math.min(pressPitch, dragPitch);
    }

    int frameHighest() {
        return Math.max(pressPitch, dragPitch);
    }

    void press(Phrase phrase, Note on, Hold hold, double tick, int pitch, Held keys) {
        before = phrase;
        pressTick = tick;
        pressPitch = pitch;
        dragTick = tick;
        dragPitch = pitch;
        gestures++;
        changed = false;
        pickedBefore = desk.picked().get();
        desk.endGesture();
        if (on != null) {
            take(on, hold, keys);
        } else if (desk.drawing().get() && !keys.add && tick < phrase.length()) {
            draw(phrase, tick, pitch, keys.free);
        } else {
            doing = Doing.FRAME;
            if (!keys.add) {
                desk.pick(Set.of());
                pickedBefore = Set.of();
            }
        }
    }

    private void take(Note on, Hold hold, Held keys) {
        Set<Integer> picked = new HashSet<>(pickedBefore);
        if (keys.add) {
            if (!picked.remove(on.id())) {
                picked.add(on.id());
            }
        } else if (!picked.contains(on.id())) {
            picked = new HashSet<>(Set.of(on.id()));
        }
        desk.pick(picked);
        desk.like(on);
        if (!picked.contains(on.id())) {
            doing = Doing.NOTHING;
            return;
        }
        main = on;
        held = Edited.meant(before, picked);
        doing = hold == Hold.LEFT ? Doing.LEFT : hold == Hold.RIGHT ? Doing.RIGHT : Doing.MOVE;
        touch.hold(on.pitch(), on.velocity());
    }

    private void draw(Phrase phrase, double tick, int pitch, boolean free) {
        long start = free ? (long) tick : stepAtOrBefore((long) tick);
        int wanted = inKey(pitch);
        Notes notes = phrase.notes().plus(Note.of(start, desk.drawnLength().get(), wanted, desk.lastVelocity()));
        Note fresh = freshOf(notes, phrase.notes(), start, wanted);
        doing = Doing.DRAW;
        main = fresh;
        held = List.of(fresh);
        set("Draw a note", phrase.withNotes(notes), Set.of(fresh.id()));
        touch.hold(wanted, desk.lastVelocity());
    }

    private static Note freshOf(Notes after, Notes before, long tick, int pitch) {
        return after.startingIn(tick, tick + 1).stream()
                .filter(note -> note.pitch() == pitch && before.findOrNull(note.id()) == null)
                .findFirst()
                .orElseThrow();
    }

    void drag(double tick, int pitch, Held keys) {
        dragTick = tick;
        dragPitch = pitch;
        if (hasGone()) {
            release();
        }
        switch (doing) {
            case DRAW -> length(tick, keys.free);
            case MOVE -> move(tick, pitch, keys);
            case LEFT, RIGHT -> {
                if (keys.copy && doing == Doing.RIGHT && held.size() > 1) {
                    stretch(tick, keys.free);
                } else {
                    resize(tick, keys.free);
                }
            }
            case FRAME -> frame(keys.add);
            default -> {}
        }
    }

    /** What is held may be undone meanwhile, or taken away otherwise: then there is nothing to drag. */
    private boolean hasGone() {
        return doing != Doing.FRAME
                && doing != Doing.NOTHING
                && desk.phrase()
                        .filter(phrase -> phrase.notes().findOrNull(main.id()) != null)
                        .isEmpty();
    }

    /** A note that is being drawn is as long as the drag goes, by whole steps. */
    private void length(double tick, boolean free) {
        long step = desk.stepTicks();
        if (!changed && Math.abs(tick - pressTick) < step / 2.0) {
            return;
        }
        long end = free ? (long) tick : stepAtOrBefore((long) Math.max(main.tick(), tick)) + step;
        Note longer = main.withLength(Math.max(free ? 1 : step, end - main.tick()));
        desk.asSet(longer);
        Phrase now = desk.phrase().orElse(before);
        set("Draw a note", now.withNotes(now.notes().with(longer)), Set.of(main.id()));
    }

    private void move(double tick, int pitch, Held keys) {
        long raw = (long) (tick - pressTick);
        long by = keys.free ? raw : nearest(main.tick() + raw) - main.tick();
        if (!keys.free && !changed && Math.abs(raw) < desk.stepTicks() / 3) {
            by = 0;
        }
        int up = pitch - pressPitch;
        long first = held.get(0).tick();
        long last = held.get(held.size() - 1).tick();
        by = Math.max(-first, Math.min(before.length() - 1 - last, by));
        int low = held.stream().mapToInt(Note::pitch).min().orElse(0);
        int high = held.stream().mapToInt(Note::pitch).max().orElse(0);
        up = Math.max(-low, Math.min(127 - high, up));
        if (desk.inKey().get() && up != 0) {
            up = inKey(main.pitch() + up) - main.pitch();
        }
        if (by == 0 && up == 0 && !changed) {
            return;
        }
        List<Note> moved = new ArrayList<>();
        for (Note note : held) {
            int newPitch = Math.max(0, Math.min(127, note.pitch() + up));
            moved.add(note.withTick(note.tick() + by).withPitch(newPitch));
        }
        if (keys.copy) {
            Notes more = before.notes()
                    .plusAll(moved.stream().map(note -> note.withId(Note.NEW)).toList());
            Set<Integer> fresh = new HashSet<>();
            more.forEach(note -> {
                if (before.notes().findOrNull(note.id()) == null) {
                    fresh.add(note.id());
                }
            });
            set("Copy notes", before.withNotes(more), fresh);
        } else {
            set("Move notes", before.withNotes(before.notes().withAll(moved)), ids(held));
        }
        touch.hold(Math.max(0, Math.min(127, main.pitch() + up)), main.velocity());
    }

    private void resize(double tick, boolean free) {
        long raw = (long) (tick - pressTick);
        boolean left = doing == Doing.LEFT;
        long edge = left ? main.tick() : main.endTick();
        long by = free ? raw : nearest(edge + raw) - edge;
        List<Note> resized = new ArrayList<>();
        for (Note note : held) {
            if (left) {
                long start = Math.max(0, Math.min(note.endTick() - 1, note.tick() + by));
                resized.add(note.withTick(start).withLength(note.endTick() - start));
            } else {
                resized.add(note.withLength(Math.max(1, note.length() + by)));
            }
        }
        resized.stream().filter(note -> note.id() == main.id()).forEach(desk::asSet);
        set("Resize notes", before.withNotes(before.notes().withAll(resized)), ids(held));
    }

    /** All that is picked gets longer or shorter together, from the first start on, so that the held end comes where it is pulled. */
    private void stretch(double tick, boolean free) {
        long from = held.get(0).tick();
        long raw = main.endTick() + (long) (tick - pressTick);
        long end = Math.max(from + Math.max(1, desk.stepTicks() / 4), free ? raw : nearest(raw));
        double factor = (end - from) / (double) (main.endTick() - from);
        Edited stretched = Times.stretch(before, ids(held), factor, desk.around());
        set("Stretch notes", stretched.phrase(), ids(held));
    }

    private void frame(boolean add) {
        Set<Integer> inside = new HashSet<>(add ? pickedBefore : Set.of());
        List<Note> found = new ArrayList<>();
        RollPainter.seen(before, frameFromTick(), frameToTick(), found);
        for (Note note : found) {
            if (note.pitch() >= frameLowest() && note.pitch() <= frameHighest()) {
                inside.add(note.id());
            }
        }
        desk.pick(inside);
    }

    void release() {
        if (doing != Doing.FRAME && doing != Doing.NOTHING) {
            desk.endGesture();
        }
        doing = Doing.NOTHING;
        touch.letGo();
    }

    private void set(String label, Phrase after, Set<Integer> picked) {
        changed |= doing != Doing.DRAW || after.notes().size() == before.notes().size();
        desk.set(label, "roll " + gestures, after, picked);
    }

    private static Set<Integer> ids(List<Note> notes) {
        Set<Integer> ids = new HashSet<>();
        notes.forEach(note -> ids.add(note.id()));
        return ids;
    }

    private int inKey(int pitch) {
        Key key = document.piece().get().key();
        int found = pitch;
        while (desk.inKey().get() && found > 0 && !key.contains(found)) {
            found--;
        }
        return found;
    }

    private long stepAtOrBefore(long tick) {
        return desk.steps()
                .map(steps -> {
                    long index = steps.indexAtOrAfter(tick);
                    long at = steps.tickOf(index);
                    return at > tick && index > 0 ? steps.tickOf(index - 1) : at;
                })
                .orElse(tick);
    }

    private long nearest(long tick) {
        return desk.steps()
                .map(steps -> Times.nearest(steps, Math.max(0, tick)))
                .orElse(tick);
    }
}
