package harpel.run;

import static org.assertj.core.api.Assertions.assertThat;

import harpel.chain.Chain;
import harpel.effect.Draws;
import harpel.event.Event;
import harpel.event.NoteEnd;
import harpel.event.NoteStart;
import harpel.plan.Plan;
import harpel.testkit.Played;
import harpel.theory.Key;
import harpel.time.TimeMap;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import org.junit.jupiter.api.Test;

/** What a flood of notes may take, and what it may not take from others. */
class LoadTest {
    private static final long SPAN = 200_000;

    private final Set<String> full = new HashSet<>();
    private long refused;

    private static Chain echoes(int count) {
        String echo = "{'effect':'echo','repeats':16,'time':'1 ms','fade':0}";
        return Played.chain(String.join(",", Collections.nCopies(count, echo)));
    }

    /** Forty keys at once through a chain, rendered in blocks of so many ticks. */
    private List<Event> flood(Chain chain, long block) {
        List<Event> heard = new ArrayList<>();
        Tap tap = told -> {
            if (told instanceof Told.Full at) {
                full.add(at.place());
            }
        };
        Renderer renderer = new Renderer(
                Plan.ofChain("lead", chain, Key.C_MAJOR, TimeMap.DEFAULT, 1), (part, event) -> heard.add(event), tap);
        renderer.start(0);
        List<NoteStart> keys = new ArrayList<>();
        for (int pitch = 40; pitch < 80; pitch++) {
            NoteStart key = NoteStart.played(0, 0, 0, pitch, 90);
            keys.add(key);
            renderer.play("lead", key);
        }
        for (NoteStart key : keys) {
            renderer.play("lead", NoteEnd.plain(100, key));
        }
        for (long to = block; to < SPAN; to += block) {
            renderer.render(to);
        }
        renderer.render(SPAN);
        refused = renderer.refused();
        renderer.stop(false);
        return heard;
    }

    @Test
    void everyKeyIsHeardAtTheEndOfAChainThatIsFull() {
        List<Event> heard = flood(echoes(12), SPAN);
        assertThat(heard.stream()
                        .filter(NoteStart.class::isInstance)
                        .filter(event -> event.tick() == 0)
                        .map(event -> ((NoteStart) event).pitch()))
                .as("what was played, before all repeats")
                .hasSize(40)
                .doesNotHaveDuplicates();
        assertThat(refused).isPositive();
        assertThat(full).isNotEmpty();
    }

    @Test
    void whatIsLeftOutIsTheSameInAnyBlocks() {
        List<String> whole = words(flood(echoes(6), SPAN));
        assertThat(refused).isPositive();
        assertThat(words(flood(echoes(6), 1_000))).isEqualTo(whole);
        assertThat(words(flood(echoes(6), 77))).isEqualTo(whole);
    }

    private static List<String> words(List<Event> heard) {
        return heard.stream()
                .filter(NoteStart.class::isInstance)
                .map(event -> event.tick() + " " + ((NoteStart) event).pitch() + " " + ((NoteStart) event).velocity())
                .toList();
    }

    @Test
    void noMoreThanAPartMayCarryIsOpenAtOnceAndAllOfItEnds() {
        int open = 0;
        int most = 0;
        for (Event event : flood(echoes(12), 500)) {
            open += event instanceof NoteStart ? 1 : event instanceof NoteEnd ? -1 : 0;
            most = Math.max(most, open);
        }
        assertThat(open).isZero();
        assertThat(most).isPositive().isLessThanOrEqualTo(Load.PART_MOST / 12);
    }

    @Test
    void aChainThatCarriesLittleLeavesNothingOut() {
        flood(echoes(1), SPAN);
        assertThat(refused).isZero();
        assertThat(full).isEmpty();
    }

    /** Forty keys with 16 repeats each want 680 notes at one stage that carries fewer; what was not started was refused, each once. */
    @Test
    void whatIsRefusedIsCountedNoteByNote() {
        Chain chain = echoes(20);
        long open =
                flood(chain, SPAN).stream().filter(NoteStart.class::isInstance).count();
        assertThat(open).isPositive();
        Load load = new Load();
        load.shareAmong(chain);
        Renderer renderer = new Renderer(
                Plan.ofChain("lead", chain, Key.C_MAJOR, TimeMap.DEFAULT, 1), (part, event) -> {}, Tap.NONE);
        RunContext context = new RunContext(
                Key.C_MAJOR,
                TimeMap.DEFAULT,
                Draws.of(1),
                renderer,
                "lead",
                "lead/echo",
                0,
                Tap.NONE,
                load,
                null,
                true,
                null);
        for (int i = 0; i < 5; i++) {
            assertThat(load.takes(Load.PART_MOST / 20 - 1, context, i)).isTrue();
            assertThat(load.takes(Load.PART_MOST / 20, context, i)).isFalse();
        }
        assertThat(load.refused()).isEqualTo(5);
    }
}
