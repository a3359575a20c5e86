package harpel.engine;

import harpel.event.NoteStart;
import harpel.port.InputPort;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Consumer;
import java.util.function.UnaryOperator;

/** The keys of all ways in that are held, with the notes they play. Owned by the engine thread. */
final class KeysDown {
    /** A note that a key plays to a part. */
    record Held(String part, NoteStart note) {}

    /** A key of a device. */
    record Key(String port, int channel, int pitch) {
        static Key of(String port, InputPort.Played played) {
            return new Key(port, played.status() & 0x0F, played.data1());
        }
    }

    private final Map<Key, List<Held>> down = new HashMap<>();

    boolean isEmpty() {
        return down.isEmpty();
    }

    /** A key is pressed; what it held in the same part goes to {@code instead}. */
    void press(Key key, Held note, Consumer<Held> instead) {
        List<Held> held = new ArrayList<>();
        for (Held before : down.getOrDefault(key, List.of())) {
            if (before.part().equals(note.part())) {
                instead.accept(before);
            } else {
                held.add(before);
            }
        }
        held.add(note);
        down.put(key, held);
    }

    /** A key is let go of; what it held. */
    List<Held> release(Key key) {
        List<Held> held = down.remove(key);
        return held == null ? List.of() : held;
    }

    /** The keys of a way in that are held. */
    List<Key> of(String port) {
        return down.keySet().stream().filter(key -> key.port().equals(port)).toList();
    }

    void forEach(Consumer<Held> each) {
        down.values().forEach(held -> held.forEach(each));
    }

    /** All notes are others from now on. */
    void replaceAll(UnaryOperator<Held> change) {
        down.replaceAll((key, held) -> held.stream().map(change).toList());
    }

    void clear() {
        down.clear();
    }
}
