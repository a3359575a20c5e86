package harpel.run;

import harpel.event.Event;
import harpel.event.EventBuffer;
import harpel.event.EventOrder;
import harpel.event.NoteEnd;
import harpel.event.NoteMap;
import harpel.event.NoteStart;
import java.util.ArrayList;
import java.util.List;
import java.util.TreeSet;

/**
 * The last stage: one voice for each pitch and channel. A later start strikes again (end, then start at one tick) and the voice sounds
 * until the last of the notes in it has ended. Two starts of one pitch at one tick are one note, the louder velocity, the later end.
 * Owned by the renderer.
 */
public final class SoundRun {
    private static final class Voice {
        NoteStart sounding;
        int count;
    }

    /** The ticks at which everything that sounds is struck again. */
    private final TreeSet<Long> strikes = new TreeSet<>();

    private final Voice[] voices = new Voice[16 * 128];
    /** The notes that came in and have not ended. */
    private final NoteMap<Voice> inputs = new NoteMap<>();

    /** Takes events in order and appends what is to be sent, in order. */
    public void process(List<Event> input, EventBuffer out) {
        process(input, Long.MIN_VALUE, out);
    }

    /** Takes events in order, and strikes again where that is due before {@code to}. */
    void process(List<Event> input, long to, EventBuffer out) {
        int group = out.size();
        for (int i = 0; i < input.size(); i++) {
            Event event = input.get(i);
            while (!strikes.isEmpty()
                    && (strikes.first() < event.tick()
                            || strikes.first() == event.tick() && event instanceof NoteStart)) {
                group = strikeAll(strikes.pollFirst(), group, out);
            }
            if (out.size() > group && out.get(group).tick() != event.tick()) {
                out.sortTick(group);
                group = out.size();
            }
            if (event instanceof NoteStart note) {
                start(note, group, out);
            } else if (event instanceof NoteEnd end) {
                end(end, out);
            } else {
                out.add(event);
            }
        }
        while (!strikes.isEmpty() && strikes.first() < to) {
            group = strikeAll(strikes.pollFirst(), group, out);
        }
        out.sortTick(group);
    }

    void strikeAgain(long tick) {
        strikes.add(tick);
    }

    void strikeNothing() {
        strikes.clear();
    }

    /** Ends and starts every voice that began before {@code tick}; gives where the events of that tick begin. */
    private int strikeAll(long tick, int group, EventBuffer out) {
        int begin = group;
        if (out.size() > group && out.get(group).tick() != tick) {
            out.sortTick(group);
            begin = out.size();
        }
        for (Voice voice : voices) {
            if (voice != null && voice.sounding != null && voice.sounding.tick() < tick) {
                NoteStart old = voice.sounding;
                voice.sounding = old.derive(tick, old.pitch(), old.velocity());
                out.add(new NoteEnd(tick, old, NoteEnd.PLAIN_RELEASE));
                out.add(voice.sounding);
            }
        }
        return begin;
    }

    private void start(NoteStart note, int group, EventBuffer out) {
        int index = note.channel() << 7 | note.pitch();
        Voice voice = voices[index];
        if (voice == null) {
            voice = new Voice();
            voices[index] = voice;
        }
        if (inputs.put(note, voice) != null) {
            throw new IllegalStateException("one note was started twice: " + note);
        }
        voice.count++;
        if (voice.sounding == null) {
            voice.sounding = note;
            out.add(note);
        } else if (voice.sounding.tick() == note.tick()) {
            join(voice, note, group, out);
        } else {
            out.add(new NoteEnd(note.tick(), voice.sounding, NoteEnd.PLAIN_RELEASE));
            voice.sounding = note;
            out.add(note);
        }
    }

    private static void join(Voice voice, NoteStart note, int group, EventBuffer out) {
        NoteStart joined = voice.sounding.mergedWith(note);
        for (int i = group; i < out.size(); i++) {
            if (out.get(i) == voice.sounding) {
                out.set(i, joined);
                voice.sounding = joined;
                return;
            }
        }
        // Its start has been sent in an earlier span of this very tick and can no longer be made louder.
    }

    private void end(NoteEnd end, EventBuffer out) {
        Voice voice = inputs.remove(end.start());
        if (voice == null) {
            return;
        }
        voice.count--;
        if (voice.count == 0) {
            out.add(NoteEnd.atOrAfter(end.tick(), voice.sounding, end.releaseVelocity()));
            voice.sounding = null;
        }
    }

    /** The notes that it was given and that have not ended, in order. */
    List<NoteStart> given() {
        List<NoteStart> notes = new ArrayList<>(inputs.size());
        inputs.forEach((note, voice) -> notes.add(note));
        notes.sort(EventOrder.INSTANCE);
        return notes;
    }

    /** What would end all that sounds, in order. */
    List<NoteEnd> ends(long tick) {
        List<NoteEnd> ends = new ArrayList<>();
        for (Voice voice : voices) {
            if (voice != null && voice.sounding != null) {
                ends.add(NoteEnd.plain(tick, voice.sounding));
            }
        }
        ends.sort(EventOrder.INSTANCE);
        return ends;
    }

    /** Whether nothing sounds. */
    public boolean isQuiet() {
        return inputs.isEmpty();
    }
}
