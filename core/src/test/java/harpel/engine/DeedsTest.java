package harpel.engine;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import harpel.time.Ticks;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;

class DeedsTest {
    private final Deeds deeds = new Deeds();
    private final List<String> done = new ArrayList<>();

    private void add(long tick, boolean edits, String name) {
        deeds.add(tick, edits, now -> done.add(name + " at " + now));
    }

    @Test
    void theyAreDoneByTheirTicksAndAtOneTickAsTheyCame() {
        add(20, false, "late");
        add(10, true, "first");
        add(10, false, "second");
        add(0, false, "soon");
        assertThat(deeds.nextTick()).isZero();
        deeds.doNext(1);
        assertThat(deeds.nextTick()).isEqualTo(10);
        deeds.doAll(2);
        assertThat(done).containsExactly("soon at 1", "first at 2", "second at 2", "late at 2");
        assertThat(deeds.nextTick()).isEqualTo(Ticks.NEVER);
    }

    @Test
    void anotherProgramOutdatesThoseThatTakeOneAndNoOther() {
        add(10, true, "program");
        add(20, false, "strike");
        deeds.forgetEdits();
        assertThat(deeds.nextTick()).isEqualTo(20);
        deeds.doAll(3);
        assertThat(done).containsExactly("strike at 3");
    }

    @Test
    void oneThatFailsIsNotDoneAgain() {
        deeds.add(5, false, now -> {
            throw new IllegalStateException("no such stage");
        });
        add(6, false, "next");
        assertThatThrownBy(() -> deeds.doNext(1)).hasMessage("no such stage");
        deeds.doAll(2);
        assertThat(done).containsExactly("next at 2");
    }
}
