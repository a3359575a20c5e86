package harpel.app;

import static org.assertj.core.api.Assertions.assertThat;

import harpel.app.desk.VariationSheet;
import harpel.app.desk.VariationSheet.Card;
import harpel.app.look.Look.View;
import harpel.effect.notes.Echo;
import harpel.format.PieceFile;
import harpel.make.Recipe;
import harpel.offline.Tail;
import harpel.phrase.Note;
import harpel.phrase.Phrase;
import harpel.piece.Piece;
import harpel.piece.PieceEdit;
import harpel.print.PrintOrder;
import harpel.testkit.Wire;
import harpel.time.MeterMap;
import harpel.time.TempoMap;
import harpel.time.Ticks;
import harpel.time.TimeMap;
import harpel.vary.Way;
import java.util.ArrayList;
import java.util.List;
import javafx.scene.control.ToggleButton;
import javafx.scene.input.KeyCode;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** The sheet of variations, by mouse and by keyboard. */
class WindowVariationsTest extends WindowCase {
    private static final long QUARTER = Ticks.PER_QUARTER;
    private static final long BAR = 4 * QUARTER;

    private VariationSheet sheet;

    @Override
    String parts() {
        return "{'name':'Lead','phrase':'tide','chain':[{'effect':'stray','amount':80},{'effect':'echo','repeats':1,'chance':50}]},"
                + "{'name':'Bass','phrase':'low','channel':2,'chain':[]}";
    }

    @Override
    Piece piece() {
        List<Note> notes = new ArrayList<>();
        for (int i = 0; i < 8; i++) {
            notes.add(Note.of(i * QUARTER / 2, QUARTER / 2, 60 + i, 90));
        }
        return super.piece()
                .withVariation(41)
                .withPhrase(Phrase.of("Tide", BAR, notes))
                .withPhrase(Phrase.of("Low", BAR, List.of(Note.of(0, QUARTER, 40, 90))))
                .withTime(new TimeMap(TempoMap.of(400), MeterMap.FOUR_FOUR));
    }

    @BeforeEach
    void open() {
        sheet = session.variations();
        push(KeyCode.CONTROL, KeyCode.SHIFT, KeyCode.V);
        await(() -> sheet.isOpen() && printed() == 12);
        settle();
    }

    @Test
    void cardsThatAreAllAlikeSayWhyAndOfferTheSettings() {
        assertThat(lookup("#variations-why").tryQuery()).isEmpty();
        assertThat(lookup("#variations-timeline").query().isDisabled())
                .as("nothing is starred")
                .isTrue();
        interact(() -> session.document()
                .apply(PieceEdit.of(
                        "No chance",
                        piece -> piece.withPart(
                                "lead",
                                part -> part.withChain(
                                        part.chain().minus("stray").minus("echo"))))));
        await(() -> lookup("#variations-why").tryQuery().isPresent());
        assertThat(text("#variations-why")).startsWith("Every number gives the same notes");
        assertThat(lookup("#card-use-0").query().isDisabled()).isTrue();
        assertThat(text("#card-about-3")).isEqualTo("the same notes");
        clickOn("#variations-little");
        await(() -> sheet.way().get() == Way.LITTLE);
    }

    private long printed() {
        return onFx(() ->
                sheet.cards().stream().filter(card -> card.phrase() != null).count());
    }

    private Piece now() {
        return session.document().piece().get();
    }

    private Card card(int place) {
        return onFx(() -> sheet.cards().get(place));
    }

    @Test
    void twelveCardsSayWhatDiffersAndAreWhatWouldBeHeard() throws InterruptedException {
        assertThat(text("#variations-title")).isEqualTo("Variations of Lead");
        assertThat(text("#card-about-0")).isEqualTo("as it is now");
        assertThat(text("#card-about-1")).matches("\\d+ of \\d+ differ|the same notes");
        for (int place : List.of(0, 5, 11)) {
            Phrase phrase = PrintOrder.of(now().withVariation(41 + place), "lead", Tail.ROUND)
                    .print(done -> {})
                    .phrase("lead", now());
            assertThat(card(place).phrase().notes()).isEqualTo(phrase.notes());
        }
        clickOn("#variations-more");
        await(() -> printed() == 24);
        assertThat(card(23).variant().number()).isEqualTo(64);
        clickOn("#variations-more");
        clickOn("#variations-more");
        await(() -> printed() == 48);
        assertThat(onFx(() -> lookup("#variations-more").query().isDisabled())).isTrue();
        clickOn("#variations-done");
        await(() -> session.look().view().get() == View.CHAIN);
        assertThat(now().variation()).as("nothing has changed").isEqualTo(41);
    }

    @Test
    void aPhraseThatWasMadeIsMadeAnew() {
        assertThat(onFx(() -> lookup("#vary-made").query().isVisible()))
                .as("“Tide” was drawn")
                .isFalse();
        Recipe recipe = Recipe.Kind.MELODY.plain();
        Recipe.Result made = recipe.make(now().key(), now().time());
        interact(() -> session.document()
                .apply(PieceEdit.of(
                        "Make",
                        piece -> piece.withPhrase(
                                Phrase.of("Tide", made.length(), made.notes()).withOrigin(recipe.origin())))));
        clickOn("#vary-made");
        await(() -> printed() == 12 && card(0).variant().way() == Way.MADE);
        assertThat(card(3).phrase().notes()).isNotEqualTo(card(0).phrase().notes());
        push(KeyCode.RIGHT);
        push(KeyCode.ENTER);
        Recipe.Result next = recipe.another().make(now().key(), now().time());
        assertThat(now().phrase("tide").orElseThrow().notes()).hasSameSizeAs(next.notes());
        assertThat(Recipe.of(now().phrase("tide").orElseThrow().origin())).contains(recipe.another());
        assertThat(session.messages().last().get()).isEqualTo("Lead plays making 1.");
        push(KeyCode.CONTROL, KeyCode.Z);
        push(KeyCode.CONTROL, KeyCode.Z);
        await(() -> onFx(() -> sheet.way().get()) == Way.CHANCE);
        assertThat(onFx(() -> lookup("#vary-chance").queryAs(ToggleButton.class).isSelected()))
                .isTrue();
    }

    @Test
    void arrowsHearTheNextOneAtTheBarAndDoneHearsThePieceAgain() {
        Piece before = now();
        push(KeyCode.RIGHT);
        await(() -> onFx(() -> sheet.sounding().get()) == card(1));
        assertThat(text("#card-about-1")).endsWith("sounding");
        push(KeyCode.DOWN);
        await(() -> onFx(() -> sheet.sounding().get()) == card(5));
        List<Integer> wanted =
                card(5).phrase().notes().stream().map(Note::pitch).distinct().toList();
        await(() -> session.transport().heardNow() > 3 * BAR);
        List<String> starts = Wire.starts(
                messages().stream().filter(message -> (message[0] & 0x0F) == 0).toList());
        List<Integer> last = starts.subList(Math.max(0, starts.size() - 6), starts.size()).stream()
                .map(start -> Integer.parseInt(start.split(" ")[0]))
                .toList();
        assertThat(wanted).containsAll(last);
        assertThat(now()).as("it is heard and not in the piece").isEqualTo(before);
        interact(() -> lookup("#variations-others").queryAs(ToggleButton.class).fire());
        await(() -> session.transport().heardNow() > 6 * BAR);
        int from = messages().size();
        await(() -> session.transport().heardNow() > 8 * BAR);
        assertThat(messages().subList(from, messages().size()))
                .as("alone")
                .noneMatch(message -> (message[0] & 0xFF) == 0x91);
        clickOn("#card-hear-5");
        await(() -> onFx(() -> sheet.sounding().get()) == null);
        interact(() -> session.transport().stop());
        await(() -> Wire.open(messages()).isEmpty());
    }

    @Test
    void starsStayWithThePieceAndAreKept() throws Exception {
        push(KeyCode.S);
        clickOn("#card-star-3");
        await(() -> text("#variations-keep").equals("Keep the 2 starred"));
        assertThat(PieceFile.read(PieceFile.write(now()))
                        .part("lead")
                        .orElseThrow()
                        .stars())
                .containsExactly("chance 41", "chance 44");
        clickOn("#variations-keep");
        await(() -> now().phrases().size() == 4);
        Phrase kept = now().phrases().get(3);
        assertThat(kept.name()).isEqualTo("Variation 44, Lead");
        assertThat(kept.notes()).isEqualTo(card(3).phrase().notes());
        assertThat(kept.ready()).isTrue();
        clickOn("#card-star-3");
        await(() -> text("#variations-keep").equals("Keep the 1 starred"));
        clickOn("#card-keep-7");
        await(() -> now().phrases().size() == 5);
        assertThat(session.messages().last().get()).contains("“Variation 48, Lead”");
    }

    @Test
    void starredOnesAreSpreadOverRoundsAndOneHoldsAgain() {
        assertThat(onFx(() -> lookup("#variations-spread").query().isDisabled()))
                .isTrue();
        clickOn("#card-star-1");
        clickOn("#card-star-4");
        clickOn("#variations-spread");
        await(() -> now().part("lead").orElseThrow().playing().variations().equals(List.of(42L, 45L)));
        assertThat(session.messages().last().get()).isEqualTo("Lead takes variations 42, 45 in turn, one a round.");
        await(() -> printed() == 12);
        assertThat(card(1).variant().number()).isEqualTo(42);
        clickOn("#variations-spread");
        await(() -> now().part("lead").orElseThrow().playing().variations().isEmpty());
    }

    @Test
    void oneIsUsedAndOneUndoTakesItBack() {
        push(KeyCode.RIGHT);
        push(KeyCode.ENTER);
        await(() -> now().variation() == 42);
        await(() -> printed() == 12 && text("#card-about-0").equals("as it is now"));
        assertThat(card(0).variant().number())
                .as("the sheet goes on from there")
                .isEqualTo(42);
        push(KeyCode.CONTROL, KeyCode.Z);
        await(() -> now().variation() == 41);
        push(KeyCode.ENTER);
        await(() -> session.messages().last().get().equals("This is how it is now."));
    }

    @Test
    void settingsAreDrawnToldAndUsed() {
        clickOn("#vary-lot");
        await(() -> printed() == 12 && card(1).variant().way() == Way.LOT);
        assertThat(card(0).variant().differs()).isEmpty();
        assertThat(card(1).variant().differs()).isNotEmpty();
        clickOn("#card-use-1");
        await(() -> now().part("lead")
                .orElseThrow()
                .chain()
                .equals(card(0).variant().piece().part("lead").orElseThrow().chain()));
        assertThat(now().variation()).isEqualTo(41);
        assertThat(session.messages().last().get()).contains("plays settings 1");
    }

    @Test
    void theMostUnlikeAreFoundOfEightTimesAsMany() {
        clickOn("#variations-apart");
        await(() -> printed() == 12 && session.messages().last().get().startsWith("The 12 most unlike of 96"));
        assertThat(card(0).variant().number()).as("the present one first").isEqualTo(41);
        assertThat(onFx(() -> sheet.cards().stream()
                        .map(card -> card.variant().number())
                        .distinct()
                        .count()))
                .isEqualTo(12);
    }

    @Test
    void anEditMeanwhileIsPrintedAnewAndAPartThatGoesClosesTheSheet() {
        var before = card(0).phrase().notes();
        interact(() -> session.document()
                .apply(PieceEdit.of(
                        "Edit",
                        piece -> piece.withPart(
                                "lead",
                                part -> part.withChain(
                                        part.chain().withStage("echo", stage -> stage.with(Echo.REPEATS, 4)))))));
        await(() -> printed() == 12 && card(0).phrase().notes().size() > before.size());
        interact(() -> session.document()
                .apply(PieceEdit.of(
                        "Delete", piece -> piece.withParts(piece.parts().subList(1, 2)))));
        await(() -> session.look().view().get() == View.CHAIN);
    }

    @Test
    void keysOfTheSheetAreNotTakenBehindTheFirstPage() {
        interact(() -> pane.showFirstPage(files));
        push(KeyCode.RIGHT);
        push(KeyCode.ENTER);
        assertThat(session.document().undoLabel()).as("no card was used").isEmpty();
    }
}
