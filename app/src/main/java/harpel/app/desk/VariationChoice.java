package harpel.app.desk;

import harpel.app.desk.VariationSheet.Card;
import harpel.app.document.Document;
import harpel.app.look.Messages;
import harpel.phrase.Phrase;
import harpel.piece.Block;
import harpel.piece.Part;
import harpel.piece.Piece;
import harpel.piece.PieceEdit;
import harpel.piece.Timeline;
import harpel.print.Provenance;
import harpel.vary.Way;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;

/** What is done with cards of the sheet of variations: using, keeping, starring, spreading them over rounds. Interface thread. */
public final class VariationChoice {
    private final Document document;
    private final TimelineDesk timeline;
    private final Messages messages;
    private final VariationSheet sheet;

    VariationChoice(Document document, TimelineDesk timeline, Messages messages, VariationSheet sheet) {
        this.document = document;
        this.timeline = timeline;
        this.messages = messages;
        this.sheet = sheet;
    }

    private String part() {
        return sheet.part().id();
    }

    /** The part is as on the card from now on. */
    public void use(Card card) {
        if (sheet.isUsed(card)) {
            messages.say("This is how it is now.");
            return;
        }
        String of = part();
        String name = name(card);
        if (sheet.sounding().get() != null) {
            sheet.stop();
        }
        document.apply(PieceEdit.of("Use " + name, piece -> {
            Piece back = Provenance.back(piece, of);
            Piece varied = card.variant().piece();
            Part as = varied.part(of).orElseThrow();
            return switch (card.variant().way()) {
                case CHANCE ->
                    back.withVariation(card.variant().number()).withPart(of, one -> one.withVariations(List.of()));
                case MADE -> back.withPhrase(varied.phrase(as.phrase()).orElseThrow());
                case LITTLE, LOT -> back.withPart(of, one -> one.withChain(as.chain()));
            };
        }));
        messages.say(sheet.part().name() + " plays " + name + "."
                + (card.variant().way() == Way.CHANCE ? " The variation is the whole piece’s." : ""));
    }

    private static String name(Card card) {
        String word = switch (card.variant().way()) {
            case CHANCE -> "variation ";
            case MADE -> "making ";
            case LITTLE, LOT -> "settings ";
        };
        return word + card.variant().number();
    }

    /** Puts what came of a card into the list of phrases. */
    public void keep(Card card) {
        keep(List.of(card));
    }

    public void keepStarred() {
        List<Card> starred = sheet.cards().stream().filter(this::isStarred).toList();
        if (starred.isEmpty()) {
            messages.say("Nothing is starred. S stars the card that is chosen.");
        } else {
            keep(starred);
        }
    }

    private void keep(List<Card> wanted) {
        List<Card> kept = wanted.stream().filter(card -> card.phrase() != null).toList();
        List<String> names = new ArrayList<>();
        document.apply(PieceEdit.of("Keep variations", piece -> {
            Piece with = piece;
            names.clear();
            for (Card card : kept) {
                Phrase named = named(card, with);
                names.add(named.name());
                with = with.withPhrase(named);
            }
            return with;
        }));
        messages.say(
                names.size() == 1
                        ? "Kept “" + names.get(0) + "” in the list of phrases."
                        : "Kept " + names.size() + " phrases in the list.");
    }

    /** The starred ones go onto the timeline one behind another from where now is, as ready phrases: what the cards show. */
    public void toTimeline() {
        List<Card> starred = sheet.cards().stream()
                .filter(card -> isStarred(card) && card.phrase() != null)
                .toList();
        if (starred.isEmpty()) {
            messages.say("Nothing is starred. S stars the card that is chosen.");
            return;
        }
        long begin = timeline.snapped(timeline.now());
        boolean played = document.piece().get().timeline();
        document.apply(PieceEdit.of("Starred onto the timeline", piece -> {
            Piece with = piece;
            long at = begin;
            for (Card card : starred) {
                Phrase kept = named(card, with);
                Block block = Block.of(at, kept.length(), kept.id()).withChain(false);
                with = with.withPhrase(kept);
                with = Timeline.put(with, part(), block);
                at = block.end();
            }
            return with.withTimeline(true);
        }));
        messages.say((starred.size() == 1 ? "One block" : starred.size() + " blocks") + " on the timeline from "
                + timeline.place(begin) + " on"
                + (played ? "." : "; the piece plays as its timeline now."));
    }

    private Phrase named(Card card, Piece piece) {
        String name = name(card);
        String called = name.substring(0, 1).toUpperCase(Locale.ROOT) + name.substring(1) + ", "
                + sheet.part().name();
        return card.phrase().withId(piece.freePhraseId(Phrase.idFor(called))).withName(called);
    }

    /** The numbers of the starred ones that only chance sets apart. */
    public List<Long> starredNumbers() {
        return sheet.cards().stream()
                .filter(card -> card.variant().way() == Way.CHANCE && isStarred(card))
                .map(card -> card.variant().number())
                .toList();
    }

    /** Whether the part takes several variations in turn. */
    public boolean isSpread() {
        return !document.piece()
                .get()
                .part(part())
                .map(one -> one.playing().variations())
                .orElse(List.of())
                .isEmpty();
    }

    /** The part takes the starred variations in turn, one a round of its phrase; or that of the piece again. */
    public void spread() {
        List<Long> numbers = isSpread() ? List.of() : starredNumbers();
        document.apply(PieceEdit.of(
                numbers.isEmpty() ? "One variation for all rounds" : "Spread over rounds",
                piece -> piece.withPart(part(), one -> one.withVariations(numbers))));
        messages.say(
                numbers.isEmpty()
                        ? sheet.part().name() + " takes the piece’s variation in every round."
                        : sheet.part().name() + " takes variations "
                                + numbers.toString().replaceAll("[\\[\\]]", "") + " in turn, one a round.");
    }

    private static String starOf(Card card) {
        return card.variant().way().name().toLowerCase(Locale.ROOT) + " "
                + card.variant().number();
    }

    public boolean isStarred(Card card) {
        return document.piece()
                .get()
                .part(part())
                .filter(one -> one.stars().contains(starOf(card)))
                .isPresent();
    }

    public long starred() {
        return sheet.cards().stream().filter(this::isStarred).count();
    }

    /** Stars a card, or no longer; stars stay with the piece. */
    public void star(Card card) {
        String star = starOf(card);
        document.apply(PieceEdit.of(
                "Star",
                piece -> piece.withPart(part(), one -> {
                    List<String> stars = new ArrayList<>(one.stars());
                    if (!stars.remove(star)) {
                        stars.add(star);
                    }
                    return one.withStars(stars);
                })));
        sheet.changed();
    }
}
