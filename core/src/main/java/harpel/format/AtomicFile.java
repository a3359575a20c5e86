package harpel.format;

import java.io.BufferedOutputStream;
import java.io.IOException;
import java.io.InterruptedIOException;
import java.io.OutputStream;
import java.nio.channels.Channels;
import java.nio.channels.ClosedByInterruptException;
import java.nio.channels.FileChannel;
import java.nio.channels.FileLock;
import java.nio.channels.OverlappingFileLockException;
import java.nio.file.AccessDeniedException;
import java.nio.file.DirectoryIteratorException;
import java.nio.file.DirectoryStream;
import java.nio.file.FileSystemException;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.nio.file.attribute.PosixFileAttributeView;
import java.nio.file.attribute.PosixFileAttributes;
import java.nio.file.attribute.PosixFilePermission;
import java.time.Instant;
import java.util.Set;
import java.util.concurrent.ThreadLocalRandom;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * Writes files so that a crash leaves either the old one or the new one, never half of one. What is there stays what it is: a link leads
 * where it led, a file keeps its mode and owner, and a pipe or a device is written to.
 */
public final class AtomicFile {
    private static final int BUFFER = 1 << 16;
    /** What the name of a file ends with that is still being written. */
    private static final String DRAFT = ".harpel-part";

    private static final Set<PosixFilePermission> WRITERS =
            Set.of(PosixFilePermission.OWNER_WRITE, PosixFilePermission.GROUP_WRITE, PosixFilePermission.OTHERS_WRITE);

    /** Writes what a file is to hold. */
    public interface Content {
        void writeTo(OutputStream out) throws IOException;
    }

    private AtomicFile() {}

    /** @throws IOException naming the file, when it may not or cannot be written */
    public static void write(Path file, byte[] content) throws IOException {
        write(file, out -> out.write(content));
    }

    /** The same for what is too long to be in memory at once. */
    public static void write(Path file, Content content) throws IOException {
        try {
            writeTo(file, content);
        } catch (FileSystemException | ClosedByInterruptException | InterruptedIOException e) {
            throw e;
        } catch (IOException e) {
            // Such as "No space left on device", which does not say where.
            String said = String.valueOf(e.getMessage());
            throw said.startsWith(file.toString()) ? e : new IOException(file + ": " + said, e);
        }
    }

    private static void writeTo(Path file, Content content) throws IOException {
        Path target = behindLinks(file);
        Path folder = target.toAbsolutePath().getParent();
        if (Files.isDirectory(target)) {
            throw new FileException(file + ": this is a folder; name a file in it");
        }
        if (folder == null || !Files.isDirectory(folder)) {
            throw new NoSuchFileException(file + ": there is no folder " + folder);
        }
        boolean there = Files.exists(target);
        if (there && !mayBeWritten(target)) {
            throw new AccessDeniedException(file + ": this file may not be written; choose another name");
        }
        if (there && !replaceable(target, folder)) {
            try (OutputStream through = Files.newOutputStream(target, throughOptions(target))) {
                content.writeTo(through);
            }
            return;
        }
        replace(target, folder, content, there);
    }

    private static StandardOpenOption[] throughOptions(Path target) {
        return Files.isRegularFile(target)
                ? new StandardOpenOption[] {StandardOpenOption.WRITE, StandardOpenOption.TRUNCATE_EXISTING}
                : new StandardOpenOption[] {StandardOpenOption.WRITE};
    }

    /** The file at the end of a line of links, which need not be there yet. */
    private static Path behindLinks(Path file) throws IOException {
        Path target = file;
        for (int i = 0; Files.isSymbolicLink(target); i++) {
            if (i == 40) {
                throw new FileException(file + ": its links lead round in a circle");
            }
            target = target.resolveSibling(Files.readSymbolicLink(target));
        }
        return target;
    }

    private static boolean mayBeWritten(Path target) throws IOException {
        PosixFileAttributeView view = Files.getFileAttributeView(target, PosixFileAttributeView.class);
        if (view != null && Files.isRegularFile(target)) {
            // Whoever may do anything still keeps to what the file says.
            return view.readAttributes().permissions().stream().anyMatch(WRITERS::contains) && Files.isWritable(target);
        }
        return Files.isWritable(target);
    }

    /** Whether another file may take its place: it is a plain file under one name, in a folder that takes a new one. */
    private static boolean replaceable(Path target, Path folder) throws IOException {
        if (!Files.isRegularFile(target, LinkOption.NOFOLLOW_LINKS) || !Files.isWritable(folder)) {
            return false;
        }
        boolean countsLinks =
                target.getFileSystem().supportedFileAttributeViews().contains("unix");
        return !countsLinks || ((Number) Files.getAttribute(target, "unix:nlink")).intValue() == 1;
    }

    private static void replace(Path target, Path folder, Content content, boolean there) throws IOException {
        Path draft = folder.resolve(
                String.format(".%016x%s", ThreadLocalRandom.current().nextLong(), DRAFT));
        try {
            try (FileChannel channel =
                    FileChannel.open(draft, StandardOpenOption.CREATE_NEW, StandardOpenOption.WRITE)) {
                lock(channel);
                OutputStream out = new BufferedOutputStream(Channels.newOutputStream(channel), BUFFER);
                content.writeTo(out);
                out.flush();
                channel.force(true);
            }
            if (there) {
                keepModeAndOwner(target, draft);
            }
            Files.move(draft, target, StandardCopyOption.ATOMIC_MOVE, StandardCopyOption.REPLACE_EXISTING);
        } finally {
            Files.deleteIfExists(draft);
        }
    }

    /**
     * Removes from a folder the drafts of whoever was killed while writing; those that are being written stay.
     *
     * @param before only those that were changed last before this moment: one that was made just now may not be locked yet
     */
    public static void sweep(Path folder, Instant before) {
        if (!Files.isDirectory(folder)) {
            return;
        }
        try (DirectoryStream<Path> drafts = Files.newDirectoryStream(folder, ".*" + DRAFT)) {
            for (Path draft : drafts) {
                if (draft.getFileName().toString().matches("\\.[0-9a-f]{16}" + DRAFT) && isLeft(draft, before)) {
                    Files.deleteIfExists(draft);
                }
            }
        } catch (IOException | DirectoryIteratorException e) {
            log().info("{} could not be swept", folder, e);
        }
    }

    /** Where a file system has no locks it is written all the same. */
    private static void lock(FileChannel channel) {
        try {
            channel.tryLock();
        } catch (IOException e) {
            log().info("a file that is being written cannot be locked", e);
        }
    }

    private static boolean isLeft(Path draft, Instant before) throws IOException {
        if (Files.getLastModifiedTime(draft).toInstant().isAfter(before)) {
            return false;
        }
        try (FileChannel channel = FileChannel.open(draft, StandardOpenOption.WRITE);
                FileLock lock = channel.tryLock()) {
            return lock != null;
        } catch (OverlappingFileLockException e) {
            return false;
        }
    }

    private static Logger log() {
        return LoggerFactory.getLogger(AtomicFile.class);
    }

    private static void keepModeAndOwner(Path from, Path to) throws IOException {
        PosixFileAttributeView view = Files.getFileAttributeView(from, PosixFileAttributeView.class);
        PosixFileAttributeView draft = Files.getFileAttributeView(to, PosixFileAttributeView.class);
        if (view == null || draft == null) {
            return;
        }
        PosixFileAttributes was = view.readAttributes();
        if (!was.owner().equals(draft.getOwner())) {
            draft.setOwner(was.owner());
        }
        if (!was.group().equals(draft.readAttributes().group())) {
            draft.setGroup(was.group());
        }
        draft.setPermissions(was.permissions());
    }
}
