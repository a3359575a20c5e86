package harpel.testkit;

import harpel.chain.Branch;
import harpel.chain.Chain;
import harpel.chain.Stage;
import harpel.effect.EffectCatalog;
import harpel.effect.EffectKind;
import harpel.effect.held.Polymeter;
import harpel.effect.held.RowPace;
import harpel.effect.notes.Carom;
import harpel.effect.notes.Pulse;
import harpel.effect.route.Split;
import harpel.event.Event;
import harpel.event.EventOrder;
import harpel.event.Message;
import harpel.event.NoteEnd;
import harpel.event.NoteStart;
import harpel.move.Mover;
import harpel.move.Moves;
import harpel.move.Source;
import harpel.param.Param;
import harpel.param.ParamSet;
import harpel.param.ParamSpec;
import harpel.param.ParamType;
import harpel.param.music.ChordTableType;
import harpel.param.music.IntervalType;
import harpel.param.music.PartType;
import harpel.param.music.PitchTableType;
import harpel.param.music.RouteType;
import harpel.param.music.ScaleType;
import harpel.param.music.TimeType;
import harpel.param.type.ChoiceType;
import harpel.param.type.CodeType;
import harpel.param.type.CurveType;
import harpel.param.type.FlagType;
import harpel.param.type.IntType;
import harpel.param.type.ListType;
import harpel.param.type.NumberType;
import harpel.param.type.OffType;
import harpel.param.type.PathType;
import harpel.param.type.PointsType;
import harpel.param.type.RowType;
import harpel.param.type.SharedOrOwnType;
import harpel.param.type.SpanType;
import harpel.param.type.StepsType;
import harpel.param.type.TextType;
import harpel.param.type.WaysType;
import harpel.param.type.WordType;
import harpel.param.type.WordsType;
import harpel.phrase.Note;
import harpel.phrase.Notes;
import harpel.phrase.Origin;
import harpel.phrase.Phrase;
import harpel.phrase.Traits;
import harpel.piece.Block;
import harpel.piece.KeyChange;
import harpel.piece.Part;
import harpel.piece.Piece;
import harpel.piece.perform.Lever;
import harpel.theory.Key;
import harpel.theory.Scale;
import harpel.time.MeterMap;
import harpel.time.TempoMap;
import harpel.time.Ticks;
import harpel.time.TimeMap;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;

/** Makes values of every type, chains and music, at random but repeatable by the seed. */
public final class Randoms {
    private final Random random;

    public Randoms(long seed) {
        this.random = new Random(seed);
    }

    public int between(int low, int high) {
        return low + random.nextInt(high - low + 1);
    }

    public boolean oneIn(int count) {
        return random.nextInt(count) == 0;
    }

    public <T> T oneOf(List<T> values) {
        return values.get(random.nextInt(values.size()));
    }

    /** Values for all parameters, most at their default. */
    public ParamSet params(ParamSpec spec) {
        ParamSet params = spec.defaults();
        for (Param<?> param : spec.params()) {
            if (random.nextInt(3) > 0 && param != EffectKind.ON) {
                params = params.withPlain(param, plain(param.type()));
            }
        }
        return params;
    }

    /** A plain value that the type reads. */
    public Object plain(ParamType<?> type) {
        if (type instanceof IntType whole) {
            boolean word = !whole.word().isEmpty() && oneIn(3);
            return word ? whole.word() : (Object) between(whole.min(), whole.max());
        }
        if (type instanceof NumberType number) {
            return number.min() + random.nextInt(1001) / 1000.0 * (number.max() - number.min());
        }
        if (type instanceof ChoiceType<?> choice) {
            return ChoiceType.word(oneOf(choice.values()));
        }
        if (type instanceof FlagType) {
            return random.nextBoolean();
        }
        if (type instanceof TextType) {
            return oneOf(List.of("", "Tide", "bell # 2"));
        }
        if (type instanceof TimeType) {
            return oneOf(List.of(
                    "1/16", "1/8d", "1/8t", "1/4", "1/64", "2/1", "35 ms", "7.5 ms", "0.75 beat", "0.333 beat"));
        }
        if (type instanceof IntervalType interval) {
            int amount = between(interval.min(), interval.max());
            return random.nextBoolean() ? (Object) amount : Map.of("degrees", amount);
        }
        if (type instanceof SpanType span) {
            int low = between(span.bound().min(), span.bound().max());
            return List.of(low, between(low, span.bound().max()));
        }
        if (type instanceof WordsType words) {
            return oneOf(words.values());
        }
        if (type instanceof ScaleType) {
            return oneIn(4) ? List.of(0, between(1, 5), between(6, 11)) : (Object) oneOf(ScaleType.words());
        }
        if (type instanceof PitchTableType) {
            return oneOf(List.of(Map.of(), Map.of("C#", "drop"), Map.of("F", "G", "B", "drop")));
        }
        if (type instanceof ChordTableType) {
            return oneOf(List.of(
                    Map.of(),
                    Map.of("C4", "Cm7", "E4", List.of(50, 57, 60)),
                    Map.of("D4", Map.of("relative", List.of(0, 4, 7)), "F#4", "B7#9")));
        }
        if (type instanceof CurveType) {
            return List.of(List.of(0, between(0, 100)), List.of(between(1, 3), between(0, 100)), List.of(4, 0.5));
        }
        if (type instanceof PathType<?> path) {
            return path(path);
        }
        if (type instanceof CodeType) {
            return oneOf(Guide.scripts());
        }
        if (type instanceof WordType word) {
            return oneOf(word.words());
        }
        if (type instanceof StepsType) {
            return oneOf(List.of("x", "x..x.", "5.x3", "."));
        }
        if (type instanceof PartType) {
            // Never the other part of a world: who feeds a part cannot listen to it, which is refused as a circle.
            return oneOf(List.of("", "third"));
        }
        if (type instanceof RouteType) {
            return oneOf(List.of("on", 1, between(1, 16), "other", "output:Pier"));
        }
        if (type instanceof PointsType) {
            return oneOf(List.of(List.of(), List.of(List.of(1, 20), List.of(64, 100), List.of(127, 90))));
        }
        if (type instanceof OffType<?> orOff) {
            return oneIn(2) ? "off" : plain(orOff.type());
        }
        if (type instanceof ListType<?> list) {
            List<Object> items = new ArrayList<>();
            for (int i = between(0, Math.min(4, list.most())); i > 0; i--) {
                items.add(plain(list.item()));
            }
            return items;
        }
        if (type instanceof RowType row) {
            return row(params(row.spec())).write();
        }
        if (type instanceof WaysType) {
            return oneOf(List.of(Map.of(), Map.of("0", 3, "-2", 5, "7", 100), List.of(-1, 1), List.of(12)));
        }
        if (type instanceof SharedOrOwnType<?> shared) {
            return oneIn(2) ? plain(shared.item()) : List.of(plain(shared.item()), plain(shared.item()));
        }
        if (type instanceof RowPace.Type) {
            return oneOf(List.of("x1", "x1/2", "x3/2", "x4", "1/8", "1/4t"));
        }
        throw new AssertionError("no random values for " + type.getClass() + "; add them here, and the laws cover it");
    }

    /** With what goes together in it, where not everything does. */
    private ParamSet row(ParamSet values) {
        if (values.spec() == Polymeter.ROW) {
            List<Integer> steps = new ArrayList<>();
            for (int i = between(1, 5); i > 0; i--) {
                steps.add(between(
                        values.get(Polymeter.OF).type().min(),
                        values.get(Polymeter.OF).type().max()));
            }
            return values.with(Polymeter.VALUES, steps);
        }
        if (values.spec() == Pulse.LAYER) {
            boolean every = oneIn(2);
            return values.with(Pulse.EVERY, every ? between(1, 9) : 0).with(Pulse.SPREAD, every ? 0 : between(1, 9));
        }
        return values.spec() == Carom.CELL && values.get(Carom.IS) != Carom.Thing.GATE
                ? values.with(Carom.CHANCE, Carom.CHANCE.defaultValue())
                : values;
    }

    public Stage stage(EffectKind kind, int depth) {
        ParamSet params = params(kind.spec());
        Stage stage = Stage.of(kind.id(), kind).withParams(params).withMoves(moves(kind, params));
        if (!kind.nature().branches()) {
            return stage;
        }
        List<Branch> branches = new ArrayList<>();
        for (int i = between(1, 3); i > 0; i--) {
            branches.add(new Branch(params(Split.TAKES), depth > 0 ? chain(depth - 1) : Chain.EMPTY));
        }
        return stage.withBranches(branches);
    }

    /** Now and then something that moves one or two parameters. */
    private Moves moves(EffectKind kind, ParamSet params) {
        Moves moves = Moves.NONE;
        List<Param<?>> movable = new ArrayList<>();
        for (Param<?> param : params.spec().params()) {
            if (Moves.canMove(kind, param)) {
                movable.add(param);
            }
            if (param.type() instanceof ListType<?> list && !((List<?>) params.get(param)).isEmpty()) {
                String first = param.id() + ".1";
                List<String> inside = list.item() instanceof RowType row
                        ? row.spec().params().stream()
                                .map(one -> first + "." + one.id())
                                .toList()
                        : List.of(first);
                params.spec()
                        .anywhere(oneOf(inside))
                        .filter(one -> Moves.canMove(kind, one))
                        .ifPresent(movable::add);
            }
        }
        for (int i = oneIn(3) && !movable.isEmpty() ? between(1, 2) : 0; i > 0; i--) {
            Param<?> param = oneOf(movable);
            Source source = oneOf(List.of(Source.values()));
            moves = moves.plus(param, new Mover(source, params(source.spec(param))));
        }
        return moves;
    }

    private <T> Object path(PathType<T> path) {
        List<Object> points = new ArrayList<>();
        long tick = 0;
        for (int i = between(0, 4); i > 0; i--) {
            points.add(List.of(tick, plain(path.type())));
            tick += 1 + tick(60_000);
        }
        return points;
    }

    /** Up to three stages of any kind. */
    public Chain chain(int depth) {
        Chain chain = Chain.EMPTY;
        for (int i = between(0, 3); i > 0; i--) {
            chain = chain.plus(between(0, chain.stages().size()), stage(oneOf(EffectCatalog.kinds()), depth));
        }
        return chain;
    }

    /** A stage of this kind, often with others before and after it. */
    public Chain chainAround(EffectKind kind) {
        Chain chain = chain(1);
        return chain.plus(between(0, chain.stages().size()), stage(kind, 1));
    }

    public Key key() {
        return new Key(between(0, 11), Scale.of(oneOf(List.copyOf(Scale.names()))));
    }

    /** The piece with blocks for most parts, with keys that change, and played so. */
    public Piece onTimeline(Piece piece) {
        List<KeyChange> keys = new ArrayList<>();
        for (int i = between(0, 3); i > 0; i--) {
            keys.add(KeyChange.of(1 + tick(400_000), key()));
        }
        List<Lever.Point> points = new ArrayList<>();
        for (int i = between(0, 4); i > 0; i--) {
            points.add(new Lever.Point(i * 50_000L + tick(40_000), between(0, 100)));
        }
        return piece.withTimeline(true)
                .withLevers(List.of(Lever.of("Tide", between(0, 100), 21, between(22, 30))
                        .withCurve(between(-100, 100))
                        .withPoints(points)))
                .withKeys(keys)
                .withParts(piece.parts().stream()
                        .map(part -> oneIn(4) ? part : part.withBlocks(blocks(piece)))
                        .map(part -> oneIn(3) ? part.withPlaying(part.playing().withMutes(mutes())) : part)
                        .toList());
    }

    /** A part with another chain of the same stages, often with a lever between the two. */
    public Part blended(Part part) {
        Chain other = new Chain(part.chain().stages().stream()
                .map(stage -> stage.isKnown() && !stage.kind().nature().branches()
                        ? stage.withParams(stage(stage.kind(), 0).params())
                        : stage)
                .toList());
        return part.withRack(part.rack().withOther(other).withBetween(oneIn(3) ? "" : "Tide"));
    }

    private List<PathType.Point<Boolean>> mutes() {
        List<PathType.Point<Boolean>> mutes = new ArrayList<>();
        for (int i = between(1, 4); i > 0; i--) {
            mutes.add(new PathType.Point<>(tick(40_000) + 50_000L * mutes.size(), oneIn(2)));
        }
        return mutes;
    }

    /** Blocks of any phrase or none, with and without gaps, on and off the bars. */
    public List<Block> blocks(Piece piece) {
        List<Block> blocks = new ArrayList<>();
        long at = oneIn(2) ? 0 : tick(100_000);
        for (int i = between(0, 6); i > 0; i--) {
            long length = oneIn(2) ? 30_720L * between(1, 4) : 1 + tick(150_000);
            String phrase = oneIn(5) ? "" : oneOf(piece.phrases()).id();
            blocks.add(new Block(
                    at,
                    length,
                    phrase,
                    oneIn(2) ? 0 : tick(30_000),
                    !oneIn(4),
                    oneIn(3) ? between(0, 50) : Block.OF_THE_PART,
                    Map.of()));
            at += length + (oneIn(2) ? 0 : tick(60_000));
        }
        return blocks;
    }

    public TimeMap time() {
        List<TempoMap.Change> tempos = new ArrayList<>(List.of(new TempoMap.Change(0, between(40, 240), oneIn(2))));
        List<MeterMap.Change> meters =
                new ArrayList<>(List.of(new MeterMap.Change(0, between(2, 7), oneOf(List.of(4, 8)))));
        if (random.nextBoolean()) {
            tempos.add(new TempoMap.Change(between(1, 90_000), between(40, 240)));
            meters.add(new MeterMap.Change(meters.get(0).barTicks(), between(2, 7), oneOf(List.of(4, 8, 16))));
        }
        return new TimeMap(new TempoMap(tempos), new MeterMap(meters));
    }

    /** Notes, controllers and bends within {@code length} ticks, on and off the grid, in the order of events. */
    public List<Event> music(long length) {
        List<Event> events = new ArrayList<>();
        long[] ticks = java.util.stream.LongStream.generate(() -> tick(length - 1))
                .limit(between(1, 24))
                .sorted()
                .toArray();
        for (int i = 0; i < ticks.length; i++) {
            int channel = oneIn(4) ? between(0, 15) : 0;
            if (oneIn(6)) {
                int controller = oneOf(List.of(64, 64, 1, 7));
                events.add(Message.control(ticks[i], i, channel, controller, between(0, 127)));
            } else {
                NoteStart start = NoteStart.played(ticks[i], i, channel, pitch(), between(1, 127));
                long end = Math.min(length, ticks[i] + 1 + tick(length / 3));
                // Some as of a phrase, some as of keys.
                events.add(oneIn(2) ? start.lasting(end - ticks[i]) : start);
                events.add(new NoteEnd(end, start, between(0, 127)));
            }
        }
        events.sort(EventOrder.INSTANCE);
        return events;
    }

    /** A phrase of a few bars with notes of all traits and controllers. */
    public Phrase phrase(String name) {
        long length = between(1, 4) * 2L * Ticks.PER_QUARTER;
        List<Note> notes = new ArrayList<>();
        for (int i = between(0, 30); i > 0; i--) {
            notes.add(note(length));
        }
        List<Message> messages = new ArrayList<>();
        for (int i = between(0, 3); i > 0; i--) {
            messages.add(Message.control(tick(length - 1), 0, 0, oneOf(List.of(1, 7, 64)), between(0, 127)));
        }
        Origin origin =
                oneIn(2) ? Origin.DRAWN : Origin.of(oneOf(List.of(Origin.Kind.values())), "tide-bass", "bars 1–2");
        return new Phrase(Phrase.idFor(name), name, length, Notes.of(notes), messages, oneIn(4), origin, Map.of());
    }

    /** A note that starts before {@code length} and belongs to no phrase yet. */
    public Note note(long length) {
        Traits traits = oneIn(3) ? Traits.of(between(0, 100), oneIn(4), Map.of()) : Traits.PLAIN;
        return new Note(
                Note.NEW, tick(length - 1), 1 + tick(length / 2), pitch(), between(1, 127), between(0, 127), traits);
    }

    private int pitch() {
        return oneIn(8) ? between(0, 127) : between(55, 67);
    }

    /** Mostly on sixteenths. */
    public long tick(long most) {
        long tick = (long) (random.nextDouble() * most);
        return oneIn(3) ? tick : tick / (Ticks.PER_QUARTER / 4) * (Ticks.PER_QUARTER / 4);
    }
}
