package harpel.app;

import static org.assertj.core.api.Assertions.assertThat;

import harpel.app.chain.PresetMenu;
import harpel.app.transport.Words;
import harpel.effect.EffectCatalog;
import harpel.effect.Trait;
import harpel.effect.held.Arpeggio;
import harpel.effect.notes.ChordKeys;
import harpel.effect.route.Send;
import harpel.effect.shape.Touch;
import harpel.event.Message;
import harpel.format.Presets;
import harpel.move.Source;
import harpel.piece.Hearing;
import harpel.piece.Part;
import harpel.piece.PieceEdit;
import harpel.piece.perform.Lever;
import harpel.port.InputPort;
import harpel.script.Script;
import harpel.testkit.SimulatedController;
import harpel.testkit.Wire;
import harpel.theory.Spelling;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import javafx.scene.Node;
import javafx.scene.control.Hyperlink;
import javafx.scene.control.Label;
import javafx.scene.control.Slider;
import javafx.scene.control.TextField;
import javafx.scene.control.ToggleButton;
import javafx.scene.input.KeyCode;
import org.fxmisc.richtext.CodeArea;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.testfx.util.WaitForAsyncUtils;

/** Parts, levers, movers, presets, advice and scripts in the real window. */
class WindowPartsTest extends WindowCase {
    @TempDir
    Path folder;

    @Override
    String parts() {
        return "{'name':'Lead','chain':[{'effect':'touch','fixed':77}]},"
                + "{'name':'Bass','channel':2,'chain':[{'effect':'transpose','octaves':-1}]}";
    }

    @Override
    String levers() {
        return "";
    }

    private List<String> names() {
        return session.document().piece().get().parts().stream().map(Part::name).toList();
    }

    @Test
    void partsAreAddedDuplicatedMovedDeletedAndBroughtBack() {
        choose("#part-menu", "duplicate-part");
        assertThat(names()).containsExactly("Lead", "Lead 2", "Bass");
        assertThat(session.selection().part().channel() + 1)
                .as("the next free channel")
                .isEqualTo(3);
        choose("#part-menu", "part-down");
        assertThat(names()).containsExactly("Lead", "Bass", "Lead 2");
        choose("#part-menu", "delete-part");
        assertThat(names()).containsExactly("Lead", "Bass");
        press(KeyCode.CONTROL, KeyCode.Z).release(KeyCode.Z, KeyCode.CONTROL);
        await(() -> names().size() == 3);
        press(KeyCode.CONTROL, KeyCode.SHIFT, KeyCode.N).release(KeyCode.N, KeyCode.SHIFT, KeyCode.CONTROL);
        await(() -> names().size() == 4);
        assertThat(session.selection().part().name()).isEqualTo("Part 4");
    }

    private String sound() {
        return session.selection().part().sound();
    }

    private boolean heard(int status, int pitch) {
        return messages().stream().anyMatch(sent -> (sent[0] & 0xFF) == status && sent[1] == pitch && sent[2] > 0);
    }

    @Test
    void soundsAreFoundByNameAndFamilyAndHeardAsTheArrowsGoThroughThem() {
        String before = sound();
        clickOn("#find-sound");
        write("tub");
        push(KeyCode.DOWN);
        assertThat(sound()).isEqualTo("Tubular Bells");
        // General MIDI's family of bells and mallets: the C below its middle.
        await(() -> heard(0x90, 72));
        interact(() -> lookup("#sound-search").queryTextInputControl().clear());
        write("chromatic");
        push(KeyCode.DOWN);
        push(KeyCode.DOWN);
        push(KeyCode.DOWN);
        assertThat(sound()).isEqualTo("Music box");
        assertThat(lookup("#sounds-found").tryQuery()).as("it stays open").isPresent();
        push(KeyCode.ESCAPE);
        assertThat(sound()).isEqualTo(before);
        assertThat(lookup("#sounds-found").tryQuery()).isEmpty();
        clickOn("#find-sound");
        write("oboe");
        push(KeyCode.DOWN);
        push(KeyCode.ENTER);
        assertThat(sound()).isEqualTo("Oboe");
        clickOn("#undo");
        assertThat(sound()).as("one undo however many were heard").isEqualTo(before);
        await(() -> Wire.open(messages()).isEmpty());
    }

    @Test
    void aDrumSoundProposesTheChannelOfDrums() {
        clickOn("#find-sound");
        write("hand drums");
        push(KeyCode.DOWN);
        push(KeyCode.ENTER);
        assertThat(session.messages().last().get()).contains("On channel 10 each key is a drum of its own.");
        push(KeyCode.CONTROL, KeyCode.ENTER);
        assertThat(session.selection().part().channel()).isEqualTo(9);
        push(KeyCode.CONTROL, KeyCode.Z);
        assertThat(session.selection().part().channel()).isZero();
        assertThat(sound()).isEqualTo("Hand drums");
    }

    /** General MIDI 1, percussion key map: 42 Closed Hi-Hat, 44 Pedal Hi-Hat, 46 Open Hi-Hat. */
    @Test
    void theInstrumentsOfADrumPartAreFoundByNameAndHeardOnItsChannel() {
        interact(() -> session.document()
                .apply(PieceEdit.of("Drums", piece -> piece.withPart("lead", part -> part.withChannel(9)))));
        String before = sound();
        clickOn("#find-sound");
        write("hat");
        push(KeyCode.DOWN);
        push(KeyCode.DOWN);
        await(() -> heard(0x99, 44));
        assertThat(lookup("#sounds-found").queryListView().getItems()).hasSize(3);
        assertThat(sound()).isEqualTo(before);
    }

    @Test
    void aSectionHearsWhatAnotherPartHears() {
        choose("#part-menu", "add-section");
        clickOn("#part-lead");
        press(KeyCode.Q);
        await(() -> starts().size() == 2);
        release(KeyCode.Q);
        assertThat(starts()).containsExactlyInAnyOrder("72 77", "72 92");
        await(() -> Wire.open(messages()).isEmpty());
    }

    @Test
    void aMutePartSaysSoAndTheLinkHelps() {
        clickOn("#mute-lead");
        assertThat(lookup("#mute-lead").queryAs(ToggleButton.class).isSelected())
                .isTrue();
        Label why = lookup("#why-silent").queryAs(Label.class);
        assertThat(why.getText()).isEqualTo("Muted.");
        play(60, 100);
        Hyperlink help = lookup("#help-silent").queryAs(Hyperlink.class);
        assertThat(help.getText()).isEqualTo("Unmute");
        clickOn(help);
        await(() -> !session.selection().part().mix().mute());
        assertThat(why.isVisible()).isFalse();
        interact(() -> session.transport().press(62, 100));
        await(() -> !starts().isEmpty());
        interact(() -> session.transport().release(62));
        assertThat(starts()).containsExactly("62 77");
    }

    @Test
    void soloIsHeardAloneAndTheLevelIsTheChannelsVolume() {
        clickOn("#part-bass");
        clickOn("#solo-bass");
        clickOn("#part-lead");
        assertThat(lookup("#why-silent").queryAs(Label.class).getText()).isEqualTo("Another part is solo.");
        clickOn("#part-bass");
        Slider level = lookup("#level-bass").queryAs(Slider.class);
        interact(() -> level.setValue(50));
        await(() -> levelOfBass() == 50);
        interact(() -> session.document().endGesture());
        focus("#level-bass");
        push(KeyCode.LEFT);
        int once = levelOfBass();
        push(KeyCode.LEFT);
        assertThat(levelOfBass()).isLessThan(once);
        push(KeyCode.CONTROL, KeyCode.Z);
        assertThat(levelOfBass()).as("each key is undone on its own").isEqualTo(once);
    }

    private int levelOfBass() {
        return session.document().piece().get().part("bass").orElseThrow().mix().level();
    }

    @Test
    void aLeverIsAddedLearntAndMovesAParameter() {
        clickOn("#add-lever");
        await(() -> session.document().piece().get().levers().size() == 1);
        clickOn("#learn-0");
        InputPort knobs = session.transport().engine().openInput("Knobs");
        knobs.offer(Message.CONTROL_CHANGE, 21, 0, System.nanoTime());
        await(() ->
                session.document().piece().get().levers().get(0).controllers().equals(List.of(21)));
        select("touch");
        // It may lie below what is seen of the controls.
        focus("#add-mover");
        push(KeyCode.ENTER);
        clickOn("#move-fixed");
        clickOn("#by-lever");
        var moves = session.selection().part().chain().stages().get(0).moves();
        assertThat(moves.of(Touch.FIXED)).hasSize(1);
        assertThat(moves.of(Touch.FIXED).get(0).source()).isEqualTo(Source.LEVER);
        interact(() -> lookup("#lever-0").queryAs(Slider.class).setValue(100));
        await(() -> session.document().piece().get().levers().equals(List.of(Lever.of("Tide", 100, 21))));
        interact(() -> session.transport().press(60, 100));
        await(() -> !starts().isEmpty());
        interact(() -> session.transport().release(60));
        assertThat(starts()).as("77 and half of 127").containsExactly("60 127");
        assertThat(lookup("#mover-fixed-1").tryQuery()).isPresent();
    }

    @Test
    void aPresetIsHeardAtOnceAndUndone() {
        select("touch");
        choose("#presets", "Accent of four");
        assertThat(session.selection().part().chain().stages().get(0).params().get(Touch.ACCENTS))
                .containsExactly(20, 0, 0, 0);
        interact(session.document()::undo);
        assertThat(session.selection().part().chain().stages().get(0).params().get(Touch.FIXED))
                .isEqualTo(77);
        choose("#chain-presets", "Crab walk");
        assertThat(session.selection().part().chain().stages()).hasSize(3);
    }

    @Test
    void aPresetOfOnesOwnIsKeptInAFile() throws Exception {
        Path file = PresetMenu.keep(
                folder.resolve("presets"),
                "Mine",
                session.selection().part().chain().stages().get(0));
        assertThat(Files.exists(file)).isTrue();
        var mine = Presets.with(folder.resolve("presets")).of(EffectCatalog.of("touch"));
        assertThat(mine).last().extracting(Presets.Preset::name).isEqualTo("Mine");
        String newer = "{\"harpel\": 99, \"warp\": 1, \"presets\": []}";
        Files.writeString(file, newer);
        Path other = PresetMenu.keep(
                folder.resolve("presets"),
                "Mine",
                session.selection().part().chain().stages().get(0));
        assertThat(other).isNotEqualTo(file);
        assertThat(file).as("what a newer version wrote stays").hasContent(newer);
    }

    @Test
    void adviceAppearsAtItsStageAndItsLinkHelps() {
        interact(() -> session.selection()
                .edit(
                        "test",
                        "",
                        List.of(),
                        chain -> chain.plus(1, EffectCatalog.of("arpeggio")).plus(2, EffectCatalog.of("arpeggio"))));
        Hyperlink link = lookup("#advice-arpeggio-2").queryAs(Hyperlink.class);
        assertThat(link.getText()).isEqualTo("Start over never");
        interact(link::fire);
        assertThat(session.selection().part().chain().stages().get(2).params().get(Arpeggio.START_OVER))
                .isEqualTo(Arpeggio.StartOver.NEVER);
        assertThat(isSeen("#advice-arpeggio-2")).isFalse();
    }

    @Test
    void aCircleIsRefusedWithItsPath() {
        interact(() -> {
            session.document()
                    .apply(harpel.piece.PieceEdit.of(
                            "test",
                            piece -> piece.withPart(
                                    "lead",
                                    part -> part.withHearing(new Hearing(Hearing.Source.OUTPUT_OF, "bass", 0)))));
            session.document()
                    .apply(harpel.piece.PieceEdit.of(
                            "test",
                            piece -> piece.withPart(
                                    "bass",
                                    part -> part.withHearing(new Hearing(Hearing.Source.OUTPUT_OF, "lead", 0)))));
        });
        assertThat(session.messages().last().get()).contains("lead → bass → lead");
        assertThat(session.document().piece().get().part("bass").orElseThrow().hearing())
                .isEqualTo(Hearing.KEYS);
    }

    @Test
    void aScriptIsWrittenSpeaksAndSurvivesAMistake() {
        interact(() ->
                session.selection().edit("test", "", List.of(), chain -> chain.plus(1, EffectCatalog.of("script"))));
        select("script");
        CodeArea code = lookup("#code").queryAs(CodeArea.class);
        clickOn(code);
        interact(() -> code.replaceText(
                "const up = control('up', {low: 0, high: 24, value: 12});\nfunction onNote(n) {\n  log('up', up.value);\n"
                        + "  play(n, {pitch: n.pitch + up.value});\n}\n"));
        await(() -> session.selection()
                .part()
                .chain()
                .stages()
                .get(1)
                .params()
                .spec()
                .byId("up")
                .isPresent());
        await(() -> onFx(() -> lookup("#param-up").tryQuery().isPresent()));
        playUntilHeard(60, "72 77");
        await(() -> lookup("#script-said").queryAs(Label.class).getText().endsWith("up 12"));
        // What it makes of three notes stands beside it, without a note played.
        await(() -> lookup("#script-tried").queryAs(Label.class).getText().contains("E4 → E5"));
        assertThat(lookup("#script-tried").queryAs(Label.class).getText())
                .containsPattern("(a few|at most [0-9,]+) steps of 500,000 and [0-9.]+ ms a call");
        interact(() -> code.replaceText("function onNote(n) {\n  play(n\n}\n"));
        await(() -> lookup("#script-problem").queryAs(Label.class).getText().startsWith("line 3"));
        assertThat(session.selection().part().chain().stages().get(1).params().get(Script.CODE))
                .contains("play(n\n");
        playUntilHeard(62, "74 77");
    }

    /** As when a line is made under a pointer that is pressed already: what nobody caught would fail the test. */
    @Test
    void aLineThatIsDraggedWithoutAPressStays() {
        clickOn("#part-bass");
        Slider level = lookup("#level-bass").queryAs(Slider.class);
        double before = onFx(level::getValue);
        interact(() -> {
            javafx.scene.Node thumb = level.lookup(".thumb");
            javafx.event.Event.fireEvent(
                    thumb,
                    new javafx.scene.input.MouseEvent(
                            javafx.scene.input.MouseEvent.MOUSE_DRAGGED,
                            3,
                            3,
                            3,
                            3,
                            javafx.scene.input.MouseButton.PRIMARY,
                            1,
                            false,
                            false,
                            false,
                            false,
                            true,
                            false,
                            false,
                            true,
                            false,
                            false,
                            null));
        });
        assertThat(onFx(level::getValue)).isEqualTo(before);
    }

    @Test
    void aScriptThatIsWrittenLargeComesBackAmongItsControls() {
        interact(() ->
                session.selection().edit("test", "", List.of(), chain -> chain.plus(1, EffectCatalog.of("script"))));
        select("script");
        push(KeyCode.F7);
        await(() -> session.look().large().get());
        CodeArea code = lookup("#code").queryAs(CodeArea.class);
        interact(() -> code.replaceText("const up = control('up', {low: 0, high: 24, value: 12});"));
        // With another control the inspector is built anew, while the text lies over the rows.
        await(() -> onFx(() -> lookup("#param-up").tryQuery().isPresent()));
        interact(() -> session.look().large().set(false));
        await(() -> onFx(() -> lookup("#code").tryQuery().isPresent() && !isLarge()));
        push(KeyCode.F7);
        await(() -> onFx(this::isLarge));
        interact(() -> session.look().large().set(false));
        await(() -> onFx(() -> lookup("#code").tryQuery().isPresent() && !isLarge()));
    }

    private boolean isLarge() {
        return lookup(".large-editor #code").tryQuery().isPresent();
    }

    /** A script that comes late lets notes pass and says so, so on a busy machine the first may come through as they were. */
    private void playUntilHeard(int pitch, String start) {
        await(() -> {
            interact(() -> session.transport().press(pitch, 100));
            interact(() -> session.transport().release(pitch));
            WaitForAsyncUtils.sleep(200, java.util.concurrent.TimeUnit.MILLISECONDS);
            return starts().contains(start);
        });
    }

    @Test
    void aChordIsLearntByPlayingItsKeyAndThenItsNotes() {
        interact(() -> session.selection()
                .edit("test", "", List.of(), chain -> chain.plus(0, EffectCatalog.of("chord-keys"))));
        select("chord-keys");
        interact(() -> lookup("#learn-chord").queryAs(ToggleButton.class).fire());
        Label prompt = lookup("#learn-prompt").queryAs(Label.class);
        interact(() -> session.transport().press(48, 100));
        await(() -> session.transport().status().notesIn() == 1);
        interact(() -> session.transport().release(48));
        await(() -> prompt.getText().startsWith("Now the chord for C3"));
        for (int pitch : new int[] {57, 60, 64}) {
            interact(() -> session.transport().press(pitch, 100));
        }
        await(() -> session.transport().status().notesIn() == 4);
        for (int pitch : new int[] {57, 60, 64}) {
            interact(() -> session.transport().release(pitch));
        }
        await(() -> !session.selection()
                .part()
                .chain()
                .stages()
                .get(0)
                .params()
                .get(ChordKeys.KEYS)
                .isEmpty());
        assertThat(session.selection()
                        .part()
                        .chain()
                        .stages()
                        .get(0)
                        .params()
                        .get(ChordKeys.KEYS)
                        .get(48)
                        .notes())
                .containsExactly(57, 60, 64);
        await(() -> session.messages().last().get().equals("C3 plays A3 C4 E4."));
    }

    @Test
    void aPartToSendToIsChosenByItsName() {
        interact(() ->
                session.selection().edit("test", "", List.of(), chain -> chain.plus(0, EffectCatalog.of("send"))));
        select("send");
        clickOn("#param-to");
        Part other = session.document().piece().get().parts().stream()
                .filter(part -> !part.id().equals(session.selection().partId().get()))
                .findFirst()
                .orElseThrow();
        write(other.name().substring(0, 2));
        assertThat(value("send", Send.TO).to()).isEqualTo(other.id());
        assertThat(lookup("#param-to .tile-value").queryLabeled().getText())
                .startsWith(other.name())
                .endsWith("· " + (other.channel() + 1));
    }

    @Test
    void effectsAreFoundByWhatPeopleWant() {
        for (String[] wish : new String[][] {
            {"softer", "touch"},
            {"in key", "scale-fit"},
            {"echo", "echo"},
            {"octave", "transpose"},
            {"arp", "arpeggio"},
            {"split", "split"},
            {"euclid", "pulse"}
        }) {
            assertThat(EffectCatalog.found(wish[0])).as(wish[0]).first().isEqualTo(EffectCatalog.of(wish[1]));
        }
        assertThat(EffectCatalog.found("probability")).isNotEmpty();
        assertThat(EffectCatalog.found("random"))
                .containsAll(EffectCatalog.kinds().stream()
                        .filter(kind -> kind.has(Trait.DRAWS))
                        .toList());
        assertThat(EffectCatalog.found("no such thing")).isEmpty();
        press(KeyCode.CONTROL, KeyCode.E).release(KeyCode.E, KeyCode.CONTROL);
        await(() -> lookup("#find-effect").tryQuery().isPresent());
        moveTo(lookup(".menu-item").nth(9).<Node>query());
        write("softer");
        assertThat(lookup("#find-effect").queryAs(TextField.class).getText())
                .as("though an entry under the pointer has the focus")
                .isEqualTo("softer");
        press(KeyCode.ENTER).release(KeyCode.ENTER);
        await(() -> session.selection().part().chain().stages().size() == 2);
        assertThat(session.selection().part().chain().stages().get(1).id()).isEqualTo("touch-2");
    }

    @Test
    void stagesAndChainsAreCopiedAsText() {
        select("touch");
        press(KeyCode.CONTROL, KeyCode.C).release(KeyCode.C, KeyCode.CONTROL);
        press(KeyCode.CONTROL, KeyCode.V).release(KeyCode.V, KeyCode.CONTROL);
        await(() -> session.selection().part().chain().stages().size() == 2);
        assertThat(session.selection().part().chain().stages().get(1).params().get(Touch.FIXED))
                .isEqualTo(77);
        String[] text = new String[1];
        interact(() ->
                text[0] = javafx.scene.input.Clipboard.getSystemClipboard().getString());
        assertThat(text[0]).contains("\"effect\": \"touch\"");
    }

    @Test
    void aTestPhraseIsHeardThroughTheChain() {
        interact(() -> testPhrase("one note repeated").fire());
        await(() -> starts().size() >= 2);
        interact(session.transport()::stop);
        assertThat(starts()).allMatch(note -> note.equals("60 77"));
        await(() -> Wire.open(messages()).isEmpty());
    }

    @Test
    void aLeverThatStandsBetweenWholeNumbersIsShownWithoutBeingMoved() {
        interact(() -> {
            for (double value : new double[] {10, 33.3}) {
                session.document()
                        .apply(harpel.piece.PieceEdit.of(
                                "test", piece -> piece.withLevers(List.of(Lever.of("Tide", value)))));
            }
        });
        assertThat(session.document().piece().get().levers().get(0).value()).isEqualTo(33.3);
    }

    @Test
    void aDrumIsCalledByItsName() {
        var drum = harpel.event.NoteStart.played(0, 0, 9, 42, 80);
        assertThat(Words.ancestry(drum, Spelling.SHARPS, (from, to) -> "")).isEqualTo("F♯2 Closed Hi-Hat: velocity 80");
        assertThat(Words.ancestry(harpel.event.NoteStart.played(0, 0, 0, 42, 80), Spelling.SHARPS, (from, to) -> ""))
                .isEqualTo("F♯2: velocity 80");
    }

    @Test
    void aDeviceIsChosenAsInput() {
        SimulatedController controller =
                new SimulatedController(session.transport().engine());
        interact(() -> session.document()
                .apply(harpel.piece.PieceEdit.of(
                        "test",
                        piece -> piece.withPart(
                                "bass",
                                part -> part.withHearing(new Hearing(
                                        Hearing.Source.DEVICE,
                                        session.transport().inputs().get(0),
                                        0))))));
        controller.press(60, 90);
        await(() -> !starts().isEmpty());
        controller.release(60);
        assertThat(starts()).as("Bass is an octave lower").containsExactly("48 90");
    }
}
