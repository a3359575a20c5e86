package harpel.app.session;

import harpel.app.look.Messages;
import harpel.app.transport.TraceStore;
import harpel.capture.Heard;
import java.lang.management.ManagementFactory;
import java.lang.management.MemoryNotificationInfo;
import java.lang.management.MemoryPoolMXBean;
import java.lang.management.MemoryType;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.Executor;
import java.util.concurrent.TimeUnit;
import java.util.function.BooleanSupplier;
import javafx.application.Platform;
import javax.management.ListenerNotFoundException;
import javax.management.NotificationEmitter;
import javax.management.NotificationListener;

/**
 * Gives memory back where it gets short, so that notes never stop: first traces, then half and half again of what was heard, which it
 * says. All has a bound that together fits; this is for what nobody has thought of. Interface thread, but for being woken.
 */
public final class ShortMemory implements AutoCloseable {
    private static final double SHORT = 0.85;
    private static final long AGAIN_SECONDS = 4;
    private static final int FEW_TRACES = TraceStore.MOST_IN_ALL / 10;
    private static final long LITTLE_HEARD = 4L << 20;

    private final TraceStore traces;
    private final Heard heard;
    private final Messages messages;
    private final BooleanSupplier isShort;
    private final Executor later;
    /** Whether it looks again before it gives more: the machine tells of being short many times in a row. */
    private boolean waiting;

    private final NotificationListener listener = (notice, handback) -> {
        if (notice.getType().equals(MemoryNotificationInfo.MEMORY_COLLECTION_THRESHOLD_EXCEEDED)) {
            Platform.runLater(this::give);
        }
    };

    /**
     * @param isShort whether memory is short after the last collection
     * @param later looks again, on the interface thread
     */
    ShortMemory(TraceStore traces, Heard heard, Messages messages, BooleanSupplier isShort, Executor later) {
        this.traces = traces;
        this.heard = heard;
        this.messages = messages;
        this.isShort = isShort;
        this.later = later;
    }

    /** Watches the memory of this process. */
    public static ShortMemory of(Session session) {
        Executor later = CompletableFuture.delayedExecutor(AGAIN_SECONDS, TimeUnit.SECONDS, Platform::runLater);
        ShortMemory watch = new ShortMemory(
                session.transport().traces(),
                session.transport().heard(),
                session.messages(),
                () -> pools().anyMatch(MemoryPoolMXBean::isCollectionUsageThresholdExceeded),
                later);
        pools().forEach(pool ->
                pool.setCollectionUsageThreshold((long) (SHORT * pool.getUsage().getMax())));
        emitter().addNotificationListener(watch.listener, null, null);
        return watch;
    }

    private static java.util.stream.Stream<MemoryPoolMXBean> pools() {
        return ManagementFactory.getMemoryPoolMXBeans().stream()
                .filter(pool -> pool.getType() == MemoryType.HEAP
                        && pool.isCollectionUsageThresholdSupported()
                        && pool.getUsage().getMax() > 0);
    }

    private static NotificationEmitter emitter() {
        return (NotificationEmitter) ManagementFactory.getMemoryMXBean();
    }

    /** Memory is short: gives some, and looks again a little later. */
    void give() {
        if (waiting) {
            return;
        }
        if (traces.most() > FEW_TRACES) {
            traces.keepAtMost(FEW_TRACES);
        } else if (heard.mostBytes() > LITTLE_HEARD) {
            heard.keepAtMost(heard.mostBytes() / 2);
            messages.say("Memory is short: what was heard longest ago is forgotten.");
        } else {
            return;
        }
        waiting = true;
        later.execute(() -> {
            waiting = false;
            if (isShort.getAsBoolean()) {
                give();
            }
        });
    }

    @Override
    public void close() {
        try {
            emitter().removeNotificationListener(listener);
        } catch (ListenerNotFoundException e) {
            // It was never there.
        }
    }
}
