package harpel.testkit;

import static org.assertj.core.api.Assertions.assertThat;

import harpel.chain.Chain;
import harpel.chain.Stage;
import harpel.effect.EffectCatalog;
import harpel.effect.EffectKind;
import harpel.engine.LiveCycle;
import harpel.event.Event;
import harpel.event.EventOrder;
import harpel.event.Message;
import harpel.event.NoteEnd;
import harpel.event.NoteStart;
import harpel.format.ChainFile;
import harpel.move.Moves;
import harpel.offline.PrintJob;
import harpel.offline.Tail;
import harpel.piece.Part;
import harpel.piece.Piece;
import harpel.plan.Plan;
import harpel.plan.Program;
import harpel.port.InputPort;
import harpel.run.Renderer;
import harpel.run.Tap;
import harpel.run.Told;
import harpel.theory.Key;
import harpel.time.Ticks;
import harpel.time.TimeMap;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.IdentityHashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import java.util.concurrent.atomic.LongAdder;
import java.util.stream.Collectors;

/**
 * What is promised of every effect, each for one kind and one seed from which a world is made around it: other stages, music, tempo and
 * edits. An effect of one's own is tried by
 * <pre>{@code
 * Laws.all().forEach((name, law) -> Tries.of(7, name, seed -> law.holds(kind, seed)));
 * }</pre>
 */
public final class Laws {
    /** How many events have been looked at, at any place. */
    public static final LongAdder EVENTS = new LongAdder();

    public static final long LENGTH = 3 * 4 * Ticks.PER_QUARTER;
    public static final String PART = "lead";
    private static final String OTHER = "other";

    /** A law that is tried. */
    public interface Law {
        void holds(EffectKind kind, long seed) throws Exception;
    }

    /** Every law by its name. */
    public static Map<String, Law> all() {
        Map<String, Law> laws = new LinkedHashMap<>();
        laws.put("cuttingTimeIntoOtherBlocksChangesNothing", Laws::cuttingTimeIntoOtherBlocksChangesNothing);
        laws.put("partsThatHearOneAnotherDoSoInAnyBlocks", Laws::partsThatHearOneAnotherDoSoInAnyBlocks);
        laws.put("partsMayBeJoinedAndPartedAtAnyTime", Laws::partsMayBeJoinedAndPartedAtAnyTime);
        laws.put("everyStartGetsOneEndUnderAnyEdits", Laws::everyStartGetsOneEndUnderAnyEdits);
        laws.put("liveAndPrintedAreTheSame", Laws::liveAndPrintedAreTheSame);
        laws.put("sameVariationSameNotes", Laws::sameVariationSameNotes);
        laws.put("nothingSoundsAfterSilence", Laws::nothingSoundsAfterSilence);
        laws.put("ancestryLeadsBackToAPlayedNote", Laws::ancestryLeadsBackToAPlayedNote);
        laws.put("whatIsNoNotePassesUntouched", Laws::whatIsNoNotePassesUntouched);
        laws.put("anEffectSwitchedOffPassesEverything", Laws::anEffectSwitchedOffPassesEverything);
        laws.put("otherChannelsPassBy", Laws::otherChannelsPassBy);
        laws.put("aChainThatIsSavedAndReadIsEqual", Laws::aChainThatIsSavedAndReadIsEqual);
        laws.put("twoChainsMayTakeTurnsAtAnyTime", CompareLaws::twoChainsMayTakeTurnsAtAnyTime);
        laws.put("aDifferenceIsFoundJustWhereThereIsOne", CompareLaws::aDifferenceIsFoundJustWhereThereIsOne);
        laws.put("shownStepsLieInTheirRows", CompareLaws::shownStepsLieInTheirRows);
        laws.put("everyDeedIsToldInWords", CompareLaws::everyDeedIsToldInWords);
        laws.put("aReplacedStageKeepsOnlyWhatFits", CompareLaws::aReplacedStageKeepsOnlyWhatFits);
        laws.put("aShorterPrintIsTheBeginningOfALonger", Laws::aShorterPrintIsTheBeginningOfALonger);
        return laws;
    }

    private Laws() {}

    /** A world around a chain, the same for the same seed. */
    public static final class World {
        public final Randoms randoms;
        public final Chain chain;
        public final TimeMap time;
        public final Key key;
        public final List<Event> music;

        public World(EffectKind kind, long seed) {
            randoms = new Randoms(seed);
            chain = randoms.chainAround(kind);
            time = randoms.time();
            key = randoms.key();
            music = randoms.music(LENGTH);
        }

        /** A piece of this world with these parts. */
        public Piece piece(Part... parts) {
            return Piece.empty().withTime(time).withKey(key).withVariation(7).withParts(List.of(parts));
        }

        public Plan plan(Chain with) {
            return Plan.ofChain(PART, with, key, time, 7);
        }
    }

    /** Checks at every place that order and pairs hold, and keeps what is heard as text. */
    public static final class Checks implements Tap, Renderer.Sink {
        public final List<String> heard = new ArrayList<>();
        public final List<Event> events = new ArrayList<>();
        public final Map<String, Map<NoteStart, Boolean>> open = new HashMap<>();
        public final Map<String, Event> last = new HashMap<>();
        public final Set<String> sounding = new TreeSet<>();
        /** Edits and stops end notes at the tick at which play goes on, so only without them is the order within a tick total. */
        public boolean edits;

        @Override
        public void tell(Told told) {
            if (told instanceof Told.Left left) {
                check(left.part(), left.place(), left.event());
            }
        }

        private void check(String part, String place, Event event) {
            EVENTS.increment();
            Event before = last.put(part + " " + place, event);
            if (before != null && !edits) {
                assertThat(EventOrder.INSTANCE.compare(before, event))
                        .as("order at %s: %s before %s", place, before, event)
                        .isLessThanOrEqualTo(0);
            }
            Map<NoteStart, Boolean> notes = open.computeIfAbsent(part + " " + place, name -> new IdentityHashMap<>());
            if (event instanceof NoteStart note) {
                assertThat(notes.put(note, true))
                        .as("started twice at %s: %s", place, note)
                        .isNull();
            } else if (event instanceof NoteEnd end) {
                assertThat(notes.remove(end.start()))
                        .as("ended without a start at %s: %s", place, end)
                        .isNotNull();
                assertThat(end.tick()).isGreaterThan(end.start().tick());
            }
        }

        @Override
        public void send(String part, Event event) {
            heard.add(part.equals(PART) ? event.toString() : part + " " + event);
            events.add(event);
            if (event instanceof NoteStart note) {
                assertThat(sounding.add(part + "/" + note.channel() + "/" + note.pitch()))
                        .as("one voice for each pitch: %s", note)
                        .isTrue();
            } else if (event instanceof NoteEnd end) {
                assertThat(sounding.remove(
                                part + "/" + end.channel() + "/" + end.start().pitch()))
                        .as("the end of a voice that sounds: %s", end)
                        .isTrue();
            }
        }

        void nothingOpen() {
            open.forEach((place, notes) ->
                    assertThat(notes.keySet()).as("open at %s", place).isEmpty());
            assertThat(sounding).isEmpty();
        }
    }

    /** Feeds the music up to {@code to} and renders. */
    public static int feed(Renderer renderer, List<Event> music, int next, long to) {
        int i = next;
        while (i < music.size() && music.get(i).tick() < to) {
            renderer.play(PART, music.get(i++));
        }
        renderer.render(to);
        return i;
    }

    private static Checks render(World world, List<Long> cuts) {
        Checks checks = new Checks();
        Renderer renderer = new Renderer(world.plan(world.chain), checks, checks);
        renderer.start(0);
        int next = 0;
        for (long cut : cuts) {
            next = feed(renderer, world.music, next, cut);
        }
        feed(renderer, world.music, next, LENGTH);
        checks.edits = true;
        renderer.stop(false);
        for (long tick = LENGTH; !renderer.isQuiet() && tick < 40 * LENGTH; tick += LENGTH) {
            renderer.render(tick + LENGTH);
        }
        return checks;
    }

    public static void cuttingTimeIntoOtherBlocksChangesNothing(EffectKind kind, long seed) {
        Checks whole = render(new World(kind, seed), List.of());
        Checks pieces = render(new World(kind, seed), cuts(seed));
        assertThat(byPart(pieces.heard)).isEqualTo(byPart(whole.heard));
        whole.nothingOpen();
        pieces.nothingOpen();
    }

    /** The world's part and another, which hears what it sends or what it hears, besides what stages send to it. */
    private static Plan twoParts(World world, Chain chain, int way) {
        Plan alone = world.plan(chain);
        Chain echoing = Chain.EMPTY.plus(0, EffectCatalog.of("echo"));
        List<String> other = List.of(OTHER);
        return new Plan(
                alone.key(),
                alone.time(),
                alone.variation(),
                List.of(
                        new Plan.PartPlan(
                                PART,
                                chain,
                                0,
                                way == 1 ? other : List.of(),
                                way == 2 ? other : List.of(),
                                "",
                                false,
                                false,
                                null,
                                true,
                                false,
                                null),
                        new Plan.PartPlan(
                                OTHER,
                                echoing,
                                3,
                                List.of(),
                                List.of(),
                                way == 0 ? "" : "way " + way,
                                true,
                                false,
                                null,
                                true,
                                false,
                                null)),
                List.of());
    }

    private static Checks renderTwo(World world, int way, List<Long> cuts) {
        Checks checks = new Checks();
        Renderer renderer = new Renderer(twoParts(world, world.chain, way), checks, checks);
        renderer.start(0);
        int next = 0;
        for (long cut : cuts) {
            next = feed(renderer, world.music, next, cut);
        }
        feed(renderer, world.music, next, LENGTH);
        checks.edits = true;
        renderer.stop(false);
        for (long tick = LENGTH; !renderer.isQuiet() && tick < 40 * LENGTH; tick += LENGTH) {
            renderer.render(tick + LENGTH);
        }
        return checks;
    }

    public static void partsThatHearOneAnotherDoSoInAnyBlocks(EffectKind kind, long seed) {
        int way = (int) Math.floorMod(seed, 3L);
        Checks whole = renderTwo(new World(kind, seed), way, List.of());
        Checks pieces = renderTwo(new World(kind, seed), way, cuts(seed));
        assertThat(byPart(pieces.heard)).isEqualTo(byPart(whole.heard));
        whole.nothingOpen();
        pieces.nothingOpen();
    }

    /** Each part's events in order; how parts come one after another is the blocks' matter. */
    private static Map<String, List<String>> byPart(List<String> heard) {
        return heard.stream()
                .collect(Collectors.groupingBy(
                        text -> text.matches("(?s)\\d.*") ? PART : text.substring(0, text.indexOf(' '))));
    }

    private static List<Long> cuts(long seed) {
        List<Long> cuts = new ArrayList<>();
        Randoms randoms = new Randoms(seed + 1);
        for (int i = randoms.between(1, 200); i > 0; i--) {
            cuts.add(randoms.tick(LENGTH - 1));
        }
        cuts.sort(null);
        return cuts;
    }

    public static void partsMayBeJoinedAndPartedAtAnyTime(EffectKind kind, long seed) {
        World world = new World(kind, seed);
        Checks checks = new Checks();
        checks.edits = true;
        Chain chain = world.chain;
        Renderer renderer = new Renderer(twoParts(world, chain, 1), checks, checks);
        renderer.start(0);
        int next = 0;
        for (long tick = 1; tick < LENGTH; tick += 1 + world.randoms.tick(LENGTH / 8)) {
            next = feed(renderer, world.music, next, tick);
            chain = edited(world.randoms, chain);
            int way = world.randoms.between(0, 3);
            renderer.update(way == 3 ? world.plan(chain) : twoParts(world, chain, way));
        }
        feed(renderer, world.music, next, LENGTH + 1);
        renderer.silence();
        renderer.render(LENGTH + 2);
        checks.nothingOpen();
    }

    public static void everyStartGetsOneEndUnderAnyEdits(EffectKind kind, long seed) {
        World world = new World(kind, seed);
        Checks checks = new Checks();
        checks.edits = true;
        Chain chain = world.chain;
        Renderer renderer = new Renderer(world.plan(chain), checks, checks);
        renderer.start(0);
        int next = 0;
        for (long tick = 1; tick < LENGTH; tick += 1 + world.randoms.tick(LENGTH / 8)) {
            next = feed(renderer, world.music, next, tick);
            chain = edited(world.randoms, chain);
            renderer.update(world.plan(chain).withDry(PART, world.randoms.oneIn(10)));
            if (world.randoms.oneIn(12)) {
                renderer.stop(world.randoms.oneIn(2));
            }
            if (world.randoms.oneIn(20)) {
                renderer.silence();
            }
            if (world.randoms.oneIn(6) && !chain.stages().isEmpty()) {
                renderer.act(
                        PART, PART + "/" + world.randoms.oneOf(chain.stages()).id());
            }
        }
        feed(renderer, world.music, next, LENGTH + 1);
        renderer.silence();
        renderer.render(LENGTH + 2);
        checks.nothingOpen();
    }

    /** One edit as a hand would make it. */
    public static Chain edited(Randoms randoms, Chain chain) {
        int size = chain.stages().size();
        if (size == 0 || randoms.oneIn(5)) {
            return size > 5
                    ? chain
                    : chain.plus(randoms.between(0, size), randoms.stage(randoms.oneOf(EffectCatalog.kinds()), 1));
        }
        Stage stage = randoms.oneOf(chain.stages());
        return switch (randoms.between(0, 4)) {
            case 0 -> chain.minus(stage.id());
            case 1 -> chain.moved(stage.id(), randoms.between(0, size - 1));
            case 2 -> chain.withStage(stage.id(), one -> one.with(EffectKind.ON, !one.on()));
            default ->
                chain.withStage(stage.id(), one -> randoms.stage(one.kind(), 1).withId(one.id()));
        };
    }

    public static void liveAndPrintedAreTheSame(EffectKind kind, long seed) throws InterruptedException {
        World world = new World(kind, seed);
        // What is live goes to one channel, that of its part.
        List<Event> oneChannel =
                world.music.stream().filter(event -> event.channel() == 0).toList();
        Piece live = world.piece(Part.of("Lead", world.chain).withPort(PART));
        List<Event> distinct = renumbered(withoutOverlaps(oneChannel));

        List<String> printed = new PrintJob(world.plan(world.chain), PART, Tail.STOP, Tap.NONE)
                .print(distinct, LENGTH).events().stream().map(Event::toString).toList();

        List<Event> heard = new ArrayList<>();
        long[] now = {0};
        LiveCycle cycle = new LiveCycle(
                Program.of(live),
                () -> now[0],
                Outputs.to((port, event) -> {
                    if (port.equals(PART)) {
                        heard.add(event);
                    }
                }),
                Tap.NONE);
        cycle.play(0);
        Randoms randoms = new Randoms(seed + 2);
        for (Event event : distinct) {
            if (event.tick() >= LENGTH) {
                break;
            }
            long due = (long) Math.ceil(world.time.tempo().nanosAt(event.tick()));
            while (randoms.oneIn(2) && now[0] + 2_000_000 < due) {
                now[0] += randoms.between(1, 1_000_000);
                cycle.render(now[0]);
            }
            now[0] = Math.max(now[0], due);
            cycle.take(InputPort.KEYS, played(event, now[0]));
        }
        now[0] = (long) Math.ceil(world.time.tempo().nanosAt(LENGTH - 1));
        cycle.render(now[0]);
        List<String> soFar = heard.stream().map(Event::toString).toList();
        assertThat(soFar).isEqualTo(printed.subList(0, Math.min(printed.size(), soFar.size())));
        assertThat(printed.size() - soFar.size())
                .as("only what the end itself sends is left")
                .isEqualTo((int) printed.stream()
                        .filter(text -> Long.parseLong(text.substring(0, text.indexOf(' '))) >= LENGTH)
                        .count());
    }

    /** A keyboard cannot press a key that is down. */
    private static List<Event> withoutOverlaps(List<Event> music) {
        Set<Integer> down = new TreeSet<>();
        Set<NoteStart> left = java.util.Collections.newSetFromMap(new IdentityHashMap<>());
        List<Event> result = new ArrayList<>();
        for (Event event : music) {
            if (event instanceof NoteStart note && !down.add(note.pitch())) {
                left.add(note);
            } else if (event instanceof NoteEnd end && !left.contains(end.start())) {
                down.remove(end.start().pitch());
                result.add(event);
            } else if (!(event instanceof NoteEnd)) {
                result.add(event);
            }
        }
        return result;
    }

    /** What is live arrives in the order in which it is taken. */
    private static List<Event> renumbered(List<Event> music) {
        Map<NoteStart, NoteStart> starts = new IdentityHashMap<>();
        List<Event> result = new ArrayList<>();
        for (Event event : music) {
            int arrival = result.size();
            if (event instanceof NoteStart note) {
                NoteStart again = NoteStart.played(note.tick(), arrival, note.channel(), note.pitch(), note.velocity());
                starts.put(note, again);
                result.add(again);
            } else if (event instanceof NoteEnd end) {
                result.add(new NoteEnd(end.tick(), starts.get(end.start()), end.releaseVelocity()));
            } else {
                result.add(new Message(event.tick(), arrival, ((Message) event).bytes()));
            }
        }
        return result;
    }

    private static InputPort.Played played(Event event, long nanos) {
        byte[] bytes = harpel.port.MidiBytes.of(event);
        return new InputPort.Played(bytes[0] & 0xFF, bytes[1], bytes[2], nanos);
    }

    private static List<String> printed(World world, int bars, boolean ringOut) throws InterruptedException {
        return new PrintJob(world.plan(world.chain), PART, ringOut ? Tail.RING : Tail.STOP, Tap.NONE)
                .print(world.music, world.time.meter().tickOfBar(bars)).events().stream()
                        .map(Event::toString)
                        .toList();
    }

    /** A print of fewer bars is the beginning of one of more, and ringing out changes nothing before the end. */
    public static void aShorterPrintIsTheBeginningOfALonger(EffectKind kind, long seed) throws InterruptedException {
        World world = new World(kind, seed);
        long end = world.time.meter().tickOfBar(2);
        List<List<String>> prints = new ArrayList<>();
        for (int print = 0; print < 3; print++) {
            List<String> before = printed(new World(kind, seed), print == 0 ? 2 : 3, print == 2).stream()
                    .filter(text -> Long.parseLong(text.substring(0, text.indexOf(' '))) < end)
                    .toList();
            EVENTS.add(before.size() + 1L);
            prints.add(before);
        }
        assertThat(prints).containsOnly(prints.get(0));
    }

    public static void sameVariationSameNotes(EffectKind kind, long seed) {
        assertThat(render(new World(kind, seed), List.of()).heard)
                .isEqualTo(render(new World(kind, seed), List.of()).heard);
    }

    public static void nothingSoundsAfterSilence(EffectKind kind, long seed) {
        World world = new World(kind, seed);
        Checks checks = new Checks();
        checks.edits = true;
        Renderer renderer = new Renderer(world.plan(world.chain), checks, checks);
        renderer.start(0);
        feed(renderer, world.music, 0, LENGTH / 2);
        renderer.silence();
        int before = checks.heard.size();
        checks.nothingOpen();
        renderer.render(20 * LENGTH);
        assertThat(checks.heard).hasSize(before);
    }

    public static void ancestryLeadsBackToAPlayedNote(EffectKind kind, long seed) {
        World world = new World(kind, seed);
        Checks checks = render(world, List.of());
        Set<Event> played = java.util.Collections.newSetFromMap(new IdentityHashMap<>());
        played.addAll(world.music);
        for (Event event : checks.events) {
            if (event instanceof NoteStart note) {
                assertThat(note.origin().isGenerated() || played.contains(note.origin()))
                        .as("where %s comes from: %s", note, note.origin())
                        .isTrue();
                assertThat(note.tick()).isGreaterThanOrEqualTo(note.origin().tick());
            }
        }
    }

    public static void whatIsNoNotePassesUntouched(EffectKind kind, long seed) {
        Randoms randoms = new Randoms(seed);
        Stage stage = randoms.stage(kind, 0).withMoves(Moves.NONE);
        if (kind.nature().changesMessages(stage.params())) {
            return;
        }
        Chain chain = Chain.EMPTY.plus(0, stage);
        Checks checks = new Checks();
        Renderer renderer = new Renderer(Plan.ofChain(PART, chain, Key.C_MAJOR, TimeMap.DEFAULT, 1), checks, checks);
        List<String> sent = new ArrayList<>();
        for (int i = 0; i < 12; i++) {
            // Controllers 1–31 but for one that lets go; the pedal is for effects that use it.
            byte[] bytes = randoms.oneOf(List.of(
                    new byte[] {(byte) 0xE3, 1, 2},
                    new byte[] {(byte) 0xC1, 5},
                    new byte[] {(byte) 0xA0, 60, 9},
                    new byte[] {(byte) 0xD2, 7},
                    new byte[] {(byte) 0xF0, 0x7D, 1, (byte) 0xF7}));
            Message message = new Message(i * 100L, i, bytes);
            sent.add(message.toString());
            renderer.play(PART, message);
        }
        renderer.render(2000);
        assertThat(checks.heard).isEqualTo(sent);
    }

    public static void anEffectSwitchedOffPassesEverything(EffectKind kind, long seed) {
        World world = new World(kind, seed);
        Chain off = Chain.EMPTY.plus(
                0, world.randoms.stage(kind, 1).withMoves(Moves.NONE).with(EffectKind.ON, false));
        Checks with = new Checks();
        feed(new Renderer(world.plan(off), with, with), world.music, 0, LENGTH + 1);
        Checks without = new Checks();
        feed(new Renderer(world.plan(Chain.EMPTY), without, without), world.music, 0, LENGTH + 1);
        assertThat(with.heard).isEqualTo(without.heard);
    }

    public static void otherChannelsPassBy(EffectKind kind, long seed) {
        World world = new World(kind, seed);
        Chain only16 = Chain.EMPTY.plus(
                0, world.randoms.stage(kind, 1).withMoves(Moves.NONE).with(EffectKind.CHANNEL, 16));
        List<Event> others =
                world.music.stream().filter(event -> event.channel() != 15).toList();
        Checks with = new Checks();
        feed(new Renderer(world.plan(only16), with, with), others, 0, LENGTH + 1);
        Checks without = new Checks();
        feed(new Renderer(world.plan(Chain.EMPTY), without, without), others, 0, LENGTH + 1);
        assertThat(with.heard).isEqualTo(without.heard);
    }

    public static void aChainThatIsSavedAndReadIsEqual(EffectKind kind, long seed) throws Exception {
        Randoms randoms = new Randoms(seed);
        ChainFile file = new ChainFile(PART, randoms.key(), randoms.chainAround(kind), Map.of());
        assertThat(ChainFile.read(file.write())).isEqualTo(file);
    }
}
