package harpel.offline;

import static org.assertj.core.api.Assertions.assertThat;

import harpel.chain.Stage;
import harpel.chain.StageAddress;
import harpel.format.PieceFile;
import harpel.phrase.Phrase;
import harpel.piece.Piece;
import harpel.time.Ticks;
import harpel.time.TimeMap;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** How long a round is, and that it holds what leaves the stage. */
class OneRoundTest {
    private static Piece piece(String stage, String more) throws Exception {
        return PieceFile.read(("{'harpel':1,'key':'C major','parts':[{'name':'Lead'" + more + ",'chain':[" + stage
                        + "]}]," + "'phrases':[{'name':'p','length':61440,'notes':[[0,61440,57,90],[0,61440,64,90]]}]}")
                .replace('\'', '"'));
    }

    private static Stage stage(Piece piece) {
        return piece.parts().get(0).chain().stages().get(0);
    }

    /** In beats of 4/4. */
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "{'effect':'arpeggio','pattern':[{},{},{},{},{},{},{},{}]} | 2",
                "{'effect':'arpeggio','pattern':[{},{},{},{},{}]} | 1.25",
                "{'effect':'arpeggio'} | 4",
                "{'effect':'echo'} | 4",
                "{'effect':'polymeter','rows':[{'of':'degree','values':[0,2,4]},{'of':'velocity','values':[100,50,50,50]}]} | 3",
                // Three against two sixteenths: six of them.
                "{'effect':'polymeter','rows':[{'of':'degree','values':[0,2,4]},{'of':'velocity','values':[100,50]}]} | 1.5",
                "{'effect':'arpeggio','pace':'1/8t','pattern':[{},{},{},{}]} | 1.3333333333",
                "{'effect':'pulse','steps':12} | 3",
            })
    void aRoundIsAsLongAsItsRowsTakeTogether(String stage, double beats) throws Exception {
        Piece piece = piece(stage, "");
        assertThat(OneRound.ticks(stage(piece), TimeMap.DEFAULT)).isEqualTo(Math.round(beats * Ticks.PER_QUARTER));
    }

    @Test
    void nothingIsFedToWhatPlaysByItself() throws Exception {
        Piece piece = piece("{'effect':'polymeter','rows':[{'of':'degree','values':[0,2]}]}", "");
        Phrase round = OneRound.of(piece, StageAddress.parse("lead/polymeter"), stage(piece));
        assertThat(round.notes().stream()).hasSize(2);
        assertThat(round.length()).isEqualTo(Ticks.PER_QUARTER / 2);
    }

    @Test
    void aRoundOfAnArpeggioIsWhatLeavesItOfThePhraseOrOfTheTriad() throws Exception {
        String arpeggio =
                "{'effect':'arpeggio','pace':'1/4','gate':50,'pattern':[{},{},{},{}]},{'effect':'transpose','octaves':1}";
        Piece withPhrase = piece(arpeggio, ",'phrase':'p'");
        Phrase round = OneRound.of(withPhrase, StageAddress.parse("lead/arpeggio"), stage(withPhrase));
        assertThat(notes(round))
                .as("before the transpose behind it")
                .containsExactly("57 0+7680", "64 15360+7680", "57 30720+7680", "64 46080+7680");
        Piece keys = piece(arpeggio, "");
        assertThat(notes(OneRound.of(keys, StageAddress.parse("lead/arpeggio"), stage(keys))))
                .as("C major's triad, held")
                .containsExactly("60 0+7680", "64 15360+7680", "67 30720+7680", "60 46080+7680");
        assertThat(round.name()).isEqualTo("Arpeggio round 1");
        assertThat(round.ready()).isFalse();
    }

    private static List<String> notes(Phrase phrase) {
        return phrase.notes().stream()
                .map(note -> note.pitch() + " " + note.tick() + "+" + note.length())
                .toList();
    }
}
