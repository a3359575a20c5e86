package harpel.app.desk;

import harpel.app.document.Document;
import harpel.app.document.Selection;
import harpel.app.look.Messages;
import harpel.app.transport.Places;
import harpel.app.transport.Transport;
import harpel.capture.Heard;
import harpel.chain.Stage;
import harpel.chain.StageAddress;
import harpel.engine.LiveStatus;
import harpel.offline.OneRound;
import harpel.phrase.Notes;
import harpel.phrase.Origin;
import harpel.phrase.Phrase;
import harpel.piece.Part;
import harpel.piece.Piece;
import harpel.piece.PieceEdit;
import harpel.run.Tap;
import harpel.time.Ticks;
import java.util.ArrayList;
import java.util.List;
import javafx.application.Platform;
import javafx.beans.property.BooleanProperty;
import javafx.beans.property.IntegerProperty;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.SimpleBooleanProperty;
import javafx.beans.property.SimpleIntegerProperty;
import javafx.beans.property.SimpleObjectProperty;
import javafx.beans.property.SimpleStringProperty;
import javafx.beans.property.StringProperty;

/** Keeping what was heard as phrases: from where, how much, and what becomes of it. Interface thread. */
public final class Keeping {
    /** How many bars can be kept by one key. */
    public static final List<Integer> LENGTHS = List.of(1, 2, 4, 8, 16);

    /** A stretch of the axis of {@link Heard}, from bar line to bar line. */
    public record Span(long from, long to) {}

    private final Document document;
    private final Selection selection;
    private final Transport transport;
    private final PhraseDesk desk;
    private final Messages messages;
    private final ObjectProperty<Span> span = new SimpleObjectProperty<>();
    private final StringProperty place = new SimpleStringProperty(Tap.SOUND);
    private final IntegerProperty bars = new SimpleIntegerProperty(4);
    private final BooleanProperty hang = new SimpleBooleanProperty();
    private final BooleanProperty atBars = new SimpleBooleanProperty();

    public Keeping(Document document, Selection selection, Transport transport, PhraseDesk desk, Messages messages) {
        this.document = document;
        this.selection = selection;
        this.transport = transport;
        this.desk = desk;
        this.messages = messages;
        selection.partId().addListener((property, before, now) -> {
            span.set(null);
            place.set(Tap.SOUND);
        });
    }

    /** The marked stretch; null where none is. */
    public ObjectProperty<Span> span() {
        return span;
    }

    /** The place of the chosen part that is kept from: its input, its sound, or a stage's address. */
    public StringProperty place() {
        return place;
    }

    /** How many of the last bars are kept where no stretch is marked. */
    public IntegerProperty bars() {
        return bars;
    }

    /** Whether the part hears what was kept at once. */
    public BooleanProperty hang() {
        return hang;
    }

    /** Whether phrases by chords are cut at bar lines; else where each chord begins. */
    public BooleanProperty atBars() {
        return atBars;
    }

    public long barTicks() {
        return document.piece().get().time().meter().at(0).barTicks();
    }

    /** Marks the bars around two ticks of the axis. */
    public void mark(long one, long other) {
        long bar = barTicks();
        long from = Math.floorDiv(Math.max(0, Math.min(one, other)), bar) * bar;
        long to = -Math.floorDiv(-Math.max(one, other), bar) * bar;
        span.set(new Span(from, Math.max(from + bar, to)));
    }

    /**
     * The last whole bars; unless the transport plays the bar in which time stands, or runs on by keys and what rings, is one of them when
     * a beat of it was heard.
     */
    private Span last() {
        long bar = barTicks();
        long now = transport.heardNow();
        boolean plays = transport.status().mode() == LiveStatus.Mode.PLAYING;
        long begun = Math.floorMod(now, bar);
        long beat = document.piece().get().time().meter().at(0).beatTicks();
        boolean counts = !plays && (begun >= beat || begun > 0 && now < bar);
        long to = now - begun + (counts ? bar : 0);
        return new Span(Math.max(0, to - bars.get() * bar), Math.max(bar, to));
    }

    /** Keeps the marked stretch, or the last bars. */
    public void keep() {
        Span what = span.get() == null ? last() : span.get();
        Part part = selection.part();
        Phrase phrase = phrase(part, what, document.piece().get());
        if (phrase.notes().isEmpty() && phrase.messages().isEmpty()) {
            messages.say("Nothing was heard there: " + called(part, place.get()) + " is empty in these bars.");
            return;
        }
        put("Keep what was heard", part, List.of(phrase));
        messages.say(
                "Kept “" + phrase.name() + "”: " + count(phrase) + " in " + Ticks.bars(what.to - what.from, barTicks())
                        + (hang.get() ? ", heard by " + part.name() : ", in the list of phrases") + ".");
    }

    private static String count(Phrase phrase) {
        int notes = phrase.notes().size();
        return notes == 1 ? "1 note" : notes + " notes";
    }

    /** One round of a stage's pattern as a phrase: printed in the background, which is quick. */
    public void keepRound(StageAddress address) {
        Piece now = document.piece().get();
        Stage stage = selection.stage(address).orElse(null);
        Part part = selection.part();
        if (stage == null) {
            return;
        }
        Thread printer = new Thread(
                () -> {
                    try {
                        Phrase phrase = OneRound.of(now, address, stage);
                        Platform.runLater(() -> {
                            put("Keep one round", part, List.of(phrase));
                            messages.say("Kept “" + phrase.name() + "”: " + count(phrase) + ", one round of "
                                    + stage.name() + ".");
                        });
                    } catch (InterruptedException e) {
                        Platform.runLater(() -> messages.say("The round was not kept: it was interrupted."));
                    }
                },
                "harpel-round");
        printer.setDaemon(true);
        printer.start();
    }

    /** One phrase for each chord that was held. */
    public void keepByChords() {
        Span what = span.get() == null ? last() : span.get();
        Part part = selection.part();
        Piece piece = document.piece().get();
        Heard heard = transport.heard();
        List<Long> edges = atBars.get()
                ? heard.chordBars(part.id(), what.from, what.to, piece.time().meter())
                : heard.chords(part.id(), what.from, what.to, piece.time().meter());
        List<Phrase> phrases = new ArrayList<>();
        Piece with = piece;
        for (int i = 0; i + 1 < edges.size(); i++) {
            long begin = edges.get(i);
            long next = edges.get(i + 1);
            // It loops in whole beats, though hands are never quite on them.
            long beat = piece.time().meter().at(0).beatTicks();
            long length = Math.max(1, Math.round((next - begin) / (double) beat)) * beat;
            Phrase phrase = phrase(part, new Span(begin, Math.min(next, begin + length)), with)
                    .withLength(length);
            if (!phrase.notes().isEmpty()) {
                phrases.add(phrase);
                with = with.withPhrase(phrase);
            }
        }
        if (phrases.isEmpty()) {
            messages.say("No chord was held at " + part.name() + "’s input in these bars.");
            return;
        }
        put("Keep by chords", part, phrases);
        messages.say("Kept " + phrases.size() + (phrases.size() == 1 ? " phrase" : " phrases")
                + (atBars.get() ? ", from bar line to bar line." : ", one a chord."));
    }

    private Phrase phrase(Part part, Span what, Piece piece) {
        long heardTo = Math.max(what.from + 1, Math.min(what.to, transport.heardNow()));
        Heard.Take take = transport.heard().take(part.id(), place.get(), what.from, heardTo);
        String id = piece.freePhraseId("kept-1");
        // The number first: it tells them apart where there is little room.
        String name = "Kept " + id.replaceFirst(".*-", "") + ", " + part.name();
        long first = what.from / barTicks() + 1;
        long last = (what.to - 1) / barTicks() + 1;
        Origin origin = Origin.of(
                Origin.Kind.KEPT,
                part.id(),
                called(part, place.get()) + ", " + (first == last ? "bar " + first : "bars " + first + "–" + last));
        return new Phrase(
                id,
                name,
                what.to - what.from,
                Notes.of(take.notes()),
                take.messages(),
                place.get().equals(Tap.SOUND),
                origin,
                java.util.Map.of());
    }

    private void put(String label, Part part, List<Phrase> phrases) {
        boolean onPart = hang.get();
        document.apply(PieceEdit.of(label, piece -> {
            Piece with = piece;
            for (Phrase phrase : phrases) {
                with = with.withPhrase(phrase);
            }
            return onPart
                    ? with.withPart(
                            part.id(), one -> one.withPhrase(phrases.get(0).id()))
                    : with;
        }));
        desk.show(phrases.get(0).id());
    }

    /** The places that can be kept from, in the order in which notes come by. */
    public List<String> places() {
        return Places.of(selection.part()).stream().map(Places.Place::name).toList();
    }

    /** What a place is called. */
    public String called(Part part, String name) {
        return switch (name) {
            case Tap.INPUT -> "what it heard";
            case Tap.SOUND -> Origin.SENT;
            default ->
                selection
                        .stage(StageAddress.parse(name))
                        .map(Stage::name)
                        .map(stage -> "what left " + stage)
                        .orElse(name);
        };
    }
}
