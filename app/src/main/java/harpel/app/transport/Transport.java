package harpel.app.transport;

import harpel.app.look.Messages;
import harpel.capture.Heard;
import harpel.chain.Stage;
import harpel.chain.StageAddress;
import harpel.device.Devices;
import harpel.device.MachineDevices;
import harpel.device.SoundBank;
import harpel.engine.LiveEngine;
import harpel.engine.LiveStatus;
import harpel.param.ParamSet;
import harpel.piece.Part;
import harpel.piece.Piece;
import harpel.piece.Standing;
import harpel.piece.Voice;
import harpel.player.Player;
import harpel.port.InputPort;
import harpel.port.OutputPort;
import harpel.port.Ports;
import harpel.run.Tap;
import harpel.sound.BuiltInSound;
import java.io.IOException;
import java.util.List;
import java.util.Map;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.TimeUnit;
import java.util.function.LongSupplier;
import javafx.application.Platform;
import javafx.beans.property.BooleanProperty;
import javafx.beans.property.SimpleBooleanProperty;
import javafx.beans.property.SimpleStringProperty;
import javafx.beans.property.StringProperty;

/** What plays: the engine, the ways in and out, and what has been heard of late. Interface thread. */
public final class Transport implements AutoCloseable {
    private static final String SILENT = "Silence: every note and every waiting repeat has ended.";

    private static final long TOUCHED_MS = 180;
    /** So long it takes until a sound that was chosen is there, and so long it is heard. */
    private static final long TRY_MS = 60;

    private static final long TRIED_MS = 700;

    private final Messages messages;
    private final StringProperty noSound = new SimpleStringProperty("");
    private final BooleanProperty dry = new SimpleBooleanProperty();
    private final TraceQueue queue;
    /** How much the traces have missed so far. */
    private long missed;

    private final Heard heard = new Heard();
    private final TraceStore traces = new TraceStore();
    private final BuiltInSound sound;
    private final Devices devices;
    private final Ports ports;
    private final LongSupplier clock;
    private final LiveEngine engine;
    private final Player player;
    private final InputPort keys;
    /** For notes that are only tried. */
    private final InputPort auditions;

    private long tries;
    /** The way of the sound that was tried last. */
    private String tried = "";

    private long toldTroubles;
    private Map<String, String> toldProblems = Map.of();

    /**
     * @param ports the ways out, which are closed with it
     * @param clock as {@link System#nanoTime}
     */
    public Transport(Piece piece, Ports ports, MachineDevices machine, LongSupplier clock, Messages messages) {
        this.messages = messages;
        this.ports = ports;
        this.clock = clock;
        queue = new TraceQueue(clock);
        sound = new BuiltInSound(
                ports,
                none -> Platform.runLater(() -> noSound.set(none)),
                text -> Platform.runLater(() -> messages.say(text)));
        sound.parts(piece);
        engine = new LiveEngine(piece, ports, Tap.both(queue, heard), clock);
        player = new Player(engine, piece);
        keys = engine.openInput(InputPort.KEYS);
        auditions = engine.openInput(InputPort.AUDITION);
        devices = new Devices(machine, engine, ports, text -> Platform.runLater(() -> messages.say(text)));
    }

    /** Starts the engine; apart from making it, so that the window may be there first. What was played before is played then. */
    public void start() {
        engine.start();
    }

    /** Opens the machine's MIDI devices and sound, in the background, and says what there is. */
    public void openDevices() {
        sound.start();
        devices.start();
    }

    /** Lets other sounds stand in for the built-in ones; null for those. From any thread; takes up to seconds. */
    void useSounds(SoundBank bank) throws IOException {
        sound.useSounds(bank);
    }

    /** The built-in sounds, heard. */
    public BuiltInSound sound() {
        return sound;
    }

    /** The MIDI devices that are there or were. */
    public Devices devices() {
        return devices;
    }

    public LiveEngine engine() {
        return engine;
    }

    /** What is heard, and what is asked of the engine in step with it. */
    public Player player() {
        return player;
    }

    public LiveStatus status() {
        return engine.status();
    }

    public void play() {
        if (messages.last().get().equals(SILENT)) {
            messages.say("");
        }
        player.play();
    }

    public void stop() {
        player.stop();
    }

    public void togglePlay() {
        if (status().mode() == LiveStatus.Mode.PLAYING) {
            stop();
        } else {
            play();
        }
    }

    public void toStart() {
        player.locate(0);
    }

    public void silence() {
        player.silence();
        if (engine.standsNanos() > 0) {
            ports.panic();
        }
        messages.say(SILENT);
    }

    /** Does a stage's own action, such as letting go of what no key holds. */
    public void act(StageAddress address) {
        player.act(address.part(), address.toString());
    }

    /** Whether the shown part is heard dry. */
    public BooleanProperty dry() {
        return dry;
    }

    public void press(int pitch, int velocity) {
        keys.offer(0x90, pitch, velocity, clock.getAsLong());
    }

    public void release(int pitch) {
        keys.offer(0x80, pitch, 64, clock.getAsLong());
    }

    /** Sounds a note through the chosen part until it is {@link #letGo}; it is not remembered as heard. */
    public void audition(int pitch, int velocity) {
        auditions.offer(0x90, pitch, velocity, clock.getAsLong());
    }

    public void letGo(int pitch) {
        auditions.offer(0x80, pitch, 64, clock.getAsLong());
    }

    /** The same for a moment, as when a note is touched. */
    public void touch(int pitch, int velocity) {
        audition(pitch, velocity);
        later(TOUCHED_MS, () -> letGo(pitch));
    }

    /** Sounds a note with a part's sound, past its chain, as soon as what was changed last is heard; not while it plays. */
    public void trySound(String part, int pitch) {
        if (status().mode() == LiveStatus.Mode.PLAYING) {
            return;
        }
        String way = Voice.builtIn(part);
        if (!way.equals(tried)) {
            engine.testNote(tried, pitch, false);
            tried = way;
        }
        long mine = ++tries;
        later(TRY_MS, () -> {
            // One that was tried since ends it with its own.
            if (mine == tries) {
                engine.testNote(way, pitch, true);
            }
        });
        later(TRY_MS + TRIED_MS, () -> {
            if (mine == tries) {
                engine.testNote(way, pitch, false);
            }
        });
    }

    private static void later(long millis, Runnable work) {
        CompletableFuture.delayedExecutor(millis, TimeUnit.MILLISECONDS, Platform::runLater)
                .execute(work);
    }

    /** Sends everything there as well, for tests and for measuring. */
    public void listen(OutputPort port) {
        ports.addListener(port);
    }

    /** The names of the devices that can play. */
    public List<String> inputs() {
        return engine.inputNames();
    }

    public List<String> outputs() {
        return ports.names();
    }

    /** Why nothing is heard on this machine; empty when sound works. */
    public StringProperty noSound() {
        return noSound;
    }

    /** Takes what the engine has sent since the last frame, as far as it is heard by now. */
    public TraceStore traces() {
        if (queue.isWaiting()) {
            queue.drain(heardNanos(clock.getAsLong()), traces::take);
        }
        if (queue.dropped() != missed) {
            missed = queue.dropped();
            traces.missed((long) status().tickAt(heardNanos(clock.getAsLong())));
        }
        return traces;
    }

    /** The moment of the engine that is heard at a moment: what is seen is what is heard, though all sounds a little later. */
    public long heardNanos(long nanos) {
        return nanos - sound.delayNanos();
    }

    /** The place in the piece that is heard now, or where it stands. */
    public double songTick() {
        return status().songTickAt(heardNanos(nanos()));
    }

    /** How a part of the open piece stands there: muted, past its chain, without anything to play. */
    public Standing standing(Piece piece, Part part) {
        return Standing.of(piece, part, (long) songTick());
    }

    /** The values of a known stage as they hold: moved while time runs, as levers stand while it does not, its own while it is off. */
    public ParamSet valuesNow(Piece piece, StageAddress address, Stage stage) {
        if (!stage.on() || stage.moves().isEmpty()) {
            return stage.params();
        }
        if (status().mode() == LiveStatus.Mode.STOPPED) {
            return stage.moves()
                    .byLevers(
                            stage.params(),
                            name -> piece.levers().stream()
                                    .filter(lever -> lever.name().equals(name))
                                    .findFirst()
                                    .map(lever -> lever.bent(traces.lever(name).orElse(lever.value() / 100)))
                                    .orElse(Double.NaN));
        }
        ParamSet moved = traces.moved(address.toString());
        return moved == null || moved.spec() != stage.params().spec() ? stage.params() : moved;
    }

    /** Now, on the engine's clock. */
    public long nanos() {
        return clock.getAsLong();
    }

    /** The exact memory of what was heard. */
    public Heard heard() {
        return heard;
    }

    /** Where now lies on the axis of what was heard. */
    public long heardNow() {
        return Math.max(heard.last(), heardBefore(0));
    }

    /** Where that was so many nanoseconds ago. */
    public long heardBefore(long nanos) {
        LiveStatus status = engine.status();
        return status.mode() == LiveStatus.Mode.STOPPED
                ? heard.last()
                : heard.onAxis(status.tickAt(clock.getAsLong() - nanos));
    }

    /** Whether the engine has sent anything since the last frame. */
    public boolean tracesWait() {
        return queue.isWaiting();
    }

    public long droppedTraces() {
        return queue.dropped();
    }

    /** Says what went wrong since the last look, in the engine or at an output; once a while. */
    public void look() {
        LiveStatus status = engine.status();
        if (status.troubles() != toldTroubles) {
            toldTroubles = status.troubles();
            messages.say(status.trouble());
        }
        Map<String, String> problems = ports.problems();
        problems.forEach((name, problem) -> {
            if (!problem.equals(toldProblems.get(name))) {
                messages.say(called(name) + " " + problem + ". What it does not take is left out.");
            }
        });
        toldProblems.keySet().stream()
                .filter(name -> !problems.containsKey(name))
                .forEach(name -> messages.say(called(name) + " connected again."));
        toldProblems = problems;
        if (engine.standsNanos() > 0) {
            messages.say("The engine does not answer. Silence ends every note.");
        }
    }

    private static String called(String port) {
        return "The output “" + (port.isEmpty() ? "built-in sounds" : port) + "”";
    }

    @Override
    public void close() {
        devices.close();
        player.close();
        engine.close();
        ports.close();
        sound.close();
    }
}
