package harpel.run;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.tuple;

import harpel.chain.Chain;
import harpel.chain.Stage;
import harpel.effect.Draws;
import harpel.effect.shape.Touch;
import harpel.event.Event;
import harpel.event.Message;
import harpel.event.NoteEnd;
import harpel.event.NoteStart;
import harpel.format.FileException;
import harpel.format.PieceFile;
import harpel.piece.Piece;
import harpel.piece.perform.Lever;
import harpel.plan.Plan;
import harpel.testkit.Heard;
import harpel.testkit.Played;
import harpel.theory.Key;
import harpel.time.Ticks;
import harpel.time.TimeMap;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;

/** What moves parameters, heard through effects. */
class MovesTest {
    private static Played moved(String stage, String moves) {
        return Played.through("{" + stage + ",'move':{" + moves + "}}");
    }

    private static Played fixed(String mover) {
        return moved("'effect':'touch','fixed':64", "'fixed':[" + mover + "]");
    }

    /** A note on each beat. */
    private static Played beats(Played played, int count) {
        for (int i = 0; i < count; i++) {
            played.note("C4", i, 0.5);
        }
        return played;
    }

    @Test
    void automationHoldsOrGoesStraightAndTakesTheBasesPlace() {
        assertThat(beats(fixed("{'by':'automation','points':[[0,10],[30720,90]],'between':'hold'}"), 4)
                        .velocities(1))
                .containsExactly(10, 10, 90, 90);
        assertThat(beats(fixed("{'by':'automation','points':[[0,10],[61440,90]]}"), 4)
                        .velocities(1))
                .containsExactly(10, 30, 50, 70);
    }

    /** 10.4 on the second beat and 0.403 added are 10.803: rounded once it is 11, each by itself it would be 10. */
    @Test
    void whatIsWrittenAndWhatIsAddedAreRoundedOnce() {
        assertThat(beats(
                                fixed("{'by':'automation','points':[[0,10],[384000,20]]},"
                                        + "{'by':'steps','pace':'1/4','values':[32],'amount':1}"),
                                2)
                        .velocities(1))
                .containsExactly(10, 11);
    }

    @Test
    void switchesAndChoicesHoldBetweenPointsWhateverIsDrawn() {
        Played played = moved(
                "'effect':'transpose','octaves':1",
                "'on':[{'by':'automation','between':'line','points':[[0,false],[122880,true]]}]");
        for (int bar = 0; bar < 3; bar++) {
            played.note("C4", 4 * bar, 1);
        }
        assertThat(played.pitches(3)).containsExactly(60, 60, 72);
    }

    @Test
    void whatARowOfAPolymeterGivesMayBeMovedToWhereItsValuesAreOutOfRange() {
        // Three below the root, then as late as can be less than nothing: not at all.
        assertThat(moved(
                                "'effect':'polymeter','pace':'1/4','follow-keys':'never','root':60,'rows':[{'values':[-3]}]",
                                "'rows.1.of':[{'by':'automation','between':'hold','points':[[0,'semitone'],[30720,'late']]}]")
                        .bars(1))
                .extracting(Heard::beat, Heard::pitch)
                .containsExactly(tuple(0.0, 57), tuple(1.0, 57), tuple(2.0, 60), tuple(3.0, 60));
    }

    @Test
    void anEffectIsLimitedToBarsByAutomationOfOn() {
        Played played = moved(
                "'effect':'transpose','octaves':1",
                "'on':[{'by':'automation','between':'hold','points':[[0,false],[61440,true],[122880,false]]}]");
        for (int bar = 0; bar < 3; bar++) {
            played.note("C4", 4 * bar, 1);
        }
        assertThat(played.pitches(3)).containsExactly(60, 72, 60);
    }

    @Test
    void aHeldNoteEndsWhenItsEffectIsSwitchedOffByAutomation() {
        List<Heard> notes = moved(
                        "'effect':'transpose','octaves':1",
                        "'on':[{'by':'automation','between':'hold','points':[[0,true],[15360,false]]}]")
                .note("C4", 0, 3)
                .bars(1);
        assertThat(notes).containsExactly(new Heard(0, 1, 72, 100, 1));
    }

    @Test
    void aLoopCurveHasALengthOfItsOwn() {
        // Up over two beats and down over one, again and again: three beats against the bar of four.
        assertThat(beats(
                                moved(
                                        "'effect':'touch','fixed':1",
                                        "'fixed':[{'by':'curve','loop':'3 beats','points':[[0,0],[2,100],[3,0]],'amount':100}]"),
                                7)
                        .velocities(2))
                .containsExactly(1, 65, 127, 1, 65, 127, 1);
    }

    @Test
    void velocityOfEachNoteOpensAnInterval() {
        Played played = moved(
                "'effect':'transpose','semitones':0", "'semitones':[{'by':'velocity','range':[90,100],'amount':13}]");
        assertThat(played.note("C4", 0, 1, 60)
                        .note("E4", 0, 1, 127)
                        .note("C4", 2, 1, 127)
                        .pitches(1))
                .as("13 of 97 places are 12.5 semitones, rounded once")
                .containsExactly(60, 64 + 12, 60 + 12);
    }

    @Test
    void eachNoteOfAChordHasItsOwnKey() {
        assertThat(moved("'effect':'touch','fixed':1", "'fixed':[{'by':'key','amount':100}]")
                        .chord("C4 C5", 0, 1)
                        .velocities(1))
                .containsExactly(61, 73);
    }

    /** Over the keys from C4 to C5: below and above it stands at its ends; half of 127 places are 63.5, rounded once. */
    @Test
    void theKeysThatCountAreARangeOfNotes() {
        assertThat(moved("'effect':'touch','fixed':1", "'fixed':[{'by':'key','keys':['C4','C5'],'amount':100}]")
                        .chord("C3 C4 F#4 C5 C6", 0, 1)
                        .velocities(1))
                .containsExactly(1, 1, 65, 127, 127);
    }

    @Test
    void heldKeysAreCounted() {
        Played played = moved("'effect':'touch','fixed':1", "'fixed':[{'by':'keys-held','most':4,'amount':100}]");
        assertThat(played.note("C4", 0, 4)
                        .note("E4", 1, 3)
                        .note("G4", 2, 0.5)
                        .note("A4", 3, 1)
                        .velocities(1))
                .containsExactly(33, 65, 96, 96);
    }

    @Test
    void theModWheelAndPressureMove() {
        Played played = moved("'effect':'touch','fixed':1", "'fixed':[{'by':'controller','amount':100}]");
        assertThat(played.note("C4", 0, 0.5)
                        .control(1, 127, 1)
                        .note("C4", 1, 0.5)
                        .velocities(1))
                .containsExactly(1, 127);
    }

    @Test
    void wavesAreExactAtTheirQuarters() {
        assertThat(beats(fixed("{'by':'lfo','shape':'triangle','pace':'1/1','amount':48,'both-ways':true}"), 5)
                        .velocities(2))
                .containsExactly(3, 64, 125, 64, 3);
        assertThat(beats(fixed("{'by':'lfo','shape':'square','pace':'1/2','amount':10}"), 4)
                        .velocities(1))
                .containsExactly(77, 64, 77, 64);
        assertThat(beats(fixed("{'by':'lfo','shape':'sine','pace':'1/1','phase':25,'amount':-40}"), 2)
                        .velocities(1))
                .as("from the middle, rising: a quarter on it is highest")
                .containsExactly(13, 39);
    }

    @Test
    void aRowOfStepsMovesStepByStep() {
        assertThat(beats(
                                moved(
                                        "'effect':'touch','fixed':1",
                                        "'fixed':[{'by':'steps','pace':'1/4','values':[0,50,100],'amount':100}]"),
                                5)
                        .velocities(2))
                .containsExactly(1, 65, 127, 1, 65);
    }

    @Test
    void anEnvelopeRisesFallsAndReleases() {
        // At 120 bpm a beat is 500 ms: full after one beat, at half after two, and gone half a second after the
        // release.
        Played played = moved(
                "'effect':'touch','fixed':1",
                "'fixed':[{'by':'envelope','attack':'1/4','decay':'1/4','sustain':50,'release':'1/4','amount':100}]");
        played.note("C3", 0, 3);
        for (double beat : new double[] {0.5, 1, 1.5, 2, 2.5}) {
            played.note("C4", beat, 0.25);
        }
        assertThat(played.velocities(2)).containsExactly(1, 65, 127, 96, 65, 65);
    }

    @Test
    void randomIsDrawnForEachNoteAndRepeats() {
        Played one = beats(moved("'effect':'touch','fixed':1", "'fixed':[{'by':'random','amount':100}]"), 16);
        List<Integer> drawn = one.velocities(4);
        assertThat(drawn.stream().distinct().count()).isGreaterThan(8);
        assertThat(one.velocities(4)).isEqualTo(drawn);
        assertThat(one.variation(2).velocities(4)).isNotEqualTo(drawn);
    }

    @Test
    void valuesInsideListsAreMoved() {
        String steps = "[{'by':'automation','between':'hold','points':[[0,%s],[30720,%s]]}]";
        assertThat(beats(
                                moved(
                                        "'effect':'harmony','voices':[{'semitones':3},{'semitones':7}]",
                                        "'voices.2.semitones':" + String.format(steps, 12, 19)),
                                4)
                        .pitches(1))
                .as("the second voice alone")
                .containsExactly(60, 63, 72, 60, 63, 72, 60, 63, 79, 60, 63, 79);
        assertThat(beats(moved("'effect':'touch','accents':[0,0]", "'accents.2':" + String.format(steps, -20, 20)), 4)
                        .velocities(1))
                .containsExactly(100, 80, 100, 120);
        // A degree row reaches 28 degrees up and down: a quarter of that range is 14.
        assertThat(moved(
                                "'effect':'polymeter','pace':'1/4','rows':[{'values':[0,1]}]",
                                "'rows.1.values.2':[{'by':'keys-held','most':1,'amount':25}]")
                        .note("C1", 0, 4)
                        .bars(1))
                .extracting(Heard::pitch)
                .contains(60, 86);
        assertThat(beats(moved("'effect':'harmony'", "'voices.5.chance':" + String.format(steps, 0, 0)), 1)
                        .bars(1))
                .as("there is no fifth voice")
                .hasSize(2);
    }

    @Test
    void whatLiesInNoListCannotBeMoved() {
        for (String id : List.of("voices.0.chance", "voices.99.chance", "voices.1.wobble", "voices.1", "chance.1")) {
            assertThatThrownBy(() -> moved("'effect':'harmony'", "'" + id + "':[{'by':'velocity'}]"))
                    .as(id)
                    .hasMessageContaining("there is no such parameter here");
        }
    }

    @Test
    void theSumIsKeptInRange() {
        String full = "{'by':'lfo','shape':'square','amount':100}";
        assertThat(fixed(full + "," + full).note("C4", 0, 1).velocities(1)).containsExactly(127);
    }

    @Test
    void aMovedPaceKeepsItsUnit() {
        assertThat(moved(
                                "'effect':'echo','time':'200 ms','repeats':1",
                                "'time':[{'by':'velocity','range':[0,1],'amount':-10}]")
                        .note("C4", 0, 0.1)
                        .beats(1)
                        .get(1))
                .as("200 ms × 384^−0.1, the range of note values in equal ratios")
                .isCloseTo(0.4 * Math.pow(384, -0.1), org.assertj.core.data.Offset.offset(0.001));
    }

    @Test
    void whatCannotBeMovedIsRefusedByName() {
        assertThatThrownBy(() -> moved("'effect':'touch'", "'accents':[{'by':'lfo'}]"))
                .hasMessageContaining("accents")
                .hasMessageContaining("cannot be moved");
        assertThatThrownBy(() -> moved("'effect':'touch'", "'gate':[{'by':'lfo'}]"))
                .hasMessageContaining("no such parameter");
        assertThatThrownBy(() -> moved("'effect':'touch'", "'fixed':[{'by':'tide'}]"))
                .hasMessageContaining("automation, curve, lever");
        assertThatThrownBy(() -> moved("'effect':'touch'", "'fixed':[{'by':'lfo','amount':300}]"))
                .hasMessageContaining("fixed[0].amount")
                .hasMessageContaining("−100–100 %");
    }

    private static Piece leverPiece() throws FileException {
        return PieceFile.read(
                ("{'harpel':1,'levers':[{'name':'Tide','value':50,'controllers':[21]}],'parts':[{'name':'Bells','chain':["
                                + "{'effect':'touch','fixed':1,'move':{'fixed':[{'by':'lever','lever':'Tide','amount':100}]}},"
                                + "{'effect':'transpose','move':{'octaves':[{'by':'lever','lever':'Tide','amount':-25,"
                                + "'range':[50,100]}]}}]}]}")
                        .replace('\'', '"'));
    }

    @Test
    void aLeverMovesSeveralParametersAndIsTakenOverSoftly() throws FileException {
        List<String> heard = new ArrayList<>();
        Renderer renderer = new Renderer(
                Plan.of(leverPiece()),
                (part, event) -> {
                    if (event instanceof NoteStart note) {
                        heard.add(note.pitch() + "/" + note.velocity());
                    }
                },
                Tap.NONE);
        long[] tick = {0};
        Runnable strike = () -> {
            NoteStart note = NoteStart.played(tick[0] + 10, tick[0], 0, 60, 100);
            renderer.play("bells", note);
            renderer.play("bells", new NoteEnd(tick[0] + 20, note, 64));
            tick[0] += 100;
            renderer.render(tick[0]);
        };
        strike.run();
        renderer.play("bells", Message.control(tick[0], 1, 0, 21, 127));
        strike.run();
        assertThat(heard).as("127 is far from 50 %: the lever stays").containsExactly("60/65", "60/65");
        renderer.play("bells", Message.control(tick[0], 2, 0, 21, 60));
        renderer.play("bells", Message.control(tick[0] + 1, 3, 0, 21, 127));
        strike.run();
        assertThat(heard).last().isEqualTo("12/127");
        Piece piece = leverPiece().withLevers(List.of(Lever.of("Tide", 0, 21)));
        renderer.update(Plan.of(piece));
        strike.run();
        assertThat(heard).last().isEqualTo("60/1");
    }

    @Test
    void eachOfSeveralControllersMeetsTheLeverByItself() {
        LeverRun lever = new LeverRun(Lever.of("Tide", 50, 21, 74));
        lever.hear(Message.control(0, 0, 0, 21, 64), Double.NaN, 0, Tap.NONE);
        lever.hear(Message.control(10, 1, 0, 21, 127), Double.NaN, 0, Tap.NONE);
        assertThat(lever.at(10)).isEqualTo(1);
        lever.hear(Message.control(20, 2, 0, 74, 10), Double.NaN, 0, Tap.NONE);
        assertThat(lever.at(20)).as("74 has not come to it").isEqualTo(1);
        lever.hear(Message.control(30, 3, 0, 74, 127), Double.NaN, 0, Tap.NONE);
        lever.hear(Message.control(40, 4, 0, 74, 0), Double.NaN, 0, Tap.NONE);
        assertThat(lever.at(40)).isZero();
        lever.hear(Message.control(50, 5, 0, 21, 120), Double.NaN, 0, Tap.NONE);
        assertThat(lever.at(50)).as("21 has lost it").isZero();
    }

    @Test
    void aHandHoldsALeverAgainstItsPointsUntilTheNextOfThem() {
        List<Told> told = new ArrayList<>();
        Lever written = Lever.of("Tide", 50, 21)
                .withPoints(List.of(new Lever.Point(0, 10), new Lever.Point(1000, 10), new Lever.Point(2000, 90)));
        LeverRun lever = new LeverRun(written);
        assertThat(lever.written(500)).isEqualTo(0.1);
        assertThat(lever.update(written.withValue(70), 500, 0)).isTrue();
        lever.hold(500, told::add);
        assertThat(told).containsExactly(new Told.LeverHeld("Tide", 0.7, 500, 1000));
        assertThat(lever.written(999)).isNaN();
        assertThat(lever.at(999)).isEqualTo(0.7);
        assertThat(lever.written(1000)).as("its next point").isEqualTo(0.1);
        assertThat(lever.written(499))
                .as("where it was before, come round again")
                .isEqualTo(0.1);
        lever.hold(2500, told::add);
        assertThat(lever.written(Ticks.NEVER - 1)).as("no point comes any more").isNaN();
        assertThat(lever.update(written.withValue(70), 3000, 0)).as("the same").isFalse();
        lever.hear(Message.control(0, 0, 0, 21, 20), 0.16, 600, told::add);
        assertThat(told)
                .as("a knob that comes to where the points have it takes over")
                .hasSize(4);
    }

    @Test
    void whatALeverMovesFollowsItsCurve() throws FileException {
        // The same curve as a mover's: the place to the power of 2 to the minus curve ÷ 100.
        assertThat(Lever.of("Tide", 0).withCurve(100).bent(0.25)).isEqualTo(0.5);
        assertThat(Lever.of("Tide", 0).withCurve(-100).bent(0.5)).isEqualTo(0.25);
        assertThat(Lever.of("Tide", 0).bent(0.3)).isEqualTo(0.3);
        Piece piece = leverPiece();
        assertThat(velocity(piece.withLevers(List.of(Lever.of("Tide", 25)))))
                .isNotEqualTo(velocity(piece.withLevers(List.of(Lever.of("Tide", 50)))));
        assertThat(velocity(piece.withLevers(List.of(Lever.of("Tide", 25).withCurve(100)))))
                .isEqualTo(velocity(piece.withLevers(List.of(Lever.of("Tide", 50)))));
        assertThatThrownBy(() -> Lever.of("Tide", 0).withCurve(101)).hasMessageContaining("−100–100 but was 101");
        assertThatThrownBy(() -> Lever.of("Tide", 0, 128)).hasMessageContaining("0–127 but was 128");
    }

    private static int velocity(Piece piece, Event... before) {
        List<Integer> heard = new ArrayList<>();
        Renderer renderer = new Renderer(
                Plan.of(piece),
                (part, event) -> {
                    if (event instanceof NoteStart note) {
                        heard.add(note.velocity());
                    }
                },
                Tap.NONE);
        for (Event event : before) {
            renderer.play("bells", event);
        }
        renderer.play("bells", NoteStart.played(10, 2, 0, 60, 100));
        renderer.render(20);
        return heard.get(0);
    }

    /** MIDI 1.0: polyphonic key pressure is An, key, pressure. */
    @Test
    void pressureOfASingleKeyMoves() throws FileException {
        Piece piece = PieceFile.read(("{'harpel':1,'parts':[{'name':'Bells','chain':[{'effect':'touch','fixed':1,"
                        + "'move':{'fixed':[{'by':'key-pressure','amount':100}]}}]}]}")
                .replace('\'', '"'));
        assertThat(velocity(piece)).isEqualTo(1);
        assertThat(velocity(piece, new Message(0, 1, (byte) 0xA0, (byte) 60, (byte) 127)))
                .isEqualTo(127);
    }

    @Test
    void leversAndMoversAreSavedAndRead() throws FileException {
        Piece piece = leverPiece();
        assertThat(PieceFile.read(PieceFile.write(piece))).isEqualTo(piece);
        assertThatThrownBy(() -> piece.withLevers(List.of(Lever.of("Tide", 0), Lever.of("Tide", 1))))
                .hasMessageContaining("two levers are called");
    }

    @Test
    void aHeldNoteIsNotStrandedWhenItsTransposeMoves() {
        List<Event> events = moved(
                        "'effect':'transpose'", "'semitones':[{'by':'lfo','shape':'rise','pace':'1/4','amount':20}]")
                .note("C4", 0.5, 2)
                .events(1);
        assertThat(Heard.of(events))
                .hasSize(1)
                .first()
                .extracting(Heard::length)
                .isEqualTo(2.0);
    }

    /** An envelope that is changed while it stands goes on from there: nothing jumps, and a release falls from the level it had. */
    @Test
    void anEnvelopeGoesOnOverAnEdit() {
        String envelope = "{'by':'envelope','attack':'1/4','decay':'1/4','sustain':50,'release':'%s','amount':100}";
        MoveRun run = new MoveRun("lead/touch");
        Stage stage = Played.chain("{'effect':'touch','fixed':1,'move':{'fixed':[" + envelope.formatted("1/4") + "]}}")
                .stages()
                .get(0);
        Stage edited = Played.chain("{'effect':'touch','fixed':1,'move':{'fixed':[" + envelope.formatted("1/2") + "]}}")
                .stages()
                .get(0);
        RunContext context = context();
        run.update(stage.moves(), stage.params().spec(), context);
        NoteStart key = NoteStart.played(0, 0, 0, 60, 90);
        run.hear(key, 1);
        long beat = Ticks.PER_QUARTER;
        assertThat(fixedAt(run, stage, 1, beat)).isEqualTo(127);
        assertThat(fixedAt(run, stage, 1, 3 * beat)).isEqualTo(65);
        run.hear(NoteEnd.plain(3 * beat, key), 0);
        assertThat(fixedAt(run, stage, 0, 3 * beat + beat / 2))
                .as("half of the half")
                .isEqualTo(33);
        run.update(edited.moves(), edited.params().spec(), context);
        assertThat(fixedAt(run, edited, 0, 3 * beat + beat / 2))
                .as("a quarter of its longer way")
                .isEqualTo(49);
        assertThat(fixedAt(run, edited, 0, 5 * beat)).isEqualTo(1);
    }

    private static int fixedAt(MoveRun run, Stage stage, int held, long tick) {
        return run.at(stage.params(), held, tick).get(Touch.FIXED);
    }

    private static RunContext context() {
        Plan plan = Plan.ofChain("lead", Chain.EMPTY, Key.C_MAJOR, TimeMap.DEFAULT, 1);
        Renderer renderer = new Renderer(plan, (part, event) -> {}, Tap.NONE);
        return new RunContext(
                Key.C_MAJOR,
                TimeMap.DEFAULT,
                Draws.of(1),
                renderer,
                "lead",
                "lead/touch",
                0,
                Tap.NONE,
                new Load(),
                null,
                true,
                null);
    }
}
