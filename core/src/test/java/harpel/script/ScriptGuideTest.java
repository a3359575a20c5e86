package harpel.script;

import static org.assertj.core.api.Assertions.assertThat;

import harpel.chain.Chain;
import harpel.chain.Stage;
import harpel.effect.EffectCatalog;
import harpel.event.Event;
import harpel.event.NoteEnd;
import harpel.event.NoteStart;
import harpel.offline.PrintJob;
import harpel.offline.Tail;
import harpel.plan.Plan;
import harpel.run.Tap;
import harpel.run.Told;
import harpel.testkit.Heard;
import harpel.theory.Key;
import harpel.time.Ticks;
import harpel.time.TimeMap;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;

/** The scripting guide word by word: each script in its table is tried. */
class ScriptGuideTest {
    private static final Pattern ROW = Pattern.compile("^\\| .*? \\| `(.*)` \\| (.*) \\|$", Pattern.MULTILINE);

    static Stream<Arguments> rows() throws IOException {
        String guide = Files.readString(Path.of("../docs/scripting.md"));
        Matcher rows = ROW.matcher(guide.substring(guide.indexOf("## Word by word"), guide.indexOf("## Limits")));
        return rows.results().map(row -> Arguments.of(row.group(1), row.group(2)));
    }

    @ParameterizedTest
    @MethodSource("rows")
    void whatTheGuideSaysIsSo(String code, String heard) throws InterruptedException {
        assertThat(tried(code)).as(code).isEqualTo(heard);
    }

    private static String tried(String code) throws InterruptedException {
        String problem = Script.problem(code);
        if (!problem.isEmpty()) {
            return "says “" + problem + "”";
        }
        List<String> said = new ArrayList<>();
        Tap tap = new Tap() {
            @Override
            public void tell(Told told) {
                if (told instanceof Told.Said one) {
                    said.add("says “" + one.text() + "”");
                }
            }
        };
        Chain chain = Chain.EMPTY.plus(
                0, Stage.of("script", EffectCatalog.of("script")).with(Script.CODE, code));
        NoteStart note = NoteStart.played(0, 0, 0, 60, 100);
        List<Event> heard = new PrintJob(
                        Plan.ofChain("test", chain, Key.C_MAJOR, TimeMap.DEFAULT, 1), "test", Tail.STOP, tap)
                .print(List.of(note, NoteEnd.plain(Ticks.PER_QUARTER, note)), 8 * Ticks.PER_QUARTER)
                .events();
        String all = Stream.concat(Heard.of(heard).stream().map(ScriptGuideTest::shown), said.stream())
                .collect(Collectors.joining(", "));
        return all.isEmpty() ? "nothing" : all;
    }

    private static String shown(Heard note) {
        return note.pitch() + " at " + beats(note.beat()) + " for " + beats(note.length())
                + (note.velocity() == 100 ? "" : " velocity " + note.velocity())
                + (note.channel() == 1 ? "" : " channel " + note.channel());
    }

    private static String beats(double number) {
        return Ticks.shown(Math.round(number * Ticks.PER_QUARTER), Ticks.PER_QUARTER);
    }
}
