package harpel.app;

import static org.assertj.core.api.Assertions.assertThat;

import harpel.format.midi.SmfReader;
import harpel.phrase.Note;
import harpel.phrase.Phrase;
import harpel.piece.Mix;
import harpel.piece.Piece;
import harpel.piece.PieceEdit;
import harpel.print.PrintFormat;
import harpel.time.Ticks;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import javafx.scene.control.CheckBox;
import javafx.scene.input.KeyCode;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** What is heard is written to files: by the keys, one sheet and the system's dialog. */
class WindowExportTest extends WindowCase {
    private static final long QUARTER = Ticks.PER_QUARTER;

    @TempDir
    Path folder;

    private final List<Path> opened = new ArrayList<>();

    @Override
    String parts() {
        return "{'name':'Lead','phrase':'tide','chain':[{'effect':'echo','repeats':2,'time':'1/4','fade':0}]},"
                + "{'name':'Bass','phrase':'tide','chain':[],'channel':2},"
                + "{'name':'Silent','phrase':'tide','chain':[],'channel':3}";
    }

    @Override
    Piece piece() {
        return super.piece().withPhrase(Phrase.of("Tide", 4 * QUARTER, List.of(Note.of(0, QUARTER, 60, 90))));
    }

    @BeforeEach
    void open() {
        interact(() -> {
            session.document()
                    .apply(PieceEdit.of(
                            "Mute", piece -> piece.withPart("silent", part -> part.withMix(Mix.PLAIN.withMute(true)))));
            session.printing().openFoldersBy(opened::add);
        });
        push(KeyCode.CONTROL, KeyCode.SHIFT, KeyCode.E);
        await(() -> dialog("Export") != null);
        settle();
    }

    @Test
    void allThatIsHeardGoesIntoAMidiFileAndItsFolderIsOpenedFromTheFoot() throws Exception {
        assertThat(lookup("#print-part-lead").queryAs(CheckBox.class).isSelected())
                .isTrue();
        assertThat(lookup("#print-part-silent").queryAs(CheckBox.class).isSelected())
                .as("it is not heard")
                .isFalse();
        assertThat(isSeen("#export-division")).as("asked for seldom").isFalse();
        chosenFile = folder.resolve("clock");
        clickOn("#export-now");
        await(() -> session.messages().last().get().equals("Exported clock.mid to " + folder + ": 4 notes in 1 bar"));
        assertThat(askedFor).isEqualTo("test-parts.mid");
        assertThat(SmfReader.read(Files.readAllBytes(folder.resolve("clock.mid")))
                        .notes())
                .hasSize(4);
        clickOn("#offer");
        assertThat(opened).containsExactly(folder);
    }

    @Test
    void asSoundAFileAPartInAFolder() throws Exception {
        interact(() -> lookup("#export-as").<PrintFormat>queryComboBox().setValue(PrintFormat.ofEnding("wav")));
        clickOn("#export-more");
        await(() -> isSeen("#export-samples"));
        assertThat(isSeen("#export-division")).as("sound has no ticks").isFalse();
        interact(() -> lookup("#export-each")
                .<harpel.app.print.ExportSheet.Each>queryComboBox()
                .setValue(harpel.app.print.ExportSheet.Each.PART));
        interact(() -> lookup("#print-variations").queryTextInputControl().setText("1-3"));
        clickOn("#export-now");
        assertThat(text("#export-wrong"))
                .contains("one file per part, in a folder")
                .contains("3 variations");
        interact(() -> lookup("#print-variations").queryTextInputControl().setText("1"));
        chosenFile = folder;
        clickOn("#export-now");
        await(() -> session.messages().last().get().startsWith("Exported 2 files to "));
        assertThat(folder.resolve("lead.wav")).isNotEmptyFile();
        assertThat(folder.resolve("bass.wav")).isNotEmptyFile();
        assertThat(folder.resolve("silent.wav")).doesNotExist();
    }
}
