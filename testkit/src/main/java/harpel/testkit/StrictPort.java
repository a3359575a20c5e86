package harpel.testkit;

import harpel.port.OutputPort;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import java.util.concurrent.CopyOnWriteArrayList;

/** A port that takes no second start of what sounds and no end of what does not, and may fail. */
public class StrictPort implements OutputPort {
    private final String name;
    private final List<String> log = new CopyOnWriteArrayList<>();
    private final Set<String> open = new TreeSet<>();
    /** Starts of which nobody can say whether they arrived, as the port failed with them. */
    private final Set<String> perhaps = new TreeSet<>();

    private boolean failing;

    public StrictPort(String name) {
        this.name = name;
    }

    /** From now on every message and every attempt to open it throws, or none. */
    public void fail(boolean nowFailing) {
        failing = nowFailing;
    }

    public boolean isFailing() {
        return failing;
    }

    @Override
    public String name() {
        return name;
    }

    @Override
    public synchronized void send(byte[] message, long dueNanos) {
        int kind = message[0] & 0xF0;
        String voice = (message[0] & 0x0F) + "/" + message[1];
        if (failing && kind == 0x90) {
            perhaps.add(voice);
        }
        check();
        if (kind == 0x90) {
            log.add("+" + message[1]);
            if (!open.add(voice)) {
                throw new AssertionError(name + ": started twice: " + voice);
            }
        } else if (kind == 0x80) {
            log.add("-" + message[1]);
            if (!open.remove(voice) && !perhaps.remove(voice)) {
                throw new AssertionError(name + ": ended without a start: " + voice);
            }
        }
    }

    private void check() {
        if (failing) {
            throw new IllegalStateException("unplugged");
        }
    }

    @Override
    public void reopen() {
        check();
    }

    /** Starts and ends, by pitch. */
    public List<String> log() {
        return log;
    }

    /** What sounds, as channel/pitch. */
    public Set<String> open() {
        return open;
    }

    @Override
    public void close() {
        // what sounds must have ended before
    }
}
