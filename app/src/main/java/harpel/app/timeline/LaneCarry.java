package harpel.app.timeline;

import harpel.app.desk.TimelineDesk;
import harpel.app.document.Document;
import harpel.app.look.Messages;
import harpel.piece.Piece;
import harpel.piece.PieceEdit;
import java.util.Locale;
import java.util.OptionalLong;

/** Carries a tempo, a key or a mark to another place; one drag is one undo. Interface thread. */
final class LaneCarry {
    private final Document document;
    private final TimelineDesk timeline;
    private final Messages messages;
    private Lanes lane;
    private long from;
    private double grip;
    private Piece before;
    private int gestures;

    LaneCarry(Document document, TimelineDesk timeline, Messages messages) {
        this.document = document;
        this.timeline = timeline;
        this.messages = messages;
    }

    /** @param tick where what is pressed stands, if anything is; what holds from the very start stays there */
    void press(Lanes pressed, OptionalLong tick, double at) {
        lane = pressed;
        before = document.piece().get();
        from = tick.orElse(-1);
        if (from == 0 && pressed != Lanes.MARKS) {
            from = -1;
        }
        grip = at - from;
        gestures++;
    }

    /** Whether something in a lane was pressed and is not yet let go. */
    boolean isOn() {
        return lane != null;
    }

    void drag(double at) {
        if (from < 0) {
            return;
        }
        long snapped = timeline.snapped(at - grip);
        // What holds from the very start is set there, not carried.
        long to = snapped == 0 && lane != Lanes.MARKS ? timeline.step(0) : snapped;
        String words = lane.at(before, from);
        document.apply(new PieceEdit(
                "Move " + lane.title.toLowerCase(Locale.ROOT),
                "lane carry " + gestures,
                piece -> to == from ? before : lane.set(lane.set(before, from, ""), to, words)));
        messages.say(words + " from " + timeline.place(to) + " on.");
    }

    void release() {
        if (lane != null) {
            lane = null;
            document.endGesture();
        }
    }
}
