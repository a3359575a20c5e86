package harpel.engine;

import harpel.event.Event;
import harpel.event.Message;
import harpel.piece.Lever;
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
    private double lastControl = -1;
    private boolean caught;

    LeverRun(Lever lever) {
        this.lever = lever;
        set(lever.value() / 100);
    }

    private void set(double value) {
        values[0] = value;
        ticks[0] = Long.MIN_VALUE;
        size = 1;
    }

    /** A lever that was moved in the piece stands there; else it stays where it is. */
    void update(Lever newLever) {
        if (newLever.value() != lever.value()) {
            set(newLever.value() / 100);
            caught = false;
        }
        if (newLever.controller() != lever.controller()) {
            lastControl = -1;
            caught = false;
        }
        lever = newLever;
    }

    /** Takes note of what comes in; in the order of events for each part. */
    void hear(Event event, Tap tap) {
        if (lever.controller() < 0
                || !(event instanceof Message message)
                || !message.isController(lever.controller())) {
            return;
        }
        double control = message.data(2) / 127.0;
        double now = values[size - 1];
        boolean passes = lastControl >= 0 && (lastControl - now) * (control - now) <= 0;
        caught |= passes || Math.abs(control - now) <= NEAR;
        lastControl = control;
        if (caught) {
            if (size == ticks.length) {
                ticks = Arrays.copyOf(ticks, 2 * size);
                values = Arrays.copyOf(values, 2 * size);
            }
            ticks[size] = event.tick();
            values[size++] = control;
            tap.lever(lever.name(), control);
        }
    }

    /** Where it stands at a tick, 0–1. */
    double at(long tick) {
        int i = size - 1;
        while (i > 0 && ticks[i] > tick) {
            i--;
        }
        return values[i];
    }

    boolean hasPoints() {
        return !lever.points().isEmpty();
    }

    /** Where its points let it stand at a place of the piece, 0–1; NaN without any. */
    double written(long song) {
        return lever.at(song) / 100;
    }

    /** The tick of the next change after {@code tick} that is known, or never. */
    long nextAfter(long tick) {
        for (int i = 0; i < size; i++) {
            if (ticks[i] > tick) {
                return ticks[i];
            }
        }
        return harpel.time.Ticks.NEVER;
    }

    /** The span is over: only where it stands now counts. */
    void spanOver() {
        set(values[size - 1]);
    }
}
