package harpel.control;

import harpel.control.ControllerMap.Knob;
import java.util.List;

/** Reads what knobs say out of controller messages (MIDI 1.0, control change). Owned by one thread. */
public final class KnobReader {
    private static final int DATA = 6;
    private static final int DATA_LOW = 38;
    private static final int NRPN_LOW = 98;
    private static final int NRPN_HIGH = 99;
    private static final double FINEST = 16_383;

    /** Takes what a knob says. */
    public interface Taker {
        /** @param value where it stands, 0–1 */
        void stands(int knob, double value);

        /** @param steps how far it was turned; below 0 downwards */
        void turned(int knob, int steps);
    }

    private final List<Knob> knobs;
    private final int[] high;
    private int nrpn = -1;
    private int nrpnHigh;
    private int dataHigh;

    public KnobReader(List<Knob> knobs) {
        this.knobs = knobs;
        this.high = new int[knobs.size()];
    }

    /** Takes a controller message; false when it is of no knob. */
    public boolean take(int controller, int value, Taker taker) {
        switch (controller) {
            case NRPN_HIGH -> nrpnHigh = value;
            case NRPN_LOW -> nrpn = nrpnHigh << 7 | value;
            case DATA -> dataHigh = value;
            default -> {}
        }
        boolean taken = false;
        for (int i = 0; i < knobs.size(); i++) {
            taken |= take(knobs.get(i), i, controller, value, taker);
        }
        return taken;
    }

    private boolean take(Knob knob, int place, int controller, int value, Taker taker) {
        switch (knob.kind()) {
            case ABSOLUTE -> {
                if (controller == knob.number()) {
                    taker.stands(place, value / 127.0);
                    return true;
                }
            }
            case RELATIVE -> {
                if (controller == knob.number()) {
                    taker.turned(place, value < 64 ? value : value - 128);
                    return true;
                }
            }
            case FINE -> {
                if (controller == knob.number()) {
                    // The low byte counts from 0 again, until it comes (MIDI 1.0).
                    high[place] = value;
                    taker.stands(place, (value << 7) / FINEST);
                    return true;
                }
                if (controller == knob.number() + 32) {
                    taker.stands(place, (high[place] << 7 | value) / FINEST);
                    return true;
                }
            }
            case NRPN -> {
                boolean mine = nrpn == knob.number();
                if (mine && (controller == DATA || controller == DATA_LOW)) {
                    taker.stands(place, (dataHigh << 7 | (controller == DATA_LOW ? value : 0)) / FINEST);
                }
                return mine
                        && (controller == DATA
                                || controller == DATA_LOW
                                || controller >= NRPN_LOW && controller <= NRPN_HIGH);
            }
        }
        return false;
    }
}
