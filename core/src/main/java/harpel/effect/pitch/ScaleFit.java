package harpel.effect.pitch;

import com.google.auto.service.AutoService;
import harpel.effect.Effect;
import harpel.effect.EffectContext;
import harpel.effect.EffectKind;
import harpel.effect.EffectNature;
import harpel.effect.EffectWords;
import harpel.effect.Emitter;
import harpel.effect.Family;
import harpel.effect.NoteByNote;
import harpel.effect.Root;
import harpel.effect.Trait;
import harpel.event.NoteStart;
import harpel.param.Param;
import harpel.param.ParamSet;
import harpel.param.music.PartType;
import harpel.param.music.PitchTableType;
import harpel.param.type.ChoiceType;
import harpel.param.type.WordsType;
import harpel.theory.Interval;
import harpel.theory.Key;
import harpel.theory.Pitch;
import harpel.theory.Spelling;
import java.util.List;
import java.util.Map;

/** Brings notes into a scale. */
@AutoService(EffectKind.class)
public final class ScaleFit extends EffectKind {
    private static final String FROM_KEY = "key";
    private static final String PLAYED = "played";

    /** Which way a note outside the scale goes. */
    public enum Rule {
        NEAREST,
        UP,
        DOWN,
        DROP
    }

    /** Which way a note goes that lies as near to both. */
    public enum Ties {
        DOWN,
        UP
    }

    public static final Param<String> ROOT = Param.of(
            "root",
            new WordsType(List.of(FROM_KEY, PLAYED)),
            FROM_KEY,
            "The first note of a scale of its own: that of the piece's key, another, or the lowest note held on another part.");
    public static final Param<Rule> RULE = Param.of(
            "rule",
            ChoiceType.of(Rule.class),
            Rule.NEAREST,
            "Where a note outside the scale goes: F in G major is F♯ by up, E by down.");
    public static final Param<Ties> TIES = Param.of(
            "ties", ChoiceType.of(Ties.class), Ties.DOWN, "Where nearest goes when two scale notes are equally near.");
    public static final Param<Map<Integer, Integer>> TABLE = Param.of(
            "table",
            PitchTableType.TABLE,
            Map.of(),
            "A table of your own from note name to note name or \"drop\"; it comes before the scale, and names not in it follow the scale.");
    public static final Param<String> LISTEN_TO =
            Param.of("listen-to", PartType.PART, "", "With root played: the part whose lowest held note is the root.");

    private static final EffectWords WORDS = EffectWords.of("Scale Fit", Family.PITCH, "brings notes into a scale")
            .withFoundBy("in key scale lock")
            .withSetting(ScaleFit::describe)
            .withTelling((from, made, values, key, time) ->
                    (Interval.told(from.pitch(), made.pitch(), key) + " into the key").strip())
            .withNotes(
                    "With `root: played` the last root holds after its key is let go; until a first one is held, notes pass unchanged."
                            + " A table entry moves a note to the nearest note of the other name, down when two are equally near.");
    private static final EffectNature NATURE = EffectNature.of(Trait.FITS_THE_KEY);

    public ScaleFit() {
        super("scale-fit", WORDS, NATURE, ROOT, Root.SCALE, RULE, TIES, TABLE, LISTEN_TO);
    }

    @Override
    public Effect create() {
        return new Running();
    }

    private static String describe(ParamSet values, Key pieceKey, int lastPitch) {
        int moved = values.get(TABLE).size();
        String table = moved == 0 ? "" : moved == 1 ? " · 1 note by table" : " · " + moved + " notes by table";
        String root = switch (values.get(ROOT)) {
            case FROM_KEY -> "the key's root";
            case PLAYED -> "played root";
            default -> ROOT.show(values, Spelling.of(pieceKey));
        };
        String key =
                values.get(Root.SCALE).map(scale -> root + " " + scale.shown()).orElse("the key");
        return key + " · " + RULE.show(values) + table;
    }

    @Override
    public ParamSet completed(ParamSet values, Param<?> set, Key pieceKey) {
        return Root.withScale(values, set == ROOT && !values.isDefault(ROOT), pieceKey);
    }

    private static final class Running extends NoteByNote {
        private static final int DROPPED = -1;
        private final int[] target = new int[128];
        private ParamSet values;
        private EffectContext context;
        private int root;
        private boolean followsPlaying;

        @Override
        public void configure(ParamSet newValues, EffectContext newContext, long tick) {
            values = newValues;
            context = newContext;
            followsPlaying =
                    values.get(ROOT).equals(PLAYED) && values.get(Root.SCALE).isPresent();
            if (followsPlaying) {
                context.listen(values.get(LISTEN_TO));
            }
            root = switch (values.get(ROOT)) {
                case FROM_KEY -> context.key().root();
                case PLAYED -> followsPlaying ? -1 : context.key().root();
                default -> Pitch.parseClass(values.get(ROOT));
            };
            fill();
        }

        private void fill() {
            if (root < 0) {
                return;
            }
            Key key = context.key().or(values.get(Root.SCALE), root);
            for (int pitch = 0; pitch < target.length; pitch++) {
                target[pitch] = fit(pitch, key);
            }
        }

        private int fit(int pitch, Key key) {
            Integer named = values.get(TABLE).get(Pitch.pitchClass(pitch));
            if (named != null) {
                return named == PitchTableType.DROP ? DROPPED : nearest(pitch, named);
            }
            if (key.contains(pitch)) {
                return pitch;
            }
            return switch (values.get(RULE)) {
                case DROP -> DROPPED;
                case UP -> inRange(pitch + distance(pitch, 1, key));
                case DOWN -> inRange(pitch - distance(pitch, -1, key));
                case NEAREST -> {
                    int up = distance(pitch, 1, key);
                    int down = distance(pitch, -1, key);
                    boolean goUp = up < down || up == down && values.get(TIES) == Ties.UP;
                    yield inRange(goUp ? pitch + up : pitch - down);
                }
            };
        }

        private static int nearest(int pitch, int pitchClass) {
            int up = Math.floorMod(pitchClass - pitch, 12);
            return inRange(up < 6 ? pitch + up : pitch + up - 12);
        }

        private static int inRange(int pitch) {
            return Pitch.inRange(pitch) ? pitch : DROPPED;
        }

        private static int distance(int pitch, int direction, Key key) {
            int distance = 1;
            while (!key.contains(pitch + direction * distance)) {
                distance++;
            }
            return distance;
        }

        @Override
        public NoteStart change(NoteStart note, Emitter out) {
            if (followsPlaying) {
                int lowest = context.lowestHeld(values.get(LISTEN_TO), out.tick());
                if (lowest >= 0 && Pitch.pitchClass(lowest) != root) {
                    root = Pitch.pitchClass(lowest);
                    fill();
                }
                if (root < 0) {
                    return note;
                }
            }
            int pitch = target[note.pitch()];
            if (pitch == DROPPED) {
                return null;
            }
            return pitch == note.pitch() ? note : note.derive(note.tick(), pitch, note.velocity());
        }
    }
}
