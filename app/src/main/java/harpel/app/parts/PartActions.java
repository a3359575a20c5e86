package harpel.app.parts;

import harpel.app.document.Document;
import harpel.app.document.Selection;
import harpel.app.look.Messages;
import harpel.chain.Chain;
import harpel.piece.Hearing;
import harpel.piece.Mix;
import harpel.piece.Part;
import harpel.piece.Piece;
import harpel.piece.PieceEdit;
import harpel.piece.Rack;
import harpel.theory.GeneralMidi;
import java.util.ArrayList;
import java.util.List;

/** What can be done with parts. */
public final class PartActions {
    private PartActions() {}

    public static void add(Document document, Selection selection) {
        Piece piece = document.piece().get();
        int number = piece.parts().size() + 1;
        Part plain = Part.of("Part " + number, Chain.EMPTY);
        Part part = plain.withId(piece.freeId(plain.id()))
                .withChannel(piece.freeChannel("", 0))
                .withMix(plain.mix().withColour((number - 1) % Mix.COLOURS));
        document.apply(PieceEdit.of("Add part", before -> {
            List<Part> parts = new ArrayList<>(before.parts());
            parts.add(part);
            return before.withParts(parts);
        }));
        choose(document, selection, part.id());
    }

    public static void duplicate(Document document, Selection selection, Messages messages) {
        String id = selection.partId().get();
        String copy = document.piece().get().freeId(id);
        document.apply(PieceEdit.of("Duplicate " + selection.part().name(), piece -> piece.withDuplicate(id)));
        choose(document, selection, copy);
        boolean drums = selection.part().channel() == GeneralMidi.PERCUSSION_CHANNEL;
        String shares = document.piece()
                .get()
                .phrase(selection.part().phrase())
                .map(phrase -> " It shares the phrase “" + phrase.name() + "”: what is drawn there is heard by both.")
                .orElse("");
        messages.say("“" + selection.part().name() + "” "
                + (drums
                        ? "plays the next drum that is free."
                        : "is on channel " + (selection.part().channel() + 1) + ", the next that is free.")
                + shares);
    }

    private static void choose(Document document, Selection selection, String id) {
        if (document.piece().get().part(id).isPresent()) {
            selection.partId().set(id);
        }
    }

    public static void delete(Document document, Selection selection, Messages messages) {
        Piece piece = document.piece().get();
        if (piece.parts().size() < 2) {
            messages.say("A piece has at least one part.");
            return;
        }
        String id = selection.partId().get();
        int place = piece.parts().indexOf(selection.part());
        String name = selection.part().name();
        selection.selected().set(null);
        document.apply(PieceEdit.of(
                "Delete " + name,
                before -> before.withParts(before.parts().stream()
                        .filter(part -> !part.id().equals(id))
                        .toList())));
        List<Part> left = document.piece().get().parts();
        choose(document, selection, left.get(Math.min(place, left.size() - 1)).id());
        messages.say("Deleted “" + name + "”. Ctrl+Z brings it back.");
    }

    public static void move(Document document, Selection selection, int by) {
        int place = document.piece().get().parts().indexOf(selection.part());
        moveTo(document, selection.partId().get(), place + by);
    }

    /** Moves a part to a place in the list, counted among the parts as they will be. */
    public static void moveTo(Document document, String id, int place) {
        String name = document.piece().get().part(id).orElseThrow().name();
        document.apply(PieceEdit.of("Move part " + name, piece -> {
            List<Part> parts = new ArrayList<>(piece.parts());
            Part part = piece.part(id).orElseThrow();
            parts.remove(part);
            parts.add(Math.max(0, Math.min(parts.size(), place)), part);
            return piece.withParts(parts);
        }));
    }

    /** A part that hears what this one hears, with a chain of its own. */
    static void addSection(Document document, Selection selection) {
        Part part = selection.part();
        String copy = document.piece().get().freeId(part.id());
        document.apply(PieceEdit.of("Add to the section of " + part.name(), piece -> {
            Piece with = piece.withDuplicate(part.id());
            return with.withPart(
                    copy,
                    one -> one.withRack(Rack.of(Chain.EMPTY))
                            .withPhrase("")
                            .withHearing(new Hearing(Hearing.Source.INPUT_OF, part.id(), 0)));
        }));
        choose(document, selection, copy);
    }

    static void colour(Document document, Selection selection) {
        String id = selection.partId().get();
        document.apply(PieceEdit.of(
                "Change colour",
                piece -> piece.withPart(
                        id,
                        part -> part.withMix(part.mix().withColour((part.mix().colour() + 1) % Mix.COLOURS)))));
    }
}
