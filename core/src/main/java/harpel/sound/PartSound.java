package harpel.sound;

import harpel.device.SoundBank;
import harpel.port.OutputPort;
import java.io.IOException;
import java.util.function.BiConsumer;

/**
 * The built-in sounds of one part: a synthesizer of its own, so that parts share neither channels nor voices. Its way in is an output port;
 * all else is the sound thread's. While nothing sounds it costs nothing.
 */
final class PartSound implements OutputPort {
    /** What is softer than −100 dB for so long, with no voice, is over: its hall has died away, too. */
    private static final float SILENCE = 1e-5f;

    private static final double QUIET_SECONDS = 0.5;
    /** Of a part that is gone no more than so much rings on. */
    private static final double LAST_SECONDS = 5;
    /** What is played, unheard, so that the first note does not wait for what is used for the first time. */
    private static final int WARM_BLOCKS = 100;

    private final String name;
    private final Synth synth;
    private final BiConsumer<PartSound, Timed> taker;
    private final float rate;
    private final Waiting waiting = new Waiting();

    private volatile boolean gone;
    /** The loudest sample of late, in the left or the right. */
    private volatile float peak;

    private volatile long takenVoices;
    /** How many frames its synthesizer has made; fewer than the engine, since it sleeps. */
    private long made;

    private boolean asleep = true;
    /** Since it was silenced no note has begun. */
    private boolean silent;
    /** Whether the block before was heard. */
    private boolean heard;

    private double quietSeconds;
    private double goneSeconds;

    /** A message and when it is due. */
    record Timed(byte[] message, long dueNanos) {}

    /** @param taker takes each message to the sound thread, or throws why it does not */
    PartSound(String name, float rate, int block, SoundBank bank, int voices, BiConsumer<PartSound, Timed> taker)
            throws IOException {
        this.name = name;
        this.taker = taker;
        this.rate = rate;
        // It renders whole blocks of its own: as long as ours, so that none is rendered before its notes are known.
        synth = Synth.open(rate, bank, rate / (block + 0.5f), voices);
        warmUp(new float[block * Synth.CHANNELS]);
    }

    private void warmUp(float[] samples) throws IOException {
        synth.send(Synth.message(new byte[] {(byte) 0x90, 60, 1}), 0);
        for (int i = 0; i < WARM_BLOCKS; i++) {
            if (i == WARM_BLOCKS / 2) {
                synth.send(Synth.message(new byte[] {(byte) 0xB0, 120, 0}), micros(made));
            }
            addTo(samples);
        }
    }

    private float addTo(float[] samples) throws IOException {
        made += samples.length / Synth.CHANNELS;
        return synth.addTo(samples);
    }

    @Override
    public String name() {
        return name;
    }

    @Override
    public void send(byte[] message, long dueNanos) {
        if ((message[0] & 0xFF) < 0xF0) {
            synth.prepare(message);
            taker.accept(this, new Timed(message, dueNanos));
        }
    }

    /** The part is gone; what still rings does so for a while. */
    @Override
    public void close() {
        gone = true;
    }

    /** The loudest sample of late, 1 being full scale. From any thread. */
    float peak() {
        return peak;
    }

    /** How many notes took a voice that still rang, since there were no more. From any thread. */
    long takenVoices() {
        return takenVoices;
    }

    void use(SoundBank bank) throws IOException {
        synth.use(bank);
    }

    void free() throws IOException {
        synth.close();
    }

    // The sound thread

    void add(byte[] message, long frame, long written) {
        waiting.add(message, frame, written);
    }

    /**
     * Adds its next block to what is heard.
     *
     * @param written the first frame of the block
     * @param fall by how much a shown peak falls in a block
     */
    void render(float[] sum, long written, float fall) throws IOException {
        int frames = sum.length / Synth.CHANNELS;
        if (asleep && !waiting.isBefore(written + frames)) {
            peak = 0;
            return;
        }
        asleep = false;
        long behind = written - made;
        int[] free = {-1};
        waiting.until(written + frames, (message, frame) -> {
            if (Waiting.isStart(message)) {
                free[0] = free[0] < 0 ? synth.freeVoices() : free[0];
                if (free[0]-- == 0) {
                    takenVoices++;
                    free[0] = 0;
                }
            }
            synth.send(Synth.message(message), micros(frame - behind));
            silent = Waiting.silences(message) || silent && !Waiting.isStart(message);
        });
        float loudest = silent ? fadeOut(sum) : addTo(sum);
        heard = !silent;
        peak = silent ? 0 : Math.max(peak * fall, loudest);
        double seconds = frames / rate;
        goneSeconds += gone ? seconds : 0;
        quietSeconds = loudest < SILENCE ? quietSeconds + seconds : 0;
        if (quietSeconds > QUIET_SECONDS) {
            quietSeconds = 0;
            asleep = synth.isQuiet();
        }
    }

    /** What rings in the hall goes on unheard until the next note: Silence is silence at the end of a block. */
    private float fadeOut(float[] sum) throws IOException {
        float[] ringing = new float[sum.length];
        float loudest = addTo(ringing);
        if (heard) {
            for (int i = 0; i < sum.length; i++) {
                sum[i] += ringing[i] * (sum.length - i) / sum.length;
            }
        }
        return loudest;
    }

    boolean isAsleep() {
        return asleep;
    }

    /** Whether its part is gone and nothing of it sounds any more. */
    boolean isOver() {
        return gone && (asleep || goneSeconds > LAST_SECONDS);
    }

    private long micros(long frame) {
        return (long) Math.ceil(frame * 1e6 / rate);
    }
}
