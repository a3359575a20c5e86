package harpel.app;

import static org.assertj.core.api.Assertions.assertThat;

import harpel.app.help.Topics;
import harpel.app.line.Doable;
import harpel.app.look.Look.View;
import harpel.effect.notes.Echo;
import harpel.phrase.Note;
import harpel.phrase.Phrase;
import harpel.piece.Piece;
import harpel.theory.Key;
import harpel.time.Ticks;
import java.util.List;
import javafx.scene.control.ListView;
import javafx.scene.input.KeyCode;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** One line for everything: typed, seen what it will do, and done, by keys alone. */
class WindowDoLineTest extends WindowCase {
    @Override
    String parts() {
        return "{'name':'Lead','chain':[{'effect':'echo'},{'effect':'arpeggio','on':false}]},{'name':'Bass','chain':[{'effect':'echo','repeats':7}],'channel':2}";
    }

    @Override
    Piece piece() {
        return super.piece().withPhrase(Phrase.of("Tide", Ticks.PER_QUARTER, List.of(Note.of(0, 100, 60, 90))));
    }

    @BeforeEach
    void open() {
        push(KeyCode.CONTROL, KeyCode.K);
        await(() -> isSeen("#do-line"));
    }

    @SuppressWarnings("unchecked") // a list of nothing else
    private List<Doable> found() {
        return onFx(
                () -> List.copyOf(lookup("#do-list").<ListView<Doable>>query().getItems()));
    }

    private void type(String words) {
        interact(() -> lookup("#do-line").queryTextInputControl().setText(words));
    }

    private void does(String words) {
        type(words);
        push(KeyCode.ENTER);
        await(() -> !isSeen("#do-line"));
    }

    private void again(String words) {
        push(KeyCode.CONTROL, KeyCode.K);
        await(() -> isSeen("#do-line"));
        does(words);
    }

    @Test
    void everyActionOfTheWindowIsInItWithItsKeys() {
        for (Actions.Action action : pane.actions().all()) {
            type(action.words().replace("…", ""));
            if (!action.id().equals("do")) {
                assertThat(found())
                        .as(action.words())
                        .anyMatch(one -> one.words().equals(action.words().replace("…", ""))
                                && one.more().equals(action.keys()));
            }
        }
    }

    @Test
    void valuesAreSetOfTheSelectedStageFirstAndWhatIsWrongIsSaid() {
        select("echo");
        type("repeats 5");
        assertThat(found().get(0).words()).isEqualTo("Repeats of Echo: 5");
        assertThat(found().get(0).more()).startsWith("now ");
        does("repeats 5");
        assertThat(value("echo", Echo.REPEATS)).isEqualTo(5);
        push(KeyCode.CONTROL, KeyCode.Z);
        assertThat(value("echo", Echo.REPEATS)).as("one undo").isNotEqualTo(5);
        push(KeyCode.CONTROL, KeyCode.K);
        await(() -> isSeen("#do-line"));
        type("repeats 500");
        assertThat(found().get(0).run()).isNull();
        assertThat(found().get(0).more()).contains("500");
        push(KeyCode.ENTER);
        assertThat(isSeen("#do-line")).as("nothing is done").isTrue();
        does("tempo 133");
        assertThat(session.document().piece().get().time().tempo().bpmAt(0)).isEqualTo(133);
        again("key D dorian");
        assertThat(session.document().piece().get().key()).isEqualTo(Key.parse("D dorian"));
    }

    @Test
    void partsStagesPhrasesEffectsAndSoundsAreFound() {
        does("part bass");
        assertThat(session.selection().partId().get()).isEqualTo("bass");
        again("mute lead");
        assertThat(session.document()
                        .piece()
                        .get()
                        .part("lead")
                        .orElseThrow()
                        .mix()
                        .mute())
                .isTrue();
        again("stage arpeggio");
        assertThat(session.selection().selected().get().toString()).isEqualTo("lead/arpeggio");
        again("add touch");
        assertThat(session.selection().part().chain().stages())
                .extracting(stage -> stage.kind().id())
                .containsExactly("echo", "arpeggio", "touch");
        again("sound kalimba");
        assertThat(session.selection().part().sound()).isEqualTo("Kalimba");
        again("lead hears phrase tide");
        assertThat(session.selection().part().phrase()).isEqualTo("tide");
        again("phrase tide");
        assertThat(session.look().view().get()).isEqualTo(View.PHRASE);
    }

    @Test
    void helpIsFoundAndAnswersForWhatHasTheKeyboard() {
        assertThat(Topics.all()).allSatisfy(topic -> {
            assertThat(topic.does()).as(topic.id()).endsWith(".");
            assertThat(topic.does().split("[.] ")).as(topic.id()).hasSize(2);
            assertThat(topic.has()).as(topic.id()).hasSizeGreaterThan(2);
        });
        for (Topics.Topic topic : Topics.all()) {
            type("help " + topic.title());
            assertThat(found()).as(topic.title()).anyMatch(one -> one.words().equals("Help: " + topic.title()));
        }
        push(KeyCode.ESCAPE);
        interact(() -> session.selection().selected().set(null));
        answers("#lever-0", View.CHAIN, "Levers");
        answers("#board-timeline", View.TIMELINE, "The Timeline view");
        answers("#add-lane", View.TIMELINE, "Lanes");
        answers("#pad-3", View.PLAY, "Pads");
        answers("#string-tide .string", View.PLAY, "Levers");
        answers("#keep-moment", View.PLAY, "Moments");
        select("echo");
        answers("#stage-echo", View.CHAIN, "Echo");
    }

    private void answers(String owner, View view, String title) {
        interact(() -> session.look().view().set(view));
        focus(owner);
        push(KeyCode.CONTROL, KeyCode.F1);
        await(() -> dialog(title) != null, () -> "no help for " + owner);
        push(KeyCode.ESCAPE);
        await(() -> dialog(title) == null);
    }

    @Test
    void arrowsChooseAndEscapeLeavesEverythingAsItWas() {
        type("show");
        int count = found().size();
        assertThat(count).isGreaterThan(3);
        push(KeyCode.DOWN);
        push(KeyCode.DOWN);
        assertThat(onFx(() -> lookup("#do-list")
                        .<ListView<Doable>>query()
                        .getSelectionModel()
                        .getSelectedIndex()))
                .isEqualTo(2);
        push(KeyCode.UP);
        push(KeyCode.ESCAPE);
        await(() -> !isSeen("#do-line"));
        assertThat(session.document().undoLabel()).isEmpty();
    }
}
