package harpel.device;

import java.util.function.LongSupplier;

/** Ports without threads, on a clock of the test's own. */
public final class PortsKit {
    private final Ports ports;

    public PortsKit(LongSupplier clock) {
        ports = new Ports(clock, false);
    }

    public Ports ports() {
        return ports;
    }

    public void pump() {
        ports.pump();
    }
}
