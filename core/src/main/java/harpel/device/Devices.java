package harpel.device;

import harpel.engine.LiveEngine;
import harpel.port.InputPort;
import harpel.port.Ports;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.Executors;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.TimeUnit;
import java.util.function.Consumer;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * Devices come and go: looks once a second which are there, opens those that are used, by name and by their number among equals, and lets
 * go of those that are gone, whose notes end. Everything may be called from any thread.
 */
public final class Devices implements AutoCloseable {
    private static final long LOOK_SECONDS = 1;
    /** An output may sound so much earlier or later than others, in milliseconds. */
    public static final int MOST_DELAY = 250;

    /**
     * How a device is used; kept on this machine.
     *
     * @param used whether it is opened at all
     * @param delay of an output, in milliseconds, −250–250
     * @param channel the only channel of an input that is heard, 1–16; 0 for all
     */
    public record Use(boolean used, int delay, int channel) {
        public static final Use PLAIN = new Use(true, 0, 0);

        public Use {
            if (Math.abs(delay) > MOST_DELAY) {
                throw new IllegalArgumentException(
                        "an output’s delay is −" + MOST_DELAY + "–" + MOST_DELAY + " ms but was " + delay);
            }
            if (channel < 0 || channel > 16) {
                throw new IllegalArgumentException(
                        "an input is heard on all channels, 0, or on one of 1–16, but was to be on " + channel);
            }
        }

        public Use withUsed(boolean newUsed) {
            return new Use(newUsed, delay, channel);
        }

        public Use withDelay(int newDelay) {
            return new Use(used, newDelay, channel);
        }

        public Use withChannel(int newChannel) {
            return new Use(used, delay, newChannel);
        }
    }

    /**
     * A device that is there, or was.
     *
     * @param isThere whether the machine has it now
     * @param problem why it is not open though it is there and used; empty for none
     */
    public record Shown(String name, boolean isInput, boolean isThere, Use use, String problem) {}

    /** One way of one device, by its name, with a number behind it from the second of equal ones on. */
    private record Key(String name, boolean isInput) {}

    private final MachineDevices machine;
    private final LiveEngine engine;
    private final Ports ports;
    private final Consumer<String> told;
    private final Map<Key, Use> uses = new HashMap<>();
    private final Map<Key, Boolean> seen = new LinkedHashMap<>();
    private final Map<Key, String> problems = new HashMap<>();
    private final Map<Key, AutoCloseable> inputs = new HashMap<>();
    private final Map<Key, Boolean> outputs = new HashMap<>();
    /** A way in stays where it is though its device goes, so that it can come back there. */
    private final Map<String, InputPort> ways = new ConcurrentHashMap<>();
    /** What {@link #all} gives: read without waiting for a driver that is being opened. */
    private volatile List<Shown> shown = List.of();

    private final ScheduledExecutorService looking = Executors.newSingleThreadScheduledExecutor(work -> {
        Thread thread = new Thread(work, "harpel-devices");
        thread.setDaemon(true);
        return thread;
    });
    private boolean begun;

    /** @param told takes what is to be said of devices that come and go, on a thread of this */
    public Devices(MachineDevices machine, LiveEngine engine, Ports ports, Consumer<String> told) {
        this.machine = machine;
        this.engine = engine;
        this.ports = ports;
        this.told = told;
    }

    /** Looks from now on, once a second. */
    public void start() {
        looking.scheduleWithFixedDelay(this::lookSafely, 0, LOOK_SECONDS, TimeUnit.SECONDS);
    }

    private void lookSafely() {
        try {
            look();
        } catch (RuntimeException | Error e) {
            // Whatever a driver does; the next look may fare better.
            log().warn("the devices could not be looked at", e);
        }
    }

    /** Looks once more, soon and on a thread of its own: what has just been plugged in is there at once. */
    public void lookSoon() {
        looking.execute(this::lookSafely);
    }

    /** Looks once: opens what has come, lets go of what is gone. */
    public synchronized void look() {
        Map<Key, MachineDevices.Found> found = new LinkedHashMap<>();
        for (MachineDevices.Found one : machine.found()) {
            Key key = new Key(one.name(), one.isInput());
            for (int number = 2; found.containsKey(key); number++) {
                key = new Key(one.name() + " " + number, one.isInput());
            }
            found.put(key, one);
        }
        for (Key key : List.copyOf(seen.keySet())) {
            if (seen.get(key) && !found.containsKey(key)) {
                close(key);
                seen.put(key, false);
                told.accept("“" + key.name + "” is gone; its notes have ended. It is taken up again when it is back.");
            }
        }
        for (Map.Entry<Key, MachineDevices.Found> one : found.entrySet()) {
            boolean came = !seen.getOrDefault(one.getKey(), false);
            boolean again = seen.containsKey(one.getKey());
            seen.put(one.getKey(), true);
            if (use(one.getKey()).used()
                    && !isOpen(one.getKey())
                    && open(one.getKey(), one.getValue())
                    && came
                    && begun) {
                told.accept("“" + one.getKey().name + "” connected" + (again ? " again." : "."));
            }
        }
        begun = true;
        show();
    }

    private Use use(Key key) {
        return uses.getOrDefault(key, Use.PLAIN);
    }

    private boolean isOpen(Key key) {
        return key.isInput ? inputs.containsKey(key) : outputs.containsKey(key);
    }

    private boolean open(Key key, MachineDevices.Found found) {
        try {
            if (key.isInput) {
                InputPort way = ways.computeIfAbsent(key.name, engine::openInput);
                way.hearOnly(use(key).channel());
                way.shut(false);
                inputs.put(key, found.openInput(way));
            } else {
                ports.add(key.name, found.openOutput());
                ports.delay(key.name, use(key).delay());
                outputs.put(key, true);
            }
            problems.remove(key);
            return true;
        } catch (Exception | LinkageError e) {
            String why = e.getMessage() == null ? e.toString() : e.getMessage();
            if (!why.equals(problems.put(key, why))) {
                log().info("{} does not open: {}", key.name, why);
            }
            return false;
        }
    }

    private void close(Key key) {
        if (key.isInput) {
            AutoCloseable open = inputs.remove(key);
            if (open != null) {
                // Shut, closed, and only then gone: what comes in the meantime is ended with the rest.
                ways.get(key.name).shut(true);
                try {
                    open.close();
                } catch (Exception | LinkageError e) {
                    log().info("{} did not close: {}", key.name, e.toString());
                }
                engine.inputGone(key.name);
            }
        } else if (outputs.remove(key) != null) {
            ports.remove(key.name);
        }
        problems.remove(key);
    }

    /** As {@link #use}, soon and on a thread of its own, since a driver may take its time. */
    public void useSoon(String name, boolean isInput, Use use) {
        looking.execute(() -> {
            use(name, isInput, use);
            lookSafely();
        });
    }

    /** How a device is used from now on. */
    public synchronized void use(String name, boolean isInput, Use use) {
        Key key = new Key(name, isInput);
        uses.put(key, use);
        if (!use.used()) {
            close(key);
        } else if (isInput && ways.containsKey(name)) {
            ways.get(name).hearOnly(use.channel());
        } else if (!isInput) {
            ports.delay(name, use.delay());
        }
        show();
    }

    /** The devices that are there or were, inputs first. */
    public List<Shown> all() {
        return shown;
    }

    private void show() {
        List<Shown> all = new ArrayList<>();
        for (boolean input : new boolean[] {true, false}) {
            seen.forEach((key, isThere) -> {
                if (key.isInput == input) {
                    all.add(new Shown(key.name, input, isThere, use(key), problems.getOrDefault(key, "")));
                }
            });
        }
        shown = List.copyOf(all);
    }

    /** Looks at what a device plays before it is played, also when it comes later; nobody with null. */
    public void intercept(String name, InputPort.Interceptor interceptor) {
        ways.computeIfAbsent(name, engine::openInput).intercept(interceptor);
    }

    /** When something last came in or went out there, as {@link System#nanoTime}; 0 for never. */
    public long activeNanos(String name, boolean isInput) {
        if (!isInput) {
            return ports.activeNanos(name);
        }
        InputPort way = ways.get(name);
        return way == null ? 0 : way.activeNanos();
    }

    @Override
    public void close() {
        looking.shutdownNow();
        synchronized (this) {
            List.copyOf(inputs.keySet()).forEach(this::close);
        }
    }

    private static Logger log() {
        return LoggerFactory.getLogger(Devices.class);
    }
}
