package harpel.app.document;

import harpel.app.look.Messages;
import harpel.format.AtomicFile;
import harpel.format.PieceFile;
import harpel.piece.Piece;
import java.io.IOException;
import java.nio.channels.FileChannel;
import java.nio.channels.FileLock;
import java.nio.channels.OverlappingFileLockException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.Executors;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.TimeUnit;
import java.util.stream.Stream;
import javafx.application.Platform;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * Keeps unsaved work, so that it survives a crash: each running window in a file of its own, which it locks, less than a second after an
 * edit, on a thread of its own. What a window left behind that is gone is taken up by the next that opens the same file.
 */
public final class Autosave implements AutoCloseable {
    private static final long EVERY_MS = 200;
    /** So many times as long as the last writing took nothing is written again, so that large pieces do not take a core; but not longer. */
    private static final long REST = 4;

    private static final long LONGEST_REST_NANOS = 300_000_000;

    /** After what went wrong it is tried again so long after, then after twice as long each time, up to a minute. */
    private static final long FIRST_RETRY_NANOS = 1_000_000_000;

    private static final int MOST_DOUBLED = 6;

    private static final String ENDING = ".work";
    private static final String LOCK = ".lock";

    /** The state of the work as the interface last showed it. */
    private record State(Piece piece, boolean unsaved, Path file, String held) {}

    /**
     * Work that was not saved.
     *
     * @param changed when it was kept last
     * @param fileChanged when its file was changed by someone else after it was opened for this work; null where it was not
     */
    public record LeftOver(Piece piece, Instant changed, Instant fileChanged, Path kept) {}

    private final Document document;
    private final Messages messages;
    private final Path folder;
    private final ScheduledExecutorService writing = Executors.newSingleThreadScheduledExecutor(work -> {
        Thread thread = new Thread(work, "harpel-autosave");
        thread.setDaemon(true);
        thread.setPriority(Thread.MIN_PRIORITY);
        return thread;
    });

    private volatile State now;
    private State kept;
    /** When it was written last, and how long that took. Owned by the writing thread. */
    private long writtenNanos = System.nanoTime();

    private long tookNanos;
    /** How often in a row it could not be written. */
    private int failures;

    private Path own;
    private FileChannel lockFile;
    private FileLock lock;

    public Autosave(Document document, Messages messages, Path home) {
        this.document = document;
        this.messages = messages;
        this.folder = home.resolve("autosave");
        look();
        kept = now;
        document.piece().addListener((property, before, after) -> look());
        document.unsaved().addListener((property, before, after) -> look());
        document.file().addListener((property, before, after) -> look());
    }

    private void look() {
        now = new State(
                document.piece().get(),
                document.unsaved().get(),
                document.file().get(),
                document.held());
    }

    /** Begins to keep. */
    public void start() {
        writing.scheduleWithFixedDelay(this::keepQuietly, EVERY_MS, EVERY_MS, TimeUnit.MILLISECONDS);
    }

    /** Whatever goes wrong it is tried again, more and more rarely, and said once. */
    private void keepQuietly() {
        long rest = failures > 0
                ? FIRST_RETRY_NANOS << Math.min(MOST_DOUBLED, failures - 1)
                : Math.min(LONGEST_REST_NANOS, REST * tookNanos);
        if (System.nanoTime() - writtenNanos < rest) {
            return;
        }
        long began = System.nanoTime();
        try {
            keep();
            if (failures > 0) {
                failures = 0;
                say("Unsaved work is kept again.");
            }
        } catch (IOException | RuntimeException | Error e) { // also without memory: it goes on when there is some again
            failures++;
            if (failures == 1) {
                log().warn("unsaved work could not be kept in {}", folder, e);
                say("Unsaved work cannot be kept, save it yourself: " + e.getMessage());
            }
        }
        writtenNanos = System.nanoTime();
        tookNanos = writtenNanos - began;
    }

    private void say(String text) {
        Platform.runLater(() -> messages.say(text));
    }

    /** Writes what has changed since the last time, or removes the file when all is saved. */
    public synchronized void keep() throws IOException {
        State state = now;
        if (state.piece == kept.piece && state.unsaved == kept.unsaved) {
            return;
        }
        if (state.unsaved) {
            take();
            // It may have been removed meanwhile.
            Files.createDirectories(folder);
            AtomicFile.write(own, out -> {
                out.write((place(state.file) + "\n" + state.held + "\n").getBytes(StandardCharsets.UTF_8));
                PieceFile.write(state.piece, out);
            });
        } else {
            drop();
        }
        kept = state;
    }

    /** Takes a file of one's own that no other window has. */
    private void take() throws IOException {
        if (own != null) {
            return;
        }
        Files.createDirectories(folder);
        for (int number = 1; own == null; number++) {
            own = tryToTake(folder.resolve("window-" + ProcessHandle.current().pid() + "-" + number + ENDING));
        }
    }

    private Path tryToTake(Path file) throws IOException {
        FileChannel channel =
                FileChannel.open(Path.of(file + LOCK), StandardOpenOption.CREATE, StandardOpenOption.WRITE);
        FileLock taken = lock(channel);
        if (taken == null || Files.exists(file)) {
            channel.close();
            return null;
        }
        lockFile = channel;
        lock = taken;
        return file;
    }

    private static FileLock lock(FileChannel channel) throws IOException {
        try {
            return channel.tryLock();
        } catch (OverlappingFileLockException e) {
            return null;
        }
    }

    private void drop() throws IOException {
        if (own != null) {
            Files.deleteIfExists(own);
        }
    }

    /** What the work belongs to: the file that is worked on, whichever link leads there. */
    private static String place(Path file) {
        if (file == null) {
            return "untitled";
        }
        try {
            return file.toRealPath().toString();
        } catch (IOException e) {
            return file.toAbsolutePath().normalize().toString();
        }
    }

    /**
     * What a window that is gone left unsaved of the file that is open here, the newest of several. One that a running window keeps is left
     * to it. Where the file is the one it was made of it counts as taken up; where somebody has changed the file since, it stays until it is
     * {@link #takeUp taken up}.
     */
    public synchronized Optional<LeftOver> leftOver() {
        if (!Files.isDirectory(folder)) {
            return Optional.empty();
        }
        List<Path> files = new ArrayList<>();
        try (Stream<Path> all = Files.list(folder)) {
            all.filter(file -> file.toString().endsWith(ENDING)).forEach(files::add);
        } catch (IOException e) {
            log().warn("{} cannot be read", folder, e);
        }
        files.sort(Comparator.comparing(Autosave::age).reversed());
        for (Path file : files) {
            Optional<LeftOver> left = found(file);
            if (left.isPresent()) {
                return left;
            }
        }
        return Optional.empty();
    }

    private static long age(Path file) {
        try {
            return Files.getLastModifiedTime(file).toMillis();
        } catch (IOException e) {
            return 0;
        }
    }

    private Optional<LeftOver> found(Path file) {
        try (FileChannel channel =
                FileChannel.open(Path.of(file + LOCK), StandardOpenOption.CREATE, StandardOpenOption.WRITE)) {
            if (lock(channel) == null) {
                return Optional.empty();
            }
            String[] lines = Files.readString(file, StandardCharsets.UTF_8).split("\n", 3);
            Path open = document.file().get();
            if (lines.length < 3 || !lines[0].equals(place(open))) {
                return Optional.empty();
            }
            boolean same = lines[1].equals(document.held());
            LeftOver left = new LeftOver(
                    PieceFile.read(lines[2]),
                    Files.getLastModifiedTime(file).toInstant(),
                    same || open == null
                            ? null
                            : Files.getLastModifiedTime(open).toInstant(),
                    file);
            if (left.fileChanged == null) {
                takeUp(left);
            }
            return Optional.of(left);
        } catch (IOException | IllegalArgumentException e) {
            log().warn("left-over work in {} cannot be read", file, e);
            return Optional.empty();
        }
    }

    /** This window has the work from now on: it is kept under its own name before the old one goes. */
    public synchronized void takeUp(LeftOver left) throws IOException {
        now = new State(left.piece, true, document.file().get(), document.held());
        keep();
        Files.deleteIfExists(left.kept);
        Files.deleteIfExists(Path.of(left.kept + LOCK));
    }

    /** The work is saved or given up: nothing is left over. */
    public synchronized void forget() {
        try {
            drop();
            kept = new State(now.piece, false, now.file, now.held);
        } catch (IOException e) {
            log().warn("{} could not be removed", own, e);
        }
    }

    @Override
    public void close() {
        writing.shutdown();
        try {
            if (lock != null) {
                lock.release();
                lockFile.close();
                if (!Files.exists(own)) {
                    Files.deleteIfExists(Path.of(own + LOCK));
                }
            }
        } catch (IOException e) {
            log().info("the lock of {} could not be given back", own, e);
        }
    }

    private static Logger log() {
        return LoggerFactory.getLogger(Autosave.class);
    }
}
