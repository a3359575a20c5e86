package harpel.cli;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.tuple;
import static org.assertj.core.api.Assertions.within;

import harpel.format.PieceFile;
import harpel.format.midi.MidiFile;
import harpel.format.midi.MidiFile.Note;
import harpel.format.midi.MidiPiece;
import harpel.format.midi.SmfReader;
import harpel.piece.Part;
import harpel.piece.Piece;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.PrintStream;
import java.io.PrintWriter;
import java.io.StringWriter;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HexFormat;
import java.util.List;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import picocli.CommandLine;

class CommandLineTest {
    private static final Path DEMO = Path.of("").toAbsolutePath().getParent().resolve("demo");
    private static final String CLOCK = DEMO.resolve("the-salt-clock.harpel").toString();
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
        CommandLine line = Main.commandLine(words);
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
        assertThat(printed("--tail", "ring").notes().stream()
                        .mapToLong(note -> note.tick() + note.lengthTicks())
                        .max()
                        .orElse(0))
                .isGreaterThan(5 * 61_440);
    }

    @Test
    void aTableOfNotesIsWrittenWhereTheEndingOrTheWordsSaySo() throws IOException {
        Path table = folder.resolve("out.csv");
        assertThat(run("print", "--chain", chain, TIDE, "-o", table.toString()))
                .as("%s", err)
                .isZero();
        List<String> lines = Files.readAllLines(table);
        assertThat(lines.get(0)).startsWith("part,start ticks,start beats,start seconds,pitch,name");
        assertThat(lines).hasSize(printed().notes().size() + 1);
        Path clock = folder.resolve("variations");
        assertThat(run(
                        "print",
                        "--piece",
                        CLOCK,
                        "--bars",
                        "2",
                        "--variations",
                        "3,4",
                        "--as",
                        "csv",
                        "-o",
                        clock.toString()))
                .as("%s", err)
                .isZero();
        assertThat(Files.readAllLines(clock.resolve("variation-4.csv"))).hasSizeGreaterThan(5);
        Path stages = folder.resolve("stages");
        assertThat(run("print", "--chain", chain, TIDE, "-o", table.toString(), "--stages", stages.toString()))
                .isZero();
        assertThat(Files.readString(stages.resolve("99-sound.csv"))).startsWith("part,");
        assertThat(run("print", "--piece", CLOCK, "--as", "tide", "-o", "x")).isEqualTo(Main.WRONG_WORDS);
        assertThat(err.toString()).contains("--as must be mid or wav or csv or json but was \"tide\"");
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
    void stagesOfAPartOfAPieceGetTheirFilesAtAnyDivision() throws IOException {
        Path stages = folder.resolve("stages");
        assertThat(run(
                        ("print --piece ../demo/the-salt-clock.harpel --parts harbour-bells --bars 2 --division 480 --stages "
                                        + stages + " -o " + folder.resolve("one.mid"))
                                .split(" ")))
                .isZero();
        byte[] whole = Files.readAllBytes(folder.resolve("one.mid"));
        byte[] last = Files.readAllBytes(stages.resolve("99-sound.mid"));
        assertThat((whole[12] & 0xFF) << 8 | whole[13] & 0xFF).isEqualTo(480);
        assertThat(SmfReader.read(last).notes())
                .isNotEmpty()
                .containsExactlyElementsOf(SmfReader.read(whole).notes());
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
                "print x.mid -o y.mid | say what to print: --piece PIECE, or --chain CHAIN and a MIDI file",
                "print --chain c.json --piece p.harpel -o y.mid | say what to print",
                "print --chain c.json -o y.mid | a chain needs a MIDI file",
                "print --chain c.json x.mid -o y.mid --parts a | --parts, --from-bar and --variations go with --piece",
                "print --piece p.harpel x.mid -o y.mid | takes no MIDI file but was given x.mid",
                "print --piece p.harpel -o y.mid --stages d | --stages goes with --chain, or with one of --parts",
                "print --chain c.json x.mid -o y.mid --division 23 | --division must be 24–32767 ticks to a quarter but was 23",
                "print --piece p.harpel -o y.mid --from-bar 0 | --from-bar must be 1–100000 but was 0",
                "print --piece p.harpel -o y.mid --variation 1 --variations 1-2 | not both",
                "print --piece p.harpel -o y.mid --variations 9-2 | --variations: variations rise, and are at most 1000",
                "print --piece p.harpel -o y.mid --variations x | --variations: variations are numbers 0–999999 like 41, 1-12 or 3,7,9 but were \"x\"",
                "print --chain c.json x.mid -o y.mid --tail fade | --tail must be stop, ring, cut or round but was \"fade\"",
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
                .as("also without --strict: the script did not do its work")
                .isEqualTo(1);
        assertThat(err.toString())
                .contains("chain, Script: line 1", "500000 steps", "switched off", "1 stage complained");
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
        assertThat(err.toString()).containsPattern("\\d+ notes left out, since more sounded");
    }

    private MidiFile printedPiece(String... more) throws IOException {
        String target = folder.resolve("piece.mid").toString();
        List<String> words = new ArrayList<>(List.of("print", "--piece", CLOCK, "-o", target));
        words.addAll(List.of(more));
        if (!words.contains("--timeline")) {
            words.add("--timeline=false");
        }
        assertThat(run(words.toArray(String[]::new))).as("%s", err).isZero();
        return SmfReader.read(Files.readAllBytes(Path.of(target)));
    }

    @Test
    void aPhraseThatIsNotThereIsNamed() throws IOException {
        Path piece = folder.resolve("gone.harpel");
        Files.writeString(piece, "{\"harpel\":1,\"parts\":[{\"name\":\"Bells\",\"phrase\":\"gone\"}]}");
        run(
                "print",
                "--piece",
                piece.toString(),
                "--bars",
                "1",
                "-o",
                folder.resolve("o.mid").toString());
        assertThat(err.toString()).contains("part “Bells”: It plays “gone”, and there is no such phrase.");
    }

    @Test
    void aPieceIsPrintedWithATrackAPart() throws IOException {
        assertThat(printedPiece().lines().stream().map(MidiFile.Line::name))
                .as("as it plays: what is mute is left out, and named")
                .containsExactly("Harbour bells", "Tide bass", "Gull whistle", "Lamp pad", "Salt grains");
        assertThat(err.toString())
                .contains("not printed, being mute or not solo: Crab walk, Tide pool; --stems prints these, too");
        MidiFile all = printedPiece("--stems");
        assertThat(all.lines().stream().map(MidiFile.Line::name))
                .as("each part of the piece, generators and those that hear others, too")
                .containsExactly(
                        "Harbour bells",
                        "Tide bass",
                        "Gull whistle",
                        "Lamp pad",
                        "Salt grains",
                        "Crab walk",
                        "Tide pool");
        assertThat(all.time().tempo().bpmAt(0)).isEqualTo(96);
        MidiFile two = printedPiece("--parts", "tide-bass,harbour-bells", "--bars", "2");
        assertThat(two.lines().stream().map(MidiFile.Line::name)).containsExactly("Tide bass", "Harbour bells");
        assertThat(two.endTick()).isEqualTo(2 * 61_440);
        assertThat(two.lines().get(1).notes())
                .as("what others are printed beside it changes nothing")
                .isEqualTo(
                        printedPiece("--parts", "harbour-bells", "--bars", "2").notes());
    }

    @Test
    void aPieceIsPrintedWithTheSoundsAndLevelsOfItsPartsAndReadWithThemAgain() throws IOException {
        Piece piece = PieceFile.read(Files.readString(Path.of(CLOCK)));
        MidiFile all = printedPiece("--stems");
        assertThat(MidiPiece.piece(all, all.lines(), "clock").parts())
                .extracting(part -> part.voice().played(), part -> part.mix().level(), Part::channel)
                .containsExactlyElementsOf(piece.parts().stream()
                        .map(part -> tuple(part.voice().played(), part.mix().level(), part.channel()))
                        .toList());
        assertThat(err.toString()).contains("harpel: wrote ", " notes in 4 bars");
        // MIDI 1.0: B0 00 and B0 20 choose the bank, C0 the program, B0 07 the volume. General MIDI 1: 93 is Pad 5.
        assertThat(all.messages().stream()
                        .limit(4)
                        .map(message -> HexFormat.of().withUpperCase().formatHex(message.bytes())))
                .containsExactly("B00000", "B02000", "C05C", "B0077F");
        err.getBuffer().setLength(0);
        MidiFile notes = printedPiece("--stems", "--notes-only", "--quiet");
        assertThat(notes.notes()).isEqualTo(all.notes());
        assertThat(notes.messages()).hasSize(all.messages().size() - 4 * 7);
        assertThat(err.toString()).doesNotContain("wrote");
    }

    @Test
    void aPrintThatBeginsLaterIsAsHeardThere() throws IOException {
        MidiFile second = printedPiece("--parts", "harbour-bells", "--from-bar", "3", "--bars", "1", "--tail", "cut");
        assertThat(second.notes()).isNotEmpty().allMatch(note -> note.tick() + note.lengthTicks() <= 61_440);
        MidiFile round = printedPiece("--parts", "harbour-bells", "--tail", "round");
        assertThat(round.endTick())
                .isEqualTo(printedPiece("--parts", "harbour-bells").endTick());
    }

    @Test
    void theTimelineIsPrintedWholeOrInPart() throws IOException {
        MidiFile whole = printedPiece("--timeline");
        assertThat(whole.endTick()).isEqualTo(32 * 61_440);
        assertThat(whole.time().tempo().bpmAt(31 * 61_440)).isCloseTo(104, within(0.01));
        MidiFile part = printedPiece("--timeline", "--parts", "tide-bass", "--from-bar", "1", "--bars", "8");
        assertThat(part.notes()).as("present from bar 5 on").isNotEmpty().allMatch(note -> note.tick() >= 4 * 61_440);
        assertThat(part.endTick()).isEqualTo(8 * 61_440);
        assertThat(run(
                        "print",
                        "--piece",
                        CLOCK,
                        "--tail",
                        "round",
                        "-o",
                        folder.resolve("x.mid").toString()))
                .isEqualTo(1);
        assertThat(err.toString()).contains("a timeline goes on and not round");
    }

    @Test
    void severalVariationsAreFilesInAFolder() throws IOException {
        Path target = folder.resolve("several");
        assertThat(run(
                        "print",
                        "--piece",
                        CLOCK,
                        "--parts",
                        "harbour-bells",
                        "--timeline=false",
                        "--variations",
                        "40-42",
                        "-o",
                        target.toString()))
                .as("%s", err)
                .isZero();
        try (var files = Files.list(target)) {
            assertThat(files.map(file -> file.getFileName().toString()).sorted())
                    .containsExactly("variation-40.mid", "variation-41.mid", "variation-42.mid");
        }
        byte[] own = Files.readAllBytes(target.resolve("variation-41.mid"));
        assertThat(SmfReader.read(own).notes())
                .as("the piece's own is 41")
                .isEqualTo(printedPiece("--parts", "harbour-bells").notes());
        assertThat(own).isNotEqualTo(Files.readAllBytes(target.resolve("variation-42.mid")));
    }

    @Test
    void whatIsLostIsCountedAndStrictIsStrict() throws IOException {
        chain = chain("{\"effect\":\"transpose\",\"octaves\":5}");
        printed();
        assertThat(err.toString())
                .containsPattern("chain, Transpose: \\d+ notes? outside 0–127")
                .containsPattern("\\d+ notes? (was|were) lost on the way");
        String target = folder.resolve("strict.mid").toString();
        assertThat(run("print", "--chain", chain, TIDE, "-o", target, "--strict"))
                .isEqualTo(1);
        assertThat(Path.of(target)).exists();
        assertThat(run("print", "--piece", CLOCK, "--parts", "oboe", "-o", target))
                .isEqualTo(1);
        assertThat(err.toString()).contains("there is no part \"oboe\"; there are harbour-bells");
        assertThat(run("print", "--piece", TIDE, "-o", target)).isEqualTo(1);
        assertThat(err.toString()).contains("tide-table.mid: this is not a file of Harpel but a MIDI file");
    }

    @Test
    void aPieceIsWrittenAsASoundFileOrOneForEachPart() throws Exception {
        Path whole = folder.resolve("clock.wav");
        assertThat(run(
                        "sound",
                        "--piece",
                        CLOCK,
                        "--bars",
                        "1",
                        "--rate",
                        "48000",
                        "--bits",
                        "24",
                        "-o",
                        whole.toString()))
                .as("%s", err)
                .isZero();
        var format = javax.sound.sampled.AudioSystem.getAudioFileFormat(whole.toFile());
        assertThat(format.getFormat().getSampleRate()).isEqualTo(48_000);
        assertThat(format.getFrameLength() / 48_000.0)
                .as("a bar at 96 bpm and what rings")
                .isBetween(2.5, 25.0);
        Path parts = folder.resolve("parts");
        assertThat(run(
                        "sound",
                        "--piece",
                        CLOCK,
                        "--bars",
                        "1",
                        "--parts",
                        "tide-bass,lamp-pad",
                        "--each-part",
                        "-o",
                        parts.toString()))
                .isZero();
        try (var files = Files.list(parts)) {
            assertThat(files.map(file -> file.getFileName().toString()).sorted())
                    .containsExactly("lamp-pad.wav", "tide-bass.wav");
        }
        assertThat(run(
                        "sound",
                        "--piece",
                        CLOCK,
                        "--each-part",
                        "-o",
                        folder.resolve("x.wav").toString()))
                .isEqualTo(2);
        assertThat(err.toString()).contains("x.wav is named like a file").contains("folder");
        assertThat(folder.resolve("x.wav")).doesNotExist();
        Path loud = folder.resolve("loud.wav");
        assertThat(run("sound", "--piece", CLOCK, "--bars", "1", "--loudness", "-o", loud.toString()))
                .as("%s", err)
                .isZero();
        assertThat(loud).isNotEmptyFile();
        assertThat(err.toString()).contains("not printed, being mute or not solo: Crab walk, Tide pool");
        String sound = folder.resolve("sound.wav").toString();
        String print = folder.resolve("print.wav").toString();
        assertThat(run("sound", "--piece", CLOCK, "--bars", "1", "--parts", "lamp-pad", "-o", sound))
                .isZero();
        assertThat(run("print", "--piece", CLOCK, "--bars", "1", "--parts", "lamp-pad", "--tail", "ring", "-o", print))
                .isZero();
        assertThat(Path.of(print)).as("a sound file is a kind of print").hasSameBinaryContentAs(Path.of(sound));
        assertThat(run("sound", "--piece", CLOCK, "--loudness=5", "-o", loud.toString()))
                .isEqualTo(2);
        assertThat(err.toString()).contains("−60–0 LUFS").contains("5.0");
        assertThat(run("sound", "--piece", CLOCK, "--rate", "22050", "-o", whole.toString()))
                .isEqualTo(2);
        assertThat(err.toString()).contains("44100 or 48000").contains("22050");
        assertThat(run("sound", "--piece", CLOCK, "--bars", "0", "-o", whole.toString()))
                .isEqualTo(2);
        assertThat(err.toString()).contains("--bars must be 1–100000 but was 0");
        assertThat(run("sound", "--piece", CLOCK, "--sounds", TIDE, "-o", whole.toString()))
                .isEqualTo(1);
        assertThat(err.toString()).contains("tide-table.mid: this is neither a SoundFont 2 nor a DLS file");
    }
}
