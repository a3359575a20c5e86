package harpel.port;

import harpel.event.Event;
import harpel.piece.Voice;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.function.LongSupplier;

/**
 * The outputs there are, each with a sender of its own, so that one that waits or fails disturbs no other. Ports may be added while it
 * plays.
 */
public final class Ports implements LiveOutput, AutoCloseable {
    /** The name of the built-in sounds in a part's output. */
    public static final String BUILT_IN = Voice.BUILT_IN;

    private final LongSupplier clock;
    private final boolean threaded;
    /** Replaced whole, so that the engine reads it without waiting. */
    private volatile Map<String, Outlet> ports = Map.of();

    /** Ports that hear everything, whatever a part's output. */
    private volatile List<Outlet> listeners = List.of();

    /** Those of the ports, to be looked through by the engine at each turn. */
    private volatile Outlet[] outlets = {};

    /** By the names of ports, in milliseconds. */
    private final Map<String, Integer> delays = new TreeMap<>();

    private final ConcurrentLinkedQueue<String> opened = new ConcurrentLinkedQueue<>();

    public Ports() {
        this(System::nanoTime, true);
    }

    /**
     * @param clock as {@link System#nanoTime}
     * @param threaded whether each port sends on a thread of its own; else {@link #pump} sends
     */
    public Ports(LongSupplier clock, boolean threaded) {
        this.clock = clock;
        this.threaded = threaded;
    }

    /** @param name {@link #BUILT_IN}, or the name by which parts choose it */
    public synchronized void add(String name, OutputPort port) {
        Map<String, Outlet> more = new TreeMap<>(ports);
        Outlet before = more.put(name, new Outlet(port, clock, threaded, () -> opened.add(name)));
        take(more);
        opened.add(name);
        if (before != null) {
            before.close();
        }
    }

    /** What a port plays with has changed: its instruments are told anew what to sound like. */
    public void tellAnew(String name) {
        opened.add(name);
    }

    private void take(Map<String, Outlet> newPorts) {
        ports = newPorts;
        outlets = newPorts.values().toArray(Outlet[]::new);
        spreadDelays();
    }

    /** A port is gone, as a device that was unplugged; what sounded there has ended. */
    public synchronized void remove(String name) {
        Map<String, Outlet> fewer = new TreeMap<>(ports);
        Outlet gone = fewer.remove(name);
        take(fewer);
        if (gone != null) {
            gone.close();
        }
    }

    public synchronized void addListener(OutputPort port) {
        List<Outlet> more = new ArrayList<>(listeners);
        more.add(new Outlet(port, clock, threaded, () -> {}));
        listeners = List.copyOf(more);
    }

    /** The names of the ports there are; all ways to the built-in sounds are one. */
    public List<String> names() {
        return ports.keySet().stream().map(Ports::shown).distinct().toList();
    }

    private static String shown(String name) {
        return Voice.isBuiltIn(name) ? BUILT_IN : name;
    }

    /** The ways to the built-in sounds that there are. */
    public List<String> builtIn() {
        return ports.keySet().stream().filter(Voice::isBuiltIn).toList();
    }

    /**
     * A port sounds so much later than others, or earlier where that is below 0, in milliseconds: then all others wait for it.
     * It stays with the name.
     */
    public synchronized void delay(String name, int millis) {
        delays.put(name, millis);
        spreadDelays();
    }

    private void spreadDelays() {
        // Only those that are there count: nobody waits for a port that is not.
        int earliest = 0;
        for (String name : ports.keySet()) {
            earliest = Math.min(earliest, delays.getOrDefault(name, 0));
        }
        int first = earliest;
        ports.forEach((name, outlet) -> outlet.delay((delays.getOrDefault(name, 0) - first) * 1_000_000L));
    }

    /** When something was last sent there, as {@link System#nanoTime}; 0 for never. */
    public long activeNanos(String name) {
        return ports.entrySet().stream()
                .filter(port -> shown(port.getKey()).equals(name))
                .mapToLong(port -> port.getValue().activeNanos())
                .max()
                .orElse(0);
    }

    /** What is wrong with which port, by name. */
    public Map<String, String> problems() {
        Map<String, String> problems = new LinkedHashMap<>();
        ports.forEach((name, outlet) -> {
            String problem = outlet.problem();
            if (!problem.isEmpty()) {
                problems.put(shown(name), problem);
            }
        });
        return problems;
    }

    @Override
    public void send(String port, Event event, long dueNanos) {
        byte[] bytes = MidiBytes.of(event);
        Outlet outlet = ports.get(port);
        if (outlet != null) {
            outlet.offer(event, bytes, dueNanos);
        }
        List<Outlet> all = listeners;
        for (int i = 0; i < all.size(); i++) {
            all.get(i).offer(event, bytes, dueNanos);
        }
    }

    @Override
    public void sendPlain(String port, byte[] message, long dueNanos) {
        Outlet outlet = ports.get(port);
        if (outlet != null) {
            outlet.offerPlain(message, dueNanos);
        }
    }

    @Override
    public void silence() {
        ports.values().forEach(Outlet::silence);
        listeners.forEach(Outlet::silence);
    }

    /** Ends everything at every port at once, from any thread, whatever the engine does. */
    public void panic() {
        ports.values().forEach(Outlet::panic);
        listeners.forEach(Outlet::panic);
    }

    @Override
    public String takeOpened() {
        return opened.poll();
    }

    @Override
    public long worstLateNanos(long nowNanos) {
        long worst = 0;
        for (Outlet outlet : outlets) {
            worst = Math.max(worst, outlet.worstLateNanos(nowNanos));
        }
        List<Outlet> all = listeners;
        for (int i = 0; i < all.size(); i++) {
            worst = Math.max(worst, all.get(i).worstLateNanos(nowNanos));
        }
        return worst;
    }

    /** Sends what waits at every port, where they have no threads of their own. */
    public void pump() {
        ports.values().forEach(Outlet::pump);
        listeners.forEach(Outlet::pump);
    }

    @Override
    public synchronized void close() {
        ports.values().forEach(Outlet::close);
        listeners.forEach(Outlet::close);
    }
}
