package harpel.clock;

import harpel.piece.Bracket;
import harpel.port.LiveOutput;
import harpel.time.Ticks;
import java.util.List;
import java.util.function.LongUnaryOperator;

/**
 * Sends the time to other machines: 24 clocks a quarter while the transport runs, start, continue, stop and the song position in
 * sixteenths (MIDI 1.0, system real time and system common messages). Owned by the engine thread.
 */
public final class ClockOut {
    public static final int CLOCK = 0xF8;
    public static final int START = 0xFA;
    public static final int CONTINUE = 0xFB;
    public static final int STOP = 0xFC;
    public static final int POSITION = 0xF2;

    /** So many ticks lie between two clocks. */
    static final long CLOCK_TICKS = Ticks.PER_QUARTER / ClockFollower.CLOCKS_A_QUARTER;
    /** The song position counts sixteenths. */
    public static final long SIXTEENTH = Ticks.PER_QUARTER / 4;

    private static final int FARTHEST = 0x3FFF;

    private static final byte[] CLOCKED = {(byte) CLOCK};

    private final LiveOutput output;
    private List<String> ports = List.of();
    private boolean running;
    /** When it is told to go on; then its clocks come. */
    private long goesOn;

    private boolean told;
    private long next;
    private long wrap;

    public ClockOut(LiveOutput output) {
        this.output = output;
    }

    /** Where it is sent; those that are new are told to start with the next stop and start. */
    public void to(List<String> newPorts, long now) {
        if (running) {
            for (String port : ports) {
                if (!newPorts.contains(port)) {
                    output.sendPlain(port, new byte[] {(byte) STOP}, now);
                }
            }
        }
        ports = List.copyOf(newPorts);
    }

    private void send(long nanos, int... message) {
        byte[] bytes = new byte[message.length];
        for (int i = 0; i < bytes.length; i++) {
            bytes[i] = (byte) message[i];
        }
        send(nanos, bytes);
    }

    private void send(long nanos, byte[] bytes) {
        for (int i = 0; i < ports.size(); i++) {
            output.sendPlain(ports.get(i), bytes, nanos);
        }
    }

    /** The transport starts at a tick, counted on and on. */
    public void start(Bracket loop, long tick, long nanos) {
        running = true;
        begin(loop, tick, loop.song(tick), nanos);
    }

    private void begin(Bracket loop, long tick, long song, long nanos) {
        long sixteenth = -Math.floorDiv(-song, SIXTEENTH);
        if (song > 0) {
            int position = (int) Math.min(FARTHEST, sixteenth);
            send(nanos, POSITION, position & 0x7F, position >> 7);
        }
        goesOn = tick + sixteenth * SIXTEENTH - song;
        told = song == 0;
        if (told) {
            send(nanos, START);
        }
        next = goesOn;
        wrap = loop.on() && song < loop.to() ? tick + loop.to() - song : Ticks.NEVER;
    }

    public void stop(long nanos) {
        if (running) {
            running = false;
            send(nanos, STOP);
        }
    }

    /** Sends what is due before a tick. */
    public void run(Bracket loop, long to, LongUnaryOperator nanosAt) {
        while (running && nextTick() < to) {
            if (wrap <= next) {
                // Machines that follow go round, too: a position is told to one that stands.
                long at = wrap;
                long nanos = nanosAt.applyAsLong(at);
                send(nanos, STOP);
                begin(loop, at, loop.from(), nanos);
            } else {
                long nanos = nanosAt.applyAsLong(next);
                if (!told) {
                    told = true;
                    send(nanos, CONTINUE);
                }
                send(nanos, CLOCKED);
                next += CLOCK_TICKS;
            }
        }
    }

    /** When it has something to send next, or never. */
    public long nextTick() {
        return running && !ports.isEmpty() ? Math.min(next, wrap) : Ticks.NEVER;
    }
}
