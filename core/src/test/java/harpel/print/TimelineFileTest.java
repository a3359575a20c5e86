package harpel.print;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import harpel.chain.Chain;
import harpel.format.midi.MidiFile;
import harpel.format.midi.MidiPiece;
import harpel.format.midi.SmfForm;
import harpel.format.midi.SmfReader;
import harpel.offline.Tail;
import harpel.phrase.Note;
import harpel.phrase.Phrase;
import harpel.piece.Block;
import harpel.piece.KeyChange;
import harpel.piece.Mark;
import harpel.piece.Part;
import harpel.piece.Piece;
import harpel.theory.Key;
import harpel.time.MeterMap;
import harpel.time.TempoMap;
import harpel.time.Ticks;
import harpel.time.TimeMap;
import java.io.ByteArrayInputStream;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import javax.sound.midi.MetaMessage;
import javax.sound.midi.MidiEvent;
import javax.sound.midi.MidiSystem;
import javax.sound.midi.Sequence;
import javax.sound.midi.ShortMessage;
import javax.sound.midi.Track;
import org.junit.jupiter.api.Test;

/**
 * A timeline as a Standard MIDI File 1, as two readers find it that know nothing of one another: the JDK's (java.desktop) and this
 * project's.
 */
class TimelineFileTest {
    private static final long QUARTER = Ticks.PER_QUARTER;
    private static final long BAR = 4 * QUARTER;
    private static final int MARKER = 6;
    private static final int NAME = 3;
    private static final int TEMPO = 0x51;
    private static final int METER = 0x58;
    private static final int KEY = 0x59;

    private static Piece piece() {
        List<Note> notes = List.of(Note.of(0, QUARTER, 60, 90), Note.of(3 * QUARTER, QUARTER, 64, 70));
        return Piece.empty()
                .withName("Salt")
                .withKey(Key.parse("D dorian"))
                .withTimeline(true)
                .withPhrase(Phrase.of("Tide", BAR, notes))
                .withTime(new TimeMap(
                        new TempoMap(List.of(
                                new TempoMap.Change(0, 96),
                                new TempoMap.Change(BAR, 96, true),
                                new TempoMap.Change(3 * BAR, 132))),
                        new MeterMap(List.of(new MeterMap.Change(0, 4, 4), new MeterMap.Change(2 * BAR, 3, 4)))))
                .withKeys(List.of(KeyChange.of(BAR, Key.parse("F major")), KeyChange.of(2 * BAR, Key.parse("A minor"))))
                .withMarks(List.of(Mark.of(0, "Lamp is lit"), Mark.of(2 * BAR, "Tide turns")))
                .withParts(List.of(
                        Part.of("Bells", Chain.EMPTY)
                                .withBlocks(List.of(Block.of(0, BAR, "tide"), Block.of(3 * BAR, BAR, "tide"))),
                        Part.of("Bass", Chain.EMPTY)
                                .withChannel(1)
                                .withBlocks(List.of(Block.of(BAR, 2 * BAR, "tide")))));
    }

    private static byte[] file() throws InterruptedException {
        Set<String> parts = new LinkedHashSet<>(List.of("bells", "bass"));
        return midi(new PrintOrder(piece(), parts, 0, PrintOrder.onceThrough(piece(), parts), Tail.CUT));
    }

    private static byte[] midi(PrintOrder order) throws InterruptedException {
        return PrintFormat.plain().bytes(order.print(done -> {}).allNotes(), SmfForm.PLAIN);
    }

    private static List<String> metas(Track track, int type) {
        List<String> found = new ArrayList<>();
        for (int i = 0; i < track.size(); i++) {
            MidiEvent event = track.get(i);
            if (event.getMessage() instanceof MetaMessage meta && meta.getType() == type) {
                byte[] data = meta.getData();
                String shown = switch (type) {
                    case METER -> data[0] + "/" + (1 << data[1]);
                    case KEY -> data[0] + " " + data[1];
                    default -> new String(data, StandardCharsets.UTF_8);
                };
                found.add(event.getTick() / 960.0 + " " + shown);
            }
        }
        return found;
    }

    /** Standard MIDI Files 1.0: set tempo FF 51, time signature FF 58, key signature FF 59, marker FF 06, track name FF 03. */
    @Test
    void theJdksReaderFindsItAll() throws Exception {
        Sequence sequence = MidiSystem.getSequence(new ByteArrayInputStream(file()));
        Track[] tracks = sequence.getTracks();
        assertThat(tracks).hasSize(3);
        assertThat(metas(tracks[0], NAME)).containsExactly("0.0 Salt");
        assertThat(metas(tracks[1], NAME)).containsExactly("0.0 Bells");
        assertThat(metas(tracks[2], NAME)).containsExactly("0.0 Bass");
        assertThat(metas(tracks[0], METER)).containsExactly("0.0 4/4", "8.0 3/4");
        // D dorian and A minor have no sharps and flats, F major has one flat.
        assertThat(metas(tracks[0], KEY)).containsExactly("0.0 0 0", "4.0 -1 0", "8.0 0 1");
        assertThat(metas(tracks[0], MARKER)).containsExactly("0.0 Lamp is lit", "8.0 Tide turns");
        assertThat(metas(tracks[0], TEMPO))
                .as("a ramp of two bars in sixteenths")
                .hasSize(1 + 32 + 1);
        long end = PrintOrder.onceThrough(piece(), Set.of("bells"));
        assertThat(sequence.getMicrosecondLength() / 1000.0)
                .isCloseTo(piece().time().tempo().nanosAt(end) / 1e6, within(0.5));
        assertThat(starts(tracks[1])).containsExactly("0.0 60", "3.0 64", "12.0 60", "15.0 64");
        assertThat(starts(tracks[2])).containsExactly("4.0 60", "7.0 64", "8.0 60", "11.0 64");
    }

    private static List<String> starts(Track track) {
        List<String> starts = new ArrayList<>();
        for (int i = 0; i < track.size(); i++) {
            if (track.get(i).getMessage() instanceof ShortMessage message
                    && message.getCommand() == ShortMessage.NOTE_ON
                    && message.getData2() > 0) {
                starts.add(track.get(i).getTick() / 960.0 + " " + message.getData1());
            }
        }
        return starts;
    }

    /** Read as a piece and written again it holds the same notes at the same times. */
    @Test
    void readAsAPieceAndWrittenAgainItHoldsTheSame() throws Exception {
        MidiFile read = SmfReader.read(file());
        Piece again = MidiPiece.piece(read, read.lines(), "Salt");
        assertThat(again.parts()).extracting(Part::name).containsExactly("Bells", "Bass");
        assertThat(again.part("bass").orElseThrow().blocks())
                .extracting(Block::at)
                .as("where its notes begin")
                .containsExactly(BAR);
        assertThat(again.marks()).isEqualTo(piece().marks());
        assertThat(again.keys()).extracting(KeyChange::tick).containsExactly(BAR, 2 * BAR);
        assertThat(again.keyAt(BAR)).isEqualTo(Key.parse("F major"));
        assertThat(again.time().meter()).isEqualTo(piece().time().meter());
        Set<String> parts = new LinkedHashSet<>(List.of("bells", "bass"));
        MidiFile written =
                SmfReader.read(midi(new PrintOrder(again, parts, 0, PrintOrder.onceThrough(again, parts), Tail.CUT)));
        assertThat(written.notes()).isEqualTo(read.notes());
        assertThat(written.time()).isEqualTo(read.time());
        Piece more = MidiPiece.with(again, read, read.lines(), "Salt");
        assertThat(more.parts()).extracting(Part::id).containsExactly("bells", "bass", "bells-2", "bass-2");
    }

    @Test
    void ourReaderFindsTheSameNotesTimesAndMeters() throws Exception {
        MidiFile read = SmfReader.read(file());
        TempoMap written = piece().time().tempo();
        for (MidiFile.Note note : read.notes()) {
            assertThat(read.time().tempo().nanosAt(note.tick()) / 1e6)
                    .isCloseTo(written.nanosAt(note.tick()) / 1e6, within(0.5));
        }
        assertThat(read.notes()).hasSize(8);
        assertThat(read.time().meter().at(2 * BAR).shown()).isEqualTo("3/4");
    }
}
