package harpel.print;

import harpel.format.midi.MidiFile.Meta;
import harpel.format.midi.SmfWriter;
import harpel.format.midi.SmfWriter.Track;
import harpel.phrase.Phrase;
import harpel.piece.Part;
import harpel.time.TimeMap;
import java.util.List;

/**
 * Notes to be written to a file; its time begins where they do.
 *
 * @param about the name, key and marks, as a MIDI file says them
 * @param tracks one a part, named; the name may be empty where there is one
 * @param parts whose the tracks are, one a track, or none
 * @param length where the file ends, in ticks
 */
public record PrintedNotes(TimeMap time, List<Meta> about, List<Track> tracks, List<Part> parts, long length) {
    public PrintedNotes {
        about = List.copyOf(about);
        tracks = List.copyOf(tracks);
        parts = List.copyOf(parts);
        if (!parts.isEmpty() && parts.size() != tracks.size()) {
            throw new IllegalArgumentException(
                    "tracks are of one part each but were " + tracks.size() + " of " + parts.size());
        }
    }

    /** A phrase as it is written, without notes that are off; chances have no place in a file, and all other notes are in it. */
    public static PrintedNotes of(Phrase phrase, TimeMap time) {
        Track track = new Track(phrase.name(), SmfWriter.events(phrase, 0));
        return new PrintedNotes(time, List.of(), List.of(track), List.of(), phrase.length());
    }
}
