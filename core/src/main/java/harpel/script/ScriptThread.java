package harpel.script;

import com.sun.management.ThreadMXBean;
import java.lang.management.ManagementFactory;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.concurrent.locks.LockSupport;
import java.util.function.Consumer;
import org.mozilla.javascript.Context;

/**
 * A thread that runs scripts for whoever waits: at most so long. A script that does not come back in time is left behind, and its
 * thread ends as soon as the script looks at its budget again.
 */
final class ScriptThread extends Thread {
    static final Object TASK = new Object();

    private static final ConcurrentLinkedQueue<ScriptThread> IDLE = new ConcurrentLinkedQueue<>();
    private static final AtomicInteger COUNT = new AtomicInteger();
    private static final ThreadMXBean THREADS = (ThreadMXBean) ManagementFactory.getThreadMXBean();
    private static final long STACK_BYTES = 1L << 20;
    private static final long SPIN_NANOS = 30_000;
    /** However busy the machine: nobody waits longer than this many times the budget. */
    private static final int WALL_TIMES = 50;

    /** The budget of one call. */
    record Budget(long steps, long cpuNanos, long bytes) {}

    /** One call, and what it has used. */
    static final class Task {
        private final Consumer<Context> work;
        private final Budget budget;
        private volatile boolean left;
        private volatile boolean done;
        private volatile Throwable thrown;
        private Thread waiting;
        private long startCpu;
        private long startBytes;
        private long steps;

        private Task(Consumer<Context> work, Budget budget) {
            this.work = work;
            this.budget = budget;
        }

        /** Called on the script's thread: what the call has too much of, or null. */
        String over(int more) {
            // What calls before this one left uncounted is reported with it.
            steps += Math.min(more, 2 * Sandbox.LOOK_EVERY_STEPS);
            if (steps > budget.steps) {
                return "the script took more than " + budget.steps + " steps in one call";
            }
            if (left || THREADS.getCurrentThreadCpuTime() - startCpu > budget.cpuNanos) {
                return "the script worked longer than " + budget.cpuNanos / 1_000_000 + " ms in one call";
            }
            return overMemory();
        }

        private String overMemory() {
            return THREADS.getThreadAllocatedBytes(Thread.currentThread().getId()) - startBytes > budget.bytes
                    ? "the script took more than " + (budget.bytes >> 20) + " MB of memory in one call"
                    : null;
        }
    }

    private volatile Task next;

    private ScriptThread() {
        super(null, null, "harpel-script-" + COUNT.incrementAndGet(), STACK_BYTES);
        setDaemon(true);
    }

    /**
     * Runs work in a script context and waits for it.
     *
     * @return what it threw, or null
     */
    static Throwable run(Budget budget, Consumer<Context> work) {
        ScriptThread thread = IDLE.poll();
        if (thread == null) {
            thread = new ScriptThread();
            thread.start();
        }
        Task task = new Task(work, budget);
        task.waiting = Thread.currentThread();
        thread.next = task;
        LockSupport.unpark(thread);
        if (await(thread, task)) {
            IDLE.add(thread);
            return task.thrown;
        }
        task.left = true;
        return new ScriptStop(0, "the script did not come back within " + budget.cpuNanos / 1_000_000 + " ms");
    }

    private static boolean await(ScriptThread thread, Task task) {
        long begin = System.nanoTime();
        long cpuAtFirst = -1;
        while (!task.done) {
            long waited = System.nanoTime() - begin;
            if (waited < SPIN_NANOS) {
                Thread.onSpinWait();
                continue;
            }
            LockSupport.parkNanos(100_000);
            if (waited > task.budget.cpuNanos) {
                // The machine may be busy with other things: what counts is how long the script has worked.
                long cpu = THREADS.getThreadCpuTime(thread.getId());
                cpuAtFirst = cpuAtFirst < 0 ? cpu : cpuAtFirst;
                if (cpu - cpuAtFirst > task.budget.cpuNanos || waited > WALL_TIMES * task.budget.cpuNanos) {
                    return task.done;
                }
            }
        }
        return true;
    }

    @Override
    public void run() {
        Context context = Sandbox.INSTANCE.enterContext();
        try {
            Task task;
            do {
                task = take();
                work(context, task);
            } while (!task.left);
        } finally {
            Context.exit();
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

    private static void work(Context context, Task task) {
        context.putThreadLocal(TASK, task);
        task.startCpu = THREADS.getCurrentThreadCpuTime();
        task.startBytes = THREADS.getThreadAllocatedBytes(Thread.currentThread().getId());
        try {
            task.work.accept(context);
            String over = task.overMemory();
            if (over != null) {
                throw new ScriptStop(0, over);
            }
        } catch (Throwable e) { // whatever a script does, its thread lives and says so
            task.thrown = e;
        }
        task.done = true;
        LockSupport.unpark(task.waiting);
    }
}
