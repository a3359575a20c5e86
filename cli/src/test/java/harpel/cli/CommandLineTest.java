package harpel.cli;

import static org.assertj.core.api.Assertions.assertThat;

import harpel.format.MidiFile;
import harpel.format.MidiFile.Note;
import harpel.format.SmfReader;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.PrintStream;
import java.io.PrintWriter;
import java.io.StringWriter;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import picocli.CommandLine;

class CommandLineTest {
    private static final Path DEMO = Path.of("").toAbsolutePath().getParent().resolve("demo");
    private static final String TIDE = DEMO.resolve("tide-table.mid").toString();

    @TempDir
    Path folder;

    private final StringWriter out = new StringWriter();
    private final StringWriter err = new StringWriter();
    private String chain;

    @BeforeEach
    void writeChain() throws IOException {
        chain = chain(
                "{\"effect\":\"transpose\",\"octaves\":1},{\"effect\":\"stray\",\"amount\":100,\"together\":\"alike\",\"seed\":3}");
    }

    private String chain(String stages) throws IOException {
        Path file = folder.resolve("test.chain.json");
        Files.writeString(file, "{\"harpel\":1,\"key\":\"D dorian\",\"chain\":[" + stages + "]}");
        return file.toString();
    }

    private int run(String... words) {
        CommandLine line = Main.commandLine();
        line.setOut(new PrintWriter(out, true));
        line.setErr(new PrintWriter(err, true));
        return line.execute(words);
    }

    private MidiFile printed(String... more) throws IOException {
        String target = folder.resolve("out.mid").toString();
        String[] words = new String[more.length + 6];
        System.arraycopy(new String[] {"print", "--chain", chain, TIDE, "-o", target}, 0, words, 0, 6);
        System.arraycopy(more, 0, words, 6, more.length);
        assertThat(run(words)).as("%s", err).isZero();
        return SmfReader.read(Files.readAllBytes(Path.of(target)));
    }

    @Test
    void printingKeepsTempoMeterNamesAndLength() throws IOException {
        MidiFile in = SmfReader.read(Files.readAllBytes(Path.of(TIDE)));
        MidiFile out = printed();
        assertThat(out.time()).isEqualTo(in.time());
        assertThat(out.endTick()).isEqualTo(in.endTick());
        assertThat(out.metas()).hasSameSizeAs(in.metas());
        assertThat(out.notes()).hasSameSizeAs(in.notes());
    }

    @Test
    void theSameVariationGivesTheSameFileAndAnotherGivesAnother() throws IOException {
        var first = printed().notes();
        assertThat(printed().notes()).isEqualTo(first);
        assertThat(printed("--variation", "7").notes()).isNotEqualTo(first);
    }

    @Test
    void barsCutOrLengthenThePrint() throws IOException {
        assertThat(printed("--bars", "2").endTick()).isEqualTo(2 * 61_440);
        assertThat(printed("--bars", "9").endTick()).isEqualTo(9 * 61_440);
    }

    @Test
    void repeatsRingOutWhenAsked() throws IOException {
        chain = chain("{\"effect\":\"echo\",\"time\":\"1/1\",\"repeats\":2}");
        assertThat(printed().endTick()).isEqualTo(4 * 61_440);
        assertThat(printed("--ring-out").notes().stream()
                        .mapToLong(note -> note.tick() + note.lengthTicks())
                        .max()
                        .orElse(0))
                .isGreaterThan(5 * 61_440);
    }

    @Test
    void eachStageGetsItsFile() throws IOException {
        chain = chain("{\"effect\":\"transpose\",\"octaves\":1},{\"split\":[{},{\"chain\":[{\"effect\":\"echo\"}]}]}");
        printed("--stages", folder.resolve("stages").toString());
        try (var files = Files.list(folder.resolve("stages"))) {
            assertThat(files.map(file -> file.getFileName().toString()).sorted())
                    .containsExactly(
                            "00-input.mid", "01-transpose.mid", "02-split.mid", "02.2.01-echo.mid", "99-sound.mid");
        }
        MidiFile input = SmfReader.read(Files.readAllBytes(folder.resolve("stages/00-input.mid")));
        MidiFile transposed = SmfReader.read(Files.readAllBytes(folder.resolve("stages/01-transpose.mid")));
        assertThat(transposed.notes().stream().map(Note::pitch))
                .containsExactlyElementsOf(
                        input.notes().stream().map(note -> note.pitch() + 12).toList());
    }

    @Test
    void standardInputAndOutputAreFiles() throws IOException {
        InputStream inBefore = System.in;
        PrintStream outBefore = System.out;
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        try {
            System.setIn(new ByteArrayInputStream(Files.readAllBytes(Path.of(TIDE))));
            System.setOut(new PrintStream(bytes, true));
            assertThat(run("print", "--chain", chain, "-", "-o", "-")).isZero();
        } finally {
            System.setIn(inBefore);
            System.setOut(outBefore);
        }
        assertThat(SmfReader.read(bytes.toByteArray()).notes()).hasSize(17);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "print x.mid -o y.mid | Missing required option: '--chain=CHAIN'",
                "print --chain c.json x.mid | Missing required option: '--out=OUT'",
                "print --chain c.json x.mid -o y.mid --variation -1 | --variation must be 0–999999 but was -1",
                "print --chain c.json x.mid -o y.mid --bars 0 | --bars must be 1–100000 but was 0",
                "print --chain c.json x.mid -o y.mid --bars two | Invalid value for option '--bars'",
                "print --chain c.json x.mid -o y.mid --format 2 | --format must be 0 or 1 but was 2",
                "describe theremin | there is no effect \"theremin\"; known are",
                "describe --json --markdown | mutually exclusive",
                "paint | Unmatched argument"
            })
    void wrongWordsEndWith2(String words, String message) {
        assertThat(run(words.trim().split(" "))).isEqualTo(2);
        assertThat(err.toString()).contains(message);
        assertThat(out.toString()).isEmpty();
    }

    @Test
    void whatCouldNotBeDoneEndsWith1AndSaysWhere() throws IOException {
        Path broken = folder.resolve("broken.mid");
        Files.write(broken, new byte[] {'M', 'T', 'h', 'd', 0, 0});
        String target = folder.resolve("never.mid").toString();
        assertThat(run("print", "--chain", chain, broken.toString(), "-o", target))
                .isEqualTo(1);
        assertThat(err.toString()).contains("broken.mid: byte 0: expected a header chunk");
        assertThat(run("print", "--chain", chain, folder.resolve("none.mid").toString(), "-o", target))
                .isEqualTo(1);
        assertThat(err.toString()).contains("none.mid: there is no such file");
        assertThat(run("print", "--chain", chain("{\"effect\":\"echo\",\"fade\":101}"), TIDE, "-o", target))
                .isEqualTo(1);
        assertThat(err.toString()).contains("test.chain.json: chain[0].fade: must be 0–100 % but was 101");
        assertThat(run("print", "--chain", chain("{\"effect\":\"theremin\"}"), TIDE, "-o", target))
                .isEqualTo(1);
        assertThat(err.toString()).contains("knows no effect \"theremin\"");
        assertThat(Path.of(target)).doesNotExist();
    }

    @Test
    void describeSaysEverythingInEveryForm() {
        assertThat(run("describe", "echo")).isZero();
        assertThat(out.toString()).contains("repeats", "0–16 (default 3)", "60, 36, 22, 13");
        assertThat(run("describe")).isZero();
        assertThat(out.toString()).contains("arpeggio – Arpeggio", "split – Split");
        assertThat(run("describe", "touch", "--json")).isZero();
        assertThat(out.toString()).contains("\"effect\": \"touch\"");
        assertThat(run("describe", "touch", "--markdown")).isZero();
        assertThat(out.toString()).contains("### Touch (`touch`)");
        assertThat(err.toString()).isEmpty();
    }

    @Test
    void describeListsPresetsAndOnesOwnAndNamesWhatIsWrong() throws Exception {
        Path presets = Files.createDirectories(folder.resolve("home/presets"));
        Files.writeString(
                presets.resolve("mine.json"),
                "{\"harpel\":1,\"presets\":[{\"name\":\"Pier echo\",\"does\":\"Mine.\",\"stage\":{\"effect\":\"echo\"}}]}");
        Files.writeString(presets.resolve("torn.json"), "{");
        String before = System.getProperty("harpel.home");
        System.setProperty("harpel.home", folder.resolve("home").toString());
        try {
            assertThat(run("describe", "--presets")).isZero();
        } finally {
            if (before == null) {
                System.clearProperty("harpel.home");
            } else {
                System.setProperty("harpel.home", before);
            }
        }
        assertThat(out.toString())
                .contains("Dotted eighth", "Pier echo", "Whole chains", "Strummed guitar from single keys");
        assertThat(err.toString()).contains("torn.json");
    }

    @Test
    void aScriptIsPrintedAndItsFaultsAreNamed() throws Exception {
        Path chain = folder.resolve("script.json");
        Files.writeString(
                chain,
                "{\"harpel\":1,\"chain\":[{\"effect\":\"script\",\"code\":\"const up = control('up', {low: 0, high: 9, value: 4});\","
                        + "\"up\":12}]}");
        assertThat(run("print", "--chain", chain.toString(), "x.mid", "-o", "y.mid"))
                .isEqualTo(1);
        assertThat(err.toString()).contains("chain[0].up: must be 0–9 but was 12");
        Path failing = folder.resolve("failing.json");
        Files.writeString(
                failing,
                "{\"harpel\":1,\"chain\":[{\"effect\":\"script\",\"code\":\"function onNote(n) { play(n); while (true) {} }\"}]}");
        assertThat(run(
                        "print",
                        "--chain",
                        failing.toString(),
                        TIDE,
                        "-o",
                        folder.resolve("y.mid").toString()))
                .isEqualTo(1);
        assertThat(err.toString()).contains("chain/script: line 1", "500000 steps", "switched off");
        assertThat(SmfReader.read(Files.readAllBytes(folder.resolve("y.mid"))).notes())
                .as("its notes pass")
                .hasSize(17);
    }

    /** Standard MIDI Files 1.0: a variable-length number is at most 0FFFFFFF; a longer rest has something in between. */
    @Test
    void nothingAndVeryLongIsPrintedToo() throws IOException {
        Path empty = folder.resolve("empty.mid");
        Files.write(empty, java.util.HexFormat.of().parseHex("4d546864000000060000000100604d54726b0000000400ff2f00"));
        String target = folder.resolve("out.mid").toString();
        assertThat(run("print", "--chain", chain, empty.toString(), "-o", target))
                .as("%s", err)
                .isZero();
        assertThat(SmfReader.read(Files.readAllBytes(Path.of(target))).notes()).isEmpty();
        assertThat(printed("--bars", "100000").endTick()).isEqualTo(100_000 * 61_440L);
    }

    @Test
    void moreNotesThanCanBeCarriedAreLeftOutAndCounted() throws IOException {
        String echo = "{\"effect\":\"echo\",\"repeats\":16,\"time\":\"1/1\",\"fade\":0}";
        chain = chain(String.join(",", java.util.Collections.nCopies(12, echo)));
        printed("--bars", "20");
        assertThat(err.toString()).containsPattern("\\d+ notes were left out");
    }
}
