package harpel.advice;

import harpel.piece.Part;
import harpel.piece.Piece;
import java.util.List;
import java.util.stream.Stream;

/** One kind of surprise, found in a piece as it is written. */
interface Rule {
    /**
     * What it finds in one part.
     *
     * @param outputs the names of the outputs there are
     */
    Stream<Advice> look(Piece piece, Part part, List<String> outputs);
}
