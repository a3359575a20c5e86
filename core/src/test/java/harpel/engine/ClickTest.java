package harpel.engine;

import static org.assertj.core.api.Assertions.assertThat;

import harpel.event.NoteStart;
import harpel.piece.Piece;
import harpel.time.MeterMap;
import harpel.time.TempoMap;
import harpel.time.TimeMap;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;

/** The click and the count-in, against 120 quarters a minute: a beat of 3/4 takes half a second. */
class ClickTest {
    private static final long MS = 1_000_000;

    private final List<String> clicks = new ArrayList<>();
    private final long[] now = {0};
    private final LiveCycle cycle = new LiveCycle(
            Program.of(Piece.empty()
                    .withTime(new TimeMap(TempoMap.of(120), new MeterMap(List.of(MeterMap.Change.parse(0, "3/4")))))),
            () -> now[0],
            new LiveOutput() {
                @Override
                public void send(String port, harpel.event.Event event, long dueNanos) {
                    if (event instanceof NoteStart note) {
                        clicks.add(note.pitch() + " v" + note.velocity() + " channel " + (note.channel() + 1) + " at "
                                + dueNanos / MS);
                    }
                }

                @Override
                public void silence() {}
            },
            Tap.NONE);

    private void run(long untilMs) {
        for (; now[0] <= untilMs * MS; now[0] += 10 * MS) {
            cycle.render(now[0]);
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
                .startsWith(
                        "76 v100 channel 10 at 0",
                        "77 v76 channel 10 at 500",
                        "77 v76 channel 10 at 1000",
                        "76 v100 channel 10 at 1500",
                        "77 v76 channel 10 at 2000",
                        "77 v76 channel 10 at 2500");
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
}
