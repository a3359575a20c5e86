package harpel.engine;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import harpel.clock.ClockOut;
import harpel.engine.LiveStatus.Mode;
import harpel.event.Event;
import harpel.event.Message;
import harpel.event.NoteEnd;
import harpel.event.NoteStart;
import harpel.phrase.Note;
import harpel.phrase.Phrase;
import harpel.piece.Bracket;
import harpel.piece.Part;
import harpel.piece.Piece;
import harpel.plan.Program;
import harpel.port.InputPort;
import harpel.port.LiveOutput;
import harpel.run.Tap;
import harpel.run.Told;
import harpel.testkit.Played;
import harpel.time.Ticks;
import java.util.ArrayList;
import java.util.HexFormat;
import java.util.List;
import org.junit.jupiter.api.Test;

/**
 * Keys beside play, stop, another place, Silence and another machine's clock: what came first is done first, and what is told of keys is
 * what became of them. 120 quarters a minute: a quarter is half a second.
 */
class LiveTransportTest extends OwnClock {
    private static final long CLOCK = 500 * MS / 24;
    private static final double A_TICK = 1.01 / Ticks.PER_QUARTER;
    private static final String LATCH = "{'effect':'latch','until':'add'}";

    private final List<String> heard = new ArrayList<>();
    private final List<String> plain = new ArrayList<>();
    private final List<String> keys = new ArrayList<>();
    private final List<Long> restarts = new ArrayList<>();
    private int silences;

    private static Piece piece(String stages) {
        return Piece.empty().withPart("part-1", part -> part.withChain(Played.chain(stages)));
    }

    private static Piece playing(String stages, int pitch) {
        Phrase phrase = Phrase.of("P", 4 * Ticks.PER_QUARTER, List.of(Note.of(0, 3 * Ticks.PER_QUARTER, pitch, 90)));
        return piece(stages).withPhrase(phrase).withPart("part-1", part -> part.withPhrase("p"));
    }

    private void start(Piece piece) {
        cycle = new LiveCycle(
                Program.of(piece),
                () -> now,
                new LiveOutput() {
                    @Override
                    public void send(String port, Event event, long dueNanos) {
                        words(heard, event);
                    }

                    @Override
                    public void sendPlain(String port, byte[] message, long dueNanos) {
                        plain.add(HexFormat.of().formatHex(message));
                    }

                    @Override
                    public void silence() {
                        silences++;
                    }
                },
                told -> {
                    if (told instanceof Told.Left left && left.place().equals(Tap.KEYS)) {
                        words(keys, left.event());
                    } else if (told instanceof Told.Restarted restarted) {
                        restarts.add(restarted.tick());
                    }
                });
    }

    private static void words(List<String> to, Event event) {
        if (event instanceof NoteStart note) {
            to.add("+" + note.pitch());
        } else if (event instanceof NoteEnd end) {
            to.add("-" + end.start().pitch());
        }
    }

    private void key(int pitch, boolean down) {
        cycle.take(InputPort.KEYS, new InputPort.Played(down ? 0x90 : 0x80, pitch, 100, now));
    }

    private void press(int pitch) {
        key(pitch, true);
        cycle.render(now);
    }

    private void partner(int status, int data1, int data2) {
        cycle.take("Partner", new InputPort.Played(status, data1, data2, now));
    }

    /** Clocks come evenly, a quarter's 24 in half a second. */
    private void clocks(int count) {
        for (int i = 0; i < count; i++) {
            now += CLOCK;
            partner(ClockOut.CLOCK, 0, 0);
            cycle.render(now);
        }
    }

    private List<String> heard() {
        List<String> copy = List.copyOf(heard);
        heard.clear();
        return copy;
    }

    private double quarter() {
        return cycle.status(now).tickAt(now) / Ticks.PER_QUARTER;
    }

    @Test
    void aKeyThatCameBeforePlayIsStruckBeforeItAndGoesOnInIt() {
        start(piece(""));
        key(60, true);
        cycle.play(now);
        cycle.render(now);
        assertThat(heard()).containsExactly("+60", "-60", "+60");
        assertThat(keys).as("what is told of the key").containsExactly("+60", "-60", "+60");
        assertThat(restarts).as("by the key, then by play").containsExactly(0L, 0L);
    }

    @Test
    void playEndsWhatALatchHeldBefore() {
        start(piece(LATCH));
        press(60);
        key(60, false);
        pass(100);
        heard();
        cycle.play(now);
        assertThat(heard()).containsExactly("-60");
    }

    @Test
    void aCountInEndsAllThatSounds() {
        start(piece(LATCH));
        press(60);
        heard();
        cycle.playAfter(1, now);
        assertThat(heard()).containsExactly("-60");
        assertThat(silences).isEqualTo(1);
        assertThat(keys).containsExactly("+60", "-60");
        pass(1_900);
        assertThat(cycle.status(now).mode()).isEqualTo(Mode.STOPPED);
        pass(200);
        assertThat(cycle.status(now).mode()).isEqualTo(Mode.PLAYING);
        assertThat(quarter()).as("it began on the beat").isEqualTo(0.2);
    }

    @Test
    void aCountInIsGivenUpByStopAndBySilence() {
        start(piece(""));
        cycle.playAfter(1, now);
        pass(500);
        cycle.silence(now);
        pass(5_000);
        assertThat(cycle.status(now).run()).as("it never played").isZero();
        cycle.playAfter(1, now);
        pass(500);
        cycle.stop(now);
        pass(5_000);
        assertThat(cycle.status(now).run()).isZero();
    }

    @Test
    void stopForgetsKeysThatAreDown() {
        start(piece(""));
        cycle.play(now);
        press(60);
        pass(100);
        cycle.stop(now);
        assertThat(heard()).containsExactly("+60", "-60");
        assertThat(keys).containsExactly("+60", "-60");
        assertThat(cycle.status(now).mode()).isEqualTo(Mode.STOPPED);
        cycle.play(now);
        pass(100);
        assertThat(heard()).as("it is not struck again").isEmpty();
    }

    @Test
    void anotherPlaceEndsKeysAndLatchesAndPlayGoesOnThere() {
        start(playing(LATCH, 50));
        press(60);
        key(60, false);
        cycle.render(now);
        cycle.locate(8 * Ticks.PER_QUARTER, now);
        cycle.render(now);
        assertThat(heard()).containsExactly("+60", "-60");
        assertThat(quarter()).isEqualTo(8);
        cycle.play(now);
        cycle.render(now);
        pass(100);
        press(62);
        pass(100);
        assertThat(heard()).containsExactly("+50", "+62");
        cycle.locate(4 * Ticks.PER_QUARTER, now);
        cycle.render(now);
        assertThat(heard()).containsExactlyInAnyOrder("-50", "-62", "+50");
        assertThat(quarter()).isEqualTo(4);
        assertThat(cycle.status(now).mode()).isEqualTo(Mode.PLAYING);
        assertThat(restarts).endsWith(4L * Ticks.PER_QUARTER);
    }

    @Test
    void silenceInPlayStandsWhereItWasAndForgetsWhatCameAndWhatIsHeld() {
        start(piece(""));
        cycle.clockTo(List.of("Quay"), now);
        cycle.play(now);
        pass(1_000);
        press(60);
        pass(500);
        key(62, true);
        cycle.silence(now);
        cycle.render(now);
        assertThat(heard()).as("what came and was not struck yet is not").containsExactly("+60", "-60");
        assertThat(plain).as("the other machine stops (FC)").endsWith("fc");
        pass(1_000);
        cycle.play(now);
        assertThat(quarter()).isCloseTo(3, within(A_TICK));
        cycle.render(now);
        assertThat(heard()).isEmpty();
    }

    @Test
    void anErrorEndsWhatSoundsAndTheNextKeyIsHeard() {
        start(piece(LATCH));
        cycle.play(now);
        press(60);
        pass(1_000);
        heard();
        cycle.recover("on purpose", now);
        assertThat(heard()).containsExactly("-60");
        assertThat(restarts).hasSize(2);
        pass(100);
        assertThat(heard()).isEmpty();
        press(62);
        assertThat(heard()).containsExactly("+62");
    }

    // Another machine

    @Test
    void aFollowedClockStartsStopsAndPlacesTime() {
        start(piece(""));
        cycle.followClock("Partner", now);
        partner(ClockOut.POSITION, 16, 1);
        cycle.render(now);
        // 144 sixteenths (MIDI 1.0: the low seven bits come first).
        assertThat(quarter()).isEqualTo(36);
        partner(ClockOut.CONTINUE, 0, 0);
        clocks(25);
        assertThat(cycle.status(now).mode()).isEqualTo(Mode.PLAYING);
        assertThat(cycle.status(now).clock()).isEqualTo("Partner");
        assertThat(quarter()).isBetween(36.9, 37.1);
        partner(ClockOut.STOP, 0, 0);
        cycle.render(now);
        assertThat(cycle.status(now).mode()).isEqualTo(Mode.STOPPED);
        assertThat(cycle.status(now).clock()).isEmpty();
        clocks(25);
        assertThat(cycle.status(now).mode()).as("clocks alone start nothing").isEqualTo(Mode.STOPPED);
        partner(ClockOut.START, 0, 0);
        cycle.render(now);
        assertThat(quarter()).isZero();
        clocks(25);
        assertThat(quarter()).isBetween(0.9, 1.1);
    }

    @Test
    void startAndPositionInPlayEndWhatSounds() {
        start(playing(LATCH, 50));
        cycle.followClock("Partner", now);
        partner(ClockOut.START, 0, 0);
        clocks(24);
        press(60);
        assertThat(heard()).containsExactly("+50", "+60");
        partner(ClockOut.POSITION, 0, 0);
        cycle.render(now);
        assertThat(heard()).containsExactlyInAnyOrder("-50", "-60");
        clocks(2);
        assertThat(heard()).as("it plays on there").containsExactly("+50");
        partner(ClockOut.START, 0, 0);
        cycle.render(now);
        assertThat(heard()).containsExactly("-50");
        clocks(2);
        assertThat(heard()).containsExactly("+50");
    }

    @Test
    void aKeyThatCameBeforeAPositionIsStruckAndEndsThere() {
        start(piece(LATCH));
        cycle.followClock("Partner", now);
        key(60, true);
        partner(ClockOut.POSITION, 4, 0);
        cycle.render(now);
        assertThat(heard()).containsExactly("+60", "-60");
        assertThat(keys).containsExactly("+60");
    }

    @Test
    void aClockThatIsNotFollowedAnyMoreLetsTimeGoOnByItself() {
        start(piece(""));
        cycle.followClock("Partner", now);
        partner(ClockOut.START, 0, 0);
        clocks(24);
        double at = quarter();
        cycle.followClock("", now);
        assertThat(quarter()).isEqualTo(at);
        pass(3_000);
        assertThat(cycle.status(now).mode()).as("it is not lost").isEqualTo(Mode.PLAYING);
        assertThat(quarter()).isBetween(at + 5.9, at + 6.1);
        assertThat(cycle.status(now).trouble()).isEmpty();
    }

    @Test
    void stopAndSilenceLetGoOfAClock() {
        start(piece(""));
        cycle.followClock("Partner", now);
        partner(ClockOut.START, 0, 0);
        cycle.stop(now);
        clocks(3);
        assertThat(cycle.status(now).run())
                .as("stopped by hand while it waited: only for Start")
                .isEqualTo(1);
        partner(ClockOut.START, 0, 0);
        cycle.silence(now);
        clocks(3);
        assertThat(cycle.status(now).mode()).isEqualTo(Mode.STOPPED);
        partner(ClockOut.START, 0, 0);
        clocks(3);
        assertThat(cycle.status(now).mode()).isEqualTo(Mode.PLAYING);
        cycle.stop(now);
        assertThat(cycle.status(now).clock()).isEmpty();
    }

    @Test
    void aPieceBehindItsLoopGoesWhereAnotherLoopBrings() {
        Bracket first = new Bracket(0, 4 * Ticks.PER_QUARTER, true);
        Bracket later = new Bracket(4 * Ticks.PER_QUARTER, 8 * Ticks.PER_QUARTER, true);
        Piece looped = piece("").withTimeline(true).withBracket(first);
        start(looped);
        cycle.play(now);
        pass(5_000);
        assertThat(cycle.status(now).songTickAt(now) / Ticks.PER_QUARTER).isEqualTo(2);
        cycle.update(Program.of(looped.withBracket(later)), now);
        pass(1_500);
        assertThat(cycle.status(now).songTickAt(now) / Ticks.PER_QUARTER)
                .as("it goes on to the loop that comes")
                .isCloseTo(5, within(A_TICK));
        cycle.update(Program.of(looped.withBracket(first)), now);
        assertThat(cycle.status(now).songTickAt(now))
                .as("it is behind that: it comes round")
                .isZero();
        pass(500);
        cycle.update(Program.of(looped.withBracket(first.withOn(false))), now);
        pass(2_000);
        assertThat(cycle.status(now).songTickAt(now) / Ticks.PER_QUARTER).isEqualTo(5);
    }

    @Test
    void onePartIsHeardDryAtATime() {
        Piece piece = Piece.empty()
                .withParts(List.of(
                        Part.of("Lead", Played.chain("{'effect':'transpose','octaves':1}")),
                        Part.of("Bass", Played.chain("{'effect':'transpose','octaves':-1}"))));
        start(piece);
        cycle.hearDry("lead", true);
        press(60);
        assertThat(heard()).containsExactly("+60");
        cycle.hearDry("bass", true);
        cycle.render(now);
        assertThat(heard()).as("the first goes through its chain again").containsExactly("-60", "+72");
        cycle.keysTo("bass");
        press(62);
        cycle.hearDry("bass", false);
        cycle.render(now);
        assertThat(heard()).containsExactly("+62", "-62", "+50");
    }

    @Test
    void aReadyPhraseThatIsEditedEndsTheNoteThatSounds() {
        Piece piece = playing("{'effect':'transpose','octaves':1}", 50);
        Phrase ready = piece.phrase("p").orElseThrow().withReady(true);
        start(piece.withPhrase(ready));
        cycle.play(now);
        pass(100);
        assertThat(heard()).containsExactly("+50");
        cycle.update(
                Program.of(piece.withPhrase(
                        Phrase.of("P", ready.length(), List.of()).withReady(true))),
                now);
        cycle.render(now);
        assertThat(heard()).containsExactly("-50");
    }

    // What may be known

    @Test
    void notesOfKeysAndOfPhrasesAreCountedAndThoseThatAreHeldKnown() {
        start(playing("", 50));
        cycle.play(now);
        pass(100);
        press(60);
        assertThat(cycle.status(now).notesIn()).isEqualTo(2);
        assertThat(cycle.openInputs("part-1")).extracting(NoteStart::pitch).containsExactlyInAnyOrder(50, 60);
    }

    @Test
    void theStatusIsTheSameObjectUntilAnythingOfItIsAnother() {
        Piece piece = piece("").withTimeline(true);
        start(piece);
        List<LiveStatus> all = new ArrayList<>();
        all.add(cycle.status(now));
        assertThat(cycle.status(now)).isSameAs(all.get(0));
        List<Runnable> changes = List.of(
                () -> press(60),
                () -> cycle.take(InputPort.KEYS, new InputPort.Played(0xB0, 20, 64, now)),
                () -> cycle.take(InputPort.KEYS, new InputPort.Played(0xB0, 20, 64, now)),
                () -> cycle.trouble("one"),
                () -> cycle.play(now),
                () -> cycle.nudge(MS),
                () -> cycle.update(Program.of(piece.withBracket(new Bracket(0, 4 * Ticks.PER_QUARTER, true))), now),
                () -> cycle.locate(960, now),
                () -> cycle.stop(now));
        for (Runnable change : changes) {
            change.run();
            LiveStatus after = cycle.status(now);
            assertThat(after).isNotSameAs(all.get(all.size() - 1));
            assertThat(cycle.status(now)).isSameAs(after);
            all.add(after);
        }
        LiveStatus last = all.get(all.size() - 1);
        assertThat(last.notesIn()).isEqualTo(1);
        assertThat(last.lastController()).isEqualTo(20);
        assertThat(last.controllersIn()).isEqualTo(2);
        assertThat(last.trouble()).isEqualTo("one");
    }

    @Test
    void aPartsLengthOfTwoBytesStaysSoAndGoesToItsChannel() {
        List<String> sent = new ArrayList<>();
        cycle = new LiveCycle(
                Program.of(Piece.empty().withPart("part-1", (Part part) -> part.withChannel(5))),
                () -> now,
                (LiveOutputOfMessages) event -> sent.add(HexFormat.of().formatHex(event.bytes())),
                Tap.NONE);
        cycle.take(InputPort.KEYS, new InputPort.Played(0xD2, 77, 0, now));
        cycle.take(InputPort.KEYS, new InputPort.Played(0xC2, 8, 0, now));
        cycle.take(InputPort.KEYS, new InputPort.Played(0xE2, 1, 65, now));
        cycle.render(now);
        assertThat(sent).endsWith("d54d", "c508", "e50141");
    }

    /** Takes messages alone. */
    private interface LiveOutputOfMessages extends LiveOutput {
        void took(Message message);

        @Override
        default void send(String port, Event event, long dueNanos) {
            if (event instanceof Message message) {
                took(message);
            }
        }

        @Override
        default void silence() {}
    }
}
