package harpel.cli;

import harpel.format.AtomicFile;
import harpel.print.Losses.Kind;
import harpel.print.Losses.Loss;
import harpel.time.TimeMap;
import java.io.IOException;
import java.io.PrintWriter;
import java.nio.file.Path;
import java.util.List;

/** What a command says on standard error while it works, and whether anything was lost. */
final class Report {
    /** In place of a file's name: standard input or output. */
    static final String STANDARD = "-";

    private final PrintWriter err;
    private final boolean quiet;
    private long lost;
    private long complaints;

    /** @param quiet whether nothing is said of what was written */
    Report(PrintWriter err, boolean quiet) {
        this.err = err;
        this.quiet = quiet;
    }

    /** Says what was written, and where. */
    void wrote(String what, String target) {
        if (!quiet && !target.equals(STANDARD)) {
            warn("wrote " + target + ": " + what);
        }
    }

    /** "132 notes in 4 bars". */
    static String of(long notes, TimeMap time, long from, long to) {
        long bars = time.meter().barAt(to - 1) - time.meter().barAt(from) + 1;
        return count(notes, "note") + " in " + count(bars, "bar");
    }

    static String count(long number, String what) {
        return number + " " + what + (number == 1 ? "" : "s");
    }

    void warn(String text) {
        err.println("harpel: " + text);
    }

    /** @param of what was printed, before each loss; empty where that is clear */
    void lost(String of, List<Loss> losses) {
        for (Loss loss : losses) {
            warn(of + loss.shown());
            lost += loss.count();
            complaints += loss.kind() == Kind.COMPLAINT ? 1 : 0;
        }
    }

    private boolean isClean() {
        return lost == 0 && complaints == 0;
    }

    /**
     * Says at the end what was lost in all.
     *
     * @param strict whether nothing may have been lost
     * @return what the command ends with: a stage that complained, such as a script, did not do its work
     */
    int end(boolean strict) {
        if (!isClean()) {
            warn((lost == 1 ? "1 note was" : lost + " notes were") + " lost on the way"
                    + (complaints == 0
                            ? ""
                            : complaints == 1 ? ", 1 stage complained" : ", " + complaints + " stages complained"));
        }
        return complaints > 0 || strict && !isClean() ? Main.COULD_NOT : 0;
    }

    static void write(String target, AtomicFile.Content content) throws IOException {
        if (target.equals(STANDARD)) {
            content.writeTo(System.out);
            System.out.flush();
            if (System.out.checkError()) {
                throw new IOException("standard output could not be written");
            }
        } else {
            AtomicFile.write(Path.of(target), content);
        }
    }
}
