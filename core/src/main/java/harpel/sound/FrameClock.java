package harpel.sound;

/**
 * Which frame of a stream is heard at a moment, by looking at it now and then. What is seen jumps, since a sound server takes blocks;
 * so the line through it is the mean of what is seen at first, and is then moved only a little at each look. Owned by the sound thread.
 */
final class FrameClock {
    /** So many looks count alike at first. */
    private static final int LOOKS = 100;

    /** What is further off than so many seconds was a stall: the line begins anew. */
    private static final double STALL_SECONDS = 0.05;

    private final double framesPerNano;
    private final double stallFrames;
    private long nanos;
    private double frame = Double.NaN;
    private int looks;

    FrameClock(double rate) {
        framesPerNano = rate / 1e9;
        stallFrames = rate * STALL_SECONDS;
    }

    /** At {@code now} this frame is heard. */
    void saw(long now, double heard) {
        double off = heard - at(now);
        // Not a number before the first look.
        if (!(Math.abs(off) < stallFrames)) {
            frame = heard;
            looks = 1;
        } else {
            looks = Math.min(LOOKS, looks + 1);
            frame = at(now) + off / looks;
        }
        nanos = now;
    }

    double at(long when) {
        return frame + (when - nanos) * framesPerNano;
    }
}
