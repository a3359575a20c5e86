package harpel.format;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.fasterxml.jackson.databind.ObjectMapper;
import harpel.param.ParamException;
import harpel.piece.Piece;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** What a newer version wrote is kept and written again, at every level; what is wrong in one of this version is refused by its path. */
class NewerFilesTest {
    private static final ObjectMapper JSON = new ObjectMapper();

    private static String text(String json) {
        return json.replace('\'', '"');
    }

    private static final String NEWER = text("""
            {'harpel': 9, 'piece': 'Fog', 'key': 'C major', 'variation': 3, 'tempo': 100, 'meter': '4/4', 'mood': {'a': [1, 2.5]},
             'parts': [{'name': 'Bells', 'phrase': 'tide', 'sound': 'Glass harp', 'channel': 2, 'shine': 7, 'input': {'network': 'pier'},
               'chain': [
                 {'effect': 'echo', 'fade': 30, 'haze': true, 'time': {'golden': 2},
                  'move': {'fade': [{'by': 'lever', 'lever': 'Tide', 'glide': 4}, {'by': 'weather', 'wind': 3}], 'haze': [{'by': 'moon'}]}},
                 {'effect': 'foghorn', 'depth': 4},
                 {'split': [{'chain': [{'effect': 'latch'}], 'tint': 'red'}]}]}],
             'phrases': [{'name': 'Tide', 'length': 61440, 'notes': [[0, 10, 60, 90], [5, 10, 61, 90, {'chance': 40, 'slide': 2}],
               [7, 7, 7, 7, 7, 7, 7]], 'weave': 'x'}],
             'levers': [{'name': 'Tide', 'value': 40.0, 'spring': true}],
             'marks': [{'at': 0, 'name': 'Ebb', 'bell': 2}],
             'loop': {'from': 0, 'to': 61440, 'on': true, 'seam': 'soft'}}
            """);

    @Test
    void everythingUnknownIsKeptAndWrittenAgain() throws Exception {
        Piece piece = PieceFile.read(NEWER);
        assertThat(JSON.readTree(PieceFile.write(piece))).isEqualTo(JSON.readTree(NEWER));
        assertThat(PieceFile.read(PieceFile.write(piece))).isEqualTo(piece);
        assertThat(PieceFile.unknown(piece))
                .contains("\"mood\" of the piece", "effect \"foghorn\" of Bells", "\"weave\" of phrase Tide")
                .contains(
                        "\"spring\" of lever Tide",
                        "\"bell\" of mark Ebb",
                        "\"seam\" of the loop",
                        "traits of notes of phrase Tide",
                        "a mover of \"haze\" of Echo of Bells");
    }

    @Test
    void whatIsKnownOfItCanBeChanged() throws Exception {
        Piece piece = PieceFile.read(NEWER).withName("Clear");
        String changed = PieceFile.write(piece);
        assertThat(JSON.readTree(changed)).isEqualTo(JSON.readTree(NEWER.replace("Fog", "Clear")));
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '"',
            value = {
                "'phrases':[{'length':10,'messages':[[0,'90 3C 64']]}] | phrases[0].messages[0] | notes, not messages",
                "'phrases':[{'length':10,'messages':[[0,'B0']]}] | phrases[0].messages[0] | two data bytes",
                "'phrases':[{'length':10,'messages':[[0,'FF']]}] | phrases[0].messages[0] | FF",
                "'phrases':[{'length':10,'messages':[[0,'C0 01 02']]}] | phrases[0].messages[0] | C0–DF with one",
                "'phrases':[{'length':10,'messages':[[0,'B0 40 80']]}] | phrases[0].messages[0] | 00–7F",
                "'phrases':[{'length':10,'notes':[[0,1,60,90,{'chance':101}]]}] | phrases[0].notes[0][4].chance | 0–100",
                "'phrases':[{'length':10,'notes':[[0,1,60,90,{'slide':1}]]}] | phrases[0].notes[0][4].slide | there is no",
                "'phrases':[{'length':10,'notes':[[0,1,60,90,1]]}] | phrases[0].notes[0][4] | object",
                "'phrases':[{'name':'A','length':1},{'name':'A','length':1}] | parts | two phrases",
                "'parts':[{'input':{'output-of':''}}] | parts[0].input | has a name",
                "'levers':[{'name':'A','spring':1}] | levers[0].spring | there is no",
                "'parts':[{'chain':[{'effect':'echo','move':{'fade':[{'by':'weather'}]}}]}] | move.fade[0].by | must be",
            })
    void whatIsWrongIsNamedByItsPath(String fields, String path, String why) {
        assertThatThrownBy(() -> PieceFile.read(text("{'harpel':1," + fields + "}")))
                .isInstanceOf(ParamException.class)
                .hasMessageContaining(path)
                .hasMessageContaining(why);
    }

    @Test
    void oddJsonIsReadOrRefusedInWords() throws Exception {
        assertThat(PieceFile.read("\uFEFF{\"harpel\":1,\"piece\":\"Fog\"}").name())
                .isEqualTo("Fog");
        assertThatThrownBy(() -> PieceFile.read("{\"harpel\":1,\"tempo\":1e400}"))
                .isInstanceOf(FileException.class)
                .hasMessageContaining("tempo: a number must be between");
        assertThatThrownBy(() -> Presets.read("{\"harpel\":1,\"presets\":[{\"name\":\"A\",\"stage\":null}]}"))
                .isInstanceOf(ParamException.class)
                .hasMessageContaining("must be an object");
        assertThatThrownBy(() -> Presets.read("{\"harpel\":1}")).hasMessageContaining("presets");
    }

    @Test
    void aPartKeepsItsPhraseWhenThatIsRenamed() throws Exception {
        Piece piece = PieceFile.read(
                text(
                        "{'harpel':1,'parts':[{'name':'A','phrase':'tide-table'}],'phrases':[{'name':'Tide table','length':4,'notes':[]}]}"));
        assertThat(piece.parts().get(0).phrase()).isEqualTo("tide-table");
        assertThat(piece.withPhrase(piece.phrases().get(0).withName("Ebb")).phrase("tide-table"))
                .map(phrase -> phrase.name())
                .contains("Ebb");
    }
}
