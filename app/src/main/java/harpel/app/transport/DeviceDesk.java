package harpel.app.transport;

import harpel.app.look.Messages;
import harpel.device.Devices;
import harpel.device.Devices.Use;
import harpel.sound.BuiltInSound;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import javafx.beans.property.IntegerProperty;
import javafx.beans.property.SimpleIntegerProperty;

/** How the MIDI devices of this machine are used, whose clock is followed, and where time is sent. Interface thread. */
public final class DeviceDesk {
    private static final long NUDGE_NANOS = 10_000_000L;

    /** All of it, as it is kept on this machine: uses by "in" or "out", a space, and the name. */
    public record Kept(Map<String, Use> uses, String clockFrom, List<String> clockTo, BuiltInSound.Wish sound) {
        public static final Kept NOTHING = new Kept(Map.of(), "", List.of(), BuiltInSound.Wish.PLAIN);
    }

    private final Transport transport;
    private final Messages messages;
    private final IntegerProperty changes = new SimpleIntegerProperty();
    private final Map<String, Use> uses = new LinkedHashMap<>();
    private String clockFrom = "";
    private List<String> clockTo = List.of();

    public DeviceDesk(Transport transport, Messages messages) {
        this.transport = transport;
        this.messages = messages;
    }

    /** Grows whenever something is chosen. */
    public IntegerProperty changes() {
        return changes;
    }

    private void changed() {
        changes.set(changes.get() + 1);
    }

    private Devices devices() {
        return transport.devices();
    }

    private static String key(String name, boolean isInput) {
        return (isInput ? "in " : "out ") + name;
    }

    /** Takes what was kept. */
    public void take(Kept kept) {
        kept.uses.forEach((key, use) -> {
            uses.put(key, use);
            boolean isInput = key.startsWith("in ");
            devices().use(key.substring(isInput ? 3 : 4), isInput, use);
        });
        clockFrom = kept.clockFrom;
        clockTo = kept.clockTo;
        transport.engine().followClock(clockFrom);
        transport.engine().clockTo(clockTo);
        transport.sound().wish(kept.sound);
        changed();
    }

    /** All that is to be kept. */
    public Kept kept() {
        return new Kept(Map.copyOf(uses), clockFrom, clockTo, transport.sound().wish());
    }

    public void use(String name, boolean isInput, Use use) {
        uses.put(key(name, isInput), use);
        devices().useSoon(name, isInput, use);
        changed();
    }

    /** The input whose clock is followed; empty for none. */
    public String clockFrom() {
        return clockFrom;
    }

    public void follow(String input) {
        clockFrom = input;
        transport.engine().followClock(input);
        messages.say(
                input.isEmpty()
                        ? "Time is Harpel’s own."
                        : "“" + input + "” starts, stops and drives time from now on.");
        changed();
    }

    /** The outputs that time is sent to. */
    public List<String> clockTo() {
        return clockTo;
    }

    public void clockTo(String output, boolean wanted) {
        List<String> outputs = new ArrayList<>(clockTo);
        outputs.remove(output);
        if (wanted) {
            outputs.add(output);
        }
        clockTo = List.copyOf(outputs);
        transport.engine().clockTo(clockTo);
        changed();
    }

    /** How the built-in sounds are heard from now on. */
    public void sound(BuiltInSound.Wish wish) {
        transport.sound().wish(wish);
        changed();
    }

    /** Time goes on 10 ms later, or earlier. */
    public void nudge(boolean later) {
        transport.engine().nudge(later ? NUDGE_NANOS : -NUDGE_NANOS);
        messages.say(later ? "10 ms later." : "10 ms earlier.");
    }
}
