package harpel.advice;

import static org.assertj.core.api.Assertions.assertThat;

import harpel.chain.Stage;
import harpel.effect.held.Arpeggio;
import harpel.effect.pitch.Transpose;
import harpel.format.FileException;
import harpel.format.PieceFile;
import harpel.piece.Part;
import harpel.piece.Piece;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** Advice appears when it should, not otherwise, and its action makes it go away. */
class AdviceTest {
    private static final String CHORDS =
            ",'phrases':[{'name':'p','length':61440,'notes':[[0,100,60,90],[0,100,64,90],[0,100,67,90],%s[15360,100,60,90],"
                    + "[15360,100,64,90],[15360,100,67,90],[15360,100,70,90]]}]";

    private static Piece piece(String parts, String more) {
        try {
            return PieceFile.read(("{'harpel':1,'parts':[" + parts + "]" + more + "}").replace('\'', '"'));
        } catch (FileException e) {
            throw new AssertionError(e);
        }
    }

    private static Piece withChain(String chain, String more) {
        return piece("{'name':'Bells','phrase':'p','chain':[" + chain + "]}", more);
    }

    private static List<String> texts(Piece piece) {
        return Advisor.chain(piece, piece.parts().get(0)).stream()
                .map(Advice::text)
                .toList();
    }

    private static void advisesAndHelps(Piece piece, String text) {
        List<Advice> advice = Advisor.chain(piece, piece.parts().get(0));
        assertThat(advice).extracting(Advice::text).containsExactly(text);
        assertThat(texts(advice.get(0).fix().apply(piece))).isEmpty();
    }

    @Test
    void aPatternFedByAPattern() {
        advisesAndHelps(
                withChain("{'effect':'arpeggio'},{'effect':'arpeggio','id':'second'}", ""),
                "It is fed by Arpeggio and starts over with its notes, so that it never gets past its beginning.");
        assertThat(texts(withChain("{'effect':'arpeggio','on':false},{'effect':'arpeggio','id':'second'}", "")))
                .isEmpty();
        assertThat(texts(withChain("{'effect':'strum'},{'effect':'arpeggio'}", "")))
                .isEmpty();
    }

    @Test
    void theResultOfAChainIsWorkedOnTwice() {
        String kept = ",'phrases':[{'name':'p','length':61440,'notes':[[0,100,60,90]],%s"
                + "'origin':{'kind':'kept','from':'bells','details':'what it sent, bars 1–4'}}]";
        advisesAndHelps(
                withChain("{'effect':'echo'}", String.format(kept, "")),
                "“p” is the result of a chain and is worked on twice.");
        assertThat(texts(withChain("{'effect':'echo'}", String.format(kept, "'ready':true,"))))
                .isEmpty();
        assertThat(texts(withChain("", String.format(kept, "")))).isEmpty();
        assertThat(texts(withChain("{'effect':'echo'}", String.format(kept, "").replace("sent", "heard"))))
                .isEmpty();
    }

    @Test
    void unequalChords() {
        advisesAndHelps(
                withChain("{'effect':'arpeggio'}", String.format(CHORDS, "")),
                "Chords of 3 and 4 notes shift the pattern.");
        assertThat(texts(withChain("{'effect':'arpeggio'}", String.format(CHORDS, "[0,100,72,90],"))))
                .isEmpty();
        assertThat(texts(withChain("{'effect':'chord-keys'},{'effect':'arpeggio'}", String.format(CHORDS, ""))))
                .isEmpty();
    }

    @Test
    void aKeySetTooEarly() {
        advisesAndHelps(
                withChain("{'effect':'scale-fit'},{'effect':'harmony'}", ""),
                "What Harmony makes after it can leave the key.");
        assertThat(texts(withChain("{'effect':'harmony'},{'effect':'scale-fit'},{'effect':'touch'}", "")))
                .isEmpty();
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "'phrase':'gone'|It plays “gone”, and there is no such phrase.",
                "'sound':'Fog horn'|No sound is called “Fog horn”; Glass harp plays in its place.",
                "'chain':[{'effect':'echo','move':{'time':[{'by':'lever','lever':'Ebb'}]}}]|"
                        + "Echo follows the lever “Ebb”, and there is no such lever.",
            })
    void whatAPartNamesAndIsNotThereIsNamed(String field, String text) {
        Piece piece = piece("{'name':'Bells'," + field.replace("''", "'") + "}", "");
        List<Advice> advice = Advisor.missing(piece, piece.parts().get(0));
        assertThat(advice).extracting(Advice::text).containsExactly(text);
        Piece helped = advice.get(0).fix().apply(piece);
        assertThat(Advisor.missing(helped, helped.parts().get(0))).isEmpty();
    }

    @Test
    void aSendToNobody() {
        advisesAndHelps(
                withChain("{'effect':'send','to':'nobody'}", ""), "It sends to “nobody”, and there is no such part.");
        assertThat(texts(withChain("{'effect':'send','to':'output:Pier'},{'effect':'send','id':'s','to':4}", "")))
                .isEmpty();
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "'mute':true|Muted.",
                "'level':0|Its level is 0 %.",
                "'output':'Pier'|Its output “Pier” is not connected.",
                "'input':'none'|It hears nothing.",
                "'phrase':'gone'|It plays “gone”, and there is no such phrase.",
                "'input':{'output-of':'gone'}|It hears “gone”, and there is no such part.",
            })
    void aPartThatCannotSoundSaysWhy(String field, String text) {
        Piece piece = piece("{'name':'Bells'," + field.replace("''", "'") + "}", "");
        Optional<Advice> advice = Advisor.silence(piece, piece.parts().get(0), List.of(""));
        assertThat(advice).map(Advice::text).contains(text);
        Piece helped = advice.orElseThrow().fix().apply(piece);
        assertThat(Advisor.silence(helped, helped.parts().get(0), List.of(""))).isEmpty();
    }

    @Test
    void blocksOfAPhraseThatIsNotThere() {
        Piece piece = piece("{'name':'Bells','phrase':'gone','blocks':[{'at':0,'length':960,'phrase':'lost'}]}", "")
                .withTimeline(true);
        List<Advice> missing = Advisor.missing(piece, piece.parts().get(0));
        assertThat(missing).extracting(Advice::text).containsExactly("It plays “lost”, and there is no such phrase.");
        Piece helped = missing.get(0).fix().apply(piece);
        assertThat(helped.parts().get(0).blocks()).isEmpty();
        assertThat(helped.parts().get(0).phrase())
                .as("loops are not asked about now")
                .isEqualTo("gone");
    }

    @Test
    void anotherPartThatIsSolo() {
        Piece piece = piece("{'name':'Bells'},{'name':'Bass','solo':true}", "");
        Advice advice =
                Advisor.silence(piece, piece.parts().get(0), List.of("")).orElseThrow();
        assertThat(advice.text()).isEqualTo("Another part is solo.");
        assertThat(Advisor.silence(piece, piece.parts().get(1), List.of(""))).isEmpty();
        Piece helped = advice.fix().apply(piece);
        assertThat(Advisor.silence(helped, helped.parts().get(0), List.of(""))).isEmpty();
    }

    @Test
    void aPartThatPlaysByItselfNeedsToHearNothing() {
        Piece piece = piece("{'name':'Grains','input':'none','chain':[{'effect':'pulse'}]}", "");
        assertThat(Advisor.silence(piece, piece.parts().get(0), List.of(""))).isEmpty();
    }

    @Test
    void aDuplicateTakesTheNextFreeChannelAndName() {
        Piece piece = piece("{'name':'Bells','channel':9},{'name':'Bass','channel':11}", "")
                .withDuplicate("bells");
        Part copy = piece.parts().get(1);
        assertThat(copy.id()).isEqualTo("bells-2");
        assertThat(copy.name()).isEqualTo("Bells 2");
        assertThat(copy.channel() + 1).as("10 is percussion's, 11 taken").isEqualTo(12);
    }

    @Test
    void aPatternThatStartsOverSaysWhichOfItsStepsAreNeverReached() {
        String second = "{'effect':'arpeggio','id':'second','pace':'1/16','pattern':[{},{},{},{},{},{},{},{}]}";
        advisesAndHelps(
                withChain("{'effect':'pulse','pace':'1/8'}," + second, ""),
                "It is fed by Pulse and starts over with its notes, so that steps 3–8 are never reached.");
        assertThat(texts(withChain("{'effect':'pulse','pace':'2/1'}," + second, ""))
                        .get(0))
                .endsWith("it never gets past its beginning.");
    }

    @Test
    void pitchesOutsideTheRangeOfTheSoundAreBroughtBackByOctaves() {
        Piece piece = withChain("", "");
        Part bass = piece.parts().get(0).withSound("Round bass");
        Piece with = piece.withPart(bass.id(), before -> bass);
        Set<Integer> high = Set.of(60, 67, 68, 72);
        Advice advice = Advisor.outOfRange(with, bass, high).orElseThrow();
        assertThat(advice.text()).isEqualTo("2 of 4 pitches lie above where Round bass is at home: B0–G4");
        assertThat(advice.action()).isEqualTo("An octave down");
        Piece helped = advice.fix().apply(with);
        assertThat(octaves(helped)).isEqualTo(-1);
        assertThat(octaves(advice.fix().apply(helped))).as("one more").isEqualTo(-2);
        Advice low = Advisor.outOfRange(with, bass, Set.of(20, 40)).orElseThrow();
        assertThat(low.text()).startsWith("1 of 2 pitches lies below where");
        assertThat(octaves(low.fix().apply(with))).isEqualTo(1);
        assertThat(Advisor.outOfRange(with, bass, Set.of(23, 67)))
                .as("both ends belong to it")
                .isEmpty();
        assertThat(Advisor.outOfRange(with, bass.withSound("Lamp pad"), high))
                .as("a pad plays anywhere")
                .isEmpty();
        assertThat(Advisor.outOfRange(with, bass.withChannel(9), high))
                .as("drums have names")
                .isEmpty();
    }

    private static int octaves(Piece piece) {
        var stages = piece.parts().get(0).chain().stages();
        return stages.get(stages.size() - 1).params().get(Transpose.OCTAVES);
    }

    @Test
    void pitchesThatLeaveTheKeyAreCountedAndNamed() {
        Piece piece = withChain("{'effect':'harmony'}", "");
        Part part = piece.parts().get(0);
        Set<Integer> pitches = Set.of(60, 62, 64, 66, 67, 69, 71, 70, 72);
        Advice advice = Advisor.leavesTheKey(piece, part, pitches).orElseThrow();
        assertThat(advice.text()).isEqualTo("2 of 9 pitches leave the key: F♯4 A♯4");
        Part helped = advice.fix().apply(piece).parts().get(0);
        assertThat(helped.chain().stages()).hasSize(2);
        assertThat(Advisor.leavesTheKey(piece, helped, pitches)).isEmpty();
        assertThat(Advisor.leavesTheKey(piece, part, Set.of(60, 64))).isEmpty();
        assertThat(Advisor.leavesTheKey(piece, part.withChannel(9), pitches))
                .as("drums have no key")
                .isEmpty();
    }

    @Test
    void theStageWhereNotesStopIsNamed() {
        Piece piece = withChain("{'effect':'transpose'},{'effect':'voices'},{'effect':'touch'}", "");
        Part part = piece.parts().get(0);
        Map<String, Integer> left = Map.of("transpose", 8, "voices", 0, "touch", 0);
        Advice advice = Advisor.notesStop(part, 8, left::get).orElseThrow();
        assertThat(advice.stage()).isEqualTo("voices");
        assertThat(advice.text()).isEqualTo("Notes stop here: 8 came in, none went out.");
        Part helped = advice.fix().apply(piece).parts().get(0);
        assertThat(helped.chain().find("voices").orElseThrow().on()).isFalse();
        assertThat(Advisor.notesStop(part, 8, id -> 8)).isEmpty();
        assertThat(Advisor.notesStop(part, 0, id -> 0)).as("nothing came in").isEmpty();
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "{'effect':'sieve','chance':10}",
                "{'effect':'long-notes'}",
                "{'effect':'note-bend','to':'gull'}",
                "{'effect':'note-bend'}",
                "{'effect':'send','to':'gull','way':'instead'}"
            })
    void aStageThatIsMeantToSwallowIsLeftInPeace(String stage) {
        Part part = withChain(stage, "").parts().get(0);
        assertThat(Advisor.notesStop(part, 20, id -> 0)).isEmpty();
    }

    @Test
    void aStageBehindOneThatLetsNoNoteOnIsNamed() {
        advisesAndHelps(
                withChain("{'effect':'note-bend'},{'effect':'glide'}", ""),
                "No note comes here: Note Bend before it lets none on.");
        assertThat(texts(withChain("{'effect':'glide'},{'effect':'note-bend'}", "")))
                .isEmpty();
        assertThat(texts(withChain("{'effect':'note-bend'},{'effect':'pulse'}", "")))
                .as("it plays by itself")
                .isEmpty();
    }

    @Test
    void aPatternFedByAPatternOfAnotherPartIsSeenToo() {
        Piece piece = piece(
                "{'name':'Lead','chain':[{'effect':'arpeggio'}]},"
                        + "{'name':'Bells','input':{'output-of':'lead'},'chain':[{'effect':'arpeggio','start-over':'each-note'}]}",
                "");
        assertThat(Advisor.chain(piece, piece.parts().get(1)))
                .extracting(Advice::text)
                .containsExactly(
                        "It is fed by Arpeggio of Lead and starts over with its notes, so that it never gets past"
                                + " its beginning.");
        assertThat(Advisor.chain(piece, piece.parts().get(0))).isEmpty();
    }

    @Test
    void aStrumThatIsGivenSingleNotesIsOfferedChords() {
        Piece piece = withChain("{'effect':'strum'}", "");
        Part part = piece.parts().get(0);
        Stage strum = part.chain().stages().get(0);
        List<Long> single = List.of(0L, 15_360L, 30_720L, 46_080L);
        Advice advice = Advisor.oneByOne(part, strum, single).orElseThrow();
        assertThat(advice.text()).isEqualTo("Nothing for Strum to do: the notes come one at a time.");
        assertThat(advice.fix().apply(piece).parts().get(0).chain().stages())
                .extracting(stage -> stage.kind().id())
                .containsExactly("chord-keys", "strum");
        assertThat(Advisor.oneByOne(part, strum, List.of(0L, 0L, 15_360L, 15_370L, 30_000L)))
                .as("chords, and a single note")
                .isEmpty();
        assertThat(Advisor.oneByOne(part, strum, single.subList(0, 3))).isEmpty();
    }

    @Test
    void drumsHaveNoKey() {
        Piece piece = withChain("{'effect':'scale-fit'},{'effect':'harmony'}", "");
        Piece drums = piece.withPart(piece.parts().get(0).id(), part -> part.withChannel(9));
        assertThat(texts(drums)).isEmpty();
    }

    @Test
    void notesThatAreLetGoBeforeAStepAreLatched() {
        Piece piece = withChain("{'effect':'arpeggio','pace':'1/1'}", "");
        Part part = piece.parts().get(0);
        Advice advice = Advisor.notesStop(part, 5, id -> 0).orElseThrow();
        assertThat(advice.text()).isEqualTo("Notes stop here: 5 came and were let go before a step.");
        Stage helped = advice.fix().apply(piece).parts().get(0).chain().stages().get(0);
        assertThat(helped.params().get(Arpeggio.LATCH)).isEqualTo(Arpeggio.LatchMode.REPLACE);
        Piece sends = piece("{'name':'Bells','chain':[{'effect':'send','to':'gull'}]},{'name':'Gull','chain':[]}", "");
        assertThat(Advisor.notesStop(sends.parts().get(0), 9, id -> 0))
                .as("they go elsewhere")
                .isEmpty();
    }

    @Test
    void aMissingSoundDeviceOffersAnOutputThatIsThere() {
        Piece piece = withChain("", "");
        Part part = piece.parts().get(0);
        Advice advice = Advisor.noSound(part, "no device", List.of("", "Pier")).orElseThrow();
        assertThat(advice.action()).isEqualTo("Send to Pier");
        assertThat(advice.fix().apply(piece).parts().get(0).port()).isEqualTo("Pier");
        assertThat(Advisor.noSound(part, "", List.of("Pier"))).isEmpty();
        assertThat(Advisor.noSound(part, "no device", List.of(""))).isEmpty();
    }
}
