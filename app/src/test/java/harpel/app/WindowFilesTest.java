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
import harpel.piece.PieceEdit;
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

    /** Presses Ctrl and S, and the Shift key where it is another file. */
    private void pressSave(boolean as) {
        push(
                as
                        ? new KeyCode[] {KeyCode.CONTROL, KeyCode.SHIFT, KeyCode.S}
                        : new KeyCode[] {KeyCode.CONTROL, KeyCode.S});
    }

    @Test
    void aPieceIsSavedWithItsEndingUnderAFilesNameWhereItHasNoneOfItsOwn() throws Exception {
        interact(() -> session.replace(Piece.empty(), "New piece"));
        chosenFile = folder.resolve("eins");
        pressSave(false);
        await(() -> session.messages().last().get().equals("Saved eins.harpel"));
        assertThat(PieceFile.read(java.nio.file.Files.readString(folder.resolve("eins.harpel")))
                        .name())
                .isEqualTo("eins");
        // Save as begins where the file is, with its name.
        chosenFile = folder.resolve("zwei.harpel");
        pressSave(true);
        await(() -> session.messages().last().get().equals("Saved zwei.harpel"));
        assertThat(askedIn).isEqualTo(folder);
        assertThat(askedFor).isEqualTo("eins.harpel");
        assertThat(session.document().piece().get().name())
                .as("it has a name of its own by now")
                .isEqualTo("eins");
        assertThat(HarpelApp.title(session.document())).isEqualTo("eins – zwei.harpel in " + folder + " – Harpel");
        // The dialog of the system asked about "eins", which is not there; the whole name is.
        byte[] before = java.nio.file.Files.readAllBytes(folder.resolve("eins.harpel"));
        chosenFile = folder.resolve("eins");
        interact(() -> session.document().apply(PieceEdit.of("Vary", piece -> piece.withVariation(7))));
        assertThat(HarpelApp.title(session.document())).startsWith("• eins");
        javafx.application.Platform.runLater(files::saveAs);
        await(() -> dialog("Replace “eins.harpel”?") != null);
        settle();
        clickOn("Cancel");
        await(() -> dialog("Replace “eins.harpel”?") == null);
        assertThat(folder.resolve("eins.harpel")).hasBinaryContent(before);
        javafx.application.Platform.runLater(files::saveAs);
        await(() -> dialog("Replace “eins.harpel”?") != null);
        settle();
        clickOn("Replace it");
        await(() -> session.messages().last().get().equals("Saved eins.harpel"));
        assertThat(PieceFile.read(java.nio.file.Files.readString(folder.resolve("eins.harpel")))
                        .variation())
                .isEqualTo(7);
    }

    @Test
    void dialogsGoOnWhenTheirFolderHasGone() throws Exception {
        Path stick = java.nio.file.Files.createDirectories(folder.resolve("media/stick"));
        lastFolders.put("midi", stick);
        java.nio.file.Files.delete(stick);
        push(KeyCode.CONTROL, KeyCode.SHIFT, KeyCode.O);
        interact(files::openPhrase);
        assertThat(askedIn).isEqualTo(folder.resolve("media"));
        assertThat(session.document().undoLabel()).as("it was cancelled").isEmpty();
        // Each kind has a folder of its own.
        chosenFile = DEMO.resolve("crab-walk.chain.json");
        interact(files::openChain);
        assertThat(lastFolders).containsEntry("chain", DEMO).containsEntry("midi", stick);
    }

    @Test
    void aFileThatAnotherProgramChangedIsWrittenOverOnlyWhenAskedFor() throws Exception {
        Path file = folder.resolve("tide.harpel");
        save(file);
        java.nio.file.Files.writeString(file, "{\"harpel\":1}");
        interact(() -> session.document().apply(PieceEdit.of("Vary", piece -> piece.withVariation(9))));
        javafx.application.Platform.runLater(files::save);
        await(() -> dialog("Write over “tide.harpel”?") != null);
        settle();
        clickOn("Cancel");
        await(() -> dialog("Write over “tide.harpel”?") == null);
        assertThat(file).hasContent("{\"harpel\":1}");
        javafx.application.Platform.runLater(files::save);
        await(() -> dialog("Write over “tide.harpel”?") != null);
        settle();
        clickOn("Write over it");
        await(() -> session.messages().last().get().equals("Saved tide.harpel"));
        // One that has gone is written again, and one in a folder that has gone says so.
        java.nio.file.Files.delete(file);
        interact(() -> session.document().apply(PieceEdit.of("Vary", piece -> piece.withVariation(10))));
        interact(files::save);
        assertThat(PieceFile.read(java.nio.file.Files.readString(file)).variation())
                .isEqualTo(10);
    }

    @Test
    void aPipeNeverStopsTheWindow() throws Exception {
        Path pipe = folder.resolve("pipe.harpel");
        assertThat(new ProcessBuilder("mkfifo", pipe.toString()).start().waitFor())
                .isZero();
        Piece before = session.document().piece().get();
        interact(() -> files.disk().waitFor(20));
        interact(() -> files.open(pipe));
        assertThat(session.messages().last().get()).isEqualTo("Opening pipe.harpel …");
        interact(() -> files.openChain(DEMO.resolve("crab-walk.chain.json")));
        assertThat(session.messages().last().get()).isEqualTo("Still opening pipe.harpel. Cancel that first.");
        push(KeyCode.SPACE);
        await(() -> session.transport().status().mode() == Mode.PLAYING);
        clickOn("#cancel");
        await(() -> session.messages().last().get().equals("Opening pipe.harpel was cancelled."));
        assertThat(session.document().piece().get()).isEqualTo(before);
        // What comes through a pipe late is opened all the same. Another pipe: whoever was cancelled still holds the
        // first.
        Path late = folder.resolve("late.harpel");
        assertThat(new ProcessBuilder("mkfifo", late.toString()).start().waitFor())
                .isZero();
        interact(() -> files.open(late));
        java.nio.file.Files.writeString(late, "{\"harpel\":1,\"piece\":\"Late\"}");
        await(() -> session.document().piece().get().name().equals("Late"));
    }

    @Test
    void aChainIsOpenedFromAFileAndUndone() {
        interact(() -> files.openChain(DEMO.resolve("crab-walk.chain.json")));
        assertThat(session.selection().part().chain().stages())
                .extracting(stage -> stage.id())
                .containsExactly("latch", "arpeggio", "touch");
        push(KeyCode.CONTROL, KeyCode.Z);
        assertThat(session.selection().part().chain().stages()).hasSize(5);
    }

    @Test
    void aMidiFileBecomesThePhraseOfThePart() {
        interact(() -> files.take(DEMO.resolve("lamp-song.mid")));
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
        push(KeyCode.ESCAPE);
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
