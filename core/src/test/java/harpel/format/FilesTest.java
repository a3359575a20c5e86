package harpel.format;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.networknt.schema.InputFormat;
import com.networknt.schema.Schema;
import com.networknt.schema.SchemaRegistry;
import com.networknt.schema.SpecificationVersion;
import harpel.chain.Chain;
import harpel.chain.StageAddress;
import harpel.effect.EffectCatalog;
import harpel.effect.EffectKind;
import harpel.effect.shape.Touch;
import harpel.format.midi.SmfReader;
import harpel.param.ParamException;
import harpel.piece.Part;
import harpel.piece.Piece;
import harpel.testkit.Randoms;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.MethodSource;

class FilesTest {
    private static final Path ROOT = Path.of("").toAbsolutePath().getParent();
    private static final ObjectMapper MAPPER = new ObjectMapper();

    private static ChainFile chain(String stages) throws FileException {
        return ChainFile.read("{\"harpel\":1,\"chain\":[" + stages.replace('\'', '"') + "]}");
    }

    @Test
    void theExampleOfTheDesignIsRead() throws FileException {
        ChainFile file = ChainFile.read("""
                {"harpel":1,"key":"D dorian","chain":[{"effect":"arpeggio","order":"up","pace":"1/8","gate":50},
                {"split":[{"chain":[]},{"takes":{"keys":["C2","B3"]},"chain":[{"effect":"echo"}]}]},
                {"effect":"harmony","voices":[{"semitones":4},{"degrees":2,"velocity":80,"chance":50}]},
                {"effect":"touch","range":[60,100]}]}""");
        assertThat(file.key().name()).isEqualTo("D dorian");
        assertThat(file.chain().stages()).hasSize(4);
        assertThat(file.chain().stages().get(1).branches()).hasSize(2);
        assertThat(ChainFile.read(file.write())).isEqualTo(file);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "{'effect':'arpeggio','gate':201} | chain[0].gate: must be 1–200 % but was 201",
                "{'effect':'arpeggio','gate':'long'} | chain[0].gate: must be 1–200 % but was \"long\"",
                "{'effect':'arpeggio','order':'sideways'} | chain[0].order: must be one of up, down",
                "{'effect':'arpeggio','pace':'1/3'} | chain[0].pace: a note value lies between 1/64 and 4/1",
                "{'effect':'arpeggio','pase':'1/8'} | chain[0].pase: there is no \"pase\" here; use one of order, pace",
                "{'effect':'arpeggio','pattern':[{},{'velocity':0}]} | chain[0].pattern[1].velocity: must be 1–127",
                "{'effect':'touch','range':[100,60]} | chain[0].range: the lower end comes first",
                "{'effect':'touch','range':[60,300]} | chain[0].range: must be 1–127 but was 300",
                "{'effect':'echo','shift':{'octaves':1}} | chain[0].shift: must be",
                "{'effect':'scale-fit','root':'H'} | chain[0].root: must be \"key\", \"played\" or a note name",
                "{'split':[{'takes':{'keys':['C2']}}]} | chain[0].split[0].takes.keys: must be a pair",
                "{'split':[]} | chain[0].split: a split has 1–16 branches but has 0",
                "{'split':[{'chain':[{'effect':'echo','repeats':17}]}]} | chain[0].split[0].chain[0].repeats: must be 0–16 but was 17",
                "{} | chain[0]: a stage has either an \"effect\"",
                "7 | chain[0]: must be an object"
            })
    void whatDoesNotFitNamesPathValueRangeAndWayOut(String stage, String message) {
        assertThatThrownBy(() -> chain(stage))
                .isInstanceOf(ParamException.class)
                .hasMessageStartingWith(message);
    }

    @Test
    void whatIsNotJsonNamesLineAndColumn() {
        assertThatThrownBy(() -> ChainFile.read("{\"harpel\":1,\n\"chain\":[}"))
                .isInstanceOf(FileException.class)
                .hasMessageStartingWith("line 2, column 10: this is not JSON");
        for (String other : new String[] {"[]", "7", "null", "Salt"}) {
            assertThatThrownBy(() -> ChainFile.read(other))
                    .isInstanceOf(FileException.class)
                    .hasMessage("this is not a file of Harpel but a text; files of Harpel begin with {");
        }
        assertThatThrownBy(() -> ChainFile.read(" \n")).hasMessage("this file is empty");
        assertThatThrownBy(() -> PieceFile.read("<!DOCTYPE html>")).hasMessageContaining("but a web page or XML");
        assertThatThrownBy(() -> PieceFile.read("{\"harpel\":1,\"chain\":[]}"))
                .hasMessage("this is a chain, not a piece");
        assertThatThrownBy(() -> ChainFile.read("{\"harpel\":1,\"parts\":[]}"))
                .hasMessage("this is a piece, not a chain");
        assertThatThrownBy(() -> ChainFile.read("{\"harpel\":1,\"map\":\"Pads\"}"))
                .hasMessage("this is a map of a controller, not a chain");
        assertThatThrownBy(() -> ChainFile.read("{\"harpel\":1,\"chain\":[]}\n {}"))
                .isInstanceOf(FileException.class)
                .hasMessage("line 2, column 2: expected the end after the object");
        assertThatThrownBy(() -> ChainFile.read("{\"harpel\":1,\"chain\":[],\"chain\":[]}"))
                .isInstanceOf(FileException.class)
                .hasMessageContaining("chain");
        assertThatThrownBy(() -> ChainFile.read("{\"harpel\":" + "[".repeat(100_000)))
                .isInstanceOf(FileException.class)
                .hasMessageContaining("depth");
        assertThatThrownBy(() -> ChainFile.read("{\"chain\":[]}")).hasMessageContaining("\"harpel\": 1");
        assertThatThrownBy(() -> ChainFile.read("{\"harpel\":1}")).hasMessageContaining("chain");
    }

    @Test
    void whatANewerVersionWroteIsKept() throws FileException {
        String text = """
                {"harpel":2,"mood":"foggy","chain":[{"effect":"tide-wheel","spokes":[1,2,{"x":null}]},
                {"effect":"echo","repeats":2,"wobble":7}]}""";
        ChainFile file = ChainFile.read(text);
        assertThat(ChainFile.unknownStages(file.chain())).hasSize(1);
        JsonNode again = read(file.write());
        assertThat(again).isEqualTo(read(text));
        assertThat(ChainFile.read(file.write())).isEqualTo(file);
    }

    private static JsonNode read(String json) {
        try {
            return MAPPER.readTree(json);
        } catch (IOException e) {
            throw new AssertionError(e);
        }
    }

    @Test
    void theIdsOfStagesAreWrittenOnlyWhereReadingWouldGiveOthers() throws FileException {
        ChainFile file = chain("{'effect':'echo'},{'effect':'echo'}");
        assertThat(file.chain().stages()).extracting(stage -> stage.id()).containsExactly("echo", "echo-2");
        assertThat(file.write()).doesNotContain("\"id\"");
        ChainFile moved = new ChainFile("x", null, file.chain().moved("echo", 1), Map.of());
        assertThat(moved.write()).contains("\"id\"");
        assertThat(ChainFile.read(moved.write())).isEqualTo(moved);
    }

    @Test
    void aPieceIsReadAsItWasSaved() throws FileException {
        for (long seed = 0; seed < 60; seed++) {
            Randoms randoms = new Randoms(seed);
            Piece piece = Piece.empty()
                    .withName("Tide " + seed)
                    .withKey(randoms.key())
                    .withTime(randoms.time())
                    .withVariation(seed)
                    .withPhrase(randoms.phrase("P"));
            String part = piece.parts().get(0).id();
            Piece full =
                    piece.withPart(part, one -> one.withChain(randoms.chain(2)).withPhrase("p"));
            assertThat(PieceFile.read(PieceFile.write(full))).isEqualTo(full);
        }
    }

    @Test
    void errorsInAPieceNameTheirPath() {
        assertThatThrownBy(() -> PieceFile.read("{\"harpel\":1,\"parts\":[{\"name\":\"A\",\"channel\":17}]}"))
                .hasMessage("parts[0].channel: must be a whole number 1–16 but was 17");
        assertThatThrownBy(() -> PieceFile.read("{\"harpel\":1,\"phrases\":[{\"notes\":[[0,10,128,90]]}]}"))
                .hasMessageStartingWith("phrases[0].notes[0]: must be a whole number 0–127 but was 128");
        assertThatThrownBy(() -> PieceFile.read("{\"harpel\":1,\"parts\":[{\"name\":\"A\"},{\"name\":\"A\"}]}"))
                .hasMessage("parts: two parts have the id \"a\"");
        assertThatThrownBy(() -> PieceFile.read("{\"harpel\":1,\"tempo\":0}"))
                .hasMessageStartingWith("tempo: tempo must be");
    }

    // The schema that ships

    private static Schema schema() throws IOException {
        return SchemaRegistry.withDefaultDialect(SpecificationVersion.DRAFT_2020_12)
                .getSchema(Files.readString(ROOT.resolve("docs/harpel.schema.json")));
    }

    /** Files are written by hand, too. */
    @Test
    void everyFieldOfTheSchemaSaysWhatItMeans() {
        List<String> silent = new ArrayList<>();
        describe(Reference.schema(), "", silent);
        assertThat(silent).isEmpty();
    }

    private static void describe(Object schema, String path, List<String> silent) {
        if (schema instanceof Map<?, ?> map) {
            if (map.get("properties") instanceof Map<?, ?> fields) {
                fields.forEach((field, one) -> {
                    boolean constant = ((Map<?, ?>) one).containsKey("const");
                    if (!constant && !(((Map<?, ?>) one).get("description") instanceof String)) {
                        silent.add(path + "." + field);
                    }
                });
            }
            map.forEach((name, inside) -> describe(inside, path + "." + name, silent));
        } else if (schema instanceof List<?> list) {
            list.forEach(inside -> describe(inside, path + "[]", silent));
        }
    }

    @Test
    void theSchemaThatShipsIsMadeFromTheDescriptors() throws IOException {
        assertThat(Files.readString(ROOT.resolve("docs/harpel.schema.json")))
                .as("make it again with: ./harpel describe --schema > docs/harpel.schema.json")
                .isEqualTo(Json.writeSorted(Reference.schema()));
    }

    @Test
    void theSchemaTakesWhatIsWrittenAndRefusesWhatIsRefused() throws IOException {
        Schema schema = schema();
        for (EffectKind kind : EffectCatalog.kinds()) {
            for (long seed = 0; seed < 25; seed++) {
                Randoms randoms = new Randoms(seed);
                Chain chain = Chain.EMPTY.plus(0, randoms.stage(kind, 1));
                String text = new ChainFile("p", randoms.key(), chain, Map.of()).write();
                assertThat(schema.validate(text, InputFormat.JSON))
                        .as("%s", text)
                        .isEmpty();
            }
        }
        assertThat(schema.validate("{\"harpel\":1,\"chain\":[{\"effect\":\"echo\",\"repeats\":17}]}", InputFormat.JSON))
                .isNotEmpty();
        assertThat(schema.validate("{\"harpel\":1,\"chain\":[{\"effect\":\"echo\",\"wobble\":1}]}", InputFormat.JSON))
                .isNotEmpty();
        assertThat(schema.validate("{\"harpel\":1,\"chain\":[{\"effect\":\"tide\"}]}", InputFormat.JSON))
                .isNotEmpty();
    }

    @Test
    void theReferenceThatShipsIsCurrent() throws IOException {
        assertThat(Files.readString(ROOT.resolve("docs/effects.md")))
                .as("make it again with: ./harpel describe --markdown > docs/effects.md")
                .isEqualTo(Reference.markdown());
    }

    @Test
    void everyParameterIsExplained() {
        for (EffectKind kind : EffectCatalog.kinds()) {
            assertThat(kind.spec().params()).allSatisfy(param -> {
                assertThat(param.help())
                        .as("%s %s", kind, param.id())
                        .endsWith(".")
                        .hasSizeGreaterThan(15);
                assertThat(Reference.text(kind)).contains(param.id());
            });
        }
    }

    // The demo

    static Stream<Path> demoFiles() throws IOException {
        return Files.walk(ROOT.resolve("demo")).filter(Files::isRegularFile).sorted();
    }

    @ParameterizedTest
    @MethodSource("demoFiles")
    void theDemoIsReadAndWrittenAsItIs(Path file) throws IOException {
        String name = file.getFileName().toString();
        if (name.endsWith(".mid")) {
            assertThat(SmfReader.read(Files.readAllBytes(file)).repairs()).isEmpty();
            return;
        }
        String text = Files.readString(file);
        assertThat(schema().validate(text, InputFormat.JSON)).isEmpty();
        String again = name.endsWith(".harpel")
                ? PieceFile.write(PieceFile.read(text))
                : ChainFile.read(text).write();
        assertThat(again).isEqualTo(text);
    }

    @Test
    void aFileIsReplacedWholeOrNotAtAll(@TempDir Path folder) throws IOException {
        Path file = folder.resolve("a.harpel");
        AtomicFile.write(file, "one".getBytes(StandardCharsets.UTF_8));
        AtomicFile.write(file, "two".getBytes(StandardCharsets.UTF_8));
        assertThat(file).hasContent("two");
        assertThat(Files.list(folder)).containsExactly(file);
        assertThatThrownBy(() -> AtomicFile.write(folder.resolve("none/b"), new byte[0]))
                .isInstanceOf(IOException.class);
    }

    @Test
    void addressesOfStagesAreReadBack() {
        StageAddress address = StageAddress.parse("lead/split.2/echo");
        assertThat(address).hasToString("lead/split.2/echo");
        assertThat(address.stageId()).isEqualTo("echo");
        assertThat(address.chainWay()).containsExactly(new StageAddress.Step("split", 2));
        assertThatThrownBy(() -> StageAddress.parse("lead")).hasMessageContaining("lead/split.2/echo");
    }

    @Test
    void anIdIsMadeFromAName() {
        assertThat(Part.idFor("Harbour bells")).isEqualTo("harbour-bells");
        assertThat(Part.idFor("!")).isEqualTo("part");
        assertThat(Chain.EMPTY
                        .plus(0, EffectCatalog.of("touch"))
                        .stages()
                        .get(0)
                        .params()
                        .get(Touch.CURVE))
                .isZero();
    }
}
