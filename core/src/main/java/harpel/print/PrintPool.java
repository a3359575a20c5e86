package harpel.print;

import java.util.concurrent.Callable;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;

/** Makes prints side by side on all cores but one, so that whoever plays meanwhile is not disturbed. Any thread. */
public final class PrintPool implements AutoCloseable {
    private final ExecutorService printers =
            Executors.newFixedThreadPool(Math.max(1, Runtime.getRuntime().availableProcessors() - 1), work -> {
                Thread thread = new Thread(work, "harpel-print");
                thread.setDaemon(true);
                thread.setPriority(Thread.MIN_PRIORITY + 1);
                return thread;
            });

    /** Prints as soon as a core is free; cancelling with an interrupt gives it up at once. */
    public Future<Printed> print(PrintOrder order) {
        return submit(() -> order.print(done -> {}));
    }

    /** Does other work that belongs to prints, in turn. */
    public <T> Future<T> submit(Callable<T> work) {
        return printers.submit(work);
    }

    /** Gives up everything. */
    @Override
    public void close() {
        printers.shutdownNow();
    }
}
