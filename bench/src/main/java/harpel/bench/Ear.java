package harpel.bench;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.List;

/** Hears at the monitor of a sound server when sounds begin. */
public final class Ear implements AutoCloseable {
    private static final int RATE = 44_100;
    private static final int LOUD = 600;
    /** So many soft samples come before a sound that begins. */
    private static final int SOFT = 1500;

    /** Where a sound begins: in frames of the recording, and as {@link System#nanoTime} when its frame came here. */
    public record Onset(long frame, long nanos) {}

    private final Process recorder;
    private volatile long lastLoudNanos;
    private volatile boolean closed;
    private final List<Onset> onsets = Collections.synchronizedList(new ArrayList<>());

    public Ear() throws IOException {
        recorder = new ProcessBuilder(
                        "parec",
                        "--device=ear.monitor",
                        "--latency-msec=2",
                        "--format=s16le",
                        "--rate=" + RATE,
                        "--channels=1",
                        "--raw")
                .redirectError(ProcessBuilder.Redirect.DISCARD)
                .start();
        Thread listener = new Thread(this::listen, "ear");
        listener.setDaemon(true);
        listener.setPriority(Thread.MAX_PRIORITY);
        listener.start();
    }

    private void listen() {
        byte[] bytes = new byte[4096];
        long frame = 0;
        long soft = 0;
        try (InputStream in = recorder.getInputStream()) {
            for (int length = in.read(bytes); length >= 0; length = in.read(bytes)) {
                long now = System.nanoTime();
                int frames = length / 2;
                for (int i = 0; i < frames; i++) {
                    int value = bytes[2 * i] & 0xFF | bytes[2 * i + 1] << 8;
                    if (Math.abs(value) <= LOUD) {
                        soft++;
                        continue;
                    }
                    lastLoudNanos = now - Math.round((frames - i) * 1e9 / RATE);
                    if (soft > SOFT) {
                        onsets.add(new Onset(frame + i, now - Math.round((frames - i) * 1e9 / RATE)));
                    }
                    soft = 0;
                }
                frame += frames;
            }
        } catch (IOException e) {
            if (!closed) {
                throw new UncheckedIOException(e);
            }
        }
    }

    public void forget() {
        onsets.clear();
    }

    public List<Onset> heard() {
        return List.copyOf(onsets);
    }

    /** When something louder than silence was heard last, as {@link System#nanoTime}. */
    public long lastLoudNanos() {
        return lastLoudNanos;
    }

    /** The first sound that began after a moment, waited for so long; null when none did. */
    public Onset after(long nanos, long millis) throws InterruptedException {
        for (long end = System.nanoTime() + millis * 1_000_000; System.nanoTime() < end; Thread.sleep(5)) {
            for (Onset onset : heard()) {
                if (onset.nanos > nanos) {
                    return onset;
                }
            }
        }
        return null;
    }

    /** How far each sound lies off the even grid that fits them best, in milliseconds, sorted; the server's clock is not ours. */
    public static double[] offGrid(List<Onset> onsets, double stepSeconds) {
        int n = onsets.size();
        double[] place = new double[n];
        double[] at = new double[n];
        double places = 0;
        double frames = 0;
        double both = 0;
        double squares = 0;
        for (int i = 0; i < n; i++) {
            at[i] = onsets.get(i).frame - onsets.get(0).frame;
            place[i] = Math.rint(at[i] / RATE / stepSeconds);
            places += place[i];
            frames += at[i];
            both += place[i] * at[i];
            squares += place[i] * place[i];
        }
        double slope = (n * both - places * frames) / (n * squares - places * places);
        double begin = (frames - slope * places) / n;
        double[] off = new double[n];
        for (int i = 0; i < n; i++) {
            off[i] = Math.abs(at[i] - begin - slope * place[i]) * 1000 / RATE;
        }
        Arrays.sort(off);
        return off;
    }

    @Override
    public void close() {
        closed = true;
        recorder.destroy();
    }
}
