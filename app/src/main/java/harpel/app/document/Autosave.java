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

    private static final String ENDING = ".work";
    private static final String LOCK = ".lock";

    /** The state of the work as the interface last showed it. */
    private record State(Piece piece, boolean unsaved, Path file) {}

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
                document.file().get());
    }

    /** Begins to keep. */
    public void start() {
        writing.scheduleWithFixedDelay(this::keepQuietly, EVERY_MS, EVERY_MS, TimeUnit.MILLISECONDS);
    }

    private void keepQuietly() {
        if (System.nanoTime() - writtenNanos < Math.min(LONGEST_REST_NANOS, REST * tookNanos)) {
            return;
        }
        try {
            long began = System.nanoTime();
            keep();
            writtenNanos = System.nanoTime();
            tookNanos = writtenNanos - began;
        } catch (IOException | RuntimeException e) {
            log().warn("unsaved work could not be kept in {}", folder, e);
            Platform.runLater(() -> messages.say("Unsaved work could not be kept: " + e.getMessage()));
        }
    }

    /** Writes what has changed since the last time, or removes the file when all is saved. */
    public synchronized void keep() throws IOException {
        State state = now;
        if (state.piece == kept.piece && state.unsaved == kept.unsaved) {
            return;
        }
        if (state.unsaved) {
            take();
            AtomicFile.write(
                    own, (place(state.file) + "\n" + PieceFile.write(state.piece)).getBytes(StandardCharsets.UTF_8));
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

    /** What the work belongs to: the file that is worked on. */
    private static String place(Path file) {
        return file == null ? "untitled" : file.toAbsolutePath().normalize().toString();
    }

    /**
     * What a window that is gone left unsaved of the file that is open here, the newest of several; it counts as taken up. One that a
     * running window keeps is left to it.
     */
    public synchronized Optional<Piece> leftOver() {
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
            Optional<Piece> piece = takeUp(file);
            if (piece.isPresent()) {
                return piece;
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

    private Optional<Piece> takeUp(Path file) {
        try (FileChannel channel =
                FileChannel.open(Path.of(file + LOCK), StandardOpenOption.CREATE, StandardOpenOption.WRITE)) {
            if (lock(channel) == null) {
                return Optional.empty();
            }
            String text = Files.readString(file, StandardCharsets.UTF_8);
            int line = text.indexOf('\n');
            if (line < 0
                    || !text.substring(0, line).equals(place(document.file().get()))) {
                return Optional.empty();
            }
            Piece piece = PieceFile.read(text.substring(line + 1));
            // It is kept under this window's own name before the old one goes.
            now = new State(piece, true, document.file().get());
            keep();
            Files.deleteIfExists(file);
            Files.deleteIfExists(Path.of(file + LOCK));
            return Optional.of(piece);
        } catch (IOException | IllegalArgumentException e) {
            log().warn("left-over work in {} cannot be read", file, e);
            return Optional.empty();
        }
    }

    /** The work is saved or given up: nothing is left over. */
    public synchronized void forget() {
        try {
            drop();
            kept = new State(now.piece, false, now.file);
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
