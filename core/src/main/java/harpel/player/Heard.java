package harpel.player;

import harpel.piece.Piece;
import java.util.ArrayList;
import java.util.List;
import java.util.function.UnaryOperator;

/**
 * What is heard: a piece, what is laid over it for a while, and what is to come. Immutable.
 *
 * @param audition what is heard in place without being in the piece
 * @param overs what is held by pads and the like, in the order in which it was begun
 * @param coming in the order of its ticks
 */
record Heard(Piece piece, UnaryOperator<Piece> audition, List<Over> overs, List<Coming> coming) {
    Heard {
        overs = List.copyOf(overs);
        coming = List.copyOf(coming);
    }

    static Heard of(Piece piece) {
        return new Heard(piece, UnaryOperator.identity(), List.of(), List.of());
    }

    Heard withAudition(UnaryOperator<Piece> newAudition) {
        return new Heard(piece, newAudition, overs, coming);
    }

    /** The piece as it is heard now. */
    Piece now() {
        return laidOver(piece, overs);
    }

    private Piece laidOver(Piece under, List<Over> overs) {
        Piece heard = audition.apply(under);
        for (Over one : overs) {
            heard = one.change().apply(heard);
        }
        return heard;
    }

    /** The piece as it will be heard from each tick that is to come. */
    List<Piece> later() {
        List<Piece> later = new ArrayList<>();
        List<Over> over = new ArrayList<>(overs);
        Piece then = piece;
        for (Coming one : coming) {
            then = one.edit().apply(then);
            if (one.begins() != null) {
                over.add(one.begins());
            }
            over.remove(one.ends());
            later.add(laidOver(then, over));
        }
        return later;
    }
}
