package harpel.engine;

import static org.assertj.core.api.Assertions.assertThat;

import harpel.chain.Chain;
import harpel.effect.EffectCatalog;
import harpel.event.Event;
import harpel.event.NoteEnd;
import harpel.event.NoteStart;
import harpel.piece.Piece;
import harpel.plan.Program;
import harpel.port.InputPort;
import harpel.port.LiveOutput;
import harpel.run.Tap;
import harpel.time.MeterMap;
import harpel.time.TempoMap;
import harpel.time.TimeMap;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;

/**
 * The click and the count-in, against 120 quarters a minute: a beat of 3/4 takes half a second. The cycle is woken when it asks to be, as
 * by the engine, so that what it does not ask for comes late.
 */
class ClickTest {
    private static final long MS = 1_000_000;

    private final List<String> clicks = new ArrayList<>();
    private final List<NoteStart> open = new ArrayList<>();
    private final List<String> notes = new ArrayList<>();
    private final long[] now = {0};
    private final LiveCycle cycle = new LiveCycle(
            Program.of(Piece.empty()
                    .withTime(new TimeMap(TempoMap.of(120), new MeterMap(List.of(MeterMap.Change.parse(0, "3/4")))))
                    .withPart(
                            "part-1",
                            part -> part.withPort("Own").withChain(Chain.EMPTY.plus(0, EffectCatalog.of("arpeggio"))))),
            () -> now[0],
            new LiveOutput() {
                @Override
                public void send(String port, Event event, long dueNanos) {
                    took(port, event, dueNanos);
                }

                @Override
                public void silence() {
                    // what sounds is ended by events
                }
            },
            Tap.NONE);

    private void took(String port, Event event, long dueNanos) {
        if (event instanceof NoteStart note) {
            assertThat(now[0]).as("on time").isEqualTo(dueNanos);
            (port.isEmpty() ? clicks : notes)
                    .add(note.pitch() + " v" + note.velocity() + " channel " + (note.channel() + 1) + " at "
                            + dueNanos / MS);
            open.add(note);
        } else if (event instanceof NoteEnd end) {
            assertThat(open.remove(end.start())).as("it had begun").isTrue();
            assertThat(dueNanos).isGreaterThanOrEqualTo(0);
        }
    }

    private void run(long untilMs) {
        long until = untilMs * MS;
        while (true) {
            cycle.render(now[0]);
            long next = Math.max(now[0] + 1, cycle.nextNanos());
            if (next > until) {
                now[0] = until;
                return;
            }
            now[0] = next;
        }
    }

    @Test
    void oneBarIsCountedInThenItPlaysOnTheBeat() {
        cycle.click(true, 100);
        cycle.playAfter(1, 0);
        run(1400);
        assertThat(cycle.status(now[0]).mode()).as("counted, not played").isEqualTo(LiveStatus.Mode.STOPPED);
        run(2600);
        assertThat(cycle.status(now[0]).mode()).isEqualTo(LiveStatus.Mode.PLAYING);
        assertThat(clicks)
                .containsExactly(
                        "76 v100 channel 10 at 0",
                        "77 v76 channel 10 at 500",
                        "77 v76 channel 10 at 1000",
                        "76 v100 channel 10 at 1500",
                        "77 v76 channel 10 at 2000",
                        "77 v76 channel 10 at 2500");
        assertThat(open).as("each lasts an eighth of a beat").isEmpty();
    }

    @Test
    void aClickThatSoundsEndsWithTheTransport() {
        cycle.click(true, 127);
        cycle.play(0);
        run(510);
        assertThat(open).hasSize(1);
        cycle.stop(now[0]);
        assertThat(open).isEmpty();
        run(4000);
        assertThat(clicks).containsExactly("76 v127 channel 10 at 0", "77 v103 channel 10 at 500");
    }

    @Test
    void aStopEndsTheCountAndWithoutTheClickItPlaysAtOnce() {
        cycle.playAfter(2, 0);
        run(700);
        cycle.stop(now[0]);
        run(9000);
        assertThat(clicks).hasSize(2);
        assertThat(cycle.status(now[0]).mode()).isEqualTo(LiveStatus.Mode.STOPPED);
        cycle.playAfter(0, now[0]);
        run(9600);
        assertThat(cycle.status(now[0]).mode()).isEqualTo(LiveStatus.Mode.PLAYING);
        assertThat(clicks).as("no click is wanted").hasSize(2);
    }

    @Test
    void whoPlaysWhileBarsAreCountedIsHeardInTimeAndTheTransportBeginsAllTheSame() {
        cycle.playAfter(2, 0);
        run(100);
        cycle.take(InputPort.KEYS, new InputPort.Played(0x90, 60, 90, now[0]));
        run(700);
        assertThat(notes).as("the arpeggio goes on between the clicks").hasSizeGreaterThanOrEqualTo(4);
        run(3100);
        assertThat(cycle.status(now[0]).mode()).isEqualTo(LiveStatus.Mode.PLAYING);
        assertThat(clicks).hasSize(6);
    }

    @Test
    void playWhileBarsAreCountedBeginsAtOnceAndIsNotBegunAgain() {
        cycle.playAfter(2, 0);
        run(700);
        cycle.play(now[0]);
        run(4000);
        assertThat(cycle.status(now[0]).run()).as("time began anew once").isEqualTo(1);
        assertThat(clicks).hasSize(2);
    }
}
