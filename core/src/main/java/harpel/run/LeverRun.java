package harpel.run;

import harpel.event.Event;
import harpel.event.Message;
import harpel.piece.perform.Lever;
import harpel.time.Ticks;
import java.util.Arrays;

/**
 * Where a lever stands at each tick of the span being rendered. A controller takes it over softly: it moves the lever only after it
 * has come to where the lever stands, so that nothing jumps. Owned by the renderer.
 */
final class LeverRun {
    private static final double NEAR = 0.02;

    private Lever lever;
    private double[] values = new double[16];
    private long[] ticks = new long[16];
    private int size;
    /** Where each controller stood last, 0–1, or -1. */
    private final double[] controls = new double[128];
    /** The controller that has come to it since it was moved otherwise, or -1. */
    private int caught = -1;

    /** From where in the piece a hand holds it against its points; {@link Ticks#NEVER} while none does. */
    private long heldFrom = Ticks.NEVER;
    /** Its next point behind that. */
    private long heldUntil = Ticks.NEVER;

    /** While it glides: from when on and until when, and from where; to where it was set. */
    private long glideTick;

    private long glideEnd = -1;
    private double glideFrom;

    LeverRun(Lever lever) {
        this.lever = lever;
        Arrays.fill(controls, -1);
        set(lever.value() / 100);
    }

    private void set(double value) {
        values[0] = value;
        ticks[0] = Long.MIN_VALUE;
        size = 1;
        glideEnd = -1;
    }

    /**
     * A lever that was moved in the piece stands there, or comes there evenly from a tick on; else it stays where it is.
     *
     * @return whether it was moved
     */
    boolean update(Lever newLever, long tick, long glideTicks) {
        boolean isMoved = newLever.value() != lever.value();
        if (isMoved) {
            double before = at(tick);
            set(newLever.value() / 100);
            if (glideTicks > 0) {
                glideFrom = before;
                glideTick = tick;
                glideEnd = tick + glideTicks;
            }
            caught = -1;
        }
        if (!newLever.controllers().equals(lever.controllers())) {
            Arrays.fill(controls, -1);
            caught = -1;
        }
        boolean otherPoints = !newLever.points().equals(lever.points());
        lever = newLever;
        if (otherPoints) {
            heldUntil = nextPoint(heldFrom);
        }
        return isMoved;
    }

    /** A hand has moved it at a place of the piece: what is written holds again from its next point on. */
    void hold(long song, Tap tap) {
        if (hasPoints()) {
            heldFrom = song;
            heldUntil = nextPoint(song);
            tap.tell(new Told.LeverHeld(lever.name(), values[size - 1], song, heldUntil));
        }
    }

    private long nextPoint(long song) {
        for (Lever.Point point : lever.points()) {
            if (point.tick() > song) {
                return point.tick();
            }
        }
        return Ticks.NEVER;
    }

    private boolean isHeld(long song) {
        return heldFrom <= song && song < heldUntil;
    }

    /**
     * Takes note of what comes in; in the order of events for each part.
     *
     * @param written where its points let it stand now, 0–1; NaN where it follows none
     * @param song where that is in the piece
     */
    void hear(Event event, double written, long song, Tap tap) {
        if (!(event instanceof Message message)
                || (message.status() & 0xF0) != Message.CONTROL_CHANGE
                || !lever.controllers().contains(message.data(1))) {
            return;
        }
        int number = message.data(1);
        double lastControl = controls[number];
        double control = message.data(2) / 127.0;
        double now = Double.isNaN(written) ? at(event.tick()) : written;
        boolean passes = lastControl >= 0 && (lastControl - now) * (control - now) <= 0;
        if (passes || Math.abs(control - now) <= NEAR) {
            caught = number;
        }
        controls[number] = control;
        if (caught == number) {
            if (size == ticks.length) {
                ticks = Arrays.copyOf(ticks, 2 * size);
                values = Arrays.copyOf(values, 2 * size);
            }
            ticks[size] = event.tick();
            values[size] = lever.nearest(control * 100) / 100;
            tap.tell(new Told.LeverAt(lever.name(), values[size++]));
            if (!Double.isNaN(written)) {
                hold(song, tap);
            }
        } else {
            tap.tell(new Told.KnobAt(lever.name(), control));
        }
    }

    /** Where it stands at a tick, 0–1. */
    double at(long tick) {
        int i = size - 1;
        while (i > 0 && ticks[i] > tick) {
            i--;
        }
        if (i > 0 || tick >= glideEnd) {
            return values[i];
        }
        double way = Math.max(0, tick - glideTick) / (double) (glideEnd - glideTick);
        return glideFrom + (values[0] - glideFrom) * way;
    }

    boolean hasPoints() {
        return !lever.points().isEmpty();
    }

    /** Where its points let it stand at a place of the piece, 0–1; NaN without any, and while a hand holds it. */
    double written(long song) {
        return isHeld(song) ? Double.NaN : lever.at(song) / 100;
    }

    /** What it gives to all it moves where it stands. */
    double bent(double place) {
        return lever.bent(place);
    }

    /** The tick of the next change after {@code tick} that is known, or never. */
    long nextAfter(long tick) {
        for (int i = 0; i < size; i++) {
            if (ticks[i] > tick) {
                return ticks[i];
            }
        }
        return tick < glideEnd ? (tick / MoveRun.LOOK_TICKS + 1) * MoveRun.LOOK_TICKS : Ticks.NEVER;
    }

    /** The span is over: only where it stands now counts. */
    void spanOver() {
        if (size > 1) {
            set(values[size - 1]);
        }
    }
}
