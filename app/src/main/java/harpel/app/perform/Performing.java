package harpel.app.perform;

import harpel.app.desk.TimelineDesk;
import harpel.app.document.Document;
import harpel.app.look.Messages;
import harpel.app.transport.Places;
import harpel.app.transport.Transport;
import harpel.chain.StageAddress;
import harpel.effect.notes.Carom;
import harpel.engine.LiveStatus;
import harpel.param.ParamException;
import harpel.phrase.Phrase;
import harpel.piece.Block;
import harpel.piece.Bracket;
import harpel.piece.Lane;
import harpel.piece.Part;
import harpel.piece.Piece;
import harpel.piece.PieceEdit;
import harpel.piece.Timeline;
import harpel.piece.perform.Moment;
import harpel.piece.perform.Pad;
import harpel.piece.perform.Pad.Does;
import harpel.piece.perform.When;
import harpel.player.Coming;
import harpel.player.Over;
import harpel.player.Player;
import harpel.time.MeterMap;
import harpel.time.TempoMap;
import harpel.time.TimeMap;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.UnaryOperator;
import javafx.beans.property.IntegerProperty;
import javafx.beans.property.SimpleIntegerProperty;

/**
 * What is done on stage: pads and moments, at once or at a beat or bar to come. What waits has been given to the engine, which does it at
 * its tick; the piece follows as soon as that has passed. Interface thread.
 */
public final class Performing {
    /** Where a chord that is struck by a pad lies. */
    private static final int NEAR = 60;

    private static final int VELOCITY = 100;
    /** Longer than any piece. */
    private static final long ALL_ALONG = 1L << 40;

    /**
     * Something that waits for its tick.
     *
     * @param by what asked for it: a pad or a moment
     * @param edit null for what is only heard and not in the piece
     * @param levers those that a hand holds from then on
     */
    private record Waiting(
            Object by, long tick, PieceEdit edit, Set<String> levers, Lasting over, boolean begins, long glideTicks) {
        Waiting(Object by, long tick, Lasting over, boolean begins) {
            this(by, tick, null, Set.of(), over, begins, 0);
        }

        Coming coming() {
            return edit != null
                    ? Coming.edit(tick, edit.change(), glideTicks)
                    : begins ? Coming.begin(tick, over.over) : Coming.end(tick, over.over);
        }
    }

    /**
     * Something that is heard over the piece for a while.
     *
     * @param stretch the same, written into a stretch of the timeline
     */
    private record Lasting(String words, Over over, Writing.Stretch stretch) {}

    private final Document document;
    private final Transport transport;
    private final LeverWiring levers;
    private final TimelineDesk timeline;
    private final Writing writing;
    private final Messages messages;
    private final TapTempo taps = new TapTempo();
    private final List<Waiting> waiting = new ArrayList<>();
    private final List<Lasting> overs = new ArrayList<>();
    /** For all that is held, as each pad by its place, what letting go of it does. */
    private final Map<Object, Runnable> held = new LinkedHashMap<>();

    private final IntegerProperty changes = new SimpleIntegerProperty();
    private long run = -1;

    public Performing(
            Document document,
            Transport transport,
            LeverWiring levers,
            TimelineDesk timeline,
            Writing writing,
            Messages messages) {
        this.document = document;
        this.transport = transport;
        this.levers = levers;
        this.timeline = timeline;
        this.writing = writing;
        this.messages = messages;
    }

    /** Ends every sounding and waiting note, and leaves what a lever waits for. */
    public void silence() {
        levers.leave();
        forget();
        transport.silence();
    }

    private Piece piece() {
        return document.piece().get();
    }

    private LiveStatus status() {
        return transport.status();
    }

    private boolean isPlaying() {
        return status().mode() == LiveStatus.Mode.PLAYING;
    }

    /** Grows whenever something begins or ends to wait or to be held. */
    public IntegerProperty changes() {
        return changes;
    }

    private void changed() {
        changes.set(changes.get() + 1);
    }

    /** The place in the piece at which what was asked for by a pad or a moment is done, while it waits. */
    public Optional<Long> waitsFor(Object by) {
        return waiting.stream()
                .filter(one -> one.by.equals(by) && (one.over == null || one.begins))
                .map(one -> status().bracket().song(one.tick))
                .findFirst();
    }

    /** Whether a pad is held. */
    public boolean isHeld(Pad pad) {
        return held.containsKey(pad.at());
    }

    // Time

    private double nowTick() {
        return status().tickAt(transport.nanos());
    }

    /** The tick, counted on and on, at which something is done. */
    private long due(When when) {
        long now = (long) Math.ceil(nowTick());
        if (!isPlaying()) {
            return now;
        }
        Bracket loop = status().bracket();
        long song = loop.song(now);
        long there = when.due(piece().time().meter(), song);
        boolean round = loop.on() && song < loop.to() && there > loop.to();
        return now + (round ? loop.to() : there) - song;
    }

    private long song(long tick) {
        return status().bracket().song(tick);
    }

    private MeterMap meter() {
        return piece().time().meter();
    }

    private long ticks(double beats) {
        return Math.round(
                beats * meter().at(status().bracket().song((long) nowTick())).beatTicks());
    }

    // What waits

    private void ask(Waiting one) {
        int place = waiting.size();
        while (place > 0 && waiting.get(place - 1).tick > one.tick) {
            place--;
        }
        waiting.add(place, one);
        run = status().run();
        give();
        changed();
    }

    /** Hands what is heard, and what is to come, to the engine. */
    private void give() {
        give(piece());
    }

    /** The same for what the piece becomes. */
    public void give(Piece piece) {
        transport
                .player()
                .hear(
                        piece,
                        overs.stream().map(Lasting::over).toList(),
                        waiting.stream().map(Waiting::coming).toList());
    }

    /** What has been done by now is done in the piece, too; with every frame. */
    public void look() {
        if (waiting.isEmpty()) {
            return;
        }
        boolean all = !isPlaying() || status().run() != run;
        double now = nowTick();
        while (!waiting.isEmpty() && (all || waiting.get(0).tick <= now)) {
            Waiting one = waiting.remove(0);
            if (one.edit != null) {
                writing.exactly(song(one.tick), one.glideTicks, () -> document.apply(one.edit));
                transport.player().holdLevers(one.levers);
            } else if (one.begins) {
                overs.add(one.over);
                if (one.tick <= now) {
                    writing.begins(one.over, one.over.words, song(one.tick), one.over.stretch);
                }
            } else {
                overs.remove(one.over);
                writing.ends(one.over, song(one.tick));
            }
            changed();
        }
    }

    /** Nothing waits and nothing is held any more: what was asked for is not done. */
    public void forget() {
        List<Runnable> ends = new ArrayList<>(held.values());
        held.clear();
        waiting.clear();
        overs.clear();
        ends.forEach(Runnable::run);
        waiting.clear();
        give();
        changed();
    }

    /**
     * Does an edit at once, or when it is wanted; asked for again while it waits it is taken back.
     *
     * @param standing the levers that stand as they are set then, also where that is what they were set to and points have them elsewhere
     */
    private void edit(
            Object by, String label, When when, double glide, UnaryOperator<Piece> change, Set<String> standing) {
        if (waiting.removeIf(one -> one.by.equals(by) && one.edit != null)) {
            give();
            changed();
            messages.say(label + " is taken back.");
            return;
        }
        PieceEdit edit = PieceEdit.of(label, change);
        long glideTicks = isPlaying() ? ticks(glide) : 0;
        if (!isPlaying() || when.equals(When.NOW) && glideTicks == 0) {
            document.apply(edit);
            transport.player().holdLevers(standing);
            changed();
        } else {
            ask(new Waiting(by, due(when), edit, standing, null, false, glideTicks));
        }
    }

    // Moments

    /** Recalls a moment when that is to be. */
    public void recall(Moment moment) {
        recall(moment, moment.when(), moment);
    }

    private void recall(Moment moment, When when, Object by) {
        String name = moment.name();
        edit(
                by,
                "Moment “" + name + "”",
                when,
                moment.glide(),
                piece -> piece.moment(name).map(one -> one.on(piece)).orElse(piece),
                moment.levers().keySet());
    }

    // Pads

    /** A pad is pressed. */
    public void press(Pad pad) {
        Does does = pad.does();
        String missing = pad.missing(piece());
        if (!missing.isEmpty()) {
            messages.say("Pad " + (pad.at() + 1) + " is about " + missing
                    + ", which is not there any more; the other mouse button sets it up.");
            return;
        }
        if (does == Does.MOMENT) {
            piece().moment(pad.what()).ifPresent(moment -> recall(moment, pad.when(), pad));
            return;
        }
        if (does.edits()) {
            edit(pad, pad.title(piece()) + ": " + does.words(), pad.when(), 0, pad::pressed, Set.of());
            return;
        }
        switch (does) {
            case CHORD -> chord(pad);
            case PHRASE -> phrase(pad);
            case ONCE -> piece().phrase(pad.what()).ifPresent(phrase -> forAWhile(pad, Math.max(1, phrase.length())));
            case FILL ->
                forAWhile(
                        pad,
                        meter().at(status().bracket().song(due(pad.when()))).barTicks());
            case TILT -> tilt(pad);
            case ACT -> transport.player().actAt(due(pad.when()), pad.part(), pad.what());
            case DRY -> {
                transport.player().hearDry(pad.part(), true);
                hold(pad.at(), () -> transport.player().hearDry(pad.part(), false));
            }
            case TAP -> tap();
            default -> silence();
        }
    }

    /** A pad is let go of. */
    public void release(Pad pad) {
        letGo(pad.at());
    }

    private void letGo(Object by) {
        Runnable end = held.remove(by);
        if (end != null) {
            end.run();
            changed();
        }
    }

    /** Every pad is let go of. */
    public void releaseAll() {
        new ArrayList<>(held.values()).forEach(Runnable::run);
        held.clear();
        changed();
    }

    private void hold(Object by, Runnable end) {
        Runnable before = held.put(by, end);
        if (before != null) {
            before.run();
        }
        changed();
    }

    private void chord(Pad pad) {
        List<Integer> pitches;
        try {
            pitches = pad.pitches(NEAR);
        } catch (IllegalArgumentException e) {
            messages.say(e.getMessage());
            return;
        }
        long at = due(pad.when());
        Player player = transport.player();
        player.strikeAt(at, pad.part(), pitches, VELOCITY);
        // Let go of before it has begun it is heard for a beat.
        hold(pad.at(), () -> player.letGoAt(nowTick() >= at ? (long) nowTick() : at + ticks(1), pad.part(), pitches));
    }

    /** The part plays a phrase wherever play is. */
    private static Piece playing(Piece piece, String part, String phrase) {
        if (piece.part(part).isEmpty() || piece.phrase(phrase).isEmpty()) {
            return piece;
        }
        Piece with = piece.withPart(part, (Part one) -> one.withPhrase(phrase));
        return piece.timeline()
                ? with.withPart(part, one -> one.withBlocks(List.of(Block.of(0, ALL_ALONG, phrase))))
                : with;
    }

    /** The phrase of a pad in place of what its part plays. */
    private Lasting over(Pad pad) {
        Block all = Block.of(0, ALL_ALONG, pad.what());
        return new Lasting(
                pad.title(piece()),
                new Over(piece -> playing(piece, pad.part(), pad.what())),
                (piece, from, to) -> piece.part(pad.part()).isEmpty()
                        ? piece
                        : Timeline.put(
                                piece,
                                pad.part(),
                                all.within(
                                        from,
                                        to,
                                        piece.phrase(pad.what())
                                                .map(Phrase::length)
                                                .orElse(0L))));
    }

    private void phrase(Pad pad) {
        if (!isPlaying()) {
            messages.say("A phrase is heard while it plays: press Space first.");
            return;
        }
        Lasting over = over(pad);
        long begin = due(pad.when());
        ask(new Waiting(pad, begin, over, true));
        hold(pad.at(), () -> ask(new Waiting(pad, Math.max(begin + 1, due(pad.when())), over, false)));
    }

    /** The board of the part is tilted while the pad is held. */
    private void tilt(Pad pad) {
        Optional<StageAddress> board = piece().part(pad.part()).flatMap(Places::board);
        if (board.isEmpty()) {
            messages.say("There is no board in this part any more.");
            return;
        }
        Carom.Tilt way;
        try {
            way = Carom.TILT.type().parse(pad.what());
        } catch (ParamException e) {
            messages.say("The board tilts up, right, down or left, but was to tilt “" + pad.what() + "”.");
            return;
        }
        tilt(pad, pad.at(), board.get(), way, pad.when());
    }

    /** Tilts a board until {@link #level} is called. */
    public void tilt(StageAddress board, Carom.Tilt way) {
        tilt(board, board, board, way, When.NOW);
    }

    /** Whether a board is tilted by hand. */
    public boolean isTilted(StageAddress board) {
        return held.containsKey(board);
    }

    /** A board that was tilted by hand is level again. */
    public void level(StageAddress board) {
        letGo(board);
    }

    private void tilt(Object by, Object holds, StageAddress at, Carom.Tilt way, When when) {
        Lane<Carom.Tilt> lane = new Lane.OfStage<>(at, Carom.TILT);
        Lasting over = new Lasting(
                "tilt of the board",
                new Over(piece -> piece.part(at.part()).isEmpty()
                        ? piece
                        : piece.withPart(
                                at.part(),
                                one -> one.withChain(one.chain()
                                        .within(
                                                at.chainWay(),
                                                chain -> chain.withStage(
                                                        at.stageId(), stage -> stage.with(Carom.TILT, way)))))),
                (piece, from, to) -> lane.isIn(piece) ? lane.held(piece, from, to, way) : piece);
        long begin = due(when);
        ask(new Waiting(by, begin, over, true));
        hold(holds, () -> ask(new Waiting(by, Math.max(begin + 1, due(When.NOW)), over, false)));
    }

    private void forAWhile(Pad pad, long ticks) {
        if (!isPlaying()) {
            messages.say("A phrase is heard while it plays: press Space first.");
            return;
        }
        Lasting over = over(pad);
        long begin = due(pad.when());
        ask(new Waiting(pad, begin, over, true));
        ask(new Waiting(pad, begin + ticks, over, false));
    }

    /** The tempo is tapped; from the third tap on it holds. */
    public void tap() {
        taps.tap(transport.nanos())
                .ifPresentOrElse(this::tempo, () -> messages.say("Tap on: the third sets the tempo."));
    }

    private void tempo(double bpm) {
        long now = timeline.now();
        document.apply(new PieceEdit("Tap the tempo", "tap", piece -> {
            List<TempoMap.Change> changes = new ArrayList<>(piece.time().tempo().changes());
            int at = changes.size() - 1;
            while (at > 0 && changes.get(at).tick() > now) {
                at--;
            }
            changes.set(at, new TempoMap.Change(changes.get(at).tick(), bpm, false));
            return piece.withTime(
                    new TimeMap(TempoMap.ofChanges(changes), piece.time().meter()));
        }));
        messages.say("Tempo " + bpm + ", as tapped.");
    }
}
