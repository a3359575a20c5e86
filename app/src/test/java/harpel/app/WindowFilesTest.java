package harpel.app;

import static org.assertj.core.api.Assertions.assertThat;

import harpel.app.chain.TimeWindow;
import harpel.app.transport.Places;
import harpel.app.transport.TraceStore;
import harpel.chain.StageAddress;
import harpel.engine.LiveStatus.Mode;
import harpel.event.NoteStart;
import harpel.format.PieceFile;
import harpel.phrase.Phrase;
import harpel.piece.Mark;
import harpel.piece.Piece;
import harpel.testkit.Wire;
import harpel.time.Ticks;
import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import javafx.scene.control.ComboBox;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Files, parts and the settings of the piece, in the real window with the demo piece. */
class WindowFilesTest extends WindowCase {
    private static final Path DEMO = Path.of("").toAbsolutePath().getParent().resolve("demo");

    @TempDir
    Path folder;

    @Override
    Piece piece() {
        try {
            return PieceFile.read(java.nio.file.Files.readString(DEMO.resolve("the-salt-clock.harpel")));
        } catch (IOException e) {
            throw new AssertionError(e);
        }
    }

    @Override
    String parts() {
        throw new AssertionError("the demo's parts");
    }

    private interface Work {
        void run() throws IOException;
    }

    private void onFx(Work work) {
        interact(() -> {
            try {
                work.run();
            } catch (IOException e) {
                throw new java.io.UncheckedIOException(e);
            }
        });
    }

    @Test
    void aChainIsOpenedFromAFileAndUndone() {
        onFx(() -> files.openChain(DEMO.resolve("crab-walk.chain.json")));
        assertThat(session.selection().part().chain().stages())
                .extracting(stage -> stage.id())
                .containsExactly("latch", "arpeggio", "touch");
        push(KeyCode.CONTROL, KeyCode.Z);
        assertThat(session.selection().part().chain().stages()).hasSize(5);
    }

    @Test
    void aMidiFileBecomesThePhraseOfThePart() {
        onFx(() -> files.openPhrase(DEMO.resolve("lamp-song.mid")));
        Phrase phrase = session.document().piece().get().phrase("lamp-song-2").orElseThrow();
        assertThat(session.selection().part().phrase()).as("nothing is lost").isEqualTo("lamp-song-2");
        assertThat(phrase.notes()).hasSize(13);
        assertThat(phrase.length()).isEqualTo(16 * Ticks.PER_QUARTER);
        assertThat(session.messages().last().get()).isEqualTo("Read 13 notes");
    }

    @Test
    void aFileOfSeveralTracksAsksWhichAndTakesItsTimeAlong() throws Exception {
        var sequence = new javax.sound.midi.Sequence(javax.sound.midi.Sequence.PPQ, 480);
        for (int channel = 0; channel < 3; channel++) {
            var track = sequence.createTrack();
            if (channel == 0) {
                // 600,000 µs a quarter are 100 quarters a minute.
                track.add(new javax.sound.midi.MidiEvent(
                        new javax.sound.midi.MetaMessage(0x51, new byte[] {0x09, 0x27, (byte) 0xC0}, 3), 0));
                track.add(new javax.sound.midi.MidiEvent(
                        new javax.sound.midi.MetaMessage(0x06, new byte[] {'E', 'b', 'b'}, 3), 960));
            }
            for (int status : new int[] {0x90, 0x80}) {
                track.add(new javax.sound.midi.MidiEvent(
                        new javax.sound.midi.ShortMessage(status, channel, 60 + channel, 90),
                        status == 0x90 ? 0 : 480));
            }
        }
        Path path = folder.resolve("three.mid");
        javax.sound.midi.MidiSystem.write(sequence, 1, path.toFile());
        javafx.application.Platform.runLater(() -> files.take(path, ""));
        await(() -> dialog("What becomes of the tracks of “three”?") != null);
        settle();
        clickOn("#track-2");
        clickOn("#take-time");
        clickOn("#take-marks");
        clickOn("#read-tracks");
        await(() -> session.messages().last().get().equals("Read 2 notes in 2 phrases"));
        Piece piece = session.document().piece().get();
        assertThat(piece.phrase("track-1-channel-1")
                        .orElseThrow()
                        .notes()
                        .get(0)
                        .pitch())
                .isEqualTo(60);
        assertThat(piece.phrase("track-3-channel-3")
                        .orElseThrow()
                        .notes()
                        .get(0)
                        .pitch())
                .isEqualTo(62);
        assertThat(piece.time().tempo().bpmAt(0)).isEqualTo(100);
        assertThat(piece.marks()).containsExactly(Mark.of(2 * Ticks.PER_QUARTER, "Ebb"));
        assertThat(session.selection().part().phrase())
                .as("let go of over the list")
                .isNotEqualTo("track-1-channel-1");
        javafx.application.Platform.runLater(() -> files.take(path, ""));
        await(() -> dialog("What becomes of the tracks of “three”?") != null);
        interact(() -> lookup("#tracks-as").queryComboBox().getSelectionModel().select(2));
        clickOn("#read-tracks");
        await(() -> dialog("Save “" + piece.name() + "”?") != null);
        settle();
        clickOn("Discard");
        await(() -> session.messages().last().get().equals("Opened “three”: 3 parts on the timeline."));
        Piece opened = session.document().piece().get();
        assertThat(opened.parts()).hasSize(3).allMatch(part -> part.blocks().size() == 1);
        assertThat(opened.timeline()).isTrue();
        assertThat(opened.time().tempo().bpmAt(0)).isEqualTo(100);
        push(KeyCode.CONTROL, KeyCode.Z);
        await(() -> session.document().piece().get().equals(piece));
    }

    /** The notes of the first part, on channel 1. */
    private List<String> heard() {
        return Wire.starts(
                messages().stream().filter(message -> (message[0] & 0x0F) == 0).toList());
    }

    @Test
    void partsAreShownByTheirCardsAndPlayedByTheKeys() {
        clickOn("#part-lamp-pad");
        assertThat(session.selection().partId().get()).isEqualTo("lamp-pad");
        assertThat(lookup("#stage-harmony").tryQuery()).isPresent();
        interact(() ->
                lookup("#part-lamp-pad").query().getScene().lookup(".harpel").requestFocus());
        press(KeyCode.Q);
        await(() -> messages().stream().anyMatch(message -> (message[0] & 0xFF) == 0x91));
        release(KeyCode.Q);
        await(() -> Wire.open(messages()).isEmpty());
    }

    @Test
    void soundKeyVariationTempoAndMeterAreSetAndUndone() {
        Piece before = session.document().piece().get();
        interact(() -> {
            ComboBox<String> sound = lookup("#sound").queryComboBox();
            sound.setValue(sound.getItems().stream()
                    .filter(one -> sound.getConverter().toString(one).equals("Kalimba"))
                    .findFirst()
                    .orElseThrow());
        });
        enter("#key", "E minor");
        enter("#variation", "7");
        enter("#tempo", "120");
        enter("#meter", "3/4");
        Piece after = session.document().piece().get();
        assertThat(session.selection().part().sound()).isEqualTo("Kalimba");
        assertThat(after.key().name()).isEqualTo("E minor");
        assertThat(after.variation()).isEqualTo(7);
        assertThat(after.time().tempo().bpmAt(0)).isEqualTo(120);
        assertThat(after.time().meter().at(0).shown()).isEqualTo("3/4");
        clickOn("#next-variation");
        assertThat(session.document().piece().get().variation()).isEqualTo(8);
        for (int i = 0; i < 6; i++) {
            clickOn("#undo");
        }
        assertThat(session.document().piece().get()).isEqualTo(before);
        clickOn("#redo");
        assertThat(session.selection().part().sound()).isEqualTo("Kalimba");
    }

    private void enter(String field, String text) {
        clickOn(field);
        interact(() -> ((TextField) lookup(field).query()).setText(text));
        push(KeyCode.ENTER);
    }

    @Test
    void wrongWordsInTheFieldsAreRefusedWithTheWayOut() {
        Piece before = session.document().piece().get();
        enter("#tempo", "fast");
        assertThat(session.messages().last().get())
                .isEqualTo("tempo must be 20–400 quarters a minute but was \"fast\"");
        enter("#meter", "4/5");
        assertThat(session.messages().last().get()).contains("4/5");
        enter("#key", "X major");
        assertThat(session.messages().last().get()).contains("a root is a note name");
        enter("#variation", "many");
        assertThat(session.messages().last().get()).contains("0–999999");
        assertThat(session.document().piece().get()).isEqualTo(before);
    }

    @Test
    void stagesAreHandledByKeysAlone() {
        interact(() -> lookup("#keys").query().getScene().lookup(".harpel").requestFocus());
        push(KeyCode.ALT, KeyCode.DOWN);
        assertThat(session.selection().selected().get().stageId()).isEqualTo("arpeggio");
        push(KeyCode.ALT, KeyCode.DOWN);
        assertThat(session.selection().selected().get().stageId()).isEqualTo("echo");
        push(KeyCode.CONTROL, KeyCode.B);
        assertThat(session.selection().part().chain().find("echo").orElseThrow().on())
                .isFalse();
        push(KeyCode.CONTROL, KeyCode.D);
        assertThat(session.selection().selected().get().stageId()).isEqualTo("echo-2");
        push(KeyCode.CONTROL, KeyCode.E);
        assertThat(dialog("Keys and actions")).isNull();
        push(KeyCode.ESCAPE);
        push(KeyCode.CONTROL, KeyCode.DELETE);
        assertThat(session.selection().part().chain().find("echo-2")).isEmpty();
    }

    @Test
    void enterPressesTheButtonThatHasTheKeyboardAndSpacePlaysAllTheSame() {
        interact(() -> lookup("#next-variation").query().requestFocus());
        push(KeyCode.ENTER);
        assertThat(session.document().piece().get().variation()).isEqualTo(42);
        push(KeyCode.SPACE);
        await(() -> session.transport().status().mode() == Mode.PLAYING);
        assertThat(session.document().piece().get().variation()).isEqualTo(42);
        push(KeyCode.SPACE);
    }

    @Test
    void f1ListsEveryKey() {
        push(KeyCode.F1);
        await(() -> dialog("Keys and actions") != null);
        push(KeyCode.ENTER);
        await(() -> dialog("Keys and actions") == null);
    }

    @Test
    void f1ClosesWhatItOpened() {
        push(KeyCode.F1);
        await(() -> dialog("Keys and actions") != null
                && onFx(() -> dialog("Keys and actions").isFocused()));
        push(KeyCode.F1);
        await(() -> dialog("Keys and actions") == null);
    }

    @Test
    void theRowsOfAListAreAddedSetAndRemoved() {
        clickOn("#part-lamp-pad");
        clickOn("#stage-harmony .stage-name");
        clickOn("#add-row-voices");
        assertThat(voices()).isEqualTo(3);
        clickOn("#param-voices .row-remove");
        assertThat(voices()).isEqualTo(2);
        push(KeyCode.CONTROL, KeyCode.Z);
        assertThat(voices()).isEqualTo(3);
    }

    private int voices() {
        return session.selection()
                .part()
                .chain()
                .find("harmony")
                .orElseThrow()
                .params()
                .get(harpel.effect.notes.Harmony.VOICES)
                .size();
    }

    @Test
    void pointingAtANoteSaysWhereItCameFrom() {
        push(KeyCode.SPACE);
        await(() -> heard().size() > 12);
        push(KeyCode.SPACE);
        await(() -> session.transport().status().mode() == Mode.STOPPED);
        List<TraceStore.Drawn> notes =
                session.transport().traces().last(Places.at(StageAddress.parse("harbour-bells/arpeggio")), 4);
        NoteStart note = notes.get(0).note;
        TimeWindow window = pane.chain().window();
        var bounds = bounds("#stage-arpeggio .trace");
        moveTo(
                bounds.getMinX() + window.x(note.tick(), bounds.getWidth()) + 1,
                bounds.getMinY() + window.y(note.pitch(), bounds.getHeight()));
        await(() -> !pointed().isEmpty());
        assertThat(pointed()).matches(".+: .*(velocity|→) \\d+");
    }

    private String pointed() {
        return lookup("#pointed").queryLabeled().getText();
    }
}
