package harpel.app;

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
final class PartActions {
    private PartActions() {}

    static void add(Session session) {
        Piece piece = session.piece().get();
        int number = piece.parts().size() + 1;
        Part plain = Part.of("Part " + number, Chain.EMPTY);
        Part part = plain.withId(piece.freeId(plain.id()))
                .withChannel(piece.freeChannel("", 0))
                .withMix(plain.mix().withColour((number - 1) % Mix.COLOURS));
        session.apply(PieceEdit.of("Add part", before -> {
            List<Part> parts = new ArrayList<>(before.parts());
            parts.add(part);
            return before.withParts(parts);
        }));
        choose(session, part.id());
    }

    static void duplicate(Session session) {
        String id = session.partId().get();
        String copy = session.piece().get().freeId(id);
        session.apply(PieceEdit.of("Duplicate " + session.part().name(), piece -> piece.withDuplicate(id)));
        choose(session, copy);
        boolean drums = session.part().channel() == GeneralMidi.PERCUSSION_CHANNEL;
        session.say(
                drums
                        ? "The duplicate plays the next drum that is free."
                        : "The duplicate is on channel " + (session.part().channel() + 1) + ", the next that is free.");
    }

    private static void choose(Session session, String id) {
        if (session.piece().get().part(id).isPresent()) {
            session.selected().set(null);
            session.partId().set(id);
        }
    }

    static void delete(Session session) {
        Piece piece = session.piece().get();
        if (piece.parts().size() < 2) {
            session.say("A piece has at least one part.");
            return;
        }
        String id = session.partId().get();
        int place = piece.parts().indexOf(session.part());
        String name = session.part().name();
        session.selected().set(null);
        session.apply(PieceEdit.of(
                "Delete " + name,
                before -> before.withParts(before.parts().stream()
                        .filter(part -> !part.id().equals(id))
                        .toList())));
        List<Part> left = session.piece().get().parts();
        choose(session, left.get(Math.min(place, left.size() - 1)).id());
        session.say("Deleted “" + name + "”. Ctrl+Z brings it back.");
    }

    static void move(Session session, int by) {
        int place = session.piece().get().parts().indexOf(session.part());
        moveTo(session, session.partId().get(), place + by);
    }

    /** Moves a part to a place in the list, counted among the parts as they will be. */
    static void moveTo(Session session, String id, int place) {
        String name = session.piece().get().part(id).orElseThrow().name();
        session.apply(PieceEdit.of("Move part " + name, piece -> {
            List<Part> parts = new ArrayList<>(piece.parts());
            Part part = piece.part(id).orElseThrow();
            parts.remove(part);
            parts.add(Math.max(0, Math.min(parts.size(), place)), part);
            return piece.withParts(parts);
        }));
    }

    /** A part that hears what this one hears, with a chain of its own. */
    static void addSection(Session session) {
        Part part = session.part();
        String copy = session.piece().get().freeId(part.id());
        session.apply(PieceEdit.of("Add to the section of " + part.name(), piece -> {
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
        String id = session.partId().get();
        session.apply(PieceEdit.of(
                "Change colour",
                piece -> piece.withPart(
                        id,
                        part -> part.withMix(part.mix().withColour((part.mix().colour() + 1) % Mix.COLOURS)))));
    }
}
