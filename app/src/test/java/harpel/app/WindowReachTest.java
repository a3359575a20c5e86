package harpel.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import harpel.app.chain.EffectMenu;
import harpel.app.chain.TraceCanvas;
import harpel.app.draw.Raster;
import harpel.app.look.Look;
import harpel.app.look.Look.View;
import harpel.app.look.Theme;
import harpel.app.transport.Places;
import harpel.chain.StageAddress;
import harpel.effect.EffectCatalog;
import harpel.effect.EffectKind;
import harpel.effect.held.Arpeggio;
import harpel.piece.Mix;
import harpel.piece.PieceEdit;
import harpel.testkit.Wire;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import javafx.geometry.Bounds;
import javafx.scene.Node;
import javafx.scene.Parent;
import javafx.scene.control.ButtonBase;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.Labeled;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextInputControl;
import javafx.scene.image.PixelFormat;
import javafx.scene.image.WritableImage;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.Region;
import javafx.scene.text.Text;
import javafx.stage.PopupWindow;
import javafx.stage.Window;
import org.fxmisc.richtext.CodeArea;
import org.junit.jupiter.api.Test;

/** Whoever works by keyboard, by ear, with large type or on a small screen reaches everything. */
class WindowReachTest extends WindowCase {
    @Override
    String parts() {
        return "{'name':'Lead','chain':[{'effect':'arpeggio','pattern':[{},{}],'move':{'gate':[{'by':'curve'},{'by':'steps'}]}},"
                + "{'split':[{'chain':[{'effect':'touch'}]},{'chain':[]}]}]},{'name':'Bass','chain':[]}";
    }

    private static void collect(Node node, List<Node> into) {
        if (!node.isVisible() || node.isDisabled()) {
            return;
        }
        into.add(node);
        // What a control is made of is the control's own matter.
        boolean whole = node instanceof ComboBox || node instanceof TextInputControl || node instanceof ButtonBase;
        if (node instanceof Parent parent && !whole) {
            parent.getChildrenUnmodifiable().forEach(child -> collect(child, into));
        }
    }

    private List<Node> all() {
        return onFx(() -> {
            List<Node> nodes = new ArrayList<>();
            collect(pane, nodes);
            return nodes;
        });
    }

    private List<Node> focusable() {
        return all().stream()
                .filter(node -> node.isFocusTraversable() && node != pane && !(node instanceof ScrollPane))
                .toList();
    }

    /** What a screen reader calls a control. */
    static String name(Node node) {
        if (node.getAccessibleText() != null) {
            return node.getAccessibleText();
        }
        if (node instanceof Labeled labeled) {
            return labeled.getText();
        }
        Node found = node.getScene().getRoot().lookupAll(".label").stream()
                .filter(label -> label instanceof Label one && one.getLabelFor() == node)
                .findFirst()
                .orElse(null);
        return found == null ? "" : ((Label) found).getText();
    }

    @Test
    void everyControlOfEveryEffectHasANameAndIsReachedByTheKeyboard() {
        List<String> nameless = new ArrayList<>();
        for (EffectKind kind : EffectCatalog.kinds()) {
            interact(() -> {
                session.selection().edit("test", "", List.of(), chain -> harpel.chain.Chain.EMPTY);
                EffectMenu.add(session.selection(), List.of(), 0, kind);
            });
            settle();
            interact(() -> focusable().stream()
                    .filter(node -> name(node).isBlank())
                    .forEach(node -> nameless.add(kind + ": " + node)));
            for (Node node : all()) {
                boolean byKeyOnly = node.getStyleClass().contains("on-off")
                        || node.getStyleClass().contains("fold");
                if (node instanceof ButtonBase && !node.isFocusTraversable() && !byKeyOnly) {
                    nameless.add(kind + ": by mouse only: " + node);
                }
            }
        }
        assertThat(nameless).isEmpty();
    }

    @Test
    void whoeverHasTheKeyboardIsSeenToHaveIt() {
        select("arpeggio");
        interact(() -> lookup("#insert-0").query().requestFocus());
        List<String> unseen = new ArrayList<>();
        for (Node node : focusable()) {
            interact(() -> {
                pane.requestFocus();
                int without = picture(node);
                node.requestFocus();
                if (node.isFocused() && !(node instanceof CodeArea) && picture(node) == without) {
                    unseen.add(node.toString());
                }
            });
        }
        assertThat(unseen).isEmpty();
    }

    private int picture(Node node) {
        // Drawn ones are painted with the next frame.
        pane.draw(System.nanoTime());
        WritableImage image = node.snapshot(null, null);
        int width = (int) image.getWidth();
        int height = (int) image.getHeight();
        int[] seen = new int[width * height];
        image.getPixelReader().getPixels(0, 0, width, height, PixelFormat.getIntArgbInstance(), seen, 0, width);
        return Arrays.hashCode(seen);
    }

    @Test
    void tabGoesThroughPartsStagesEditorsAndControls() {
        select("arpeggio");
        Set<String> reached = new HashSet<>();
        for (int i = 0; i < 120; i++) {
            push(KeyCode.TAB);
            Node owner = onFx(() -> pane.getScene().getFocusOwner());
            if (owner != null && owner.getId() != null) {
                reached.add(owner.getId());
            }
        }
        assertThat(reached)
                .contains(
                        "menu",
                        "play",
                        "silence",
                        "part-name",
                        "part-bass",
                        "mute-lead",
                        "level-lead",
                        "phrase",
                        "sound")
                .contains("open-lever-0", "lever-0", "key", "chain-presets", "chain-b", "chain-more", "insert-0")
                .contains("stage-split", "branch-split-1", "solo-split-2", "remove", "replace");
        select("arpeggio");
        focus("#stage-arpeggio");
        push(KeyCode.F6);
        assertThat(onFx(() -> pane.getScene().getFocusOwner().getId())).isEqualTo("steps-velocity");
        for (int i = 0; i < 45; i++) {
            reached.add(
                    String.valueOf(onFx(() -> pane.getScene().getFocusOwner().getId())));
            push(KeyCode.TAB);
        }
        assertThat(reached).contains("steps-play", "param-gate", "param-swing", "curve-gate-1", "mover-steps-gate");
        focus("#param-gate");
        push(KeyCode.SHIFT, KeyCode.F6);
        assertThat(onFx(() -> pane.getScene().getFocusOwner().getId())).isEqualTo("stage-arpeggio");
        push(KeyCode.ENTER);
        assertThat(onFx(() -> pane.getScene().getFocusOwner().getId())).isEqualTo("steps-velocity");
    }

    @Test
    void keysAloneGoRoundTheAreasOfEveryViewAndComeBackToWhereTheyWere() {
        for (View view : List.of(View.CHAIN, View.PHRASE, View.TIMELINE, View.PLAY)) {
            interact(() -> session.look().view().set(view));
            settle();
            push(KeyCode.F6);
            Set<String> areas = new HashSet<>();
            Node begun = onFx(() -> pane.getScene().getFocusOwner());
            int round = 0;
            do {
                areas.add(onFx(this::area));
                push(KeyCode.F6);
                round++;
            } while (onFx(() -> pane.getScene().getFocusOwner()) != begun && round < 8);
            assertThat(areas).as("areas of %s", view).contains("top", "middle", "bottom");
            assertThat(round).as("round %s", view).isEqualTo(areas.size());
            push(KeyCode.SHIFT, KeyCode.F6);
            push(KeyCode.F6);
            assertThat(onFx(() -> pane.getScene().getFocusOwner())).isSameAs(begun);
        }
    }

    private String area() {
        Node at = pane.getScene().getFocusOwner();
        while (at.getParent() != pane) {
            if (pane.behind().contains(at)) {
                return "behind " + pane.behind().indexOf(at);
            }
            at = at.getParent();
        }
        return at == pane.getTop()
                ? "top"
                : at == pane.getLeft()
                        ? "left"
                        : at == pane.getRight() ? "right" : at == pane.getBottom() ? "bottom" : "middle";
    }

    @Test
    void aStageIsRemovedOnItsRowByKeyAndByRightPress() {
        select("split");
        focus("#stage-split");
        push(KeyCode.DELETE);
        await(() -> session.selection().part().chain().stages().size() == 1);
        push(KeyCode.CONTROL, KeyCode.Z);
        await(() -> session.selection().part().chain().stages().size() == 2);
        rightClickOn("#stage-arpeggio .stage-name");
        clickOn("#row-switch");
        await(() -> !session.selection().part().chain().stages().get(0).on());
        rightClickOn("#stage-arpeggio .stage-name");
        clickOn("#row-remove");
        await(() -> session.selection().part().chain().stages().size() == 1);
    }

    @Test
    void keysAreListedByViewAndFoundByTyping() {
        push(KeyCode.F1);
        await(() -> isSeen("#find-key"));
        assertThat(lookup("Play or stop").tryQuery()).isPresent();
        interact(() -> lookup("#find-key").queryTextInputControl().setText("silence"));
        await(() -> lookup("Play or stop").tryQuery().isEmpty());
        assertThat(lookup("Everywhere").tryQuery()).isPresent();
        interact(() -> lookup("#find-key").queryTextInputControl().setText("zzz"));
        await(() -> lookup("Nothing is found by “zzz”.").tryQuery().isPresent());
        push(KeyCode.F1);
        await(() -> !isSeen("#find-key"));
    }

    @Test
    void whatAnEffectDoesIsSeenWithItsSettingsAndSaidInWords() {
        select("arpeggio");
        await(() -> String.valueOf(lookup("#help-picture").query().getAccessibleText())
                .startsWith("C E G held for a bar: 16 notes"));
        interact(() -> session.selection()
                .editStage(
                        "Pace",
                        "",
                        session.selection().selected().get(),
                        stage -> stage.withParams(stage.params().withPlain(Arpeggio.PACE, "1/8"))));
        await(() -> lookup("#help-picture").query().getAccessibleText().contains(" 8 notes"));
        clickOn("#help");
        await(() -> dialog("Arpeggio") != null);
        assertThat(lookup(Arpeggio.PACE.help()).tryQuery()).isPresent();
        clickOn("#help-preset-1");
        assertThat(session.document().undoLabel().orElse("")).startsWith("Preset ");
        push(KeyCode.ESCAPE);
        await(() -> dialog("Arpeggio") == null);
        interact(() -> session.look().toggle(Look.Fold.CONTROLS));
        push(KeyCode.CONTROL, KeyCode.F1);
        await(() -> dialog("Arpeggio") != null);
        push(KeyCode.ESCAPE);
        await(() -> dialog("Arpeggio") == null);
        focus("#stage-arpeggio");
        push(KeyCode.ENTER);
        await(() -> onFx(() -> pane.getRight() != null));
    }

    @Test
    void theListOfEffectsShowsWhatTheOneThatIsPointedAtWouldDo() {
        push(KeyCode.CONTROL, KeyCode.E);
        await(() -> lookup("#find-effect").tryQuery().isPresent());
        interact(() -> lookup("#find-effect").queryTextInputControl().setText("transpose"));
        settle();
        push(KeyCode.DOWN);
        await(
                () -> lookup("#peek-words")
                        .tryQuery()
                        .filter(words -> !((Labeled) words).getText().isBlank())
                        .isPresent(),
                () -> "nothing is shown; " + lookup("#peek-words").tryQuery()
                        + lookup("#add-transpose").tryQuery());
        interact(() -> {
            Window peek = lookup("#peek").query().getScene().getWindow();
            Window list = ((PopupWindow) peek).getOwnerWindow();
            assertThat(peek.getX() >= list.getX() + list.getWidth() || peek.getX() + peek.getWidth() <= list.getX())
                    .as("it lies beside the list, not over it")
                    .isTrue();
        });
        // What was highlighted has gone from the list: arrows count from the search.
        interact(() -> lookup("#find-effect").queryTextInputControl().requestFocus());
        interact(() -> lookup("#find-effect").queryTextInputControl().setText("zzz"));
        push(KeyCode.UP);
        push(KeyCode.DOWN);
        push(KeyCode.ESCAPE);
        await(() -> lookup("#peek-words").tryQuery().isEmpty());
        assertThat(lookup("#find-effect").tryQuery())
                .as("the list has gone, too")
                .isEmpty();
        assertThat(session.document().undoLabel()).isEmpty();
    }

    @Test
    void sixteenPadsAreOneStopOfTab() {
        interact(() -> session.look().view().set(View.PLAY));
        settle();
        focus("#pad-0");
        push(KeyCode.RIGHT);
        push(KeyCode.DOWN);
        assertThat(onFx(() -> pane.getScene().getFocusOwner().getId())).isEqualTo("pad-5");
        push(KeyCode.TAB);
        assertThat(onFx(() -> pane.getScene().getFocusOwner().getId())).doesNotStartWith("pad-");
        press(KeyCode.SHIFT);
        push(KeyCode.TAB);
        release(KeyCode.SHIFT);
        assertThat(onFx(() -> pane.getScene().getFocusOwner().getId()))
                .as("where it was")
                .isEqualTo("pad-5");
    }

    @Test
    void whyNothingIsHeardIsSaidAtTheFootWithWhatHelps() {
        interact(() -> session.document()
                .apply(PieceEdit.of(
                        "Mute", piece -> piece.withPart("lead", part -> part.withMix(Mix.PLAIN.withMute(true))))));
        push(KeyCode.CONTROL, KeyCode.SHIFT, KeyCode.H);
        await(() -> text("#message").equals("Lead: Muted."));
        clickOn("#offer");
        await(() -> !session.selection().part().mix().mute());
        push(KeyCode.CONTROL, KeyCode.SHIFT, KeyCode.H);
        await(() -> text("#message").startsWith("Lead"));
    }

    @Test
    void escapeLeavesWhatLiesOverTheRowsBeforeItIsSilence() {
        select("arpeggio");
        push(KeyCode.F7);
        await(() -> session.look().large().get());
        interact(() -> session.transport().press(60, 100));
        await(() -> !starts().isEmpty());
        push(KeyCode.ESCAPE);
        assertThat(session.look().large().get()).isFalse();
        assertThat(session.messages().last().get()).isEqualTo("Escape again is Silence.");
        push(KeyCode.ESCAPE);
        await(() -> Wire.open(messages()).isEmpty());
        interact(() -> session.transport().release(60));
    }

    @Test
    void everythingIsShownLargerUpToTwiceTheSize() {
        Bounds before = onFx(() -> screen("#play"));
        press(KeyCode.CONTROL, KeyCode.SHIFT);
        push(KeyCode.EQUALS);
        release(KeyCode.SHIFT, KeyCode.CONTROL);
        assertThat(session.look().size().get()).isGreaterThan(1);
        interact(() -> session.look().size().set(1.5));
        await(() -> Math.abs(onFx(() -> screen("#play")).getHeight() - 1.5 * before.getHeight()) < 1.5);
        for (int i = 0; i < 4; i++) {
            interact(() -> session.look().resize(1));
        }
        assertThat(session.look().size().get()).as("not beyond 200 %").isEqualTo(2);
        await(() -> Math.abs(onFx(() -> screen("#play")).getHeight() - 2 * before.getHeight()) < 2);
        // Half of it does not fit now: it is scrolled, and keys still play.
        push(KeyCode.Q);
        await(() -> !session.transport().traces().notes(Places.input("lead")).isEmpty());
        interact(() -> session.look().resize(-4));
        await(() -> Math.abs(onFx(() -> screen("#play")).getHeight() - before.getHeight()) < 1);
    }

    private Bounds screen(String node) {
        Node found = lookup(node).query();
        return found.localToScreen(found.getBoundsInLocal());
    }

    private void resize(double width, double height) {
        interact(() -> {
            pane.getScene().getWindow().setWidth(width);
            pane.getScene().getWindow().setHeight(height);
        });
        await(() -> Math.abs(onFx(() -> pane.getWidth()) - width) < 2);
        settle();
    }

    @Test
    void onASmallScreenNoButtonsWordsAreCutOff() {
        resize(1024, 700);
        select("arpeggio");
        List<String> cut = new ArrayList<>();
        for (Node node : all()) {
            if (node instanceof ButtonBase button && !button.getText().isBlank()) {
                Text text = (Text) onFx(() -> button.lookup(".text"));
                if (text != null && !text.getText().equals(button.getText())) {
                    cut.add(button.getText() + " is shown as " + text.getText());
                }
            }
        }
        // A branch's conditions and a row's values may be longer than their place; their tooltips and editors say them
        // whole.
        cut.removeIf(one -> one.contains(" takes ") || one.startsWith("1  ") || one.startsWith("2  "));
        assertThat(cut).isEmpty();
        Bounds trace = onFx(() -> screen("#stage-arpeggio .trace"));
        assertThat(trace.getWidth()).as("traces can be read").isGreaterThan(150);
    }

    @Test
    void aLongNamePushesNothingOutOfASmallWindow() {
        String name = "The bells of the northern breakwater, rung by hand at low water";
        interact(() -> session.document()
                .apply(PieceEdit.of(
                        "A long name", piece -> piece.withName(name).withPart("lead", part -> part.withName(name)))));
        resize(1024, 700);
        for (View view : List.of(View.CHAIN, View.PHRASE, View.TIMELINE, View.PLAY)) {
            interact(() -> session.look().view().set(view));
            settle();
            double right = onFx(() -> pane.getRight() == null
                    ? pane.getWidth()
                    : pane.getRight().getBoundsInParent().getMinX());
            assertThat(onFx(() -> pane.getCenter().getBoundsInParent().getMaxX()))
                    .as("the middle of %s ends where the right begins", view)
                    .isLessThanOrEqualTo(right + 1);
            for (String id : List.of("#play", "#position", "#silence", "#theme")) {
                Bounds bounds = onFx(
                        () -> lookup(id).query().localToScene(lookup(id).query().getBoundsInLocal()));
                assertThat(bounds.getMaxX()).as("%s in %s", id, view).isLessThanOrEqualTo(1024);
            }
        }
    }

    private void firstStepsLieInTheirPage() {
        Bounds page = onFx(() -> screen("#first-page"));
        for (Node child : onFx(() -> ((Parent) lookup("#first-page").query()).getChildrenUnmodifiable())) {
            Bounds bounds = onFx(() -> child.localToScreen(child.getBoundsInLocal()));
            assertThat(bounds.getMaxY()).isLessThanOrEqualTo(page.getMaxY());
        }
    }

    @Test
    void theFirstStepsFitOnASmallScreenAndLeadToSomethingThatPlays() {
        resize(1024, 700);
        press(KeyCode.SHIFT);
        push(KeyCode.F1);
        release(KeyCode.SHIFT);
        firstStepsLieInTheirPage();
        // Smaller than they are they are scrolled, and lie over nothing.
        resize(640, 480);
        settle();
        firstStepsLieInTheirPage();
        resize(1024, 700);
        settle();
        clickOn("#first-ready");
        await(() -> starts().size() > 8);
        assertThat(session.selection().part().chain().stages())
                .extracting(stage -> stage.kind().id())
                .containsExactly("arpeggio", "echo");
        assertThat(lookup("#rows").tryQuery()).isPresent();
        interact(() -> session.transport().stop());
        interact(() -> session.document().undo());
        assertThat(session.selection().part().chain().find("split")).isPresent();
    }

    @Test
    void theDemoPieceIsOpenedFromTheFirstSteps() {
        press(KeyCode.SHIFT);
        push(KeyCode.F1);
        release(KeyCode.SHIFT);
        clickOn("#first-demo");
        // The piece has no file, so nothing is lost: it asks only where there are changes.
        await(() -> session.document().piece().get().name().equals("The Salt Clock"));
        assertThat(session.document().piece().get().parts()).hasSize(7);
        assertThat(session.selection().stage(StageAddress.parse("harbour-bells/arpeggio")))
                .isPresent();
        interact(() -> session.transport().stop());
    }

    @Test
    void timeAndPitchOfTracesStayReadableAtAnySize() {
        interact(() -> session.look().resize(2));
        TraceCanvas trace = lookup("#stage-arpeggio .trace").queryAs(TraceCanvas.class);
        Raster canvas = (Raster) trace.getChildrenUnmodifiable().get(0);
        await(() -> canvas.getWidth() > 0);
        await(() -> Math.abs(canvas.pixelsHigh() - 1.5 * canvas.shownHeight()) < 1.5);
        assertThat(canvas.getBoundsInParent().getHeight()).isCloseTo(canvas.shownHeight(), within(1.0));
    }

    @Test
    void nothingIsFilledUnderWhatIsDrawnAtEachFrameButItsOwnRow() {
        interact(() -> session.look().theme().set(Theme.NIGHT));
        for (Node row : lookup(".stage-row").queryAll()) {
            for (Parent above = row.getParent(); above != null; above = above.getParent()) {
                assertThat(above instanceof Region region ? region.getBackground() : null)
                        .as("the ground of %s, which would be filled at each frame", above)
                        .isNull();
            }
        }
        assertThat(pane.getScene().getFill()).as("the window’s own ground").isEqualTo(Theme.NIGHT.paper);
    }

    @Test
    void whatIsHiddenIsNotInTheWindow() {
        select("arpeggio");
        assertThat(lookup("#act-arpeggio").tryQuery()).isPresent();
        assertThat(lookup("#act-split").tryQuery())
                .as("a split has nothing to do at once")
                .isEmpty();
        boolean open = session.look().commonOpen().get();
        assertThat(lookup("#param-label").tryQuery().isPresent()).isEqualTo(open);
        interact(lookup("#common").queryAs(ButtonBase.class)::fire);
        assertThat(lookup("#param-label").tryQuery().isPresent()).isEqualTo(!open);
    }
}
