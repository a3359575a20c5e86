package harpel.engine;

import static org.assertj.core.api.Assertions.assertThat;

import harpel.engine.LiveStatus.Mode;
import harpel.event.Event;
import harpel.event.NoteStart;
import harpel.phrase.Note;
import harpel.phrase.Phrase;
import harpel.piece.Part;
import harpel.piece.Piece;
import harpel.piece.perform.Lever;
import harpel.plan.Program;
import harpel.port.InputPort;
import harpel.port.LiveOutput;
import harpel.run.Tap;
import harpel.testkit.Played;
import harpel.time.Ticks;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;

/** Programs, actions and notes for ticks that are still to come, against a clock of the test's own; 120 quarters a minute. */
class ComingTest {
    private static final long QUARTER = Ticks.PER_QUARTER;
    private static final long MS = 1_000_000;
    private final List<String> heard = new ArrayList<>();
    private long now;
    private LiveCycle cycle;

    private static Piece piece(String chain, double lever) {
        List<Note> notes = new ArrayList<>();
        for (int i = 0; i < 8; i++) {
            notes.add(Note.of(i * QUARTER / 2, QUARTER / 4, 60, 64));
        }
        return Piece.empty()
                .withPhrase(Phrase.of("Tide", 4 * QUARTER, notes))
                .withLevers(List.of(Lever.of("Tide", lever)))
                .withParts(List.of(Part.of("Lead", Played.chain(chain)).withPhrase("tide")));
    }

    private void begin(Piece piece) {
        cycle = new LiveCycle(
                Program.of(piece),
                () -> now,
                new LiveOutput() {
                    @Override
                    public void send(String port, Event event, long dueNanos) {
                        if (event instanceof NoteStart note) {
                            heard.add(note.pitch() + "/" + note.velocity() + "@" + dueNanos / MS);
                        }
                    }

                    @Override
                    public void silence() {
                        // nothing is kept here
                    }
                },
                Tap.NONE);
    }

    private void runTo(long millis) {
        while (now < millis * MS) {
            cycle.render(now);
            now = Math.max(now + 1, Math.min(millis * MS, cycle.nextNanos()));
        }
        cycle.render(now);
    }

    @Test
    void aProgramIsTakenAtItsVeryTick() {
        begin(piece("{'effect':'touch','fixed':50}", 0));
        cycle.play(0);
        cycle.updateAt(QUARTER, Program.of(piece("{'effect':'touch','fixed':90}", 0)), 0);
        runTo(800);
        assertThat(heard).containsExactly("60/50@0", "60/50@250", "60/90@500", "60/90@750");
    }

    @Test
    void severalAreTakenInTheirOrderAndAnEditInBetweenTakesTheirPlace() {
        begin(piece("{'effect':'touch','fixed':50}", 0));
        cycle.play(0);
        cycle.updateAt(2 * QUARTER, Program.of(piece("{'effect':'touch','fixed':90}", 0)), 0);
        cycle.updateAt(QUARTER, Program.of(piece("{'effect':'touch','fixed':70}", 0)), 0);
        runTo(600);
        cycle.update(Program.of(piece("{'effect':'touch','fixed':20}", 0)), now);
        runTo(1_100);
        assertThat(heard).containsExactly("60/50@0", "60/50@250", "60/70@500", "60/20@750", "60/20@1000");
    }

    @Test
    void aLeverGlidesToWhereItIsPut() {
        String chain = "{'effect':'touch','fixed':1,'move':{'fixed':[{'by':'lever','lever':'Tide','amount':100}]}}";
        begin(piece(chain, 0));
        cycle.play(0);
        cycle.updateAt(QUARTER, Program.of(piece(chain, 100)), 2 * QUARTER);
        runTo(1_600);
        List<Integer> velocities = heard.stream()
                .map(one -> Integer.parseInt(one.replaceAll(".*/(\\d+)@.*", "$1")))
                .toList();
        assertThat(velocities.subList(0, 3)).containsExactly(1, 1, 1);
        assertThat(velocities.get(3)).isBetween(30, 35);
        assertThat(velocities.get(4)).isBetween(61, 66);
        assertThat(velocities.get(5)).isBetween(92, 98);
        assertThat(velocities.get(6)).isEqualTo(127);
    }

    @Test
    void aChordIsStruckAndLetGoOfAtItsTick() {
        begin(piece("", 0).withPart("lead", part -> part.withPhrase("")));
        cycle.play(0);
        cycle.strikeAt(QUARTER, InputPort.toPart("lead"), List.of(48, 52), 80);
        runTo(499);
        assertThat(heard).isEmpty();
        runTo(501);
        assertThat(heard).containsExactly("48/80@500", "52/80@500");
        cycle.strikeAt(2 * QUARTER, InputPort.toPart("lead"), List.of(48, 52), 0);
        runTo(1_100);
        assertThat(cycle.status(now).mode()).isEqualTo(Mode.PLAYING);
    }

    @Test
    void whatWaitsIsDoneAtOnceWhereTimeStops() {
        begin(piece("{'effect':'touch','fixed':50}", 0));
        cycle.play(0);
        cycle.updateAt(8 * QUARTER, Program.of(piece("{'effect':'touch','fixed':90}", 0)), 0);
        runTo(100);
        cycle.stop(now);
        cycle.render(now);
        cycle.play(now);
        runTo(400);
        assertThat(heard.get(heard.size() - 1)).startsWith("60/90");
    }

    @Test
    void aNudgeBringsWhatComesLater() {
        begin(piece("", 0));
        cycle.play(0);
        runTo(100);
        cycle.nudge(20 * MS);
        runTo(600);
        assertThat(heard).containsExactly("60/64@0", "60/64@270", "60/64@520");
    }

    @Test
    void whatIsPlayedWhereTimeWasNudgedTakesNoNoteOfThePhraseAway() {
        begin(piece("", 0));
        cycle.play(0);
        // All is rendered up to the tick of the phrase's second note, and no further.
        runTo(249);
        now = 249_970_000;
        cycle.render(now);
        cycle.nudge(20 * MS);
        cycle.strikeAt(0, InputPort.toPart("lead"), List.of(48), 80);
        runTo(600);
        assertThat(heard).containsExactlyInAnyOrder("60/64@0", "48/80@270", "60/64@270", "60/64@520");
    }
}
