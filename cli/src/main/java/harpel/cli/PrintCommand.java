package harpel.cli;

import harpel.chain.Stage;
import harpel.engine.Plan;
import harpel.engine.PrintJob;
import harpel.engine.Tap;
import harpel.event.Event;
import harpel.format.AtomicFile;
import harpel.format.ChainFile;
import harpel.format.FileException;
import harpel.format.MidiFile;
import harpel.format.SmfReader;
import harpel.format.SmfWriter;
import harpel.param.ParamException;
import harpel.theory.Key;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

@Command(
        name = "print",
        description = {
            "Sends the notes of a MIDI file through a chain, faster than real time, and writes what comes out",
            "as a MIDI file with 960 ticks to a quarter, with the input's tempo and meter.",
            "Printing ends with the input's end of track rounded up to a bar, plus what rings out."
        },
        mixinStandardHelpOptions = true)
final class PrintCommand implements Callable<Integer> {
    private static final String STANDARD = "-";

    @Spec
    private CommandSpec spec;

    @Option(names = "--chain", required = true, paramLabel = "CHAIN", description = "The chain file (JSON).")
    private Path chainPath;

    @Parameters(paramLabel = "IN", description = "The MIDI file to read; - is standard input.")
    private String in;

    @Option(
            names = {"-o", "--out"},
            required = true,
            paramLabel = "OUT",
            description = "The MIDI file to write; - is standard output.")
    private String out;

    @Option(
            names = "--variation",
            paramLabel = "N",
            description = "The number that all chance depends on, 0–999999 (default 1).")
    private long variation = 1;

    @Option(names = "--bars", paramLabel = "N", description = "Print so many bars, whatever the length of the input.")
    private Integer bars;

    @Option(names = "--ring-out", description = "Let repeats of every stage finish after the end.")
    private boolean ringOut;

    @Option(
            names = "--format",
            paramLabel = "0|1",
            description = "One track (0), or tempo and notes in two (1, the default).")
    private int format = 1;

    @Option(
            names = "--stages",
            paramLabel = "DIR",
            description = "Also write what leaves each stage, one file each, into this folder.")
    private Path stages;

    @Override
    public Integer call() throws IOException, CouldNot, InterruptedException {
        check(variation >= 0 && variation <= 999_999, "--variation must be 0–999999 but was " + variation);
        check(bars == null || bars >= 1 && bars <= 100_000, "--bars must be 1–100000 but was " + bars);
        check(format == 0 || format == 1, "--format must be 0 or 1 but was " + format);
        ChainFile chain = readChain();
        MidiFile input = readMidi();
        input.repairs().forEach(repair -> warn(in + ": " + repair));

        Key key = chain.key() == null ? Key.C_MAJOR : chain.key();
        Plan plan = Plan.ofChain(chain.part(), chain.chain(), key, input.time(), variation);
        List<Event> events = input.events();
        long end = bars == null ? input.printedEnd() : input.time().meter().tickOfBar(bars);
        StageFiles taps = new StageFiles(stages != null);
        boolean listens = stages != null || chain.chain().stages().stream().anyMatch(PrintCommand::mayComplain);
        PrintJob.Result result =
                new PrintJob(plan, chain.part(), ringOut, listens ? taps : Tap.NONE).print(events, end);
        if (result.refused() > 0) {
            warn(result.refused() + " notes were left out: more sounded or waited at once than can be carried");
        }
        taps.complaints().forEach(this::warn);

        write(out, input, result.events(), result.lengthTicks());
        if (stages != null) {
            taps.write(
                    stages,
                    chain.chain(),
                    (file, stageEvents) -> write(file.toString(), input, stageEvents, result.lengthTicks()));
        }
        return taps.complaints().isEmpty() ? 0 : Main.COULD_NOT;
    }

    /** Whether a stage says things of its own; to listen to every note of the others would be slow. */
    private static boolean mayComplain(Stage stage) {
        return stage.isKnown()
                && (stage.kind().declaresMore()
                        || stage.branches().stream()
                                .anyMatch(branch ->
                                        branch.chain().stages().stream().anyMatch(PrintCommand::mayComplain)));
    }

    private void check(boolean fits, String message) {
        if (!fits) {
            throw new ParameterException(spec.commandLine(), message);
        }
    }

    private void warn(String text) {
        spec.commandLine().getErr().println("harpel: " + text);
    }

    private ChainFile readChain() throws IOException, CouldNot {
        try {
            ChainFile chain = ChainFile.read(Files.readString(chainPath, StandardCharsets.UTF_8));
            for (Stage stage : ChainFile.unknownStages(chain.chain())) {
                String what = chainPath + ": this version knows no effect \"" + stage.name() + "\"";
                if (chain.unknown().isEmpty()) {
                    throw new CouldNot(what + "; known are " + harpel.effect.EffectCatalog.ids());
                }
                warn(what + ", which a newer one wrote; its notes pass unchanged");
            }
            return chain;
        } catch (java.nio.charset.CharacterCodingException e) {
            throw new CouldNot(chainPath + ": a chain file is text in UTF-8, and this is not");
        } catch (FileException | ParamException e) {
            throw new CouldNot(chainPath + ": " + e.getMessage());
        }
    }

    private MidiFile readMidi() throws IOException, CouldNot {
        byte[] bytes;
        if (in.equals(STANDARD)) {
            bytes = System.in.readAllBytes();
        } else {
            try (InputStream stream = Files.newInputStream(Path.of(in))) {
                bytes = stream.readAllBytes();
            }
        }
        try {
            return SmfReader.read(bytes);
        } catch (FileException e) {
            throw new CouldNot(in + ": " + e.getMessage());
        }
    }

    private void write(String target, MidiFile input, List<? extends Event> events, long length) throws IOException {
        byte[] bytes = SmfWriter.write(format, input.time(), input.metas(), events, length);
        if (target.equals(STANDARD)) {
            System.out.write(bytes, 0, bytes.length);
            System.out.flush();
            if (System.out.checkError()) {
                throw new IOException("standard output could not be written");
            }
        } else {
            AtomicFile.write(Path.of(target), bytes);
        }
    }
}
