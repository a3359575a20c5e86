package harpel.format;

import java.io.IOException;
import java.io.InputStream;
import java.lang.management.ManagementFactory;
import java.lang.management.MemoryPoolMXBean;
import java.lang.management.MemoryType;
import java.lang.management.MemoryUsage;
import java.nio.file.AccessDeniedException;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;

/** Reads files whole, as far as there is memory for them, and says in words why one cannot be read. */
public final class InFile {
    /** Of the memory that is left, a file may take one part in so many: what is made of it takes more. */
    private static final int SHARE = 4;

    private static final long MOST = 256L << 20;

    private InFile() {}

    /** @throws IOException without the file's name, which whoever asked knows */
    public static byte[] read(Path file) throws IOException {
        if (Files.isDirectory(file)) {
            throw new FileException("this is a folder; open a file in it");
        }
        int most = (int) Math.min(MOST, Room.left() / SHARE);
        try (InputStream in = Files.newInputStream(file)) {
            byte[] bytes = in.readNBytes(most);
            if (in.read() >= 0) {
                throw new FileException(
                        "this file is larger than the " + (most >> 20) + " MB that there is memory for; take it apart");
            }
            return bytes;
        } catch (NoSuchFileException e) {
            throw new FileException("there is no such file", e);
        } catch (AccessDeniedException e) {
            throw new FileException("this file may not be read", e);
        }
    }

    /** The memory that what is read may take: all that is left but for a reserve, so that what plays meanwhile has enough. */
    static final class Room {
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
                        + " MB of memory that are left; take it apart");
            }
        }
    }
}
