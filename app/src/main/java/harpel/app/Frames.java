package harpel.app;

import harpel.app.session.Session;
import harpel.engine.LiveStatus;
import java.util.concurrent.locks.LockSupport;
import java.util.function.LongConsumer;
import javafx.animation.AnimationTimer;
import javafx.application.ConditionalFeature;
import javafx.application.Platform;
import javafx.beans.value.ChangeListener;
import javafx.event.Event;
import javafx.event.EventHandler;
import javafx.scene.Scene;
import javafx.stage.Window;

/**
 * Draws a frame at each pulse while something moves, and none while all stands still: then no pulse comes and nothing is worked out. A
 * thread of its own looks now and then whether time has begun to run; whatever a hand does wakes it at once.
 */
final class Frames implements AutoCloseable {
    /** So long it goes on after the last thing that happened, for what comes after it. */
    private static final long LINGER_NANOS = 700_000_000L;

    /**
     * And at least so many frames, since where the machine is slow few come in that time: what takes some to settle does, and what is
     * looked at every sixtieth, such as advice, is looked at once more.
     */
    private static final int LINGER_FRAMES = 64;

    private static final long LOOK_NANOS = 40_000_000L;

    /**
     * Where software draws, each frame copies the whole window, whatever has changed. From so many pixels on every second frame is left
     * out, a little before it is due since pulses are not even.
     */
    private static final double LARGE_PIXELS = 2_500_000;

    private static final long LARGE_NANOS = 28_000_000L;

    private final Session session;
    private final LongConsumer draw;
    private final AnimationTimer timer;
    private final Thread looking;
    private final EventHandler<Event> happens = event -> wake();
    private final ChangeListener<Number> resized = (property, before, now) -> wake();
    private Scene watched;
    private volatile boolean drawing;
    private volatile boolean closed;
    private long lastNanos;
    private long drawnNanos;
    private int framesLeft;
    private LiveStatus lastStatus;

    /** @param draw draws a frame of what is heard, at a moment of {@link System#nanoTime} */
    Frames(Session session, LongConsumer draw) {
        this.session = session;
        this.draw = draw;
        timer = new AnimationTimer() {
            @Override
            public void handle(long now) {
                frame(System.nanoTime());
            }
        };
        looking = new Thread(this::look, "harpel-frames");
        looking.setDaemon(true);
    }

    /** Begins, and is woken by whatever happens in a scene and to the piece. */
    void start(Scene scene) {
        watched = scene;
        scene.addEventFilter(Event.ANY, happens);
        scene.widthProperty().addListener(resized);
        scene.heightProperty().addListener(resized);
        session.document().piece().addListener((property, before, now) -> wake());
        session.messages().last().addListener((property, before, now) -> wake());
        // What is printed in the background comes when it is done.
        session.made().result().addListener((property, before, now) -> wake());
        session.variations().changes().addListener((property, before, now) -> wake());
        session.desk().preview().addListener((property, before, now) -> wake());
        session.timelineMade().notes().addListener((property, before, now) -> wake());
        session.look().theme().addListener((property, before, now) -> wake());
        session.look().size().addListener((property, before, now) -> wake());
        session.selection().partId().addListener((property, before, now) -> wake());
        session.selection().selected().addListener((property, before, now) -> wake());
        wake();
        looking.start();
    }

    /** Something has happened. Interface thread. */
    void wake() {
        lastNanos = System.nanoTime();
        framesLeft = LINGER_FRAMES;
        if (!drawing && !closed) {
            drawing = true;
            timer.start();
        }
    }

    private void frame(long nanos) {
        if (moves()) {
            lastNanos = nanos;
            framesLeft = LINGER_FRAMES;
        }
        if (isLarge() && nanos - drawnNanos < LARGE_NANOS) {
            return;
        }
        drawnNanos = nanos;
        draw.accept(session.transport().heardNanos(nanos));
        framesLeft--;
        if (framesLeft <= 0 && nanos - lastNanos > LINGER_NANOS) {
            drawing = false;
            timer.stop();
        }
    }

    private boolean isLarge() {
        // What draws in three dimensions has a graphics card to do it.
        return !Platform.isSupported(ConditionalFeature.SCENE3D)
                && watched.getWidth() * watched.getHeight() * pixelsOfAPoint() > LARGE_PIXELS;
    }

    private double pixelsOfAPoint() {
        Window window = watched.getWindow();
        return window == null ? 1 : window.getOutputScaleX() * window.getOutputScaleY();
    }

    /** Whether time runs, or has changed since the last look. */
    private boolean moves() {
        LiveStatus status = session.transport().status();
        boolean changed = status != lastStatus;
        lastStatus = status;
        return changed
                || status.mode() != LiveStatus.Mode.STOPPED
                || session.transport().tracesWait();
    }

    private void look() {
        while (!closed) {
            LockSupport.parkNanos(this, LOOK_NANOS);
            if (!drawing
                    && (session.transport().status() != lastStatus
                            || session.transport().tracesWait())) {
                drawing = true;
                Platform.runLater(() -> {
                    drawing = false;
                    wake();
                });
            }
        }
    }

    @Override
    public void close() {
        closed = true;
        timer.stop();
        if (watched != null) {
            watched.removeEventFilter(Event.ANY, happens);
            watched.widthProperty().removeListener(resized);
            watched.heightProperty().removeListener(resized);
        }
        LockSupport.unpark(looking);
    }
}
