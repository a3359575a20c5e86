package harpel.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import harpel.chain.Stage;
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
import harpel.param.ChordTableType.KeyChord;
import harpel.param.CurveType;
import harpel.param.ParamSet;
import harpel.param.SpanType.Span;
import harpel.theory.Pitch;
import java.util.List;
import java.util.Optional;
import javafx.geometry.VerticalDirection;
import javafx.scene.input.KeyCode;
import org.junit.jupiter.api.Test;

/** Each effect's own editor, by mouse and by keyboard. */
class WindowEditorsTest extends WindowCase {
    @Override
    String parts() {
        return "{'name':'Lead','chain':[{'effect':'arpeggio','on':false},{'effect':'lanes','on':false},"
                + "{'effect':'polymeter','on':false},{'effect':'pulse','on':false,'must-every':4},{'effect':'echo','on':false},"
                + "{'effect':'strum','on':false},{'effect':'stray','on':false},{'effect':'touch'},{'effect':'scale-fit','on':false},"
                + "{'effect':'chord-keys','on':false},{'effect':'note-bend','on':false},{'effect':'carom','on':false},"
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
        assertThat(pattern().get(7).get(Arpeggio.PLAY)).isEqualTo(Arpeggio.Play.LOWEST);
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
        assertThat(text("#common-period")).isEqualTo("They come together every 0.25 bars.");
        drag(on("#lane-1", 0.4, 0.97), on("#lane-1", 0.41, 0.97));
        assertThat(value("lanes", Lanes.LANES).get(0).get(Lanes.STEPS)).isEqualTo("xx..");
        focus("#lane-2");
        push(KeyCode.INSERT);
        write("7");
        assertThat(value("lanes", Lanes.LANES).get(1).get(Lanes.STEPS)).isEqualTo(".7.x.");
        assertThat(text("#common-period"))
                .as("4 against 5 sixteenths")
                .isEqualTo("They come together every 1.25 bars.");
    }

    @Test
    void cyclesHaveTheirOwnLengthsAndARowIsFilledNudgedAndReset() {
        select("polymeter");
        clickOn("#more-cycle-degree");
        clickOn("#more-cycle-degree");
        clickOn("#more-cycle-octave");
        assertThat(value("polymeter", Polymeter.DEGREE)).hasSize(3);
        assertThat(text("#common-period")).as("6 sixteenths").isEqualTo("They come together every 0.38 bars.");
        clickOn("#menu-cycle-degree");
        clickOn("Fill at random");
        await(() -> !value("polymeter", Polymeter.DEGREE).equals(List.of(0, 0, 0)));
        List<Integer> filled = value("polymeter", Polymeter.DEGREE);
        rightClickOn("#cycle-degree");
        clickOn("Nudge at random, a little");
        List<Integer> nudged = value("polymeter", Polymeter.DEGREE);
        for (int i = 0; i < 3; i++) {
            assertThat(nudged.get(i)).isCloseTo(filled.get(i), within(5));
        }
        clickOn("#menu-cycle-degree");
        clickOn("Reset the row");
        assertThat(value("polymeter", Polymeter.DEGREE)).containsExactly(0, 0, 0);
        focus("#cycle-degree");
        write("-4");
        // The step that was added last is the chosen one.
        await(() -> value("polymeter", Polymeter.DEGREE).equals(List.of(0, 0, -4)));
    }

    @Test
    void aPulseIsTurnedAndItsChanceDrawn() {
        select("pulse");
        assertThat(text("#pulse-words"))
                .startsWith("4 of 16 steps always sound, 12 with a chance of 0 %: about 4.0 a bar");
        drag(on("#pulse-steps", 0.03, 0.5), on("#pulse-steps", 0.16, 0.5));
        assertThat(value("pulse", Pulse.OFFSET)).isEqualTo(2);
        drag(on("#pulse-steps", 0.03, 0.2), on("#pulse-steps", 0.03, 0.5));
        assertThat(value("pulse", Pulse.FILL)).isCloseTo(50, within(4));
        focus("#pulse-steps");
        push(KeyCode.LEFT);
        push(KeyCode.PAGE_UP);
        assertThat(value("pulse", Pulse.OFFSET)).isEqualTo(1);
        assertThat(value("pulse", Pulse.EVEN_SPREAD)).isEqualTo(1);
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

    @Test
    void strayingSaysTheTrueShare() {
        select("stray");
        focus("#stray-candidates");
        push(KeyCode.RIGHT);
        int candidates = Stray.CANDIDATES.defaultValue() + 1;
        assertThat(value("stray", Stray.CANDIDATES)).isEqualTo(candidates);
        Stage stage = session.selection().part().chain().find("stray").orElseThrow();
        assertThat(text("#stray-words"))
                .contains(String.format(java.util.Locale.ROOT, "so %.1f %% change", Stray.trueShare(stage.params())));
        drag(on("#stray-candidates", 0.5, 0.2), on("#stray-candidates", 0.5, 0.45));
        assertThat(value("stray", Stray.AMOUNT)).isCloseTo(Stray.AMOUNT.defaultValue() + 25, within(4));
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
        assertThat(value("scale-fit", ScaleFit.SCALE).orElseThrow().steps()).containsExactly(0, 1, 2, 4, 5, 7, 9, 11);
        // F♯ lies at the foot of the ring.
        clickOn(on("#scale-ring", 0.5, 20 / 168.0));
        assertThat(text("#scale-words")).isEqualTo("9 of 12: C C♯ D E F F♯ G A B");
        push(KeyCode.DELETE);
        assertThat(value("scale-fit", ScaleFit.SCALE)).isEmpty();
        push(KeyCode.INSERT);
        assertThat(Pitch.parseClass(value("scale-fit", ScaleFit.ROOT))).as("F♯").isEqualTo(6);
    }

    @Test
    void chordsOfKeysAreTypedAndTakenFromTheDrawnKeyboard() {
        select("chord-keys");
        assertThat(text("#chord-words")).isEqualTo("C4 plays C4 E4 G4.");
        focus("#chord-keyboard");
        push(KeyCode.RIGHT);
        push(KeyCode.RIGHT);
        assertThat(text("#chord-words")).isEqualTo("D4 plays D4 F4 A4.");
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

    @Test
    void pegsAndMarblesAreSetOnTheBoard() {
        select("carom");
        clickOn(on("#carom-board", 2.5 / 8, 6.5 / 8));
        ParamSet peg = value("carom", Carom.PEGS).get(0);
        assertThat(List.of(peg.get(Carom.COLUMN), peg.get(Carom.ROW))).containsExactly(3, 7);
        // The first marble, in column 1 and row 2, is carried three columns to the right.
        drag(on("#carom-board", 0.5 / 8, 1.5 / 8), on("#carom-board", 3.5 / 8, 1.5 / 8));
        assertThat(value("carom", Carom.MARBLES).get(0).get(Carom.COLUMN)).isEqualTo(4);
        focus("#carom-board");
        push(KeyCode.PAGE_DOWN);
        assertThat(value("carom", Carom.MARBLES).get(0).get(Carom.DIRECTION)).isEqualTo(Carom.Direction.DOWN_RIGHT);
        moveTo(on("#carom-board", 3.5 / 8, 1.5 / 8));
        scroll(1, VerticalDirection.DOWN);
        await(() -> value("carom", Carom.MARBLES).get(0).get(Carom.DIRECTION) != Carom.Direction.DOWN_RIGHT);
        assertThat(text("#board-words")).as("the wheel turns, and stays").startsWith("Column 4, row 2: a marble");
        push(KeyCode.UP);
        push(KeyCode.INSERT);
        assertThat(value("carom", Carom.MARBLES)).hasSize(3);
        push(KeyCode.DELETE);
        assertThat(value("carom", Carom.MARBLES)).hasSize(2);
        push(KeyCode.ENTER);
        assertThat(value("carom", Carom.PEGS)).hasSize(2);
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
    }

    private List<CurveType.Point> points() {
        return Optional.of(session.selection().part().chain().find("strum").orElseThrow())
                .map(stage -> stage.moves().of(Strum.SLOPE).get(0).settings().get(Source.SHAPE_POINTS))
                .orElseThrow();
    }
}
