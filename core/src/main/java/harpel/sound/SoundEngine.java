package harpel.sound;

import harpel.device.SoundBank;
import harpel.port.OutputPort;
import java.io.IOException;
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
 * The built-in sounds, heard: one thread of its own reads the synthesizer in short blocks and gives them to a sound device with a short
 * buffer. Every message sounds at the frame of its moment and a fixed delay after it, so that what is even in time is even at the ear,
 * whatever the blocks and however late a thread wakes within the delay.
 */
public final class SoundEngine implements OutputPort {
    private static final float RATE = 44_100;
    private static final int CHANNELS = 2;
    private static final int FRAME_BYTES = 2 * CHANNELS;
    private static final AudioFormat LINE = new AudioFormat(RATE, 16, CHANNELS, true, false);
    private static final AudioFormat SYNTH =
            new AudioFormat(AudioFormat.Encoding.PCM_FLOAT, RATE, 32, CHANNELS, 4 * CHANNELS, RATE, false);

    /** So much of the delay is left for a thread that wakes late, and for what a block begins with. */
    private static final double SPARE_MILLIS = 1.5;

    /** So many messages wait for the next block at most; more come only where the device takes none. */
    private static final int ROOM = 16_384;

    private static final long NAP_NANOS = 300_000;
    private static final float METERS_A_SECOND = 10;
    /** How fast a shown peak falls. */
    private static final double FALL_DB_A_SECOND = 20;

    /** What the page of devices shows. */
    /**
     * @param device its name; empty for the machine's own choice
     * @param lateBlocks how many blocks came too late since it was opened, so that sound broke off
     * @param lateNotes how many messages came too late for their moment
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
            double share,
            double loudness,
            double peak,
            double softened,
            String problem) {}

    private record Timed(byte[] message, long dueNanos) {}

    private final MpscArrayQueue<Timed> arriving = new MpscArrayQueue<>(ROOM);
    private final String wanted;
    private final Delay delay;
    private final int block;

    private SoundBank bank;
    private Synth synth;
    private Thread thread;
    private volatile SourceDataLine line;
    private volatile String device = "";
    private volatile String failure = "";
    private volatile boolean closing;
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
     * Opens a sound device and the synthesizer. Takes up to a second.
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
            // First, since it is what a machine without sound lacks.
            SourceDataLine opened = openLine();
            line = opened;
            // It renders whole blocks of its own: as long as ours, so that none is rendered before its notes are known.
            synth = Synth.open(SYNTH, bank, RATE / (block + 0.5f));
        } catch (IOException | IllegalArgumentException | LineUnavailableException e) {
            stop();
            throw e instanceof IOException io ? io : new IOException("no sound device can be opened: " + e, e);
        }
        failure = "";
        closing = false;
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

    @Override
    public String name() {
        return "Built-in sounds";
    }

    /** How it stands; from any thread. */
    public State state() {
        return new State(
                device, delay, lateBlocks, lateNotes, share, loudness, 20 * Math.log10(peak), softened, failure);
    }

    /**
     * Lets other sounds stand in for the built-in ones from now on.
     *
     * @param newBank null for the built-in ones
     */
    public synchronized void use(SoundBank newBank) throws IOException {
        SoundBank before = bank;
        bank = newBank;
        if (synth != null) {
            synth.use(before, newBank);
        }
    }

    @Override
    public void send(byte[] message, long dueNanos) {
        if (!failure.isEmpty()) {
            throw new IllegalStateException(failure);
        }
        if ((message[0] & 0xFF) < 0xF0) {
            if (!arriving.offer(new Timed(message, dueNanos))) {
                throw new IllegalStateException("the sound device takes nothing any more");
            }
        }
    }

    @Override
    public void reopen() throws IOException {
        stop();
        start();
    }

    // The sound thread

    private void run() {
        SourceDataLine out = line;
        FrameClock clock = new FrameClock(RATE);
        Waiting waiting = new Waiting();
        Limiter limiter = new Limiter(RATE);
        Loudness meter = new Loudness(RATE, false);
        int metered = 0;
        float fall = (float) Math.pow(10, -FALL_DB_A_SECOND / 20 * block / RATE);
        float[] samples = new float[block * CHANNELS];
        byte[] raw = new byte[samples.length * 4];
        byte[] sound = new byte[block * FRAME_BYTES];
        int bufferFrames = out.getBufferSize() / FRAME_BYTES;
        double delayFrames = RATE * delay.millis() / 1000.0;
        long written = 0;
        try {
            out.start();
            while (!closing) {
                long begin = System.nanoTime();
                int buffered = bufferFrames - out.available() / FRAME_BYTES;
                if (written > bufferFrames && buffered <= 0) {
                    lateBlocks++;
                }
                // While the buffer fills for the first time nothing is heard.
                if (written >= bufferFrames) {
                    clock.saw(begin, written - buffered);
                }
                for (Timed one = arriving.poll(); one != null; one = arriving.poll()) {
                    long frame = Math.round(clock.at(one.dueNanos) + delayFrames);
                    if (frame < written) {
                        lateNotes++;
                    }
                    waiting.add(one.message, frame, written);
                }
                waiting.until(written + block, (message, frame) -> synth.send(Synth.message(message), micros(frame)));
                synth.read(raw);
                samples(raw, samples);
                limiter.limit(samples, samples.length);
                meter.take(samples, samples.length);
                peak = Math.max(peak * fall, limiter.takePeak());
                metered += block;
                if (metered >= RATE / METERS_A_SECOND) {
                    metered = 0;
                    loudness = meter.shortTerm();
                    softened = limiter.reductionDb();
                }
                bytes(samples, sound);
                double used = System.nanoTime() - begin;
                share += (used / (block / RATE * 1e9) - share) * 0.01;
                write(out, sound);
                written += block;
            }
        } catch (IOException | RuntimeException e) {
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

    private static long micros(long frame) {
        return (long) Math.ceil(frame * 1e6 / RATE);
    }

    /** Samples of 32 bits, the lowest byte first, as IEEE 754 numbers. */
    private static void samples(byte[] raw, float[] samples) {
        for (int i = 0; i < samples.length; i++) {
            int at = 4 * i;
            samples[i] = Float.intBitsToFloat(
                    raw[at] & 0xFF | (raw[at + 1] & 0xFF) << 8 | (raw[at + 2] & 0xFF) << 16 | raw[at + 3] << 24);
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
        if (synth != null) {
            try {
                synth.close();
            } catch (IOException e) {
                log().debug("the synthesizer did not close", e);
            }
            synth = null;
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
