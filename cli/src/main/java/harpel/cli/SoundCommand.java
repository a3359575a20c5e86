package harpel.cli;

import harpel.device.SoundBank;
import harpel.offline.Tail;
import harpel.piece.Piece;
import harpel.print.PrintOrder;
import harpel.print.Printed;
import harpel.sound.SoundFile;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
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
                    "A SoundFont 2 or DLS file in place of the piece's own: parts whose sound is named like one of its instruments"
                            + " play that.")
    private Path bank;

    @Option(
            names = "--loudness",
            arity = "0..1",
            fallbackValue = "-14",
            paramLabel = "LUFS",
            description =
                    "Bring the whole to this loudness (ITU-R BS.1770), -14 where none is said, as far as its true peak stays below"
                            + " -1 dBTP; without it the file is as loud as its parts make it.")
    private Double loudness;

    @Option(names = "--each-part", description = "A file for each part, in the folder OUT.")
    private boolean eachPart;

    @Override
    public Integer call() throws IOException, CouldNot, InterruptedException {
        try {
            // Before anything is read, so that it is said at once.
            brought(new SoundFile(rate, bits, null));
        } catch (IllegalArgumentException e) {
            throw new ParameterException(spec.commandLine(), e.getMessage(), e);
        }
        if (what.piece == null) {
            throw new ParameterException(spec.commandLine(), "say which piece: --piece PIECE");
        }
        what.check();
        if (eachPart
                && !Files.isDirectory(out)
                && out.toString().toLowerCase(Locale.ROOT).endsWith(".wav")) {
            throw new ParameterException(
                    spec.commandLine(),
                    "-o " + out + " is named like a file; with --each-part it is the folder for a file of each part");
        }
        Report report = new Report(spec.commandLine().getErr(), what.quiet);
        Piece piece = new PiecePrint(report).read(what.piece);
        SoundFile how = brought(new SoundFile(rate, bits, bank(piece, report)));
        PrintOrder order = what.order(piece, Tail.RING);
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
        missing.forEach(name -> report.warn("no sound \"" + name + "\" in "
                + (how.bank() == null ? "the built-in ones" : how.bank().path())
                + "; the built-in one of the same number is taken"));
        String written = Report.of(printed.count(), piece.time(), order.from(), order.to());
        report.wrote(
                eachPart ? Report.count(order.parts().size(), "sound file") + ", " + written : written, out.toString());
        return report.end(false);
    }

    private SoundFile brought(SoundFile how) {
        return loudness == null ? how : how.at(loudness);
    }

    /** The file that was named, which has to be there; else the piece's own, which may be on another machine. */
    private SoundBank bank(Piece piece, Report report) throws IOException {
        if (bank != null) {
            return SoundBank.read(bank);
        }
        if (piece.sounds().isEmpty()) {
            return null;
        }
        try {
            return SoundBank.read(what.piece.toAbsolutePath().resolveSibling(piece.sounds()));
        } catch (IOException e) {
            report.warn("the sounds of the piece cannot be used, the built-in ones are taken: " + e.getMessage());
            return null;
        }
    }
}
