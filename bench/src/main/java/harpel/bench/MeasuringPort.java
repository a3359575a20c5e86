package harpel.bench;

import harpel.port.OutputPort;
import harpel.port.Ports;
import java.util.function.LongUnaryOperator;
import org.HdrHistogram.Histogram;

/** Measures where the listener's ears would be: when a start reaches the port, against when it ought to have. */
public record MeasuringPort(Histogram histogram, LongUnaryOperator since) implements OutputPort {
    /** The lateness of starts. */
    public static Ports ofLateness(Histogram histogram) {
        return ports(histogram, due -> due);
    }

    /** The time of starts from a moment that changes. */
    public static Ports since(Histogram histogram, long[] moment) {
        return ports(histogram, due -> moment[0]);
    }

    private static Ports ports(Histogram histogram, LongUnaryOperator since) {
        Ports ports = new Ports();
        ports.addListener(new MeasuringPort(histogram, since));
        return ports;
    }

    @Override
    public String name() {
        return "measuring";
    }

    @Override
    public void send(byte[] message, long dueNanos) {
        if ((message[0] & 0xF0) == 0x90) {
            histogram.recordValue(Math.max(0, System.nanoTime() - since.applyAsLong(dueNanos)));
        }
    }

    @Override
    public void close() {
        // nothing is held
    }
}
