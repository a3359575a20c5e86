package harpel.sound;

import harpel.device.SoundBank;
import harpel.piece.Voice;
import harpel.port.OutputPort;
import java.io.IOException;
import java.lang.management.ManagementFactory;
import java.lang.management.ThreadMXBean;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.concurrent.locks.LockSupport;
import javax.sound.sampled.AudioFormat;
import javax.sound.sampled.AudioSystem;
import javax.sound.sampled.DataLine;
import javax.sound.sampled.LineUnavailableException;
import javax.sound.sampled.Mixer;
import javax.sound.sampled.SourceDataLine;
import org.jctools.queues.MpscArrayQueue;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * The built-in sounds, heard: one thread of its own reads the synthesizers of all parts in short blocks and gives their sum to a sound
 * device with a short buffer. Every message sounds at the frame of its moment and a fixed delay after it, so that what is even in time is
 * even at the ear, whatever the blocks and however late a thread wakes within the delay.
 */
public final class SoundEngine implements AutoCloseable {
    private static final float RATE = 44_100;
    private static final int CHANNELS = Synth.CHANNELS;
    private static final int FRAME_BYTES = 2 * CHANNELS;
    private static final AudioFormat LINE = new AudioFormat(RATE, 16, CHANNELS, true, false);

    /** So much of the delay is left for a thread that wakes late, and for what a block begins with. */
    private static final double SPARE_MILLIS = 1.5;

    /** So many messages wait for the next block at most; more come only where the device takes none. */
    private static final int ROOM = 16_384;

    /** The way of test notes needs no more. */
    private static final int TEST_VOICES = 8;

    private static final long NAP_NANOS = 300_000;
    private static final long LONG_LOOK_NANOS = 100_000;
    private static final float METERS_A_SECOND = 10;
    /** By so much the shown share goes towards that of a tenth of a second. */
    private static final double SHARE_GOES = 0.1;
    /** How fast a shown peak falls. */
    private static final double FALL_DB_A_SECOND = 20;

    /**
     * What the page of devices shows.
     *
     * @param device its name; empty for the machine's own choice
     * @param lateBlocks how many blocks came too late since it was opened, so that sound broke off
     * @param lateNotes how many messages came too late for their moment
     * @param takenVoices how many notes took a voice that still rang, since their part had no more
     * @param share of one processor, 0–1
     * @param loudness of the last 3 s, in LUFS; −∞ for silence
     * @param peak the loudest sample of late, in dB against full scale
     * @param softened by how much too loud sound is softened at the moment, in dB
     * @param problem why nothing is heard any more; empty for nothing
     */
    public record State(
            String device,
            Delay delay,
            long lateBlocks,
            long lateNotes,
            long takenVoices,
            double share,
            double loudness,
            double peak,
            double softened,
            String problem) {}

    private record Arriving(PartSound part, PartSound.Timed timed) {}

    private final MpscArrayQueue<Arriving> arriving = new MpscArrayQueue<>(ROOM);
    private final String wanted;
    private final Delay delay;
    private final int block;

    /** Replaced whole, so that the sound thread reads them without waiting. */
    private volatile List<PartSound> parts = List.of();

    private SoundBank bank;
    private Thread thread;
    private volatile SourceDataLine line;
    private volatile String device = "";
    private volatile String failure = "";
    private volatile boolean closing;
    private volatile boolean eases = true;
    private volatile long lateBlocks;
    private volatile long lateNotes;
    private volatile double share;
    private volatile double loudness = Double.NEGATIVE_INFINITY;
    private volatile float peak;
    private volatile double softened;

    private SoundEngine(String device, Delay delay, SoundBank bank) {
        this.wanted = device;
        this.delay = delay;
        this.bank = bank;
        // Three blocks make the buffer, and what arrives waits at most for one.
        this.block = (int) (RATE * (delay.millis() - SPARE_MILLIS) / 1000 / 4);
    }

    /**
     * Opens a sound device.
     *
     * @param device its name; empty for the one that is the machine's own choice
     * @param bank sounds in place of built-in ones, or null
     * @throws IOException saying why there is no sound
     */
    public static SoundEngine open(String device, Delay delay, SoundBank bank) throws IOException {
        SoundEngine engine = new SoundEngine(device, delay, bank);
        engine.start();
        return engine;
    }

    /** The names of the sound devices there are. */
    public static List<String> devices() {
        List<String> names = new ArrayList<>();
        for (Mixer.Info info : AudioSystem.getMixerInfo()) {
            if (AudioSystem.getMixer(info).isLineSupported(new DataLine.Info(SourceDataLine.class, LINE))) {
                names.add(info.getName());
            }
        }
        return names;
    }

    private synchronized void start() throws IOException {
        try {
            line = openLine();
        } catch (IllegalArgumentException | LineUnavailableException e) {
            throw new IOException("no sound device can be opened: " + e, e);
        }
        thread = new Thread(this::run, "harpel-sound");
        thread.setDaemon(true);
        thread.setPriority(Thread.MAX_PRIORITY);
        thread.start();
    }

    private SourceDataLine openLine() throws LineUnavailableException {
        Mixer.Info info = Arrays.stream(AudioSystem.getMixerInfo())
                .filter(one -> one.getName().equals(wanted))
                .findFirst()
                .orElse(null);
        SourceDataLine opened = AudioSystem.getSourceDataLine(LINE, info);
        opened.open(LINE, 3 * block * FRAME_BYTES);
        device = info == null ? "" : info.getName();
        return opened;
    }

    /**
     * A synthesizer for a part; what it is sent is heard until it is closed. Takes up to a quarter of a second.
     *
     * @throws IOException where this platform has none
     */
    public synchronized OutputPort part(String name) throws IOException {
        PartSound part = new PartSound(
                name, RATE, block, bank, name.equals(Voice.BUILT_IN) ? TEST_VOICES : Synth.MOST_VOICES, this::take);
        List<PartSound> more = new ArrayList<>(parts);
        more.add(part);
        parts = List.copyOf(more);
        return part;
    }

    private void take(PartSound part, PartSound.Timed timed) {
        if (!failure.isEmpty()) {
            throw new IllegalStateException(failure);
        }
        if (!arriving.offer(new Arriving(part, timed))) {
            throw new IllegalStateException("the sound device takes nothing any more");
        }
    }

    /** What comes now is another piece: it begins softly. */
    public void ease() {
        eases = true;
    }

    /** The loudest sample of late of a part, in dB against full scale; −∞ for silence. From any thread. */
    public double peak(String part) {
        float loudest = 0;
        for (PartSound one : parts) {
            loudest = one.name().equals(part) ? Math.max(loudest, one.peak()) : loudest;
        }
        return 20 * Math.log10(loudest);
    }

    public Delay delay() {
        return delay;
    }

    /** How it stands; from any thread. */
    public State state() {
        return new State(
                device,
                delay,
                lateBlocks,
                lateNotes,
                parts.stream().mapToLong(PartSound::takenVoices).sum(),
                share,
                loudness,
                20 * Math.log10(peak),
                softened,
                failure);
    }

    /**
     * Lets other sounds stand in for the built-in ones from now on.
     *
     * @param newBank null for the built-in ones
     */
    public synchronized void use(SoundBank newBank) throws IOException {
        bank = newBank;
        for (PartSound part : parts) {
            part.use(newBank);
        }
    }

    // The sound thread

    private void run() {
        SourceDataLine out = line;
        FrameClock clock = new FrameClock(RATE, block / RATE);
        Limiter limiter = new Limiter(RATE);
        Loudness meter = new Loudness(RATE, false);
        int metered = 0;
        float fall = (float) Math.pow(10, -FALL_DB_A_SECOND / 20 * block / RATE);
        float[] samples = new float[block * CHANNELS];
        byte[] sound = new byte[block * FRAME_BYTES];
        int bufferFrames = out.getBufferSize() / FRAME_BYTES;
        double delayFrames = RATE * delay.millis() / 1000.0;
        long written = 0;
        ThreadMXBean threads = ManagementFactory.getThreadMXBean();
        long used = threads.getCurrentThreadCpuTime();
        long usedAt = System.nanoTime();
        try {
            out.start();
            while (!closing) {
                long begin = System.nanoTime();
                int buffered = bufferFrames - out.available() / FRAME_BYTES;
                long looking = System.nanoTime() - begin;
                if (written > bufferFrames && buffered <= 0) {
                    lateBlocks++;
                    clock.forget();
                }
                // While the buffer fills for the first time nothing is heard; and when others had the processor
                // meanwhile, it is not known when what was seen was so.
                if (written >= bufferFrames && looking < LONG_LOOK_NANOS) {
                    long breaks = clock.breaks();
                    clock.saw(begin + looking / 2, written - buffered);
                    lateBlocks += clock.breaks() - breaks;
                }
                for (Arriving one = arriving.poll(); one != null; one = arriving.poll()) {
                    long frame = Math.round(clock.at(one.timed.dueNanos()) + delayFrames);
                    if (frame < written) {
                        lateNotes++;
                    }
                    one.part.add(one.timed.message(), frame, written);
                }
                Arrays.fill(samples, 0);
                for (PartSound part : parts) {
                    part.render(samples, written, fall);
                }
                if (eases) {
                    eases = false;
                    limiter.ease();
                }
                limiter.limit(samples, samples.length);
                meter.take(samples, samples.length);
                peak = Math.max(peak * fall, limiter.takePeak());
                metered += block;
                if (metered >= RATE / METERS_A_SECOND) {
                    metered = 0;
                    loudness = meter.shortTerm();
                    softened = limiter.reductionDb();
                    long nowUsed = threads.getCurrentThreadCpuTime();
                    share += ((nowUsed - used) / (double) (begin - usedAt) - share) * SHARE_GOES;
                    used = nowUsed;
                    usedAt = begin;
                }
                bytes(samples, sound);
                write(out, sound);
                written += block;
            }
        } catch (IOException | RuntimeException | Error e) {
            if (!closing) {
                log().warn("the sound stopped", e);
                failure = "the sound device is gone: " + e.getMessage();
            }
        }
    }

    private void write(SourceDataLine out, byte[] sound) {
        while (!closing && out.available() < sound.length) {
            LockSupport.parkNanos(NAP_NANOS);
            if (!out.isOpen()) {
                throw new IllegalStateException("it was closed");
            }
        }
        if (!closing && out.write(sound, 0, sound.length) < sound.length) {
            throw new IllegalStateException("it takes no more");
        }
    }

    private static void bytes(float[] samples, byte[] sound) {
        for (int i = 0; i < samples.length; i++) {
            int value = Math.round(Math.max(-1, Math.min(1, samples[i])) * Short.MAX_VALUE);
            sound[2 * i] = (byte) value;
            sound[2 * i + 1] = (byte) (value >> 8);
        }
    }

    private synchronized void stop() {
        closing = true;
        if (thread != null && thread != Thread.currentThread()) {
            try {
                thread.join(500);
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
            }
        }
        thread = null;
        arriving.clear();
        if (line != null) {
            line.close();
            line = null;
        }
        parts.forEach(SoundEngine::free);
        parts = List.of();
    }

    /** Lets go of the synthesizers of parts that are gone. */
    synchronized void freeOver() {
        List<PartSound> over = parts.stream().filter(PartSound::isOver).toList();
        parts = parts.stream().filter(part -> !over.contains(part)).toList();
        over.forEach(SoundEngine::free);
    }

    private static void free(PartSound part) {
        try {
            part.free();
        } catch (IOException e) {
            log().debug("a synthesizer did not close", e);
        }
    }

    @Override
    public void close() {
        stop();
    }

    private static Logger log() {
        return LoggerFactory.getLogger(SoundEngine.class);
    }
}
