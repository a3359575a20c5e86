package harpel.effect.notes;

import com.google.auto.service.AutoService;
import harpel.effect.Beyond;
import harpel.effect.Effect;
import harpel.effect.EffectContext;
import harpel.effect.EffectKind;
import harpel.effect.EffectNature;
import harpel.effect.EffectWords;
import harpel.effect.Emitter;
import harpel.effect.Family;
import harpel.effect.Root;
import harpel.effect.Trait;
import harpel.event.NoteEnd;
import harpel.event.NoteStart;
import harpel.param.Param;
import harpel.param.ParamSet;
import harpel.param.music.ChordTableType;
import harpel.param.music.ChordTableType.KeyChord;
import harpel.param.type.ChoiceType;
import harpel.param.type.IntType;
import harpel.param.type.WordsType;
import harpel.theory.Chord;
import harpel.theory.Key;
import harpel.theory.Pitch;
import harpel.theory.Spelling;
import harpel.theory.Voicing;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/** Plays a chord for each key. */
@AutoService(EffectKind.class)
public final class ChordKeys extends EffectKind {
    private static final String FROM_KEY = "key";

    /** How keys that are not in the table get chords. */
    public enum Fill {
        NONE,
        DIATONIC
    }

    /** What a key without a chord does. */
    public enum Others {
        PASS,
        DROP
    }

    public static final Param<Map<Integer, KeyChord>> KEYS = Param.of(
            "keys",
            ChordTableType.CHORDS,
            Map.of(),
            "A chord for each key: a symbol, whose root is taken as near to the key as can be, pitches, or distances from the key.");
    public static final Param<Fill> FILL = Param.of(
            "fill",
            ChoiceType.of(Fill.class),
            Fill.DIATONIC,
            "Keys that are not in the table: no chord, or notes of the scale stacked in thirds on the key.");
    public static final Param<String> ROOT = Param.of(
            "root",
            new WordsType(List.of(FROM_KEY)),
            FROM_KEY,
            "The first note of a scale of its own: that of the piece's key, or another.");
    public static final Param<Integer> NOTES = Param.of(
            "notes", IntType.of(3, 7, "notes"), 3, "How many notes are stacked: 3 triads, 4 sevenths, 5 ninths.");
    public static final Param<Voicing> VOICING = Param.of(
            "voicing",
            ChoiceType.of(Voicing.class),
            Voicing.CLOSE,
            "close; open: every second note an octave up; drop-2: the second highest down; spread; lead: the notes move least.");
    public static final Param<Integer> INVERSION =
            Param.of("inversion", IntType.of(0, 3, ""), 0, "How many of the lowest notes go up an octave first.");
    public static final Param<Others> OTHERS =
            Param.of("others", ChoiceType.of(Others.class), Others.PASS, "Keys without a chord: pass, or drop.");

    private static final EffectWords WORDS = EffectWords.of("Chord Keys", Family.NOTES, "plays a chord for each key")
            .withFoundBy("chords one finger voicing")
            .withSetting(ChordKeys::describe)
            .withNotes(
                    "Voicing and inversion shape chords given by symbol, by distances or by the scale; a list of pitches sounds as it is."
                            + " With `lead` the first chord lies close, and each next one takes the inversion and octave whose voices, counted from"
                            + " the lowest, move least in all. Known symbols behind a root: "
                            + String.join(
                                    ", ", Chord.qualities().stream().skip(1).toList()) + ".");
    private static final EffectNature NATURE = EffectNature.of(Trait.LEAVES_THE_KEY);

    public ChordKeys() {
        super(
                "chord-keys",
                WORDS,
                NATURE,
                KEYS,
                FILL,
                ROOT,
                Root.SCALE,
                NOTES,
                VOICING,
                INVERSION,
                OTHERS,
                Beyond.PARAM);
    }

    /**
     * The pitches that a key plays; none where it is silent.
     *
     * @param key that of {@link #key}
     * @param last the chord before, which voicing lead starts from; empty for none
     */
    public static List<Integer> chord(ParamSet values, Key key, int pitch, List<Integer> last) {
        KeyChord own = values.get(KEYS).get(pitch);
        if (own != null && own.symbol() == null && !own.relative()) {
            return own.notes();
        }
        List<Integer> close = own != null ? close(own, pitch) : filled(values, key, pitch);
        if (close.isEmpty()) {
            return values.get(OTHERS) == Others.PASS && own == null ? List.of(pitch) : List.of();
        }
        return values.get(VOICING).of(close, values.get(INVERSION), last);
    }

    private static List<Integer> close(KeyChord own, int pitch) {
        return own.symbol() != null
                ? own.symbol().pitchesNear(pitch)
                : own.notes().stream()
                        .map(distance -> pitch + distance)
                        .sorted()
                        .toList();
    }

    /** The key that chords are stacked in, within a piece of that key. */
    public static Key key(ParamSet values, Key pieceKey) {
        int root = values.get(ROOT).equals(FROM_KEY) ? pieceKey.root() : Pitch.parseClass(values.get(ROOT));
        return pieceKey.or(values.get(Root.SCALE), root);
    }

    private static List<Integer> filled(ParamSet values, Key key, int pitch) {
        boolean chord = values.get(FILL) == Fill.DIATONIC && key.contains(pitch);
        return chord ? Chord.stackedThirds(key, pitch, values.get(NOTES)) : List.of();
    }

    @Override
    public Effect create() {
        return new Running();
    }

    private static String describe(ParamSet values, Key pieceKey, int lastPitch) {
        int own = values.get(KEYS).size();
        String table = own == 0 ? "" : own == 1 ? "1 key of its own · " : own + " keys of their own · ";
        String root = values.get(ROOT).equals(FROM_KEY) ? "the key's root" : ROOT.show(values, Spelling.of(pieceKey));
        String key =
                values.get(Root.SCALE).map(scale -> root + " " + scale.shown()).orElse("the key");
        String fill = values.get(FILL) == Fill.NONE ? "no others" : key + " · " + NOTES.show(values);
        return table + fill + " · " + VOICING.show(values);
    }

    @Override
    public ParamSet completed(ParamSet values, Param<?> set, Key pieceKey) {
        return Root.withScale(values, set == ROOT && !values.isDefault(ROOT), pieceKey);
    }

    private static final class Running implements Effect {
        private final Map<NoteStart, List<NoteStart>> sent = new HashMap<>();
        private ParamSet values;
        private Key key;
        private List<Integer> last = List.of();

        @Override
        public void configure(ParamSet newValues, EffectContext context, long tick) {
            values = newValues;
            // Once, and not for every note: a root is read from its name.
            key = ChordKeys.key(values, context.key());
        }

        @Override
        public void start(NoteStart note, Emitter out) {
            List<NoteStart> made = new ArrayList<>();
            List<Integer> chord = chord(values, key, note.pitch(), last);
            KeyChord own = values.get(KEYS).get(note.pitch());
            boolean asItIs = own != null && own.symbol() == null && !own.relative();
            boolean passes = own == null && chord.equals(List.of(note.pitch()));
            if (!asItIs && !passes && !chord.isEmpty()) {
                last = chord;
            }
            for (int pitch : chord) {
                NoteStart one = values.get(Beyond.PARAM).derive(note, note.tick(), pitch, note.velocity(), out);
                if (one != null && made.stream().noneMatch(other -> other.pitch() == one.pitch())) {
                    made.add(one);
                }
            }
            made.forEach(out::start);
            sent.put(note, made);
        }

        @Override
        public void end(NoteEnd end, Emitter out) {
            for (NoteStart note : sent.remove(end.start())) {
                out.end(note, end.tick(), end.releaseVelocity());
            }
        }
    }
}
