package harpel.cli;

import harpel.format.AtomicFile;
import harpel.print.Losses.Kind;
import harpel.print.Losses.Loss;
import java.io.IOException;
import java.io.PrintWriter;
import java.nio.file.Path;
import java.util.List;

/** What a command says on standard error while it works, and whether anything was lost. */
final class Report {
    /** In place of a file's name: standard input or output. */
    static final String STANDARD = "-";

    private final PrintWriter err;
    private long lost;
    private long complaints;

    Report(PrintWriter err) {
        this.err = err;
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

    boolean isClean() {
        return lost == 0 && complaints == 0;
    }

    /** Says at the end what was lost in all. */
    void summary() {
        if (!isClean()) {
            warn((lost == 1 ? "1 note was" : lost + " notes were") + " lost on the way"
                    + (complaints == 0
                            ? ""
                            : complaints == 1 ? ", 1 stage complained" : ", " + complaints + " stages complained"));
        }
    }

    static void write(String target, byte[] bytes) throws IOException {
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
