package harpel.piece;

import java.util.List;

/**
 * A stand-in instrument: a name of ours for a sound of the software synthesizer.
 *
 * @param program the General MIDI 1 program, 0–127
 */
public record Instrument(String name, int program) {
    private static final List<Instrument> ALL = List.of(
            new Instrument("Glass harp", 92),
            new Instrument("Harbour bell", 14),
            new Instrument("Music box", 10),
            new Instrument("Kalimba", 108),
            new Instrument("Round bass", 33),
            new Instrument("Gut guitar", 24),
            new Instrument("Warm reed", 20),
            new Instrument("Tin whistle", 78),
            new Instrument("Lamp pad", 89),
            new Instrument("Felt piano", 0),
            new Instrument("Bowed strings", 48),
            new Instrument("Hand drums", 115));

    public static List<Instrument> all() {
        return ALL;
    }

    /** The instrument of that name, or the first. */
    public static Instrument named(String name) {
        return ALL.stream().filter(one -> one.name.equals(name)).findFirst().orElse(ALL.get(0));
    }
}
