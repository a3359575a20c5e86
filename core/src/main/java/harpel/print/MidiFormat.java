package harpel.print;

import com.google.auto.service.AutoService;
import harpel.format.midi.SmfForm;
import harpel.format.midi.SmfWriter;
import java.io.IOException;
import java.io.OutputStream;
import java.util.function.DoubleConsumer;

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
    public void write(PrintedNotes notes, SmfForm form, OutputStream out, DoubleConsumer done) throws IOException {
        out.write(SmfWriter.writeTracks(form, notes.time(), notes.about(), notes.tracks(), notes.length()));
    }
}
