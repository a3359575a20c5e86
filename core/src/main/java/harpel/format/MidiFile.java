package harpel.format;

import harpel.event.Message;
import harpel.piece.Note;
import harpel.piece.Phrase;
import harpel.time.TimeMap;
import java.util.List;

/**
 * What a Standard MIDI File holds, in Harpel's ticks.
 *
 * @param notes in order of their starts; of one tick in the order of the file
 * @param metas what is neither note, message, tempo nor meter: names, key signatures, markers
 * @param endTick the latest end of track
 * @param repairs what had to be mended to read it whole, such as notes without an end, in words
 */
public record MidiFile(
        TimeMap time, List<Note> notes, List<Message> messages, List<Meta> metas, long endTick, List<String> repairs) {
    /** A meta event that is kept as it is. */
    public record Meta(long tick, int type, byte[] data) {
        static final int END_OF_TRACK = 0x2F;
        static final int TEMPO = 0x51;
        static final int TIME_SIGNATURE = 0x58;
    }

    /** As a phrase that lasts to the next bar line after its end. */
    public Phrase toPhrase(String name) {
        return new Phrase(name, printedEnd(), notes, messages);
    }

    /** Where a print of this file ends: its end of track rounded up to a bar, past the start of every note. */
    public long printedEnd() {
        long lastStart = notes.isEmpty() ? 0 : notes.get(notes.size() - 1).tick() + 1;
        return time.meter().barLineAtOrAfter(Math.max(endTick, lastStart));
    }
}
