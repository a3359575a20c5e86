package harpel.effect;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.tuple;
import static org.assertj.core.api.Assertions.within;

import harpel.effect.notes.Harmony;
import harpel.effect.pitch.Stray;
import harpel.event.Message;
import harpel.param.ParamSet;
import harpel.param.type.ListType;
import harpel.testkit.Heard;
import harpel.testkit.Played;
import harpel.theory.Key;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** The effects but the arpeggio, each to the letter of its description. */
class NoteEffectsTest {
    // Echo

    @Test
    void anEchoFadingBy40From100Is60And36And22And13() {
        List<Heard> heard = Played.through("{'effect':'echo','repeats':4,'time':'0.75 beat','fade':40}")
                .note("C4", 0, 0.5)
                .bars(1);
        assertThat(heard).extracting(Heard::velocity).containsExactly(100, 60, 36, 22, 13);
        assertThat(heard).extracting(Heard::beat).containsExactly(0.0, 0.75, 1.5, 2.25, 3.0);
        assertThat(heard).extracting(Heard::length).containsOnly(0.5);
    }

    @Test
    void aRepeatLastsAsLongAsTheNoteAlsoWhenThatIsStillHeld() {
        List<Heard> heard = Played.through("{'effect':'echo','repeats':1,'time':'1/4','shift':12}")
                .note("C4", 0, 2.5)
                .bars(1);
        assertThat(heard).containsExactly(new Heard(0, 2.5, 60, 100, 1), new Heard(1, 2.5, 72, 60, 1));
    }

    @Test
    void echoesShiftBySemitonesOrDegreesAndMayDropTheFirst() {
        Played played =
                Played.through("{'effect':'echo','repeats':3,'time':'1/4','shift':{'degrees':2},'first':'drop'}");
        assertThat(played.note("C4", 0, 0.5).pitches(1)).containsExactly(64, 67, 71);
    }

    @Test
    void theLengthOfRepeatsCanBeAShare() {
        List<Heard> heard = Played.through("{'effect':'echo','repeats':1,'time':'1/2','length':50}")
                .note("C4", 0, 1)
                .bars(1);
        assertThat(heard).extracting(Heard::length).containsExactly(1.0, 0.5);
    }

    @Test
    void withoutRingOutRepeatsEndAtTheStop() {
        String echo = "{'effect':'echo','repeats':4,'time':'1/4'";
        assertThat(Played.through(echo + "}").note("C4", 3, 0.5).beats(1)).containsExactly(3.0);
        assertThat(Played.through(echo + ",'ring-out':true}").note("C4", 3, 0.5).beats(1))
                .containsExactly(3.0, 4.0, 5.0, 6.0, 7.0);
        assertThat(Played.through(echo + "}").ringOut().note("C4", 3, 0.5).beats(1))
                .hasSize(5);
        assertThat(Played.through(echo + ",'ring-out':true},{'effect':'transpose','octaves':1}")
                        .note("C4", 3, 0.5)
                        .pitches(1))
                .containsExactly(72, 72, 72, 72, 72);
    }

    @Test
    void chanceIsDrawnForEveryRepeat() {
        Played played = Played.through("{'effect':'echo','repeats':1,'time':'1/16','chance':30}");
        for (int i = 0; i < 400; i++) {
            played.note(60, i, 0.2, 100, 1);
        }
        // 400 draws at 30 %: within five standard deviations (9.2) of 120.
        assertThat(played.bars(100).size() - 400).isBetween(74, 166);
    }

    // Harmony

    @Test
    @SuppressWarnings("unchecked") // its type is a list of voices
    void theNextVoiceIsOneThatIsNotThere() {
        ListType<ParamSet> type = (ListType<ParamSet>) Harmony.VOICES.type();
        List<ParamSet> voices = new ArrayList<>(Harmony.VOICES.defaultValue());
        voices.set(0, voices.get(0).with(Harmony.VELOCITY, 60));
        for (int i = 0; i < 4; i++) {
            voices.add(type.next(voices, List.of()));
        }
        assertThat(voices)
                .extracting(voice -> voice.get(Harmony.SEMITONES), voice -> voice.get(Harmony.DEGREES))
                .containsExactly(tuple(7, 0), tuple(12, 0), tuple(0, 2), tuple(0, 4), tuple(-12, 0));
        assertThat(voices).allMatch(voice -> voice.get(Harmony.VELOCITY) == 60);
    }

    @Test
    void voicesAreAddedInSemitonesAndDegrees() {
        Played played = Played.through(
                "{'effect':'harmony','voices':[{'semitones':4},{'degrees':2,'velocity':80},{'semitones':7,'degrees':0}]}");
        assertThat(played.note("C4", 0, 1).bars(1))
                .containsExactly(new Heard(0, 1, 60, 100, 1), new Heard(0, 1, 64, 100, 1), new Heard(0, 1, 67, 100, 1));
    }

    @Test
    void twoStartsOfOnePitchAreOneNoteWithTheLouderVelocityAndTheLaterEnd() {
        Played played = Played.through("").note(60, 0, 1, 50, 1).note(60, 0, 2, 90, 1);
        assertThat(played.bars(1)).containsExactly(new Heard(0, 2, 60, 90, 1));
    }

    @Test
    void aLaterStartStrikesAgainAndTheFirstEndDoesNotCutIt() {
        Played played = Played.through("").note("C4", 0, 2).note("C4", 1, 3);
        assertThat(played.bars(1)).containsExactly(new Heard(0, 1, 60, 100, 1), new Heard(1, 3, 60, 100, 1));
    }

    @Test
    void theVoiceSoundsUntilTheLastOfItsNotesEnds() {
        Played played = Played.through("").note("C4", 0, 3).note("C4", 1, 0.5);
        assertThat(played.bars(1)).containsExactly(new Heard(0, 1, 60, 100, 1), new Heard(1, 2, 60, 100, 1));
    }

    @Test
    void harmonyWithoutThePlayedNote() {
        assertThat(Played.through("{'effect':'harmony','keep':false,'voices':[{'semitones':-12}]}")
                        .note("C4", 0, 1)
                        .pitches(1))
                .containsExactly(48);
    }

    // Transpose

    @ParameterizedTest
    @CsvSource({"'semitones':7, 67", "'octaves':-2, 36", "'degrees':2, 64", "'degrees':1;'octaves':1, 74"})
    void transposing(String settings, int pitch) {
        assertThat(Played.through("{'effect':'transpose'," + settings.replace(';', ',') + "}")
                        .note("C4", 0, 1)
                        .pitches(1))
                .containsExactly(pitch);
    }

    @Test
    void beyondTheRangeNotesAreDroppedOrFolded() {
        assertThat(Played.through("{'effect':'transpose','octaves':6}")
                        .note("C4", 0, 1)
                        .pitches(1))
                .isEmpty();
        assertThat(Played.through("{'effect':'transpose','octaves':6,'beyond':'fold'}")
                        .note("C4", 0, 1)
                        .pitches(1))
                .containsExactly(120);
    }

    // Scale Fit

    /** Common practice: F lies as near to E as to F sharp; in G major it is F sharp by up, E by down. */
    @ParameterizedTest
    @CsvSource({"'rule':'up', 66", "'rule':'down', 64", "'rule':'nearest', 64", "'rule':'nearest';'ties':'up', 66"})
    void fInGMajor(String settings, int pitch) {
        String scaleFit = "{'effect':'scale-fit','root':'G','scale':'major'," + settings.replace(';', ',') + "}";
        assertThat(Played.through(scaleFit).note("F4", 0, 1).pitches(1)).containsExactly(pitch);
    }

    /** Common practice: without the black keys C major is left. */
    @Test
    void droppedNotesLeaveTheKey() {
        Played played = Played.through("{'effect':'scale-fit','rule':'drop'}");
        for (int pitch = 60; pitch < 72; pitch++) {
            played.note(pitch, (pitch - 60) / 4.0, 0.2, 100, 1);
        }
        assertThat(played.pitches(1)).containsExactly(60, 62, 64, 65, 67, 69, 71);
    }

    @Test
    void theKeyComesFromThePieceAndATableComesFirst() {
        assertThat(Played.through("{'effect':'scale-fit'}")
                        .key("D dorian")
                        .note("C#4", 0, 1)
                        .pitches(1))
                .containsExactly(60);
        Played table = Played.through("{'effect':'scale-fit','scale':'chromatic','table':{'C':'D','E':'drop'}}");
        assertThat(table.chord("C4 E4 F4", 0, 1).pitches(1)).containsExactly(62, 65);
    }

    // Stray

    private static Played stray(String settings) {
        return Played.through("{'effect':'stray','amount':100," + settings + "}");
    }

    private static List<Integer> astray(String settings, int notes) {
        Played played = stray(settings);
        for (int i = 0; i < notes; i++) {
            played.note(60, i, 0.5, 100, 1);
        }
        return played.pitches((notes + 3) / 4);
    }

    @Test
    void waysAreTakenInTurnFromTheLowestToTheHighest() {
        assertThat(astray("'draw':'in-turn','ways':[0,2,4],'steps-in':'semitones'", 4))
                .containsExactly(60, 62, 64, 60);
        assertThat(astray("'draw':'in-turn','ways':{'1':1,'-1':9,'3':0}", 4))
                .as("degrees of C major; what has no weight is left out, and weights do not matter")
                .containsExactly(59, 62, 59, 62);
        Played half = Played.through("{'effect':'stray','amount':0,'draw':'in-turn','ways':[5]}");
        assertThat(half.note("C4", 0, 1).pitches(1)).as("no note is taken").containsExactly(60);
    }

    /** 600 draws; each bound lies five standard deviations of the binomial distribution away. */
    @Test
    void waysAreDrawnByTheirWeights() {
        List<Integer> drawn = astray("'steps-in':'semitones','ways':{'-12':1,'0':2,'7':3}", 600);
        assertThat(drawn).containsOnly(48, 60, 67);
        assertThat(drawn.stream().filter(pitch -> pitch == 48).count()).isBetween(54L, 146L);
        assertThat(drawn.stream().filter(pitch -> pitch == 60).count()).isBetween(142L, 258L);
    }

    @Test
    void noWayIsTakenTwiceRunning() {
        List<Integer> drawn = astray("'draw':'no-repeat','steps-in':'semitones','ways':{'0':50,'3':1,'5':1}", 60);
        for (int i = 1; i < drawn.size(); i++) {
            assertThat(drawn.get(i)).isNotEqualTo(drawn.get(i - 1));
        }
        assertThat(astray("'draw':'no-repeat','ways':[1]", 3))
                .as("a single way has no other beside it")
                .containsExactly(62, 62, 62);
    }

    @Test
    void aWalkGoesOnFromWhereItStrayedAndTurnsBackAtItsReach() {
        assertThat(astray("'draw':'walk','reach':3,'steps-in':'semitones','ways':[1]", 8))
                .containsExactly(61, 62, 63, 62, 63, 62, 63, 62);
        List<Integer> far = astray("'draw':'walk','reach':2,'steps-in':'semitones','ways':{'-1':1,'1':1}", 200);
        assertThat(far).containsOnly(58, 59, 60, 61, 62);
        for (int i = 1; i < far.size(); i++) {
            assertThat(Math.abs(far.get(i) - far.get(i - 1))).isEqualTo(1);
        }
    }

    @Test
    void notesThatStartTogetherStrayAlikeIfTheyShall() {
        String ways = "'steps-in':'semitones','ways':[-5,-3,2,7,9]";
        for (int chord = 0; chord < 12; chord++) {
            List<Integer> alike = stray(ways + ",'together':'alike','seed':" + chord)
                    .chord("C4 E4 G4", 0, 1)
                    .pitches(1);
            assertThat(List.of(alike.get(1) - alike.get(0), alike.get(2) - alike.get(1)))
                    .containsExactly(4, 3);
        }
        Played turn = stray("'draw':'in-turn','together':'alike'," + ways).chord("C4 E4", 0, 1);
        assertThat(turn.chord("C4 E4", 1, 1).pitches(1)).as("one turn a chord").containsExactly(55, 59, 57, 61);
    }

    /** Common practice: of those taken all change but those whose way is the note itself. */
    @Test
    void theTrueShareIsShownAndHeard() {
        String stray = "{'effect':'stray','amount':60,'ways':{'0':2,'1':1,'2':3},'steps-in':'semitones'}";
        ParamSet values = Played.chain(stray).stages().get(0).params();
        assertThat(Stray.trueShare(values)).isCloseTo(40, within(1e-9));
        Played played = Played.through(stray);
        for (int i = 0; i < 600; i++) {
            played.note(60, i, 0.5, 100, 1);
        }
        long changed = played.pitches(150).stream().filter(pitch -> pitch != 60).count();
        // 600 draws at 40 %: within five standard deviations (12) of 240.
        assertThat(changed).isBetween(180L, 300L);
        assertThat(Stray.WAYS.type().show(values.get(Stray.WAYS))).isEqualTo("0=2 +1=1 +2=3");
        assertThat(EffectCatalog.of("stray").words().describe(values, Key.parse("D dorian"), 50))
                .isEqualTo("60 % taken, 40 % changed · D3 to D3 D♯3 E3");
        assertThat(astray("'ways':{}", 2)).as("without ways every note stays").containsExactly(60, 60);
    }

    // Touch

    @ParameterizedTest
    @CsvSource({"1, 60", "32, 70", "64, 80", "96, 90", "127, 100"})
    void theRangeIsLaidEvenly(int in, int out) {
        assertThat(Played.through("{'effect':'touch','range':[60,100]}")
                        .note("C4", 0, 1, in)
                        .velocities(1))
                .containsExactly(out);
    }

    @Test
    void softLiftsAndHardLowersTheMiddleAndLeavesTheEnds() {
        assertThat(touch("'curve':100", 64)).isEqualTo(90);
        assertThat(touch("'curve':-100", 64)).isEqualTo(33);
        assertThat(touch("'curve':100", 127)).isEqualTo(127);
        assertThat(touch("'curve':-100", 1)).isEqualTo(1);
        assertThat(touch("'points':[[1,1],[64,100],[127,127]]", 64)).isEqualTo(100);
        assertThat(touch("'points':[[1,1],[64,100],[127,127]]", 32)).isEqualTo(50);
        assertThat(touch("'fixed':77", 5)).isEqualTo(77);
    }

    private static int touch(String settings, int velocity) {
        return Played.through("{'effect':'touch'," + settings + "}")
                .note("C4", 0, 1, velocity)
                .velocities(1)
                .get(0);
    }

    @Test
    void accentsCountMomentsNotNotes() {
        Played played = Played.through("{'effect':'touch','accents':[20,0]}")
                .note(60, 0, 1, 50, 1)
                .note(64, 0, 1, 50, 1)
                .note(60, 1, 1, 50, 1)
                .note(60, 2, 1, 50, 1);
        assertThat(played.velocities(1)).containsExactly(70, 70, 50, 70);
    }

    @Test
    void loosenStaysWithinItsBounds() {
        Played played = Played.through("{'effect':'touch','loosen':10}");
        for (int i = 0; i < 200; i++) {
            played.note(60, i, 0.5, 64, 1);
        }
        assertThat(played.velocities(50))
                .allMatch(velocity -> velocity >= 54 && velocity <= 74)
                .contains(54, 74);
    }

    // Latch

    @Test
    void latchHoldsUntilTheNextChordOrTheSameKeyOrTheBar() {
        assertThat(latch("").note("C4", 0, 0.5).note("E4", 2, 0.5).bars(1))
                .containsExactly(new Heard(0, 2, 60, 100, 1), new Heard(2, 2, 64, 100, 1));
        assertThat(latch("'until':'toggle'")
                        .note("C4", 0, 0.5)
                        .note("C4", 1, 0.5)
                        .bars(1))
                .containsExactly(new Heard(0, 1, 60, 100, 1));
        assertThat(latch("'until':'add'").note("C4", 0, 0.5).note("E4", 2, 0.5).bars(1))
                .containsExactly(new Heard(0, 4, 60, 100, 1), new Heard(2, 2, 64, 100, 1));
        assertThat(latch("'until':'bars','bars':2").note("C4", 0, 0.5).bars(3))
                .containsExactly(new Heard(0, 8, 60, 100, 1));
    }

    private static Played latch(String settings) {
        return Played.through("{'effect':'latch'" + (settings.isEmpty() ? "" : "," + settings) + "}");
    }

    @Test
    void aKeyPressedWhileThePedalHoldsJoinsTheChord() {
        assertThat(latch("'pedal':'hold'")
                        .control(64, 127, 0)
                        .note("C4", 0, 0.5)
                        .note("E4", 1, 0.25)
                        .bars(1))
                .containsExactly(new Heard(0, 4, 60, 100, 1), new Heard(1, 3, 64, 100, 1));
    }

    @Test
    void thePedalHoldsAndIsUsedUp() {
        Played held = latch("'until':'pedal-up'")
                .control(64, 127, 0)
                .note("C4", 0.5, 0.5)
                .control(64, 0, 3);
        assertThat(held.events(1)).noneMatch(Message.class::isInstance);
        assertThat(Heard.of(held.events(1))).containsExactly(new Heard(0.5, 2.5, 60, 100, 1));
        Played released = latch("'until':'pedal-up'").note("C4", 0.5, 0.5);
        assertThat(released.bars(1)).containsExactly(new Heard(0.5, 0.5, 60, 100, 1));
    }

    @Test
    void aControllerLetsGo() {
        Played played =
                latch("'until':'add','let-go-controller':20").note("C4", 0, 0.5).control(20, 127, 2);
        assertThat(played.bars(1)).containsExactly(new Heard(0, 2, 60, 100, 1));
    }

    // Split

    @Test
    void branchesTakeByKeyVelocityAndChannel() {
        Played keys = Played.through(
                "{'split':[{'chain':[]},{'takes':{'keys':['C2','B3']},'chain':[{'effect':'transpose','semitones':1}]}]}");
        assertThat(keys.chord("C3 C4", 0, 1).pitches(1)).containsExactly(48, 49, 60);
        Played velocity = Played.through(
                "{'split':[{'takes':{'velocity':[1,63]}},{'takes':{'velocity':[64,127]},'chain':[{'effect':'transpose','octaves':1}]}]}");
        assertThat(velocity.note("C4", 0, 1, 50).note("D4", 0, 1, 90).pitches(1))
                .containsExactly(60, 74);
        Played channel = Played.through("{'split':[{'takes':{'channel':2}}]}");
        assertThat(channel.note(60, 0, 1, 90, 1).note(62, 0, 1, 90, 2).pitches(1))
                .containsExactly(62);
    }

    @Test
    void branchesTakeTurns() {
        Played turns = Played.through(
                "{'split':[{'takes':{'turn':true}},{'takes':{'turn':true},'chain':[{'effect':'transpose','octaves':1}]}]}");
        assertThat(turns.note("C4", 0, 1).note("C4", 1, 1).note("C4", 2, 1).pitches(1))
                .containsExactly(60, 72, 60);
    }

    @Test
    void aDrawnShareGoesToExactlyOneBranch() {
        Played shares = Played.through(
                "{'split':[{'takes':{'share':25}},{'takes':{'share':75},'chain':[{'effect':'transpose','octaves':1}]}]}");
        for (int i = 0; i < 400; i++) {
            shares.note(60, i, 0.5, 100, 1);
        }
        List<Integer> pitches = shares.pitches(100);
        assertThat(pitches).hasSize(400);
        // 400 draws at 25 %: within five standard deviations (8.7) of 100.
        assertThat(pitches.stream().filter(pitch -> pitch == 60).count()).isBetween(56L, 144L);
    }

    @Test
    void messagesComeOutOfASplitOnce() {
        Played played = Played.through("{'split':[{},{},{}]}").control(7, 99, 1);
        assertThat(played.events(1)).hasSize(1);
    }

    // Chains

    /** Order matters: the key lock before a chord does not protect the chord (PRODUCT: what trips people up). */
    @Test
    void orderMatters() {
        String fit = "{'effect':'scale-fit'}";
        String thirds = "{'effect':'harmony','voices':[{'semitones':3}]}";
        assertThat(Played.through(fit + "," + thirds).note("C4", 0, 1).pitches(1))
                .containsExactly(60, 63);
        assertThat(Played.through(thirds + "," + fit).note("C4", 0, 1).pitches(1))
                .containsExactly(60, 62);
    }

    @Test
    void theLengthOfRepeatsIsTheirsAloneAndThePlayedNoteKeepsItsOwn() {
        assertThat(Played.through("{'effect':'echo','repeats':1,'time':'1/2','length':50}")
                        .note("C4", 0, 1)
                        .asPhrase()
                        .bars(1))
                .extracting(Heard::beat, Heard::length)
                .containsExactly(
                        org.assertj.core.api.Assertions.tuple(0.0, 1.0),
                        org.assertj.core.api.Assertions.tuple(2.0, 0.5));
    }
}
