package harpel.app.phrase;

import harpel.app.desk.PhraseDesk;
import harpel.phrase.Origin;
import harpel.phrase.Phrase;
import harpel.piece.Part;
import harpel.piece.Piece;
import harpel.time.Ticks;
import java.util.List;

/** What is said of phrases. */
final class PhraseWords {
    private PhraseWords() {}

    static String length(Piece piece, Phrase phrase) {
        return Ticks.bars(phrase.length(), piece.time().meter().at(0).barTicks());
    }

    static String heard(Piece piece, Phrase phrase) {
        List<String> parts =
                PhraseDesk.hearers(piece, phrase.id()).stream().map(Part::name).toList();
        long blocks = piece.parts().stream()
                .flatMap(part -> part.blocks().stream())
                .filter(block -> block.phrase().equals(phrase.id()))
                .count();
        if (parts.isEmpty() && blocks > 0) {
            return "in " + (blocks == 1 ? "1 block" : blocks + " blocks") + " of the timeline";
        }
        return parts.isEmpty()
                ? "heard by no part"
                : "heard by " + String.join(", ", parts)
                        + (phrase.ready() ? ", past its chain" : ", through its chain");
    }

    /** Where it comes from; empty for one that was drawn. */
    static String origin(Piece piece, Origin origin) {
        String part = piece.part(origin.from()).map(Part::name).orElse(origin.from());
        String details = origin.details().isEmpty() ? "" : ", " + origin.details();
        return switch (origin.kind()) {
            case DRAWN -> "";
            case READ -> "read from " + origin.from() + details;
            case KEPT -> "kept from " + part + details;
            case RECORDED -> "recorded by " + part + details;
            case MADE -> "made: " + origin.details();
            case PRINTED -> "printed through " + part + details;
        };
    }
}
