package harpel.format;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import harpel.event.Message;
import harpel.format.midi.MidiFile;
import harpel.format.midi.SmfReader;
import harpel.format.midi.SmfWriter;
import harpel.param.ParamException;
import harpel.phrase.Note;
import harpel.phrase.Origin;
import harpel.phrase.Phrase;
import harpel.phrase.Traits;
import harpel.piece.Mark;
import harpel.piece.Piece;
import harpel.testkit.Randoms;
import harpel.time.Ticks;
import harpel.time.TimeMap;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import javax.sound.midi.MetaMessage;
import javax.sound.midi.MidiEvent;
import javax.sound.midi.MidiSystem;
import javax.sound.midi.Sequence;
import javax.sound.midi.ShortMessage;
import javax.sound.midi.Track;
import org.junit.jupiter.api.Test;

/** Phrases in files: MIDI files read by the JDK's own reader, files of several tracks, and notes as text. */
class PhraseFileTest {
    private static final long QUARTER = Ticks.PER_QUARTER;

    private static Phrase phrase() {
        return Phrase.of(
                        "Tide",
                        8 * QUARTER,
                        List.of(
                                Note.of(0, QUARTER, 60, 90),
                                Note.of(QUARTER, QUARTER / 2, 64, 71).withRelease(30),
                                Note.of(2 * QUARTER, 100 * QUARTER, 67, 1),
                                Note.of(3 * QUARTER, QUARTER, 70, 90).withTraits(Traits.of(100, true, Map.of()))))
                .withMessages(List.of(Message.bend(QUARTER, 0, 0, 9000), Message.control(0, 0, 0, 1, 77)));
    }

    @Test
    void aPhraseIsReadBackByAnIndependentReader() throws Exception {
        Sequence read = MidiSystem.getSequence(new ByteArrayInputStream(SmfWriter.write(TimeMap.DEFAULT, phrase(), 3)));
        assertThat(read.getResolution()).isEqualTo(960);
        List<String> events = new ArrayList<>();
        String name = "";
        for (Track track : read.getTracks()) {
            for (int i = 0; i < track.size(); i++) {
                MidiEvent event = track.get(i);
                if (event.getMessage() instanceof ShortMessage message) {
                    events.add(event.getTick() + " " + message.getCommand() + " " + message.getChannel() + " "
                            + message.getData1() + " " + message.getData2());
                } else if (event.getMessage() instanceof MetaMessage meta && meta.getType() == 3) {
                    name = new String(meta.getData());
                }
            }
        }
        assertThat(name).isEqualTo("Tide");
        assertThat(events)
                .as(
                        "ticks of 960 a quarter, channel 4; the note that is off is left out, the long one ends with the phrase")
                .containsExactlyInAnyOrder(
                        "0 176 3 1 77",
                        "0 144 3 60 90",
                        "960 128 3 60 64",
                        "960 224 3 40 70",
                        "960 144 3 64 71",
                        "1440 128 3 64 30",
                        "1920 144 3 67 1",
                        "7680 128 3 67 64");
    }

    @Test
    void aFileOfSeveralTracksHasALineForEachChannelOfEach() throws Exception {
        Sequence sequence = new Sequence(Sequence.PPQ, 480);
        Track conductor = sequence.createTrack();
        // Two sharps, minor: B minor (Standard MIDI Files 1.0, key signature).
        conductor.add(new MidiEvent(new MetaMessage(0x59, new byte[] {2, 1}, 2), 0));
        Track bells = sequence.createTrack();
        bells.add(new MidiEvent(new MetaMessage(3, "Bells".getBytes(), 5), 0));
        note(bells, 0, 0, 60);
        note(bells, 480, 0, 62);
        Track rest = sequence.createTrack();
        note(rest, 0, 9, 36);
        note(rest, 960, 4, 48);
        rest.add(new MidiEvent(new ShortMessage(ShortMessage.CONTROL_CHANGE, 4, 1, 5), 960));
        var out = new java.io.ByteArrayOutputStream();
        MidiSystem.write(sequence, 1, out);
        MidiFile file = SmfReader.read(out.toByteArray());
        assertThat(file.lines())
                .extracting(line -> line.shown() + ": " + line.notes().size() + " on " + (line.channel() + 1))
                .containsExactly("Bells: 2 on 1", "Track 3, channel 5: 1 on 5", "Track 3, channel 10: 1 on 10");
        assertThat(file.lines().get(1).messages()).hasSize(1);
        assertThat(file.key().orElseThrow().name()).isEqualTo("B minor");
        Phrase bellsPhrase = file.toPhrase(file.lines().get(0), "harbour");
        assertThat(bellsPhrase.notes()).extracting(Note::pitch).containsExactly(60, 62);
        assertThat(bellsPhrase.origin()).isEqualTo(Origin.of(Origin.Kind.READ, "harbour", "track 2"));
        assertThat(file.lines()).allMatch(line -> file.toPhrase(line, "harbour").length() == 4 * QUARTER);
    }

    private static void note(Track track, long tick, int channel, int pitch) throws Exception {
        track.add(new MidiEvent(new ShortMessage(ShortMessage.NOTE_ON, channel, pitch, 90), tick));
        track.add(new MidiEvent(new ShortMessage(ShortMessage.NOTE_OFF, channel, pitch, 64), tick + 240));
    }

    @Test
    void keySignaturesAreKeysOfTheCircleOfFifths() throws Exception {
        // Handbook table: sharps or flats, major key, minor key.
        Object[][] table = {
            {0, "C major", "A minor"},
            {1, "G major", "E minor"},
            {2, "D major", "B minor"},
            {3, "A major", "F♯ minor"},
            {-1, "F major", "D minor"},
            {-2, "B♭ major", "G minor"},
            {-3, "E♭ major", "C minor"},
            // Seven sharps are the keys of five flats (D♭ major, B♭ minor), which need fewer signs.
            {7, "D♭ major", "B♭ minor"}
        };
        for (Object[] row : table) {
            for (int minor = 0; minor < 2; minor++) {
                Sequence sequence = new Sequence(Sequence.PPQ, 480);
                Track track = sequence.createTrack();
                track.add(new MidiEvent(
                        new MetaMessage(0x59, new byte[] {((Integer) row[0]).byteValue(), (byte) minor}, 2), 0));
                note(track, 0, 0, 60);
                var out = new java.io.ByteArrayOutputStream();
                MidiSystem.write(sequence, 0, out);
                assertThat(SmfReader.read(out.toByteArray()).key().orElseThrow().name())
                        .isEqualTo(row[1 + minor]);
            }
        }
    }

    /** Markers are meta events of type 6 (Standard MIDI Files 1.0). */
    @Test
    void marksAreReadFromMidiFilesAndKeptInPieces() throws Exception {
        Sequence sequence = new Sequence(Sequence.PPQ, 96);
        Track track = sequence.createTrack();
        byte[] name = "Flood".getBytes(StandardCharsets.US_ASCII);
        track.add(new MidiEvent(new MetaMessage(6, name, name.length), 384));
        track.add(new MidiEvent(new MetaMessage(6, new byte[0], 0), 96));
        note(track, 0, 0, 60);
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        MidiSystem.write(sequence, 0, bytes);
        List<Mark> marks = SmfReader.read(bytes.toByteArray()).marks();
        assertThat(marks).as("those with a name").containsExactly(Mark.of(4 * Ticks.PER_QUARTER, "Flood"));
        Piece piece = Piece.empty().withMarks(List.of(marks.get(0), Mark.of(0, "Ebb")));
        assertThat(PieceFile.read(PieceFile.write(piece)).marks()).containsExactly(Mark.of(0, "Ebb"), marks.get(0));
        assertThatThrownBy(() -> Mark.of(-1, "Ebb")).hasMessageContaining("-1");
    }

    @Test
    void notesAsTextAreReadBackAndWhatIsNoneIsRefused() throws Exception {
        for (long seed = 1; seed < 40; seed++) {
            Phrase phrase = new Randoms(seed).phrase("Tide");
            assertThat(NotesText.read(NotesText.write(phrase.notes())))
                    .allMatch(note -> note.id() == Note.NEW)
                    .hasSameSizeAs(phrase.notes());
            assertThat(harpel.phrase.Notes.of(NotesText.read(NotesText.write(phrase.notes()))))
                    .isEqualTo(phrase.notes());
        }
        assertThatThrownBy(() -> NotesText.read("{\"harpel\": 1, \"chain\": []}"))
                .isInstanceOf(ParamException.class)
                .hasMessageContaining("notes are");
        assertThatThrownBy(() -> NotesText.read("hello")).isInstanceOf(FileException.class);
        assertThatThrownBy(() -> NotesText.read("{\"harpel\": 1, \"notes\": [[0, 1, 200, 90]]}"))
                .isInstanceOf(ParamException.class)
                .hasMessageContaining("notes[0]");
    }

    @Test
    void readyAndOriginAreKeptAndPhrasesAreTakenOutWithWhatHeardThem() throws Exception {
        Phrase kept = phrase().withReady(true).withOrigin(Origin.of(Origin.Kind.KEPT, "lead", "bars 1–4"));
        Piece piece = Piece.empty().withPhrase(kept).withPart("part-1", part -> part.withPhrase("tide"));
        Piece read = PieceFile.read(PieceFile.write(piece));
        assertThat(read).isEqualTo(piece);
        assertThat(read.phrase("tide").orElseThrow().origin().details()).isEqualTo("bars 1–4");
        Piece without = read.withoutPhrase("tide");
        assertThat(without.phrases()).isEmpty();
        assertThat(without.part("part-1").orElseThrow().phrase()).isEmpty();
        assertThat(piece.freePhraseId("tide")).isEqualTo("tide-2");
    }
}
