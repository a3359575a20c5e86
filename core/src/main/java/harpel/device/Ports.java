package harpel.device;

import harpel.engine.LiveOutput;
import harpel.event.Event;
import harpel.event.Message;
import harpel.param.RouteType;
import harpel.piece.Part;
import harpel.piece.Piece;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.CopyOnWriteArrayList;

/** Sends each part's events to its port. Ports may be added and the piece changed while it plays. */
public final class Ports implements LiveOutput, AutoCloseable {
    /** The name of the built-in sounds in a part's output. */
    public static final String BUILT_IN = "";

    private final Map<String, OutputPort> ports = new ConcurrentHashMap<>();
    /** Ports that hear everything, whatever a part's output. */
    private final List<OutputPort> listeners = new CopyOnWriteArrayList<>();

    private volatile Map<String, Part> parts = Map.of();

    /** @param name {@link #BUILT_IN}, or the name by which parts choose it */
    public void add(String name, OutputPort port) {
        ports.put(name, port);
        parts.values().stream().filter(part -> part.output().equals(name)).forEach(part -> {
            sendProgram(part);
            sendLowered(part);
        });
    }

    public void addListener(OutputPort port) {
        listeners.add(port);
    }

    /** The names of the ports there are. */
    public List<String> names() {
        return ports.keySet().stream().sorted().toList();
    }

    /** Takes the parts' outputs and sounds; a sound that changed is sent as a program change. */
    public void update(Piece piece) {
        Map<String, Part> before = parts;
        Map<String, Part> now = new ConcurrentHashMap<>();
        piece.parts().forEach(part -> now.put(part.id(), part));
        parts = now;
        for (Part part : piece.parts()) {
            Part old = before.get(part.id());
            if (old == null
                    || !old.sound().equals(part.sound())
                    || !old.output().equals(part.output())
                    || old.channel() != part.channel()) {
                sendProgram(part);
                sendLowered(part);
            } else if (old.mix().level() != part.mix().level()) {
                sendLevel(part);
            }
        }
    }

    /** An instrument's own volume is left alone until a part's level is set. */
    private void sendLowered(Part part) {
        if (part.mix().level() != Part.Mix.PLAIN.level()) {
            sendLevel(part);
        }
    }

    /** MIDI 1.0: controller 7 is the channel's volume. */
    private void sendLevel(Part part) {
        OutputPort port = ports.get(part.output());
        if (port != null) {
            int volume = Math.round(part.mix().level() * 127 / 100f);
            port.send(MidiBytes.control(part.channel(), Message.VOLUME, volume), System.nanoTime());
        }
    }

    private void sendProgram(Part part) {
        OutputPort port = ports.get(part.output());
        if (port != null && part.output().equals(BUILT_IN)) {
            int program = Instrument.named(part.sound()).program();
            port.send(new byte[] {(byte) (Message.PROGRAM_CHANGE | part.channel()), (byte) program}, System.nanoTime());
        }
    }

    @Override
    public void send(String partId, Event event, long dueNanos) {
        byte[] bytes = MidiBytes.of(event);
        Part part = parts.get(partId);
        String name = part != null
                ? part.output()
                : partId.startsWith(RouteType.OUTPUT) ? partId.substring(RouteType.OUTPUT.length()) : BUILT_IN;
        OutputPort port = ports.get(name);
        if (port != null) {
            port.send(bytes, dueNanos);
        }
        for (OutputPort listener : listeners) {
            listener.send(bytes, dueNanos);
        }
    }

    /** MIDI 1.0: All Notes Off is controller 123, All Sound Off 120. */
    @Override
    public void silence() {
        long now = System.nanoTime();
        for (OutputPort port : ports.values()) {
            silence(port, now);
        }
        for (OutputPort port : listeners) {
            silence(port, now);
        }
    }

    private static void silence(OutputPort port, long now) {
        for (int channel = 0; channel < 16; channel++) {
            port.send(MidiBytes.control(channel, Message.ALL_NOTES_OFF, 0), now);
            port.send(MidiBytes.control(channel, Message.ALL_SOUND_OFF, 0), now);
        }
    }

    @Override
    public void close() {
        ports.values().forEach(OutputPort::close);
        listeners.forEach(OutputPort::close);
    }
}
