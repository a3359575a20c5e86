package harpel.format;

import java.lang.management.ManagementFactory;
import java.lang.management.MemoryPoolMXBean;
import java.lang.management.MemoryType;
import java.lang.management.MemoryUsage;

/** The memory that what is read may take: all that is left but for a reserve, so that what plays meanwhile has enough. */
final class Room {
    /** What playing, drawing and keeping unsaved work may need while a file is read. */
    private static final long RESERVE = 64L << 20;

    private static final long LEAST = 8L << 20;

    private final long most;
    private long taken;

    Room() {
        most = left();
    }

    /** How many bytes may still be taken, by what the last collection left. */
    static long left() {
        long live = ManagementFactory.getMemoryPoolMXBeans().stream()
                .filter(pool -> pool.getType() == MemoryType.HEAP)
                .map(MemoryPoolMXBean::getCollectionUsage)
                .filter(usage -> usage != null)
                .mapToLong(MemoryUsage::getUsed)
                .sum();
        return Math.max(LEAST, Runtime.getRuntime().maxMemory() - live - RESERVE);
    }

    /** @throws FileException when there is no more */
    void take(long bytes) throws FileException {
        taken += bytes;
        if (taken > most) {
            throw new FileException("this file is too large: what it holds takes more than the " + (most >> 20)
                    + " MB of memory that are left");
        }
    }
}
