package harpel.run;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import harpel.effect.Chance;
import harpel.event.Event;
import harpel.event.EventBuffer;
import harpel.event.EventOrder;
import harpel.event.Message;
import harpel.event.NoteEnd;
import harpel.event.NoteStart;
import harpel.event.OpenNotes;
import harpel.offline.PrintJob;
import harpel.offline.Tail;
import harpel.plan.Plan;
import harpel.testkit.Played;
import harpel.theory.Key;
import harpel.time.TimeMap;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;

class SoundAndChanceTest {
    private static List<String> sounded(Event... events) {
        EventBuffer out = new EventBuffer();
        new SoundRun().process(List.of(events), out);
        return out.stream().map(Event::toString).toList();
    }

    private static NoteStart note(long tick, int velocity) {
        return NoteStart.played(tick, tick, 0, 60, velocity);
    }

    @Test
    void aLaterStartStrikesAgainAtOnce() {
        NoteStart first = note(0, 90);
        NoteStart second = note(10, 80);
        assertThat(sounded(first, second, new NoteEnd(15, first, 64), new NoteEnd(20, second, 64)))
                .containsExactly(
                        "0 start 60 velocity 90 channel 1",
                        "10 end 60 channel 1",
                        "10 start 60 velocity 80 channel 1",
                        "20 end 60 channel 1");
    }

    @Test
    void twoStartsAtOneTickAreOneCausedByBoth() {
        NoteStart soft = note(0, 40);
        NoteStart loud = note(0, 90);
        EventBuffer out = new EventBuffer();
        new SoundRun().process(List.of(soft, loud, new NoteEnd(5, loud, 64), new NoteEnd(9, soft, 64)), out);
        assertThat(out).hasSize(2);
        NoteStart joined = (NoteStart) out.get(0);
        assertThat(joined.velocity()).isEqualTo(90);
        assertThat(joined.descendsFrom(soft)).isTrue();
        assertThat(joined.descendsFrom(loud)).isTrue();
        assertThat(out.get(1).tick()).isEqualTo(9);
    }

    @Test
    void otherChannelsAreOtherVoices() {
        NoteStart one = note(0, 90);
        NoteStart other = NoteStart.played(1, 1, 5, 60, 90);
        assertThat(sounded(one, other, new NoteEnd(3, one, 64), new NoteEnd(4, other, 64)))
                .hasSize(4);
    }

    @Test
    void theOrderOfEventsIsTotal() {
        NoteStart early = NoteStart.played(0, 0, 0, 60, 90);
        List<Event> inOrder = List.of(
                new NoteEnd(7, early, 64),
                Message.control(7, 2, 0, 1, 1),
                NoteStart.played(7, 3, 0, 70, 90),
                NoteStart.played(7, 4, 0, 50, 90),
                NoteStart.played(7, 4, 0, 51, 90),
                new NoteEnd(8, early, 64));
        for (int seed = 0; seed < 20; seed++) {
            List<Event> mixed = new ArrayList<>(inOrder);
            Collections.shuffle(mixed, new Random(seed));
            mixed.sort(EventOrder.INSTANCE);
            assertThat(mixed).containsExactlyElementsOf(inOrder);
            EventBuffer buffer = new EventBuffer();
            List<Event> atSeven = new ArrayList<>(inOrder.subList(0, 5));
            Collections.shuffle(atSeven, new Random(seed));
            buffer.addAll(atSeven);
            buffer.sortTick(0);
            assertThat(buffer).containsExactlyElementsOf(inOrder.subList(0, 5));
        }
    }

    @Test
    void valuesOutsideMidiAreRefusedByName() {
        assertThatThrownBy(() -> NoteStart.played(0, 0, 0, 128, 90)).hasMessage("pitch must be 0–127 but was 128");
        assertThatThrownBy(() -> NoteStart.played(0, 0, 0, 60, 0)).hasMessage("velocity must be 1–127 but was 0");
        assertThatThrownBy(() -> NoteStart.played(0, 0, 16, 60, 9)).hasMessage("channel must be 1–16 but was 17");
        assertThatThrownBy(() -> new NoteEnd(5, note(5, 9), 64)).hasMessageContaining("at least one tick");
        assertThatThrownBy(() -> new Message(0, 0, (byte) 5)).hasMessageContaining("status byte");
        assertThat(NoteStart.clampVelocity(0.4)).isEqualTo(1);
        assertThat(NoteStart.clampVelocity(63.5)).isEqualTo(64);
        assertThat(NoteStart.clampVelocity(400)).isEqualTo(127);
    }

    @Test
    void theLedgerCountsEachNoteOnce() {
        OpenNotes open = new OpenNotes();
        NoteStart note = note(0, 9);
        open.started(note);
        assertThatThrownBy(() -> open.started(note)).isInstanceOf(IllegalStateException.class);
        assertThat(open.isOpen(note)).isTrue();
        assertThat(open.ended(note)).isTrue();
        assertThat(open.ended(note)).isFalse();
        assertThat(open.isEmpty()).isTrue();
    }

    // Chance

    @Test
    void drawsDependOnVariationSeedAddressTickAndNumberAndNothingElse() {
        Chance chance = Chance.of(1, 2, "lead/stray");
        double first = chance.at(100).unit();
        double second = chance.unit();
        assertThat(second).isNotEqualTo(first);
        chance.at(5).unit();
        assertThat(chance.at(100).unit()).isEqualTo(first);
        assertThat(Chance.of(1, 2, "lead/stray").at(100).unit()).isEqualTo(first);
        assertThat(List.of(
                        Chance.of(2, 2, "lead/stray").at(100).unit(),
                        Chance.of(1, 3, "lead/stray").at(100).unit(),
                        Chance.of(1, 2, "lead/stray-2").at(100).unit(),
                        Chance.of(1, 2, "lead/stray").at(101).unit()))
                .doesNotContain(first)
                .doesNotHaveDuplicates();
    }

    /** Twelve bins of 10,000 draws each over many ticks: chi-squared with 11 degrees stays below 31.3 (p = 0.001, standard table). */
    @Test
    void drawsAreEven() {
        Chance chance = Chance.of(9, 0, "x");
        int[] bins = new int[12];
        for (int tick = 0; tick < 120_000; tick++) {
            bins[chance.at(tick * 960L).below(12)]++;
        }
        double sum = 0;
        for (int bin : bins) {
            sum += Math.pow(bin - 10_000, 2) / 10_000;
        }
        assertThat(sum).isLessThan(31.3);
    }

    @Test
    void theEndsOfChanceAreCertain() {
        Chance chance = Chance.of(1, 1, "x");
        for (int tick = 0; tick < 1000; tick++) {
            assertThat(chance.at(tick).percent(0)).isFalse();
            assertThat(chance.percent(100)).isTrue();
            assertThat(chance.around(3)).isBetween(-3, 3);
        }
    }

    // The renderer

    @Test
    void inputInThePastIsRefused() {
        Renderer renderer = new Renderer(
                Plan.ofChain("lead", Played.chain(""), Key.C_MAJOR, TimeMap.DEFAULT, 1), (part, event) -> {}, Tap.NONE);
        renderer.render(100);
        assertThatThrownBy(() -> renderer.play("lead", note(99, 90)))
                .hasMessageContaining("before tick 100")
                .hasMessageContaining("part \"lead\"");
    }

    @Test
    void printingCanBeCancelledAndTellsHowFarItIs() throws Exception {
        Plan plan = Plan.ofChain("lead", Played.chain(""), Key.C_MAJOR, TimeMap.DEFAULT, 1);
        List<Double> done = new ArrayList<>();
        new PrintJob(plan, "lead", Tail.STOP, Tap.NONE).onProgress(done::add).print(List.of(), 4 * 61_440);
        assertThat(done).containsExactly(0.25, 0.5, 0.75, 1.0);
        Thread.currentThread().interrupt();
        assertThatThrownBy(() -> new PrintJob(plan, "lead", Tail.STOP, Tap.NONE).print(List.of(), 61_440))
                .isInstanceOf(InterruptedException.class);
    }

    @Test
    void aRemovedPartEndsItsNotes() {
        List<String> heard = new ArrayList<>();
        Plan two = new Plan(
                Key.C_MAJOR,
                TimeMap.DEFAULT,
                1,
                List.of(Plan.PartPlan.of("a", Played.chain("")), Plan.PartPlan.of("b", Played.chain(""))),
                List.of());
        Renderer renderer = new Renderer(two, (part, event) -> heard.add(part + " " + event), Tap.NONE);
        renderer.play("a", note(0, 90));
        renderer.play("b", note(0, 90));
        renderer.render(10);
        renderer.update(new Plan(Key.C_MAJOR, TimeMap.DEFAULT, 1, two.parts().subList(1, 2), List.of()));
        assertThat(heard).last().isEqualTo("a 10 end 60 channel 1");
        assertThat(heard).hasSize(3);
    }
}
