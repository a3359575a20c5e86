package harpel.cli;

import harpel.advice.Advisor;
import harpel.format.FileException;
import harpel.format.PieceFile;
import harpel.format.midi.SmfForm;
import harpel.param.ParamException;
import harpel.piece.Part;
import harpel.piece.Piece;
import harpel.print.PrintFormat;
import harpel.print.PrintOrder;
import harpel.print.PrintPool;
import harpel.print.Printed;
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
            Piece piece = PieceFile.read(Files.readAllBytes(path));
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

    /** @param stages the folder for what leaves each stage of the only part, or null */
    void print(PrintOrder order, PrintFormat as, SmfForm form, String out, Path stages)
            throws IOException, InterruptedException {
        String part = order.parts().iterator().next();
        StageFiles taps = new StageFiles(part);
        Printed printed = order.print(done -> {}, stages == null ? Tap.NONE : taps);
        Report.write(out, as.write(printed.allNotes(), form));
        if (stages != null) {
            taps.write(
                    stages,
                    as.ending(),
                    order.piece().part(part).orElseThrow().chain(),
                    (file, events) -> Report.write(file.toString(), as.write(printed.notes("", events), form)));
        }
        report.lost("", printed.losses());
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
                Report.write(folder.resolve(name + "." + as.ending()).toString(), as.write(printed.allNotes(), form));
                report.lost(name + ": ", printed.losses());
            }
        } catch (ExecutionException e) {
            throw new CouldNot("this could not be printed: " + e.getCause());
        }
    }
}
