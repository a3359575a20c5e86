package harpel.cli;

import harpel.offline.Tail;
import harpel.piece.Piece;
import harpel.print.PrintOrder;
import harpel.print.VariationNumbers;
import java.nio.file.Path;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Spec;

/** What of a piece is meant, the same for every command that works on one. */
final class PieceOptions {
    private static final int MOST_BARS = 100_000;

    @Spec(Spec.Target.MIXEE)
    private CommandSpec spec;

    @Option(names = "--piece", paramLabel = "PIECE", description = "The piece (.harpel).")
    Path piece;

    @Option(
            names = "--parts",
            split = ",",
            paramLabel = "A,B",
            description = "The ids of the parts of the piece, in this order (default: all).")
    List<String> parts;

    @Option(names = "--from-bar", paramLabel = "N", description = "Where in the piece to begin (default 1).")
    Long fromBar;

    @Option(
            names = "--bars",
            paramLabel = "N",
            description =
                    "So many bars, whatever the length of the input or the phrases; of a piece without phrases 8 where"
                            + " none are asked for.")
    Integer bars;

    @Option(
            names = "--variation",
            paramLabel = "N",
            description = "The number that all chance depends on, 0–999999 (default: the piece's own; of a chain 1).")
    Long variation;

    @Option(
            names = "--timeline",
            paramLabel = "true|false",
            arity = "0..1",
            fallbackValue = "true",
            description =
                    "Print the piece as its timeline, all of it or the bars that are asked for; or, with false, as loops"
                            + " (default: as the piece plays).")
    Boolean timeline;

    @Option(
            names = "--stems",
            description = "Print parts that are mute, or not solo where others are, too; they are left out without it.")
    boolean stems;

    @Option(
            names = {"-q", "--quiet"},
            description = "Say nothing of what was written; only what went wrong or was lost.")
    boolean quiet;

    /** Says what is out of range. */
    void check() {
        inRange("--variation", variation, 0, VariationNumbers.MOST);
        inRange("--from-bar", fromBar, 1, MOST_BARS);
        inRange("--bars", bars, 1, MOST_BARS);
    }

    private void inRange(String option, Number value, long least, long most) {
        if (value != null && (value.longValue() < least || value.longValue() > most)) {
            throw new ParameterException(
                    spec.commandLine(), option + " must be " + least + "–" + most + " but was " + value);
        }
    }

    /** What is to be printed of the piece. */
    PrintOrder order(Piece read, Tail tail) throws CouldNot {
        Piece as = timeline == null ? read : read.withTimeline(timeline);
        if (as.timeline() && as.timelineEnd() == 0) {
            throw new CouldNot(piece + " has no blocks on its timeline; --timeline=false prints its loops");
        }
        Piece varied = variation == null ? as : as.withVariation(variation);
        Set<String> wanted = new LinkedHashSet<>(
                parts == null ? varied.parts().stream().map(part -> part.id()).toList() : parts);
        long first = fromBar == null ? 0 : fromBar - 1;
        long from = varied.time().meter().tickOfBar(first);
        long to = bars == null
                ? varied.timeline()
                        ? PrintOrder.onceThrough(varied, wanted)
                        : from + PrintOrder.onceThrough(varied, wanted)
                : varied.time().meter().tickOfBar(first + bars);
        try {
            return new PrintOrder(varied, wanted, from, to, tail);
        } catch (IllegalArgumentException e) {
            throw new CouldNot(e.getMessage());
        }
    }
}
