package harpel.effect;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import harpel.testkit.Heard;
import harpel.testkit.Played;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Strum, Duration, Humanize and Voices, each to the letter of its description. At 120 bpm a beat is 500 ms. */
class ShapeEffectsTest {
    // Strum

    private static Played strum(String settings) {
        String spread = settings.contains("spread") ? "" : ",'spread':'1/4'";
        String own = settings.isEmpty() ? "" : "," + settings;
        return Played.through("{'effect':'strum','gather':0" + spread + own + "}");
    }

    @Test
    void aChordSpreadEvenlyStartsAtEqualDistances() {
        List<Heard> heard = strum("").chord("C4 E4 G4 C5 E5", 0, 2).bars(1);
        assertThat(heard).extracting(Heard::beat).containsExactly(0.0, 0.25, 0.5, 0.75, 1.0);
        assertThat(heard).extracting(Heard::pitch).containsExactly(60, 64, 67, 72, 76);
        assertThat(heard).extracting(Heard::length).containsOnly(2.0);
    }

    /** String k of n starts at T·(k/(n − 1))^p with p = 2^(−curve/100). */
    @ParameterizedTest
    @CsvSource({"100, 0.7071", "-100, 0.25", "0, 0.5"})
    void theCurveRushesOrSlows(int curve, double middle) {
        assertThat(strum("'curve':" + curve).chord("C4 E4 G4", 0, 2).beats(1).get(1))
                .isCloseTo(middle, within(1e-4));
    }

    @ParameterizedTest
    @CsvSource({"low-to-high, 60 67 60 67", "high-to-low, 67 60 67 60", "alternate, 60 67 67 60", "by-beat, 60 67 67 60"
    })
    void strokesGoTheirWay(String stroke, String pitches) {
        List<Integer> expected = java.util.Arrays.stream(pitches.split(" "))
                .map(Integer::valueOf)
                .toList();
        assertThat(strum("'spread':'1/16','stroke':'" + stroke + "'")
                        .chord("G4 C4", 0, 0.5)
                        .chord("C4 G4", 1, 0.5)
                        .pitches(1))
                .isEqualTo(expected);
    }

    @Test
    void byEighthGoesDownOnTheBeatAndUpOffIt() {
        Played played = strum("'spread':'1/32','stroke':'by-eighth'")
                .chord("C4 G4", 0, 0.2)
                .chord("C4 G4", 0.5, 0.2)
                .chord("C4 G4", 1, 0.2);
        assertThat(played.pitches(1)).containsExactly(60, 67, 67, 60, 60, 67);
    }

    @Test
    void gatheringDelaysTheStrokeByItsWindow() {
        Played played = Played.through("{'effect':'strum','gather':50,'spread':'1/4'}")
                .note("C4", 0, 1)
                .note("E4", 0.05, 1)
                .note("G4", 0.5, 1);
        assertThat(played.beats(1)).containsExactly(0.1, 0.6, 1.1);
    }

    @Test
    void whatIsKnownBeforehandWaitsForNothing() {
        String strum = "{'effect':'strum','gather':50,'spread':'1/4'}";
        assertThat(Played.through(strum).chord("C4 E4 G4", 1, 2).asPhrase().beats(1))
                .as("the notes of a phrase")
                .containsExactly(1.0, 1.5, 2.0);
        assertThat(Played.through("{'effect':'chord-keys'}," + strum)
                        .note("C4", 1, 2)
                        .beats(1))
                .as("the chord that one key makes")
                .startsWith(1.0)
                .endsWith(2.0);
        assertThat(Played.through(strum).chord("C4 E4 G4", 1, 2).beats(1))
                .as("keys")
                .containsExactly(1.1, 1.6, 2.1);
    }

    @Test
    void oneNoteAloneIsPassedOn() {
        assertThat(strum("").note("C4", 1, 1).bars(1)).containsExactly(new Heard(1, 1, 60, 100, 1));
    }

    @Test
    void theSlopeChangesVelocityFromFirstToLast() {
        assertThat(strum("'slope':-50").chord("C4 E4 G4", 0, 2).velocities(1)).containsExactly(100, 75, 50);
    }

    @Test
    void aSlopeThatComesToAHalfIsRoundedUp() {
        // The second of seven strings at slope -100 has 39 × 5/6 = 32.5; the fourth 39 × 1/2 = 19.5 (common practice:
        // half up).
        assertThat(strum("'slope':-100")
                        .note("C3", 0, 2, 39)
                        .note("D3", 0, 2, 39)
                        .note("E3", 0, 2, 39)
                        .note("F3", 0, 2, 39)
                        .note("G3", 0, 2, 39)
                        .note("A3", 0, 2, 39)
                        .note("B3", 0, 2, 39)
                        .velocities(1))
                .containsExactly(39, 33, 26, 20, 13, 7, 1);
    }

    @Test
    void notesCanEndTogether() {
        List<Heard> heard = strum("'ends':'together'")
                .note("C4", 0, 1.5)
                .note("E4", 0, 2)
                .note("G4", 0, 3)
                .bars(1);
        assertThat(heard).extracting(note -> note.beat() + note.length()).containsOnly(3.0);
    }

    // Duration

    private static Played duration(String settings) {
        return Played.through("{'effect':'duration'," + settings + "}");
    }

    @Test
    void aFixedLengthHoldsForShortAndLongKeys() {
        assertThat(duration("'length':'fixed','fixed':'1/4'")
                        .note("C4", 0, 0.1)
                        .note("E4", 1, 2.5)
                        .bars(1))
                .extracting(Heard::length)
                .containsExactly(1.0, 1.0);
    }

    @Test
    void aShareCanLengthenAndNeverLooksIntoTheFuture() {
        assertThat(duration("'length':'share','share':150").note("C4", 0, 1).bars(1))
                .extracting(Heard::length)
                .containsExactly(1.5);
        assertThat(duration("'length':'share','share':50").note("C4", 0, 1).bars(1))
                .extracting(Heard::length)
                .containsExactly(1.0);
    }

    @Test
    void atLeastAndAtMostBoundTheLength() {
        Played played = duration("'length':'as-played','at-least':'1/4','at-most':'1/2'")
                .note("C4", 0, 0.1)
                .note("E4", 0, 1.5)
                .note("G4", 0, 3);
        assertThat(played.bars(1)).extracting(Heard::length).containsExactly(1.0, 1.5, 2.0);
    }

    @Test
    void untilTheNextNoteIsLegatoAndChordsLastTogether() {
        Played played = duration("'length':'until-next'")
                .chord("C4 E4", 0, 0.2)
                .note("G4", 1.5, 0.2)
                .note("A4", 2, 0.2);
        assertThat(played.bars(1)).extracting(Heard::length).containsExactly(1.5, 1.5, 0.5, 2.0);
        assertThat(duration("'length':'until-next','at-most':'1/4'")
                        .note("C4", 0, 0.2)
                        .bars(1))
                .extracting(Heard::length)
                .containsExactly(1.0);
    }

    @Test
    void theNextNoteIsOneOfTheSameChannel() {
        Played played = duration("'length':'until-next'")
                .note(60, 0, 0.2, 100, 1)
                .note(62, 1, 0.2, 100, 2)
                .note(64, 3, 0.2, 100, 1);
        assertThat(played.bars(1)).extracting(Heard::length).containsExactly(3.0, 3.0, 1.0);
    }

    @Test
    void repeatsThatRingOutThroughLegatoEndAsPlayed() {
        Played played = Played.through(
                "{'effect':'echo','repeats':1,'time':'1/2','ring-out':true},{'effect':'duration','length':'until-next'}");
        assertThat(played.note("C4", 3, 0.5).bars(1))
                .containsExactly(new Heard(3, 1, 60, 100, 1), new Heard(5, 0.5, 60, 60, 1));
    }

    @Test
    void notesCanSoundOnRelease() {
        assertThat(duration("'sounds-on':'release','fixed':'1/8'")
                        .note("C4", 0, 1)
                        .bars(1))
                .containsExactly(new Heard(1, 0.5, 60, 100, 1));
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "{'effect':'transpose','semitones':0},",
                "{'effect':'harmony'},",
                "{'effect':'echo','repeats':0},",
                "{'effect':'strum','gather':0,'spread':'1 ms','ends':'own-length'},",
                "{'effect':'split','on':true},",
                "{'effect':'voices'},",
                "{'effect':'time-grid','grid':'1/4'},"
            })
    void aNoteOfAPhraseKnowsItsLengthAndIsShortened(String before) {
        String chain = (before == null ? "" : before.contains("split") ? "{'split':[{'chain':[]}]}," : before)
                + "{'effect':'duration','length':'share','share':25}";
        assertThat(Played.through(chain).note("C4", 0, 2).asPhrase().bars(1))
                .extracting(Heard::length)
                .containsOnly(0.5);
        assertThat(Played.through(chain).note("C4", 0, 2).bars(1))
                .as("a key that is still down cannot be shortened")
                .extracting(Heard::length)
                .allMatch(length -> length >= 1.99);
    }

    @Test
    void aStepKnowsItsLengthAndALatchedNoteDoesNot() {
        String half = ",{'effect':'duration','length':'share','share':50}";
        assertThat(Played.through("{'effect':'arpeggio','pace':'1/4','gate':80}" + half)
                        .note("C4", 0, 4)
                        .bars(1))
                .hasSize(4)
                .extracting(Heard::length)
                .containsOnly(0.4);
        String tied =
                "{'effect':'arpeggio','pace':'1/4','gate':100,'pattern':[{},{'play':'tie'},{'play':'tie'},{'play':'rest'}]}";
        assertThat(Played.through(tied + half).note("C4", 0, 16).asPhrase().bars(2))
                .as("three tied quarters, whatever the chord that is held lasts")
                .extracting(Heard::length)
                .containsExactly(1.5, 1.5);
        assertThat(Played.through("{'effect':'duration','length':'fixed','fixed':'1/4'}" + half)
                        .note("C4", 0, 4)
                        .bars(1))
                .extracting(Heard::length)
                .containsExactly(0.5);
        assertThat(Played.through("{'effect':'latch'}" + half)
                        .note("C4", 0, 1)
                        .note("E4", 2, 1)
                        .asPhrase()
                        .bars(1))
                .as("held until the next chord or the end, and then no more to be shortened")
                .extracting(Heard::length)
                .containsExactly(2.0, 2.0);
        assertThat(Played.through("{'effect':'duration','length':'as-played','at-most':'1/2'}" + half)
                        .note("C4", 0, 4)
                        .bars(1))
                .as("at most two beats, but nobody knows how long")
                .extracting(Heard::length)
                .containsExactly(2.0);
    }

    // Humanize

    @Test
    void aKnownLengthCanBeDrawnShorter() {
        Played known = Played.through("{'effect':'humanize','late':0,'velocity':0,'length':50}");
        Played keys = Played.through("{'effect':'humanize','late':0,'velocity':0,'length':50}");
        for (int i = 0; i < 40; i++) {
            known.note("C4", i, 0.5);
            keys.note("C4", i, 0.5);
        }
        assertThat(known.asPhrase().bars(10))
                .anyMatch(note -> note.length() < 0.4)
                .anyMatch(note -> note.length() > 0.6);
        assertThat(keys.bars(10)).allMatch(note -> note.length() >= 0.5);
    }

    @Test
    void loosenessStaysWithinItsBounds() {
        Played played = Played.through("{'effect':'humanize','late':50,'velocity':10,'length':20}");
        for (int i = 0; i < 200; i++) {
            played.note(60, i, 0.5, 64, 1);
        }
        List<Heard> heard = played.bars(51);
        assertThat(heard).hasSize(200);
        for (int i = 0; i < heard.size(); i++) {
            assertThat(heard.get(i).beat() - i).isBetween(0.0, 0.1);
            assertThat(heard.get(i).velocity()).isBetween(54, 74);
            // Shorter only as far as the late start leaves room.
            assertThat(heard.get(i).length()).isBetween(0.4 - 1e-3, 0.6 + 1e-3);
        }
        assertThat(heard).extracting(Heard::velocity).contains(54, 74);
        assertThat(played.bars(51)).as("repeatable").isEqualTo(heard);
    }

    @Test
    void withNothingDrawnNotesStayAsTheyAre() {
        assertThat(Played.through("{'effect':'humanize','late':0,'velocity':0,'length':0}")
                        .note("C4", 0.3, 1)
                        .bars(1))
                .containsExactly(new Heard(0.3, 1, 60, 100, 1));
    }

    // Voices

    private static Played voices(String settings) {
        return Played.through("{'effect':'voices'," + settings + "}")
                .note("E4", 0, 4)
                .note("C4", 1, 3)
                .note("G4", 2, 2);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {"oldest | 2.0 3.0 2.0", "lowest | 4.0 1.0 2.0", "highest | 2.0 3.0 2.0"})
    void aNewNoteStealsAVoice(String steal, String lengths) {
        List<Double> expected =
                java.util.Arrays.stream(lengths.split(" ")).map(Double::valueOf).toList();
        assertThat(voices("'most':2,'steal':'" + steal + "'").bars(1))
                .extracting(Heard::length)
                .isEqualTo(expected);
    }

    @Test
    void moreCanBeRefused() {
        assertThat(voices("'most':2,'steal':'refuse'").pitches(1)).containsExactly(64, 60);
    }

    @Test
    void oneVoiceGivesTheKeyInLineItsTurn() {
        Played last = Played.through("{'effect':'voices','one-voice':'last'}")
                .note("E4", 0, 4)
                .note("C4", 1, 1);
        assertThat(last.bars(1))
                .containsExactly(new Heard(0, 1, 64, 100, 1), new Heard(1, 1, 60, 100, 1), new Heard(2, 2, 64, 100, 1));
        Played high = Played.through("{'effect':'voices','one-voice':'high'}")
                .note("E4", 0, 4)
                .note("C4", 1, 1);
        assertThat(high.bars(1)).containsExactly(new Heard(0, 4, 64, 100, 1));
        Played low = Played.through("{'effect':'voices','one-voice':'low'}")
                .note("E4", 0, 3)
                .note("C4", 1, 3);
        assertThat(low.pitches(1)).containsExactly(64, 60);
    }

    /** The longer a key was held the longer its note, by one factor for both; how it was let go of stays. */
    @Test
    void aLooserLengthIsAShareOfHowLongTheKeyWasHeld() {
        Played shortOnes = Played.through("{'effect':'humanize','late':0,'velocity':0,'length':50}");
        Played longOnes = Played.through("{'effect':'humanize','late':0,'velocity':0,'length':50}");
        for (int i = 0; i < 16; i++) {
            shortOnes.note("C4", 2 * i, 0.5);
            longOnes.note("C4", 2 * i, 1);
        }
        List<Double> one = shortOnes.bars(8).stream().map(Heard::length).toList();
        List<Double> other = longOnes.bars(8).stream().map(Heard::length).toList();
        assertThat(one).anyMatch(length -> length > 0.55);
        for (int i = 0; i < one.size(); i++) {
            assertThat(other.get(i)).isCloseTo(2 * one.get(i), within(1e-3));
        }
    }
}
