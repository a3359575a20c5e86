package harpel.app.desk;

import harpel.app.document.Document;
import harpel.app.document.Selection;
import harpel.app.look.Messages;
import harpel.app.transport.Transport;
import harpel.engine.LiveStatus;
import harpel.phrase.Note;
import harpel.phrase.Notes;
import harpel.phrase.Origin;
import harpel.phrase.Phrase;
import harpel.phrase.action.Edited;
import harpel.phrase.action.Times;
import harpel.piece.Part;
import harpel.piece.Piece;
import harpel.piece.PieceEdit;
import harpel.piece.Routes;
import harpel.run.Tap;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import javafx.beans.property.BooleanProperty;
import javafx.beans.property.IntegerProperty;
import javafx.beans.property.ReadOnlyBooleanProperty;
import javafx.beans.property.ReadOnlyBooleanWrapper;
import javafx.beans.property.SimpleBooleanProperty;
import javafx.beans.property.SimpleIntegerProperty;

/**
 * Records into phrases out of the exact memory of what was heard, a few times a second, so that a crash loses less than a second. What is
 * played goes into the part's phrase round by round, each of which is undone on its own; where the part has none, into a new one that
 * grows. What the chain sends goes into a new ready phrase. Interface thread.
 */
public final class Recorder {
    private static final long EVERY_NANOS = 120_000_000;
    private static final long LATE_NANOS = 100_000_000;

    private final Document document;
    private final Selection selection;
    private final Transport transport;
    private final PhraseDesk desk;
    private final Keeping keeping;
    private final Messages messages;
    private final ReadOnlyBooleanWrapper armed = new ReadOnlyBooleanWrapper();
    private final IntegerProperty countIn = new SimpleIntegerProperty(1);
    private final BooleanProperty click = new SimpleBooleanProperty(true);
    private final BooleanProperty metronome = new SimpleBooleanProperty();
    private final IntegerProperty clickLevel = new SimpleIntegerProperty(100);
    private final BooleanProperty adding = new SimpleBooleanProperty(true);
    private final BooleanProperty sent = new SimpleBooleanProperty();
    private final BooleanProperty ontoGrid = new SimpleBooleanProperty();
    /** Whether the transport has run since it was armed. */
    private boolean running;

    private String part = "";
    private String phraseId = "";
    /** Where bar 1 of the phrase lies on the axis of what was heard; and where recording began. */
    private long origin;

    private long from;
    /** Up to where what was played has been put into the phrase. */
    private long taken;
    /** What has been put into the phrase, and of that what a hand has changed or taken back since. */
    private final Set<List<Long>> put = new HashSet<>();

    private final Set<List<Long>> done = new HashSet<>();

    private boolean loop;
    private long round;
    private Phrase base;
    private Phrase last;
    private long lookedNanos;

    public Recorder(
            Document document,
            Selection selection,
            Transport transport,
            PhraseDesk desk,
            Keeping keeping,
            Messages messages) {
        this.document = document;
        this.selection = selection;
        this.transport = transport;
        this.desk = desk;
        this.keeping = keeping;
        this.messages = messages;
        click.addListener((property, before, now) -> tellClick());
        metronome.addListener((property, before, now) -> tellClick());
        clickLevel.addListener((property, before, now) -> tellClick());
    }

    private void tellClick() {
        transport.engine().click(metronome.get() || armed.get() && click.get(), clickLevel.get());
    }

    /** Whether beats are clicked whenever it plays. */
    public BooleanProperty metronome() {
        return metronome;
    }

    /** Whether it records, or will once the transport runs. */
    public ReadOnlyBooleanProperty armed() {
        return armed.getReadOnlyProperty();
    }

    /** How many bars are counted in, 0–2. */
    public IntegerProperty countIn() {
        return countIn;
    }

    /** Whether beats are clicked while it records. */
    public BooleanProperty click() {
        return click;
    }

    /** How loud it clicks, 1–127. */
    public IntegerProperty clickLevel() {
        return clickLevel;
    }

    /** Whether a round adds to what is there; else it takes its place. */
    public BooleanProperty adding() {
        return adding;
    }

    /** Whether what the chain sends is recorded, as a ready phrase; else what is played. */
    public BooleanProperty sent() {
        return sent;
    }

    /** Whether starts are brought onto the grid of the roll. */
    public BooleanProperty ontoGrid() {
        return ontoGrid;
    }

    /** Arms the chosen part and plays, with a count-in where time stands; or ends. */
    public void toggle() {
        if (armed.get()) {
            end();
            return;
        }
        // What is played goes to the part at the head of the way, and is recorded there.
        part = sent.get()
                ? selection.partId().get()
                : Routes.played(document.piece().get(), selection.partId().get())
                        .map(Part::id)
                        .orElseGet(selection.partId()::get);
        armed.set(true);
        running = false;
        tellClick();
        LiveStatus status = transport.status();
        if (status.mode() == LiveStatus.Mode.PLAYING) {
            begin(status.tickAt(transport.nanos()));
        } else {
            messages.say("Recording "
                    + document.piece().get().part(part).map(Part::name).orElse(part)
                    + (countIn.get() == 0
                            ? "."
                            : " after " + countIn.get() + (countIn.get() == 1 ? " bar." : " bars.")));
            transport.player().playAfter(countIn.get());
        }
    }

    private void begin(double tick) {
        Piece piece = document.piece().get();
        Part one = piece.part(part).orElse(null);
        if (one == null) {
            end();
            return;
        }
        running = true;
        document.endGesture();
        long bar = piece.time().meter().at(0).barTicks();
        origin = transport.heard().onAxis(0);
        from = transport.heard().onAxis(Math.max(0, tick));
        Phrase own = piece.phrase(one.phrase()).orElse(null);
        loop = own != null && !sent.get() && !own.ready();
        if (loop) {
            phraseId = own.id();
            round = Math.floorDiv(from - origin, own.length());
            base = own;
        } else {
            // A new phrase begins at the bar line.
            origin = origin + Math.floorDiv(from - origin, bar) * bar;
            phraseId = piece.freePhraseId("recorded-1");
            String name = "Recorded " + phraseId.replaceFirst(".*-", "") + ", " + one.name();
            base = Phrase.of(name, bar, List.of())
                    .withId(phraseId)
                    .withReady(sent.get())
                    .withOrigin(Origin.of(Origin.Kind.RECORDED, part, sent.get() ? Origin.SENT : "what was played"));
            round = 0;
        }
        taken = from;
        put.clear();
        done.clear();
        last = base;
        lookedNanos = 0;
    }

    /** Looks at what has been played since; once a frame. */
    public void look() {
        if (!armed.get()) {
            return;
        }
        boolean playing = transport.status().mode() == LiveStatus.Mode.PLAYING;
        if (playing && !running) {
            // From where time began, which may have been a frame ago.
            begin(transport.status().anchorTick());
        } else if (running && (!playing || isGone())) {
            end();
        } else if (running && System.nanoTime() - lookedNanos > EVERY_NANOS) {
            lookedNanos = System.nanoTime();
            take();
        }
    }

    /** Whether there is nothing any more to record into. */
    private boolean isGone() {
        Piece piece = document.piece().get();
        return piece.part(part).isEmpty() || loop && piece.phrase(phraseId).isEmpty();
    }

    private void take() {
        Piece piece = document.piece().get();
        long now = transport.heardNow();
        if (loop) {
            Phrase shown = piece.phrase(phraseId).orElse(null);
            if (shown == null) {
                return;
            }
            if (!shown.equals(last)) {
                // It was changed by hand, or a round was undone: go on from what was taken until then.
                base = shown;
                from = Math.max(from, taken);
                done.addAll(put);
            }
            // A key that was pressed just before a round was over may still be on its way.
            long over = running ? transport.heardBefore(LATE_NANOS) : now;
            while (round < Math.floorDiv(over - origin, base.length())) {
                put(round, roundEnd());
                document.endGesture();
                base = last;
                round++;
            }
            put(round, Math.min(now, roundEnd()));
        } else {
            grow(now);
        }
    }

    private long roundEnd() {
        return origin + (round + 1) * base.length();
    }

    /** What was played in a round up to a place on the axis, put into the phrase. */
    private void put(long which, long to) {
        long begin = origin + which * base.length();
        List<Note> fresh = heard(begin, Math.max(begin, from), to);
        fresh.forEach(note -> put.add(key(begin, note)));
        // A key that was pressed just before may still be on its way.
        taken = Math.min(to, transport.heardBefore(LATE_NANOS));
        if (fresh.isEmpty() && last == base) {
            return;
        }
        Notes before = adding.get() || fresh.isEmpty() ? base.notes() : Notes.EMPTY;
        Phrase after = onto(base.withNotes(before.plusAll(fresh)), before);
        last = after;
        document.apply(
                new PieceEdit("Record round " + (which + 1), "record " + which, piece -> piece.withPhrase(after)));
    }

    /** When a note started, and its pitch. */
    private static List<Long> key(long begin, Note note) {
        return List.of(begin + note.tick(), (long) note.pitch());
    }

    private List<Note> heard(long begin, long begunFrom, long to) {
        List<Note> notes = new ArrayList<>();
        for (Note note : transport
                .heard()
                .take(part, sent.get() ? Tap.SOUND : Tap.KEYS, begin, Math.max(begin + 1, to), true)
                .notes()) {
            if (note.tick() + begin >= begunFrom && !done.contains(key(begin, note))) {
                notes.add(note);
            }
        }
        return notes;
    }

    private Phrase onto(Phrase phrase, Notes before) {
        if (!ontoGrid.get() || desk.pace().isEmpty()) {
            return phrase;
        }
        Set<Integer> fresh = new HashSet<>();
        phrase.notes().forEach(note -> {
            if (before.findOrNull(note.id()) == null) {
                fresh.add(note.id());
            }
        });
        if (fresh.isEmpty()) {
            return phrase;
        }
        Edited edited = Times.ontoGrid(phrase, fresh, desk.pace().orElseThrow(), 50, 100, false, desk.around());
        return edited.phrase();
    }

    /** A new phrase is always a bar longer than what has been played, so that it does not come round meanwhile. */
    private void grow(long now) {
        List<Note> fresh = heard(origin, from, now);
        if (fresh.isEmpty()) {
            return;
        }
        long bar = keeping.barTicks();
        long length = (Math.floorDiv(now - origin, bar) + 2) * bar;
        Phrase after = onto(base.withLength(length).withNotes(Notes.of(fresh)), Notes.EMPTY);
        show(after);
    }

    private void show(Phrase after) {
        last = after;
        boolean hang = !after.ready();
        document.apply(new PieceEdit("Record", "record " + phraseId, piece -> {
            Piece with = piece.withPhrase(after);
            return hang ? with.withPart(part, one -> one.withPhrase(after.id())) : with;
        }));
        desk.show(after.id());
    }

    /** Ends recording; a new phrase is cut to whole bars. */
    private void end() {
        boolean was = running;
        // First, since what is taken last may find that there is nothing left to record into.
        running = false;
        if (was && document.piece().get().part(part).isPresent()) {
            take();
            Phrase now = document.piece().get().phrase(phraseId).orElse(null);
            if (!loop && now != null && now.equals(last)) {
                long bar = keeping.barTicks();
                long lastEnd =
                        now.notes().stream().mapToLong(Note::endTick).max().orElse(1);
                long lastStart = now.notes().isEmpty()
                        ? 0
                        : now.notes().get(now.notes().size() - 1).tick();
                // A key let go a little after the bar line is of the bar before.
                long length = -Math.floorDiv(-Math.max(lastStart + 1, lastEnd - bar / 8), bar) * bar;
                show(now.withLength(length));
            }
        }
        document.endGesture();
        armed.set(false);
        tellClick();
        if (was && last != null) {
            messages.say(
                    last.notes().isEmpty()
                            ? "Nothing was played, and nothing recorded."
                            : "Recorded into “" + last.name() + "”: "
                                    + last.notes().size() + " notes. Ctrl+Z takes back the last round.");
        }
    }
}
