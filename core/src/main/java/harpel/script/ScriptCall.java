package harpel.script;

import harpel.effect.Chance;
import harpel.effect.EffectContext;
import harpel.event.Message;
import harpel.event.NoteStart;
import harpel.theory.Key;
import harpel.theory.Pitch;
import harpel.time.MeterMap;
import harpel.time.TimeValue;
import java.util.ArrayList;
import java.util.List;
import org.mozilla.javascript.ScriptRuntime;
import org.mozilla.javascript.Scriptable;
import org.mozilla.javascript.ScriptableObject;
import org.mozilla.javascript.Undefined;

/** What one call may ask and what it wants done, which is done when it has come back. */
final class ScriptCall {
    private static final List<String> PLAY_OPTIONS = List.of("pitch", "velocity", "channel", "after", "length");
    private static final int MOST_NOTES = 500;
    private static final int MOST_LINES = 20;
    private static final int LONGEST_LINE = 300;

    /**
     * A note to be played.
     *
     * @param key the key with which it ends, or null
     * @param endTick where it ends when no key says so
     */
    record Played(NoteStart note, NoteStart key, long endTick) {}

    private final long tick;
    private final EffectContext context;
    private final List<NoteStart> held;
    private final Chance chance;
    private final int channel;
    private final List<Played> played = new ArrayList<>();
    private final List<NoteStart> stopped = new ArrayList<>();
    private final List<Message> messages = new ArrayList<>();
    private final List<String> lines = new ArrayList<>();
    /** Pitches out of range, which are not played. */
    private final List<Integer> lost = new ArrayList<>();

    private boolean refused;
    private volatile boolean givenUp;

    ScriptCall(long tick, EffectContext context, List<NoteStart> held, Chance chance, int channel) {
        this.tick = tick;
        this.context = context;
        this.held = held;
        this.chance = chance;
        this.channel = channel;
    }

    /** Nobody waits any more: what it asks of the engine must not be touched from another thread. */
    void giveUp() {
        givenUp = true;
    }

    /** Whether the handler said no. */
    boolean isRefused() {
        return refused;
    }

    void refused(boolean no) {
        refused = no;
    }

    List<NoteStart> held() {
        return held;
    }

    Key key() {
        return context.key();
    }

    boolean running() {
        return context.running();
    }

    MeterMap.Place place() {
        return context.time().meter().placeAt(tick);
    }

    double random() {
        if (givenUp) {
            throw new ScriptStop(0, "the script came late");
        }
        return chance.unit();
    }

    /** {@code play(note, {pitch, velocity, channel, after, length})}, or all of it in one object. */
    Object play(Object first, Object second, ScriptInstance instance) {
        NoteStart from = ScriptInstance.noteOf(first);
        Object given = from == null && second == Undefined.instance ? first : second;
        Scriptable options = given instanceof Scriptable object ? object : null;
        if (options == null && from == null) {
            throw new IllegalArgumentException("play() takes a note, a note and changes, or {pitch: 60, length: 1}");
        }
        if (options != null) {
            ScriptInstance.refuseOthers(options, "play()", PLAY_OPTIONS);
        }
        if (from == null && option(options, "pitch") == null) {
            throw new IllegalArgumentException("play() needs a pitch where it is given no note");
        }
        if (played.size() == MOST_NOTES) {
            throw new IllegalArgumentException("one call plays at most " + MOST_NOTES + " notes");
        }
        int pitch = (int) number(options, "pitch", from == null ? 60 : from.pitch());
        double velocity = number(options, "velocity", from == null ? 100 : from.velocity());
        int toChannel = (int) number(options, "channel", from == null ? channel + 1.0 : from.channel() + 1.0) - 1;
        if (toChannel < 0 || toChannel > 15) {
            throw new IllegalArgumentException("channel must be 1–16 but was " + (toChannel + 1));
        }
        Object after = option(options, "after");
        boolean later = after != null && !(after instanceof Number none && none.doubleValue() == 0);
        long start = later ? context.time().after(tick, ScriptInstance.time(after), 1) : tick;
        Object length = option(options, "length");
        if (length == null && (from == null || held.stream().noneMatch(key -> key == from))) {
            throw new IllegalArgumentException("play() needs a length where no held key ends the note");
        }
        if (!Pitch.inRange(pitch)) {
            lost.add(pitch);
            return null;
        }
        NoteStart made = from == null
                ? NoteStart.generated(start, toChannel, pitch, velocity)
                : from.derive(start, pitch, velocity);
        NoteStart note = made.channel() == toChannel ? made : made.onChannel(toChannel);
        TimeValue lasts = length == null ? null : ScriptInstance.time(length);
        long end = lasts == null ? 0 : Math.max(start + 1, context.time().after(start, lasts, 1));
        played.add(new Played(note, lasts == null ? from : null, end));
        return instance.noteObject(note);
    }

    private static Object option(Scriptable options, String name) {
        Object value = options == null ? Undefined.instance : ScriptableObject.getProperty(options, name);
        return value == Scriptable.NOT_FOUND || value == Undefined.instance ? null : value;
    }

    private static double number(Scriptable options, String name, double fallback) {
        Object value = option(options, name);
        double number = value == null ? fallback : ScriptRuntime.toNumber(value);
        if (Double.isNaN(number) || Math.abs(number) > 1e6) {
            throw new IllegalArgumentException(name + " must be a number but was " + ScriptRuntime.toString(value));
        }
        return Math.floor(number + 0.5);
    }

    Object stop(NoteStart note) {
        if (held.stream().anyMatch(key -> key == note)) {
            throw new IllegalArgumentException(
                    "stop() ends what play() gave; a key ends when it is let go, with what was played of it");
        }
        stopped.add(note);
        return Undefined.instance;
    }

    Object controller(int number, int value) {
        if (number < 0 || number > 127 || value < 0 || value > 127) {
            throw new IllegalArgumentException(
                    "controllers and their values are 0–127 but were " + number + ", " + value);
        }
        messages.add(Message.control(tick, Long.MAX_VALUE, channel, number, value));
        return Undefined.instance;
    }

    Object log(Object[] args) {
        StringBuilder line = new StringBuilder();
        for (Object arg : args) {
            line.append(line.isEmpty() ? "" : " ").append(ScriptRuntime.toString(arg));
            line.setLength(Math.min(line.length(), LONGEST_LINE));
        }
        if (lines.size() < MOST_LINES) {
            lines.add(line.toString());
        }
        return Undefined.instance;
    }

    List<Played> played() {
        return played;
    }

    List<Integer> lost() {
        return lost;
    }

    List<NoteStart> stopped() {
        return stopped;
    }

    List<Message> messages() {
        return messages;
    }

    List<String> lines() {
        return lines;
    }
}
