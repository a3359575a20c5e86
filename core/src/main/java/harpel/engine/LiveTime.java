package harpel.engine;

import harpel.clock.Anchor;
import harpel.engine.LiveStatus.Mode;
import harpel.time.TempoMap;
import java.util.function.LongSupplier;
import java.util.function.Supplier;

/** Where time is: what makes it go, and which tick belongs to which moment. Owned by the engine thread. */
final class LiveTime {
    private final Anchor anchor = new Anchor();
    private final Supplier<TempoMap> tempo;
    private final LongSupplier standing;
    private Mode mode = Mode.STOPPED;
    private long run;
    private long place;

    /**
     * @param tempo what time goes by: the piece, or a clock that is followed
     * @param standing the tick at which it stands while it does
     */
    LiveTime(Supplier<TempoMap> tempo, LongSupplier standing) {
        this.tempo = tempo;
        this.standing = standing;
    }

    Mode mode() {
        return mode;
    }

    boolean isPlaying() {
        return mode == Mode.PLAYING;
    }

    boolean isStanding() {
        return mode == Mode.STOPPED;
    }

    /** Counts up whenever time starts anew. */
    long run() {
        return run;
    }

    Anchor anchor() {
        return anchor;
    }

    TempoMap tempo() {
        return tempo.get();
    }

    /** The place in the piece where the transport stands, or began. */
    long place() {
        return place;
    }

    void standAt(long newPlace) {
        place = newPlace;
    }

    /** Something else makes time go from now on, or nothing; the tick of a moment is another. */
    void set(Mode newMode, long tick, long now) {
        mode = newMode;
        anchor.set(tick, now);
    }

    /** Time starts anew. */
    void start(Mode newMode, long tick, long now) {
        set(newMode, tick, now);
        run++;
    }

    long nanosAt(long tick) {
        return anchor.nanosAt(tick, tempo.get());
    }

    /** The tick that is being played at a moment; where it stands while it does. */
    long tickAt(long nanos) {
        return mode == Mode.STOPPED ? standing.getAsLong() : anchor.tickAt(nanos, tempo.get());
    }
}
