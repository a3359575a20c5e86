package harpel.piece.perform;

import harpel.chain.Stage;
import harpel.chain.StageAddress;
import harpel.piece.Lane;
import harpel.piece.Part;
import harpel.piece.Piece;
import harpel.theory.Chord;
import harpel.theory.Spelling;
import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.Arrays;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;

/**
 * Something that is pressed on stage, and does one thing.
 *
 * @param at its place: 0–15 on the first page, 16–31 on the second, and so on, from the top left
 * @param name what stands on it; empty for what it does
 * @param part the id of the part it is about; empty for the whole piece
 * @param what what it is about besides: a chord's symbol, the id of a phrase, the address of a stage, the name of a moment
 * @param unknown what a newer version wrote
 */
@RecordBuilder
public record Pad(int at, String name, Does does, String part, String what, When when, Map<String, Object> unknown)
        implements PadBuilder.With {
    public static final int PAGE = 16;
    public static final int PAGES = 8;

    /** What a pad can do. */
    public enum Does {
        CHORD("plays a chord", true, "a chord’s symbol, such as Dm7, or its notes"),
        PHRASE("plays a phrase while held", true, "a phrase"),
        ONCE("plays a phrase once", true, "a phrase"),
        FILL("plays another phrase for a bar", true, "a phrase"),
        STAGE("switches a stage", true, "a stage"),
        ACT("does a stage’s own action", true, "a stage"),
        CHAIN("hears the other chain, A or B", true, ""),
        CHAIN_OFF("switches the whole chain", true, ""),
        TILT("tilts the board while held", true, "a way: up, right, down or left"),
        DRY("hears the part dry while held", true, ""),
        MUTE("mutes", true, ""),
        SOLO("solo", true, ""),
        MOMENT("recalls a moment", false, "a moment"),
        VARIATION("goes to the next variation", false, ""),
        TAP("taps the tempo", false, ""),
        SILENCE("silence", false, "");

        private final String words;
        private final boolean part;
        private final String what;

        Does(String words, boolean part, String what) {
            this.words = words;
            this.part = part;
            this.what = what;
        }

        /** In plain words. */
        public String words() {
            return words;
        }

        /** Whether it is about a part. */
        public boolean hasPart() {
            return part;
        }

        /** What else it is about, in words; empty for nothing. */
        public String what() {
            return what;
        }

        /** Whether it is an edit of the piece, done as a whole. */
        public boolean edits() {
            return switch (this) {
                case STAGE, CHAIN, CHAIN_OFF, MUTE, SOLO, MOMENT, VARIATION -> true;
                default -> false;
            };
        }

        /** Whether it can be done at a beat or bar to come. */
        public boolean hasWhen() {
            return this != DRY && this != TAP && this != SILENCE;
        }

        /** Whether it lasts while the pad is held. */
        public boolean holds() {
            return this == CHORD || this == PHRASE || this == TILT || this == DRY;
        }
    }

    public Pad {
        if (at < 0 || at >= PAGE * PAGES) {
            throw new IllegalArgumentException("a pad’s place is 0–" + (PAGE * PAGES - 1) + " but was " + at);
        }
        unknown = unknown.isEmpty() ? Map.of() : Collections.unmodifiableMap(new LinkedHashMap<>(unknown));
    }

    public static Pad of(int at, Does does, String part, String what, When when) {
        return new Pad(at, "", does, part, what, when, Map.of());
    }

    /** Whether a chord is of the very notes that were learnt, and no symbol. */
    private boolean isLearnt() {
        return what.matches("\\d{1,3}( \\d{1,3}){0,15}");
    }

    /**
     * The pitches of a chord.
     *
     * @param near where that of a symbol lies
     * @throws IllegalArgumentException in words, when it is no chord
     */
    public List<Integer> pitches(int near) {
        if (!isLearnt()) {
            return Chord.parse(what).pitchesNear(near);
        }
        List<Integer> pitches =
                Arrays.stream(what.split(" ")).map(Integer::valueOf).toList();
        if (pitches.stream().anyMatch(pitch -> pitch > 127)) {
            throw new IllegalArgumentException("the notes of a chord are 0–127 but were " + what);
        }
        return pitches;
    }

    /** The piece with what it does done, where that is an edit; as it was where what it is about is not there. */
    public Piece pressed(Piece piece) {
        if (does.hasPart() && piece.part(part).isEmpty()) {
            return piece;
        }
        return switch (does) {
            case MUTE ->
                piece.withPart(
                        part, one -> one.withMix(one.mix().withMute(!one.mix().mute())));
            case SOLO ->
                piece.withPart(
                        part, one -> one.withMix(one.mix().withSolo(!one.mix().solo())));
            case CHAIN -> piece.withPart(part, Part::withOtherChain);
            case CHAIN_OFF ->
                piece.withPart(part, one -> one.withChainOff(!one.rack().off()));
            case VARIATION -> piece.withVariation((piece.variation() + 1) % 1_000_000);
            case MOMENT -> piece.moment(what).map(moment -> moment.on(piece)).orElse(piece);
            case STAGE -> {
                Optional<Lane<Boolean>> lane = stageSwitch(piece);
                yield lane.map(one -> one.withBase(piece, !one.base(piece))).orElse(piece);
            }
            default -> piece;
        };
    }

    /** Whether what it switches is on; of a mute, whether the part is heard. */
    public boolean isOn(Piece piece) {
        Part one = piece.part(part).orElse(null);
        return switch (does) {
            case MUTE -> one != null && !one.mix().mute();
            case SOLO -> one != null && one.mix().solo();
            case CHAIN -> one != null && one.rack().letter() == 'B';
            case CHAIN_OFF -> one != null && one.rack().off();
            case MOMENT ->
                piece.moment(what).filter(moment -> moment.isNow(piece)).isPresent();
            case STAGE -> stageSwitch(piece).filter(lane -> lane.base(piece)).isPresent();
            default -> false;
        };
    }

    /** What stands on it, in large letters. */
    public String title(Piece piece) {
        if (!name.isEmpty()) {
            return name;
        }
        String of = piece.part(part).map(Part::name).orElse("");
        return switch (does) {
            case CHORD -> isLearnt() ? Chord.told(pitches(0), Spelling.of(piece.key())) : what;
            case PHRASE, ONCE, FILL ->
                piece.phrase(what).map(phrase -> phrase.name()).orElse(what);
            case STAGE, ACT -> stage(piece);
            case MOMENT -> what;
            case VARIATION -> "next variation";
            case TAP -> "tap";
            case SILENCE -> "Silence";
            default -> of;
        };
    }

    private String stage(Piece piece) {
        return stageIn(piece).map(Stage::name).orElse(what);
    }

    /** The stage it is about, if it is there; a file may say anything. */
    private Optional<Stage> stageIn(Piece piece) {
        return StageAddress.isOne(what)
                ? piece.part(part).flatMap(one -> one.chain().at(StageAddress.parse(what)))
                : Optional.empty();
    }

    private Optional<Lane<Boolean>> stageSwitch(Piece piece) {
        return stageIn(piece)
                .map(stage -> Lane.ofSwitch(StageAddress.parse(what)))
                .filter(lane -> lane.isIn(piece));
    }

    /** What it is about and is not there any more, in words; empty where all is. */
    public String missing(Piece piece) {
        if (does.hasPart() && piece.part(part).isEmpty()) {
            return "the part “" + part + "”";
        }
        boolean gone = switch (does) {
            case PHRASE, ONCE, FILL -> piece.phrase(what).isEmpty();
            case STAGE, ACT -> stageIn(piece).isEmpty();
            case MOMENT -> piece.moment(what).isEmpty();
            default -> false;
        };
        return gone ? does.what().replaceFirst("^an? ", "the ") + " “" + what + "”" : "";
    }

    /** What stands below, in small ones. */
    public String about(Piece piece) {
        String of = piece.part(part).map(Part::name).orElse("");
        return switch (does) {
            case CHORD, PHRASE -> "into " + of;
            case TILT -> "tilt " + what;
            case ONCE -> "once, " + of;
            case FILL -> "one bar, " + of;
            case STAGE -> isOn(piece) ? "on" : "off";
            case ACT ->
                stageIn(piece)
                        .filter(Stage::isKnown)
                        .map(one -> one.kind().words().action().toLowerCase(Locale.ROOT))
                        .orElse("");
            case CHAIN ->
                "chain " + piece.part(part).map(one -> one.rack().letter()).orElse('A');
            case CHAIN_OFF -> isOn(piece) ? "chain off" : "chain on";
            case DRY -> "dry while held";
            case MUTE -> isOn(piece) ? "heard" : "mute";
            case SOLO -> isOn(piece) ? "solo" : "with others";
            case MOMENT -> "moment";
            case VARIATION -> String.valueOf(piece.variation());
            case TAP -> "tempo";
            case SILENCE -> "";
        };
    }
}
