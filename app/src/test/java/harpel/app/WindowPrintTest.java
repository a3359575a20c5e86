package harpel.app;

import static org.assertj.core.api.Assertions.assertThat;

import harpel.app.look.Look.View;
import harpel.effect.notes.Echo;
import harpel.engine.LiveStatus.Mode;
import harpel.event.NoteStart;
import harpel.format.PieceFile;
import harpel.format.midi.MidiFile;
import harpel.format.midi.SmfForm;
import harpel.format.midi.SmfReader;
import harpel.offline.Tail;
import harpel.phrase.Note;
import harpel.phrase.Phrase;
import harpel.piece.Piece;
import harpel.piece.PieceEdit;
import harpel.print.PrintFormat;
import harpel.print.PrintOrder;
import harpel.sound.SoundFile;
import harpel.testkit.Wire;
import harpel.time.MeterMap;
import harpel.time.TempoMap;
import harpel.time.Ticks;
import harpel.time.TimeMap;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Set;
import javafx.scene.control.CheckBox;
import javafx.scene.input.KeyCode;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Printing in the window: at once onto the part, by the sheet, to files, again, and back. */
class WindowPrintTest extends WindowCase {
    private static final long QUARTER = Ticks.PER_QUARTER;
    private static final long BAR = 4 * QUARTER;

    @TempDir
    Path folder;

    @Override
    String parts() {
        return "{'name':'Lead','phrase':'tide','chain':[{'effect':'echo','repeats':2,'time':'1/4','fade':0}]},"
                + "{'name':'Clock','chain':[{'effect':'polymeter'}],'channel':2},"
                + "{'name':'Below','input':{'input-of':'lead'},'chain':[]}";
    }

    @Override
    Piece piece() {
        return super.piece()
                .withPhrase(Phrase.of("Tide", BAR, List.of(Note.of(3 * QUARTER, QUARTER, 60, 90))))
                .withTime(new TimeMap(TempoMap.of(400), MeterMap.FOUR_FOUR));
    }

    private Piece now() {
        return session.document().piece().get();
    }

    private Phrase phraseOf(String part) {
        return now().phrase(now().part(part).orElseThrow().phrase()).orElseThrow();
    }

    private List<Long> beats(String part) {
        return phraseOf(part).notes().stream()
                .map(note -> note.tick() / QUARTER)
                .toList();
    }

    private void enter(String field, String text) {
        interact(() -> lookup(field).queryTextInputControl().setText(text));
    }

    @Test
    void onePressPrintsThePartsPhraseAndOneUndoTakesItBack() {
        push(KeyCode.CONTROL, KeyCode.P);
        await(() -> phraseOf("lead").ready());
        assertThat(beats("lead")).as("the echoes of the round before come in").containsExactly(0L, 1L, 3L);
        assertThat(text("#message")).isEqualTo("Printed Lead: 3 notes in 1 bar; Below keeps the phrase");
        assertThat(text("#chain-print")).isEqualTo("Print again");
        clickOn("#offer");
        await(() -> !phraseOf("lead").ready());
        assertThat(now().part("lead").orElseThrow().phrase()).isEqualTo("tide");
        assertThat(now().phrases()).as("the print stays in the list").hasSize(2);
        assertThat(isSeen("#offer")).isFalse();
        push(KeyCode.CONTROL, KeyCode.Z);
        await(() -> phraseOf("lead").ready());
        push(KeyCode.CONTROL, KeyCode.Z);
        await(() -> now().phrases().size() == 1);
    }

    @Test
    void aPrintWhoseChainHasChangedIsMadeAgainInItsPlace() {
        clickOn("#chain-print");
        await(() -> phraseOf("lead").ready());
        String id = phraseOf("lead").id();
        interact(() -> session.document()
                .apply(PieceEdit.of(
                        "Change",
                        piece -> piece.withPart(
                                "lead",
                                part -> part.withChain(
                                        part.chain().withStage("echo", stage -> stage.with(Echo.REPEATS, 1)))))));
        await(() -> text("#chain-print").equals("Print again: changed since"));
        push(KeyCode.CONTROL, KeyCode.DIGIT2);
        await(() -> session.look().view().get() == View.PHRASE);
        settle();
        clickOn("#phrase-print");
        await(() -> beats("lead").equals(List.of(0L, 3L)));
        assertThat(phraseOf("lead").id()).isEqualTo(id);
        await(() -> text("#phrase-print").equals("Print again"));
        clickOn("#phrase-unprint");
        await(() -> now().part("lead").orElseThrow().phrase().equals("tide"));
        assertThat(text("#message")).contains("through its chain again");
    }

    @Test
    void aPrintDeletedWhileItIsMadeAgainStaysDeletedAndThatIsSaid() {
        clickOn("#chain-print");
        await(() -> phraseOf("lead").ready());
        Phrase print = phraseOf("lead");
        interact(() -> {
            session.printing().again();
            session.document().apply(PieceEdit.of("Delete phrase", piece -> piece.withoutPhrase(print.id())));
        });
        await(() -> text("#message").equals("Nothing was printed again: " + print.name() + " was deleted meanwhile."));
        assertThat(now().phrases()).extracting(Phrase::id).containsExactly("tide");
        assertThat(now().part("lead").orElseThrow().phrase()).isEmpty();
    }

    @Test
    void theWayBackThatIsOfferedIsThatOfThePrintedPartWhicheverIsChosenByThen() {
        push(KeyCode.CONTROL, KeyCode.P);
        await(() -> phraseOf("lead").ready());
        await(() -> isSeen("#offer"));
        interact(() -> session.selection().partId().set("clock"));
        clickOn("#offer");
        await(() -> now().part("lead").orElseThrow().phrase().equals("tide"));
        assertThat(text("#message")).startsWith("Lead is heard through its chain again");
    }

    @Test
    void aPartWithoutAPhraseAsksForBarsAndItsGeneratorRestsMeanwhile() {
        interact(() -> session.selection().partId().set("clock"));
        push(KeyCode.CONTROL, KeyCode.P);
        await(() -> dialog("Print") != null);
        settle();
        assertThat(onFx(() -> lookup("#print-bars").queryTextInputControl().getText()))
                .as("where no phrase says how long")
                .isEqualTo("8");
        enter("#print-bars", "none");
        clickOn("#print-now");
        assertThat(text("#print-wrong")).isEqualTo("Bars must be 1–10000 but was “none”.");
        enter("#print-bars", "2");
        enter("#print-rounds", "2");
        clickOn("#print-now");
        await(() -> !now().part("clock").orElseThrow().phrase().isEmpty());
        assertThat(phraseOf("clock").length()).isEqualTo(4 * BAR);
        assertThat(phraseOf("clock").notes()).isNotEmpty();
        assertThat(now().part("clock").orElseThrow().rack().off())
                .as("it would play beside its own print")
                .isTrue();
        clickOn("#chain-unprint");
        await(() -> now().part("clock").orElseThrow().phrase().isEmpty());
        assertThat(now().part("clock").orElseThrow().rack().off()).isFalse();
    }

    @Test
    void severalVariationsGoIntoTheListAndPartsTogether() {
        push(KeyCode.CONTROL, KeyCode.ALT, KeyCode.P);
        await(() -> dialog("Print") != null);
        settle();
        interact(() -> lookup("#print-part-clock").queryAs(CheckBox.class).setSelected(true));
        enter("#print-variations", "1-99");
        clickOn("#print-now");
        assertThat(text("#print-wrong")).contains("at most 48 at once").contains("1-99");
        enter("#print-variations", "3, 7");
        interact(() -> lookup("#print-tail").<Tail>queryComboBox().setValue(Tail.CUT));
        clickOn("#print-now");
        await(() -> now().phrases().size() == 5);
        assertThat(now().part("lead").orElseThrow().phrase())
                .as("nothing is put in its place")
                .isEqualTo("tide");
        assertThat(now().phrases().get(1).origin().details()).endsWith("variation 3");
        assertThat(now().phrases().get(4).origin().details()).endsWith("variation 7");
        await(() -> text("#message").contains("in the list of phrases"));
        push(KeyCode.CONTROL, KeyCode.Z);
        await(() -> now().phrases().size() == 1);
    }

    /** What is printed is what is heard: the first bars as they are sent live, and as they are printed. */
    @Test
    void whatIsPrintedIsWhatIsHeard() throws IOException {
        Path target = folder.resolve("lead.mid");
        PrintOrder order = new PrintOrder(now(), Set.of("lead", "clock"), 0, 4 * BAR, Tail.STOP);
        interact(() -> session.printing().toFile(order, PrintFormat.plain(), SmfForm.PLAIN, target));
        await(() -> session.messages().last().get().startsWith("Exported lead.mid to "));
        MidiFile printed = SmfReader.read(Files.readAllBytes(target));
        List<String> first = printed.notes().stream()
                .filter(note -> note.tick() < 2 * BAR)
                .map(note -> note.channel() + " " + note.pitch() + " " + note.velocity())
                .toList();
        assertThat(first).hasSizeGreaterThan(8);
        interact(() -> session.transport().play());
        await(() -> session.transport().heardNow() > 2 * BAR);
        interact(() -> session.transport().stop());
        await(() -> session.transport().status().mode() == Mode.STOPPED);
        List<String> heard = messages().stream()
                .filter(message -> (message[0] & 0xF0) == 0x90 && message[2] > 0)
                .map(message -> (message[0] & 0x0F) + " " + message[1] + " " + message[2])
                .filter(note -> first.stream().anyMatch(one -> one.charAt(0) == note.charAt(0)))
                .toList();
        assertThat(heard).containsAll(first);
        assertThat(Wire.open(messages())).isEmpty();
    }

    @Test
    void aPrintIsCancelledAndWritesNothing() {
        Path target = folder.resolve("long.mid");
        PrintOrder order = new PrintOrder(now(), Set.of("clock"), 0, 400_000 * BAR, Tail.CUT);
        interact(() -> session.printing().toFile(order, PrintFormat.plain(), SmfForm.PLAIN, target));
        clickOn("#cancel");
        await(() -> session.messages().last().get().contains("was cancelled"));
        assertThat(Files.exists(target)).isFalse();
        assertThat(isSeen("#cancel")).isFalse();
    }

    @Test
    void whatGoesWrongIsTold() {
        Path target = folder.resolve("none/lead.mid");
        interact(() -> session.printing()
                .toFile(PrintOrder.of(now(), "lead", Tail.CUT), PrintFormat.plain(), SmfForm.PLAIN, target));
        await(() -> session.messages().last().get().startsWith("Exporting to lead.mid failed: "));
        PrintOrder order = PrintOrder.of(now(), "lead", Tail.CUT);
        interact(() -> session.printing()
                .toFolder(
                        List.of(order.withVariation(1), order.withVariation(2)),
                        PrintFormat.plain(),
                        SmfForm.of(0),
                        folder));
        await(() -> session.messages().last().get().startsWith("Exported 2 files to "));
        assertThat(folder.resolve("variation-1.mid")).exists();
        assertThat(folder.resolve("variation-2.mid")).exists();
    }

    @Test
    void eachPartOrEachStageGoesIntoAFileOfItsOwn() throws IOException {
        PrintOrder both = new PrintOrder(now(), Set.of("lead", "clock"), 0, BAR, Tail.CUT);
        interact(() -> session.printing().toFiles(both, PrintFormat.plain(), new SmfForm(1, 480), folder));
        await(() -> session.messages().last().get().startsWith("Exported 2 files to "));
        byte[] bytes = Files.readAllBytes(folder.resolve("lead.mid"));
        assertThat((bytes[12] & 0xFF) << 8 | bytes[13] & 0xFF).isEqualTo(480);
        assertThat(SmfReader.read(bytes).events()).isNotEmpty();
        assertThat(folder.resolve("clock.mid")).exists();
        interact(() -> session.printing().toFiles(both, PrintFormat.ofEnding("csv"), SmfForm.PLAIN, folder));
        await(() -> Files.exists(folder.resolve("lead.csv")) && Files.exists(folder.resolve("clock.csv")));
        assertThat(Files.readString(folder.resolve("lead.csv"))).startsWith("part,start ticks,");
        PrintOrder one = PrintOrder.of(now(), "lead", Tail.CUT);
        interact(() -> session.printing().toStages(one, PrintFormat.plain(), SmfForm.PLAIN, folder));
        await(() -> session.messages().last().get().startsWith("Exported every stage to "));
        long notes = SmfReader.read(Files.readAllBytes(folder.resolve("00-input.mid"))).events().stream()
                .filter(NoteStart.class::isInstance)
                .count();
        assertThat(notes).isEqualTo(now().phrase("tide").orElseThrow().notes().size());
        assertThat(folder.resolve("01-"
                        + now().part("lead")
                                .orElseThrow()
                                .chain()
                                .stages()
                                .get(0)
                                .id() + ".mid"))
                .exists();
        assertThat(folder.resolve("99-sound.mid")).exists();
    }

    @Test
    void whatIsHeardIsWrittenAsSoundFiles() throws Exception {
        Path whole = folder.resolve("both.wav");
        PrintOrder order = new PrintOrder(now(), Set.of("lead", "clock"), 0, BAR, Tail.RING);
        interact(() -> session.printing().toFile(order, new SoundFile(), SmfForm.PLAIN, whole));
        await(() -> session.messages().last().get().startsWith("Exported both.wav to "));
        assertThat(javax.sound.sampled.AudioSystem.getAudioFileFormat(whole.toFile())
                        .getFrameLength())
                .isGreaterThan(44_100 / 2);
        interact(() -> session.printing().toFiles(order, new SoundFile(48_000, 24, null), SmfForm.PLAIN, folder));
        await(() -> session.messages().last().get().startsWith("Exported 2 files to "));
        assertThat(folder.resolve("lead.wav")).exists();
        assertThat(folder.resolve("clock.wav")).exists();
    }

    /** The platform's own sounds, saved as a SoundFont 2 file. */
    @Test
    void soundsAreChosenFromAFileAndRememberedWithThePiece() throws Exception {
        Path file = folder.resolve("own.sf2");
        javax.sound.midi.Soundbank own =
                javax.sound.midi.MidiSystem.getSynthesizer().getDefaultSoundbank();
        own.getClass().getMethod("save", java.io.File.class).invoke(own, file.toFile());
        String name = own.getInstruments()[20].getName().strip();
        interact(() -> session.sounds().choose(file));
        await(() -> session.messages().last().get().startsWith("Sounds of own.sf2: "));
        javafx.scene.control.ComboBox<String> sounds = lookup("#sound").queryComboBox();
        assertThat(sounds.getItems()).contains("Glass harp", name);
        interact(() -> sounds.setValue(name));
        assertThat(now().part("lead").orElseThrow().voice().preset())
                .isEqualTo(new harpel.piece.Preset(
                        0, own.getInstruments()[20].getPatch().getProgram()));
        assertThat(PieceFile.read(PieceFile.write(now()))).isEqualTo(now());
        Path wav = folder.resolve("lead.wav");
        PrintOrder order = new PrintOrder(now(), Set.of("lead"), 0, BAR, Tail.RING);
        SoundFile how = new SoundFile(44_100, 16, session.sounds().bank().get());
        interact(() -> session.printing().toFile(order, how, SmfForm.PLAIN, wav));
        await(() -> session.messages().last().get().startsWith("Exported lead.wav to "));
        interact(() -> session.sounds().choose(folder.resolve("gone.sf2")));
        await(() -> session.messages()
                .last()
                .get()
                .startsWith("The piece’s sounds cannot be used, the built-in ones play instead: "));
        assertThat(session.messages().last().get()).endsWith("gone.sf2: there is no such file");
        assertThat(sounds.getItems()).doesNotContain(name);
        assertThat(sounds.getValue()).as("the part keeps its name").isEqualTo(name);
        push(KeyCode.CONTROL, KeyCode.Z);
        await(() -> sounds.getItems().contains(name));
        interact(session.sounds()::builtIn);
        assertThat(now().sounds()).isEmpty();
    }

    @Test
    void whatIsPastTheChainAlreadyIsNotPrinted() {
        interact(() -> session.document()
                .apply(PieceEdit.of(
                        "Ready",
                        piece -> piece.withPhrase(
                                piece.phrase("tide").orElseThrow().withReady(true)))));
        push(KeyCode.CONTROL, KeyCode.P);
        assertThat(text("#message")).startsWith("“Tide” is a ready phrase, past the chain already.");
        assertThat(now().phrases()).hasSize(1);
    }
}
