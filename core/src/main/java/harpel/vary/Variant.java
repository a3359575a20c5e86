package harpel.vary;

import harpel.chain.Branch;
import harpel.chain.Chain;
import harpel.chain.Differences;
import harpel.chain.Stage;
import harpel.effect.Chance;
import harpel.effect.EffectKind;
import harpel.make.Recipe;
import harpel.param.Param;
import harpel.param.ParamSet;
import harpel.param.ParamType;
import harpel.param.music.TimeType;
import harpel.param.type.ChoiceType;
import harpel.param.type.FlagType;
import harpel.phrase.Notes;
import harpel.phrase.Phrase;
import harpel.piece.Piece;
import harpel.theory.Spelling;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;

/**
 * One variation of what a part makes.
 *
 * @param number of the variation; of settings it says which draw, 0 being those that are set
 * @param piece the piece with it
 * @param differs what is set otherwise, a line each; empty where only chance differs
 */
public record Variant(Way way, long number, Piece piece, List<String> differs) {
    /** What every stage has and no draw touches. */
    private static final Set<Param<?>> KEPT =
            Set.of(EffectKind.ON, EffectKind.LABEL, EffectKind.CHANNEL, EffectKind.SEED);

    private static final int TRIES = 20;

    /** A variation of a part; the same for the same piece, way and number. */
    public static Variant of(Piece piece, String part, Way way, long number) {
        if (way == Way.CHANCE) {
            return new Variant(way, number, piece.withVariation(number), List.of());
        }
        if (way == Way.MADE) {
            return made(piece, part, number);
        }
        Chain chain = piece.part(part).orElseThrow().chain();
        Chain drawn = chain;
        // A draw that leaves all as it is would be none: the next one is taken.
        for (int i = 0; number > 0 && i < TRIES && drawn.equals(chain); i++) {
            Chance chance = Chance.of(number, i, "vary/" + way).at(0);
            drawn = drawn(chain, way, chance);
        }
        Chain other = drawn;
        Piece varied = piece.withPart(part, one -> one.withChain(other));
        return new Variant(way, number, varied, Differences.between(chain, drawn, Spelling.of(piece.key())));
    }

    /** What made the phrase of a part, if that can make others. */
    public static Optional<Recipe> recipe(Piece piece, String part) {
        return piece.part(part)
                .flatMap(one -> piece.phrase(one.phrase()))
                .flatMap(phrase -> Recipe.of(phrase.origin()));
    }

    private static Variant made(Piece piece, String part, long number) {
        Recipe recipe = recipe(piece, part).map(one -> one.another(number)).orElse(null);
        if (recipe == null || number == 0) {
            return new Variant(Way.MADE, number, piece, List.of());
        }
        Phrase phrase = piece.phrase(piece.part(part).orElseThrow().phrase()).orElseThrow();
        Recipe.Result result = recipe.make(piece.key(), piece.time());
        Phrase other = phrase.with(all ->
                all.notes(Notes.of(result.notes())).length(result.length()).origin(recipe.origin()));
        return new Variant(
                Way.MADE,
                number,
                piece.withPhrase(other),
                List.of(recipe.origin().details()));
    }

    private static Chain drawn(Chain chain, Way way, Chance chance) {
        Chain drawn = chain;
        for (Stage stage : chain.stages()) {
            if (stage.isKnown()) {
                drawn = drawn.withStage(stage.id(), one -> drawn(one, way, chance));
            }
        }
        return drawn;
    }

    private static Stage drawn(Stage stage, Way way, Chance chance) {
        boolean switched = chance.percent(100 * way.switches);
        Stage changed = switched ? stage.with(EffectKind.ON, !stage.on()) : stage;
        if (!stage.on()) {
            // What is off is not heard, whatever it is set to.
            return changed;
        }
        ParamSet values = changed.params();
        for (Param<?> param : stage.params().spec().params()) {
            if (!KEPT.contains(param)) {
                values = drawn(values, param, way, chance);
            }
        }
        List<Branch> branches = new ArrayList<>();
        stage.branches().forEach(branch -> branches.add(branch.withChain(drawn(branch.chain(), way, chance))));
        Stage with = changed.withParams(stage.kind().fit(values));
        return branches.isEmpty() ? with : with.withBranches(branches);
    }

    private static <T> ParamSet drawn(ParamSet values, Param<T> param, Way way, Chance chance) {
        T value = values.get(param);
        ParamType<T> type = values.typeOf(param);
        // Both are always drawn, so that what is set of one control changes nothing of the others.
        double often = chance.unit();
        Chance own =
                Chance.of((long) (chance.unit() * (1L << 52)), 0, param.id()).at(0);
        if (!type.canShuffle(value)) {
            return values;
        }
        boolean choice = type instanceof ChoiceType || type instanceof FlagType || type instanceof TimeType;
        if (often >= (choice ? way.choices : way.often)) {
            return values;
        }
        T drawn = type.shuffled(value, choice ? 1 : way.far, own::unit);
        return drawn.equals(value) ? values : values.with(param, drawn);
    }
}
