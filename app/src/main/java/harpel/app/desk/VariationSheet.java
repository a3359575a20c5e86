package harpel.app.desk;

import harpel.app.document.Document;
import harpel.app.document.Selection;
import harpel.app.look.Look;
import harpel.app.look.Look.View;
import harpel.app.look.Messages;
import harpel.app.transport.Audition;
import harpel.offline.Tail;
import harpel.phrase.Note;
import harpel.phrase.Phrase;
import harpel.piece.Part;
import harpel.piece.Piece;
import harpel.print.PrintOrder;
import harpel.print.Provenance;
import harpel.vary.Likeness;
import harpel.vary.Likeness.Spot;
import harpel.vary.Variant;
import harpel.vary.Way;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.concurrent.Future;
import java.util.function.Consumer;
import javafx.application.Platform;
import javafx.beans.property.BooleanProperty;
import javafx.beans.property.IntegerProperty;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.SimpleBooleanProperty;
import javafx.beans.property.SimpleIntegerProperty;
import javafx.beans.property.SimpleObjectProperty;
import javafx.collections.FXCollections;
import javafx.collections.ObservableList;
import org.slf4j.LoggerFactory;

/**
 * Results of one part's phrase and chain to hear and choose from, printed side by side in the background. Interface thread, but for the
 * printing.
 */
public final class VariationSheet {
    /** So many cards are added at once. */
    public static final int ROW = 12;

    /** So many there are at most. */
    public static final int MOST = 48;

    /** Of so many times as many the most unlike are shown. */
    private static final int TIMES = 8;

    /** One result. */
    public static final class Card {
        private final Variant variant;
        private Phrase phrase;
        private Set<Spot> spots = Set.of();
        private String failed = "";

        Card(Variant variant) {
            this.variant = variant;
        }

        public Variant variant() {
            return variant;
        }

        /** What came of it; null while it is being printed. */
        public Phrase phrase() {
            return phrase;
        }

        /** Why it could not be printed; empty where it could. */
        public String failed() {
            return failed;
        }
    }

    private final Document document;
    private final Selection selection;
    private final Look look;
    private final Audition audition;
    private final Printing printing;
    private final Messages messages;
    private final VariationChoice choice;
    private final ObjectProperty<Way> way = new SimpleObjectProperty<>(Way.CHANCE);
    private final BooleanProperty apart = new SimpleBooleanProperty();
    private final BooleanProperty withOthers = new SimpleBooleanProperty(true);
    private final ObservableList<Card> cards = FXCollections.observableArrayList();
    private final ObjectProperty<Card> sounding = new SimpleObjectProperty<>();
    private final IntegerProperty chosen = new SimpleIntegerProperty();
    /** Counts what is to be shown anew. */
    private final IntegerProperty changes = new SimpleIntegerProperty();

    private final List<Future<?>> prints = new ArrayList<>();
    private String part = "";
    private Piece base;
    private View cameFrom = View.CHAIN;
    /** Prints for an earlier state of the sheet are of no more use. */
    private int turn;

    public VariationSheet(
            Document document,
            Selection selection,
            Look look,
            Audition audition,
            TimelineDesk timeline,
            Printing printing,
            Messages messages) {
        this.document = document;
        this.selection = selection;
        this.look = look;
        this.audition = audition;
        this.printing = printing;
        this.messages = messages;
        choice = new VariationChoice(document, timeline, messages, this);
        way.addListener((property, before, now) -> begin(ROW));
        apart.addListener((property, before, now) -> begin(Math.max(ROW, cards.size())));
        withOthers.addListener((property, before, now) -> {
            if (sounding.get() != null) {
                hear(sounding.get());
            }
        });
        look.view().addListener((property, before, now) -> {
            if (before == View.VARIATIONS) {
                leave();
            }
        });
        document.piece().addListener((property, before, now) -> {
            if (isOpen() && !comparable(now).equals(comparable(before))) {
                refresh();
            } else if (isOpen()) {
                changed();
            }
        });
    }

    /** All of a piece that changes what is printed. */
    private Piece comparable(Piece piece) {
        return piece.withPart(part, one -> one.withStars(List.of()).withVariations(List.of()))
                .withPhrases(piece.phrases().stream()
                        .filter(phrase -> piece.parts().stream()
                                .anyMatch(one -> one.phrase().equals(phrase.id())))
                        .toList());
    }

    /** What is done with the cards. */
    public VariationChoice choice() {
        return choice;
    }

    public boolean isOpen() {
        return look.view().get() == View.VARIATIONS;
    }

    /** What the cards differ in. */
    public ObjectProperty<Way> way() {
        return way;
    }

    /** Whether those are shown that are most unlike one another. */
    public BooleanProperty apart() {
        return apart;
    }

    /** Whether one is heard with the other parts, or alone. */
    public BooleanProperty withOthers() {
        return withOthers;
    }

    public ObservableList<Card> cards() {
        return cards;
    }

    /** The card that is heard; null for none. */
    public ObjectProperty<Card> sounding() {
        return sounding;
    }

    /** The place of the card that the keys are at. */
    public IntegerProperty chosen() {
        return chosen;
    }

    /** Changes when any card or star has changed. */
    public IntegerProperty changes() {
        return changes;
    }

    /** The part that is varied. */
    public Part part() {
        return base.part(part).orElseThrow();
    }

    /** Whether its phrase was made, so that others can be. */
    public boolean canMake() {
        return Variant.recipe(base, part).isPresent();
    }

    public Piece base() {
        return base;
    }

    /** Shows variations of the chosen part, or no longer. */
    public void toggleSheet() {
        if (isOpen()) {
            close();
        } else {
            open();
        }
    }

    private void open() {
        cameFrom = look.view().get();
        part = selection.partId().get();
        look.view().set(View.VARIATIONS);
        refresh();
    }

    /** Back to where one came from. */
    public void close() {
        look.view().set(cameFrom);
    }

    /** Back, where the sheet is open at all. */
    public void leaveSheet() {
        if (isOpen()) {
            close();
        }
    }

    private void leave() {
        giveUp();
        if (sounding.get() != null) {
            stop();
        }
        cards.clear();
    }

    private void giveUp() {
        turn++;
        prints.forEach(print -> print.cancel(true));
        prints.clear();
    }

    private void refresh() {
        begin(Math.max(ROW, cards.size()));
    }

    private void begin(int count) {
        giveUp();
        if (!isOpen()) {
            return;
        }
        Piece now = document.piece().get();
        if (now.part(part).isEmpty()) {
            close();
            return;
        }
        // The cards are of one number each, also where the part takes several in turn.
        base = Provenance.back(now, part).withPart(part, one -> one.withVariations(List.of()));
        if (way.get() == Way.MADE && !canMake()) {
            // Setting it begins anew.
            way.set(Way.CHANCE);
            return;
        }
        cards.clear();
        chosen.set(0);
        if (apart.get()) {
            drawApart(count);
        } else {
            add(0, count);
        }
        changed();
    }

    /** Twelve more. */
    public void more() {
        int count = Math.min(MOST - cards.size(), ROW);
        if (apart.get()) {
            begin(cards.size() + count);
        } else {
            add(cards.size(), count);
            changed();
        }
    }

    private long first() {
        return way.get() == Way.CHANCE ? base.variation() : 0;
    }

    private Variant variant(int place) {
        return Variant.of(base, part, way.get(), first() + place);
    }

    private void add(int from, int count) {
        for (int i = from; i < from + count; i++) {
            Card card = new Card(variant(i));
            cards.add(card);
            print(card, done -> changed());
        }
    }

    /** Prints eight times as many and shows those that are most unlike one another, the present one first. */
    private void drawApart(int count) {
        List<Card> all = new ArrayList<>();
        int[] left = {count * TIMES};
        for (int i = 0; i < count * TIMES; i++) {
            all.add(new Card(variant(i)));
        }
        messages.say("Printing " + all.size() + " to find the " + count + " most unlike …");
        for (Card card : all) {
            print(card, done -> {
                if (--left[0] == 0) {
                    List<Set<Spot>> spots = all.stream().map(one -> one.spots).toList();
                    Likeness.farthestFirst(spots, count).forEach(place -> cards.add(all.get(place)));
                    messages.say("The " + count + " most unlike of " + all.size() + ", the present one first.");
                    changed();
                }
            });
        }
    }

    private void print(Card card, Consumer<Card> done) {
        int now = turn;
        String of = part;
        Piece into = base;
        prints.add(printing.pool().submit(() -> {
            Phrase phrase = null;
            String failed = "";
            try {
                phrase = PrintOrder.of(card.variant.piece(), of, Tail.ROUND)
                        .print(share -> {})
                        .phrase(of, into);
            } catch (InterruptedException e) {
                return null;
            } catch (RuntimeException | Error e) {
                LoggerFactory.getLogger(VariationSheet.class)
                        .error("variation {} could not be printed", card.variant.number(), e);
                failed = String.valueOf(e);
            }
            Phrase made = phrase;
            Set<Spot> spots = made == null ? Set.of() : Likeness.spots(made.notes());
            String why = failed;
            Platform.runLater(() -> {
                if (turn == now) {
                    card.phrase = made;
                    card.spots = spots;
                    card.failed = why;
                    done.accept(card);
                }
            });
            return null;
        }));
    }

    void changed() {
        changes.set(changes.get() + 1);
    }

    // What is said of a card

    /** Whether it is what is heard now without any of them. */
    public boolean isPresent(Card card) {
        return card.variant.number() == first();
    }

    /** Whether using it would change nothing. */
    public boolean isUsed(Card card) {
        return isPresent(card) && base.equals(document.piece().get());
    }

    private Set<Spot> present() {
        return cards.isEmpty() ? Set.of() : cards.get(0).spots;
    }

    /** Whether a note of a card is not there in the present one. */
    public boolean differs(Note note) {
        return !Likeness.has(present(), note);
    }

    /** How many notes of a card are not there in the present one. */
    public int differing(Card card) {
        return Likeness.differing(card.phrase.notes(), present());
    }

    /** Why all cards that are there give the same notes, in a sentence; empty while some are printed, or where some differ. */
    public String whyAlike() {
        boolean alike =
                cards.size() > 1 && cards.stream().allMatch(card -> card.phrase != null && differing(card) == 0);
        if (!alike) {
            return "";
        }
        if (cards.get(0).phrase.notes().isEmpty()) {
            return part().name() + " makes no notes: it has no phrase and plays nothing by itself.";
        }
        return switch (way.get()) {
            case CHANCE -> "Every number gives the same notes: nothing that changes them is left to chance here.";
            case LITTLE, LOT -> "None of these settings changes a note.";
            case MADE -> "What makes the phrase gives the same notes each time.";
        };
    }

    // What can be done with one

    /** Hears a card from the next bar on; the one that is heard already no longer. */
    public void toggle(Card card) {
        if (sounding.get() == card) {
            stop();
        } else {
            hear(card);
        }
    }

    public void hear(Card card) {
        if (card.phrase == null) {
            return;
        }
        sounding.set(card);
        String of = part;
        boolean alone = !withOthers.get();
        audition.hear(piece -> {
            if (piece.part(of).isEmpty()) {
                return piece;
            }
            Piece with = Audition.inPlace(Provenance.put(Provenance.back(piece, of), of, card.phrase), of);
            return alone
                    ? with.withParts(with.parts().stream()
                            .map(one -> one.withMix(one.mix().withSolo(one.id().equals(of))))
                            .toList())
                    : with;
        });
        changed();
    }

    public void stop() {
        sounding.set(null);
        audition.end();
        changed();
    }

    /** Goes by so many cards and, while one is heard, hears the one that is come to. */
    public void walk(int by) {
        if (cards.isEmpty()) {
            return;
        }
        chosen.set(Math.max(0, Math.min(cards.size() - 1, chosen.get() + by)));
        hear(cards.get(chosen.get()));
    }

    /** The card that the keys are at; null where there is none. */
    public Card atKeys() {
        return chosen.get() < cards.size() ? cards.get(chosen.get()) : null;
    }
}
