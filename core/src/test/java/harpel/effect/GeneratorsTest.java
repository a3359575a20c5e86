package harpel.effect;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import harpel.effect.held.Polymeter;
import harpel.effect.notes.Carom;
import harpel.effect.notes.CaromBoard;
import harpel.param.ParamSet;
import harpel.param.type.ChoiceType;
import harpel.testkit.Heard;
import harpel.testkit.Played;
import harpel.theory.EvenSpread;
import harpel.time.TimeMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Effects that play by themselves, and those in which held notes drive lanes and cycles. */
class GeneratorsTest {
    private static Played through(String stage) {
        return Played.through(stage);
    }

    @Test
    void everyEightFromFourIsTheBackbeat() {
        // Common practice: the backbeat is beats 2 and 4. Source of the key: General MIDI 1 percussion, 38 acoustic
        // snare.
        List<Heard> notes = through("{'effect':'pulse','layers':[{'every':8,'from':4}],'root':38}")
                .bars(2);
        assertThat(notes).extracting(Heard::beat).containsExactly(1.0, 3.0, 5.0, 7.0);
        assertThat(notes).extracting(Heard::pitch).containsOnly(38);
    }

    @Test
    void everyFourOfSixteenIsFourOnTheFloor() {
        assertThat(through("{'effect':'pulse'}").beats(1)).containsExactly(0.0, 1.0, 2.0, 3.0);
    }

    @Test
    void layersAreCountedAnewEachCycle() {
        assertThat(through("{'effect':'pulse','steps':5,'pace':'1/4','layers':[{'every':3}]}")
                        .beats(3))
                .containsExactly(0.0, 3.0, 5.0, 8.0, 10.0);
    }

    /** G. Toussaint, The Euclidean Algorithm Generates Traditional Musical Rhythms, 2005, as printed there. */
    @ParameterizedTest
    @CsvSource({
        "2, 5, x.x..",
        "3, 4, x.xx",
        "3, 5, x.x.x",
        "3, 7, x.x.x..",
        "3, 8, x..x..x.",
        "4, 7, x.x.x.x",
        "4, 9, x.x.x.x..",
        "4, 11, x..x..x..x.",
        "5, 6, x.xxxx",
        "5, 7, x.xx.xx",
        "5, 8, x.xx.xx.",
        "5, 9, x.x.x.x.x",
        "5, 11, x.x.x.x.x..",
        "5, 12, x..x.x..x.x.",
        "5, 16, x..x..x..x..x....",
        "7, 8, x.xxxxxx",
        "7, 12, x.xx.x.xx.x.",
        "7, 16, x..x.x.x..x.x.x.",
        "9, 16, x.xx.x.x.xx.x.x.",
        "11, 24, x..x.x.x.x.x..x.x.x.x.x.",
        "13, 24, x.xx.x.x.x.x.xx.x.x.x.x."
    })
    void onsetsAreSpreadAsPublished(int onsets, int steps, String published) {
        StringBuilder made = new StringBuilder();
        for (boolean sounds : EvenSpread.of(onsets, steps)) {
            made.append(sounds ? 'x' : '.');
        }
        String rhythm = published.substring(0, steps);
        assertThat(made.toString()).as("E(%d,%d)", onsets, steps).isEqualTo(rhythm);
    }

    @Test
    void aLayerCanBeSpreadAndTurned() {
        assertThat(through("{'effect':'pulse','steps':8,'pace':'1/8','layers':[{'spread':3}]}")
                        .beats(1))
                .containsExactly(0.0, 1.5, 3.0);
        assertThat(through("{'effect':'pulse','steps':8,'pace':'1/8','layers':[{'spread':3,'turned':1}]}")
                        .beats(1))
                .containsExactly(0.5, 2.0, 3.5);
    }

    @Test
    void fillIsTheChanceOfEveryOtherStep() {
        int all = through("{'effect':'pulse','fill':100}").beats(4).size();
        int some = through("{'effect':'pulse','fill':30}").beats(64).size();
        assertThat(all).isEqualTo(64);
        // 256 steps of the layer and 768 others with a chance of 0.3: 230 on average, standard deviation 12.7.
        assertThat(some - 256).isBetween(230 - 51, 230 + 51);
    }

    @Test
    void aFillCanBeARowOfItsOwn() {
        assertThat(through("{'effect':'pulse','layers':[{'every':8}],'steps':8,'fill':[0,100,0,0]}")
                        .beats(1))
                .containsExactly(0.0, 0.25, 1.25, 2.0, 2.25, 3.25);
    }

    @Test
    void theWaysShareOutTheSoundingSteps() {
        List<Integer> pitches = through(
                        "{'effect':'pulse','layers':[{'every':1}],'root':60,'scale':'major','among':{'0':40,'1':20,'2':20,'-1':20}}")
                .pitches(64);
        long roots = pitches.stream().filter(pitch -> pitch == 60).count();
        assertThat(pitches).containsOnly(60, 62, 64, 59);
        // 1024 steps: 409.6 roots and 204.8 of each other on average.
        assertThat(roots).isBetween(346L, 473L);
        for (int other : List.of(62, 64, 59)) {
            assertThat(pitches.stream().filter(pitch -> pitch == other).count()).isBetween(153L, 257L);
        }
    }

    @Test
    void voicesAtOnceAreDifferentNotes() {
        List<Heard> notes = through(
                        "{'effect':'pulse','layers':[{'every':16}],'among':[0,1,2],'voices':5,'scale':'major'}")
                .bars(1);
        assertThat(notes).extracting(Heard::pitch).containsExactlyInAnyOrder(60, 62, 64);
        assertThat(notes).extracting(Heard::beat).containsOnly(0.0);
    }

    @Test
    void aPlayedKeyBecomesTheRootOfAPulseThatFollowsKeys() {
        assertThat(through("{'effect':'pulse','follow-keys':true}")
                        .note("D3", 1.5, 0.25)
                        .pitches(1))
                .containsExactly(60, 60, 50, 50);
        assertThat(through("{'effect':'pulse'}").note("D3", 1.5, 0.25).pitches(1))
                .containsExactly(60, 60, 50, 60, 60);
    }

    @Test
    void theRootIsThatOfTheKeyUntilAnotherIsSet() {
        assertThat(through("{'effect':'pulse','among':[2]}").key("A minor").pitches(1))
                .as("A4 and the third of A minor above it")
                .containsOnly(72);
        assertThat(through("{'effect':'pulse','root':'E3','among':[2]}")
                        .key("C major")
                        .pitches(1))
                .as("scale key is root and scale of the piece: from E two degrees of C major")
                .containsOnly(55);
        assertThat(through("{'effect':'pulse','root':'E3','scale':'major','among':[2]}")
                        .pitches(1))
                .as("a scale of its own stands on the root: E major")
                .containsOnly(56);
        assertThat(through("{'effect':'carom','marbles':[{}],'cells':[{'column':3}]}")
                        .key("A minor")
                        .pitches(1))
                .as("A3 and two degrees of A minor above it")
                .containsOnly(60);
    }

    @Test
    void layersWithNotesOfTheirOwnAndAccentsThatAddUp() {
        List<Heard> notes = through(
                        "{'effect':'pulse','pace':'1/4','steps':4,'velocity':60,'root':42,'layers':["
                                + "{'every':2,'note':36,'accent':40},{'every':1},{'every':4,'accent':10},{'every':2,'note':36,'accent':5}]}")
                .bars(1);
        assertThat(notes)
                .extracting(note -> note.beat() + " " + note.pitch() + "/" + note.velocity())
                .containsExactly("0.0 36/105", "0.0 42/70", "1.0 42/60", "2.0 36/105", "2.0 42/60", "3.0 42/60");
        assertThat(through(
                                "{'effect':'pulse','steps':2,'pace':'1/4','layers':[{'every':2,'accent':25}],'fill':100,'velocity':70}")
                        .velocities(1))
                .containsExactly(95, 70, 95, 70);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "pulse|layers|[{'accent':3}]|layers[0]: a layer has either every or spread",
                "pulse|layers|[{'every':4,'spread':3}]|layers[0]: a layer has either every or spread",
                "pulse|fill|[]|fill: must be 0–100 %",
                "polymeter|rows|[{'values':[]}]|rows[0].values: a row has at least one value",
                "polymeter|rows|[{'of':'repeats','values':[9]}]|rows[0].values.repeats: must be 1–8 but was 9",
                "polymeter|rows|[{'pace':'x5'}]|rows[0].pace: must be \"x1/4\"",
                "polymeter|rows|[{'pace':'35 ms'}]|rows[0].pace: must be \"x1/4\"",
                "carom|cells|[{'is':'bell','chance':20}]|cells[0].chance: belongs to a gate",
                "stray|ways|{'30':1}|ways.30: must be −24–24 but was 30"
            })
    void whatDoesNotGoTogetherIsRefusedWithItsPlace(String effect, String param, String plain, String says)
            throws Exception {
        Object value =
                new com.fasterxml.jackson.databind.ObjectMapper().readValue(plain.replace('\'', '"'), Object.class);
        assertThatThrownBy(() -> ParamSet.read(EffectCatalog.of(effect).spec(), Map.of(param, value)))
                .hasMessageStartingWith(says);
    }

    private static final String CYCLES =
            "{'effect':'polymeter','start':'transport','root':52,'scale':'dorian','pace':'1/16','rows':["
                    + "{'of':'octave','values':[0,1,0]},{'of':'degree','values':[0,2,4,1]},{'of':'length','values':[50]},"
                    + "{'of':'velocity','values':[100,70]},{'of':'chance','values':[100]}]}";

    @Test
    void eachCycleGivesItsOwnValueAtEachStep() {
        List<Heard> notes = through(CYCLES).bars(1);
        // E dorian: E F♯ G A B C♯ D; degrees 0, 2, 4, 1 are 52, 55, 59, 54.
        int[] degrees = {52, 55, 59, 54};
        int[] octaves = {0, 12, 0};
        for (int n = 0; n < 16; n++) {
            Heard note = notes.get(n);
            assertThat(note.beat()).isEqualTo(n / 4.0);
            assertThat(note.pitch()).as("step %d", n).isEqualTo(degrees[n % 4] + octaves[n % 3]);
            assertThat(note.velocity()).isEqualTo(n % 2 == 0 ? 100 : 70);
            assertThat(note.length()).isEqualTo(0.125);
        }
    }

    private static long period(String rows) {
        return Polymeter.commonPeriod(
                Played.chain("{'effect':'polymeter','rows':[" + rows + "]}")
                        .stages()
                        .get(0)
                        .params(),
                TimeMap.DEFAULT);
    }

    @Test
    void fourAgainstThreeMeetAgainAfterTwelve() {
        // Common practice: rows of 4 and 3 meet again after their least common multiple.
        String octaves = "{'of':'octave','values':[0,1,0,2]";
        String degrees = "{'values':[0,2,4]";
        assertThat(period(octaves + "}," + degrees + "}")).isEqualTo(12);
        assertThat(period(octaves + ",'pace':'x1/2'}," + degrees + "}")).isEqualTo(24);
        assertThat(period(octaves + "}," + degrees + ",'pace':'x3/2'}")).isEqualTo(4);
        assertThat(period(octaves + ",'runs':'there-and-back'}")).isEqualTo(6);
        assertThat(period(octaves + ",'pace':'1/8d'}"))
                .as("four dotted eighths are twelve sixteenths")
                .isEqualTo(12);
        assertThat(period("")).isEqualTo(1);
    }

    private static List<Integer> row(String row, int bars) {
        return through("{'effect':'polymeter','pace':'1/4','rows':[" + row + "]}")
                .pitches(bars);
    }

    @Test
    void aRowRunsAsItIsTold() {
        String of = "{'of':'semitone','values':[0,1,2,3],'runs':";
        assertThat(row(of + "'forward'}", 2)).containsExactly(60, 61, 62, 63, 60, 61, 62, 63);
        assertThat(row(of + "'backward'}", 1)).containsExactly(63, 62, 61, 60);
        assertThat(row(of + "'there-and-back'}", 2)).containsExactly(60, 61, 62, 63, 62, 61, 60, 61);
        assertThat(row(of + "'forward','turned':3}", 1)).containsExactly(63, 60, 61, 62);
        List<Integer> shuffled = row(of + "'shuffle'}", 16);
        Set<List<Integer>> orders = new HashSet<>();
        for (int pass = 0; pass < 16; pass++) {
            List<Integer> order = shuffled.subList(4 * pass, 4 * pass + 4);
            assertThat(order).as("each value once a pass").containsExactlyInAnyOrder(60, 61, 62, 63);
            orders.add(order);
        }
        assertThat(orders).hasSizeGreaterThan(4);
        assertThat(row(of + "'shuffle'}", 16)).isEqualTo(shuffled);
    }

    @Test
    void aRowGoesAtItsOwnPace() {
        String of = "{'of':'semitone','values':[0,1,2],'pace':";
        assertThat(row(of + "'x1/2'}", 2)).containsExactly(60, 60, 61, 61, 62, 62, 60, 60);
        assertThat(row(of + "'x2'}", 1)).containsExactly(60, 62, 61, 60);
        assertThat(row(of + "'1/2d'}", 2)).containsExactly(60, 60, 60, 61, 61, 61, 62, 62);
        assertThat(row(of + "'1/2t'}", 1)).containsExactly(60, 60, 61, 62);
    }

    @Test
    void rowsOfOneKindWorkTogether() {
        String rows = "{'of':'degree','values':[1]},{'of':'degree','values':[1,3]},{'of':'octave','values':[1]},"
                + "{'of':'octave','values':[-2]},{'of':'semitone','values':[1]},{'of':'velocity','values':[50]},"
                + "{'of':'velocity','values':[50,150]},{'of':'length','values':[50]},{'of':'length','values':[50]}";
        List<Heard> notes = through("{'effect':'polymeter','pace':'1/4','velocity':80,'rows':[" + rows + "]}")
                .bars(1);
        // C major: two degrees above C4 is E4, four G4; an octave down and a semitone up.
        assertThat(notes).extracting(Heard::pitch).containsExactly(53, 56, 53, 56);
        assertThat(notes).extracting(Heard::velocity).containsExactly(20, 60, 20, 60);
        assertThat(notes).extracting(Heard::length).containsOnly(0.25);
        List<Integer> some = row("{'of':'chance','values':[50]},{'of':'chance','values':[40]}", 128);
        // 512 steps at 50 % × 40 %: 102.4 on average, standard deviation 9.1.
        assertThat(some.size()).isBetween(57, 148);
    }

    @Test
    void repeatsShareWhatTheStepHasLeft() {
        List<Heard> notes = through(
                        "{'effect':'polymeter','pace':'1/4','rows':[{'of':'repeats','values':[1,3]},"
                                + "{'of':'repeats','values':[1,2]},{'of':'late','values':[25,0]},{'of':'late','values':[25,0]}]}")
                .bars(1);
        assertThat(notes)
                .extracting(Heard::beat)
                .containsExactly(0.5, 1.0, 4 / 3.0, 5 / 3.0, 2.5, 3.0, 10 / 3.0, 11 / 3.0);
        assertThat(notes.get(0).length()).isEqualTo(0.5);
        assertThat(notes.get(1).length()).isCloseTo(1 / 6.0, within(1e-4));
    }

    @Test
    void aKeyStartsThePolymeterAndIsItsRoot() {
        List<Heard> notes = through(
                        "{'effect':'polymeter','start':'key','pace':'1/4','scale':'major','rows':[{'values':[0,2,4]}]}")
                .note("D4", 0.3, 2.9)
                .bars(2);
        assertThat(notes).extracting(Heard::pitch).containsExactly(62, 66, 69);
        assertThat(notes).extracting(Heard::beat).containsExactly(0.3, 1.3, 2.3);
    }

    @Test
    void withTheTransportTheRootIsFixedUnlessKeysShallSteerIt() {
        assertThat(through("{'effect':'polymeter','start':'transport','root':52,'pace':'1/4','rows':[]}")
                        .note("C3", 1.5, 0.2)
                        .pitches(1))
                .containsExactly(52, 52, 48, 52, 52);
        assertThat(through(
                                "{'effect':'polymeter','start':'transport','root':52,'pace':'1/4','rows':[],'follow-keys':'always'}")
                        .note("C3", 1.5, 0.2)
                        .pitches(1))
                .containsExactly(52, 52, 48, 48);
    }

    @Test
    void withoutWordsAboutItsStartItPlaysWithTheTransport() {
        assertThat(through(CYCLES.replace("'start':'transport',", "")).bars(1))
                .isEqualTo(through(CYCLES).bars(1))
                .hasSize(16);
    }

    @Test
    void allRowsStartOver() {
        assertThat(through("{'effect':'polymeter','start':'transport','pace':'1/4','rows':[{'values':[0,1,2]}],"
                                + "'start-over':'every-bars'}")
                        .pitches(2))
                .containsExactly(60, 62, 64, 60, 60, 62, 64, 60);
        assertThat(through("{'effect':'polymeter','pace':'1/4','rows':[{'values':[0,1,2]}],'follow-keys':'never',"
                                + "'start-over':'each-key'}")
                        .note("C2", 1.5, 0.1)
                        .pitches(2))
                .as("the key itself passes")
                .containsExactly(60, 62, 36, 60, 62, 64, 60, 62, 64);
    }

    @Test
    void eachRankDrivesItsLane() {
        List<Heard> notes = through("{'effect':'lanes','lanes':[{'steps':'x..x.','pace':'1/16'},"
                        + "{'steps':'.x','pace':'1/8','octave':1,'velocity':50}]}")
                .chord("E4 C4", 0, 1)
                .bars(1);
        assertThat(notes.stream().filter(note -> note.pitch() == 60).map(Heard::beat))
                .containsExactly(0.0, 0.75);
        assertThat(notes.stream().filter(note -> note.pitch() == 76).map(Heard::beat))
                .containsExactly(0.5);
        assertThat(notes.stream().filter(note -> note.pitch() == 76).map(Heard::velocity))
                .containsExactly(50);
    }

    @Test
    void aLengthOfNoughtIsARest() {
        assertThat(through("{'effect':'lanes','lanes':[{'steps':'x','pace':'1/4','length':0}]}")
                        .note("C4", 0, 4)
                        .bars(1))
                .isEmpty();
        assertThat(through("{'effect':'polymeter','pace':'1/4','rows':[{'of':'length','values':[50,0]}]}")
                        .beats(1))
                .containsExactly(0.0, 2.0);
        assertThat(through("{'effect':'pulse','length':0}").beats(1)).isEmpty();
    }

    @Test
    void aLanesTenthsAreExact() {
        // 45 × 0.7 is 31.5, which is 32 half up; in binary fractions it is a hair less.
        assertThat(through("{'effect':'lanes','lanes':[{'steps':'7','pace':'1/4'}]}")
                        .note("C4", 0, 1, 45)
                        .velocities(1))
                .containsExactly(32);
    }

    @Test
    void lanesOfUnlikeLengthRunAgainstEachOtherUntilTheyStartOver() {
        String lanes = "'lanes':[{'steps':'x..x.','pace':'1/16'}]";
        assertThat(through("{'effect':'lanes'," + lanes + "}").note("C4", 0, 8).beats(2))
                .startsWith(0.0, 0.75, 1.25, 2.0, 2.5, 3.25, 3.75, 4.5);
        assertThat(through("{'effect':'lanes'," + lanes + ",'start-over-every':1}")
                        .note("C4", 0, 8)
                        .beats(2))
                .startsWith(0.0, 0.75, 1.25, 2.0, 2.5, 3.25, 3.75, 4.0, 4.75);
    }

    @Test
    void aReleasedNoteMovesTheHigherOnesDownOrNot() {
        String lanes = "'lanes':[{'steps':'x...'},{'steps':'..x.'}]";
        Played closing = through("{'effect':'lanes'," + lanes + "}");
        Played staying = through("{'effect':'lanes','rank':'stay'," + lanes + "}");
        for (Played played : List.of(closing, staying)) {
            played.note("C4", 0, 0.9).note("E4", 0, 2);
        }
        assertThat(closing.pitches(1)).containsExactly(60, 64, 64);
        assertThat(closing.beats(1)).containsExactly(0.0, 0.5, 1.0);
        assertThat(staying.beats(1)).containsExactly(0.0, 0.5, 1.5);
    }

    @Test
    void aLaneSendsToItsChannel() {
        List<Heard> notes = through("{'effect':'lanes','lanes':[{'steps':'x','pace':'1/4','send-to':2}]}")
                .note("C4", 0, 2)
                .bars(1);
        assertThat(notes).hasSize(2).extracting(Heard::channel).containsOnly(2);
    }

    private static String carom(String marbles, String more) {
        return "{'effect':'carom','marbles':[" + marbles + "]" + more + "}";
    }

    private static List<Double> struck(String marbles, String cells, String more, int bars) {
        return through(carom(marbles, ",'cells':[" + cells + "]" + more)).beats(bars);
    }

    @Test
    void aMarbleSoundsWhereABellStands() {
        // From column 1 to the right, one cell an eighth; the bell in column 3 is reached after two moves, and again on
        // the way back.
        List<Heard> notes = through(carom("{}", ",'size':4,'cells':[{'column':3}],'root':48"))
                .bars(1);
        assertThat(notes).extracting(Heard::beat).containsExactly(1.0, 2.0);
        assertThat(notes).extracting(Heard::pitch).containsOnly(52);
    }

    @Test
    void twoMarblesThatMeetOrWouldSwapBothSound() {
        String bare = ",'cells':[]";
        String meeting = "{'note':36},{'column':3,'direction':'left','note':38}";
        assertThat(through(carom(meeting, bare)).bars(1).subList(0, 2))
                .extracting(Heard::pitch)
                .containsExactly(36, 38);
        String swapping = "{'note':36},{'column':2,'direction':'left','note':38}";
        List<Heard> swapped = through(carom(swapping, bare)).bars(1);
        assertThat(swapped.get(0).beat()).isEqualTo(0.5);
        assertThat(swapped).extracting(Heard::pitch).startsWith(36, 38);
    }

    /** Half of each bar it waits for a key that does not come: what rolled before goes on where time is by then, not where it stopped. */
    @Test
    void marblesThatWaitedGoOnFromNow() {
        String halfOfEachBar = "'start':[{'by':'lfo','shape':'square','pace':'1/1','amount':100}]";
        String another = "'marbles.1.direction':[{'by':'lfo','pace':'7.5 ms','amount':12,'both-ways':true}]";
        String board =
                ",'channel':2,'size':4,'cells':[{'column':2,'row':2},{'column':3,'row':2},{'column':4,'row':2}],'move':{";
        // A note that passes by keeps what moves the board awake.
        List<Double> beats =
                through(carom("{},{'row':2}", board + halfOfEachBar + "," + another + "}"))
                        .note("C4", 0, 12)
                        .bars(3)
                        .stream()
                        .filter(note -> note.channel() == 2)
                        .map(Heard::beat)
                        .toList();
        assertThat(beats).isSorted().hasSizeGreaterThan(8);
        assertThat(beats).as("not in the half of the bar in which it waits").allMatch(beat -> beat % 4 >= 2);
        assertThat(beats.get(beats.size() - 1)).as("it goes on in the last bar").isGreaterThanOrEqualTo(8.0);
    }

    @Test
    void edgesThrowBackOrLetInAtTheOtherSide() {
        String bell = "{'column':1,'row':1}";
        assertThat(struck("{}", bell, ",'size':4,'edges':'wrap'", 1)).containsExactly(2.0);
        assertThat(struck("{}", bell, ",'size':4", 1)).containsExactly(3.0);
        assertThat(struck("{'direction':'up-right'}", bell, ",'size':4", 1)).containsExactly(3.0);
    }

    /** As light is turned by a mirror (the law of reflection): / leads what goes right upwards, \ downwards. */
    @ParameterizedTest
    @CsvSource({
        "right, mirror-rising, 4, 6",
        "right, mirror-falling, 4, 2",
        "left, mirror-rising, 4, 2",
        "left, mirror-falling, 4, 6",
        "up, mirror-rising, 6, 4",
        "up, mirror-falling, 2, 4",
        "down, mirror-rising, 2, 4",
        "down, mirror-falling, 6, 4",
        "right, spring, 2, 4",
        "up-right, mirror-rising, 2, 2",
        "up-right, mirror-falling, 2, 2",
        "down-left, spring, 6, 6"
    })
    void mirrorsAndSpringsTurnMarbles(String way, String thing, int column, int row) {
        // Launched one cell before the thing at 4/4, it comes to the bell two cells behind it after three moves.
        Carom.Direction direction = ChoiceType.of(Carom.Direction.class).read(way);
        int fromColumn = 4 - direction.right();
        int fromRow = 4 - direction.up();
        String marble = "{'column':" + fromColumn + ",'row':" + fromRow + ",'direction':'" + way + "'}";
        String cells = "{'column':4,'row':4,'is':'" + thing + "'},{'column':" + column + ",'row':" + row + "}";
        assertThat(struck(marble, cells, "", 1)).as("%s at %s", way, thing).startsWith(1.5);
    }

    @Test
    void aGateLetsThroughWithItsChance() {
        String behind = "{'column':4}";
        assertThat(struck("{}", behind + ",{'column':3,'is':'gate','chance':100}", "", 1))
                .startsWith(1.5);
        assertThat(struck("{}", behind + ",{'column':3,'is':'gate','chance':0}", "", 8))
                .isEmpty();
        // Between a spring and a gate, each time let out or thrown back: after 8 bars it has long been out.
        String sometimes = behind + ",{'column':3,'is':'gate','chance':50}";
        assertThat(struck("{}", sometimes, "", 8)).isNotEmpty();
        assertThat(through(carom("{}", ",'cells':[" + sometimes + "]")).bars(32))
                .isEqualTo(through(carom("{}", ",'cells':[" + sometimes + "]")).bars(32))
                .isNotEqualTo(through(carom("{}", ",'cells':[" + sometimes + "]"))
                        .variation(2)
                        .bars(32));
    }

    @Test
    void startedByAKeyStepsAreCountedFromIt() {
        assertThat(through(carom("{'note':40}", ",'start':'key','cells':[{'column':3}]"))
                        .note("C4", 0.3, 3)
                        .beats(1)
                        .get(0))
                .isEqualTo(1.3);
    }

    @Test
    void aTiltedBoardRollsAllOneWay() {
        assertThat(struck("{'direction':'right'}", "{'column':1,'row':3}", ",'tilt':'up'", 1))
                .containsExactly(1.0);
        assertThat(struck("{}", "{'row':2,'is':'spring'},{'row':3}", ",'tilt':'up'", 1))
                .as("nothing turns a marble while the board is tilted")
                .containsExactly(1.0);
    }

    @Test
    void aNewBoardSoundsWithinTwoBarsAndItsFirstMarbleComesRound() {
        assertThat(through("{'effect':'carom'}").beats(2)).isNotEmpty();
        ParamSet fresh = EffectCatalog.of("carom").spec().defaults();
        List<CaromBoard.Rolling> way =
                new CaromBoard(fresh).way(fresh.get(Carom.MARBLES).get(0), 64);
        assertThat(way).hasSize(17);
        assertThat(way.get(16)).isEqualTo(way.get(0));
    }

    @Test
    void aPadLaunchesAMarbleWhileItIsHeld() {
        List<Heard> notes = through(
                        carom("", ",'keys':'pads','pad-lowest':36,'pad-row':8,'cells':[{'column':2,'row':3}]"))
                .note(37, 0, 1.1, 77, 1)
                .bars(2);
        assertThat(notes).hasSize(1);
        assertThat(notes.get(0).beat()).isEqualTo(1.0);
        assertThat(notes.get(0).velocity()).isEqualTo(77);
    }
}
