package harpel.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import harpel.chain.Stage;
import harpel.effect.Root;
import harpel.effect.held.Arpeggio;
import harpel.effect.held.Lanes;
import harpel.effect.held.Polymeter;
import harpel.effect.held.Strum;
import harpel.effect.notes.Carom;
import harpel.effect.notes.ChordKeys;
import harpel.effect.notes.Echo;
import harpel.effect.notes.Pulse;
import harpel.effect.pitch.NoteBend;
import harpel.effect.pitch.ScaleFit;
import harpel.effect.pitch.Stray;
import harpel.effect.route.Split;
import harpel.effect.shape.Touch;
import harpel.move.Mover;
import harpel.move.Source;
import harpel.param.ParamSet;
import harpel.param.music.ChordTableType.KeyChord;
import harpel.param.type.CurveType;
import harpel.param.type.SpanType.Span;
import harpel.theory.Pitch;
import harpel.theory.Ways;
import java.util.List;
import java.util.Optional;
import javafx.geometry.VerticalDirection;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.input.KeyCode;
import org.junit.jupiter.api.Test;

/** Each effect's own editor, by mouse and by keyboard. */
class WindowEditorsTest extends WindowCase {
    @Override
    String parts() {
        return "{'name':'Lead','chain':[{'effect':'arpeggio','on':false},{'effect':'lanes','on':false},"
                + "{'effect':'polymeter','on':false,'rows':[{'values':[0]},{'of':'octave','values':[0]}]},{'effect':'pulse','on':false},{'effect':'echo','on':false},"
                + "{'effect':'strum','on':false},{'effect':'stray','on':false},{'effect':'touch'},{'effect':'scale-fit','on':false},"
                + "{'effect':'chord-keys','on':false},{'effect':'note-bend','on':false},{'effect':'carom','on':false,'marbles':[{'row':2},{'column':8,'row':8}],'cells':[]},"
                + "{'split':[{'chain':[]},{'chain':[]}]}]}";
    }

    private List<ParamSet> pattern() {
        return value("arpeggio", Arpeggio.PATTERN);
    }

    @Test
    void aPatternIsDrawnTypedAndGivenTiesAndChords() {
        select("arpeggio");
        clickOn("#add-pattern");
        assertThat(pattern()).hasSize(8);
        // Drawn from the first step up to the fourth.
        drag(on("#steps-velocity", 0.06, 0.95), on("#steps-velocity", 0.44, 0.2));
        assertThat(pattern().get(0).get(Arpeggio.STEP_VELOCITY)).isGreaterThan(100);
        assertThat(pattern().get(3).get(Arpeggio.STEP_VELOCITY)).isBetween(10, 50);
        assertThat(pattern().get(4).get(Arpeggio.STEP_VELOCITY))
                .as("not reached")
                .isZero();
        push(KeyCode.CONTROL, KeyCode.Z);
        assertThat(pattern().get(0).get(Arpeggio.STEP_VELOCITY))
                .as("one drag is one undo")
                .isZero();
        focus("#steps-velocity");
        push(KeyCode.LEFT);
        write("64");
        assertThat(pattern().get(2).get(Arpeggio.STEP_VELOCITY)).isEqualTo(64);
        push(KeyCode.UP);
        push(KeyCode.SHIFT, KeyCode.DELETE);
        assertThat(pattern()).hasSize(7);
        push(KeyCode.INSERT);
        assertThat(pattern()).hasSize(8);
        clickOn("#pattern-gate");
        focus("#steps-gate");
        write("150");
        assertThat(pattern().get(0).get(Arpeggio.STEP_GATE)).isEqualTo(150);
        focus("#steps-play");
        push(KeyCode.RIGHT);
        push(KeyCode.DOWN);
        assertThat(pattern().get(1).get(Arpeggio.PLAY)).isEqualTo(Arpeggio.Play.TIE);
        clickOn(on("#steps-play", 0.9, 0.5));
        assertThat(pattern().get(7).get(Arpeggio.PLAY)).as("off").isEqualTo(Arpeggio.Play.REST);
        settle();
        clickOn(on("#steps-play", 0.9, 0.5));
        assertThat(pattern().get(7).get(Arpeggio.PLAY)).as("and on").isEqualTo(Arpeggio.Play.NEXT);
        press(KeyCode.SHIFT);
        clickOn(on("#steps-play", 0.44, 0.5));
        release(KeyCode.SHIFT);
        assertThat(pattern().get(3).get(Arpeggio.PLAY)).isEqualTo(Arpeggio.Play.CHORD);
        drag(on("#steps-play", 0.56, 0.5), on("#steps-play", 0.81, 0.5));
        assertThat(pattern().subList(4, 7))
                .extracting(step -> step.get(Arpeggio.PLAY))
                .containsExactly(Arpeggio.Play.NEXT, Arpeggio.Play.TIE, Arpeggio.Play.TIE);
        clickOn("#more-steps-gate");
        assertThat(pattern()).hasSize(9);
        assertThat(pattern().get(1).get(Arpeggio.PLAY))
                .as("steps are added whole, at the end")
                .isEqualTo(Arpeggio.Play.TIE);
        assertThat(pattern().get(8)).isEqualTo(pattern().get(7));
        clickOn("#fewer-steps-gate");
        rightClickOn(on("#steps-play", 0.9, 0.5));
        clickOn("chord");
        assertThat(pattern().get(7).get(Arpeggio.PLAY)).isEqualTo(Arpeggio.Play.CHORD);
    }

    @Test
    void lanesAreDrawnAndSayWhenTheyComeTogether() {
        select("lanes");
        assertThat(text("#common-period")).startsWith("They come together every 1/4 of a bar.");
        drag(on("#lane-1", 0.4, 0.97), on("#lane-1", 0.41, 0.97));
        assertThat(value("lanes", Lanes.LANES).get(0).get(Lanes.STEPS)).isEqualTo("xx..");
        focus("#lane-2");
        push(KeyCode.INSERT);
        write("7");
        assertThat(value("lanes", Lanes.LANES).get(1).get(Lanes.STEPS)).isEqualTo(".7.x.");
        assertThat(text("#common-period"))
                .as("4 against 5 sixteenths")
                .startsWith("They come together every 1 1/4 bars.");
    }

    @Test
    void withShiftAllLanesAreDrawnAtOnce() {
        select("lanes");
        press(KeyCode.SHIFT);
        drag(on("#lane-1", 0.4, 0.97), on("#lane-1", 0.41, 0.97));
        release(KeyCode.SHIFT);
        assertThat(value("lanes", Lanes.LANES))
                .extracting(lane -> lane.get(Lanes.STEPS).charAt(1))
                .containsOnly('x');
        push(KeyCode.CONTROL, KeyCode.Z);
        assertThat(value("lanes", Lanes.LANES).get(1).get(Lanes.STEPS).charAt(1))
                .as("one undo")
                .isEqualTo('.');
    }

    private List<Integer> row(int number) {
        return value("polymeter", Polymeter.ROWS).get(number - 1).get(Polymeter.VALUES);
    }

    private Polymeter.Of kind(int number) {
        return value("polymeter", Polymeter.ROWS).get(number - 1).get(Polymeter.OF);
    }

    /** Types over what a field holds. */
    private void typeInto(String field, String text) {
        clickOn(field);
        push(KeyCode.CONTROL, KeyCode.A);
        write(text);
    }

    @Test
    void rowsHaveTheirOwnLengthsAndTheRowsToolFillsNudgesAndTurns() {
        select("polymeter");
        clickOn("#more-row-1");
        clickOn("#more-row-1");
        clickOn("#more-row-2");
        assertThat(row(1)).hasSize(3);
        assertThat(text("#common-period")).as("6 sixteenths").isEqualTo("They come together every 3/8 of a bar.");
        focus("#row-1");
        write("-4");
        // The step that was added last is the chosen one.
        await(() -> row(1).equals(List.of(0, 0, -4)));
        clickOn("#menu-row-1");
        clickOn("#later-row-1");
        assertThat(row(1)).containsExactly(-4, 0, 0);
        clickOn("#reverse-row-1");
        assertThat(row(1)).containsExactly(0, 0, -4);
        clickOn("#length-8-row-1");
        assertThat(row(1)).containsExactly(0, 0, -4, 0, 0, -4, 0, 0);
        push(KeyCode.CONTROL, KeyCode.Z);
        assertThat(row(1)).as("one action, one undo").hasSize(3);
        typeInto("#low-row-1", "3");
        typeInto("#high-row-1", "5");
        clickOn("#fill-row-1");
        await(() -> row(1).stream().allMatch(value -> value >= 3 && value <= 5));
        List<Integer> filled = row(1);
        typeInto("#amount-row-1", "20");
        clickOn("#nudge-row-1");
        for (int i = 0; i < 3; i++) {
            // A fifth of the range in view, which is −7 to 7.
            assertThat(row(1).get(i)).isCloseTo(filled.get(i), within(3));
        }
        typeInto("#amount-row-1", "lots");
        push(KeyCode.ENTER);
        assertThat(session.messages().last().get()).contains("0–100 %").contains("lots");
        clickOn("#reset-row-1");
        assertThat(row(1)).containsExactly(0, 0, 0);
    }

    @Test
    void aDegreeRowIsDraggedInWholeStepsOverAUsefulRange() {
        select("polymeter");
        drag(on("#row-1", 0.5, 0.5), on("#row-1", 0.5, 0.97));
        assertThat(row(1)).containsExactly(7);
        focus("#row-1");
        push(KeyCode.UP);
        assertThat(row(1)).as("by keyboard it goes on").containsExactly(8);
    }

    @Test
    void rowsAreAddedFromAListCopiedPutInOrderAndTakenAway() {
        select("polymeter");
        clickOn("#add-row");
        clickOn("Repeats in a step");
        await(() -> value("polymeter", Polymeter.ROWS).size() == 3);
        assertThat(kind(3)).isEqualTo(Polymeter.Of.REPEATS);
        clickOn("#menu-row-2");
        clickOn("#row-up-2");
        assertThat(kind(1)).isEqualTo(Polymeter.Of.OCTAVE);
        clickOn("#menu-row-1");
        focus("#row-1-runs");
        push(KeyCode.UP);
        assertThat(value("polymeter", Polymeter.ROWS).get(0).get(Polymeter.RUNS))
                .isEqualTo(Polymeter.Runs.BACKWARD);
        clickOn("#copy-row-1");
        assertThat(value("polymeter", Polymeter.ROWS)).hasSize(4);
        assertThat(kind(2)).isEqualTo(Polymeter.Of.OCTAVE);
        clickOn("#remove-row-1");
        clickOn("#remove-row-1");
        assertThat(kind(1)).isEqualTo(Polymeter.Of.DEGREE);
        assertThat(value("polymeter", Polymeter.ROWS)).hasSize(2);
    }

    private ParamSet layer(int number) {
        return value("pulse", Pulse.LAYERS).get(number - 1);
    }

    @Test
    void layersAreTurnedCountedAddedAndTakenAway() {
        select("pulse");
        assertThat(text("#pulse-words")).isEqualTo("4 of 16 steps always sound; about 4.0 a bar in all.");
        drag(on("#pulse-layers", 0.5, 0.5), on("#pulse-layers", 0.57, 0.5));
        assertThat(layer(1).get(Pulse.FROM)).isEqualTo(2);
        clickOn("#add-spread");
        assertThat(layer(2).get(Pulse.SPREAD)).isEqualTo(5);
        focus("#pulse-layers");
        push(KeyCode.PAGE_DOWN);
        push(KeyCode.LEFT);
        assertThat(layer(2).get(Pulse.SPREAD)).isEqualTo(4);
        assertThat(layer(2).get(Pulse.TURNED)).as("round the cycle").isEqualTo(15);
        focus("#layer-accent");
        write("30");
        push(KeyCode.ENTER);
        assertThat(layer(2).get(Pulse.ACCENT)).isEqualTo(30);
        focus("#pulse-layers");
        push(KeyCode.UP);
        push(KeyCode.RIGHT);
        assertThat(layer(1).get(Pulse.FROM)).isEqualTo(3);
        push(KeyCode.DELETE);
        assertThat(value("pulse", Pulse.LAYERS)).hasSize(1);
        focus("#pulse-fill");
        write("40");
        await(() -> value("pulse", Pulse.FILL).equals(List.of(40)));
        clickOn("#more-pulse-fill");
        assertThat(value("pulse", Pulse.FILL)).containsExactly(40, 40);
        focus("#pulse-among");
        push(KeyCode.RIGHT);
        write("50");
        await(() -> value("pulse", Pulse.AMONG).weightOf(-6) == 50);
    }

    @Test
    void anEchoIsDrawnAsItFades() {
        select("echo");
        assertThat(text("#echo-words")).isEqualTo("Velocity 100 comes again as 60 36 22, over 0.6 bars.");
        drag(on("#echo-bars", 1.5 / 17, 0.6), on("#echo-bars", 1.5 / 17, 0.8));
        assertThat(value("echo", Echo.FADE)).isCloseTo(20, within(3));
        clickOn(on("#echo-bars", 6.5 / 17, 0.5));
        assertThat(value("echo", Echo.REPEATS)).isEqualTo(6);
        focus("#echo-bars");
        push(KeyCode.LEFT);
        push(KeyCode.SHIFT, KeyCode.DOWN);
        assertThat(value("echo", Echo.REPEATS)).isEqualTo(5);
        moveTo(on("#echo-bars", 0.5, 0.5));
        int before = value("echo", Echo.FADE);
        scroll(1, VerticalDirection.UP);
        await(() -> value("echo", Echo.FADE) != before);
        push(KeyCode.DELETE);
        assertThat(value("echo", Echo.REPEATS)).isEqualTo(Echo.REPEATS.defaultValue());
        assertThat(value("echo", Echo.FADE)).isEqualTo(Echo.FADE.defaultValue());
        press(KeyCode.ALT);
        clickOn(on("#echo-bars", 9.5 / 17, 0.5));
        release(KeyCode.ALT);
        assertThat(value("echo", Echo.REPEATS))
                .as("Alt-click sets nothing but defaults")
                .isEqualTo(3);
    }

    @Test
    void aStrumIsShownAsStringsOverTime() {
        select("strum");
        assertThat(text("#strum-words")).isEqualTo("Six strings are struck after 0 12 24 36 48 60 ms.");
        drag(on("#strum-strings", 0.5, 0.2), on("#strum-strings", 0.5, 0.8));
        assertThat(value("strum", Strum.CURVE)).isGreaterThan(40);
        focus("#strum-strings");
        push(KeyCode.RIGHT);
        assertThat(Strum.SPREAD.type().fraction(value("strum", Strum.SPREAD)))
                .isGreaterThan(Strum.SPREAD.type().fraction(Strum.SPREAD.defaultValue()));
    }

    private Ways ways() {
        return value("stray", Stray.WAYS);
    }

    @Test
    void waysAreDrawnAndNamedByWhereTheyLead() {
        select("stray");
        assertThat(text("#stray-words")).isEqualTo("30 % of notes are taken, 30.0 % change.");
        // Fifteen steps from −7 to 7; 0 is the middle one.
        drag(on("#stray-ways", 7.5 / 15, 0.3), on("#stray-ways", 7.5 / 15, 0.98));
        assertThat(ways().weightOf(0)).isEqualTo(Ways.HEAVIEST);
        Stage stage = session.selection().part().chain().find("stray").orElseThrow();
        assertThat(text("#stray-words"))
                .contains(String.format(java.util.Locale.ROOT, "%.1f %% change", Stray.trueShare(stage.params())));
        focus("#stray-ways");
        push(KeyCode.RIGHT);
        push(KeyCode.RIGHT);
        write("50");
        await(() -> ways().weightOf(2) == 50);
        String said = lookup("#stray-ways").query().getAccessibleText();
        assertThat(said).as("two degrees above C4").startsWith("Ways, step +2 degrees to E4: ");
        clickOn("#menu-stray-ways");
        clickOn("#mirror-stray-ways");
        assertThat(ways().weightOf(-2)).isEqualTo(50);
        clickOn("#alike-stray-ways");
        assertThat(ways().isEven()).isTrue();
        clickOn("#less-stray-ways");
        assertThat(ways().weightOf(0)).isGreaterThan(ways().weightOf(1)).isGreaterThan(ways().weightOf(2));
        typeInto("#every-stray-ways", "3");
        clickOn("#every-k-stray-ways");
        assertThat(ways().steps()).containsExactly(-7, -4, -1, 2, 5);
        clickOn("#reach-stray-ways");
        clickOn("#every-k-stray-ways");
        assertThat(ways().size()).as("over what is shown, −12 to 12").isEqualTo(8);
        focus("#param-steps-in");
        push(KeyCode.DOWN);
        clickOn("#key-stray-ways");
        assertThat(ways().steps())
                .as("from C4 in C major")
                .allMatch(step -> harpel.theory.Key.C_MAJOR.contains(60 + step))
                .isNotEmpty();
    }

    @Test
    void theTouchLineIsBentAndDrawnAndShowsWhatCameThrough() {
        select("touch");
        focus("#touch-curve");
        push(KeyCode.UP);
        assertThat(value("touch", Touch.CURVE)).isPositive();
        doubleClickOn(on("#touch-curve", 0.5, 0.8));
        assertThat(value("touch", Touch.POINTS)).hasSize(1);
        assertThat(value("touch", Touch.POINTS).get(0).out()).isCloseTo(102, within(5));
        drag(on("#touch-curve", 0.5, 0.8), on("#touch-curve", 0.5, 0.4));
        assertThat(value("touch", Touch.POINTS).get(0).out()).isCloseTo(51, within(5));
        push(KeyCode.INSERT);
        push(KeyCode.DOWN);
        assertThat(value("touch", Touch.POINTS)).hasSize(2);
        push(KeyCode.DELETE);
        assertThat(value("touch", Touch.POINTS)).hasSize(1);
        int out = value("touch", Touch.POINTS).get(0).out();
        play(60, 90);
        await(() -> starts().contains("60 " + out));
    }

    @Test
    void notesAreTakenIntoAScaleOnItsRing() {
        select("scale-fit");
        focus("#scale-ring");
        push(KeyCode.RIGHT);
        push(KeyCode.ENTER);
        assertThat(value("scale-fit", Root.SCALE).orElseThrow().steps()).containsExactly(0, 1, 2, 4, 5, 7, 9, 11);
        // F♯ lies at the foot of the ring.
        clickOn(on("#scale-ring", 0.5, 20 / 168.0));
        assertThat(text("#scale-words")).isEqualTo("9 of 12: C D♭ D E F G♭ G A B");
        push(KeyCode.DELETE);
        assertThat(value("scale-fit", Root.SCALE)).isEmpty();
        push(KeyCode.INSERT);
        assertThat(Pitch.parseClass(value("scale-fit", ScaleFit.ROOT))).as("F♯").isEqualTo(6);
    }

    @Test
    void chordsOfKeysAreTypedAndTakenFromTheDrawnKeyboard() {
        select("chord-keys");
        assertThat(text("#chord-words")).isEqualTo("C4 plays C4 E4 G4, C.");
        focus("#chord-keyboard");
        push(KeyCode.RIGHT);
        push(KeyCode.RIGHT);
        assertThat(text("#chord-words")).isEqualTo("D4 plays D4 F4 A4, Dm.");
        push(KeyCode.ENTER);
        write("Dm7");
        push(KeyCode.ENTER);
        assertThat(value("chord-keys", ChordKeys.KEYS).get(62).symbol().symbol())
                .isEqualTo("Dm7");
        focus("#chord-of-key");
        interact(() -> lookup("#chord-of-key").queryTextInputControl().clear());
        write("Dwrong");
        push(KeyCode.ENTER);
        assertThat(session.messages().last().get()).contains("unknown chord");
        focus("#chord-keyboard");
        press(KeyCode.SHIFT);
        // The last white key of the four octaves is B5.
        clickOn(on("#chord-keyboard", 27.5 / 28, 0.2));
        release(KeyCode.SHIFT);
        KeyChord own = value("chord-keys", ChordKeys.KEYS).get(62);
        assertThat(own.notes()).containsExactly(62, 65, 69, 72, 83);
        push(KeyCode.DELETE);
        assertThat(value("chord-keys", ChordKeys.KEYS)).isEmpty();
    }

    @Test
    void aBendSaysItsRangeAndIntervals() {
        select("note-bend");
        assertThat(text("#bend-words"))
                .isEqualTo("C4 bends nothing; +12 st (octave) is a full bend, reached at C3 and C5.");
        focus("#bend-line");
        push(KeyCode.DOWN);
        push(KeyCode.RIGHT);
        assertThat(value("note-bend", NoteBend.BEND_RANGE)).isEqualTo(11);
        assertThat(value("note-bend", NoteBend.CENTRE)).isEqualTo(61);
        drag(on("#bend-line", 0.5, 0.5), on("#bend-line", 0.5 + 12.0 / 48, 0.5));
        assertThat(value("note-bend", NoteBend.CENTRE)).isCloseTo(73, within(1));
        int centre = value("note-bend", NoteBend.CENTRE);
        play(centre + 7, 100);
        await(() -> text("#bend-last").contains("+7 st (fifth), bend "));
    }

    @Test
    void aBranchsKeysAreDraggedAsABand() {
        select("split");
        drag(on("#split-bands", 0.99, 0.8), on("#split-bands", 0.5, 0.8));
        Span keys = session.selection()
                .part()
                .chain()
                .find("split")
                .orElseThrow()
                .branches()
                .get(0)
                .takes()
                .get(Split.KEYS);
        assertThat(keys.low()).isZero();
        assertThat(keys.high()).isCloseTo(63, within(2));
        focus("#split-bands");
        push(KeyCode.DOWN);
        push(KeyCode.RIGHT);
        assertThat(text("#split-words")).contains("2 takes keys C♯-1–G9");
        push(KeyCode.ENTER);
        assertThat(session.selection().selected().get().branch()).isEqualTo(2);
    }

    private ParamSet marble(int number) {
        return value("carom", Carom.MARBLES).get(number - 1);
    }

    private String cells() {
        return value("carom", Carom.CELLS).stream()
                .map(cell -> cell.get(Carom.COLUMN) + "/" + cell.get(Carom.ROW) + " " + Carom.IS.show(cell))
                .collect(java.util.stream.Collectors.joining(", "));
    }

    @Test
    void aMarbleRunIsBuiltByPressingAndDragging() {
        select("carom");
        clickOn(on("#carom-board", 2.5 / 8, 6.5 / 8));
        assertThat(cells()).isEqualTo("3/7 bell");
        clickOn("#hand-mirror");
        clickOn(on("#carom-board", 5.5 / 8, 1.5 / 8));
        assertThat(cells()).isEqualTo("3/7 bell, 6/2 mirror rising");
        settle();
        clickOn(on("#carom-board", 5.5 / 8, 1.5 / 8));
        assertThat(cells()).as("pressed again it turns").endsWith("6/2 mirror falling");
        drag(on("#carom-board", 2.5 / 8, 6.5 / 8), on("#carom-board", 2.5 / 8, 4.5 / 8));
        assertThat(cells()).startsWith("3/5 bell");
        // The first marble, in column 1 and row 2, is carried three columns to the right.
        drag(on("#carom-board", 0.5 / 8, 1.5 / 8), on("#carom-board", 3.5 / 8, 1.5 / 8));
        assertThat(marble(1).get(Carom.COLUMN)).isEqualTo(4);
        clickOn("#hand-marble");
        // A new marble rolls where the hand drags.
        drag(on("#carom-board", 1.5 / 8, 2.5 / 8), on("#carom-board", 3.5 / 8, 5.5 / 8));
        assertThat(marble(3).get(Carom.COLUMN)).isEqualTo(2);
        assertThat(marble(3).get(Carom.DIRECTION)).isEqualTo(Carom.Direction.UP_RIGHT);
        push(KeyCode.CONTROL, KeyCode.Z);
        push(KeyCode.CONTROL, KeyCode.Z);
        assertThat(value("carom", Carom.MARBLES)).hasSize(2);
        rightClickOn(on("#carom-board", 5.5 / 8, 1.5 / 8));
        assertThat(cells()).as("taken off").isEqualTo("3/5 bell");
    }

    @Test
    void aMarbleRunIsBuiltByKeyboard() {
        select("carom");
        focus("#carom-board");
        push(KeyCode.UP);
        assertThat(text("#board-words")).isEqualTo("Column 1, row 2 (C3): a marble rolling right at 1/8.");
        push(KeyCode.PAGE_DOWN);
        assertThat(marble(1).get(Carom.DIRECTION)).isEqualTo(Carom.Direction.DOWN_RIGHT);
        moveTo(on("#carom-board", 0.5 / 8, 1.5 / 8));
        scroll(1, VerticalDirection.DOWN);
        await(() -> marble(1).get(Carom.DIRECTION) != Carom.Direction.DOWN_RIGHT);
        assertThat(text("#board-words")).as("the wheel turns, and stays").startsWith("Column 1, row 2 (C3): a marble");
        push(KeyCode.UP);
        push(KeyCode.DIGIT4);
        push(KeyCode.ENTER);
        assertThat(cells()).isEqualTo("1/3 gate");
        push(KeyCode.PAGE_UP);
        assertThat(value("carom", Carom.CELLS).get(0).get(Carom.CHANCE)).isEqualTo(40);
        focus("#gate-chance");
        write("75");
        push(KeyCode.ENTER);
        assertThat(value("carom", Carom.CELLS).get(0).get(Carom.CHANCE)).isEqualTo(75);
        focus("#carom-board");
        push(KeyCode.DELETE);
        assertThat(cells()).isEmpty();
        push(KeyCode.DIGIT1);
        push(KeyCode.ENTER);
        assertThat(value("carom", Carom.MARBLES)).hasSize(3);
        focus("#marble-velocity");
        write("44");
        push(KeyCode.ENTER);
        assertThat(marble(3).get(Carom.VELOCITY)).isEqualTo(44);
    }

    @Test
    void aRowsValueIsMovedAndItsReachIsSaidInItsOwnUnit() {
        select("polymeter");
        focus("#add-mover");
        push(KeyCode.DOWN);
        clickOn("#move-rows");
        clickOn("#move-rows-1");
        clickOn("#move-rows-1-values-1");
        clickOn("#by-velocity");
        await(() -> session.selection()
                .part()
                .chain()
                .find("polymeter")
                .orElseThrow()
                .moves()
                .byParam()
                .containsKey("rows.1.values.1"));
        String reach = "#reach-rows-1-values-1-1";
        String amount = lookup(reach).queryTextInputControl().getText();
        assertThat(amount).as("half of what a degree row has").isEqualTo("0 … 28 degrees");
        focus(reach);
        push(KeyCode.CONTROL, KeyCode.A);
        write("7 degrees");
        push(KeyCode.ENTER);
        await(() -> lookup(reach).queryTextInputControl().getText().equals("0 … 7 degrees"));
        assertThat(lookup("#param-amount").queryAll().stream().map(Node::getAccessibleText))
                .as("its share of 56 degrees")
                .containsExactly("Amount 13 %");
        focus(reach);
        push(KeyCode.CONTROL, KeyCode.A);
        write("-2 to 5");
        push(KeyCode.ENTER);
        await(() -> lookup(reach).queryTextInputControl().getText().equals("-2 … 5 degrees")
                || lookup(reach).queryTextInputControl().getText().equals("−2 … 5 degrees"));
        focus(reach);
        push(KeyCode.CONTROL, KeyCode.A);
        write("never");
        push(KeyCode.ENTER);
        assertThat(session.messages().last().get()).contains("−28–28 degrees").contains("never");
    }

    @Test
    void aLoopCurveIsDrawnWithPoints() {
        select("strum");
        Mover curve = Mover.of(Source.CURVE, Strum.SLOPE);
        interact(() -> session.selection()
                .editStage(
                        "test",
                        "",
                        session.selection().selected().get(),
                        stage -> stage.withMoves(stage.moves().plus(Strum.SLOPE, curve))));
        // Three points stand at 0, 2 and 4 beats of a loop of 4.
        focus("#curve-slope-1");
        push(KeyCode.PAGE_UP);
        push(KeyCode.PAGE_UP);
        push(KeyCode.INSERT);
        assertThat(points()).hasSize(4);
        assertThat(points().get(2).at()).as("midway to the last").isCloseTo(3, within(0.01));
        push(KeyCode.UP);
        assertThat(points().get(2).height()).isCloseTo(55, within(0.1));
        push(KeyCode.DELETE);
        assertThat(points()).hasSize(3);
        assertThat(lookup("#fit-slope-1").queryButton().isVisible())
                .as("it is as long as its loop")
                .isFalse();
        interact(() -> session.selection()
                .editStage(
                        "test",
                        "",
                        session.selection().selected().get(),
                        stage -> stage.withMoves(stage.moves()
                                .with(
                                        Strum.SLOPE,
                                        List.of(curve.withSettings(
                                                curve.settings().withPlain(Source.LOOP, "64 bars")))))));
        Button fit = lookup("#fit-slope-1").queryButton();
        assertThat(fit.isVisible()).isTrue();
        assertThat(fit.getText()).isEqualTo("stretch to 64 bars");
        interact(fit::fire);
        assertThat(fit.isVisible()).isFalse();
        assertThat(points()).extracting(CurveType.Point::at).as("in beats").containsExactly(0.0, 128.0, 256.0);
    }

    private List<CurveType.Point> points() {
        return Optional.of(session.selection().part().chain().find("strum").orElseThrow())
                .map(stage -> stage.moves().of(Strum.SLOPE).get(0).settings().get(Source.SHAPE_POINTS))
                .orElseThrow();
    }
}
