package harpel.engine;

import harpel.engine.LiveStatus.Mode;
import harpel.event.Event;
import harpel.event.EventBuffer;
import harpel.event.Message;
import harpel.event.NoteEnd;
import harpel.event.NoteStart;
import harpel.piece.Part;
import harpel.piece.Piece;
import harpel.time.Ticks;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.IdentityHashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.LongSupplier;

/**
 * What the live engine does each time it wakes, without a thread of its own: time comes in as nanoseconds, so that tests run it
 * against a clock of theirs. Owned by the engine thread.
 */
final class LiveCycle {
    private record Held(String part, NoteStart note) {}

    /** A key of a device. */
    private record Key(String port, int channel, int pitch) {}

    private final LongSupplier clock;
    private final LiveOutput output;
    private final Tap tap;
    private final Renderer renderer;
    private final Lateness lateness = new Lateness();
    /** In the order of the parts, so that what comes at one tick comes in the same order as in a print. */
    private final Map<String, PhrasePlayer> players = new LinkedHashMap<>();

    private final Map<Key, List<Held>> keysDown = new HashMap<>();
    /** The notes that were sent and not ended, each with its part. */
    private final Map<NoteStart, String> sounding = new IdentityHashMap<>();

    private final Map<String, EventBuffer> inputs = new HashMap<>();

    private Piece piece;
    private String dryPart = "";
    private String keyPart;
    private Mode mode = Mode.STOPPED;
    private long run;
    private long anchorTick;
    private long anchorNanos;
    private long transportTick;
    private long arrival;
    private long notesIn;
    private int lastController = -1;
    private long controllersIn;

    LiveCycle(Piece piece, LongSupplier clock, LiveOutput output, Tap tap) {
        this.piece = piece;
        this.clock = clock;
        this.output = output;
        this.tap = tap;
        this.keyPart = piece.parts().isEmpty() ? "" : piece.parts().get(0).id();
        this.renderer = new Renderer(Plan.of(piece), this::send, tap);
        preparePlayers(null);
    }

    private void send(String part, Event event) {
        if (event instanceof NoteStart note) {
            if (!isHeard(part)) {
                return;
            }
            sounding.put(note, part);
        } else if (event instanceof NoteEnd end && sounding.remove(end.start()) == null) {
            return;
        }
        sendOut(part, event);
    }

    private boolean isHeard(String part) {
        return piece.part(part).map(piece::isHeard).orElse(true);
    }

    /** Notes of parts that are not heard any more end now. */
    private void endUnheard() {
        Map<NoteStart, String> unheard = new LinkedHashMap<>();
        sounding.forEach((note, part) -> {
            if (!isHeard(part)) {
                unheard.put(note, part);
            }
        });
        unheard.forEach((note, part) -> {
            sounding.remove(note);
            sendOut(part, NoteEnd.plain(Math.max(renderer.position(), note.tick()), note));
        });
    }

    private void sendOut(String part, Event event) {
        long due = mode == Mode.STOPPED ? clock.getAsLong() : nanosAt(event.tick());
        output.send(part, event, due);
        long now = clock.getAsLong();
        lateness.record(now, Math.max(0, now - due));
    }

    /** The moment of a tick, on the later side of its nanosecond. */
    private long nanosAt(long tick) {
        double nanos = piece.time().tempo().nanosAt(tick) - piece.time().tempo().nanosAt(anchorTick);
        return anchorNanos + (long) Math.ceil(nanos);
    }

    private long tickAt(long nanos) {
        if (mode == Mode.STOPPED) {
            return renderer.position();
        }
        double fromAnchor = piece.time().tempo().nanosAt(anchorTick) + (nanos - anchorNanos);
        // A nanosecond's worth of rounding must not put a tick that is due into the next cycle.
        return (long) Math.floor(piece.time().tempo().ticksAt(Math.max(0, fromAnchor)) + 1e-4);
    }

    void update(Piece newPiece, long now) {
        if (mode != Mode.STOPPED && !newPiece.time().tempo().equals(piece.time().tempo())) {
            anchorTick = tickAt(now);
            anchorNanos = now;
        }
        Piece before = piece;
        piece = newPiece;
        renderer.update(Plan.of(piece).withDry(dryPart, true));
        preparePlayers(before);
        endUnheard();
    }

    private void preparePlayers(Piece before) {
        players.keySet().removeIf(id -> piece.part(id).isEmpty());
        for (Part part : piece.parts()) {
            var phrase = piece.phrase(part.phrase());
            Part old = before == null ? null : before.part(part.id()).orElse(null);
            boolean same = old != null
                    && old.phrase().equals(part.phrase())
                    && old.channel() == part.channel()
                    && before.phrase(part.phrase()).equals(phrase);
            if (same) {
                continue;
            }
            PhrasePlayer gone = players.remove(part.id());
            if (gone != null && mode == Mode.PLAYING) {
                gone.endAll(renderer.position()).forEach(end -> renderer.play(part.id(), end));
            }
            if (phrase.isPresent()) {
                PhrasePlayer player = new PhrasePlayer(phrase.get().onChannel(part.channel()));
                player.locate(renderer.position());
                players.put(part.id(), player);
            }
        }
    }

    void keysTo(String part) {
        keyPart = part;
    }

    void hearDry(String part, boolean dry) {
        dryPart = dry ? part : "";
        renderer.update(Plan.of(piece).withDry(dryPart, true));
    }

    void play(long now) {
        if (mode == Mode.PLAYING) {
            return;
        }
        renderer.silence();
        mode = Mode.PLAYING;
        startTime(transportTick, now);
        renderer.start(transportTick);
        players.values().forEach(player -> player.locate(transportTick));
        // Keys that are down go on in the time of the transport.
        keysDown.replaceAll((key, held) -> held.stream().map(this::strikeAgain).toList());
    }

    private Held strikeAgain(Held held) {
        NoteStart again = held.note()
                .derive(transportTick, held.note().pitch(), held.note().velocity());
        renderer.play(held.part(), again);
        return new Held(held.part(), again);
    }

    private void startTime(long tick, long now) {
        renderer.locate(tick);
        anchorTick = tick;
        anchorNanos = now;
        run++;
        tap.restarted();
    }

    /** Stops the transport; repeats of stages that ring out go on in the chain's own time. */
    void stop(long now) {
        if (mode != Mode.PLAYING) {
            return;
        }
        renderer.render(Math.max(renderer.position(), tickAt(now)));
        transportTick = renderer.position();
        renderer.stop(false);
        mode = renderer.isQuiet() ? Mode.STOPPED : Mode.KEYS;
        anchor(now);
        keysDown.clear();
    }

    private void anchor(long now) {
        anchorTick = renderer.position();
        anchorNanos = now;
    }

    /** Goes to a tick of the piece, playing or not. */
    void locate(long tick, long now) {
        boolean playing = mode == Mode.PLAYING;
        stop(now);
        renderer.silence();
        keysDown.clear();
        mode = Mode.STOPPED;
        transportTick = tick;
        startTime(tick, now);
        if (playing) {
            play(now);
        }
    }

    /** Ends everything at once. The transport stops, too: nothing sounds after Silence until someone plays. */
    void silence(long now) {
        if (mode == Mode.PLAYING) {
            transportTick = Math.max(renderer.position(), tickAt(now));
        }
        renderer.silence();
        keysDown.clear();
        inputs.values().forEach(EventBuffer::clear);
        output.silence();
        mode = Mode.STOPPED;
        anchor(now);
    }

    void act(String part, String address) {
        renderer.act(part, address);
    }

    /**
     * Takes a played message.
     *
     * @param port the name of the way it came in; {@link InputPort#KEYS} always goes to the chosen part
     */
    void take(String port, InputPort.Played played) {
        int kind = played.status() & 0xF0;
        boolean press = kind == 0x90 && played.data2() > 0;
        boolean release = kind == 0x80 || kind == 0x90 && !press;
        if (release) {
            release(keysDown.remove(key(port, played)), played);
            return;
        }
        if (kind == Message.CONTROL_CHANGE) {
            lastController = played.data1();
            controllersIn++;
        }
        for (Part part : takers(port, (played.status() & 0x0F) + 1)) {
            if (press) {
                press(part, port, played);
            } else {
                add(part.id(), message(part, played));
            }
        }
    }

    private static Key key(String port, InputPort.Played played) {
        return new Key(port, played.status() & 0x0F, played.data1());
    }

    /** The parts that hear a device; one that no part has taken for itself plays the chosen part. */
    private List<Part> takers(String port, int channel) {
        if (!port.equals(InputPort.KEYS)) {
            List<Part> own = piece.parts().stream()
                    .filter(part -> part.input().takes(port, channel))
                    .toList();
            if (!own.isEmpty()) {
                return own;
            }
        }
        return piece.part(keyPart)
                .filter(part -> port.equals(InputPort.KEYS) || part.input().equals(Part.Input.KEYS))
                .map(List::of)
                .orElse(List.of());
    }

    private void release(List<Held> released, InputPort.Played played) {
        if (released != null) {
            long tick = playedTick(played);
            released.forEach(held -> add(held.part(), NoteEnd.atOrAfter(tick, held.note(), played.data2())));
        }
    }

    private void press(Part part, String port, InputPort.Played played) {
        if (mode == Mode.STOPPED) {
            if (part.run() == Part.Run.TRANSPORT) {
                return;
            }
            mode = Mode.KEYS;
            startTime(0, played.nanos());
        }
        long tick = playedTick(played);
        Key key = key(port, played);
        List<Held> down = new ArrayList<>();
        for (Held held : keysDown.getOrDefault(key, List.of())) {
            if (held.part().equals(part.id())) {
                add(held.part(), NoteEnd.plain(tick, held.note()));
            } else {
                down.add(held);
            }
        }
        notesIn++;
        NoteStart note = NoteStart.played(tick, arrival++, part.channel(), played.data1(), played.data2());
        down.add(new Held(part.id(), note));
        keysDown.put(key, down);
        add(part.id(), note);
    }

    private Message message(Part part, InputPort.Played played) {
        int kind = played.status() & 0xF0;
        byte status = (byte) (kind | part.channel());
        boolean two = kind == Message.PROGRAM_CHANGE || kind == Message.CHANNEL_PRESSURE;
        long tick = playedTick(played);
        return two
                ? new Message(tick, arrival++, status, (byte) played.data1())
                : new Message(tick, arrival++, status, (byte) played.data1(), (byte) played.data2());
    }

    private long playedTick(InputPort.Played played) {
        return Math.max(renderer.position(), tickAt(played.nanos()));
    }

    private void add(String part, Event event) {
        inputs.computeIfAbsent(part, id -> new EventBuffer()).add(event);
    }

    /** Renders up to now and sends. */
    void render(long now) {
        // While time stands only what was played is taken, at the tick where it stands.
        long to = mode == Mode.STOPPED ? renderer.position() : tickAt(now) + 1;
        if (mode == Mode.PLAYING) {
            feedPhrases(to);
        }
        for (Map.Entry<String, EventBuffer> entry : inputs.entrySet()) {
            EventBuffer played = entry.getValue();
            played.sortAll();
            for (Event event : played) {
                renderer.play(entry.getKey(), event);
                to = Math.max(to, mode == Mode.STOPPED ? to : event.tick() + 1);
            }
            played.clear();
        }
        renderer.render(to);
        if (mode == Mode.KEYS && keysDown.isEmpty() && renderer.isQuiet() && renderer.nextTick() == Ticks.NEVER) {
            mode = Mode.STOPPED;
            anchorTick = transportTick;
            anchorNanos = now;
        }
    }

    private void feedPhrases(long to) {
        for (Map.Entry<String, PhrasePlayer> entry : players.entrySet()) {
            PhrasePlayer player = entry.getValue();
            while (player.nextTick() < to) {
                Event event = player.next(arrival++);
                if (event != null) {
                    notesIn += event instanceof NoteStart ? 1 : 0;
                    add(entry.getKey(), event);
                }
            }
        }
    }

    /** When it has something to do of its own, or {@link Long#MAX_VALUE}. */
    long nextNanos() {
        if (mode == Mode.STOPPED) {
            return Long.MAX_VALUE;
        }
        long next = renderer.nextTick();
        if (mode == Mode.PLAYING) {
            for (PhrasePlayer player : players.values()) {
                next = Math.min(next, player.nextTick());
            }
        }
        return next == Ticks.NEVER ? Long.MAX_VALUE : nanosAt(next);
    }

    LiveStatus status(long now) {
        long tick = mode == Mode.STOPPED ? transportTick : anchorTick;
        return new LiveStatus(
                mode,
                run,
                tick,
                anchorNanos,
                piece.time().tempo(),
                lateness.worst(now),
                notesIn,
                lastController,
                controllersIn);
    }
}
