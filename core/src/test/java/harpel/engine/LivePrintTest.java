package harpel.engine;

import static org.assertj.core.api.Assertions.assertThat;

import harpel.event.Event;
import harpel.format.PieceFile;
import harpel.offline.PrintJob;
import harpel.offline.Tail;
import harpel.piece.Mix;
import harpel.piece.Part;
import harpel.piece.Piece;
import harpel.plan.Plan;
import harpel.plan.Program;
import harpel.run.Tap;
import harpel.testkit.Outputs;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** The whole demo piece, six parts that hear one another: what is printed of each part is what was heard of it. */
class LivePrintTest {
    /** As loops, and as its timeline with a ramp, keys that change, blocks past the chain and with variations of their own. */
    @ParameterizedTest
    @CsvSource({"false, 4", "true, 32"})
    void everyPartOfTheDemoIsPrintedAsItWasHeard(boolean timeline, long bars) throws Exception {
        Piece demo = PieceFile.read(Files.readString(Path.of("../demo/the-salt-clock.harpel")));
        Piece piece = demo.withTimeline(timeline)
                .withParts(demo.parts().stream()
                        .map(part -> part.withMix(Mix.PLAIN).withPort(part.id()))
                        .toList());
        long end = piece.time().meter().tickOfBar(bars);
        Map<String, List<String>> heard = new HashMap<>();
        long[] now = {0};
        LiveCycle cycle = new LiveCycle(
                Program.of(piece),
                () -> now[0],
                Outputs.to((port, event) -> {
                    if (event.tick() < end) {
                        heard.computeIfAbsent(port, id -> new ArrayList<>()).add(event.toString());
                    }
                }),
                Tap.NONE);
        cycle.play(0);
        long last = (long) Math.ceil(piece.time().tempo().nanosAt(end)) + 1;
        while (now[0] < last) {
            cycle.render(now[0]);
            now[0] = Math.max(now[0] + 1, Math.min(last, cycle.nextNanos()));
        }
        cycle.render(last);
        for (Part part : piece.parts()) {
            List<String> printed = new PrintJob(Plan.of(piece), part.id(), Tail.STOP, Tap.NONE)
                    .print(Program.of(piece), end).events().stream()
                            .filter(event -> event.tick() < end)
                            .map(Event::toString)
                            .toList();
            assertThat(printed).as(part.name()).isNotEmpty().isEqualTo(heard.get(part.id()));
        }
    }
}
