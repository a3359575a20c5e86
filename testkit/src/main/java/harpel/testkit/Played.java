package harpel.testkit;

import harpel.chain.Chain;
import harpel.event.Event;
import harpel.event.EventOrder;
import harpel.event.Message;
import harpel.event.NoteEnd;
import harpel.event.NoteStart;
import harpel.format.ChainFile;
import harpel.format.FileException;
import harpel.offline.PrintJob;
import harpel.offline.Tail;
import harpel.plan.Plan;
import harpel.run.Tap;
import harpel.theory.Key;
import harpel.theory.Pitch;
import harpel.time.MeterMap;
import harpel.time.TempoMap;
import harpel.time.Ticks;
import harpel.time.TimeMap;
import java.util.ArrayList;
import java.util.List;

/** Notes played through a chain: {@code Played.through("{'effect':'echo'}").note("C4", 0, 1).bars(2)}. */
public final class Played {
    private final Chain chain;
    private final List<Event> input = new ArrayList<>();
    private Key key = Key.C_MAJOR;
    private TimeMap time = TimeMap.DEFAULT;
    private long variation = 1;
    private boolean ringOut;

    private Played(Chain chain) {
        this.chain = chain;
    }

    /** @param stages the stages of a chain file, with ' for " */
    public static Played through(String stages) {
        return new Played(chain(stages));
    }

    public static Played through(Chain chain) {
        return new Played(chain);
    }

    public static Chain chain(String stages) {
        try {
            return ChainFile.read("{\"harpel\":1,\"chain\":[" + stages.replace('\'', '"') + "]}")
                    .chain();
        } catch (FileException e) {
            throw new AssertionError(e);
        }
    }

    public Played key(String name) {
        key = Key.parse(name);
        return this;
    }

    public Played bpm(double bpm) {
        time = new TimeMap(TempoMap.of(bpm), time.meter());
        return this;
    }

    public Played meter(String meter) {
        time = new TimeMap(time.tempo(), new MeterMap(List.of(MeterMap.Change.parse(0, meter))));
        return this;
    }

    public Played variation(long number) {
        variation = number;
        return this;
    }

    /** All notes know how long they will last, as those of a phrase do; keys do not. */
    public Played asPhrase() {
        for (Event event : input) {
            if (event instanceof NoteEnd end) {
                end.start().lasting(end.tick() - end.start().tick());
            }
        }
        return this;
    }

    public Played ringOut() {
        ringOut = true;
        return this;
    }

    public Played note(String pitch, double beat, double length) {
        return note(pitch, beat, length, 100);
    }

    public Played note(String pitch, double beat, double length, int velocity) {
        return note(Pitch.parse(pitch), beat, length, velocity, 1);
    }

    public Played note(int pitch, double beat, double length, int velocity, int channel) {
        NoteStart start = NoteStart.played(ticks(beat), input.size(), channel - 1, pitch, velocity);
        input.add(start);
        input.add(new NoteEnd(ticks(beat + length), start, NoteEnd.PLAIN_RELEASE));
        return this;
    }

    /** Several notes of one length, in the order given. */
    public Played chord(String pitches, double beat, double length) {
        for (String pitch : pitches.split(" ")) {
            note(pitch, beat, length);
        }
        return this;
    }

    public Played control(int controller, int value, double beat) {
        input.add(Message.control(ticks(beat), input.size(), 0, controller, value));
        return this;
    }

    public Played bend(int value, double beat) {
        input.add(Message.bend(ticks(beat), input.size(), 0, value));
        return this;
    }

    private static long ticks(double beats) {
        return Ticks.round(beats * Ticks.PER_QUARTER);
    }

    /** Prints so many bars and gives every event that is heard. */
    public List<Event> events(int bars) {
        input.sort(EventOrder.INSTANCE);
        Plan plan = Plan.ofChain("test", chain, key, time, variation);
        try {
            return new PrintJob(plan, "test", ringOut ? Tail.RING : Tail.STOP, Tap.NONE)
                    .print(input, time.meter().tickOfBar(bars))
                    .events();
        } catch (InterruptedException e) {
            throw new AssertionError(e);
        }
    }

    /** Prints so many bars and gives the notes that are heard. */
    public List<Heard> bars(int bars) {
        return Heard.of(events(bars));
    }

    /** Prints and gives only the pitches, in the order of their starts. */
    public List<Integer> pitches(int bars) {
        return bars(bars).stream().map(Heard::pitch).toList();
    }

    public List<Integer> velocities(int bars) {
        return bars(bars).stream().map(Heard::velocity).toList();
    }

    public List<Double> beats(int bars) {
        return bars(bars).stream().map(Heard::beat).toList();
    }
}
