package harpel.app.file;

import harpel.app.look.Messages;
import java.io.IOException;
import java.util.Locale;
import java.util.concurrent.Callable;
import java.util.concurrent.CancellationException;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.FutureTask;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import java.util.function.Consumer;
import javafx.application.Platform;
import org.slf4j.LoggerFactory;

/**
 * Works with files on threads of its own, for a disk may take as long as it likes, and a pipe for ever. What takes no longer than a blink
 * is done when the call returns; what takes longer is told of at the foot, where it can be cancelled. One thing at a time. Interface
 * thread, but for the work.
 */
public final class Disk {
    private static final long BLINK_MS = 80;

    private final Messages messages;
    private Job<?> job;
    private long blinkMs = BLINK_MS;

    public Disk(Messages messages) {
        this.messages = messages;
    }

    /** How long is waited for what is done at once. */
    public void waitFor(long ms) {
        blinkMs = ms;
    }

    private static final class Job<T> {
        final String doing;
        final FutureTask<T> task;
        final Consumer<T> then;
        final Consumer<String> failed;
        Runnable cancel;

        Job(String doing, FutureTask<T> task, Consumer<T> then, Consumer<String> failed) {
            this.doing = doing;
            this.task = task;
            this.then = then;
            this.failed = failed;
        }
    }

    /**
     * Does something with a file.
     *
     * @param doing in words, such as "Opening tide.harpel"
     * @param work on a thread of its own; it is interrupted when it is cancelled
     * @param then on the interface thread, with what the work made
     * @param failed on the interface thread, with what went wrong in words
     */
    public <T> void run(String doing, Callable<T> work, Consumer<T> then, Consumer<String> failed) {
        if (job != null) {
            messages.say("Still " + job.doing.substring(0, 1).toLowerCase(Locale.ROOT) + job.doing.substring(1)
                    + ". Cancel that first.");
            return;
        }
        Runnable[] done = {() -> {}};
        FutureTask<T> task = new FutureTask<>(work) {
            @Override
            protected void done() {
                Platform.runLater(() -> done[0].run());
            }
        };
        Job<T> one = new Job<>(doing, task, then, failed);
        start(task);
        try {
            task.get(blinkMs, TimeUnit.MILLISECONDS);
            end(one);
            return;
        } catch (TimeoutException e) {
            // Goes on behind.
        } catch (ExecutionException e) {
            end(one);
            return;
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
        job = one;
        one.cancel = () -> task.cancel(true);
        // Set and read on this thread alone.
        done[0] = () -> end(one);
        messages.begin(one.cancel);
        messages.say(doing + " …");
    }

    private <T> void end(Job<T> one) {
        if (one.cancel != null) {
            messages.end(one.cancel);
            job = null;
        }
        try {
            T made = one.task.get();
            one.then.accept(made);
        } catch (CancellationException e) {
            messages.say(one.doing + " was cancelled.");
        } catch (ExecutionException e) {
            one.failed.accept(words(e.getCause()));
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }

    /** What went wrong with a file, in words. */
    public static String words(Throwable thrown) {
        if (thrown instanceof OutOfMemoryError || thrown.getCause() instanceof OutOfMemoryError) {
            return "there is not enough memory for this file";
        }
        if (!(thrown instanceof IOException || thrown instanceof IllegalArgumentException)) {
            LoggerFactory.getLogger(Disk.class).error("work with a file failed", thrown);
        }
        return thrown.getMessage() == null ? thrown.toString() : thrown.getMessage();
    }

    /** What can be found out within a blink, or else something that will do. */
    public static <T> T soon(Callable<T> question, T otherwise) {
        FutureTask<T> task = new FutureTask<>(question);
        start(task);
        try {
            return task.get(BLINK_MS, TimeUnit.MILLISECONDS);
        } catch (TimeoutException | ExecutionException e) {
            return otherwise;
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            return otherwise;
        }
    }

    private static void start(Runnable task) {
        Thread thread = new Thread(task, "harpel-disk");
        thread.setDaemon(true);
        thread.start();
    }
}
