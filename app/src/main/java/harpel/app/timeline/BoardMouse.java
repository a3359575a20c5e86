package harpel.app.timeline;

import harpel.app.desk.TimelineDesk;
import harpel.app.document.Document;
import harpel.app.document.Selection;
import harpel.piece.Block;
import harpel.piece.Part;
import harpel.piece.Piece;
import harpel.piece.Timeline;
import harpel.piece.Timeline.Ref;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;

/** What a press, a drag and a release do to blocks; until it is let go of only what is shown changes. Interface thread. */
final class BoardMouse {
    private static final double HANDLE = 6;
    private static final double FAR = 4;

    /**
     * Where the pointer is.
     *
     * @param unit ticks to a pixel
     */
    record Spot(double tick, int row, double unit, boolean shift, boolean control) {}

    private enum Doing {
        NOTHING,
        DRAW,
        MOVE,
        LEFT,
        RIGHT,
        FRAME
    }

    private final Document document;
    private final Selection selection;
    private final TimelineDesk desk;
    private final Runnable repaint;
    private Doing doing = Doing.NOTHING;
    private Spot from;
    private Spot to;
    private Ref held;
    private Block block;
    private boolean moved;

    BoardMouse(Document document, Selection selection, TimelineDesk timeline, Runnable repaint) {
        this.document = document;
        this.selection = selection;
        this.desk = timeline;
        this.repaint = repaint;
    }

    private List<Part> parts() {
        return document.piece().get().parts();
    }

    void press(Spot spot, int clicks) {
        from = spot;
        to = spot;
        moved = false;
        doing = Doing.NOTHING;
        if (spot.row < 0 || spot.row >= parts().size()) {
            desk.pick(Set.of());
            return;
        }
        Part part = parts().get(spot.row);
        Optional<Block> on = Timeline.at(part, (long) spot.tick);
        if (on.isEmpty()) {
            selection.partId().set(part.id());
            doing = spot.shift ? Doing.FRAME : Doing.DRAW;
            if (!spot.shift) {
                desk.pick(Set.of());
                selection.partId().set(part.id());
            }
            if (clicks == 2) {
                doing = Doing.NOTHING;
                long begin = desk.snapped(spot.tick - desk.step((long) spot.tick) / 2.0);
                long bar = document.piece().get().time().meter().at(begin).barTicks();
                long length = document.piece()
                        .get()
                        .phrase(part.phrase())
                        .map(phrase -> phrase.length())
                        .orElse(0L);
                desk.add(part.id(), begin, begin + Math.max(bar, length));
            }
            return;
        }
        block = on.get();
        held = new Ref(part.id(), block.at());
        if (clicks == 2) {
            desk.pick(Set.of(held));
            desk.openPhrase();
            return;
        }
        if (spot.shift) {
            Set<Ref> picked = new TreeSet<>();
            picked.addAll(desk.picked().get());
            if (!picked.remove(held)) {
                picked.add(held);
            }
            desk.picked().set(Set.copyOf(picked));
            return;
        }
        if (!desk.picked().get().contains(held)) {
            desk.pick(Set.of(held));
        }
        selection.partId().set(part.id());
        double edge = Math.min(HANDLE * spot.unit, block.length() / 4.0);
        doing = spot.tick < block.at() + edge ? Doing.LEFT : spot.tick > block.end() - edge ? Doing.RIGHT : Doing.MOVE;
    }

    void drag(Spot spot) {
        to = spot;
        moved |= Math.abs(spot.tick - from.tick) > FAR * spot.unit || spot.row != from.row;
        repaint.run();
    }

    void release(Spot spot) {
        to = spot;
        if (moved) {
            switch (doing) {
                case DRAW -> {
                    if (drawnEnd() > drawnBegin()) {
                        desk.add(parts().get(from.row).id(), drawnBegin(), drawnEnd());
                    }
                }
                case MOVE -> desk.move(by(), to.row - from.row, to.control);
                case LEFT, RIGHT -> desk.resize(held, begin(), end());
                case FRAME -> desk.picked().set(Set.copyOf(framed()));
                case NOTHING -> {}
            }
        }
        doing = Doing.NOTHING;
        moved = false;
        repaint.run();
    }

    private long drawnBegin() {
        double first = Math.min(from.tick, to.tick);
        long step = desk.step((long) first);
        // A block begins in the bar where it is pressed.
        return desk.snap().get() == TimelineDesk.Snap.OFF ? Math.round(first) : desk.snapped(first - step / 2.0 + 1);
    }

    private long drawnEnd() {
        double last = Math.max(from.tick, to.tick);
        long step = desk.step((long) last);
        return desk.snap().get() == TimelineDesk.Snap.OFF ? Math.round(last) : desk.snapped(last + step / 2.0 - 1);
    }

    /** How far the picked ones are carried: the held one comes to a place it snaps to. */
    private long by() {
        return desk.snapped(Math.max(0, block.at() + to.tick - from.tick)) - block.at();
    }

    private long begin() {
        return doing == Doing.LEFT
                ? Math.min(block.end() - 1, desk.snapped(block.at() + to.tick - from.tick))
                : block.at();
    }

    private long end() {
        return doing == Doing.RIGHT
                ? Math.max(block.at() + 1, desk.snapped(block.end() + to.tick - from.tick))
                : block.end();
    }

    // What is shown meanwhile

    /** The piece as it would be. */
    Piece shown(Piece piece) {
        if (!moved) {
            return piece;
        }
        return switch (doing) {
            case DRAW ->
                drawnEnd() <= drawnBegin()
                        ? piece
                        : Timeline.put(
                                piece,
                                parts().get(from.row).id(),
                                Block.of(
                                        drawnBegin(),
                                        drawnEnd() - drawnBegin(),
                                        parts().get(from.row).phrase()));
            case MOVE -> result(piece).piece();
            case LEFT, RIGHT -> Timeline.resize(piece, held, begin(), end()).piece();
            case FRAME, NOTHING -> piece;
        };
    }

    private Timeline.Result result(Piece piece) {
        return Timeline.move(piece, desk.picked().get(), by(), to.row - from.row, to.control);
    }

    /** What is picked in what is shown. */
    Set<Ref> picked() {
        if (moved && doing == Doing.MOVE) {
            return result(document.piece().get()).refs();
        }
        if (moved && (doing == Doing.LEFT || doing == Doing.RIGHT)) {
            return Set.of(new Ref(held.part(), begin()));
        }
        return moved && doing == Doing.FRAME ? framed() : desk.picked().get();
    }

    boolean isFraming() {
        return moved && doing == Doing.FRAME;
    }

    double frameFrom() {
        return Math.min(from.tick, to.tick);
    }

    double frameTo() {
        return Math.max(from.tick, to.tick);
    }

    int frameTop() {
        return Math.min(from.row, to.row);
    }

    int frameBottom() {
        return Math.max(from.row, to.row);
    }

    private Set<Ref> framed() {
        Set<Ref> found = new TreeSet<>();
        for (int row = Math.max(0, frameTop()); row <= Math.min(parts().size() - 1, frameBottom()); row++) {
            Part part = parts().get(row);
            for (Block one : part.blocks()) {
                if (one.at() < frameTo() && one.end() > frameFrom()) {
                    found.add(new Ref(part.id(), one.at()));
                }
            }
        }
        return found;
    }
}
