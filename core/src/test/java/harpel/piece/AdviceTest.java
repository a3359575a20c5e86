package harpel.piece;

import static org.assertj.core.api.Assertions.assertThat;

import harpel.format.FileException;
import harpel.format.PieceFile;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

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
        return Advice.chain(piece, piece.parts().get(0)).stream()
                .map(Advice::text)
                .toList();
    }

    private static void advisesAndHelps(Piece piece, String text) {
        List<Advice> advice = Advice.chain(piece, piece.parts().get(0));
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
                "'mute':true|It is mute.",
                "'level':0|Its level is 0 %.",
                "'output':'Pier'|Its output “Pier” is not connected.",
                "'input':'none'|It hears nothing.",
                "'input':{'output-of':'gone'}|It hears “gone”, and there is no such part.",
            })
    void aPartThatCannotSoundSaysWhy(String field, String text) {
        Piece piece = piece("{'name':'Bells'," + field.replace("''", "'") + "}", "");
        Optional<Advice> advice = Advice.silence(piece, piece.parts().get(0), List.of(""));
        assertThat(advice).map(Advice::text).contains(text);
        Piece helped = advice.orElseThrow().fix().apply(piece);
        assertThat(Advice.silence(helped, helped.parts().get(0), List.of(""))).isEmpty();
    }

    @Test
    void anotherPartThatIsSolo() {
        Piece piece = piece("{'name':'Bells'},{'name':'Bass','solo':true}", "");
        Advice advice = Advice.silence(piece, piece.parts().get(0), List.of("")).orElseThrow();
        assertThat(advice.text()).isEqualTo("Another part is solo.");
        assertThat(Advice.silence(piece, piece.parts().get(1), List.of(""))).isEmpty();
        Piece helped = advice.fix().apply(piece);
        assertThat(Advice.silence(helped, helped.parts().get(0), List.of(""))).isEmpty();
    }

    @Test
    void aPartThatPlaysByItselfNeedsToHearNothing() {
        Piece piece = piece("{'name':'Grains','input':'none','chain':[{'effect':'pulse'}]}", "");
        assertThat(Advice.silence(piece, piece.parts().get(0), List.of(""))).isEmpty();
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
}
