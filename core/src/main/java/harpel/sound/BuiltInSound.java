package harpel.sound;

import harpel.device.SoundBank;
import harpel.piece.Part;
import harpel.piece.Piece;
import harpel.piece.Voice;
import harpel.port.Ports;
import java.io.IOException;
import java.util.HashSet;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.Executors;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.TimeUnit;
import java.util.function.Consumer;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * Keeps the built-in sounds heard: opens a sound device when there is one, again when it comes back, and another when that is wished; with
 * an automatic delay it takes a safer one when blocks come late. A thread of its own looks every two seconds.
 */
public final class BuiltInSound implements AutoCloseable {
    public static final String NO_DEVICE =
            "This machine has no sound device: notes are computed, shown and sent to MIDI outputs, but not heard here.";

    private static final long LOOK_MILLIS = 2_000;
    /** So many late blocks between two looks are too many. */
    private static final int MANY_LATE = 3;

    /**
     * What a person chose.
     *
     * @param device the name of a sound device; empty for the machine's own choice
     * @param delay empty for automatic
     */
    public record Wish(String device, Optional<Delay> delay) {
        public static final Wish PLAIN = new Wish("", Optional.empty());
    }

    /** Opens what is heard. */
    interface Opener {
        SoundEngine open(String device, Delay delay, SoundBank bank) throws IOException;
    }

    private final Ports ports;
    private final Opener opener;
    private final Consumer<String> problem;
    private final Consumer<String> say;
    /** Held, since what is set of it is forgotten with it. */
    private java.util.logging.Logger preferences;

    private final ScheduledExecutorService looker = Executors.newSingleThreadScheduledExecutor(work -> {
        Thread thread = new Thread(work, "harpel-sound-devices");
        thread.setDaemon(true);
        return thread;
    });

    /** Not guarded, since who wishes must not wait for what is being opened. */
    private volatile Wish wish = Wish.PLAIN;

    /** The ways that are wanted, besides the one for test notes; not guarded, for the same reason. */
    private volatile Set<String> parts = Set.of();

    private final Set<String> openedParts = new HashSet<>();
    private Wish openedAs;
    private Delay automatic = Delay.NORMAL;
    private SoundBank bank;
    private volatile SoundEngine engine;
    private long lateBefore;
    private String told;
    private volatile boolean looks;

    /**
     * @param problem told why there is no sound, or that there is ("")
     * @param say told what it did by itself
     */
    public BuiltInSound(Ports ports, Consumer<String> problem, Consumer<String> say) {
        this(ports, SoundEngine::open, problem, say);
    }

    BuiltInSound(Ports ports, Opener opener, Consumer<String> problem, Consumer<String> say) {
        this.ports = ports;
        this.opener = opener;
        this.problem = problem;
        this.say = say;
    }

    /** Opens the sound, and looks after it from now on, in the background. */
    public void start() {
        // The first time, the synthesizer makes itself preferences, of which Java tells everyone on standard error.
        preferences = java.util.logging.Logger.getLogger("java.util.prefs");
        preferences.setLevel(java.util.logging.Level.WARNING);
        looker.scheduleWithFixedDelay(this::lookSafely, 0, LOOK_MILLIS, TimeUnit.MILLISECONDS);
        looks = true;
    }

    /** What is thrown at one look must not end all others. */
    private void lookSafely() {
        try {
            look();
        } catch (RuntimeException | Error e) {
            log().warn("the sound could not be looked after; it is tried again", e);
        }
    }

    /** Another device or delay from now on; it is opened soon. From any thread. */
    public void wish(Wish newWish) {
        wish = newWish;
        lookNow();
    }

    private void lookNow() {
        if (looks) {
            looker.execute(this::lookSafely);
        }
    }

    /** The sounds of these parts are wanted from now on, and no others; they are opened soon. From any thread. */
    public void parts(Piece piece) {
        Set<String> wanted = new HashSet<>();
        for (Part part : piece.parts()) {
            if (part.port().equals(Voice.BUILT_IN)) {
                wanted.add(Voice.builtIn(part.id()));
            }
        }
        if (!wanted.equals(parts)) {
            parts = wanted;
            lookNow();
        }
    }

    public Wish wish() {
        return wish;
    }

    /** The loudest sample of late of a part, in dB against full scale; −∞ for silence. From any thread. */
    public double peak(String part) {
        SoundEngine now = engine;
        return now == null ? Double.NEGATIVE_INFINITY : now.peak(Voice.builtIn(part));
    }

    /** Another piece was opened: however loud it is, it begins softly. From any thread. */
    public void ease() {
        SoundEngine now = engine;
        if (now != null) {
            now.ease();
        }
    }

    /** How much later than it is due all is heard; 0 while there is no sound. From any thread. */
    public long delayNanos() {
        SoundEngine now = engine;
        return now == null ? 0 : now.delay().millis() * 1_000_000L;
    }

    /** How it stands; empty while there is no sound. From any thread. */
    public Optional<SoundEngine.State> state() {
        return Optional.ofNullable(engine).map(SoundEngine::state);
    }

    /** Opens what should be open and is not. */
    synchronized void look() {
        Wish wanted = wish;
        if (!wanted.equals(openedAs)) {
            automatic = Delay.NORMAL;
        } else if (engine != null && wanted.delay().isEmpty()) {
            long late = engine.state().lateBlocks();
            if (late - lateBefore >= MANY_LATE && automatic != automatic.safer()) {
                automatic = automatic.safer();
                say.accept("Sound is heard " + automatic.millis() + " ms after it is due now, since blocks came late ("
                        + automatic.label() + ").");
            }
            lateBefore = late;
        }
        if (engine != null
                && wanted.equals(openedAs)
                && engine.state().delay() == wanted.delay().orElse(automatic)
                && engine.state().problem().isEmpty()
                && !isBack(wanted)) {
            try {
                openParts();
            } catch (IOException e) {
                log().warn("a part has no sound; it is tried again", e);
            }
            return;
        }
        SoundEngine before = engine;
        try {
            SoundEngine next = opener.open(wanted.device(), wanted.delay().orElse(automatic), bank);
            engine = next;
            openedAs = wanted;
            lateBefore = 0;
            openedParts.clear();
            openParts();
            tell("");
        } catch (IOException e) {
            log().debug("no sound: {}", e.getMessage());
            if (before != null && wanted.equals(openedAs)) {
                // What was heard is gone; when it is back it is opened anew.
                engine = null;
                closeParts(Set.of());
            }
            tell(engine == null ? NO_DEVICE : "");
        }
        if (before != null && before != engine) {
            before.close();
        }
    }

    private void openParts() throws IOException {
        Set<String> wanted = new HashSet<>(parts);
        wanted.add(Ports.BUILT_IN);
        for (String part : wanted) {
            if (!openedParts.contains(part)) {
                ports.add(part, engine.part(part));
                openedParts.add(part);
            }
        }
        closeParts(wanted);
        engine.freeOver();
    }

    private void closeParts(Set<String> butFor) {
        for (String part : ports.builtIn()) {
            if (!butFor.contains(part)) {
                ports.remove(part);
            }
        }
        openedParts.retainAll(butFor);
    }

    /** Whether the device that is wished, and was not there, is there now. */
    private boolean isBack(Wish wanted) {
        return !engine.state().device().equals(wanted.device())
                && SoundEngine.devices().contains(wanted.device());
    }

    private void tell(String words) {
        if (!words.equals(told)) {
            told = words;
            problem.accept(words);
        }
    }

    /**
     * Lets other sounds stand in for the built-in ones from now on. Takes up to seconds.
     *
     * @param newBank null for the built-in ones
     */
    public synchronized void useSounds(SoundBank newBank) throws IOException {
        bank = newBank;
        if (engine != null) {
            engine.use(newBank);
            ports.builtIn().forEach(ports::tellAnew);
        }
    }

    /** Closes the sound device; what leads to it is closed before. */
    @Override
    public void close() {
        looker.shutdown();
        SoundEngine last = engine;
        if (last != null) {
            last.close();
        }
    }

    private static Logger log() {
        return LoggerFactory.getLogger(BuiltInSound.class);
    }
}
