package harpel.piece;

import harpel.theory.GeneralMidi;
import java.util.ArrayList;
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

    /** Those, and behind them all of General MIDI 1 by its own names. */
    private static final List<Instrument> EVERY = withAll();

    private static List<Instrument> withAll() {
        List<Instrument> every = new ArrayList<>(ALL);
        for (int program = 0; program < 128; program++) {
            Instrument one = new Instrument(GeneralMidi.program(program), program);
            if (ALL.stream().noneMatch(ours -> ours.name.equalsIgnoreCase(one.name))) {
                every.add(one);
            }
        }
        return List.copyOf(every);
    }

    /** Our own stand-in instruments, by names of ours. */
    public static List<Instrument> all() {
        return ALL;
    }

    /** Those, and all of General MIDI 1. */
    public static List<Instrument> every() {
        return EVERY;
    }

    /** The instrument of that name, or the first. */
    public static Instrument named(String name) {
        return EVERY.stream().filter(one -> one.name.equals(name)).findFirst().orElse(EVERY.get(0));
    }
}
