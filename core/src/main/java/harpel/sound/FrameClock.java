package harpel.sound;

/**
 * Which frame of a stream is heard at a moment, by looking at it now and then. What is seen jumps, since a sound server takes blocks, and
 * lags where others have the processor, while what is heard goes on evenly: so the line through it is the mean of what is seen at first,
 * and is then moved only a little at each look. Owned by the sound thread.
 */
final class FrameClock {
    /** So long all looks count alike. */
    private static final double ALIKE_SECONDS = 4;

    /** What is further off is not believed, unless it stays so: then the line begins anew. */
    private static final double FAR_SECONDS = 0.05;

    private static final double STAYS_SECONDS = 0.3;

    /** What was heard furthest in a second, against even time, does not fall back by so much unless sound broke off. */
    private static final double BROKE_SECONDS = 0.0015;

    private static final long SECOND_NANOS = 1_000_000_000L;

    private final double framesPerNano;
    private final double brokeFrames;
    private final double farFrames;
    private final int alike;
    private final int stays;
    private long nanos;
    private double frame = Double.NaN;
    private int looks;
    private int far;
    private long since;
    private double furthest = Double.NEGATIVE_INFINITY;
    private double furthestBefore = Double.NEGATIVE_INFINITY;
    private long breaks;

    /** @param lookSeconds so often it is looked */
    FrameClock(double rate, double lookSeconds) {
        alike = (int) Math.ceil(ALIKE_SECONDS / lookSeconds);
        framesPerNano = rate / 1e9;
        brokeFrames = rate * BROKE_SECONDS;
        farFrames = rate * FAR_SECONDS;
        stays = (int) Math.ceil(STAYS_SECONDS / lookSeconds);
    }

    /** Sound broke off: what was seen before says nothing any more. */
    void forget() {
        frame = Double.NaN;
        furthestBefore = Double.NEGATIVE_INFINITY;
    }

    /** How often sound broke off, as far as is seen by it coming later from then on: what a server puts in between is not told. */
    long breaks() {
        return breaks;
    }

    private void lookForBreak(long now, double heard) {
        furthest = Math.max(furthest, heard - now * framesPerNano);
        if (now - since >= SECOND_NANOS) {
            if (furthest < furthestBefore - brokeFrames) {
                breaks++;
                forget();
            }
            furthestBefore = furthest;
            furthest = Double.NEGATIVE_INFINITY;
            since = now;
        }
    }

    /** At {@code now} this frame is heard. */
    void saw(long now, double heard) {
        lookForBreak(now, heard);
        double off = heard - at(now);
        if (Double.isNaN(off) || Math.abs(off) >= farFrames && ++far >= stays) {
            frame = heard;
            looks = 1;
            far = 0;
        } else if (Math.abs(off) >= farFrames) {
            return;
        } else {
            far = 0;
            looks = Math.min(alike, looks + 1);
            frame = at(now) + off / looks;
        }
        nanos = now;
    }

    double at(long when) {
        return frame + (when - nanos) * framesPerNano;
    }
}
