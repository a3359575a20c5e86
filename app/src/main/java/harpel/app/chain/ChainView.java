package harpel.app.chain;

import harpel.advice.Advice;
import harpel.advice.Advisor;
import harpel.app.document.Change;
import harpel.app.document.Document;
import harpel.app.phrase.HeardStrip;
import harpel.app.session.Session;
import harpel.app.transport.Made;
import harpel.app.transport.Places;
import harpel.app.transport.Places.Place;
import harpel.app.transport.TraceStore;
import harpel.app.transport.Words;
import harpel.app.ui.room.Scrolling;
import harpel.chain.Stage;
import harpel.chain.StageAddress;
import harpel.effect.Trait;
import harpel.engine.LiveStatus;
import harpel.event.NoteStart;
import harpel.piece.Part;
import harpel.piece.Piece;
import harpel.piece.Standing;
import harpel.theory.GeneralMidi;
import java.util.ArrayList;
import java.util.Collections;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.SimpleObjectProperty;
import javafx.collections.SetChangeListener;
import javafx.geometry.Bounds;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;

/** The chain of the shown part as a score: input at the top, stages one under another, sound at the bottom. */
public final class ChainView extends BorderPane {
    private static final double SHORTEST = 36;
    private static final double TALLEST = 150;
    /** Kept for a line or two that rows will say later. */
    private static final double SPARE = 44;
    /** So often height is shared out anew until all of it is. */
    private static final int SHARINGS = 12;

    private static final int COUNT_EVERY = 15;
    private static final int ADVISE_EVERY = 60;

    private final Session session;
    private final TimeWindow window = new TimeWindow();
    private final ObjectProperty<NoteStart> pointed = new SimpleObjectProperty<>();
    private final ChainHead head;
    private final HeardStrip heard;
    private final Ruler ruler;
    private final Label pointedWords = new Label();
    private double tall = SHORTEST;
    private double sharedRoom;
    private List<Place> sharedPlaces = List.of();
    private int sharing;
    private final ChainRows rows;
    private final Scrolling scroll;
    /** Since when the chain stands as it stands: what came before it did says nothing of it. */
    private double standsSince = Double.NEGATIVE_INFINITY;

    private long movedBefore;

    private Standing standing = Standing.HEARD;
    private Change lastChange;
    private final List<TraceStore.Drawn> found = new ArrayList<>();
    private long frame;

    public ChainView(Session session) {
        this.session = session;
        getStyleClass().add("chain-view");
        head = new ChainHead(
                session.document(),
                session.selection(),
                session.transport(),
                session.variations(),
                session.printing(),
                session.messages(),
                window);
        rows = new ChainRows(
                session.document(),
                session.selection(),
                session.look(),
                session.transport(),
                session.keeping(),
                window,
                pointed,
                SHORTEST);
        scroll = new Scrolling(rows);
        ruler = new Ruler(session.document(), session.look(), window);
        pointedWords.setId("pointed");
        pointedWords.getStyleClass().add("over-ruler");
        StackPane line = new StackPane(ruler, pointedWords);
        line.setAlignment(Pos.CENTER_LEFT);
        setTop(new VBox(head, line));
        setCenter(scroll);
        heard = new HeardStrip(
                session.document(),
                session.selection(),
                session.look(),
                session.transport(),
                session.desk(),
                session.keeping(),
                session.messages());
        setBottom(heard);
        session.document().onChange(change -> lastChange = change);
        session.document().piece().addListener((property, before, now) -> take(lastChange));
        session.selection().partId().addListener((property, before, now) -> build());
        session.selection().selected().addListener((property, before, now) -> {
            select();
            // Only then: an edit does not take back what a hand has scrolled to.
            rows.selected().ifPresent(scroll::reveal);
        });
        session.look().folded().addListener((SetChangeListener<StageAddress>) change -> build());
        head.difference().addListener((property, before, now) -> select());
        pointed.addListener((property, before, now) -> point(now));
        point(null);
        build();
    }

    /** Shows something over the rows, or with null the rows. */
    public void cover(Node over) {
        setCenter(over == null ? scroll : over);
        ruler.setVisible(over == null);
        ruler.setManaged(over == null);
        heard.setVisible(over == null);
        heard.setManaged(over == null);
    }

    public TimeWindow window() {
        return window;
    }

    /** Gives the keyboard to the row of the selected stage. */
    public void focusSelected() {
        rows.selected().ifPresent(Node::requestFocus);
    }

    public void toggleDifference() {
        head.difference().set(!head.difference().get());
    }

    /** Makes the rows anew where stages come or go; a value that is set changes what its row says. */
    private void take(Change change) {
        if (!change.parts().isEmpty()) {
            standsSince = window.nowTick();
        }
        if (!change.onlyValues(session.selection().partId().get())) {
            build();
            return;
        }
        rows.showValues();
    }

    private void build() {
        head.show();
        rows.build();
        // Folding leaves the other rows where the hand has them.
        List<Place> places = rows.shown().stream().map(StageRow::place).toList();
        if (!places.equals(sharedPlaces)) {
            sharedPlaces = places;
            sharing = SHARINGS;
        }
        select();
    }

    private void select() {
        boolean difference = head.difference().get();
        for (StageRow row : rows.shown()) {
            boolean selected = row.address != null
                    && row.address.equals(session.selection().selected().get());
            row.setSelected(selected, difference);
        }
    }

    /** Says over the bars what happened to the note that is pointed at; nothing with null. */
    private void point(NoteStart note) {
        Document document = session.document();
        pointedWords.setText(
                note == null
                        ? ""
                        : Words.ancestry(
                                note,
                                document.spelling(),
                                (from, made) ->
                                        Words.told(document, session.selection(), session.transport(), from, made)));
        pointedWords.setVisible(note != null);
    }

    /** Draws a frame. */
    public void draw(long nanos) {
        long moved = session.transport().traces().movedInAll();
        standsSince -= moved - movedBefore;
        movedBefore = moved;
        lookAhead();
        heard.draw();
        window.follow(session.transport().traces());
        window.follow(session.transport().status(), session.document().piece().get(), nanos);
        if (frame % COUNT_EVERY == 0) {
            Piece piece = session.document().piece().get();
            standing = session.transport().standing(piece, session.selection().part());
            head.showStanding(standing.words());
            fitPitches();
            rows.shown()
                    .forEach(row -> row.showCount(
                            row.address == null
                                    ? -1
                                    : count(Places.before(session.document(), row.address), window.toTick()),
                            row.address != null ? endHere(row.address) : joined(row.place(), piece),
                            standing));
            rows.shown().forEach(StageRow::showAgain);
        }
        if (frame++ % ADVISE_EVERY == 0) {
            advise();
        }
        if (getCenter() != scroll) {
            return;
        }
        rows.shown().forEach(row -> row.draw(standing));
        shareHeight();
        Bounds trace = rows.shown().get(0).traceIn(ruler);
        if (trace != null) {
            ruler.draw(trace.getMinX() + TraceCanvas.EDGE, trace.getWidth() - 2 * TraceCanvas.EDGE);
        }
    }

    /**
     * While time stands at the beginning, or there is nothing of what the chain made, what it is going to make is shown: the phrase at the
     * input before it is played, what plays by itself, and after an edit never what another chain made.
     */
    private void lookAhead() {
        Part part = session.selection().part();
        TraceStore traces = session.transport().traces();
        boolean wanted = session.transport().status().mode() == LiveStatus.Mode.STOPPED
                && !window.isFrozen()
                && (traces.isBlank(part.id()) || window.nowTick() == 0);
        if (wanted) {
            session.made().ask(session.document().piece().get(), part.id());
        }
        Made.Result result = session.made().result().get();
        boolean there = wanted && result != null && result.part().equals(part.id());
        traces.showAhead(there ? result : null);
        window.ahead(there);
    }

    /** Rows are as tall as there is height for all of them. */
    private void shareHeight() {
        double room = scroll.getViewportBounds().getHeight();
        if (room != sharedRoom) {
            sharedRoom = room;
            sharing = SHARINGS;
        }
        // Only after rows have come or gone or the window has another size: what is said under a row moves no other
        // row.
        if (sharing == 0 || room <= 0 || rows.isNeedsLayout()) {
            return;
        }
        sharing--;
        double left =
                Math.floor((room - SPARE - rows.getHeight()) / rows.shown().size());
        double wanted = Math.max(SHORTEST, Math.min(TALLEST, tall + left));
        // A row of branches side by side takes less than its share; what is left then goes round again.
        if (wanted != tall) {
            tall = wanted;
            rows.tall(tall);
        }
    }

    private int count(Place place, double to) {
        return countSince(place, Double.NEGATIVE_INFINITY, to);
    }

    private int countSince(Place place, double since, double to) {
        double from = window.isAhead() ? window.fromTick() : Math.max(window.fromTick(), since);
        return from >= to ? 0 : session.transport().traces().countWithin(place, (long) from, (long) to);
    }

    /** How many notes become one with another at the sound: those of one pitch that begin together. */
    private int joined(Place place, Piece piece) {
        Part part = session.selection().part();
        if (!place.equals(Places.sound(part.id())) || !piece.isHeard(part)) {
            return 0;
        }
        List<Stage> stages = part.chain().stages();
        Place last = stages.isEmpty()
                ? Places.input(part.id())
                : Places.at(StageAddress.of(
                        part.id(), List.of(), stages.get(stages.size() - 1).id()));
        return Math.max(0, count(last, window.toTick()) - count(place, window.toTick()));
    }

    private Optional<Advice> oneByOne(Part part, StageAddress address) {
        return session.selection()
                .stage(address)
                .filter(stage -> address.chainWay().isEmpty())
                .flatMap(stage -> Advisor.oneByOne(
                        part,
                        stage,
                        within(Places.before(session.document(), address), window.toTick()).stream()
                                .filter(drawn -> !drawn.away)
                                .map(drawn -> drawn.note.tick())
                                .toList()));
    }

    /** How many of the notes shown end at a stage since no way on takes them: no lane, no branch, or a part that is not there. */
    private int endHere(StageAddress address) {
        TraceStore traces = session.transport().traces();
        int astray = traces.astraySince(address.toString(), window.fromTick());
        boolean givesOut = session.selection()
                .stage(address)
                .filter(stage -> stage.on() && stage.kind().has(Trait.GIVES_OUT))
                .isPresent();
        if (!givesOut) {
            return astray;
        }
        Set<NoteStart> came = Collections.newSetFromMap(new IdentityHashMap<>());
        double from = window.fromTick();
        for (TraceStore.Drawn drawn : within(Places.before(session.document(), address), window.toTick())) {
            if (drawn.startTick() >= from && drawn.endTick() < window.toTick() && !drawn.away) {
                came.add(drawn.note);
            }
        }
        for (TraceStore.Drawn drawn : within(Places.at(address), window.toTick())) {
            for (NoteStart note = drawn.note; note != null; note = note.cause()) {
                came.remove(note);
            }
        }
        return came.size() + astray;
    }

    private List<TraceStore.Drawn> within(Place place, double to) {
        session.transport().traces().within(place, (long) window.fromTick(), (long) to, found);
        return found;
    }

    private void fitPitches() {
        String part = session.selection().partId().get();
        window.resetPitches();
        for (Place place : List.of(Places.input(part), Places.sound(part))) {
            within(place, window.toTick()).forEach(drawn -> window.include(drawn.note.pitch()));
        }
    }

    /** Says what the notes of the last bars show: where they stop, and how many leave the key or the range of the sound. */
    private void advise() {
        Part part = session.selection().part();
        standsSince = Math.min(standsSince, window.nowTick());
        // What came in within the last bar may still be on its way.
        double settled = window.toTick() - (window.toTick() - window.fromTick()) / window.bars();
        Optional<Advice> full =
                Advisor.tooMany(part, session.transport().traces().fullSince(part.id(), window.fromTick()));
        Optional<Advice> stop = part.rack().off() || full.isPresent()
                ? full
                : Advisor.notesStop(
                        part,
                        countSince(Places.input(part.id()), standsSince, settled),
                        id -> countSince(
                                Places.at(StageAddress.of(part.id(), List.of(), id)), standsSince, window.toTick()));
        Set<Integer> pitches = new TreeSet<>();
        within(Places.sound(part.id()), window.toTick()).stream()
                // Drums have no key, also where another part sends them.
                .filter(drawn -> drawn.note.channel() != GeneralMidi.PERCUSSION_CHANNEL)
                .forEach(drawn -> pitches.add(drawn.note.pitch()));
        Piece piece = session.document().piece().get();
        Advice leaves = Advisor.outOfRange(piece, part, pitches)
                .or(() -> Advisor.leavesTheKey(piece, part, pitches))
                .orElse(null);
        for (StageRow row : rows.shown()) {
            if (row.address != null) {
                row.showLiveAdvice(stop.filter(one ->
                                row.address.chainWay().isEmpty() && one.stage().equals(row.address.stageId()))
                        .or(() -> oneByOne(part, row.address))
                        .orElse(null));
            } else if (row.place().equals(Places.sound(part.id()))) {
                row.showLiveAdvice(leaves);
            }
        }
    }
}
