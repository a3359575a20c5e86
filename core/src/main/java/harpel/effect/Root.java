package harpel.effect;

import harpel.param.Param;
import harpel.param.ParamSet;
import harpel.param.music.ScaleType;
import harpel.param.type.IntType;
import harpel.theory.Key;
import harpel.theory.Pitch;
import harpel.theory.Scale;
import java.util.Optional;

/** The root and the scale on which an effect that plays by itself counts its degrees. */
public final class Root {
    private static final IntType TYPE = IntType.ofPitch().orWord("key");

    /** The same word in every effect: the piece's key, root and scale; a scale of its own stands on the root. */
    public static final Param<Optional<Scale>> SCALE = Param.of(
            "scale",
            ScaleType.SCALE,
            Optional.empty(),
            "key: root and scale of the piece; another scale stands on this effect's root.");

    private Root() {}

    /** A root that is the key's until another is set, at or above {@code lowest}. */
    public static Param<Integer> param(int lowest) {
        return Param.of(
                "root",
                TYPE,
                TYPE.wordValue(),
                "The note of degree 0: a note, or key, which is the root of the piece's key at or above "
                        + Pitch.name(lowest) + ".");
    }

    /** The note that is meant. */
    public static int of(ParamSet values, Param<Integer> param, int lowest, Key key) {
        int set = values.get(param);
        return set == TYPE.wordValue() ? lowest + Math.floorMod(key.root() - lowest, 12) : set;
    }

    /** A named root set by hand means nothing without a scale on it: then that is the piece's own, by name. */
    public static ParamSet withScale(ParamSet values, boolean rootSet, Key pieceKey) {
        return rootSet && values.get(SCALE).isEmpty() ? values.with(SCALE, Optional.of(pieceKey.scale())) : values;
    }

    /** The key whose degrees are counted from {@code root}. */
    public static Key key(ParamSet values, int root, Key pieceKey) {
        return pieceKey.or(values.get(SCALE), Math.floorMod(root, 12));
    }
}
