package harpel.format;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ObjectNode;
import harpel.chain.Chain;
import harpel.param.ParamException;
import harpel.piece.Part;
import harpel.piece.Piece;
import harpel.piece.perform.Pad;
import harpel.testkit.Tries;
import harpel.time.TimeMap;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
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

    /** A pad that does what this version does not know, a moment with a state of its own, a bend in the tempo. */
    @Test
    void aValueOfANewerVersionIsWrittenUntilThatVeryThingIsEdited() throws Exception {
        String newer = text("""
                {'harpel': 9, 'piece': 'Fog', 'key': 'C major', 'variation': 3, 'meter': [{'at': 0, 'meter': '4/4', 'sway': 2}],
                 'tempo': [{'at': 0, 'bpm': 96, 'bend': 3}, {'at': 61440, 'bpm': 104}],
                 'parts': [{'name': 'Bells', 'sound': 'Glass harp', 'channel': 2, 'chain': []}], 'phrases': [],
                 'pads': [{'at': 0, 'does': 'warp', 'what': 'Ebb'}, {'at': 1, 'does': 'silence'}],
                 'moments': [{'name': 'Ebb', 'parts': {'bells': {'mute': true, 'tint': 'red'}}, 'levers': {}}]}""");
        Piece piece = PieceFile.read(newer);
        assertThat(piece.time().tempo().bpmAt(61_440))
                .as("what is known of it holds")
                .isEqualTo(104);
        assertThat(piece.moments().get(0).parts().get("bells").mute()).isTrue();
        assertThat(JSON.readTree(PieceFile.write(piece))).isEqualTo(JSON.readTree(newer));
        Pad edited = piece.pads().get(1).withName("Still");
        Piece elsewhere = piece.withPads(List.of(edited, piece.pads().get(0)));
        assertThat(PieceFile.write(elsewhere)).as("also in another place").contains("\"warp\"", "\"Still\"");
        Piece there = piece.withPads(List.of(piece.pads().get(0).withDoes(Pad.Does.PHRASE)));
        assertThat(PieceFile.write(there)).doesNotContain("warp").contains("\"phrase\"");
        assertThat(PieceFile.write(piece.withTime(TimeMap.DEFAULT))).doesNotContain("bend");
    }

    /**
     * The law of kept fields: unknown fields and values put in anywhere are all written again after anything else was edited. Each carries
     * a word of its own, which is there once or not at all.
     */
    @Test
    void whateverIsPutInAnywhereIsWrittenAgain() throws Exception {
        String demo = Files.readString(Path.of("../demo/the-salt-clock.harpel"));
        Tries.of(60, "kept fields", seed -> {
            Random random = new Random(seed);
            ObjectNode file = (ObjectNode) JSON.readTree(demo);
            file.put("harpel", 9);
            List<String> words = new ArrayList<>();
            for (int i = random.nextInt(5); i >= 0; i--) {
                words.add(putIn(file, random, "new-" + i));
            }
            // One may have been put in place of another.
            words.removeIf(word -> !file.toString().contains("\"" + word + "\""));
            Piece piece = PieceFile.read(file.toString());
            // What does not read at all, such as a part, stands behind the others then.
            hasOnce(PieceFile.write(piece), words);
            hasOnce(PieceFile.write(edited(piece, random)), words);
        });
    }

    private static void hasOnce(String text, List<String> words) {
        assertThat(words)
                .allSatisfy(word -> assertThat(text.split("\"" + word + "\"", -1))
                        .as("%s in%n%s", word, text)
                        .hasSize(2));
    }

    /** A field more in some object, or another value for a field. */
    private static String putIn(ObjectNode file, Random random, String word) {
        List<ObjectNode> objects = new ArrayList<>();
        collect(file, objects);
        ObjectNode object = objects.get(random.nextInt(objects.size()));
        List<String> fields = new ArrayList<>();
        object.fieldNames().forEachRemaining(fields::add);
        fields.removeAll(List.of(
                "harpel", "piece", "variation", "parts", "name", "id", "effect", "by", "at", "length", "split"));
        if (fields.isEmpty() || random.nextBoolean()) {
            object.put("field-" + word, word);
        } else {
            object.putObject(fields.get(random.nextInt(fields.size()))).put("value", word);
        }
        return word;
    }

    private static void collect(JsonNode node, List<ObjectNode> objects) {
        if (node instanceof ObjectNode object) {
            objects.add(object);
        }
        node.forEach(child -> collect(child, objects));
    }

    private static Piece edited(Piece piece, Random random) {
        Piece edited = piece.withName("Edited").withVariation(77);
        List<Part> parts = new ArrayList<>(edited.parts());
        parts.add(random.nextInt(parts.size()), Part.of("Extra", Chain.EMPTY));
        return edited.withParts(parts);
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

    /** RFC 3629: E9 begins a sequence of three bytes, so alone it is no UTF-8; it is the é of ISO 8859-1. */
    @Test
    void whatIsNoTextIsRefusedWithWhatItSeemsToBe() throws Exception {
        byte[] latin = "{\"harpel\":1,\"piece\":\"Mar\u00e9e\"}".getBytes(StandardCharsets.ISO_8859_1);
        assertThatThrownBy(() -> PieceFile.read(latin))
                .isInstanceOf(FileException.class)
                .hasMessageContaining("byte 24: E9")
                .hasMessageContaining("UTF-8");
        byte[] utf = "{\"harpel\":1,\"piece\":\"Mar\u00e9e\"}".getBytes(StandardCharsets.UTF_8);
        assertThat(PieceFile.read(utf).name()).isEqualTo("Mar\u00e9e");
        assertThatThrownBy(() -> PieceFile.read(new byte[] {'M', 'T', 'h', 'd', 0, 0}))
                .hasMessage("this is not a file of Harpel but a MIDI file");
        assertThatThrownBy(() -> ChainFile.read(new byte[] {'P', 'K', 3, 4, 0})).hasMessageContaining("a ZIP archive");
        assertThatThrownBy(() -> PieceFile.read(new byte[0])).isInstanceOf(FileException.class);
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
