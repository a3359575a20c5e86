package harpel.testkit;

import harpel.engine.LiveEngine;
import harpel.port.InputPort;

/** A stand-in for a MIDI keyboard: sends what one would. Used by one thread. */
public final class SimulatedController {
    private final InputPort port;

    public SimulatedController(LiveEngine engine) {
        port = engine.openInput("Simulated controller");
    }

    public void press(int pitch, int velocity) {
        port.offer(0x90, pitch, velocity, System.nanoTime());
    }

    public void release(int pitch) {
        port.offer(0x80, pitch, 64, System.nanoTime());
    }

    public void control(int controller, int value) {
        port.offer(0xB0, controller, value, System.nanoTime());
    }
}
