package harpel.app.desk;

import harpel.app.document.Document;
import harpel.app.document.Selection;
import harpel.app.look.Look;
import harpel.app.look.Look.View;
import harpel.app.look.Messages;
import harpel.app.transport.Transport;
import harpel.engine.LiveStatus;
import harpel.phrase.Phrase;
import harpel.piece.Block;
import harpel.piece.Bracket;
import harpel.piece.Part;
import harpel.piece.Piece;
import harpel.piece.PieceEdit;
import harpel.piece.Timeline;
import harpel.piece.Timeline.Ref;
import harpel.run.Tap;
import harpel.time.MeterMap;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.Function;
import java.util.function.UnaryOperator;
import javafx.beans.property.IntegerProperty;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.SimpleIntegerProperty;
import javafx.beans.property.SimpleObjectProperty;

/** What is worked on in the timeline: the picked blocks, and what is done with them, each with one undo. Interface thread. */
public final class TimelineDesk {
    /** What blocks snap to. */
    public enum Snap {
        BARS,
        BEATS,
        OFF
    }

    private static final String ONE_WITH_PHRASE = "Pick one block that plays a phrase.";

    private static final long NO_RUN = -1;

    private final Document document;
    private final Selection selection;
    private final Look look;
    private final Transport transport;
    private final PhraseDesk desk;
    private final Messages messages;
    private final ObjectProperty<Set<Ref>> picked = new SimpleObjectProperty<>(Set.of());
    private final IntegerProperty bars = new SimpleIntegerProperty(1);
    private final ObjectProperty<Snap> snap = new SimpleObjectProperty<>(Snap.BARS);

    /** The run of time that was looked at last, and where it began. */
    private long run = NO_RUN;

    private long began;

    public TimelineDesk(
            Document document,
            Selection selection,
            Look look,
            Transport transport,
            PhraseDesk desk,
            Messages messages) {
        this.document = document;
        this.selection = selection;
        this.look = look;
        this.transport = transport;
        this.desk = desk;
        this.messages = messages;
        document.piece().addListener((property, before, now) -> {
            if (picked.get().stream().anyMatch(ref -> Timeline.find(now, ref).isEmpty())) {
                Set<Ref> left = new TreeSet<>(Timeline.all(now));
                left.retainAll(picked.get());
                picked.set(left);
            }
        });
    }

    public ObjectProperty<Set<Ref>> picked() {
        return picked;
    }

    public ObjectProperty<Snap> snap() {
        return snap;
    }

    private Piece piece() {
        return document.piece().get();
    }

    private MeterMap meter() {
        return piece().time().meter();
    }

    /** Picks blocks, and chooses the part of the first. */
    public void pick(Set<Ref> refs) {
        picked.set(Set.copyOf(refs));
        refs.stream().findFirst().ifPresent(ref -> selection.partId().set(ref.part()));
    }

    /** What a print of the chosen part is of: its picked blocks, or all; none where the piece does not play as its timeline. */
    public List<Block> blocksToPrint() {
        Piece piece = document.piece().get();
        Part part = selection.part();
        if (!piece.timeline()) {
            return List.of();
        }
        List<Block> chosen = part.blocks().stream()
                .filter(block -> picked.get().contains(new Ref(part.id(), block.at())))
                .toList();
        return chosen.isEmpty() ? part.blocks() : chosen;
    }

    /** The only block that is picked. */
    public Optional<Block> one() {
        return picked.get().size() == 1
                ? Timeline.find(piece(), picked.get().iterator().next())
                : Optional.empty();
    }

    /**
     * Stops behind the last block, when nothing has sounded for a bar, and goes back to where play began. Play that began there, that
     * comes round, or that follows another clock goes on, and so does what is being recorded.
     *
     * @param recording whether something is being recorded
     */
    public void lookForEnd(boolean recording) {
        LiveStatus status = transport.status();
        if (status.mode() != LiveStatus.Mode.PLAYING) {
            run = NO_RUN;
            return;
        }
        if (status.run() != run) {
            run = status.run();
            began = status.anchorTick();
        }
        long end = meter().barLineAtOrAfter(piece().timelineEnd());
        long now = now();
        boolean ends = piece().timeline() && end > 0 && began < end;
        boolean goesOn = recording || piece().bracket().on() || !status.clock().isEmpty();
        long bar = meter().at(end).barTicks();
        if (ends && !goesOn && now >= end + bar && isQuiet(bar)) {
            transport.stop();
            transport.player().locate(began);
            messages.say("The end. Back to " + place(began) + ".");
        }
    }

    /** Whether nothing that is heard has sounded for so long; a part that is mute may play on. */
    private boolean isQuiet(long ticks) {
        long heard = transport.heardBefore(0);
        return piece().parts().stream()
                .filter(piece()::isHeard)
                .allMatch(part -> transport
                        .heard()
                        .take(part.id(), Tap.SOUND, heard - ticks, heard)
                        .notes()
                        .isEmpty());
    }

    /** The nearest place to snap to. */
    public long snapped(double tick) {
        long at = Math.max(0, Math.round(tick));
        return switch (snap.get()) {
            case OFF -> at;
            case BEATS -> {
                long bar = meter().tickOfBar(meter().barAt(at));
                long beat = meter().at(at).beatTicks();
                yield bar + Math.round((at - bar) / (double) beat) * beat;
            }
            case BARS -> {
                long bar = meter().tickOfBar(meter().barAt(at));
                long next = meter().barLineAtOrAfter(at + 1);
                yield at - bar < next - at ? bar : next;
            }
        };
    }

    /** How far one step of the keys goes, at a place. */
    public long step(long tick) {
        return switch (snap.get()) {
            case OFF -> meter().at(tick).beatTicks() / 4;
            case BEATS -> meter().at(tick).beatTicks();
            case BARS -> meter().at(tick).barTicks();
        };
    }

    /** Where now is on the timeline. */
    public long now() {
        return Math.max(0, (long) transport.status().songTickAt(transport.nanos()));
    }

    private void apply(String label, Function<Piece, Timeline.Result> edit) {
        Timeline.Result result = edit.apply(piece());
        if (!result.piece().equals(piece())) {
            document.apply(PieceEdit.of(label, before -> result.piece()));
        }
        // One that was refused has made none.
        Set<Ref> there = new TreeSet<>(Timeline.all(piece()));
        there.retainAll(result.refs());
        picked.set(there);
    }

    private void change(String label, UnaryOperator<Block> change) {
        Set<Ref> refs = picked.get();
        apply(label, piece -> new Timeline.Result(Timeline.change(piece, refs, change), refs));
    }

    /** A block on a part, of what it plays as loops; the first of a piece lets it play as its timeline. */
    public void add(String part, long begin, long end) {
        Part on = piece().part(part).orElseThrow();
        Block block = Block.of(begin, Math.max(1, end - begin), on.phrase());
        boolean first = Timeline.all(piece()).isEmpty();
        apply("New block", piece -> {
            Piece with = Timeline.put(piece, part, block);
            return new Timeline.Result(first ? with.withTimeline(true) : with, Set.of(new Ref(part, begin)));
        });
        selection.partId().set(part);
        messages.say((on.phrase().isEmpty() ? on.name() + " is present" : "A block of “" + name(on.phrase()) + "”")
                + " from " + place(begin) + " to " + place(end) + "."
                + (first ? " The piece plays as its timeline now." : ""));
    }

    private String name(String phrase) {
        return piece().phrase(phrase).map(Phrase::name).orElse(phrase);
    }

    /** "bar 5", or "5 . 2" within a bar. */
    public String place(long tick) {
        MeterMap.Place place = meter().placeAt(tick);
        return place.beat() == 1 && place.ticksIntoBeat() == 0 ? "bar " + place.bar() : place.toString();
    }

    /** A block of a phrase, as long as that. */
    public void put(String part, String phrase, long begin) {
        long length = piece().phrase(phrase).map(Phrase::length).orElse(0L);
        boolean first = Timeline.all(piece()).isEmpty();
        apply("Put on the timeline", piece -> {
            Piece with = Timeline.put(piece, part, Block.of(begin, Math.max(1, length), phrase));
            return new Timeline.Result(first ? with.withTimeline(true) : with, Set.of(new Ref(part, begin)));
        });
        selection.partId().set(part);
        messages.say("“" + name(phrase) + "” is on the timeline at " + place(begin) + "."
                + (first ? " The piece plays as its timeline now." : ""));
    }

    /** The phrase that is shown goes onto the chosen part's row, where now is. */
    public void putShown() {
        String phrase = desk.phraseId().get();
        if (piece().phrase(phrase).isEmpty()) {
            messages.say("There is no phrase to put on the timeline.");
        } else {
            put(selection.partId().get(), phrase, snapped(now()));
        }
    }

    /** A block as long as the part's phrase, or a bar, where now is. */
    public void addHere() {
        Part part = selection.part();
        long begin = snapped(now());
        long length = piece().phrase(part.phrase()).map(Phrase::length).orElse(0L);
        add(part.id(), begin, begin + Math.max(meter().at(begin).barTicks(), length));
    }

    /** Moves the picked ones, or lays copies. */
    public void move(long by, int down, boolean copy) {
        Set<Ref> refs = picked.get();
        if (!refs.isEmpty() && (by != 0 || down != 0)) {
            apply(copy ? "Copy blocks" : "Move blocks", piece -> Timeline.move(piece, refs, by, down, copy));
        }
    }

    public void resize(Ref ref, long begin, long end) {
        apply("Resize block", piece -> Timeline.resize(piece, ref, begin, end));
    }

    /** The ends of the picked ones move, each as far as to the next that is picked. */
    public void resizeBy(long by) {
        Set<Ref> refs = picked.get();
        apply("Resize blocks", piece -> {
            Piece with = piece;
            for (Ref ref : refs) {
                Block block = Timeline.find(with, ref).orElse(null);
                if (block != null) {
                    long next = refs.stream()
                            .filter(other -> other.part().equals(ref.part()) && other.at() > ref.at())
                            .mapToLong(Ref::at)
                            .min()
                            .orElse(Long.MAX_VALUE);
                    long end = Math.max(block.at() + 1, Math.min(next, block.end() + by));
                    with = Timeline.resize(with, ref, block.at(), end).piece();
                }
            }
            return new Timeline.Result(with, refs);
        });
    }

    public void remove() {
        Set<Ref> refs = picked.get();
        if (!refs.isEmpty()) {
            apply("Remove blocks", piece -> new Timeline.Result(Timeline.remove(piece, refs), Set.of()));
            messages.say(refs.size() == 1 ? "Removed a block." : "Removed " + refs.size() + " blocks.");
        }
    }

    public void repeat() {
        Set<Ref> refs = picked.get();
        if (!refs.isEmpty()) {
            apply("Repeat blocks", piece -> Timeline.repeat(piece, refs, 1));
        }
    }

    /** Cuts the picked ones, or those of all parts, where now is. */
    public void cutHere() {
        long tick = snap.get() == Snap.OFF ? now() : snapped(now());
        Set<Ref> refs = picked.get().isEmpty() ? Timeline.all(piece()) : picked.get();
        Piece cut = Timeline.cut(piece(), refs, tick);
        if (cut.equals(piece())) {
            messages.say("No block lies across " + place(tick) + ".");
        } else {
            apply("Cut blocks", piece -> new Timeline.Result(cut, picked.get()));
            messages.say("Cut at " + place(tick) + ".");
        }
    }

    public void join() {
        Set<Ref> refs = picked.get();
        Timeline.Result joined = Timeline.join(piece(), refs);
        if (joined.piece().equals(piece())) {
            messages.say(whyApart(refs));
        } else {
            apply("Join blocks", piece -> joined);
        }
    }

    /** Why the first two that lie side by side are not joined. */
    private String whyApart(Set<Ref> refs) {
        for (Part part : piece().parts()) {
            Block last = null;
            for (Block block : part.blocks()) {
                if (!refs.contains(new Ref(part.id(), block.at()))) {
                    continue;
                }
                if (last != null && last.end() == block.at()) {
                    return whyApart(last, block);
                }
                last = block;
            }
        }
        return "Pick blocks of one part that lie side by side to join them.";
    }

    private String whyApart(Block one, Block next) {
        if (piece().phrase(one.phrase()).isEmpty()
                || piece().phrase(next.phrase()).isEmpty()) {
            return "A block without a phrase cannot be joined.";
        }
        return one.variation() == next.variation()
                ? "One block goes through the chain, the next past it: choose one of both to join them."
                : "Blocks of different variations cannot be joined: give them the same.";
    }

    /** Through the chain, or past it. */
    public void throughChain(boolean chain) {
        change(chain ? "Through the chain" : "Past the chain", block -> block.withChain(chain));
    }

    /** A variation of their own; {@link Block#OF_THE_PART} for none. */
    public void variation(long number) {
        change("Variation of blocks", block -> block.withVariation(number));
    }

    public void phrase(String id) {
        change("Phrase of blocks", block -> block.withPhrase(id).withFrom(0));
    }

    public void from(long tick) {
        change("Begin elsewhere in the phrase", block -> block.withFrom(tick));
    }

    /** Shows the phrase of the only picked block in its view. */
    public void openPhrase() {
        one().flatMap(block -> piece().phrase(block.phrase()))
                .ifPresentOrElse(
                        phrase -> {
                            desk.show(phrase.id());
                            look.view().set(View.PHRASE);
                        },
                        () -> messages.say(ONE_WITH_PHRASE));
    }

    /** The only picked block plays a copy of its phrase from now on, which can be changed without the others. */
    public void ownCopy() {
        Phrase phrase = one().flatMap(block -> piece().phrase(block.phrase())).orElse(null);
        if (phrase == null) {
            messages.say(ONE_WITH_PHRASE);
            return;
        }
        Set<Ref> refs = picked.get();
        String id = piece().freePhraseId(phrase.id());
        String name = phrase.name() + " " + id.replaceFirst(".*-", "");
        apply(
                "Own copy of the phrase",
                piece -> new Timeline.Result(
                        Timeline.change(
                                piece.withPhrase(phrase.withId(id).withName(name)),
                                refs,
                                block -> block.withPhrase(id)),
                        refs));
        messages.say("This block plays “" + name + "” now.");
    }

    public void pickAll() {
        picked.set(Timeline.all(piece()));
    }

    /** Goes to the first or the last block of the chosen part. */
    public void walkTo(boolean first) {
        List<Block> blocks = selection.part().blocks();
        if (!blocks.isEmpty()) {
            Block block = blocks.get(first ? 0 : blocks.size() - 1);
            picked.set(Set.of(new Ref(selection.part().id(), block.at())));
        }
    }

    /** Goes to the next or the one before of all blocks of the chosen part. */
    public void walk(int by) {
        Part part = selection.part();
        List<Block> blocks = part.blocks();
        if (blocks.isEmpty()) {
            return;
        }
        int at = -1;
        for (int i = 0; i < blocks.size(); i++) {
            if (picked.get().contains(new Ref(part.id(), blocks.get(i).at()))) {
                at = i;
            }
        }
        int next = Math.floorMod(at < 0 && by < 0 ? -1 : at + by, blocks.size());
        pick(Set.of(new Ref(part.id(), blocks.get(next).at())));
    }

    /** How many bars come or go, 1–999. */
    public IntegerProperty bars() {
        return bars;
    }

    /** Makes room for so many bars where now is. */
    public void insertBars() {
        long tick = meter().tickOfBar(meter().barAt(now()));
        long ticks = bars.get() * meter().at(tick).barTicks();
        apply("Insert " + words(), piece -> new Timeline.Result(Timeline.insert(piece, tick, ticks), Set.of()));
        messages.say(words() + " more at " + place(tick) + ".");
    }

    /** Takes so many bars from where now is out of everything. */
    public void takeOutBars() {
        long first = meter().barAt(now());
        long tick = meter().tickOfBar(first);
        long to = meter().tickOfBar(first + bars.get());
        apply("Take out " + words(), piece -> new Timeline.Result(Timeline.takeOut(piece, tick, to), Set.of()));
        messages.say(words() + " from " + place(tick) + " on " + (bars.get() == 1 ? "is" : "are") + " taken out.");
    }

    private String words() {
        return bars.get() == 1 ? "1 bar" : bars.get() + " bars";
    }

    /**
     * The stretch from one place to another comes round.
     *
     * @param gesture those of one drag are undone together; empty for one of its own
     */
    public void loop(long from, long to, String gesture) {
        if (to - from >= Bracket.SHORTEST) {
            setLoop("Loop", gesture, new Bracket(from, to, true));
        }
    }

    /** What is picked comes round; with nothing picked the loop is switched on or off. */
    public void loop() {
        Bracket loop = piece().bracket();
        List<Block> blocks = picked.get().stream()
                .flatMap(ref -> Timeline.find(piece(), ref).stream())
                .toList();
        if (!blocks.isEmpty()) {
            loop(
                    blocks.stream().mapToLong(Block::at).min().orElseThrow(),
                    blocks.stream().mapToLong(Block::end).max().orElseThrow(),
                    "");
        } else if (loop.isThere()) {
            loopOn(!loop.on());
        } else {
            messages.say("Pick blocks and press L, or drag with Shift in the bars: that stretch comes round.");
        }
    }

    public void loopOn(boolean on) {
        setLoop(on ? "Loop" : "No loop", "", piece().bracket().withOn(on));
    }

    private void setLoop(String label, String gesture, Bracket loop) {
        if (loop.equals(piece().bracket())) {
            return;
        }
        boolean loops = !piece().timeline() && loop.on();
        document.apply(new PieceEdit(
                label, gesture, piece -> piece.withBracket(loop).withTimeline(piece.timeline() || loop.on())));
        messages.say((loop.on()
                        ? place(loop.from()) + " to " + place(loop.to()) + " comes round."
                        : "Play goes on behind the loop.")
                + (loops ? " The piece plays as its timeline now." : ""));
    }

    /** Whether the piece plays as its timeline. */
    public void playsTimeline(boolean timeline) {
        if (piece().timeline() != timeline) {
            document.apply(
                    PieceEdit.of(timeline ? "Play the timeline" : "Play loops", piece -> piece.withTimeline(timeline)));
            messages.say(timeline ? "The piece plays as its timeline." : "Each part plays its phrase over and over.");
        }
    }
}
