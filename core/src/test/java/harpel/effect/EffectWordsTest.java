package harpel.effect;

import static org.assertj.core.api.Assertions.assertThat;

import harpel.chain.Stage;
import harpel.event.NoteStart;
import harpel.param.ParamSet;
import harpel.testkit.Played;
import harpel.theory.Key;
import harpel.time.Ticks;
import harpel.time.TimeMap;
import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.MethodSource;

/** What is said of effects, how they are found, and what they are like. */
class EffectWordsTest {
    private static final Key FLATS = Key.parse("Bb major");

    /** A stage, and what it says of its setting in B♭ major; read through by hand. */
    static Stream<String> settings() {
        return """
                {'effect':'arpeggio'} => up · 1/16 · gate 80 %
                {'effect':'arpeggio','octaves':1,'climb-times':0,'gate':50,'latch':'add'} => up · 1/16 · gate 50 % · latch
                {'effect':'arpeggio','climb-times':2,'pattern':[{},{}]} => up · 1/16 · climb +12 st (octave) × 2 · gate 80 % · pattern of 2
                {'effect':'lanes','lanes':[]} => no lanes
                {'effect':'lanes','lanes':[{'steps':'x..'},{'on':false}]} => x.. · off
                {'effect':'polymeter','rows':[]} => the root · 1/16
                {'effect':'polymeter','rows':[{'of':'degree','values':[0,2]},{'of':'velocity','values':[100]}]} => degree 2 against velocity 1 · 1/16
                {'effect':'strum','curve':0} => low to high · over 60 ms
                {'effect':'strum','curve':20} => low to high · over 60 ms · rushing
                {'effect':'strum','curve':-20} => low to high · over 60 ms · slowing
                {'effect':'carom','marbles':[],'cells':[]} => 8 × 8 · 0 marbles · 0 bells
                {'effect':'carom','size':5,'marbles':[{}],'cells':[{'is':'bell','column':1},{'is':'gate','column':2}]} => 5 × 5 · 1 marble · 1 bell
                {'effect':'chord-keys'} => the key · 3 notes · close
                {'effect':'chord-keys','keys':{'C4':'Cm7'},'fill':'none'} => 1 key of its own · no others · close
                {'effect':'chord-keys','keys':{'C4':'Cm7','D4':[62,65]},'root':'Bb','scale':'dorian'} => 2 keys of their own · B♭ dorian · 3 notes · close
                {'effect':'chord-keys','scale':'dorian'} => the key's root dorian · 3 notes · close
                {'effect':'echo'} => 3 × 1/8d · fading 40 %
                {'effect':'echo','shift':{'degrees':2},'chance':50,'repeats':2} => 2 × 1/8d · fading 40 % · +2 degrees · chance 50 %
                {'effect':'harmony','voices':[]} => no added voices
                {'effect':'harmony','voices':[{'degrees':2},{'semitones':7}],'keep':false} => +2 degrees · +7 st (fifth) · without the played note
                {'effect':'harmony','voices':[{'degrees':2,'semitones':7},{}]} => +2 degrees +7 st (fifth) · 0 st (unison)
                {'effect':'pulse','steps':8,'layers':[{'every':2}],'fill':[0]} => x.x.x.x. · 1/16
                {'effect':'pulse','steps':8,'layers':[{'every':2},{'every':4,'from':1}],'fill':[30]} => xxx?xxx? · 1/16 · 2 layers · fill 30 %
                {'effect':'pulse','steps':32,'layers':[{'every':2}],'fill':[30,40]} => 32 steps · 1/16
                {'effect':'glide','curve':0} => over 80 ms
                {'effect':'glide','curve':30} => over 80 ms · arriving slowly
                {'effect':'glide','curve':-30} => over 80 ms · leaving slowly
                {'effect':'note-bend','centre':'Bb3'} => around B♭3 · ±12 semitones
                {'effect':'note-bend','to':'lead'} => lead · around C4 · ±12 semitones
                {'effect':'scale-fit'} => the key · nearest
                {'effect':'scale-fit','root':'Bb','scale':'major','table':{'C':'D'}} => B♭ major · nearest · 1 note by table
                {'effect':'scale-fit','table':{'C':'D','E':'drop'}} => the key · nearest · 2 notes by table
                {'effect':'scale-fit','root':'played','scale':'minor'} => played root minor · nearest
                {'effect':'scale-fit','scale':'minor'} => the key's root minor · nearest
                {'effect':'stray'} => 30 % changed · −1 +1 deg
                {'effect':'stray','steps-in':'semitones','draw':'walk'} => 30 % changed · −1 +1 st · walk
                {'effect':'stray','steps-in':'degrees','draw':'in-turn'} => 30 % changed · −1 +1 deg · in turn
                {'effect':'transpose'} => not moved
                {'effect':'transpose','octaves':1,'degrees':-1,'semitones':7} => 1 octave · −1 degree · +7 st (fifth)
                {'effect':'controls','rules':[]} => nothing rewritten
                {'effect':'controls','rules':[{'from':'controller','from-number':1,'to':'pressure'},{'from':'velocity','to':'controller','to-number':74},{'from':'pressure','to':'drop'}]} => controller 1 (modulation wheel) → pressure · velocity → controller 74 (brightness) · pressure dropped
                {'effect':'send'} => nowhere yet
                {'effect':'send','to':'lead'} => to lead as well
                {'effect':'send','to':'lead','way':'instead'} => to lead instead
                {'effect':'duration'} => always 1/8
                {'effect':'duration','length':'fixed','fixed':'1/8','at-least':'1/16','at-most':'1/2'} => always 1/8 · at least 1/16 · at most 1/2
                {'effect':'duration','length':'share','share':50} => 50 % of the played length, keys as played
                {'effect':'duration','length':'share','share':150} => 150 % of the played length
                {'effect':'duration','length':'until-next'} => until the next note
                {'effect':'duration','sounds-on':'release','fixed':'1/8'} => sounds on release for 1/8
                {'effect':'sieve'} => every note
                {'effect':'sieve','chance':40,'keys':['C2','Bb3'],'velocity':[1,90],'from-channel':3,'every':2,'bars-open':1,'bars-of':4} => 40 % · keys C2–B♭3 · velocity 1–90 · channel 3 · one of 2 · bars 1 of 4
                {'effect':'time-grid'} => next 1/16 · 100 %
                {'effect':'time-grid','to':'nearest','late-by':'10 ms'} => nearest 1/16 · 100 % · late by 10 ms
                {'effect':'touch'} => straight · 1–127
                {'effect':'touch','fixed':90,'loosen':5} => always 90 · loosen ±5
                {'effect':'touch','curve':-30,'range':[20,100],'accents':[0,10]} => hard 30 · 20–100 · accents 0 10
                {'effect':'touch','curve':30,'points':[[1,1],[100,50]]} => drawn curve · 1–127
                {'effect':'voices'} => at most 4 notes · the oldest makes room
                {'effect':'voices','steal':'refuse'} => at most 4 notes · more are refused
                {'effect':'voices','one-voice':'last'} => one voice · last key first
                {'effect':'latch'} => until the next chord
                {'effect':'latch','until':'toggle'} => until the same key again
                {'effect':'latch','until':'add'} => adding up until released
                {'effect':'latch','until':'bars','bars':2} => until the next of every 2 bars
                {'effect':'latch','until':'pedal-up'} => until the pedal is up
                {'effect':'humanize'} => 0–12 ms late · velocity ±8 · length ±10 %
                {'effect':'long-notes','at-least':'1/8'} => at least 1/8
                """.lines();
    }

    @ParameterizedTest
    @MethodSource("settings")
    void aStageSaysWhatItIsSetTo(String line) {
        String[] both = line.strip().split(" => ");
        Stage stage = stage(both[0]);
        assertThat(stage.kind().words().describe(stage.params(), FLATS, -1)).isEqualTo(both[1]);
    }

    @Test
    void whereItLeadsIsSaidOnceANoteCameIn() {
        Stage inTurn = stage("{'effect':'stray','draw':'in-turn'}");
        assertThat(inTurn.kind().words().describe(inTurn.params(), FLATS, 58))
                .isEqualTo("30 % changed · B♭3 to A3 C4 · in turn");
        Stage plain = stage("{'effect':'stray'}");
        assertThat(plain.kind().words().describe(plain.params(), FLATS, 0))
                .as("a note below 0 is none")
                .isEqualTo("30 % changed · C-1 to D-1");
        Stage walk = stage("{'effect':'stray','draw':'walk'}");
        assertThat(walk.kind().words().describe(walk.params(), FLATS, 58))
                .as("a walk may come anywhere within its reach")
                .isEqualTo("30 % changed · −1 +1 deg · walk");
    }

    @Test
    void whatWasDoneIsToldByNameAndDistance() {
        assertThat(told("{'effect':'transpose'}", 67, 0)).isEqualTo("transpose up four degrees");
        assertThat(told("{'effect':'scale-fit'}", 62, 0)).isEqualTo("up a degree into the key");
        assertThat(told("{'effect':'touch'}", 60, 0)).isEmpty();
        String echo = "{'effect':'echo','time':'1/4','repeats':2}";
        assertThat(told(echo, 60, 2 * Ticks.PER_QUARTER)).isEqualTo("echo 2 of 2");
        assertThat(told(echo, 67, Ticks.PER_QUARTER)).isEqualTo("echo 1 of 2 up four degrees");
        assertThat(told(echo, 60, 7)).isEqualTo("echo");
        assertThat(told("{'split':[{}]}", 60, 0)).isEqualTo("branch");
    }

    private static String told(String json, int to, long later) {
        Stage stage = stage(json);
        NoteStart note = NoteStart.played(0, 0, 0, 60, 90);
        return stage.kind()
                .words()
                .tell(note, note.derive(later, to, 90), stage.params(), Key.C_MAJOR, TimeMap.DEFAULT);
    }

    /** A name that begins so comes first, then one that has it, then what people look for it by, last what is said of it. */
    @ParameterizedTest
    @CsvSource({"touch, touch", "fit, scale-fit", "delay, echo", "ECHO, echo", "zzz, "})
    void theBestComesFirst(String typed, String id) {
        List<String> found =
                EffectCatalog.found(typed).stream().map(EffectKind::id).toList();
        if (id == null) {
            assertThat(found).isEmpty();
        } else {
            assertThat(found).first().isEqualTo(id);
        }
    }

    @Test
    void chanceFindsAllThatDrawAndNothingFindsAll() {
        List<EffectKind> draw = EffectCatalog.kinds().stream()
                .filter(kind -> kind.has(Trait.DRAWS))
                .toList();
        assertThat(EffectCatalog.found("random")).containsAll(draw).hasSizeLessThan(draw.size() + 5);
        assertThat(EffectCatalog.found("notes held"))
                .extracting(EffectKind::id)
                .contains("arpeggio")
                .doesNotContain("touch");
        assertThat(EffectCatalog.found("dela")).extracting(EffectKind::id).contains("echo");
        assertThat(EffectCatalog.found("")).isEqualTo(EffectCatalog.kinds());
        assertThat(EffectCatalog.found(" ")).isEqualTo(EffectCatalog.kinds());
    }

    @Test
    void whatKindsAreLike() {
        assertThat(with(Trait.LEAVES_THE_KEY)).contains("chord-keys", "stray", "transpose", "harmony");
        assertThat(with(Trait.FITS_THE_KEY)).containsExactly("scale-fit");
        assertThat(with(Trait.PLAYS_BY_ITSELF)).contains("carom", "polymeter", "pulse", "script");
        assertThat(with(Trait.MAKES_A_PATTERN)).contains("arpeggio", "lanes");
        assertThat(with(Trait.DRAWS)).contains("humanize", "sieve", "stray").doesNotContain("transpose");
        assertThat(EffectCatalog.kinds().stream()
                        .filter(kind -> kind.nature().holdsNotes())
                        .map(EffectKind::id))
                .containsExactlyInAnyOrder("arpeggio", "lanes", "latch");
        assertThat(EffectCatalog.kinds().stream()
                        .filter(kind -> kind.nature().branches())
                        .map(EffectKind::id))
                .containsExactly("split");
    }

    private static List<String> with(Trait trait) {
        return EffectCatalog.kinds().stream()
                .filter(kind -> kind.has(trait))
                .map(EffectKind::id)
                .toList();
    }

    @Test
    void whatItDoesToMessagesAndAfterAStopFollowsItsSetting() {
        assertThat(messages("{'effect':'glide'}")).isTrue();
        assertThat(messages("{'effect':'send','to':'lead','messages':true}")).isTrue();
        assertThat(messages("{'effect':'send','to':'lead','messages':false}")).isFalse();
        assertThat(messages("{'effect':'controls','rules':[]}")).isFalse();
        assertThat(messages("{'effect':'controls','rules':[{'from':'controller','to':'drop'}]}"))
                .isTrue();
        assertThat(messages("{'effect':'touch'}")).isFalse();
        Stage rings = stage("{'effect':'echo','ring-out':true}");
        assertThat(rings.kind().nature().ringsOut(rings.params())).isTrue();
        Stage stops = stage("{'effect':'echo','ring-out':false}");
        assertThat(stops.kind().nature().ringsOut(stops.params())).isFalse();
    }

    private static boolean messages(String json) {
        Stage stage = stage(json);
        return stage.kind().nature().changesMessages(stage.params());
    }

    @Test
    void howLongAStepIsAndWhenRowsComeRound() {
        double sixteenth = Ticks.PER_QUARTER / 4.0;
        assertThat(step("{'effect':'arpeggio'}")).isEqualTo(sixteenth);
        assertThat(step("{'effect':'lanes','lanes':[{'pace':'1/8'},{'pace':'1/4'}]}"))
                .isEqualTo(2 * sixteenth);
        assertThat(step("{'effect':'lanes','lanes':[{'pace':'1/8','on':false},{'pace':'1/4'}]}"))
                .isEqualTo(4 * sixteenth);
        assertThat(step("{'effect':'echo'}")).isNaN();
        assertThat(round("{'effect':'pulse','steps':12}")).isEqualTo(12 * sixteenth);
        assertThat(round("{'effect':'arpeggio','pattern':[{},{},{}]}")).isEqualTo(3 * sixteenth);
        assertThat(round("{'effect':'arpeggio'}")).isNaN();
        assertThat(round("{'effect':'echo'}")).isNaN();
    }

    private static double step(String json) {
        Stage stage = stage(json);
        return stage.kind().nature().stepTicks(stage.params(), TimeMap.DEFAULT);
    }

    private static double round(String json) {
        Stage stage = stage(json);
        return stage.kind().nature().roundTicks(stage.params(), TimeMap.DEFAULT);
    }

    @Test
    void aRootSetByHandBringsTheScaleOfTheKeyUnlessItHasOne() {
        for (String kind : List.of("scale-fit", "chord-keys")) {
            assertThat(completed(kind, "'root':'D'", "root").get(Root.SCALE)).contains(FLATS.scale());
            assertThat(completed(kind, "'root':'D'", "on").get(Root.SCALE)).isEmpty();
            assertThat(completed(kind, "'on':true", "root").get(Root.SCALE)).isEmpty();
            assertThat(completed(kind, "'root':'D','scale':'dorian'", "root").get(Root.SCALE))
                    .contains(Key.parse("D dorian").scale());
        }
        assertThat(completed("echo", "'repeats':2", "repeats")).isEqualTo(params("{'effect':'echo','repeats':2}"));
    }

    private static ParamSet completed(String kind, String values, String set) {
        ParamSet params = params("{'effect':'" + kind + "'," + values + "}");
        return EffectCatalog.of(kind).completed(params, params.spec().byId(set).orElseThrow(), FLATS);
    }

    private static ParamSet params(String json) {
        return stage(json).params();
    }

    private static Stage stage(String json) {
        return Played.chain(json).stages().get(0);
    }
}
