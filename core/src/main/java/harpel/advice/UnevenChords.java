package harpel.advice;

import harpel.chain.Stage;
import harpel.effect.held.Arpeggio;
import harpel.phrase.Note;
import harpel.phrase.Phrase;
import harpel.piece.Part;
import harpel.piece.Piece;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Stream;

/** Chords of unequal size shift the rhythm of an order that plays them as they are written. */
final class UnevenChords implements Rule {
    private static final int MOST_SLOTS = 16;

    @Override
    public Stream<Advice> look(Piece piece, Part part, List<String> outputs) {
        Stage first =
                part.chain().stages().stream().filter(Stage::on).findFirst().orElse(null);
        if (first == null
                || !first.params().spec().has(Arpeggio.KEEP_EVEN)
                || first.params().get(Arpeggio.KEEP_EVEN) > 0) {
            return Stream.empty();
        }
        Set<Integer> sizes = piece.phrase(part.phrase())
                .filter(phrase -> !phrase.ready())
                .map(UnevenChords::sizes)
                .orElse(Set.of());
        if (sizes.size() < 2) {
            return Stream.empty();
        }
        int most = sizes.stream().max(Integer::compare).orElseThrow();
        String list = String.join(" and ", sizes.stream().map(String::valueOf).toList());
        return Stream.of(Advice.of(
                part,
                first,
                "Chords of " + list + " notes shift the pattern.",
                "Keep even with " + most + " slots",
                one -> one.with(Arpeggio.KEEP_EVEN, Math.min(MOST_SLOTS, most))));
    }

    private static Set<Integer> sizes(Phrase phrase) {
        Set<Integer> sizes = new TreeSet<>();
        long tick = -1;
        int size = 0;
        // They lie in order, and there may be very many.
        for (Note note : phrase.notes()) {
            if (note.traits().off()) {
                continue;
            }
            if (note.tick() != tick) {
                sizes.add(size);
                tick = note.tick();
                size = 0;
            }
            size++;
        }
        sizes.add(size);
        sizes.removeAll(Set.of(0, 1));
        return sizes;
    }
}
