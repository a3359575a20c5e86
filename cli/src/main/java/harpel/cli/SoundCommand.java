package harpel.cli;

import harpel.device.SoundBank;
import harpel.format.midi.SmfForm;
import harpel.offline.Tail;
import harpel.piece.Piece;
import harpel.print.PrintFormat;
import harpel.print.PrintOrder;
import harpel.sound.SoundFile;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Locale;
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
            "Prints parts of a piece and writes them as a sound file (WAV, stereo), with the sounds and levels of the parts",
            "that are heard, until the last of it has died away; faster than real time, and the same bytes each time."
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
        PiecePrint printer = new PiecePrint(report);
        Piece piece = printer.read(what.piece);
        SoundFile how = brought(new SoundFile(rate, bits, bank == null ? null : SoundBank.read(bank)));
        PrintOrder order = printer.heard(what.order(piece, Tail.RING), what.stems);
        PrintFormat as = printer.of(how, what.piece, order);
        if (eachPart) {
            printer.printParts(order, as, SmfForm.PLAIN, out);
        } else {
            printer.print(order, as, SmfForm.PLAIN, out.toString(), null);
        }
        return report.end(false);
    }

    private SoundFile brought(SoundFile how) {
        return loudness == null ? how : how.at(loudness);
    }
}
