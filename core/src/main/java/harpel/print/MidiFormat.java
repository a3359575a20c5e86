package harpel.print;

import com.google.auto.service.AutoService;
import harpel.format.midi.SmfForm;
import harpel.format.midi.SmfWriter;

/** Standard MIDI Files 1.0, with a named track a part, tempo, meter, key and marks. */
@AutoService(PrintFormat.class)
public final class MidiFormat implements PrintFormat {
    static final String ENDING = "mid";

    @Override
    public String name() {
        return "MIDI file";
    }

    @Override
    public String ending() {
        return ENDING;
    }

    @Override
    public byte[] write(PrintedNotes notes, SmfForm form) {
        return SmfWriter.writeTracks(form, notes.time(), notes.about(), notes.tracks(), notes.length());
    }
}
