package harpel.effect.route;

import com.google.auto.service.AutoService;
import harpel.effect.Chance;
import harpel.effect.Effect;
import harpel.effect.EffectContext;
import harpel.effect.EffectKind;
import harpel.effect.EffectNature;
import harpel.effect.EffectWords;
import harpel.effect.Emitter;
import harpel.effect.Family;
import harpel.effect.NoteByNote;
import harpel.effect.Trait;
import harpel.event.NoteStart;
import harpel.param.Param;
import harpel.param.ParamSet;
import harpel.param.ParamSpec;
import harpel.param.type.FlagType;
import harpel.param.type.IntType;
import harpel.param.type.SpanType;
import harpel.param.type.SpanType.Span;
import harpel.theory.Spelling;
import java.util.ArrayList;
import java.util.List;

/** Branches side by side, each a chain of its own, merged again by the order of events. */
@AutoService(EffectKind.class)
public final class Split extends EffectKind {
    /** The most branches a split can have. */
    public static final int MOST_BRANCHES = 16;

    public static final Param<Span> KEYS =
            Param.of("keys", SpanType.ofPitches(), new Span(0, 127), "Takes notes of this key range.");
    public static final Param<Span> VELOCITY =
            Param.of("velocity", SpanType.of(1, 127), new Span(1, 127), "Takes notes of this velocity range.");
    public static final Param<Integer> FROM_CHANNEL =
            Param.of("channel", IntType.of(1, 16, "").orWord("all"), 0, "Takes notes of this channel.");
    public static final Param<Boolean> TURN = Param.of(
            "turn",
            FlagType.FLAG,
            false,
            "Takes its turn: notes go to the branches that take turns one after another.");
    public static final Param<Integer> SHARE = Param.of(
            "share",
            IntType.percent(1, 100).orWord("all"),
            0,
            "Takes a drawn share: one draw for each note among the branches with a share; what they leave of 100 % goes nowhere.");

    public static final Param<Boolean> SOLO = Param.of(
            "solo",
            FlagType.FLAG,
            false,
            "Only this branch, and others that are solo, take notes; the draws stay as they are.");

    /** What one branch takes; everything by default. All conditions must hold. */
    public static final ParamSpec TAKES = ParamSpec.of(KEYS, VELOCITY, FROM_CHANNEL, TURN, SHARE, SOLO);

    private static final EffectWords WORDS = EffectWords.of(
                    "Split", Family.ROUTE, "branches side by side, merged again")
            .withFoundBy("branches layers dry")
            .withSetting(values -> "branches side by side")
            .withTelling((from, made, values, key, time) -> "branch")
            .withNotes(
                    "Each entry of `split` is a branch with a `chain` and, if it does not take every note, `takes`: any of "
                            + TAKES.ids()
                            + ". A note goes to every branch whose conditions it meets. Controllers and other messages go into every"
                            + " branch and come out once. Shares that add up to more than 100 % are taken in proportion."
                            + " A branch with an empty chain is the dry way.");
    private static final EffectNature NATURE = EffectNature.of(Trait.GIVES_OUT).withBranches(true);

    public Split() {
        super("split", WORDS, NATURE, SEED);
    }

    @Override
    public Effect create() {
        return new Dry();
    }

    /** What a branch takes, in words. */
    public static String describeTakes(ParamSet takes, Spelling spelling) {
        List<String> parts = new ArrayList<>();
        for (Param<?> param : TAKES.params()) {
            if (!takes.isDefault(param)) {
                parts.add(
                        param == TURN
                                ? "its turn"
                                : param == SOLO ? "solo" : param.id() + " " + param.show(takes, spelling));
            }
        }
        return parts.isEmpty() ? "every note" : String.join(" · ", parts);
    }

    /** Without branches a split is the dry way. */
    private static final class Dry extends NoteByNote {
        @Override
        public void configure(ParamSet values, EffectContext context, long tick) {
            // nothing to set
        }

        @Override
        public NoteStart change(NoteStart note, Emitter out) {
            return note;
        }
    }

    /** Says which branches take a note. Has state: whose turn it is. */
    public static final class Chooser {
        private int turn;

        /** Marks in {@code taken} which of the branches take the note. */
        public void choose(NoteStart note, List<ParamSet> takes, Chance chance, boolean[] taken) {
            int turns = 0;
            int shares = 0;
            boolean anySolo = false;
            for (ParamSet one : takes) {
                anySolo |= one.get(SOLO);
                turns += one.get(TURN) ? 1 : 0;
                shares += one.get(SHARE);
            }
            int whoseTurn = turns == 0 ? -1 : turn++ % turns;
            double drawn = chance.unit() * Math.max(100, shares);
            int turnsSeen = 0;
            int sharesSeen = 0;
            for (int i = 0; i < takes.size(); i++) {
                ParamSet one = takes.get(i);
                boolean fits = one.get(KEYS).contains(note.pitch())
                        && one.get(VELOCITY).contains(note.velocity())
                        && (one.get(FROM_CHANNEL) == 0 || one.get(FROM_CHANNEL) == note.channel() + 1);
                if (one.get(TURN)) {
                    fits &= turnsSeen++ == whoseTurn;
                }
                if (one.get(SHARE) > 0) {
                    fits &= drawn >= sharesSeen && drawn < sharesSeen + one.get(SHARE);
                    sharesSeen += one.get(SHARE);
                }
                taken[i] = fits && (!anySolo || one.get(SOLO));
            }
        }
    }
}
