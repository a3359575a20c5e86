package harpel.cli;

import harpel.format.midi.SmfForm;
import harpel.offline.Tail;
import harpel.print.PrintFormat;
import harpel.print.PrintOrder;
import harpel.print.VariationNumbers;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

@Command(
        name = "print",
        description = {
            "Faster than real time, writes MIDI files, tables of notes (CSV, JSON) or sound files (WAV; for its rate, bits and",
            "loudness see sound): of parts of a piece (--piece), a named track each, with generators, routes, levers and",
            "movers; or of the notes of a MIDI file (IN) sent through a chain (--chain), with the input's tempo and meter, to",
            "its end of track rounded up to a bar.",
            "What is lost on the way, such as notes out of range, is said on standard error."
        },
        mixinStandardHelpOptions = true)
final class PrintCommand implements Callable<Integer> {
    private static final int MOST_FILES = 1_000;

    /** Those of all formats there are. */
    static final class Endings extends ArrayList<String> {
        Endings() {
            super(PrintFormat.all().stream().map(PrintFormat::ending).toList());
        }
    }

    @Spec
    private CommandSpec spec;

    @Mixin
    private PieceOptions what;

    @Option(names = "--chain", paramLabel = "CHAIN", description = "The chain file (JSON) to send IN through.")
    private Path chain;

    @Parameters(arity = "0..1", paramLabel = "IN", description = "The MIDI file to read; - is standard input.")
    private String in;

    @Option(
            names = {"-o", "--out"},
            required = true,
            paramLabel = "OUT",
            description =
                    "The file to write, - is standard output; with --variations a folder. Its ending says what it is; one that says nothing is a MIDI file.")
    private String out;

    @Option(
            names = "--as",
            paramLabel = "ENDING",
            completionCandidates = Endings.class,
            description = "What is written, where OUT does not say it by its ending: ${COMPLETION-CANDIDATES}.")
    private String as;

    @Option(
            names = "--variations",
            paramLabel = "1-12",
            description =
                    "Print several variations of the piece, such as 1-12 or 3,7,9, each into a file in the folder OUT.")
    private String variations;

    @Option(
            names = "--tail",
            paramLabel = "stop|ring|cut|round",
            description =
                    "At the end: stop as the transport does (default); let repeats of every stage ring; cut everything;"
                            + " or go round: the first round, with repeats that begin past its end laid over its beginning, so that a loop has no seam.")
    private String tail = "stop";

    @Option(
            names = "--format",
            paramLabel = "0|1",
            description = "One track (0), or tempo, meter and names in the first and notes in more (1, the default).")
    private int format = 1;

    @Option(
            names = "--division",
            paramLabel = "N",
            description = "Ticks to a quarter in the file, 24–32767 (default 960).")
    private int division = SmfForm.PLAIN.division();

    @Option(
            names = "--stages",
            paramLabel = "DIR",
            description =
                    "Of a chain or of one part: also write what leaves each stage, one file each, into this folder.")
    private Path stages;

    @Option(
            names = "--notes-only",
            description =
                    "Leave out the bank, program and level with which each part of a piece begins in a MIDI file.")
    private boolean notesOnly;

    @Option(names = "--strict", description = "Exit with 1 when anything was lost on the way.")
    private boolean strict;

    @Override
    public Integer call() throws IOException, CouldNot, InterruptedException {
        check(
                (what.piece == null) != (chain == null),
                "say what to print: --piece PIECE, or --chain CHAIN and a MIDI file");
        what.check();
        SmfForm form = form();
        Report report = new Report(spec.commandLine().getErr(), what.quiet);
        if (what.piece == null) {
            check(in != null, "a chain needs a MIDI file to send through it; - is standard input");
            check(
                    what.parts == null && what.fromBar == null && variations == null,
                    "--parts, --from-bar and --variations go with --piece");
            check(!what.stems, "--stems goes with --piece");
            new ChainPrint(report, format(), form)
                    .print(chain, in, out, what.variation == null ? 1 : what.variation, what.bars, tail(), stages);
        } else {
            check(in == null, "a piece has its own notes; it takes no MIDI file but was given " + in);
            check(what.variation == null || variations == null, "say --variation or --variations, not both");
            check(
                    stages == null || variations == null && what.parts != null && what.parts.size() == 1,
                    "--stages goes with --chain, or with one of --parts and one variation of a piece");
            printPiece(report, form);
        }
        return report.end(strict);
    }

    private void printPiece(Report report, SmfForm form) throws IOException, CouldNot, InterruptedException {
        PiecePrint printer = new PiecePrint(report);
        List<Long> several = variations == null ? List.of() : numbers(variations);
        PrintOrder order = printer.heard(what.order(printer.read(what.piece), tail()), what.stems);
        PrintFormat how = printer.of(format(), what.piece, order);
        if (several.isEmpty()) {
            printer.print(order, how, form, out, stages);
        } else {
            printer.print(order, several, how, form, Path.of(out));
        }
    }

    private PrintFormat format() {
        try {
            return as == null ? PrintFormat.ofFile(out) : PrintFormat.ofEnding(as);
        } catch (IllegalArgumentException e) {
            throw new ParameterException(spec.commandLine(), "--as " + e.getMessage(), e);
        }
    }

    private SmfForm form() {
        try {
            return new SmfForm(format, division, notesOnly);
        } catch (IllegalArgumentException e) {
            throw new ParameterException(spec.commandLine(), "--" + e.getMessage(), e);
        }
    }

    private Tail tail() {
        for (Tail one : Tail.values()) {
            if (one.name().equalsIgnoreCase(tail)) {
                return one;
            }
        }
        throw new ParameterException(
                spec.commandLine(), "--tail must be stop, ring, cut or round but was \"" + tail + "\"");
    }

    private List<Long> numbers(String text) {
        try {
            return VariationNumbers.parse(text, MOST_FILES);
        } catch (IllegalArgumentException e) {
            throw new ParameterException(spec.commandLine(), "--variations: " + e.getMessage(), e);
        }
    }

    private void check(boolean fits, String message) {
        if (!fits) {
            throw new ParameterException(spec.commandLine(), message);
        }
    }
}
