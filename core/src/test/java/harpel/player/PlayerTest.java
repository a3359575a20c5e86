package harpel.player;

import static org.assertj.core.api.Assertions.assertThat;

import harpel.chain.Chain;
import harpel.engine.LiveEngine;
import harpel.engine.LiveStatus;
import harpel.piece.Bracket;
import harpel.piece.Part;
import harpel.piece.Piece;
import harpel.port.InputPort;
import harpel.port.Ports;
import harpel.run.Tap;
import harpel.testkit.Played;
import harpel.testkit.RecordingPort;
import harpel.time.MeterMap;
import harpel.time.TempoMap;
import harpel.time.TimeMap;
import java.util.List;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.BooleanSupplier;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;

/** Between the document and the engine: nobody waits, the newest wins, and what is asked for comes in its order. */
class PlayerTest {
    private final Ports ports = new Ports();
    private final LiveEngine engine = new LiveEngine(Piece.empty(), ports, Tap.NONE);
    private final Player player = new Player(engine, Piece.empty());

    @AfterEach
    void close() {
        player.close();
        engine.close();
        ports.close();
    }

    private static void await(BooleanSupplier what) {
        long giveUp = System.nanoTime() + 10_000_000_000L;
        while (!what.getAsBoolean()) {
            assertThat(System.nanoTime()).as("it did not happen within 10 s").isLessThan(giveUp);
            Thread.onSpinWait();
        }
    }

    private static Piece transposed(int octaves) {
        return Piece.empty()
                .withPart(
                        "part-1",
                        part -> part.withChain(Played.chain("{'effect':'transpose','octaves':" + octaves + "}")));
    }

    private Piece heard() {
        return engine.latest().piece();
    }

    /** Holds the player's thread up until it is let go. */
    private CountDownLatch holdUp(AtomicInteger compiled) {
        CountDownLatch go = new CountDownLatch(1);
        player.hear(
                Piece.empty(),
                List.of(new Over(piece -> {
                    compiled.incrementAndGet();
                    try {
                        go.await();
                    } catch (InterruptedException e) {
                        Thread.currentThread().interrupt();
                    }
                    return piece;
                })),
                List.of());
        await(() -> compiled.get() == 1);
        return go;
    }

    @Test
    void ofManyEditsTheNewestIsCompiledAndPlayComesBehindIt() {
        engine.start();
        AtomicInteger compiled = new AtomicInteger();
        CountDownLatch go = holdUp(compiled);
        for (int i = 0; i < 50; i++) {
            Piece piece = transposed(1 + i % 3);
            player.hear(
                    piece,
                    List.of(new Over(one -> {
                        compiled.incrementAndGet();
                        return one;
                    })),
                    List.of());
        }
        player.hear(transposed(2));
        player.play();
        assertThat(player.isDone()).isFalse();
        assertThat(engine.status().mode()).isEqualTo(LiveStatus.Mode.STOPPED);
        go.countDown();
        await(() -> engine.status().mode() == LiveStatus.Mode.PLAYING && player.isDone());
        assertThat(heard()).isEqualTo(transposed(2));
        assertThat(compiled.get()).as("those in between were not compiled").isEqualTo(1);
    }

    @Test
    void silenceWaitsForNobodyAndTakesBackWhatWasAskedForBefore() {
        engine.start();
        AtomicInteger compiled = new AtomicInteger();
        CountDownLatch go = holdUp(compiled);
        player.play();
        player.hear(transposed(3));
        player.silence();
        go.countDown();
        await(player::isDone);
        assertThat(heard()).as("the edit is heard all the same").isEqualTo(transposed(3));
        player.keysTo("part-1");
        await(() -> engine.status().mode() == LiveStatus.Mode.STOPPED);
        assertThat(engine.status().run()).as("it never played").isZero();
    }

    @Test
    void anEditThatCannotBeCompiledIsSaidAndTheNextIsHeard() {
        engine.start();
        player.hear(
                Piece.empty(),
                List.of(new Over(piece -> {
                    throw new IllegalStateException("no such tide");
                })),
                List.of());
        await(() -> engine.status().trouble().contains("no such tide"));
        player.hear(transposed(1));
        await(() -> heard().equals(transposed(1)));
    }

    @Test
    void whatIsLaidOverIsHeardOverEditsAndWhatIsToComeIsLaidInItsOrder() {
        Over over = new Over(piece -> piece.withName(piece.name() + " over"));
        Heard heard = new Heard(
                Piece.empty().withName("A"),
                piece -> piece.withName(piece.name() + " auditioned"),
                List.of(over),
                List.of(
                        Coming.edit(10, piece -> piece.withName("B"), 0),
                        Coming.end(20, over),
                        Coming.begin(30, new Over(piece -> piece.withName(piece.name() + " late")))));
        assertThat(heard.now().name()).isEqualTo("A auditioned over");
        assertThat(heard.later().stream().map(Piece::name))
                .containsExactly("B auditioned over", "B auditioned", "B auditioned late");
    }

    @Test
    void anAuditionIsHeardUntilItIsTakenOffAgain() {
        player.audition(piece -> piece.withName("Heard"));
        await(() -> heard().name().equals("Heard"));
        player.hear(transposed(1));
        await(() -> player.isDone() && heard().equals(transposed(1).withName("Heard")));
        player.audition(piece -> piece);
        await(() -> heard().equals(transposed(1)));
    }

    @Test
    void aLoopOfASixteenthCostsNoMoreThanAnyOther() {
        Piece piece = transposed(1).withTimeline(true).withBracket(new Bracket(0, Bracket.SHORTEST, true));
        player.hear(piece);
        await(() -> heard().equals(piece));
        assertThat(engine.latest().plan().course()).hasSizeLessThan(3);
    }

    /** What is asked of the player reaches the engine and is heard at the port, in the order in which it was asked for. */
    @Test
    void whatIsAskedForIsHeard() {
        RecordingPort recording = new RecordingPort();
        ports.add("Pier", recording);
        Piece piece = Piece.empty()
                .withTime(new TimeMap(TempoMap.of(400), MeterMap.FOUR_FOUR))
                .withParts(List.of(
                        Part.of("Lead", Played.chain("{'effect':'transpose','octaves':1},{'effect':'latch'}"))
                                .withPort("Pier"),
                        Part.of("Bass", Chain.EMPTY).withPort("Pier").withChannel(1)));
        player.hear(piece);
        engine.start();
        player.strikeAt(0, "lead", List.of(50), 90);
        await(() -> heard(recording).equals(List.of("+62")));
        player.letGoAt(0, "lead", List.of(50));
        await(() -> {
            // Not before the key is up.
            player.act("lead", "lead/latch");
            return heard(recording).equals(List.of("+62", "-62"));
        });
        player.strikeAt(0, "lead", List.of(51), 90);
        player.letGoAt(0, "lead", List.of(51));
        await(() -> {
            player.actAt(0, "lead", "lead/latch");
            return heard(recording).size() == 4;
        });
        player.hearDry("lead", true);
        player.strikeAt(0, "lead", List.of(52), 90);
        await(() -> heard(recording).contains("+52"));
        player.letGoAt(0, "lead", List.of(52));
        await(() -> heard(recording).contains("-52"));
        player.keysTo("bass");
        InputPort keys = engine.openInput(InputPort.KEYS);
        keys.offer(0x90, 40, 90, System.nanoTime());
        await(() -> heard(recording).contains("+40"));
        player.silence();
        await(() -> heard(recording).contains("-40"));
        player.locate(12_345);
        await(() -> engine.status().tickAt(System.nanoTime()) == 12_345);
        player.playAfter(1);
        await(() -> engine.status().mode() == LiveStatus.Mode.PLAYING);
        assertThat(engine.status().anchorTick()).isEqualTo(12_345);
        player.stop();
        await(() -> engine.status().mode() == LiveStatus.Mode.STOPPED);
        player.play();
        await(() -> engine.status().mode() == LiveStatus.Mode.PLAYING);
    }

    private static List<String> heard(RecordingPort port) {
        return port.sent().stream()
                .filter(sent -> (sent.message()[0] & 0xE0) == 0x80)
                .map(sent -> ((sent.message()[0] & 0xF0) == 0x90 ? "+" : "-") + sent.message()[1])
                .toList();
    }

    @Test
    void anAuditionIsTakenAtTheBarUnlessAnEditComesWithIt() {
        player.hear(Piece.empty().withTime(new TimeMap(TempoMap.of(60), MeterMap.FOUR_FOUR)));
        engine.start();
        player.play();
        await(() -> engine.status().mode() == LiveStatus.Mode.PLAYING);
        player.audition(piece -> piece.withTime(new TimeMap(TempoMap.of(200), MeterMap.FOUR_FOUR)));
        await(player::isDone);
        // Whatever was handed over before this has been taken.
        engine.trouble("looked");
        await(() -> engine.status().troubles() == 1);
        assertThat(engine.status().tempo().bpmAt(0)).as("a bar takes 4 s").isEqualTo(60);
        player.hear(Piece.empty().withTime(new TimeMap(TempoMap.of(100), MeterMap.FOUR_FOUR)));
        await(() -> engine.status().tempo().bpmAt(0) == 200);
    }
}
