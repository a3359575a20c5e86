package harpel.cli;

import harpel.advice.Advisor;
import harpel.format.FileException;
import harpel.format.InFile;
import harpel.format.PieceFile;
import harpel.format.midi.SmfForm;
import harpel.param.ParamException;
import harpel.piece.Part;
import harpel.piece.Piece;
import harpel.print.PrintFormat;
import harpel.print.PrintOrder;
import harpel.print.PrintPool;
import harpel.print.Printed;
import harpel.print.PrintedNotes;
import harpel.print.StageFiles;
import harpel.run.Tap;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.Future;

/** Prints parts of a piece, with all that they hear of others. */
final class PiecePrint {
    private final Report report;

    PiecePrint(Report report) {
        this.report = report;
    }

    Piece read(Path path) throws IOException, CouldNot {
        try {
            Piece piece = PieceFile.read(InFile.read(path));
            if (PieceFile.isNewer(piece)) {
                report.warn(path + ": a newer version wrote this piece");
            }
            PieceFile.unknown(piece)
                    .forEach(what -> report.warn(path + ": this version does not know " + what + ", and keeps it"));
            for (Part part : piece.parts()) {
                Advisor.missing(piece, part)
                        .forEach(advice -> report.warn(path + ", part “" + part.name() + "”: " + advice.text()));
            }
            return piece;
        } catch (FileException | ParamException e) {
            throw new CouldNot(path + ": " + e.getMessage());
        }
    }

    /**
     * Without parts that are not heard, which are named.
     *
     * @param stems whether these are wanted, too
     */
    PrintOrder heard(PrintOrder order, boolean stems) throws CouldNot {
        List<Part> silent = order.parts().stream()
                .map(id -> order.piece().part(id).orElseThrow())
                .filter(part -> !order.piece().isHeard(part))
                .toList();
        if (stems || silent.isEmpty()) {
            return order;
        }
        String names = String.join(", ", silent.stream().map(Part::name).toList());
        if (silent.size() == order.parts().size()) {
            throw new CouldNot(
                    names + ": mute or not solo, so there is nothing to print; --stems prints what is not heard, too");
        }
        report.warn("not printed, being mute or not solo: " + names + "; --stems prints these, too");
        return order.without(silent.stream().map(Part::id).toList());
    }

    /** @param stages the folder for what leaves each stage of the only part, or null */
    void print(PrintOrder order, PrintFormat as, SmfForm form, String out, Path stages)
            throws IOException, InterruptedException {
        String part = order.parts().iterator().next();
        StageFiles taps = new StageFiles(part);
        Printed printed = order.print(done -> {}, stages == null ? Tap.NONE : taps);
        write(out, as, printed.allNotes(), form);
        report.wrote(said(printed), out);
        if (stages != null) {
            taps.write(
                    stages,
                    as.ending(),
                    order.piece().part(part).orElseThrow().chain(),
                    (file, events) -> write(file.toString(), as, printed.notes(part, "", events), form));
        }
        report.lost("", printed.losses());
    }

    /** Prints each part into a file of its own in a folder. */
    void printParts(PrintOrder order, PrintFormat as, SmfForm form, Path folder)
            throws IOException, InterruptedException {
        Files.createDirectories(folder);
        Printed printed = order.print(done -> {});
        for (String part : order.parts()) {
            write(folder.resolve(part + "." + as.ending()).toString(), as, printed.notes(List.of(part)), form);
        }
        report.wrote(Report.count(order.parts().size(), as.name()) + ", " + said(printed), folder.toString());
        report.lost("", printed.losses());
    }

    /** As it is for a piece, with its sounds where it writes sound; these may be on another machine. Says what it lacks of the parts. */
    PrintFormat of(PrintFormat format, Path path, PrintOrder order) {
        PrintFormat own = format;
        try {
            own = format.of(order.piece(), path.toAbsolutePath().getParent());
        } catch (IOException e) {
            report.warn("the sounds of the piece cannot be used, the built-in ones are taken: " + e.getMessage());
        }
        own.lacks(order.parts().stream()
                        .map(id -> order.piece().part(id).orElseThrow())
                        .toList())
                .forEach(report::warn);
        return own;
    }

    private static void write(String out, PrintFormat as, PrintedNotes notes, SmfForm form) throws IOException {
        Report.write(out, file -> as.write(notes, form, file, done -> {}));
    }

    private static String said(Printed printed) {
        PrintOrder order = printed.order();
        return Report.of(printed.count(), order.piece().time(), order.from(), order.to());
    }

    /** Prints several variations side by side, a file each in a folder. */
    void print(PrintOrder order, List<Long> variations, PrintFormat as, SmfForm form, Path folder)
            throws IOException, InterruptedException, CouldNot {
        Files.createDirectories(folder);
        try (PrintPool pool = new PrintPool()) {
            List<Future<Printed>> prints = new ArrayList<>();
            variations.forEach(variation -> prints.add(pool.print(order.withVariation(variation))));
            for (int i = 0; i < prints.size(); i++) {
                Printed printed = prints.get(i).get();
                String name = "variation-" + variations.get(i);
                write(folder.resolve(name + "." + as.ending()).toString(), as, printed.allNotes(), form);
                report.wrote(
                        said(printed), folder.resolve(name + "." + as.ending()).toString());
                report.lost(name + ": ", printed.losses());
            }
        } catch (ExecutionException e) {
            throw new CouldNot("this could not be printed: " + e.getCause());
        }
    }
}
