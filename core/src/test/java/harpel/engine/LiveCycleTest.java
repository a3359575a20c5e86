package harpel.engine;

import static org.assertj.core.api.Assertions.assertThat;

import harpel.engine.LiveStatus.Mode;
import harpel.event.Event;
import harpel.event.Message;
import harpel.event.NoteEnd;
import harpel.event.NoteStart;
import harpel.phrase.Note;
import harpel.phrase.Phrase;
import harpel.piece.Part;
import harpel.piece.Piece;
import harpel.plan.Program;
import harpel.port.InputPort;
import harpel.port.LiveOutput;
import harpel.run.Tap;
import harpel.testkit.Played;
import harpel.time.Ticks;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;

/** The live engine against a clock of the test's own; 120 bpm, so a quarter is half a second. */
class LiveCycleTest extends OwnClock {
    private final List<String> heard = new ArrayList<>();
    private final List<Long> dues = new ArrayList<>();
    private int silences;

    private Piece piece(String stages) {
        return Piece.empty().withPart("part-1", part -> part.withChain(Played.chain(stages)));
    }

    private void start(Piece piece) {
        cycle = new LiveCycle(
                Program.of(piece),
                () -> now,
                new LiveOutput() {
                    @Override
                    public void send(String port, Event event, long dueNanos) {
                        if (event instanceof Message message && !message.isController(1)) {
                            return;
                        }
                        dues.add(dueNanos);
                        if (event instanceof NoteStart note) {
                            heard.add("+" + note.pitch());
                        } else if (event instanceof NoteEnd end) {
                            heard.add("-" + end.start().pitch());
                        } else {
                            heard.add("message");
                        }
                    }

                    @Override
                    public void silence() {
                        silences++;
                    }
                },
                Tap.NONE);
    }

    private void press(int pitch) {
        cycle.take(InputPort.KEYS, new InputPort.Played(0x90, pitch, 100, now));
        cycle.render(now);
    }

    private void release(int pitch) {
        cycle.take(InputPort.KEYS, new InputPort.Played(0x80, pitch, 64, now));
        cycle.render(now);
    }

    private List<String> heard() {
        List<String> copy = List.copyOf(heard);
        heard.clear();
        return copy;
    }

    @Test
    void aKeyIsHeardAtOnceAndTheChainsOwnClockStartsWithIt() {
        start(piece("{'effect':'arpeggio','pace':'1/4','gate':50}"));
        now = 123 * MS;
        assertThat(cycle.status(now).mode()).isEqualTo(Mode.STOPPED);
        press(60);
        assertThat(heard()).containsExactly("+60");
        assertThat(cycle.status(now).mode()).isEqualTo(Mode.KEYS);
        pass(1100);
        assertThat(heard()).containsExactly("-60", "+60", "-60", "+60");
        release(60);
        pass(500);
        assertThat(heard()).containsExactly("-60");
        assertThat(cycle.status(now).mode()).isEqualTo(Mode.STOPPED);
        assertThat(cycle.nextNanos()).isEqualTo(Long.MAX_VALUE);
    }

    @Test
    void eventsAreDueAtTheirMoment() {
        start(piece("{'effect':'arpeggio','pace':'1/4','gate':50}"));
        now = 7;
        press(60);
        pass(1000);
        assertThat(dues).containsExactly(7L, 7 + 250 * MS, 7 + 500 * MS, 7 + 750 * MS, 7 + 1000 * MS);
    }

    @Test
    void thePhraseLoopsUntilTheStopAndEverythingEndsThere() {
        Phrase phrase = Phrase.of("P", 2 * Ticks.PER_QUARTER, List.of(Note.of(0, Ticks.PER_QUARTER, 50, 90)));
        start(piece("{'effect':'latch','until':'add'}")
                .withPhrase(phrase)
                .withPart("part-1", part -> part.withPhrase("p")));
        cycle.play(now);
        cycle.render(now);
        pass(2200);
        assertThat(heard()).containsExactly("+50", "-50", "+50", "-50", "+50");
        cycle.stop(now);
        assertThat(heard()).containsExactly("-50");
        assertThat(cycle.status(now).mode()).isEqualTo(Mode.STOPPED);
        pass(3000);
        assertThat(heard()).isEmpty();
    }

    @Test
    void repeatsSetToRingOutDoSoAfterTheStop() {
        Phrase phrase = Phrase.of("P", 8 * Ticks.PER_QUARTER, List.of(Note.of(0, 100, 50, 90)));
        start(piece("{'effect':'echo','repeats':3,'time':'1/4','ring-out':true}")
                .withPhrase(phrase)
                .withPart("part-1", part -> part.withPhrase("p")));
        cycle.play(now);
        pass(600);
        heard();
        cycle.stop(now);
        pass(3000);
        assertThat(heard()).containsExactly("+50", "-50", "+50", "-50");
        assertThat(cycle.status(now).mode()).isEqualTo(Mode.STOPPED);
    }

    @Test
    void silenceEndsNotesWaitingRepeatsAndLatches() {
        start(piece("{'effect':'latch'},{'effect':'echo','repeats':8,'time':'1/4'}"));
        press(60);
        release(60);
        pass(700);
        heard();
        cycle.silence(now);
        assertThat(heard()).containsExactly("-60");
        assertThat(silences).isEqualTo(1);
        pass(9000);
        assertThat(heard()).isEmpty();
    }

    @Test
    void heldKeysGoOnInTheTransportsTime() {
        start(piece("{'effect':'arpeggio','pace':'1/4','gate':50}"));
        press(60);
        pass(100);
        heard();
        cycle.play(now);
        cycle.render(now);
        assertThat(heard()).containsExactly("-60", "+60");
        pass(100);
        release(60);
        cycle.stop(now);
        assertThat(heard()).containsExactly("-60");
    }

    @Test
    void hearingDryIsInTimeAndLeavesNothingHanging() {
        start(piece("{'effect':'transpose','octaves':1}"));
        press(60);
        cycle.hearDry("part-1", true);
        assertThat(heard()).containsExactly("+72", "-72", "+60");
        pass(10);
        cycle.hearDry("part-1", false);
        cycle.render(now);
        assertThat(heard()).containsExactly("-60", "+72");
        pass(10);
        release(60);
        pass(10);
        assertThat(heard()).containsExactly("-72");
    }

    @Test
    void anEditWhileANoteSoundsStrandsNothingAndInterruptsNothingElse() {
        start(piece("{'effect':'transpose','octaves':1},{'effect':'touch','fixed':50}"));
        press(60);
        heard();
        pass(10);
        cycle.update(
                Program.of(
                        piece(
                                "{'effect':'transpose','octaves':1},{'effect':'echo','repeats':1,'time':'1/4'},{'effect':'touch','fixed':50}")),
                now);
        assertThat(heard()).as("a stage put in lets what sounds go on").isEmpty();
        cycle.update(
                Program.of(piece("{'effect':'echo','repeats':1,'time':'1/4'},{'effect':'touch','fixed':50}")), now);
        assertThat(heard()).as("a stage taken out ends what it made").containsExactly("-72");
        release(60);
        pass(1000);
        assertThat(heard()).isEmpty();
    }

    @Test
    void anArpeggioPutIntoAHeldChordTakesItOver() {
        start(piece("{'effect':'transpose'}"));
        press(60);
        press(64);
        heard();
        pass(100);
        cycle.update(Program.of(piece("{'effect':'transpose'},{'effect':'arpeggio','pace':'1/4','gate':50}")), now);
        assertThat(heard()).containsExactly("-60", "-64");
        pass(1200);
        assertThat(heard()).containsExactly("+60", "-60", "+64", "-64");
        release(60);
        release(64);
        pass(500);
        assertThat(heard()).isEmpty();
    }

    @Test
    void aTempoChangeWhilePlayingKeepsThePosition() {
        start(piece(""));
        cycle.play(now);
        pass(1000);
        Piece faster = piece("")
                .withTime(new harpel.time.TimeMap(harpel.time.TempoMap.of(240), harpel.time.MeterMap.FOUR_FOUR));
        cycle.update(Program.of(faster), now);
        assertThat(cycle.status(now).tickAt(now)).isEqualTo(2 * Ticks.PER_QUARTER);
        pass(1000);
        assertThat(cycle.status(now).tickAt(now)).isEqualTo(6 * Ticks.PER_QUARTER);
    }

    @Test
    void aPartThatRunsByTheTransportIsNotStartedByKeys() {
        Piece piece = Piece.empty();
        start(piece.withPart("part-1", part -> part.withRun(Part.Run.TRANSPORT).withChannel(4)));
        press(60);
        assertThat(heard()).isEmpty();
        cycle.play(now);
        press(60);
        assertThat(heard()).containsExactly("+60");
    }

    @Test
    void controllersPassWhileTimeStands() {
        start(piece(""));
        cycle.take(InputPort.KEYS, new InputPort.Played(0xB0, 1, 64, now));
        cycle.render(now);
        assertThat(heard()).containsExactly("message");
    }

    @Test
    void pressingAKeyAgainWithoutLettingGoEndsTheFirst() {
        start(piece(""));
        press(60);
        pass(10);
        press(60);
        assertThat(heard()).containsExactly("+60", "-60", "+60");
        release(60);
        release(60);
        assertThat(heard()).containsExactly("-60");
    }

    @Test
    void aPlayedRootFollowsTheLowestHeldNoteOfAnotherPart() {
        Part bass = Part.of("Bass", harpel.chain.Chain.EMPTY);
        Part lead = Part.of(
                "Lead",
                Played.chain(
                        "{'effect':'scale-fit','root':'played','scale':'major','rule':'down','listen-to':'bass'}"));
        start(Piece.empty().withParts(List.of(bass, lead)));
        cycle.keysTo("lead");
        press(66);
        assertThat(heard()).as("nothing held yet").containsExactly("+66");
        release(66);
        heard();
        cycle.keysTo("bass");
        press(48);
        cycle.keysTo("lead");
        press(66);
        assertThat(heard()).containsExactly("+48", "+65");
    }

    /** Bars of two seconds: what waits is taken exactly there, also by a turn that comes late, with keys played before and after. */
    @Test
    void whatWaitsForTheBarIsTakenExactlyThere() {
        Phrase low = Phrase.of("Low", Ticks.PER_QUARTER, List.of(Note.of(0, 1000, 50, 90)));
        Phrase high = Phrase.of("High", Ticks.PER_QUARTER, List.of(Note.of(0, 1000, 70, 90)));
        Piece before = piece("").withPhrase(low).withPhrase(high).withPart("part-1", part -> part.withPhrase("low"));
        Piece after = before.withPart(
                "part-1",
                part -> part.withPhrase("high").withChain(Played.chain("{'effect':'transpose','semitones':1}")));
        start(before);
        cycle.play(now);
        cycle.render(now);
        pass(600);
        assertThat(heard()).containsExactly("+50", "-50", "+50", "-50");
        cycle.updateAtBar(Program.of(after), now);
        pass(1300);
        assertThat(heard()).as("the bar goes on as it was").containsExactly("+50", "-50", "+50", "-50");
        assertThat(cycle.nextNanos()).as("it wakes for it").isEqualTo(2000 * MS);
        // Both keys come before the engine wakes, late: one belongs to the bar before, one to that after.
        cycle.take(InputPort.KEYS, new InputPort.Played(0x90, 40, 100, 1950 * MS));
        cycle.take(InputPort.KEYS, new InputPort.Played(0x90, 44, 100, 2050 * MS));
        now = 2100 * MS;
        cycle.render(now);
        // The key that is down when the transposing comes is struck anew by it, as with any edit.
        assertThat(heard()).contains("+40", "+71", "+45").doesNotContain("+50", "+44");
        cycle.stop(now);
        assertThat(cycle.status(now).mode()).isEqualTo(Mode.STOPPED);
    }

    @Test
    void whatWaitsForTheBarIsTakenAtOnceWhileTimeStandsAndAnEditTakesItsPlace() {
        Phrase low = Phrase.of("Low", Ticks.PER_QUARTER, List.of(Note.of(0, 1000, 50, 90)));
        Piece silent = piece("").withPhrase(low);
        Piece playing = silent.withPart("part-1", part -> part.withPhrase("low"));
        start(silent);
        cycle.updateAtBar(Program.of(playing), now);
        cycle.play(now);
        pass(100);
        assertThat(heard()).containsExactly("+50", "-50");
        cycle.updateAtBar(Program.of(silent), now);
        cycle.update(Program.of(playing), now);
        pass(2500);
        assertThat(heard()).as("the edit came later, and counts").hasSize(10);
        cycle.updateAtBar(Program.of(silent), now);
        cycle.stop(now);
        cycle.play(now);
        pass(2500);
        assertThat(heard().stream().filter("+50"::equals).count())
                .as("at the start of play at the latest")
                .isLessThan(2);
    }

    @Test
    void whatWaitsForTheBarIsTakenOnTheBarLineItselfWhereTimeIsThere() {
        Phrase low = Phrase.of("Low", Ticks.PER_QUARTER, List.of(Note.of(0, 1000, 50, 90)));
        Phrase high = Phrase.of("High", Ticks.PER_QUARTER, List.of(Note.of(0, 1000, 70, 90)));
        Piece before = piece("").withPhrase(low).withPhrase(high).withPart("part-1", part -> part.withPhrase("low"));
        start(before);
        cycle.play(now);
        // Nothing has been rendered: time is on the first bar line.
        cycle.updateAtBar(Program.of(before.withPart("part-1", part -> part.withPhrase("high"))), now);
        pass(100);
        assertThat(heard()).containsExactly("+70", "-70");
    }

    @Test
    void aNoteWhosePitchIsEditedWhileItSoundsEndsThere() {
        Phrase phrase = Phrase.of("Low", 4 * Ticks.PER_QUARTER, List.of(Note.of(0, 3 * Ticks.PER_QUARTER, 50, 90)));
        Piece piece = piece("").withPhrase(phrase).withPart("part-1", part -> part.withPhrase("low"));
        start(piece);
        cycle.play(now);
        pass(400);
        assertThat(heard()).containsExactly("+50");
        Note note = phrase.notes().get(0);
        Piece longer = piece.withPhrase(phrase.withNotes(phrase.notes().with(note.withLength(2 * Ticks.PER_QUARTER))));
        cycle.update(Program.of(longer), now);
        pass(100);
        assertThat(heard()).as("another length leaves it alone").isEmpty();
        cycle.update(Program.of(piece.withPhrase(phrase.withNotes(phrase.notes().with(note.withPitch(54))))), now);
        pass(1000);
        assertThat(heard()).as("another pitch does not").containsExactly("-50");
    }

    /** Time goes on while the work that was given up was done: it stands where that began, a quarter on at most. */
    @Test
    void afterATroubleInPlayItStandsNoMoreThanAQuarterBehindWhatWasHeard() {
        start(piece(""));
        cycle.play(now);
        pass(1000);
        now += 5_000 * MS;
        cycle.recover("on purpose", now);
        assertThat(cycle.status(now).mode()).isEqualTo(Mode.STOPPED);
        assertThat(cycle.status(now).tickAt(now) / Ticks.PER_QUARTER).isBetween(2.9, 3.01);
        assertThat(cycle.status(now).trouble()).isEqualTo("on purpose");
    }
}
