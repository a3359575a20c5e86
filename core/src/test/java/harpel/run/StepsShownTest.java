package harpel.run;

import static org.assertj.core.api.Assertions.assertThat;

import harpel.event.Message;
import harpel.event.NoteEnd;
import harpel.event.NoteStart;
import harpel.piece.perform.Lever;
import harpel.plan.Plan;
import harpel.testkit.Played;
import harpel.theory.Key;
import harpel.time.Ticks;
import harpel.time.TimeMap;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;

/** What is told to whoever draws: the step that each row has come to, and where a controller brings a lever. */
class StepsShownTest {
    private final List<String> told = new ArrayList<>();
    private final List<String> inForce = new ArrayList<>();
    private final Tap tap = one -> {
        if (one instanceof Told.Stepped at) {
            told.add(at.row() + ":" + at.step());
        } else if (one instanceof Told.Away away) {
            told.add("away " + away.event());
        } else if (one instanceof Told.Lost lost) {
            told.add("lost " + lost.pitch());
        } else if (one instanceof Told.InForce now) {
            inForce.add(now.param() + " " + now.value());
        } else if (one instanceof Told.Drives now) {
            inForce.add("lane " + (now.row() + 1) + ": " + now.pitch());
        } else if (one instanceof Told.LeverAt at) {
            told.add(at.name() + " " + Math.round(at.value() * 127));
        }
    };

    /** What is told in so many quarters while these pitches are held from the start and the transport runs. */
    private List<String> steps(String stages, double quarters, int... pitches) {
        Plan plan = Plan.ofChain("lead", Played.chain(stages), Key.C_MAJOR, TimeMap.DEFAULT, 1);
        Renderer renderer = new Renderer(plan, (part, event) -> {}, tap);
        renderer.start(0);
        for (int pitch : pitches) {
            NoteStart note = NoteStart.played(0, 0, 0, pitch, 100);
            renderer.play("lead", note);
            renderer.play("lead", NoteEnd.plain(100 * Ticks.PER_QUARTER, note));
        }
        renderer.render(Math.round(quarters * Ticks.PER_QUARTER));
        List<String> copy = List.copyOf(told);
        told.clear();
        return copy;
    }

    @Test
    void anArpeggioTellsTheStepOfItsPatternOrOfItsOrder() {
        assertThat(steps("{'effect':'arpeggio','pattern':[{},{'play':'rest'},{}]}", 1, 60, 64))
                .containsExactly("0:0", "0:1", "0:2", "0:0");
        assertThat(steps("{'effect':'arpeggio','octaves':2}", 1.25, 60, 64))
                .containsExactly("0:0", "0:1", "0:2", "0:3", "0:0");
        assertThat(steps("{'effect':'arpeggio','order':'together'}", 0.5, 60, 64))
                .containsExactly("0:0", "0:0");
    }

    @Test
    void eachLaneAndEachCycleTellsItsOwn() {
        assertThat(steps("{'effect':'lanes','lanes':[{'steps':'x.'},{'steps':'x..'}]}", 1, 60, 64))
                .containsExactly("0:0", "1:0", "0:1", "1:1", "0:0", "1:2", "0:1", "1:0");
        List<String> cycles = steps(
                "{'effect':'polymeter','rows':[{'values':[0,1,2]},{'of':'octave','values':[0,1],'pace':'x2'}]}", 0.75);
        assertThat(cycles).filteredOn(one -> one.startsWith("0:")).containsExactly("0:0", "0:1", "0:2");
        assertThat(cycles).filteredOn(one -> one.startsWith("1:")).containsExactly("1:0", "1:0", "1:0");
    }

    @Test
    void eachLaneTellsWhichHeldNoteItHas() {
        String two = "'lanes':[{'steps':'x'},{'steps':'x'}]}";
        steps("{'effect':'lanes'," + two, 0.5, 64, 60, 67);
        assertThat(inForce).containsExactly("lane 1: 60", "lane 2: 64");
        inForce.clear();
        steps("{'effect':'lanes','rank':'stay'," + two, 101, 64, 60);
        assertThat(inForce).endsWith("lane 1: -1", "lane 2: -1");
    }

    @Test
    void aPulseTellsItsStepAndEachMarbleItsCell() {
        assertThat(steps("{'effect':'pulse','steps':3}", 1)).containsExactly("0:0", "0:1", "0:2", "0:0");
        // Eight columns: a marble that goes right along the lowest row is in cells 1, 2, 3, …
        assertThat(steps("{'effect':'carom','cells':[],'marbles':[{},{'row':2,'pace':'1/4'}]}", 2))
                .containsExactly("0:1", "0:2", "1:9", "0:3");
    }

    @Test
    void whatLeavesAndWhatIsLostIsTold() {
        assertThat(steps("{'effect':'send','to':'output:Pier','way':'instead'}", 1, 60))
                .containsExactly("away 0 start 60 velocity 100 channel 1");
        String bend = "{'effect':'note-bend','bend-range':2,'out-of-range':'";
        assertThat(steps(bend + "drop'}", 1, 60, 62, 63))
                .as("within and without")
                .containsExactly("lost 63");
        assertThat(steps(bend + "clip'}", 1, 57)).containsExactly("lost 57");
    }

    @Test
    void theRootInForceIsTold() {
        steps("{'effect':'polymeter','start':'key'}", 0.2, 62);
        assertThat(inForce).containsExactly("root 62");
        inForce.clear();
        steps("{'effect':'pulse','root':'E4'}", 4, 62);
        assertThat(inForce).as("keys pass by; told once, not at every step").containsExactly("root 64");
    }

    @Test
    void aControllerThatHasTakenALeverOverTellsWhereItIs() {
        Plan plan = Plan.ofChain("lead", Played.chain("{'effect':'touch'}"), Key.C_MAJOR, TimeMap.DEFAULT, 1);
        Plan withLever =
                new Plan(plan.key(), plan.time(), plan.variation(), plan.parts(), List.of(Lever.of("Tide", 50, 21)));
        Renderer renderer = new Renderer(withLever, (part, event) -> {}, tap);
        for (int value : new int[] {10, 40, 70, 90}) {
            renderer.play("lead", Message.control(renderer.position(), 0, 0, 21, value));
            renderer.render(renderer.position() + 10);
        }
        assertThat(told).as("soft: not before it has come to 50 %").containsExactly("Tide 70", "Tide 90");
    }
}
