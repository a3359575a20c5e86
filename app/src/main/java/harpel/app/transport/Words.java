package harpel.app.transport;

import harpel.app.document.Document;
import harpel.app.document.Selection;
import harpel.app.transport.Places.Place;
import harpel.chain.Stage;
import harpel.chain.StageAddress;
import harpel.event.NoteStart;
import harpel.piece.Hearing;
import harpel.piece.Part;
import harpel.piece.Piece;
import harpel.piece.Routes;
import harpel.run.Tap;
import harpel.theory.GeneralMidi;
import harpel.theory.OctaveNaming;
import harpel.theory.Pitch;
import harpel.theory.Spelling;
import harpel.time.Ticks;
import java.math.BigDecimal;
import java.math.RoundingMode;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;

/** Says things in plain words. */
public final class Words {
    /** What a part takes its notes from, besides its phrase. */
    public static String hears(Piece piece, Hearing hearing) {
        String other = piece.part(hearing.from()).map(Part::name).orElse(hearing.from());
        return switch (hearing.source()) {
            case KEYS -> "Keys";
            case NONE -> "No keys";
            case INPUT_OF -> "What " + other + " hears";
            case OUTPUT_OF -> "What " + other + " sends";
            case DEVICE -> hearing.toString();
        };
    }

    /** The same with its phrase: "Keys + phrase “Tide table”". */
    public static String takes(Piece piece, Part part) {
        String hears = hears(piece, part) + keysElsewhere(piece, part);
        return piece.phrase(part.phrase())
                .map(phrase -> phrase.ready()
                        ? hears + "; past the chain: “" + phrase.name() + "”, a ready phrase"
                        : hears + " + phrase “" + phrase.name() + "”")
                .orElse(hears);
    }

    /** What comes in from elsewhere: "Keys + what Lanes of Quay lamps sends here". */
    private static String hears(Piece piece, Part part) {
        List<String> from = new ArrayList<>(List.of(hears(piece, part.hearing())));
        if (part.hearing().keysHere()) {
            from.add("keys");
        }
        Routes.of(piece).senders(part.id()).forEach(sender -> from.add("what " + sender + " sends here"));
        return String.join(" + ", from);
    }

    /** Which other part keys play when a part is chosen: " (keys play Salt bells)"; empty where it has them itself. */
    public static String keysElsewhere(Piece piece, Part part) {
        return Routes.played(piece, part.id())
                .filter(played -> !played.id().equals(part.id()))
                .map(played -> " (keys play " + played.name() + ")")
                .orElse("");
    }

    /** Says what was done to make a note of another. */
    public interface Telling {
        String tell(NoteStart from, NoteStart made);
    }

    private static final int MANY_BARS = 1000;

    private Words() {}

    /**
     * What became of a note on its way: "E4 from C4: harmony up two degrees, echo 2 of 3, 60 → 36".
     *
     * @param told what was done to make the second note from the first, or empty
     */
    public static String ancestry(NoteStart note, Spelling spelling, Telling told) {
        List<String> deeds = new ArrayList<>();
        for (NoteStart made = note; made.cause() != null; made = made.cause()) {
            String deed = told.tell(made.cause(), made);
            if (!deed.isEmpty()) {
                deeds.add(0, deed);
            }
        }
        NoteStart origin = note.origin();
        String from = origin == note || name(origin, spelling).equals(name(note, spelling))
                ? ""
                : " from " + name(origin, spelling);
        deeds.add(
                origin.velocity() == note.velocity()
                        ? "velocity " + note.velocity()
                        : origin.velocity() + " → " + note.velocity());
        return name(note, spelling) + from + ": " + String.join(", ", deeds);
    }

    /** What a stage of the open piece did to a note, by the traces of where it first came by; empty where that is not known. */
    public static String told(
            Document document, Selection selection, Transport transport, NoteStart from, NoteStart made) {
        Piece piece = document.piece().get();
        List<Part> parts = new ArrayList<>(piece.parts());
        parts.sort(Comparator.comparing(
                part -> !part.id().equals(selection.partId().get())));
        for (Part part : parts) {
            for (Place place : Places.of(part)) {
                if (transport.traces().has(place, made)) {
                    return place.name().equals(Tap.INPUT)
                            ? "heard by " + part.name()
                            : place.name().equals(Tap.SOUND)
                                    ? ""
                                    : selection
                                            .stage(StageAddress.parse(place.name()))
                                            .filter(Stage::isKnown)
                                            .map(stage -> stage.kind()
                                                    .words()
                                                    .tell(from, made, stage.params(), piece.key(), piece.time()))
                                            .orElse("");
                }
            }
        }
        return "";
    }

    /** A number with at most one digit behind the point. */
    public static String number(double value) {
        return number(value, 1);
    }

    /** "1 bar", "2.5 bars": so many of what has this name. */
    public static String count(double value, String one) {
        String number = number(value);
        return number + " " + (number.equals("1") ? one : one + "s");
    }

    private static String number(double value, int digits) {
        return BigDecimal.valueOf(value)
                .setScale(digits, RoundingMode.HALF_UP)
                .stripTrailingZeros()
                .toPlainString();
    }

    /** When cycles come together again, in bars of the piece. */
    public static String period(double ticks, Document document) {
        long bar = document.piece().get().time().meter().at(0).barTicks();
        double bars = ticks / bar;
        if (Double.isNaN(bars)) {
            return "Milliseconds against the grid: they never come together.";
        }
        if (bars > MANY_BARS) {
            return "They come together after more than " + MANY_BARS + " bars.";
        }
        return "They come together every " + (ticks == bar ? "bar." : Ticks.bars(ticks, bar) + ".");
    }

    /** A pitch as it is shown, with the drum that it strikes on a percussion part: "F♯2 Closed Hi-Hat". */
    public static String withDrum(Selection selection, String shown) {
        if (selection.part().channel() != GeneralMidi.PERCUSSION_CHANNEL) {
            return shown;
        }
        try {
            return GeneralMidi.percussion(Pitch.parse(shown, OctaveNaming.shown()))
                    .map(drum -> shown + " " + drum)
                    .orElse(shown);
        } catch (IllegalArgumentException e) {
            // no pitch, such as "key"
            return shown;
        }
    }

    private static String name(NoteStart note, Spelling spelling) {
        return GeneralMidi.note(note.pitch(), note.channel(), spelling);
    }

    /** "0.3 ms". */
    public static String milliseconds(long nanos) {
        return String.format(java.util.Locale.ROOT, "%.1f ms", nanos / 1e6);
    }
}
