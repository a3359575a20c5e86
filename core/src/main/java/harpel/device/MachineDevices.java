package harpel.device;

import harpel.port.InputPort;
import harpel.port.OutputPort;
import java.util.List;

/** The MIDI devices a machine has at a moment: its own, or simulated ones. */
public interface MachineDevices {
    /** A device that is there, in one of its ways. */
    interface Found {
        String name();

        /** Whether it plays; else it is played. */
        boolean isInput();

        /**
         * Lets what it plays come in there.
         *
         * @return what ends that
         * @throws Exception when it does not open
         */
        AutoCloseable openInput(InputPort to) throws Exception;

        /** @throws Exception when it does not open */
        OutputPort openOutput() throws Exception;
    }

    /** Those that are there now, in an order that stays as long as they do. */
    List<Found> found();
}
