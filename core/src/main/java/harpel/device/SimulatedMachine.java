package harpel.device;

import harpel.port.InputPort;
import harpel.port.OutputPort;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CopyOnWriteArrayList;

/** Simulated MIDI devices, which are plugged in and pulled out at will: for tests, and for who has no others. From any thread. */
public final class SimulatedMachine implements MachineDevices {
    /** A simulated device. */
    public static final class Device implements Found {
        private final String name;
        private final boolean input;
        private final OutputPort port;
        private volatile InputPort way;
        private volatile boolean refuses;
        private volatile int opened;

        private Device(String name, OutputPort port) {
            this.name = name;
            this.input = port == null;
            this.port = port;
        }

        @Override
        public String name() {
            return name;
        }

        @Override
        public boolean isInput() {
            return input;
        }

        /** Does not open from now on, as one that another program has taken; or does again. */
        public void refuse(boolean nowRefuses) {
            refuses = nowRefuses;
        }

        /** How often it has been opened. */
        public int opened() {
            return opened;
        }

        /** Plays a message, as it would arrive by a cable; nobody hears it while it is not open. From one thread at a time. */
        public void play(int status, int data1, int data2) {
            InputPort to = way;
            if (to != null) {
                to.offer(status, data1, data2, System.nanoTime());
            }
        }

        @Override
        public AutoCloseable openInput(InputPort to) throws Exception {
            open();
            way = to;
            return () -> way = null;
        }

        @Override
        public OutputPort openOutput() throws Exception {
            open();
            return port;
        }

        private void open() throws Exception {
            if (refuses) {
                throw new IllegalStateException("taken by somebody else");
            }
            opened++;
        }
    }

    private final List<Device> devices = new CopyOnWriteArrayList<>();

    /** A device that plays. */
    public Device plugIn(String name) {
        return plugIn(new Device(name, null));
    }

    /** A device that is played; what it is sent goes to a port. */
    public Device plugIn(String name, OutputPort port) {
        return plugIn(new Device(name, port));
    }

    /** One that was pulled out. */
    public Device plugIn(Device device) {
        devices.add(device);
        return device;
    }

    public void pullOut(Device device) {
        devices.remove(device);
    }

    @Override
    public List<Found> found() {
        return new ArrayList<>(devices);
    }
}
