package harpel.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import harpel.app.chain.TimeWindow;
import harpel.app.desk.OwnPhrases;
import harpel.app.look.Theme;
import harpel.app.session.Session;
import harpel.app.transport.Places;
import harpel.app.transport.TraceQueue;
import harpel.app.transport.TraceStore;
import harpel.app.transport.Words;
import harpel.chain.StageAddress;
import harpel.engine.LiveStatus;
import harpel.event.Message;
import harpel.event.NoteEnd;
import harpel.event.NoteStart;
import harpel.make.TestPhrases;
import harpel.phrase.Phrase;
import harpel.piece.Part;
import harpel.piece.Piece;
import harpel.run.Tap;
import harpel.run.Told;
import harpel.theory.Key;
import harpel.time.MeterMap;
import harpel.time.TempoMap;
import harpel.time.Ticks;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** What the traces are drawn from, and the axis they share. */
class TracesTest {
    private final TraceQueue queue = new TraceQueue(() -> 0);
    private final TraceStore store = new TraceStore();

    private NoteStart note(long tick, long length) {
        NoteStart note = NoteStart.played(tick, tick, 0, 60, 90);
        queue.left("lead", Tap.INPUT, note);
        if (length > 0) {
            queue.left("lead", Tap.INPUT, new NoteEnd(tick + length, note, 64));
        }
        queue.drain(0, store::take);
        return note;
    }

    /** What is seen is what is heard: a note whose sound is delayed lights up with it, and not before. */
    @Test
    void aNoteIsSeenWhenItIsHeard() {
        long[] now = {1_000};
        TraceQueue late = new TraceQueue(() -> now[0]);
        NoteStart first = NoteStart.played(0, 0, 0, 60, 90);
        late.left("lead", Tap.SOUND, first);
        now[0] = 6_000;
        late.left("lead", Tap.SOUND, new NoteEnd(480, first, 64));
        List<Told> seen = new ArrayList<>();
        late.drain(999, seen::add);
        assertThat(seen).isEmpty();
        late.drain(5_999, seen::add);
        assertThat(seen).hasSize(1);
        late.drain(6_000, seen::add);
        assertThat(seen).hasSize(2);
    }

    private List<NoteStart> inStretch(long from, long to) {
        List<TraceStore.Drawn> found = new ArrayList<>();
        store.within(Places.input("lead"), from, to, found);
        return found.stream().map(drawn -> drawn.note).toList();
    }

    @Test
    void aStretchOfTimeHoldsWhatSoundsInItHoweverLongAgoItBegan() {
        NoteStart longOne = note(0, 9_000);
        NoteStart open = note(100, 0);
        NoteStart early = note(200, 50);
        NoteStart inside = note(5_000, 100);
        NoteStart late = note(8_000, 100);
        assertThat(inStretch(4_000, 6_000)).containsExactlyInAnyOrder(longOne, open, inside);
        assertThat(inStretch(0, 210)).containsExactlyInAnyOrder(longOne, open, early);
        assertThat(inStretch(9_000, 10_000)).as("an end is not within").containsExactly(open);
        assertThat(inStretch(8_000, 8_001)).containsExactlyInAnyOrder(longOne, open, late);
    }

    @Test
    void bendsControllersLostPitchesAndNotesThatLeaveAreKept() {
        Places.Place place = Places.input("lead");
        queue.left("lead", Tap.INPUT, Message.bend(10, 0, 0, 9000));
        queue.left("lead", Tap.INPUT, Message.control(20, 1, 0, 1, 64));
        queue.left("lead", Tap.INPUT, new Message(21, 2, (byte) Message.PROGRAM_CHANGE, (byte) 3));
        queue.tell(new Told.Lost("lead", Tap.INPUT, 30, 72));
        NoteStart away = NoteStart.played(40, 4, 0, 64, 90);
        queue.tell(new Told.Away("lead", Tap.INPUT, away));
        queue.tell(new Told.Away("lead", Tap.INPUT, new NoteEnd(60, away, 64)));
        queue.tell(new Told.Away("lead", Tap.INPUT, Message.bend(70, 5, 0, 0)));
        queue.drain(0, store::take);
        List<TraceStore.Mark> marks = new ArrayList<>();
        store.marksWithin(place, 15, 100, marks);
        assertThat(marks)
                .as("first the bend that holds; a program change is not drawn")
                .extracting(mark -> mark.tick() + (mark.message == null ? " lost " + mark.pitch : ""))
                .containsExactly("10", "20", "30 lost 72", "70");
        assertThat(store.notes(place)).singleElement().satisfies(drawn -> {
            assertThat(drawn.away).isTrue();
            assertThat(drawn.endTick()).isEqualTo(60);
        });
        assertThat(store.countWithin(place, 0, 100))
                .as("what leaves does not go on")
                .isZero();
    }

    @Test
    void theLastNotesAndAnyNoteAreFound() {
        NoteStart first = note(10, 5);
        NoteStart same = note(10, 5);
        NoteStart last = note(20, 5);
        Places.Place input = Places.input("lead");
        assertThat(store.last(input, 2)).extracting(drawn -> drawn.note).containsExactly(same, last);
        assertThat(store.last(input, 99)).hasSize(3);
        assertThat(store.has(input, first)).isTrue();
        assertThat(store.has(input, same)).isTrue();
        assertThat(store.has(input, NoteStart.played(10, 10, 0, 60, 90)))
                .as("one that only looks alike")
                .isFalse();
        assertThat(store.has(Places.sound("lead"), first)).isFalse();
    }

    @Test
    void minutesAreKeptAndNoMore() {
        int many = 3 * TraceStore.MOST_IN_ALL;
        for (int i = 0; i < many; i++) {
            note(i, 1);
        }
        int kept = store.notes(Places.input("lead")).size();
        assertThat(kept).isBetween(TraceStore.MOST_IN_ALL / 2, TraceStore.MOST_IN_ALL);
        assertThat(store.notes(Places.input("lead")).get(kept - 1).note.tick()).isEqualTo(many - 1);
        assertThat(inStretch(many - 10, many)).hasSize(10);
        assertThat(store.count()).isEqualTo(many);
    }

    @Test
    void stepsAndLeversAreWhereTheyWereToldLast() {
        queue.tell(new Told.Stepped("lead", "lead/lanes", 2, 7));
        queue.tell(new Told.Stepped("lead", "lead/lanes", 0, 1));
        queue.tell(new Told.LeverAt("Tide", 0.25));
        queue.drain(0, store::take);
        assertThat(store.steps("lead/lanes")).containsExactly(1, -1, 7);
        assertThat(store.step("lead/lanes", 5)).isEqualTo(-1);
        assertThat(store.lever("Tide")).hasValue(0.25);
        store.forgetLever("Tide");
        assertThat(store.lever("Tide")).isEmpty();
        queue.tell(new Told.Restarted(0, 4000));
        queue.drain(0, store::take);
        assertThat(store.steps("lead/lanes")).isEmpty();
    }

    @Test
    void whatWasStaysLeftOfWhereTimeBeganAnew() {
        Places.Place input = Places.input("lead");
        note(4100, 900);
        queue.tell(new Told.Restarted(0, 4000));
        note(10, 50);
        queue.drain(0, store::take);
        // The old note ended at 5000, so it is moved by two bars.
        assertThat(store.notes(input)).extracting(TraceStore.Drawn::startTick).containsExactly(-3900L, 10L);
        assertThat(store.notes(input)).extracting(TraceStore.Drawn::endTick).containsExactly(-3000L, 60L);
        assertThat(store.marks()).containsExactly(0L);
        assertThat(store.earliest()).isEqualTo(-3900);
        assertThat(inStretch(-3500, -3400)).hasSize(1);
        queue.tell(new Told.Restarted(100, 4000));
        queue.drain(0, store::take);
        assertThat(store.marks()).as("time that goes on moves nothing").containsExactly(0L, 100L);
        assertThat(store.earliest()).isEqualTo(-3900);
        store.outdate("lead");
        assertThat(store.notes(input)).isEmpty();
        List<TraceStore.Drawn> found = new ArrayList<>();
        store.outdatedWithin(input, -4000, 4000, found);
        assertThat(found).as("to compare with").hasSize(2);
        queue.tell(new Told.Restarted(200, 4000));
        queue.drain(0, store::take);
        store.outdatedWithin(input, -4000, 4000, found);
        assertThat(found).as("until it is heard anew").isEmpty();
        store.forget();
        note(50, 10);
        queue.tell(new Told.Restarted(0, 4000));
        queue.drain(0, store::take);
        assertThat(store.notes(input))
                .as("what was on its way is forgotten, too")
                .isEmpty();
        assertThat(store.marks()).isEmpty();
    }

    private static LiveStatus at(long tick) {
        return new LiveStatus(
                LiveStatus.Mode.PLAYING,
                1,
                tick,
                0,
                TempoMap.of(120),
                "",
                harpel.piece.Bracket.NONE,
                0,
                0,
                -1,
                0,
                0,
                "");
    }

    @Test
    void theWindowFollowsUnlessItIsFrozenAndGoesBackNoFartherThanTheStart() {
        TimeWindow window = new TimeWindow();
        long bar = 4 * Ticks.PER_QUARTER;
        window.follow(at(8 * bar), Piece.empty(), 0);
        assertThat(window.x(8 * bar, 100)).isCloseTo(86, within(0.01));
        assertThat(window.barsBack()).isZero();
        window.back(2);
        assertThat(window.isFrozen()).isTrue();
        window.follow(at(10 * bar), Piece.empty(), 0);
        assertThat(window.barsBack()).isCloseTo(4, within(0.01));
        assertThat(window.x(6 * bar, 100)).isCloseTo(86, within(0.01));
        window.back(100);
        assertThat(window.x(0, 100)).isCloseTo(86, within(0.01));
        window.back(-100);
        assertThat(window.barsBack()).isZero();
        window.freeze(false);
        window.follow(at(11 * bar), Piece.empty(), 0);
        assertThat(window.x(11 * bar, 100)).isCloseTo(86, within(0.01));
    }

    @Test
    void zoomingKeepsWithinItsEnds() {
        TimeWindow window = new TimeWindow();
        double all = window.highest() - window.lowest();
        for (int i = 0; i < 40; i++) {
            window.zoomTime(0.5);
            window.zoomPitch(2);
        }
        assertThat(window.bars()).isEqualTo(TimeWindow.FEWEST_BARS);
        assertThat(window.highest() - window.lowest()).isLessThan((int) all / 4);
        int lowest = window.lowest();
        window.movePitch(100);
        assertThat(window.lowest()).isGreaterThan(lowest);
        assertThat(window.highest()).as("not beyond what there is").isLessThanOrEqualTo(85);
        window.reset();
        assertThat(window.highest() - window.lowest()).isEqualTo((int) all);
        for (int i = 0; i < 40; i++) {
            window.zoomTime(2);
        }
        assertThat(window.bars()).isEqualTo(TimeWindow.MOST_BARS);
    }

    private static Session session(String chain) {
        return new Session(WindowCase.read("{'harpel':1,'parts':[{'name':'Lead','chain':[" + chain + "]}]}"));
    }

    @Test
    void thePlaceBeforeAStageIsWhatItIsGiven() {
        try (Session session =
                session("{'effect':'transpose'},{'split':[{'chain':[{'effect':'echo'},{'effect':'touch'}]}]}")) {
            assertThat(before(session, "lead/transpose")).isEqualTo(Tap.INPUT);
            assertThat(before(session, "lead/split")).isEqualTo("lead/transpose");
            assertThat(before(session, "lead/split.1/echo"))
                    .as("what the split is given")
                    .isEqualTo("lead/transpose");
            assertThat(before(session, "lead/split.1/touch")).isEqualTo("lead/split.1/echo");
            assertThat(Places.of(session.selection().part()))
                    .extracting(Places.Place::name)
                    .as("in the order in which notes come by")
                    .containsExactly(
                            Tap.INPUT,
                            "lead/transpose",
                            "lead/split.1/echo",
                            "lead/split.1/touch",
                            "lead/split",
                            Tap.SOUND);
        }
    }

    private static String before(Session session, String address) {
        return Places.before(session.document(), StageAddress.parse(address)).name();
    }

    /** A quarter has 15,360 ticks and a bar of 4/4 four of them. */
    @ParameterizedTest
    @CsvSource({
        "61440,They come together every bar.",
        "15360,They come together every 1/4 of a bar.",
        "184320,They come together every 3 bars.",
        "23040,They come together every 3/8 of a bar.",
        "1e12,They come together after more than 1000 bars.",
        "NaN,Milliseconds against the grid: they never come together."
    })
    void commonPeriodsAreSaidInBars(double ticks, String words) {
        try (Session session = session("")) {
            assertThat(Words.period(ticks, session.document())).isEqualTo(words);
        }
    }

    @Test
    void anOwnTestPhraseComesBackAsItWas(@TempDir Path folder) throws IOException {
        for (Phrase phrase : TestPhrases.all(Key.C_MAJOR, MeterMap.FOUR_FOUR)) {
            Piece piece = Piece.empty().withPhrase(phrase).withPart("part-1", part -> part.withPhrase(phrase.id()));
            Path file = OwnPhrases.keep(folder, piece, piece.parts().get(0));
            String name = file.getFileName().toString().replace(".mid", "");
            assertThat(OwnPhrases.names(folder)).contains(name);
            Phrase read = OwnPhrases.read(folder, name);
            assertThat(read.length()).isEqualTo(phrase.length());
            // A file counts 960 to a quarter, so places may differ by less than one of those.
            assertThat(read.notes()).hasSameSizeAs(phrase.notes());
            for (int i = 0; i < phrase.notes().size(); i++) {
                assertThat(read.notes().get(i).pitch())
                        .isEqualTo(phrase.notes().get(i).pitch());
                assertThat(read.notes().get(i).tick())
                        .isCloseTo(phrase.notes().get(i).tick(), within(16L));
            }
        }
        Part silent = Piece.empty().parts().get(0);
        assertThatThrownBy(() -> OwnPhrases.keep(folder, Piece.empty(), silent))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessageContaining("hears no phrase");
        assertThat(OwnPhrases.names(folder.resolve("nowhere"))).isEmpty();
    }

    @Test
    void aPieceWithoutPartsIsGivenOneSoThatItCanBeShownAndPlayed() {
        try (Session session = new Session(Piece.empty().withParts(List.of()))) {
            assertThat(session.selection().part().chain().stages()).isEmpty();
            session.replace(Piece.empty().withParts(List.of()), "Open");
            assertThat(session.document().piece().get().parts()).hasSize(1);
        }
    }

    @Test
    void popupsGrowWithEverythingElse() {
        assertThat(Theme.DAY.styles(1)).hasSize(2);
        assertThat(decoded(Theme.DAY.styles(2).get(1))).contains(".tooltip").contains("26.0px");
        assertThat(decoded(Theme.DAY.styles(1).get(1))).doesNotContain("px");
    }

    private static String decoded(String sheet) {
        return new String(
                java.util.Base64.getDecoder().decode(sheet.split(",")[1]), java.nio.charset.StandardCharsets.UTF_8);
    }

    /** 32 parts of four stages that play sixteenths for an hour: 150 bytes a note, 15 MB. */
    @Test
    void allThatIsKeptHasOneBoundAndWhatIsLookedAtGivesWayLast() {
        store.look("part-7");
        long sixteenth = 3840;
        for (int i = 0; i < 3_000; i++) {
            for (int part = 0; part < 32; part++) {
                NoteStart note = NoteStart.played(i * sixteenth, i, 0, 60, 90);
                for (String place : List.of("input", "a", "b", "c", "sound")) {
                    store.take(new Told.Left("part-" + part, place, note));
                    store.take(new Told.Left("part-" + part, place, NoteEnd.plain(note.tick() + 10, note)));
                }
            }
            assertThat(store.keptInAll()).isLessThanOrEqualTo(TraceStore.MOST_IN_ALL);
        }
        assertThat(store.notes(Places.input("part-7"))).hasSize(3_000);
        List<TraceStore.Drawn> unseen = store.notes(Places.input("part-8"));
        assertThat(unseen).hasSizeBetween(300, 700);
        assertThat(unseen.get(unseen.size() - 1).startTick())
                .as("the latest is kept")
                .isEqualTo(2_999 * sixteenth);
        assertThat(store.keptInAll()).isGreaterThan(TraceStore.MOST_IN_ALL * 8 / 10);
    }

    @Test
    void bendsAndControllersCountToo() {
        for (int i = 0; i < 2 * TraceStore.MOST_IN_ALL; i++) {
            store.take(new Told.Left("part-" + i % 40, "sound", Message.control(i, 0, 0, 1, i % 128)));
        }
        assertThat(store.keptInAll()).isBetween(TraceStore.MOST_IN_ALL / 2, TraceStore.MOST_IN_ALL);
    }

    @Test
    void whereSomethingWasNotToldNothingGoesOnForEver() {
        NoteStart note = NoteStart.played(100, 0, 0, 60, 90);
        store.take(new Told.Left("lead", "sound", note));
        store.missed(500);
        TraceStore.Drawn drawn = store.notes(Places.sound("lead")).get(0);
        assertThat(drawn.sounds()).isFalse();
        assertThat(drawn.endTick()).isEqualTo(500);
        assertThat(store.gaps()).containsExactly(500L);
        store.take(new Told.Left("lead", "sound", NoteEnd.plain(900, note)));
        assertThat(drawn.endTick()).isEqualTo(500);
        store.forget();
        assertThat(store.gaps()).isEmpty();
    }
}
