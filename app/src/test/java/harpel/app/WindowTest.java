package harpel.app;

import static org.assertj.core.api.Assertions.assertThat;

import harpel.app.document.Autosave;
import harpel.app.document.Document;
import harpel.app.look.Theme;
import harpel.app.session.Session;
import harpel.piece.Piece;
import harpel.piece.PieceEdit;
import harpel.testkit.Wire;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.atomic.AtomicLong;
import javafx.scene.Node;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** The real window, driven as a hand would. */
class WindowTest extends WindowCase {
    @TempDir
    Path folder;

    @Override
    String parts() {
        return """
                {'name':'Lead','chain':[
                  {'effect':'transpose','octaves':1},
                  {'effect':'harmony','voices':[{'semitones':7}]},
                  {'effect':'touch','fixed':77}]}""";
    }

    private void nothingLeftSounding() {
        await(() -> Wire.open(messages()).isEmpty());
    }

    private List<String> ids() {
        return session.selection().part().chain().stages().stream()
                .map(stage -> stage.id())
                .toList();
    }

    @Test
    void aChordPlayedOnTheComputerKeysLeavesThroughThreeStages() {
        press(KeyCode.Q);
        await(() -> starts().size() >= 2);
        press(KeyCode.E);
        await(() -> starts().size() >= 4);
        press(KeyCode.T);
        await(() -> starts().size() >= 5);
        release(KeyCode.T, KeyCode.E, KeyCode.Q);
        // Q, E and T are C5, E5 and G5; an octave up and with a fifth added. G6 is there already and is struck again.
        assertThat(starts()).containsExactly("84 77", "91 77", "88 77", "95 77", "91 77", "98 77");
        nothingLeftSounding();
    }

    @Test
    void aKeyIsLetGoOfWhateverElseIsHeldByThen() {
        for (KeyCode other : List.of(KeyCode.CONTROL, KeyCode.ALT, KeyCode.SHIFT)) {
            int before = starts().size();
            press(KeyCode.Q);
            await(() -> starts().size() >= before + 2);
            press(other);
            release(KeyCode.Q);
            release(other);
            nothingLeftSounding();
        }
    }

    @Test
    void allThatIsHeldEndsWhenTheWindowLosesTheKeyboard() {
        press(KeyCode.Q);
        press(KeyCode.F3);
        await(() -> starts().size() >= 2 && session.transport().dry().get());
        interact(() -> pane.releaseKeys());
        nothingLeftSounding();
        assertThat(session.transport().dry().get()).isFalse();
    }

    @Test
    void theDrawnKeysPlayLouderFurtherDown() {
        interact(() -> {
            session.selection()
                    .editStage("test", "", address("touch"), stage -> stage.with(harpel.effect.shape.Touch.FIXED, 0));
            session.selection().edit("test", "", List.of(), chain -> chain.minus("harmony"));
        });
        Node keys = lookup("#keys").query();
        var bounds = keys.localToScreen(keys.getBoundsInLocal());
        // The eighth white key is C3, an octave up C4.
        double x = bounds.getMinX() + bounds.getWidth() * 7.5 / 35;
        moveTo(x, bounds.getMaxY() - 4);
        press(javafx.scene.input.MouseButton.PRIMARY);
        await(() -> starts().size() == 1);
        release(javafx.scene.input.MouseButton.PRIMARY);
        nothingLeftSounding();
        moveTo(x, bounds.getMinY() + bounds.getHeight() * 0.7);
        press(javafx.scene.input.MouseButton.PRIMARY);
        await(() -> starts().size() == 2);
        release(javafx.scene.input.MouseButton.PRIMARY);
        assertThat(starts()).allMatch(note -> note.startsWith("60 "));
        int low = Integer.parseInt(starts().get(0).split(" ")[1]);
        int high = Integer.parseInt(starts().get(1).split(" ")[1]);
        assertThat(low).isGreaterThan(high).isGreaterThan(110);
        nothingLeftSounding();
    }

    private harpel.chain.StageAddress address(String id) {
        return harpel.chain.StageAddress.parse("lead/" + id);
    }

    @Test
    void stagesAreAddedMovedAndSwitchedOffWhileANoteSounds() {
        press(KeyCode.Q);
        await(() -> starts().size() >= 2);
        clickOn("#insert-1");
        clickOn("Echo – repeats each note, fading");
        await(() -> ids().equals(List.of("transpose", "echo", "harmony", "touch")));
        clickOn("#stage-harmony .stage-name");
        push(KeyCode.CONTROL, KeyCode.UP);
        await(() -> ids().equals(List.of("transpose", "harmony", "echo", "touch")));
        clickOn("#onoff-transpose");
        await(() -> !session.selection()
                .part()
                .chain()
                .find("transpose")
                .orElseThrow()
                .on());
        release(KeyCode.Q);
        nothingLeftSounding();
        push(KeyCode.CONTROL, KeyCode.DELETE);
        assertThat(ids()).containsExactly("transpose", "echo", "touch");
        nothingLeftSounding();
    }

    @Test
    void aStageIsDraggedToAnotherPlace() {
        drag("#stage-touch .stage-name").moveBy(0, -400).drop();
        assertThat(ids()).containsExactly("touch", "transpose", "harmony");
        push(KeyCode.CONTROL, KeyCode.Z);
        assertThat(ids()).containsExactly("transpose", "harmony", "touch");
    }

    @Test
    void aControlTakesKeysTypingAndItsDefault() {
        clickOn("#stage-transpose .stage-name");
        clickOn("#param-semitones");
        push(KeyCode.UP);
        push(KeyCode.UP);
        assertThat(semitones()).isEqualTo(2);
        write("1");
        clickOn("#typing");
        interact(() -> ((TextField) lookup("#typing").query()).setText("7 semitones"));
        push(KeyCode.ENTER);
        assertThat(semitones()).isEqualTo(7);
        push(KeyCode.DELETE);
        assertThat(semitones()).isZero();
    }

    private int semitones() {
        return session.selection()
                .stage(address("transpose"))
                .orElseThrow()
                .params()
                .get(harpel.effect.pitch.Transpose.SEMITONES);
    }

    @Test
    void lettersGoToAChosenControlAndPlayOtherwise() {
        clickOn("#stage-transpose .stage-name");
        assertThat(text("#letters")).isEqualTo("Letters play notes");
        clickOn("#param-semitones");
        await(() -> text("#letters").equals("Letters set Semitones"));
        push(KeyCode.Q);
        assertThat(lookup("#typing").tryQuery())
                .as("a letter opens the field too")
                .isPresent();
        push(KeyCode.ESCAPE);
        // Far enough from the click not to be its second.
        drag(on("#param-semitones", 0.2, 0.3), on("#param-semitones", 0.3, 0.3));
        await(() -> text("#letters").equals("Letters play notes"));
        assertThat(starts())
                .as("nothing was played by the letters that were typed")
                .isEmpty();
        push(KeyCode.Q);
        await(() -> starts().size() >= 2);
        nothingLeftSounding();
    }

    @Test
    void nothingIsPlayedByWhatIsTypedIntoTheListOfEffects() {
        push(KeyCode.CONTROL, KeyCode.E);
        await(() -> lookup("#find-effect").tryQuery().isPresent());
        await(() -> text("#letters").equals("Letters go to the list"));
        for (KeyCode letter : new KeyCode[] {KeyCode.S, KeyCode.E, KeyCode.B}) {
            push(letter);
        }
        push(KeyCode.ESCAPE);
        await(() -> text("#letters").equals("Letters play notes"));
        assertThat(starts()).isEmpty();
        assertThat(session.transport().status().notesIn()).isZero();
    }

    @Test
    void tracesStayWhenTimeBeginsAnewAndGoWithThePieceAndTheChainTheyShow() {
        press(KeyCode.Q).release(KeyCode.Q);
        await(() -> starts().size() == 2);
        await(() -> session.transport().status().mode() == harpel.engine.LiveStatus.Mode.STOPPED);
        var input = harpel.app.transport.Places.input("lead");
        var sound = harpel.app.transport.Places.sound("lead");
        await(() -> onFx(() -> session.transport().traces().notes(sound).size() == 2));
        push(KeyCode.SPACE);
        await(() -> session.transport().status().mode() == harpel.engine.LiveStatus.Mode.PLAYING);
        push(KeyCode.SPACE);
        await(() -> session.transport().status().mode() == harpel.engine.LiveStatus.Mode.STOPPED);
        assertThat(onFx(() -> session.transport().traces().notes(sound))).hasSize(2);
        interact(() -> session.selection().edit("test", "", List.of(), chain -> chain.minus("harmony")));
        assertThat(onFx(() -> session.transport().traces().notes(sound)))
                .as("the chain that made them is no more")
                .isEmpty();
        List<harpel.app.transport.TraceStore.Drawn> before = new java.util.ArrayList<>();
        interact(() -> session.transport().traces().outdatedWithin(input, -1_000_000, 1_000_000, before));
        assertThat(before).as("it is kept to compare with").hasSize(1);
        interact(() -> session.replace(Piece.empty(), "New piece"));
        await(() -> onFx(() -> session.transport().traces().notes(input).isEmpty()));
        assertThat(session.transport().status().anchorTick()).isZero();
        assertThat(session.messages().last().get()).isEmpty();
    }

    @Test
    void aChoiceIsFoundByTyping() {
        interact(() -> session.selection()
                .edit("test", "", List.of(), chain -> chain.plus(0, harpel.effect.EffectCatalog.of("arpeggio"))));
        select("arpeggio");
        clickOn("#param-order");
        push(KeyCode.R);
        push(KeyCode.A);
        assertThat(value("arpeggio", harpel.effect.held.Arpeggio.ORDER))
                .isEqualTo(harpel.effect.held.Arpeggio.Order.RANDOM);
        assertThat(starts()).isEmpty();
    }

    @Test
    void aWrongValueIsRefusedWithItsRange() {
        clickOn("#stage-transpose .stage-name");
        doubleClickOn("#param-semitones");
        interact(() -> ((TextField) lookup("#typing").query()).setText("99"));
        push(KeyCode.ENTER);
        assertThat(session.messages().last().get()).isEqualTo("Semitones: must be −48–48 semitones but was 99");
        push(KeyCode.ESCAPE);
        assertThat(semitones()).isZero();
    }

    @Test
    void aDragIsUndoneAtOnce() {
        clickOn("#stage-transpose .stage-name");
        drag("#param-semitones").moveBy(20, 0).moveBy(10, 0).drop();
        assertThat(semitones()).isGreaterThan(5);
        push(KeyCode.CONTROL, KeyCode.Z);
        assertThat(semitones()).isZero();
        push(KeyCode.CONTROL, KeyCode.SHIFT, KeyCode.Z);
        assertThat(semitones()).isGreaterThan(5);
    }

    @Test
    void whatIsSavedAndOpenedIsEqual() throws Exception {
        clickOn("#stage-transpose .stage-name");
        push(KeyCode.CONTROL, KeyCode.D);
        Piece before = session.document().piece().get();
        assertThat(title()).startsWith("• ");
        Path file = folder.resolve("test.harpel");
        save(file);
        assertThat(title()).doesNotStartWith("•");
        push(KeyCode.CONTROL, KeyCode.DELETE);
        assertThat(session.document().piece().get()).isNotEqualTo(before);
        interact(() -> files.open(file));
        assertThat(session.document().piece().get()).isEqualTo(before);
    }

    private String title() {
        return (session.document().unsaved().get() ? "• " : "")
                + session.document().piece().get().name();
    }

    @Test
    void spacePlaysThePhraseAndSilenceEndsEverything() {
        Piece with = session.document()
                .piece()
                .get()
                .withPhrase(harpel.phrase.Phrase.of("P", 61_440, List.of(harpel.phrase.Note.of(0, 61_000, 60, 90))))
                .withPart("lead", part -> part.withPhrase("p"));
        interact(() -> session.replace(with, "test"));
        push(KeyCode.SPACE);
        await(() -> starts().size() >= 2);
        assertThat(session.transport().status().mode()).isEqualTo(harpel.engine.LiveStatus.Mode.PLAYING);
        push(KeyCode.ESCAPE);
        await(() -> session.transport().status().mode() == harpel.engine.LiveStatus.Mode.STOPPED);
        assertThat(session.messages().last().get()).startsWith("Silence: every note");
        nothingLeftSounding();
        await(() -> sent.sent().stream()
                        .filter(one -> (one.message()[0] & 0xF0) == 0xB0 && one.message()[1] == 120)
                        .count()
                >= 16);
        push(KeyCode.SPACE);
        await(() -> session.transport().status().mode() == harpel.engine.LiveStatus.Mode.PLAYING);
        push(KeyCode.SPACE);
        await(() -> session.transport().status().mode() == harpel.engine.LiveStatus.Mode.STOPPED);
    }

    @Test
    void hearDryIsHeardWithoutTheChain() {
        clickOn("#hear-dry");
        interact(() -> lookup("#hear-dry").query().getScene().lookup(".harpel").requestFocus());
        press(KeyCode.Q);
        await(() -> starts().size() == 1);
        release(KeyCode.Q);
        assertThat(starts()).containsExactly("72 92");
        nothingLeftSounding();
    }

    @Test
    void aSplitIsAddedWithItsBranchesSetInTheInspector() {
        clickOn("#insert-3");
        clickOn("Split – branches side by side, merged again");
        clickOn("#branch-split-2");
        clickOn("#param-turn");
        var takes = session.selection()
                .part()
                .chain()
                .find("split")
                .orElseThrow()
                .branches()
                .get(1)
                .takes();
        assertThat(takes.get(harpel.effect.route.Split.TURN)).isTrue();
        clickOn("#insert-split-1-0");
        clickOn("Touch – shapes velocity");
        assertThat(session.selection()
                        .part()
                        .chain()
                        .find("split")
                        .orElseThrow()
                        .branches()
                        .get(0)
                        .chain()
                        .stages())
                .hasSize(1);
    }

    @Test
    void dayTurnsToNight() {
        push(KeyCode.CONTROL, KeyCode.T);
        await(() -> session.look().theme().get() == Theme.NIGHT);
    }

    private Autosave autosave(Session of) {
        return onFx(() -> new Autosave(of.document(), of.messages(), folder));
    }

    private List<Path> keptWork() throws IOException {
        try (var files = java.nio.file.Files.list(folder.resolve("autosave"))) {
            return files.filter(file -> file.toString().endsWith(".work")).toList();
        }
    }

    private static void remove(Path kept) throws IOException {
        try (var files = java.nio.file.Files.list(kept)) {
            for (Path file : files.toList()) {
                java.nio.file.Files.delete(file);
            }
        }
        java.nio.file.Files.delete(kept);
    }

    private void removeAStage() {
        interact(() -> session.selection().edit("test", "", List.of(), chain -> chain.minus("harmony")));
    }

    @Test
    void aFolderThatGoesIsMadeAgainAndWhatGoesWrongIsSaidOnce() throws Exception {
        Autosave autosave = autosave(session);
        Path kept = folder.resolve("autosave");
        List<String> said = new ArrayList<>();
        interact(() -> session.messages().last().addListener((property, before, now) -> said.add(now)));
        try (autosave) {
            autosave.start();
            removeAStage();
            await(() -> java.nio.file.Files.isDirectory(kept) && !keptWork().isEmpty());
            remove(kept);
            interact(() -> session.document().apply(PieceEdit.of("Name", piece -> piece.withName("Fog"))));
            await(() -> java.nio.file.Files.isDirectory(kept) && !keptWork().isEmpty());
            remove(kept);
            java.nio.file.Files.writeString(kept, "in the way");
            interact(() -> session.document().apply(PieceEdit.of("Name", piece -> piece.withName("Ebb"))));
            await(() -> said.stream().anyMatch(text -> text.startsWith("Unsaved work cannot be kept")));
            AtomicLong since = new AtomicLong(System.nanoTime());
            // Longer than until the second attempt.
            await(() -> System.nanoTime() > since.get() + 1_500_000_000L);
            java.nio.file.Files.delete(kept);
            await(() -> said.contains("Unsaved work is kept again."));
            assertThat(keptWork()).hasSize(1);
            assertThat(said)
                    .filteredOn(text -> text.startsWith("Unsaved work cannot"))
                    .hasSize(1);
        }
    }

    @Test
    void nothingIsLeftOverOnceItIsSavedUnderANewName() throws Exception {
        Autosave autosave = autosave(session);
        removeAStage();
        autosave.keep();
        assertThat(keptWork()).hasSize(1);
        save(folder.resolve("fog.harpel"));
        autosave.keep();
        assertThat(keptWork()).isEmpty();
        autosave.close();
    }

    @Test
    void unsavedWorkSurvivesAKillAndEachWindowKeepsItsOwn() throws Exception {
        Autosave first = autosave(session);
        removeAStage();
        first.keep();
        Session next = onFx(() -> new Session(Piece.empty()));
        Autosave second = autosave(next);
        assertThat(second.leftOver()).as("the first window is still there").isEmpty();
        // Its lock goes with it, as when it is killed.
        first.close();
        assertThat(second.leftOver())
                .map(Autosave.LeftOver::piece)
                .contains(session.document().piece().get());
        assertThat(keptWork()).as("kept on under the name of who took it up").hasSize(1);
        second.forget();
        assertThat(autosave(session).leftOver()).isEmpty();
        second.close();
        next.close();
    }

    @Test
    void workThatWasLeftDoesNotTakeThePlaceOfNewerWorkUnasked() throws Exception {
        Path file = folder.resolve("tide.harpel");
        save(file);
        Autosave first = autosave(session);
        interact(() -> session.document().apply(PieceEdit.of("Name", piece -> piece.withName("Left"))));
        first.keep();
        first.close();
        // Opened by a link, and changed by another program meanwhile.
        Path link = java.nio.file.Files.createSymbolicLink(folder.resolve("link.harpel"), file);
        java.nio.file.Files.writeString(file, "{\"harpel\":1,\"piece\":\"Newer\"}");
        Session next = onFx(() -> Session.of(Document.Opened.read(link)));
        Autosave second = autosave(next);
        Autosave.LeftOver left = second.leftOver().orElseThrow();
        assertThat(left.piece().name()).isEqualTo("Left");
        assertThat(left.fileChanged()).as("it is asked which").isNotNull();
        assertThat(second.leftOver()).as("it stays until it is taken up").isPresent();
        second.takeUp(left);
        assertThat(keptWork()).hasSize(1).doesNotContain(left.kept());
        second.close();
        next.close();
    }
}
