package harpel.app.document;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import harpel.app.look.Messages;
import harpel.chain.Chain;
import harpel.effect.EffectCatalog;
import harpel.effect.EffectKind;
import harpel.format.FileException;
import harpel.format.PieceFile;
import harpel.piece.Part;
import harpel.piece.Piece;
import harpel.piece.PieceEdit;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class DocumentTest {
    @TempDir
    private Path directory;

    private final Messages messages = new Messages();
    private final Document document = new Document(Piece.empty(), messages);
    private final List<Change> changes = new ArrayList<>();

    @BeforeEach
    void listen() {
        document.onChange(changes::add);
    }

    private void rename(String name) {
        document.apply(PieceEdit.of("Rename to " + name, before -> before.withName(name)));
    }

    private String name() {
        return document.piece().get().name();
    }

    @Test
    void anEditIsToldOnceUndoneWithItsNameAndDoneAgain() {
        rename("Fog");
        assertThat(name()).isEqualTo("Fog");
        assertThat(changes).hasSize(1);
        assertThat(changes.get(0).before().name()).isEqualTo("Untitled");
        assertThat(changes.get(0).after().name()).isEqualTo("Fog");
        assertThat(document.unsaved().get()).isTrue();
        document.undo();
        assertThat(messages.last().get()).isEqualTo("Undone: Rename to Fog");
        assertThat(name()).isEqualTo("Untitled");
        assertThat(document.unsaved().get()).isFalse();
        document.redo();
        assertThat(messages.last().get()).isEqualTo("Done again: Rename to Fog");
        assertThat(name()).isEqualTo("Fog");
        assertThat(changes).hasSize(3);
    }

    @Test
    void whereThereIsNothingToUndoNothingIsSaidOrTold() {
        document.undo();
        document.redo();
        assertThat(messages.last().get()).isEmpty();
        assertThat(changes).isEmpty();
        rename("Untitled");
        assertThat(changes).as("an edit that changes nothing").isEmpty();
        assertThat(document.undoLabel()).isEmpty();
    }

    @Test
    void anEditThatThePieceRefusesIsNotDoneAndTheReasonSaid() {
        document.apply(PieceEdit.of("Refuse", before -> {
            throw new IllegalArgumentException("that would be a circle");
        }));
        assertThat(messages.last().get()).isEqualTo("that would be a circle");
        assertThat(changes).isEmpty();
        assertThat(document.unsaved().get()).isFalse();
    }

    @Test
    void whoAsksFirstIsToldFirstAndThePieceIsTheOldOneUntilAllKnow() {
        List<String> order = new ArrayList<>();
        document.onChange(change -> order.add("first, " + name()));
        document.onChange(change -> order.add("second, " + name()));
        document.piece().addListener((property, before, now) -> order.add("piece, " + now.name()));
        rename("Fog");
        assertThat(order).containsExactly("first, Untitled", "second, Untitled", "piece, Fog");
    }

    @Test
    void whatIsSavedIsReadAgainAndOneUndoBringsTheOldPieceBack() throws IOException {
        Path file = directory.resolve("fog.harpel");
        rename("Fog");
        save(file);
        assertThat(messages.last().get()).isEqualTo("Saved fog.harpel");
        assertThat(document.unsaved().get()).isFalse();
        assertThat(document.file().get()).isEqualTo(file);
        Piece saved = document.piece().get();
        rename("Tide");
        open(file);
        assertThat(document.piece().get()).isEqualTo(saved);
        assertThat(document.unsaved().get()).isFalse();
        assertThat(document.undoLabel()).contains("Open fog.harpel");
        document.undo();
        assertThat(name()).isEqualTo("Tide");
        assertThat(document.unsaved().get()).isTrue();
    }

    @Test
    void aFileThatSomebodyElseWroteIsNoticed() throws IOException {
        Path file = directory.resolve("fog.harpel");
        save(file);
        assertThat(isOverNewer()).isFalse();
        rename("Fog");
        assertThat(isOverNewer()).as("changed here alone").isFalse();
        Files.writeString(file, Files.readString(file).replace("Untitled", "Somebody's"));
        assertThat(isOverNewer()).isTrue();
        save(file);
        assertThat(isOverNewer()).isFalse();
        Files.delete(file);
        assertThat(isOverNewer()).as("nothing there to lose").isFalse();
    }

    private void open(Path file) throws IOException {
        document.open(Document.Opened.read(file));
    }

    private void save(Path file) throws IOException {
        Document.Saving saving = document.saving(file);
        document.saved(saving, saving.write());
    }

    /** Whether somebody else has written the file since it was opened or saved here. */
    private boolean isOverNewer() throws IOException {
        return document.saving(document.file().get()).isOverNewer();
    }

    private Path written(String name) throws IOException {
        Path file = directory.resolve(name.toLowerCase(Locale.ROOT) + ".harpel");
        Files.writeString(file, PieceFile.write(Piece.empty().withName(name)));
        return file;
    }

    /** A piece knows its file: what opening is undone to is saved where it came from, and nothing else is written over. */
    @Test
    void undoOfOpeningGivesThePieceAndItsFileBack() throws IOException {
        Path fog = written("Fog");
        Path salt = written("Salt");
        byte[] saltBytes = Files.readAllBytes(salt);
        List<String> others = new ArrayList<>();
        document.onOther(() -> others.add(String.valueOf(document.file().get())));
        open(fog);
        rename("Thick fog");
        open(salt);
        assertThat(document.unsaved().get()).isFalse();
        document.undo();
        assertThat(name()).isEqualTo("Thick fog");
        assertThat(document.file().get()).isEqualTo(fog);
        assertThat(document.unsaved().get()).as("of what its own file has").isTrue();
        assertThat(isOverNewer()).isFalse();
        assertThat(messages.last().get()).isEqualTo("Undone: Open salt.harpel");
        save(document.file().get());
        assertThat(PieceFile.read(Files.readString(fog)).name()).isEqualTo("Thick fog");
        assertThat(Files.readAllBytes(salt)).isEqualTo(saltBytes);
        document.redo();
        assertThat(name()).isEqualTo("Salt");
        assertThat(document.file().get()).isEqualTo(salt);
        document.other(Piece.empty().withName("New"), "New piece");
        assertThat(document.file().get()).as("no file yet").isNull();
        document.undo();
        assertThat(document.file().get()).isEqualTo(salt);
        document.undo();
        assertThat(document.file().get()).isEqualTo(fog);
        assertThat(document.unsaved().get()).as("it was saved").isFalse();
        assertThat(others).as("told each time").hasSize(7);
    }

    /** What was read from a MIDI file, or the demo, is no file of ours yet: whoever leaves it is asked. */
    @Test
    void whatIsNoFileYetIsNotSavedAndTheSamePieceAgainLeavesNothingToUndo() throws IOException {
        document.other(Piece.empty().withName("Tide"), "Open tide.mid");
        assertThat(document.unsaved().get()).isTrue();
        Path fog = written("Fog");
        open(fog);
        open(fog);
        document.undo();
        assertThat(name()).isEqualTo("Tide");
        assertThat(document.file().get()).isNull();
        document.undo();
        document.undo();
        assertThat(document.unsaved().get()).isFalse();
        assertThat(document.file().get()).isNull();
    }

    @Test
    void aBrokenFileChangesNothing() throws IOException {
        Path file = directory.resolve("broken.harpel");
        Files.writeString(file, "{\"harpel\":1,\"name\":");
        assertThatThrownBy(() -> open(file)).isInstanceOf(FileException.class);
        assertThat(changes).isEmpty();
        assertThat(document.file().get()).isNull();
        assertThatThrownBy(() -> open(directory.resolve("none.harpel"))).isInstanceOf(IOException.class);
        assertThat(changes).isEmpty();
    }

    @Test
    void aPieceWithoutPartsIsShownWithAnEmptyOne() {
        document.replace(Piece.empty().withParts(List.of()), "Clear");
        assertThat(document.piece().get().parts()).hasSize(1);
        assertThat(new Document(Piece.empty().withParts(List.of()), messages)
                        .piece()
                        .get()
                        .parts())
                .hasSize(1);
    }

    // What a change says

    private Change change(PieceEdit edit) {
        changes.clear();
        document.apply(edit);
        assertThat(changes).hasSize(1);
        return changes.get(0);
    }

    private Change chain(java.util.function.UnaryOperator<Chain> edit) {
        return change(PieceEdit.of(
                "Edit", before -> before.withPart("part-1", part -> part.withChain(edit.apply(part.chain())))));
    }

    @Test
    void aChangeSaysWhichPartsAreOthersAndWhetherOnlyValuesAre() {
        Change added = chain(chain -> chain.plus(0, EffectCatalog.of("transpose")));
        assertThat(added.parts()).containsExactly("part-1");
        assertThat(added.partList()).isFalse();
        assertThat(added.around()).isFalse();
        assertThat(added.onlyValues("part-1")).as("one stage more").isFalse();
        Change off = chain(chain -> chain.withStage("transpose", stage -> stage.with(EffectKind.ON, false)));
        assertThat(off.onlyValues("part-1")).as("the same stages").isTrue();
        Change second = chain(chain -> chain.plus(1, EffectCatalog.of("echo")));
        assertThat(second.onlyValues("part-1")).isFalse();
        Change moved = chain(chain -> chain.moved("echo", 0));
        assertThat(moved.onlyValues("part-1")).as("another order").isFalse();
        Change other = change(PieceEdit.of("Output", before -> before.withPart("part-1", part -> part.withChannel(5))));
        assertThat(other.parts()).containsExactly("part-1");
        assertThat(other.onlyValues("part-1")).as("not of a stage").isFalse();
    }

    @Test
    void aChangeKnowsTheListOfPartsAndWhatIsAroundThem() {
        Change more = change(PieceEdit.of("Duplicate", before -> before.withDuplicate("part-1")));
        assertThat(more.partList()).isTrue();
        assertThat(more.parts()).hasSize(1).doesNotContain("part-1");
        Change key = change(PieceEdit.of("Variation", before -> before.withVariation(9)));
        assertThat(key.around()).isTrue();
        assertThat(key.parts()).isEmpty();
        assertThat(key.onlyValues("part-1")).isFalse();
        Change order = change(PieceEdit.of("Order", before -> {
            List<Part> parts = new ArrayList<>(before.parts());
            java.util.Collections.reverse(parts);
            return before.withParts(parts);
        }));
        assertThat(order.partList()).isTrue();
        assertThat(order.parts()).as("each is as it was").isEmpty();
    }

    /** A refusal is the edit's own; what goes wrong in a view is a mistake of ours, and no message to a musician. */
    @Test
    void whatListenersThrowIsNoRefusalAndTheOthersHearAllTheSame() {
        List<String> heard = new ArrayList<>();
        document.onChange(change -> {
            throw new IllegalArgumentException("a view's mistake");
        });
        document.onChange(change -> heard.add(change.after().name()));
        assertThatThrownBy(() -> rename("Fog")).hasMessage("a view's mistake");
        assertThat(name()).isEqualTo("Fog");
        assertThat(heard).containsExactly("Fog");
        assertThat(messages.last().get()).isEmpty();
    }
}
