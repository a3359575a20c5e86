package harpel.script;

import com.sun.management.ThreadMXBean;
import java.lang.management.ManagementFactory;
import java.util.concurrent.CancellationException;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.concurrent.locks.LockSupport;
import java.util.function.Consumer;
import org.mozilla.javascript.Context;

/** A thread that runs scripts for whoever asks, one call at a time, each in the context of its script. */
final class ScriptThread extends Thread {
    private static final ConcurrentLinkedQueue<ScriptThread> IDLE = new ConcurrentLinkedQueue<>();
    private static final AtomicInteger COUNT = new AtomicInteger();
    private static final ThreadMXBean THREADS = (ThreadMXBean) ManagementFactory.getThreadMXBean();
    private static final long STACK_BYTES = 1L << 20;
    private static final long SPIN_NANOS = 30_000;
    /** The far brakes, which no script reaches that keeps to its steps: they act on any machine at another place, and say so. */
    private static final long BRAKE_CPU_NANOS = 3_000_000_000L;

    private static final long BRAKE_BYTES = 64L << 20;

    /** One call, and what it has used. */
    static final class Task {
        private final Context context;
        private final Consumer<Context> work;
        private final long mostSteps;
        private final Thread asking;
        private volatile boolean done;
        private volatile ScriptError error;
        private long startCpu;
        private long startBytes;
        private long steps;
        private long tookNanos;

        private Task(Context context, Consumer<Context> work, long mostSteps) {
            this.context = context;
            this.work = work;
            this.mostSteps = mostSteps;
            this.asking = Thread.currentThread();
        }

        /** Called on the script's thread: so many more steps are done; throws a {@link ScriptStop} when they are too many. */
        void count(long more) {
            steps += more;
            if (steps > mostSteps) {
                throw new ScriptStop(
                        Sandbox.lineNow(), "the script took more than " + mostSteps + " steps in one call");
            }
            if (THREADS.getCurrentThreadCpuTime() - startCpu > BRAKE_CPU_NANOS) {
                throw new ScriptStop(
                        Sandbox.lineNow(),
                        "the script worked longer than " + BRAKE_CPU_NANOS / 1_000_000_000 + " s in one call");
            }
            if (THREADS.getThreadAllocatedBytes(Thread.currentThread().getId()) - startBytes > BRAKE_BYTES) {
                throw new ScriptStop(
                        Sandbox.lineNow(),
                        "the script took more than " + (BRAKE_BYTES >> 20) + " MB of memory in one call");
            }
        }

        /** How many steps it has done. On the script's thread, or once it is done. */
        long steps() {
            return steps;
        }

        /** How long it worked, once it is done. */
        long tookNanos() {
            return tookNanos;
        }

        /** Whether it has come back. */
        boolean isDone() {
            return done;
        }

        /** What went wrong, or null; once it is done. */
        ScriptError error() {
            return error;
        }

        /**
         * Waits until it has come back. Throws {@link CancellationException} where an interrupted thread would wait without end.
         *
         * @param mostNanos gives up then; what it does goes on
         * @return whether it has
         */
        boolean await(long mostNanos) {
            long begin = System.nanoTime();
            while (!done) {
                long waited = System.nanoTime() - begin;
                if (waited > mostNanos) {
                    return done;
                }
                if (mostNanos == Long.MAX_VALUE && Thread.currentThread().isInterrupted()) {
                    // What waits as long as it takes is a print, which was cancelled.
                    throw new CancellationException("cancelled while a script worked");
                }
                if (waited < SPIN_NANOS) {
                    Thread.onSpinWait();
                } else {
                    LockSupport.parkNanos(100_000);
                }
            }
            return true;
        }
    }

    private volatile Task next;
    private Task running;

    private ScriptThread() {
        super(null, null, "harpel-script-" + COUNT.incrementAndGet(), STACK_BYTES);
        setDaemon(true);
    }

    /** The task that the current thread runs; null on any other thread. */
    static Task task() {
        return Thread.currentThread() instanceof ScriptThread thread ? thread.running : null;
    }

    /**
     * Begins work in a script's context.
     *
     * @param context of the script; nobody else uses it until the work is done
     * @param mostSteps so many steps it may take
     */
    static Task begin(Context context, long mostSteps, Consumer<Context> work) {
        ScriptThread thread = IDLE.poll();
        if (thread == null) {
            thread = new ScriptThread();
            thread.start();
        }
        Task task = new Task(context, work, mostSteps);
        thread.next = task;
        LockSupport.unpark(thread);
        return task;
    }

    /**
     * Does work in a script's context and waits for it.
     *
     * @return what went wrong, or null
     */
    static ScriptError run(Context context, long mostSteps, Consumer<Context> work) {
        Task task = begin(context, mostSteps, work);
        task.await(Long.MAX_VALUE);
        return task.error();
    }

    @Override
    public void run() {
        while (true) {
            Task task = take();
            work(task);
            // Back among the idle before whoever waits may want one.
            IDLE.add(this);
            task.done = true;
            LockSupport.unpark(task.asking);
        }
    }

    private Task take() {
        long begin = System.nanoTime();
        while (next == null) {
            if (System.nanoTime() - begin < SPIN_NANOS) {
                Thread.onSpinWait();
            } else {
                LockSupport.park(this);
            }
        }
        Task task = next;
        next = null;
        return task;
    }

    private void work(Task task) {
        running = task;
        long began = System.nanoTime();
        Context context = Sandbox.INSTANCE.enterContext(task.context);
        task.startCpu = THREADS.getCurrentThreadCpuTime();
        task.startBytes = THREADS.getThreadAllocatedBytes(getId());
        try {
            task.work.accept(context);
        } catch (Throwable e) { // whatever a script does, its thread lives and says so
            try {
                task.error = ScriptError.of(e);
            } catch (Throwable hostile) { // even what it throws may be made to harm
                task.error = new ScriptError(0, 0, "the script threw something that cannot be told", false);
            }
        } finally {
            running = null;
            task.tookNanos = System.nanoTime() - began;
            Context.exit();
        }
    }
}
