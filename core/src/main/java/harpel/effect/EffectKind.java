package harpel.effect;

import harpel.param.Param;
import harpel.param.ParamSet;
import harpel.param.ParamSpec;
import harpel.param.type.FlagType;
import harpel.param.type.IntType;
import harpel.param.type.TextType;
import harpel.theory.Key;
import java.util.List;

/**
 * One kind of effect: what it computes. What it is called is {@link EffectWords}, what it is like {@link EffectNature}; a new kind gives
 * these with its parameters, and makes running effects.
 */
public abstract class EffectKind {
    public static final Param<Boolean> ON =
            Param.of("on", FlagType.FLAG, true, "Off ends what the stage opened and passes everything through.");
    public static final Param<String> LABEL =
            Param.of("label", new TextType(60), "", "A name of your own for this stage.");
    public static final Param<Integer> CHANNEL = Param.of(
            "channel",
            IntType.of(1, 16, "").orWord("all"),
            0,
            "The channel this stage works on; notes of other channels pass by.");
    public static final Param<Integer> SEED = Param.of(
            "seed", IntType.of(0, 999_999, ""), 0, "Another number gives other draws; the same number gives the same.");

    private final String id;
    private final EffectWords words;
    private final EffectNature nature;
    private final ParamSpec spec;

    /** A kind that nothing sets apart. */
    protected EffectKind(String id, EffectWords words, Param<?>... params) {
        this(id, words, EffectNature.PLAIN, params);
    }

    protected EffectKind(String id, EffectWords words, EffectNature nature, Param<?>... params) {
        this.id = id;
        this.words = words;
        this.nature = nature;
        this.spec = ParamSpec.of(params).and(ParamSpec.of(ON, LABEL, CHANNEL));
    }

    /** The name in files, on the command line and in automation. */
    public final String id() {
        return id;
    }

    /** What it is called and what is said of it. */
    public final EffectWords words() {
        return words;
    }

    /** What it is like. */
    public final EffectNature nature() {
        return nature;
    }

    /** One that has a seed draws. */
    public final boolean has(Trait trait) {
        return nature.traits().contains(trait) || trait == Trait.DRAWS && spec.has(SEED);
    }

    public final ParamSpec spec() {
        return spec;
    }

    /** A running effect with no state yet; {@link Effect#configure} is its first call. */
    public abstract Effect create();

    /**
     * Makes ready what running effects of this kind will need, so that the engine does not wait for it. Called by whoever edits, with the
     * values of all stages of this kind that are about to run; must not take long itself.
     */
    public void prepare(List<ParamSet> stages) {}

    /** The values as this kind wants them: on a spec with the parameters that the values themselves ask for, as a script's do. */
    public ParamSet fit(ParamSet values) {
        return values;
    }

    /** What else is set when a hand sets one parameter, so that setting it does what the hand wants. */
    public ParamSet completed(ParamSet values, Param<?> set, Key pieceKey) {
        return values;
    }

    /** Whether values may have parameters that the spec of the kind does not list, as a script's controls. */
    public boolean declaresMore() {
        return false;
    }

    /** Whether values are kept that the spec does not know, as those of a script's controls while the script has an error. */
    public boolean keepsUnknown(ParamSet values) {
        return false;
    }

    @Override
    public final String toString() {
        return id;
    }
}
