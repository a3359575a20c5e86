package harpel.piece;

import harpel.chain.Branch;
import harpel.chain.Chain;
import harpel.chain.Stage;
import harpel.chain.StageAddress;
import harpel.chain.StageAddress.Step;
import harpel.effect.EffectKind;
import harpel.move.Mover;
import harpel.move.Moves;
import harpel.move.Source;
import harpel.param.Param;
import harpel.param.ParamType;
import harpel.param.type.FlagType;
import harpel.param.type.NumberType;
import harpel.param.type.PathType;
import harpel.param.type.PathType.Point;
import harpel.piece.perform.Lever;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.function.BiConsumer;
import java.util.function.UnaryOperator;

/**
 * Something that is moved by points along the timeline: a lever, a parameter of a stage, or whether a part is mute. It names what it
 * moves; the points are the piece's.
 *
 * @param <T> its values
 */
public sealed interface Lane<T> {
    /** Where a lever stands, in %. */
    record OfLever(String lever) implements Lane<Double> {
        private static final NumberType PERCENT = new NumberType(0, 100, 1, "%");

        private Lever find(Piece piece) {
            return piece.levers().stream()
                    .filter(one -> one.name().equals(lever))
                    .findFirst()
                    .orElseThrow();
        }

        @Override
        public boolean isIn(Piece piece) {
            return piece.levers().stream().anyMatch(one -> one.name().equals(lever));
        }

        @Override
        public String name(Piece piece) {
            return "Lever “" + lever + "”";
        }

        @Override
        public String part() {
            return "";
        }

        @Override
        public ParamType<Double> type(Piece piece) {
            return PERCENT;
        }

        @Override
        public boolean line(Piece piece) {
            return true;
        }

        @Override
        public Double base(Piece piece) {
            return find(piece).value();
        }

        @Override
        public Piece withBase(Piece piece, Double value) {
            return with(piece, find(piece).withValue(value));
        }

        @Override
        public List<Point<Double>> points(Piece piece) {
            return find(piece).points().stream()
                    .map(point -> new Point<>(point.tick(), point.value()))
                    .toList();
        }

        @Override
        public Piece withPoints(Piece piece, List<Point<Double>> points) {
            return with(
                    piece,
                    find(piece)
                            .withPoints(points.stream()
                                    .map(point -> new Lever.Point(point.tick(), point.value()))
                                    .toList()));
        }

        private Piece with(Piece piece, Lever changed) {
            return piece.withLevers(piece.levers().stream()
                    .map(one -> one.name().equals(lever) ? changed : one)
                    .toList());
        }

        /** The lever stays; only its points go. */
        @Override
        public Piece removed(Piece piece) {
            return withPoints(piece, List.of());
        }
    }

    /** Whether a part is mute. */
    record OfMute(String part) implements Lane<Boolean> {
        @Override
        public boolean isIn(Piece piece) {
            return piece.part(part).isPresent();
        }

        @Override
        public String name(Piece piece) {
            return "Mute";
        }

        @Override
        public ParamType<Boolean> type(Piece piece) {
            return FlagType.FLAG;
        }

        @Override
        public boolean line(Piece piece) {
            return false;
        }

        @Override
        public Boolean base(Piece piece) {
            return piece.part(part).orElseThrow().mix().mute();
        }

        @Override
        public Piece withBase(Piece piece, Boolean value) {
            return piece.withPart(part, one -> one.withMix(one.mix().withMute(value)));
        }

        @Override
        public List<Point<Boolean>> points(Piece piece) {
            return piece.part(part).orElseThrow().playing().mutes();
        }

        @Override
        public Piece withPoints(Piece piece, List<Point<Boolean>> points) {
            return piece.withPart(part, one -> one.withPlaying(one.playing().withMutes(points)));
        }

        @Override
        public Piece removed(Piece piece) {
            return withPoints(piece, List.of());
        }
    }

    /**
     * The value of a parameter of a stage, by the first automation among what moves it.
     *
     * @param param its id, also inside a list
     */
    record OfStage<T>(StageAddress stage, Param<T> param) implements Lane<T> {
        private Stage find(Piece piece) {
            return stageOf(piece, stage).orElseThrow();
        }

        @Override
        public boolean isIn(Piece piece) {
            return stageOf(piece, stage)
                    .filter(one -> one.isKnown()
                            && one.params().spec().anywhere(param.id()).isPresent())
                    .isPresent();
        }

        @Override
        public String part() {
            return stage.part();
        }

        @Override
        public String name(Piece piece) {
            return find(piece).name() + ": " + param.label();
        }

        @Override
        public ParamType<T> type(Piece piece) {
            return find(piece).params().typeOf(param);
        }

        private Optional<Mover> mover(Piece piece) {
            return find(piece).moves().of(param).stream()
                    .filter(one -> one.source() == Source.AUTOMATION)
                    .findFirst();
        }

        @Override
        public boolean line(Piece piece) {
            return mover(piece)
                    .map(one -> one.settings().get(Source.BETWEEN) == Source.Between.LINE)
                    .orElse(true);
        }

        @Override
        public T base(Piece piece) {
            return find(piece).params().get(param);
        }

        @Override
        public Piece withBase(Piece piece, T value) {
            return with(piece, one -> one.with(param, value));
        }

        @SuppressWarnings("unchecked") // the first of an automation's settings is its path, of the parameter's own type
        private static <T> Param<List<Point<T>>> path(Mover mover) {
            return (Param<List<Point<T>>>) mover.settings().spec().params().get(0);
        }

        @Override
        public List<Point<T>> points(Piece piece) {
            return mover(piece)
                    .map(one -> one.settings().get(OfStage.<T>path(one)))
                    .orElse(List.of());
        }

        @Override
        public Piece withPoints(Piece piece, List<Point<T>> points) {
            return with(piece, one -> one.withMoves(moved(one.moves(), points)));
        }

        private Moves moved(Moves moves, List<Point<T>> points) {
            List<Mover> movers = new ArrayList<>(moves.of(param));
            int at = 0;
            while (at < movers.size() && movers.get(at).source() != Source.AUTOMATION) {
                at++;
            }
            if (at == movers.size()) {
                Mover fresh = Mover.of(Source.AUTOMATION, param);
                movers.add(fresh.withSettings(fresh.settings().with(Source.BETWEEN, Source.Between.HOLD)));
            }
            Mover mover = movers.get(at);
            movers.set(at, mover.withSettings(mover.settings().with(OfStage.<T>path(mover), points)));
            return moves.with(param, movers);
        }

        @Override
        public Piece removed(Piece piece) {
            return with(
                    piece,
                    one -> one.withMoves(one.moves()
                            .with(
                                    param,
                                    one.moves().of(param).stream()
                                            .filter(mover -> mover.source() != Source.AUTOMATION)
                                            .toList())));
        }

        private Piece with(Piece piece, UnaryOperator<Stage> change) {
            return piece.withPart(
                    stage.part(),
                    part -> part.withChain(
                            part.chain().within(stage.chainWay(), chain -> chain.withStage(stage.stageId(), change))));
        }
    }

    /** Whether what it moves is there. */
    boolean isIn(Piece piece);

    /** What it is called; of a part's, without the part's name. */
    String name(Piece piece);

    /** The id of the part it belongs to; empty for a lever. */
    String part();

    ParamType<T> type(Piece piece);

    /** Whether it goes straight from point to point; else each holds to the next. */
    boolean line(Piece piece);

    /** What holds without points, or while the timeline is not played. */
    T base(Piece piece);

    Piece withBase(Piece piece, T value);

    /** Rising in time. */
    List<Point<T>> points(Piece piece);

    Piece withPoints(Piece piece, List<Point<T>> points);

    /** Without this lane. */
    Piece removed(Piece piece);

    /** The value at a tick. */
    default T at(Piece piece, long tick) {
        List<Point<T>> points = points(piece);
        return points.isEmpty() ? base(piece) : new PathType<>(type(piece)).at(points, tick, line(piece));
    }

    /** The piece with a value that is held for a stretch; behind it holds what held there before. */
    default Piece held(Piece piece, long from, long to, T value) {
        List<Point<T>> kept = new ArrayList<>();
        if (points(piece).isEmpty() && from > 0) {
            kept.add(new Point<>(0, base(piece)));
        }
        points(piece).stream()
                .filter(point -> point.tick() < from || point.tick() > to)
                .forEach(kept::add);
        kept.add(new Point<>(from, value));
        kept.add(new Point<>(to, points(piece).isEmpty() ? base(piece) : at(piece, to)));
        kept.sort(Comparator.comparingLong(Point::tick));
        return withPoints(piece, kept);
    }

    /** With a point, in place of one at the same tick. */
    default Piece with(Piece piece, long tick, T value) {
        List<Point<T>> points = new ArrayList<>(points(piece));
        points.removeIf(point -> point.tick() == tick);
        int place = 0;
        while (place < points.size() && points.get(place).tick() < tick) {
            place++;
        }
        points.add(place, new Point<>(tick, value));
        return withPoints(piece, points);
    }

    default Piece without(Piece piece, long tick) {
        return withPoints(
                piece,
                points(piece).stream().filter(point -> point.tick() != tick).toList());
    }

    /** With a point of what was typed; throws what the type does for a value it does not take. */
    default Piece typed(Piece piece, long tick, String text) {
        return with(piece, tick, type(piece).parse(text));
    }

    /** With all points from a tick on moved by so much; what stands between there and where they come to is gone. */
    default Piece shifted(Piece piece, long from, long by) {
        List<Point<T>> points = points(piece).stream()
                .filter(point -> point.tick() >= from || point.tick() < from + Math.min(0, by))
                .map(point -> point.tick() >= from ? new Point<>(point.tick() + by, point.value()) : point)
                .toList();
        return points.equals(points(piece)) ? piece : withPoints(piece, points);
    }

    /** The lanes of a piece that have been begun: of its levers, then of each part. */
    static List<Lane<?>> of(Piece piece) {
        List<Lane<?>> lanes = new ArrayList<>();
        for (Lever lever : piece.levers()) {
            if (!lever.points().isEmpty()) {
                lanes.add(new OfLever(lever.name()));
            }
        }
        for (Part part : piece.parts()) {
            if (!part.playing().mutes().isEmpty()) {
                lanes.add(new OfMute(part.id()));
            }
            eachStage(part.id(), List.of(), part.chain(), (address, stage) -> gather(address, stage, lanes));
        }
        return lanes;
    }

    private static void gather(StageAddress address, Stage stage, List<Lane<?>> lanes) {
        stage.moves().byParam().forEach((id, movers) -> {
            if (movers.stream().anyMatch(mover -> mover.source() == Source.AUTOMATION)) {
                stage.params().spec().anywhere(id).ifPresent(param -> lanes.add(new OfStage<>(address, param)));
            }
        });
    }

    /** Calls for each stage of a chain and of its branches, in order. */
    static void eachStage(String part, List<Step> way, Chain chain, BiConsumer<StageAddress, Stage> each) {
        for (Stage stage : chain.stages()) {
            StageAddress address = StageAddress.of(part, way, stage.id());
            each.accept(address, stage);
            List<Branch> branches = stage.branches();
            for (int i = 0; i < branches.size(); i++) {
                eachStage(part, address.branchWay(i + 1), branches.get(i).chain(), each);
            }
        }
    }

    /** What is played with on a stage: where levers stand, mutes, and switches of stages. */
    static List<Lane<?>> performed(Piece piece) {
        List<Lane<?>> lanes = new ArrayList<>();
        piece.levers().forEach(lever -> lanes.add(new OfLever(lever.name())));
        for (Part part : piece.parts()) {
            lanes.add(new OfMute(part.id()));
            eachStage(part.id(), List.of(), part.chain(), (address, stage) -> {
                if (stage.isKnown() && Moves.canMove(stage.kind(), EffectKind.ON)) {
                    lanes.add(ofSwitch(address));
                }
            });
        }
        return lanes;
    }

    /** Whether a stage is on. */
    static Lane<Boolean> ofSwitch(StageAddress stage) {
        return new OfStage<>(stage, EffectKind.ON);
    }

    private static Optional<Stage> stageOf(Piece piece, StageAddress address) {
        return piece.part(address.part()).flatMap(part -> part.chain().at(address));
    }
}
