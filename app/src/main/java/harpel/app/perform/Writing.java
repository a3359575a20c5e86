package harpel.app.perform;

import harpel.app.desk.TimelineDesk;
import harpel.app.document.Document;
import harpel.app.look.Messages;
import harpel.app.transport.Transport;
import harpel.engine.LiveStatus;
import harpel.param.ParamType;
import harpel.param.type.PathType.Point;
import harpel.piece.Bracket;
import harpel.piece.Lane;
import harpel.piece.Piece;
import harpel.piece.PieceEdit;
import harpel.piece.perform.Lever;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.OptionalDouble;
import java.util.TreeMap;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import javafx.beans.property.BooleanProperty;
import javafx.beans.property.ReadOnlyBooleanProperty;
import javafx.beans.property.ReadOnlyBooleanWrapper;
import javafx.beans.property.SimpleBooleanProperty;

/**
 * Writes what is done while the timeline plays onto it: levers that are moved, by hand or by their controllers, mutes and switches of
 * stages become points of their lanes, phrases that pads play become blocks. What stands written there gives way to the hand meanwhile. It ends when play stops, as one undo.
 * Interface thread.
 */
public final class Writing {
    /** A hand that has been still for so many beats has let go. */
    private static final int LET_GO_BEATS = 2;

    /** One that has moved once in this part of a beat moves on. */
    private static final int STILL = 8;

    /** So far, of its range, may a written line lie from what was done. */
    private static final double CLOSE = 0.005;

    /** How something that was heard for a while is written into a stretch of the timeline. */
    interface Stretch {
        Piece write(Piece piece, long from, long to);
    }

    /** @param to -1 while it lasts */
    private record Spell(Object by, String words, long from, long to, Stretch stretch) {}

    private final Document document;
    private final Transport transport;
    private final TimelineDesk timeline;
    private final Messages messages;
    private final ReadOnlyBooleanWrapper armed = new ReadOnlyBooleanWrapper();
    private final BooleanProperty adding = new SimpleBooleanProperty();
    private final Map<Lane<?>, Take<?>> takes = new LinkedHashMap<>();
    private final List<Spell> spells = new ArrayList<>();
    private final Map<String, Double> controlled = new LinkedHashMap<>();
    private boolean changing;
    /** The piece as it was when play began; null before. */
    private Piece began;

    private long lastTick;
    /** While something is done that was due at a tick: that, and over how many ticks levers come to where it puts them. */
    private long exactTick = -1;

    private long exactGlide;

    public Writing(Document document, Transport transport, TimelineDesk timeline, Messages messages) {
        this.document = document;
        this.transport = transport;
        this.timeline = timeline;
        this.messages = messages;
        document.piece().addListener((property, before, now) -> {
            if (began != null && !changing) {
                performed(before, now);
            }
        });
    }

    /** Whether what is done is written, or will be once the timeline plays. */
    public ReadOnlyBooleanProperty armed() {
        return armed.getReadOnlyProperty();
    }

    /** Whether only what is touched is written anew; else what stood from the first touch to the end gives way. */
    public BooleanProperty adding() {
        return adding;
    }

    /** Arms, or ends. */
    public void toggle() {
        if (armed.get()) {
            end();
            armed.set(false);
            return;
        }
        if (!piece().timeline()) {
            messages.say(
                    "What is done is written onto the timeline, but the piece plays loops: let it play its timeline first.");
            return;
        }
        armed.set(true);
        messages.say("What you do with levers, mutes and switches is written"
                + (isPlaying() ? ", from here on." : " once the timeline plays."));
        look();
    }

    /** Ends without writing anything, since another piece comes. */
    public void forget() {
        began = null;
        takes.clear();
        spells.clear();
        armed.set(false);
    }

    /** Something is heard over the piece from a place on. */
    void begins(Object by, String words, long tick, Stretch stretch) {
        if (began != null) {
            spells.add(new Spell(by, words, tick, -1, stretch));
        }
    }

    /** It is no more. */
    void ends(Object by, long tick) {
        spells.replaceAll(one ->
                one.to < 0 && one.by.equals(by) ? new Spell(one.by, one.words, one.from, tick, one.stretch) : one);
    }

    private Piece written(Piece piece, Spell spell, long end) {
        Bracket loop = transport.status().bracket();
        long to = spell.to < 0 || !loop.on() && spell.to > end ? end : spell.to;
        if (to > spell.from) {
            return spell.stretch.write(piece, spell.from, to);
        }
        if (!loop.on() || spell.from >= loop.to()) {
            return piece;
        }
        // It lasted past the place where the loop comes round.
        Piece first = spell.stretch.write(piece, spell.from, loop.to());
        return to > loop.from() ? spell.stretch.write(first, loop.from(), to) : first;
    }

    private Piece piece() {
        return document.piece().get();
    }

    private boolean isPlaying() {
        return transport.status().mode() == LiveStatus.Mode.PLAYING;
    }

    private long tick() {
        return timeline.now();
    }

    /** Takes note of what has been done; with every frame. */
    public void look() {
        if (!armed.get()) {
            return;
        }
        if (began == null && isPlaying() && piece().timeline()) {
            document.endGesture();
            began = piece();
            controlled.clear();
            lastTick = tick();
        } else if (began != null && (!isPlaying() || !piece().timeline())) {
            toggle();
            return;
        }
        if (began != null) {
            follow();
        }
    }

    private void follow() {
        long now = tick();
        for (Lever lever : piece().levers()) {
            OptionalDouble at = transport.traces().lever(lever.name());
            if (at.isPresent() && at.getAsDouble() != controlled.getOrDefault(lever.name(), Double.NaN)) {
                boolean first = !controlled.containsKey(lever.name());
                controlled.put(lever.name(), at.getAsDouble());
                Lane.OfLever lane = new Lane.OfLever(lever.name());
                if (lane.isIn(began) && (!first || at.getAsDouble() * 100 != lane.at(began, now))) {
                    take(lane).add(now, (double) Math.round(at.getAsDouble() * 100));
                }
            }
        }
        long still = LET_GO_BEATS * piece().time().meter().at(now).beatTicks();
        takes.values().forEach(take -> take.follow(now, still));
        lastTick = now;
    }

    /** Something is done that was done, for those who listen, at another tick; levers came there over so many more. */
    void exactly(long tick, long glideTicks, Runnable does) {
        exactTick = tick;
        exactGlide = glideTicks;
        try {
            does.run();
        } finally {
            exactTick = -1;
            exactGlide = 0;
        }
    }

    private void performed(Piece before, Piece now) {
        for (Lane<?> lane : Lane.performed(now)) {
            if (lane.isIn(before) && lane.isIn(began)) {
                performed(lane, before, now);
            }
        }
    }

    private <T> void performed(Lane<T> lane, Piece before, Piece now) {
        if (!lane.base(before).equals(lane.base(now))) {
            Take<T> take = take(lane);
            long at = exactTick >= 0 ? exactTick : tick();
            if (exactGlide > 0 && lane.line(now)) {
                take.add(at, lane.at(before, at));
                take.glided(at + exactGlide, lane.base(now));
            } else {
                take.add(at, lane.base(now));
            }
        }
    }

    @SuppressWarnings("unchecked") // a lane's take is of its own values
    private <T> Take<T> take(Lane<T> lane) {
        return (Take<T>) takes.computeIfAbsent(lane, key -> new Take<>(lane));
    }

    private void end() {
        if (began == null) {
            return;
        }
        Piece from = began;
        began = null;
        // Where it was stopped, also where no frame was drawn for a while before.
        long end = Math.max(lastTick, tick());
        List<Take<?>> written =
                takes.values().stream().filter(take -> take.lane.isIn(piece())).toList();
        List<Spell> heard = List.copyOf(spells);
        takes.clear();
        spells.clear();
        if (written.isEmpty() && heard.isEmpty()) {
            messages.say("Nothing was done that could be written.");
            return;
        }
        document.together(from, PieceEdit.of("Write what was done", piece -> {
            Piece result = piece;
            for (Take<?> take : written) {
                result = take.written(result, from, end);
            }
            for (Spell spell : heard) {
                result = written(result, spell, end);
            }
            return result;
        }));
        messages.say("Written: "
                + Stream.concat(
                                written.stream().map(take -> named(take.lane)),
                                heard.stream().map(Spell::words))
                        .distinct()
                        .collect(Collectors.joining(", "))
                + ".");
    }

    private String named(Lane<?> lane) {
        return lane.name(piece())
                + piece().part(lane.part()).map(part -> " of " + part.name()).orElse("");
    }

    /** The lane's points give way, or come back; part of what is one undo in the end. */
    private <T> void setPoints(Lane<T> lane, List<Point<T>> points) {
        changing = true;
        document.apply(new PieceEdit("Write", "writing", piece -> lane.withPoints(piece, points)));
        changing = false;
    }

    /** What was done to one lane. */
    private final class Take<T> {
        final Lane<T> lane;
        final TreeMap<Long, T> done = new TreeMap<>();
        /** The stretches in which the hand was on it. */
        final List<long[]> touches = new ArrayList<>();

        boolean touched;
        boolean givesWay;

        Take(Lane<T> lane) {
            this.lane = lane;
        }

        void add(long tick, T value) {
            long[] touch = touches.isEmpty() ? null : touches.get(touches.size() - 1);
            if (!touched || touch == null || tick < touch[1]) {
                Bracket loop = transport.status().bracket();
                if (touched && touch != null && loop.on()) {
                    // It came round under the hand.
                    done.subMap(touch[1], false, loop.to(), false).clear();
                    touch[1] = Math.max(touch[1], loop.to() - 1);
                    touch = new long[] {loop.from(), tick};
                } else {
                    touch = new long[] {tick, tick};
                    done.put(Math.max(0, tick - 1), lane.at(began, Math.max(0, tick - 1)));
                }
                touches.add(touch);
                touched = true;
            }
            if (lane.line(piece())
                    && tick - touch[1] > piece().time().meter().at(tick).beatTicks() / STILL) {
                // The hand was still: no long slope to here.
                done.put(tick - 1, done.floorEntry(touch[1]).getValue());
                touch[1] = tick - 1;
            }
            done.subMap(Math.min(touch[1], tick), touch[0] == tick, tick, false).clear();
            touch[1] = tick;
            done.put(tick, value);
        }

        /** It came there evenly. */
        void glided(long tick, T value) {
            touches.get(touches.size() - 1)[1] = tick;
            done.put(tick, value);
        }

        void follow(long now, long still) {
            long[] touch = touches.get(touches.size() - 1);
            boolean round = now < touch[1];
            if (touched && adding.get() && (round || now - touch[1] > still)) {
                touched = false;
                if (givesWay) {
                    givesWay = false;
                    setPoints(lane, lane.points(began));
                }
            } else if (touched && !givesWay && !lane.points(piece()).isEmpty()) {
                givesWay = true;
                setPoints(lane, List.of());
            } else if (touched && !adding.get() && now > touch[1]) {
                // It stays where the hand left it, over what was done there in the round before.
                done.subMap(touch[1], false, now, true).clear();
            }
        }

        Piece written(Piece piece, Piece from, long end) {
            List<Point<T>> before = lane.points(from);
            List<long[]> spans = new ArrayList<>(touches);
            if (!adding.get()) {
                long[] last = spans.get(spans.size() - 1);
                spans.set(spans.size() - 1, new long[] {last[0], Math.max(last[1], end)});
            }
            TreeMap<Long, T> points = new TreeMap<>();
            before.forEach(point -> points.put(point.tick(), point.value()));
            if (before.isEmpty() && !lane.line(piece)) {
                points.put(0L, lane.base(from));
            }
            for (long[] span : spans) {
                points.subMap(Math.max(0, span[0] - 1), true, span[1], true).clear();
                if (!before.isEmpty()) {
                    // Behind it holds again what held there.
                    T last = done.floorEntry(span[1]).getValue();
                    points.put(span[1], last);
                    points.put(span[1] + 1, lane.at(from, span[1] + 1));
                }
            }
            points.putAll(done);
            List<Point<T>> all = new ArrayList<>();
            points.forEach((tick, value) -> all.add(new Point<>(tick, value)));
            Piece based = lane.withBase(piece, lane.base(from));
            return lane.withPoints(based, thinned(lane.type(piece), all, lane.line(piece)));
        }
    }

    /** Without points that say nothing. */
    private static <T> List<Point<T>> thinned(ParamType<T> type, List<Point<T>> points, boolean line) {
        List<Point<T>> kept = new ArrayList<>();
        if (!line) {
            for (Point<T> point : points) {
                if (kept.isEmpty() || !kept.get(kept.size() - 1).value().equals(point.value())) {
                    kept.add(point);
                }
            }
            return kept;
        }
        boolean[] keep = new boolean[points.size()];
        keep[0] = true;
        keep[points.size() - 1] = true;
        keepFar(type, points, 0, points.size() - 1, keep);
        for (int i = 0; i < keep.length; i++) {
            if (keep[i]) {
                kept.add(points.get(i));
            }
        }
        return kept;
    }

    /** Keeps the point that lies farthest from the line between two, and so on within. */
    private static <T> void keepFar(ParamType<T> type, List<Point<T>> points, int first, int last, boolean[] keep) {
        double begin = type.fraction(points.get(first).value());
        double slope = (type.fraction(points.get(last).value()) - begin)
                / Math.max(1, points.get(last).tick() - points.get(first).tick());
        int farthest = -1;
        double most = CLOSE;
        for (int i = first + 1; i < last; i++) {
            double on =
                    begin + slope * (points.get(i).tick() - points.get(first).tick());
            double off = Math.abs(type.fraction(points.get(i).value()) - on);
            if (off > most) {
                most = off;
                farthest = i;
            }
        }
        if (farthest >= 0) {
            keep[farthest] = true;
            keepFar(type, points, first, farthest, keep);
            keepFar(type, points, farthest, last, keep);
        }
    }
}
