package harpel.app.desk;

import harpel.app.document.Document;
import harpel.app.document.Selection;
import harpel.app.look.Messages;
import harpel.app.transport.Words;
import harpel.param.ParamSet;
import harpel.phrase.Note;
import harpel.phrase.Phrase;
import harpel.phrase.action.Around;
import harpel.phrase.action.Edited;
import harpel.phrase.action.NoteAction;
import harpel.piece.Part;
import harpel.piece.Piece;
import harpel.piece.PieceEdit;
import harpel.theory.GeneralMidi;
import harpel.time.StepGrid;
import harpel.time.Ticks;
import harpel.time.TimeValue;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.BiFunction;
import javafx.beans.property.BooleanProperty;
import javafx.beans.property.LongProperty;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.ReadOnlyLongProperty;
import javafx.beans.property.ReadOnlyLongWrapper;
import javafx.beans.property.SimpleBooleanProperty;
import javafx.beans.property.SimpleLongProperty;
import javafx.beans.property.SimpleObjectProperty;
import javafx.beans.property.SimpleStringProperty;
import javafx.beans.property.StringProperty;

/** The phrase that is shown and worked on: what is picked in it, the grid, the mark, and edits of it. Interface thread. */
public final class PhraseDesk {
    /** The grids there are; the last is none. */
    public static final List<String> GRIDS = List.of(
            "1/1", "1/2", "1/4", "1/8", "1/16", "1/32", "1/64", "1/2d", "1/4d", "1/8d", "1/16d", "1/2t", "1/4t", "1/8t",
            "1/16t", "1/32t", "off");

    private static final String OFF = "off";
    private static final long FIRST_LENGTH = Ticks.PER_QUARTER / 2;
    private static final int FIRST_VELOCITY = 92;

    private final Document document;
    private final Selection selection;
    private final Messages messages;
    private final StringProperty phraseId = new SimpleStringProperty("");
    private final ObjectProperty<Set<Integer>> picked = new SimpleObjectProperty<>(Set.of());
    private final StringProperty grid = new SimpleStringProperty("1/8");
    private final BooleanProperty drawing = new SimpleBooleanProperty(true);
    /** How often something was drawn, so that the next draw is another. */
    private long draws;

    private final BooleanProperty inKey = new SimpleBooleanProperty();
    private final BooleanProperty showMade = new SimpleBooleanProperty(true);
    private final BooleanProperty stepping = new SimpleBooleanProperty();
    /** Whether a phrase is being made, beside the roll. */
    private final BooleanProperty making = new SimpleBooleanProperty();
    /** Notes that are shown and not yet in the phrase. */
    private final ObjectProperty<List<Note>> preview = new SimpleObjectProperty<>(List.of());

    private final LongProperty mark = new SimpleLongProperty();
    /** The length and the velocity of the note that was drawn, changed or picked last. */
    private long lastLength = FIRST_LENGTH;
    /** Whether that length was set by hand, and so may be longer than the grid. */
    private boolean lengthIsSet;

    private int lastVelocity = FIRST_VELOCITY;
    /** How long the next note is drawn. */
    private final ReadOnlyLongWrapper drawnLength = new ReadOnlyLongWrapper(FIRST_LENGTH);

    /** What the chosen part plays. */
    private String ownId = "";

    public PhraseDesk(Document document, Selection selection, Messages messages) {
        this.document = document;
        this.selection = selection;
        this.messages = messages;
        document.piece().addListener((property, before, now) -> keepTo(now));
        document.onOther(() -> {
            lengthIsSet = false;
            lastLength = FIRST_LENGTH;
            lastVelocity = FIRST_VELOCITY;
            sizeNext();
        });
        grid.addListener((property, before, now) -> sizeNext());
        selection.partId().addListener((property, before, now) -> {
            // Never the phrase of another part: what is drawn would be drawn into that.
            ownId = own(document.piece().get());
            show(ownId);
        });
        keepTo(document.piece().get());
    }

    private void keepTo(Piece piece) {
        String own = own(piece);
        boolean another = !own.equals(ownId);
        ownId = own;
        if (another && !own.isEmpty() || piece.phrase(phraseId.get()).isEmpty()) {
            show(own);
        }
        Optional<Phrase> now = piece.phrase(phraseId.get());
        if (now.isPresent() && !picked.get().isEmpty()) {
            Set<Integer> left = new HashSet<>(picked.get());
            if (left.removeIf(id -> now.get().notes().findOrNull(id) == null)) {
                picked.set(Set.copyOf(left));
            }
        }
        now.ifPresent(phrase -> mark.set(Math.min(mark.get(), Math.max(0, phrase.length() - 1))));
    }

    /** The id of the phrase that the chosen part plays; empty for none. */
    private String own(Piece piece) {
        return piece.part(selection.partId().get())
                .flatMap(part -> piece.phrase(part.phrase()))
                .map(Phrase::id)
                .orElse("");
    }

    public BooleanProperty making() {
        return making;
    }

    /** Notes that are shown over the phrase and are not in it. */
    public ObjectProperty<List<Note>> preview() {
        return preview;
    }

    /** Shows that phrase, with nothing picked. */
    public void show(String id) {
        if (!id.equals(phraseId.get())) {
            picked.set(Set.of());
            if (!phraseId.get().isEmpty()) {
                // What was proposed was proposed for another phrase.
                preview.set(List.of());
            }
            mark.set(0);
            phraseId.set(id);
        }
    }

    /** The id of the phrase that is shown; empty where there is none. */
    public StringProperty phraseId() {
        return phraseId;
    }

    public Optional<Phrase> phrase() {
        return document.piece().get().phrase(phraseId.get());
    }

    /** The part through whose chain the phrase is heard: the chosen one, or else the first that hears it. */
    public Optional<Part> hearer() {
        Part chosen = selection.part();
        return chosen.phrase().equals(phraseId.get())
                ? Optional.of(chosen)
                : hearers(document.piece().get(), phraseId.get()).stream().findFirst();
    }

    /** Whether the phrase that is shown is played on drums, which have names and no key. */
    public boolean isDrums() {
        return hearer().filter(part -> part.channel() == GeneralMidi.PERCUSSION_CHANNEL)
                .isPresent();
    }

    /** The parts that hear a phrase. */
    public static List<Part> hearers(Piece piece, String phrase) {
        return piece.parts().stream()
                .filter(part -> part.phrase().equals(phrase))
                .toList();
    }

    /** The ids of the picked notes. */
    public ObjectProperty<Set<Integer>> picked() {
        return picked;
    }

    public void pick(Set<Integer> ids) {
        picked.set(Set.copyOf(ids));
    }

    /** Whether pressing where no note is draws one; else it picks. */
    public BooleanProperty drawing() {
        return drawing;
    }

    /** Whether notes are drawn and moved within the key. */
    public BooleanProperty inKey() {
        return inKey;
    }

    /** Whether what the chain makes of the phrase is shown. */
    public BooleanProperty showMade() {
        return showMade;
    }

    /** Whether keys that are played go into the phrase at the mark. */
    public BooleanProperty stepping() {
        return stepping;
    }

    /** Where steps and pasted notes go in, in ticks. */
    public LongProperty mark() {
        return mark;
    }

    /** One of {@link #GRIDS}. */
    public StringProperty grid() {
        return grid;
    }

    public Optional<TimeValue> pace() {
        return grid.get().equals(OFF) ? Optional.empty() : Optional.of(TimeValue.parse(grid.get()));
    }

    /** The steps of the grid; empty where it is off. */
    public Optional<StepGrid> steps() {
        return pace().map(pace -> StepGrid.ofPiece(document.piece().get().time(), pace, 50));
    }

    /** How long a step of the grid is; the last note's length where it is off. */
    public long stepTicks() {
        return pace().map(pace -> Math.max(
                        1, Math.round(pace.ticksAt(0, document.piece().get().time()))))
                .orElse(lastLength);
    }

    private void sizeNext() {
        drawnLength.set(Math.max(1, lengthIsSet ? lastLength : Math.min(lastLength, stepTicks())));
    }

    /** How long the next note is drawn: as the last one, but no longer than the grid unless that was set by hand. */
    public ReadOnlyLongProperty drawnLength() {
        return drawnLength.getReadOnlyProperty();
    }

    /** The same in words: "1/8", or "0.3 beats". */
    public String drawnLengthInWords() {
        long length = drawnLength.get();
        return GRIDS.stream()
                .filter(name -> !name.equals(OFF))
                .filter(name -> Math.round(TimeValue.parse(name)
                                .ticksAt(0, document.piece().get().time()))
                        == length)
                .findFirst()
                .orElseGet(() -> {
                    String beats = Words.number((double) length
                            / document.piece().get().time().meter().at(0).beatTicks());
                    return beats.equals("1") ? "1 beat" : beats + " beats";
                });
    }

    public int lastVelocity() {
        return lastVelocity;
    }

    /** The next note is drawn like this one, as far as the grid allows. */
    public void like(Note note) {
        like(note, false);
    }

    /** The next note is drawn like this one, whose length was set by hand. */
    public void asSet(Note note) {
        like(note, true);
    }

    private void like(Note note, boolean isSet) {
        lengthIsSet = isSet;
        lastLength = note.length();
        lastVelocity = note.velocity();
        sizeNext();
    }

    public Around around() {
        Piece piece = document.piece().get();
        return new Around(piece.key(), piece.time());
    }

    /** Something that is done to the picked notes of a phrase. */
    public interface Action extends BiFunction<Phrase, Set<Integer>, Edited> {}

    /** Does an action as one edit and says what it did. */
    public void act(String label, Action action) {
        phrase().ifPresent(before -> {
            Edited edited = action.apply(before, picked.get());
            document.endGesture();
            set(label, "", edited.phrase(), edited.picked());
            messages.say(edited.said());
        });
    }

    /** Does it with the amounts it has by itself. */
    public void act(NoteAction action) {
        act(action, action.amounts().defaults());
    }

    /** Does it, or says what is missing. */
    public void act(NoteAction action, ParamSet amounts) {
        NoteAction.Roll roll = new NoteAction.Roll(around(), pace(), stepTicks(), mark().get(), draws++);
        try {
            act(action.name(), (phrase, ids) -> action.to(phrase, ids, roll, amounts));
        } catch (IllegalArgumentException e) {
            messages.say(e.getMessage());
        }
    }

    /** Puts a changed phrase in the place of the shown one; edits of one gesture are undone together. */
    public void set(String label, String gesture, Phrase after, Set<Integer> nowPicked) {
        document.apply(new PieceEdit(label, gesture, piece -> piece.withPhrase(after)));
        pick(nowPicked);
    }

    public void endGesture() {
        document.endGesture();
    }
}
