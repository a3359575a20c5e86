package harpel.bench;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.Locale;

/**
 * How much of the processors the host of a virtual machine gave to others, of what was asked for here: figures that were measured
 * meanwhile say little. Known on Linux alone (proc_stat(5), "steal").
 */
public final class Stolen {
    private static final Path STAT = Path.of("/proc/stat");
    private static final int IDLE = 4;
    private static final int WAITING = 5;
    private static final int STEAL = 8;

    private long stolen;
    private long asked;

    public Stolen() {
        since();
    }

    /** "the host took 12 %" since it was asked last; empty where that is not known. */
    public String since() {
        long[] now = read();
        if (now.length <= STEAL) {
            return "";
        }
        long taken = now[STEAL] - stolen;
        long all = Arrays.stream(now, 1, STEAL + 1).sum() - now[IDLE] - now[WAITING];
        double share = 100.0 * taken / Math.max(1, all - asked);
        stolen = now[STEAL];
        asked = all;
        return String.format(Locale.ROOT, "  [the host took %.0f %%]", share);
    }

    /** The first line, in its places; the first is the word "cpu". */
    private static long[] read() {
        try {
            String[] words = Files.readString(STAT).split("\n")[0].split("\\s+");
            return Arrays.stream(words)
                    .mapToLong(word -> word.equals("cpu") ? 0 : Long.parseLong(word))
                    .toArray();
        } catch (IOException | NumberFormatException e) {
            return new long[0];
        }
    }
}
