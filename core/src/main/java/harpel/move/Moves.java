package harpel.move;

import harpel.effect.EffectKind;
import harpel.param.Param;
import harpel.param.ParamException;
import harpel.param.ParamSet;
import harpel.param.ParamSpec;
import java.util.ArrayList;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.ToDoubleFunction;

/**
 * What moves the parameters of one stage.
 *
 * @param byParam for the id of each moved parameter what moves it, in order
 * @param unknown what a newer version wrote, by the id of the moved parameter
 */
public record Moves(Map<String, List<Mover>> byParam, Map<String, Object> unknown) {
    public static final Moves NONE = new Moves(Map.of());

    public Moves(Map<String, List<Mover>> byParam) {
        this(byParam, Map.of());
    }

    public Moves {
        Map<String, List<Mover>> copy = new LinkedHashMap<>();
        byParam.forEach((id, movers) -> {
            if (!movers.isEmpty()) {
                copy.put(id, List.copyOf(movers));
            }
        });
        byParam = Collections.unmodifiableMap(copy);
        unknown = unknown.isEmpty() ? Map.of() : Collections.unmodifiableMap(new LinkedHashMap<>(unknown));
    }

    /** Whether a parameter of a stage can be moved: it has a place on a bar, is no seed, and the kind has no branches. */
    public static boolean canMove(EffectKind kind, Param<?> param) {
        return !kind.nature().branches() && param != EffectKind.SEED && hasPlace(param);
    }

    /** Whether its values have places between a lowest and a highest. */
    public static <T> boolean hasPlace(Param<T> param) {
        return !Double.isNaN(param.type().fraction(param.defaultValue()));
    }

    public boolean isEmpty() {
        return byParam.isEmpty() && unknown.isEmpty();
    }

    /** What moves that parameter. */
    public List<Mover> of(Param<?> param) {
        return byParam.getOrDefault(param.id(), List.of());
    }

    public Moves with(Param<?> param, List<Mover> movers) {
        Map<String, List<Mover>> changed = new LinkedHashMap<>(byParam);
        changed.put(param.id(), movers);
        return new Moves(changed, unknown);
    }

    /** With one more; a lever moves a parameter once, so one that moves it already takes the new settings. */
    public Moves plus(Param<?> param, Mover mover) {
        List<Mover> movers = new ArrayList<>(of(param));
        int same = 0;
        while (same < movers.size() && !movers.get(same).isOfTheSameLever(mover)) {
            same++;
        }
        if (same < movers.size()) {
            movers.set(same, mover);
        } else {
            movers.add(mover);
        }
        return with(param, movers);
    }

    /**
     * The values where levers bring them while nothing else moves them, as while time stands.
     *
     * @param lever where the lever of a name stands, 0–1; NaN for one that is not there
     */
    public ParamSet byLevers(ParamSet values, ToDoubleFunction<String> lever) {
        ParamSet moved = values;
        for (Map.Entry<String, List<Mover>> entry : byParam.entrySet()) {
            Param<?> param = values.spec().anywhere(entry.getKey()).orElse(null);
            if (param != null) {
                moved = byLevers(moved, param, entry.getValue(), lever);
            }
        }
        return moved;
    }

    private static <T> ParamSet byLevers(
            ParamSet values, Param<T> param, List<Mover> movers, ToDoubleFunction<String> lever) {
        double offset = 0;
        for (Mover mover : movers) {
            double place = mover.source() == Source.LEVER
                    ? lever.applyAsDouble(mover.settings().get(Source.NAME))
                    : Double.NaN;
            offset += Double.isNaN(place) ? 0 : mover.offset(place);
        }
        return offset == 0
                ? values
                : values.with(param, Mover.moved(values.typeOf(param), values.get(param), offset, movers));
    }

    /** The same where movers by one lever are movers by another. */
    public Moves withLeverRenamed(String oldName, String newName) {
        Map<String, List<Mover>> changed = new LinkedHashMap<>();
        byParam.forEach((id, movers) -> changed.put(
                id,
                movers.stream()
                        .map(mover -> mover.source() == Source.LEVER
                                        && mover.settings().get(Source.NAME).equals(oldName)
                                ? mover.withSettings(mover.settings().with(Source.NAME, newName))
                                : mover)
                        .toList()));
        return new Moves(changed, unknown);
    }

    /** The same without the movers by a lever. */
    public Moves withoutLever(String name) {
        Map<String, List<Mover>> left = new LinkedHashMap<>();
        byParam.forEach((id, movers) -> {
            List<Mover> others = movers.stream()
                    .filter(mover -> mover.source() != Source.LEVER
                            || !mover.settings().get(Source.NAME).equals(name))
                    .toList();
            if (!others.isEmpty()) {
                left.put(id, others);
            }
        });
        return new Moves(left, unknown);
    }

    /**
     * The parameter of that id, or the value inside a list, if it can be moved.
     *
     * @throws ParamException when there is none or it cannot
     */
    public static Param<?> movable(EffectKind kind, ParamSpec spec, String id) {
        Param<?> param = spec.anywhere(id)
                .orElseThrow(() -> new ParamException(id, "there is no such parameter here; use one of " + spec.ids()));
        if (!canMove(kind, param)) {
            throw new ParamException(id, "cannot be moved: it has no place between a lowest and a highest");
        }
        return param;
    }
}
