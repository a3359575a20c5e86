package harpel.cli;

import harpel.engine.Tail;
import harpel.print.PrintOrder;
import harpel.print.Printed;
import harpel.sound.SoundFile;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Spec;

@Command(
        name = "sound",
        description = {
            "Prints parts of a piece and writes them as a sound file (WAV, stereo), with the sounds, levels, mutes and solos",
            "of the parts, until the last of it has died away; faster than real time, and the same bytes each time."
        },
        mixinStandardHelpOptions = true)
final class SoundCommand implements Callable<Integer> {
    @Spec
    private CommandSpec spec;

    @Mixin
    private PieceOptions what;

    @Option(
            names = {"-o", "--out"},
            required = true,
            paramLabel = "OUT",
            description = "The WAV file to write; with --each-part a folder.")
    private Path out;

    @Option(names = "--rate", paramLabel = "44100|48000", description = "Samples a second (default 44100).")
    private int rate = 44_100;

    @Option(names = "--bits", paramLabel = "16|24", description = "Bits of a sample (default 16).")
    private int bits = 16;

    @Option(
            names = "--sounds",
            paramLabel = "FILE",
            description =
                    "A SoundFont 2 or DLS file: parts whose sound is named like one of its instruments play that.")
    private Path bank;

    @Option(names = "--each-part", description = "A file for each part, in the folder OUT.")
    private boolean eachPart;

    @Override
    public Integer call() throws IOException, CouldNot, InterruptedException {
        SoundFile how;
        try {
            how = new SoundFile(rate, bits, bank);
        } catch (IllegalArgumentException e) {
            throw new ParameterException(spec.commandLine(), e.getMessage(), e);
        }
        if (what.piece == null) {
            throw new ParameterException(spec.commandLine(), "say which piece: --piece PIECE");
        }
        what.check();
        Report report = new Report(spec.commandLine().getErr());
        PrintOrder order = what.order(new PiecePrint(report).read(what.piece), Tail.RING);
        Printed printed = order.print(done -> {});
        report.lost("", printed.losses());
        Set<String> missing = new LinkedHashSet<>();
        if (eachPart) {
            Files.createDirectories(out);
            for (String part : order.parts()) {
                missing.addAll(how.write(printed, List.of(part), out.resolve(part + ".wav"), done -> {}));
            }
        } else {
            missing.addAll(how.write(printed, out, done -> {}));
        }
        missing.forEach(name -> report.warn(bank + " has no sound \"" + name + "\"; the built-in one is taken"));
        report.summary();
        return 0;
    }
}
