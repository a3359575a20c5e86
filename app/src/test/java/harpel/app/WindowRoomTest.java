package harpel.app;

import static org.assertj.core.api.Assertions.assertThat;

import harpel.app.transport.TraceStore;
import harpel.chain.Chain;
import harpel.chain.Stage;
import harpel.chain.StageAddress;
import harpel.effect.EffectCatalog;
import harpel.effect.Root;
import harpel.effect.pitch.ScaleFit;
import harpel.effect.route.Send;
import harpel.param.music.RouteType;
import harpel.piece.PieceEdit;
import harpel.testkit.Wire;
import harpel.theory.Key;
import harpel.theory.Pitch;
import harpel.theory.Scale;
import java.util.List;
import javafx.geometry.Bounds;
import javafx.scene.Node;
import javafx.scene.control.TextInputControl;
import javafx.scene.input.KeyCode;
import org.junit.jupiter.api.Test;

/** Room for the music: rows, ruler, large editors, what is folded; and the key. */
class WindowRoomTest extends WindowCase {
    @Override
    String parts() {
        return "{'name':'Lead','chain':[{'effect':'arpeggio'},{'effect':'carom','on':false},{'effect':'scale-fit'}]},"
                + "{'name':'Bass','chain':[]}";
    }

    private Bounds place(String node) {
        return onFx(() -> {
            Node found = lookup(node).query();
            return found.localToScene(found.getLayoutBounds());
        });
    }

    private boolean isThere(String node) {
        return onFx(() -> {
            Node at = lookup(node).tryQuery().orElse(null);
            boolean there = at != null;
            for (; at != null; at = at.getParent()) {
                there &= at.isVisible();
            }
            return there;
        });
    }

    @Test
    void rowsTakeTheHeightThereIsAndTheRulerLiesOverTheirTraces() {
        await(() -> place("#stage-arpeggio .trace").getHeight() > 60);
        Bounds trace = place("#stage-arpeggio .trace");
        Bounds ruler = place("#ruler");
        assertThat(ruler.getMaxY()).isLessThanOrEqualTo(trace.getMinY());
        assertThat(ruler.getMaxX()).isGreaterThanOrEqualTo(trace.getMaxX());
        assertThat(trace.getWidth()).as("wider than the words beside it").isGreaterThan(400);
        double tall = trace.getHeight();
        interact(() -> session.selection()
                .edit(
                        "test",
                        "",
                        List.of(),
                        chain -> Chain.EMPTY.plus(0, chain.stages().get(0))));
        await(() -> place("#stage-arpeggio .trace").getHeight() > tall + 20);
    }

    @Test
    void everyButtonIsATargetOfTwentyFour() {
        select("carom");
        settle();
        for (String button : List.of(
                "#mute-lead",
                "#solo-lead",
                "#onoff-carom",
                "#fold-carom",
                "#insert-1",
                "#act-carom",
                "#common",
                "#chain-more")) {
            assertThat(place(button).getHeight()).as(button).isGreaterThanOrEqualTo(24);
            assertThat(place(button).getWidth()).as(button).isGreaterThanOrEqualTo(24);
        }
    }

    @Test
    void anEditorIsOpenedLargeByKeyAndByDoubleClickAndBroughtBack() {
        select("carom");
        double small = place("#carom-board").getHeight();
        push(KeyCode.F7);
        await(() -> place("#carom-board").getHeight() > 1.5 * small);
        assertThat(isThere("#stage-carom")).as("it lies over the rows").isFalse();
        clickOn(on("#carom-board", 0.5 / 8, 7.5 / 8));
        assertThat(value("carom", harpel.effect.notes.Carom.CELLS)).hasSize(9);
        clickOn("#close-large");
        await(() -> isThere("#stage-carom"));
        assertThat(place("#carom-board").getHeight()).isEqualTo(small);
        doubleClickOn("#stage-arpeggio .stage-name");
        await(() -> isThere("#add-pattern") && !isThere("#stage-arpeggio"));
        push(KeyCode.F7);
        await(() -> isThere("#stage-arpeggio"));
    }

    @Test
    void whatIsNotSelectedAnyMoreIsNotOpenedLarge() {
        select("carom");
        push(KeyCode.F7);
        await(() -> !isThere("#stage-carom"));
        interact(() -> session.selection().selected().set(null));
        await(() -> isThere("#stage-carom"));
        push(KeyCode.F7);
        assertThat(session.look().large().get()).isFalse();
        select("carom");
        push(KeyCode.F7);
        await(() -> session.look().large().get() && isThere("#carom-board"));
    }

    @Test
    void theKeyboardGoesIntoWhatIsOpenedLargeAndBackToItsRow() {
        select("carom");
        focus("#stage-carom");
        push(KeyCode.F7);
        await(() -> hasKeyboard("#carom-board"));
        push(KeyCode.F7);
        await(() -> isThere("#stage-carom") && hasKeyboard("#stage-carom"));
        StageAddress carom = session.selection().selected().get();
        push(KeyCode.UP);
        await(() -> !carom.equals(session.selection().selected().get()) && !hasKeyboard("#stage-carom"));
        push(KeyCode.DOWN);
        await(() -> hasKeyboard("#stage-carom"));
    }

    private boolean hasKeyboard(String node) {
        return isThere(node) && lookup(node).query().isFocused();
    }

    @Test
    void whatEveryEffectHasLiesFoldedUnderWhatIsItsOwn() {
        select("arpeggio");
        await(() -> !isThere("#param-label"));
        focus("#common");
        push(KeyCode.ENTER);
        await(() -> isThere("#param-label"));
        select("scale-fit");
        await(() -> isThere("#param-label"));
        focus("#common");
        push(KeyCode.ENTER);
        await(() -> !isThere("#param-label"));
    }

    @Test
    void aPartsSettingsUnfoldInItsCard() {
        Bounds lead = place("#part-lead");
        Bounds bass = place("#part-bass");
        assertThat(place("#sound").getMinY()).isBetween(lead.getMaxY(), bass.getMinY());
        interact(() -> session.selection().partId().set("bass"));
        await(() -> place("#sound").getMinY() > place("#part-bass").getMaxY());
    }

    @Test
    void anActionIsDoneOnTheRow() {
        interact(() -> session.selection()
                .edit(
                        "test",
                        "",
                        List.of(),
                        chain -> chain.withStage(
                                "arpeggio",
                                stage -> stage.with(
                                        harpel.effect.held.Arpeggio.LATCH,
                                        harpel.effect.held.Arpeggio.LatchMode.REPLACE))));
        play(60, 100);
        await(() -> starts().size() >= 2);
        interact(() -> session.transport().release(60));
        settle();
        int before = starts().size();
        await(() -> starts().size() > before + 1);
        clickOn("#act-arpeggio");
        await(() -> Wire.open(messages()).isEmpty());
    }

    @Test
    void theKeyIsPickedFromTheListAndFromTheDrawnKeyboard() {
        clickOn("#key-list");
        clickOn("dorian");
        await(() -> session.document().piece().get().key().name().equals("C dorian"));
        // 35 white keys from C2; the ninth from the left is D3.
        rightClickOn(on("#keys", 8.5 / 35, 0.2));
        assertThat(session.document().piece().get().key().name())
                .as("it is asked first")
                .isEqualTo("C dorian");
        clickOn("#make-root");
        await(() -> session.document().piece().get().key().name().equals("D dorian"));
        assertThat(starts()).as("picking plays nothing").isEmpty();
        assertThat(session.messages().last().get()).isEqualTo("The key is D dorian.");
        select("scale-fit");
        interact(() -> lookup("#param-root").query().requestFocus());
        push(KeyCode.UP);
        assertThat(value("scale-fit", ScaleFit.ROOT)).isNotEqualTo("key");
        assertThat(value("scale-fit", Root.SCALE))
                .as("a root of its own stands for nothing without a scale on it")
                .contains(Scale.of("dorian"));
    }

    @Test
    void notesAreNamedAsTheKeyWritesThem() {
        interact(() ->
                session.document().apply(PieceEdit.of("Set key", piece -> piece.withKey(Key.parse("A# major")))));
        assertThat(lookup("#key").queryAs(TextInputControl.class).getText()).isEqualTo("B♭ major");
        for (int pitch : new int[] {58, 62, 65}) {
            interact(() -> session.transport().press(pitch, 100));
        }
        await(() -> text("#held").contains("B♭3 D4 F4, B♭"));
        interact(() -> session.document().undo());
        assertThat(Pitch.shown(58, session.document().spelling())).isEqualTo("A♯3");
    }

    @Test
    void whatIsHeldIsNamedWithItsChord() {
        for (int pitch : new int[] {60, 64, 67, 71}) {
            interact(() -> session.transport().press(pitch, 90));
        }
        await(() -> text("#held").equals("C4 E4 G4 B4, Cmaj7"));
        interact(() -> session.selection().partId().set("bass"));
        await(() -> text("#held").isEmpty());
    }

    @Test
    void theRootInForceIsShownOnItsControl() {
        interact(() -> session.selection().edit("test", "", List.of(), chain -> Chain.EMPTY));
        interact(() ->
                harpel.app.chain.EffectMenu.add(session.selection(), List.of(), 0, EffectCatalog.of("polymeter")));
        play(62, 100);
        await(() -> text("#param-root .tile-value").equals("key → D4"));
        TraceStore traces = session.transport().traces();
        assertThat(traces.inForce("lead/polymeter", "root")).isEqualTo(62);
    }

    private boolean rowMatches(String stage, String pattern) {
        return onFx(() -> lookup("#stage-" + stage + " .label").queryAllAs(javafx.scene.control.Label.class).stream()
                .anyMatch(label -> label.getText().matches(pattern)));
    }

    @Test
    void anEditWhileTimeStandsCountsNothingThatCameBeforeIt() {
        play(60, 100);
        await(() -> rowMatches("arpeggio", ".*1 → [1-9]\\d*"));
        interact(() -> session.transport().release(60));
        await(() -> session.transport().status().mode() == harpel.engine.LiveStatus.Mode.STOPPED);
        settle();
        interact(() -> session.selection()
                .edit(
                        "test",
                        "",
                        List.of(),
                        chain -> chain.withStage(
                                "arpeggio", stage -> stage.with(harpel.effect.held.Arpeggio.GATE, 33))));
        await(() -> rowMatches("arpeggio", ".*0 → 0"));
    }

    @Test
    void aRowsHeadingSaysWhatItIsSetToNow() {
        interact(() -> {
            session.selection().edit("test", "", List.of(), chain -> Chain.EMPTY);
            harpel.app.chain.EffectMenu.add(session.selection(), List.of(), 0, EffectCatalog.of("harmony"));
        });
        settle();
        clickOn("#row-voices-1");
        focus("#param-chance");
        write("25");
        push(KeyCode.ENTER);
        await(() -> onFx(() -> lookup("#row-voices-1").queryButton().getText()).endsWith("chance 25 %"));
    }

    @Test
    void onePageShowsAllRoutes() {
        push(KeyCode.F8);
        await(() -> isThere("#routes"));
        assertThat(text("#route-problems")).isEqualTo("Every way leads somewhere, and nothing comes twice.");
        clickOn(on("#routes", 0.4, 0.25));
        assertThat(session.selection().partId().get()).isEqualTo("bass");
        Stage send = Stage.of("send", EffectCatalog.of("send"));
        interact(() -> session.selection()
                .edit(
                        "test",
                        "",
                        List.of(),
                        chain -> Chain.EMPTY.plus(0, send.with(Send.TO, new RouteType.Route(0, "nobody")))));
        await(() -> text("#route-problems").contains("there is no part \"nobody\""));
        assertThat(lookup("#routes").query().getAccessibleText())
                .contains("Bass")
                .contains("sends to 1 other");
        push(KeyCode.UP);
        assertThat(session.selection().partId().get()).isEqualTo("lead");
        push(KeyCode.ENTER);
        await(() -> isThere("#stage-arpeggio"));
    }
}
