package harpel.app.parts;

import harpel.app.session.Session;
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

    public static void add(Session session) {
        Piece piece = session.document().piece().get();
        int number = piece.parts().size() + 1;
        Part plain = Part.of("Part " + number, Chain.EMPTY);
        Part part = plain.withId(piece.freeId(plain.id()))
                .withChannel(piece.freeChannel("", 0))
                .withMix(plain.mix().withColour((number - 1) % Mix.COLOURS));
        session.document().apply(PieceEdit.of("Add part", before -> {
            List<Part> parts = new ArrayList<>(before.parts());
            parts.add(part);
            return before.withParts(parts);
        }));
        choose(session, part.id());
    }

    public static void duplicate(Session session) {
        String id = session.selection().partId().get();
        String copy = session.document().piece().get().freeId(id);
        session.document()
                .apply(PieceEdit.of(
                        "Duplicate " + session.selection().part().name(), piece -> piece.withDuplicate(id)));
        choose(session, copy);
        boolean drums = session.selection().part().channel() == GeneralMidi.PERCUSSION_CHANNEL;
        session.say(
                drums
                        ? "The duplicate plays the next drum that is free."
                        : "The duplicate is on channel "
                                + (session.selection().part().channel() + 1) + ", the next that is free.");
    }

    private static void choose(Session session, String id) {
        if (session.document().piece().get().part(id).isPresent()) {
            session.selection().partId().set(id);
        }
    }

    public static void delete(Session session) {
        Piece piece = session.document().piece().get();
        if (piece.parts().size() < 2) {
            session.say("A piece has at least one part.");
            return;
        }
        String id = session.selection().partId().get();
        int place = piece.parts().indexOf(session.selection().part());
        String name = session.selection().part().name();
        session.selection().selected().set(null);
        session.document()
                .apply(PieceEdit.of(
                        "Delete " + name,
                        before -> before.withParts(before.parts().stream()
                                .filter(part -> !part.id().equals(id))
                                .toList())));
        List<Part> left = session.document().piece().get().parts();
        choose(session, left.get(Math.min(place, left.size() - 1)).id());
        session.say("Deleted “" + name + "”. Ctrl+Z brings it back.");
    }

    public static void move(Session session, int by) {
        int place = session.document()
                .piece()
                .get()
                .parts()
                .indexOf(session.selection().part());
        moveTo(session, session.selection().partId().get(), place + by);
    }

    /** Moves a part to a place in the list, counted among the parts as they will be. */
    public static void moveTo(Session session, String id, int place) {
        String name = session.document().piece().get().part(id).orElseThrow().name();
        session.document().apply(PieceEdit.of("Move part " + name, piece -> {
            List<Part> parts = new ArrayList<>(piece.parts());
            Part part = piece.part(id).orElseThrow();
            parts.remove(part);
            parts.add(Math.max(0, Math.min(parts.size(), place)), part);
            return piece.withParts(parts);
        }));
    }

    /** A part that hears what this one hears, with a chain of its own. */
    static void addSection(Session session) {
        Part part = session.selection().part();
        String copy = session.document().piece().get().freeId(part.id());
        session.document().apply(PieceEdit.of("Add to the section of " + part.name(), piece -> {
            Piece with = piece.withDuplicate(part.id());
            return with.withPart(
                    copy,
                    one -> one.withRack(Rack.of(Chain.EMPTY))
                            .withPhrase("")
                            .withHearing(new Hearing(Hearing.Source.INPUT_OF, part.id(), 0)));
        }));
        choose(session, copy);
    }

    static void colour(Session session) {
        String id = session.selection().partId().get();
        session.document()
                .apply(PieceEdit.of(
                        "Change colour",
                        piece -> piece.withPart(
                                id,
                                part -> part.withMix(
                                        part.mix().withColour((part.mix().colour() + 1) % Mix.COLOURS)))));
    }
}
