package harpel.engine;

import static org.assertj.core.api.Assertions.assertThat;

import harpel.event.Event;
import harpel.event.Message;
import harpel.event.NoteEnd;
import harpel.event.NoteStart;
import harpel.piece.Preset;
import harpel.plan.Patch;
import harpel.plan.Patch.Way;
import harpel.port.LiveOutput;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;

/**
 * Where notes go and what instruments are told: bank select is controllers 0 and 32, volume controller 7, a program change has one data
 * byte (MIDI 1.0). A tick is due after ten nanoseconds, and it is the seventh.
 */
class WaysOutTest {
    private static final long NOW = 7;
    private final List<String> sent = new ArrayList<>();
    private final Deque<String> opened = new ArrayDeque<>();
    private final WaysOut ways = new WaysOut(
            new LiveOutput() {
                @Override
                public void send(String port, Event event, long dueNanos) {
                    sent.add(port + " " + words(event) + " at " + dueNanos);
                }

                @Override
                public void silence() {
                    sent.add("silence");
                }

                @Override
                public String takeOpened() {
                    return opened.poll();
                }
            },
            () -> NOW,
            tick -> tick * 10);

    private static String words(Event event) {
        if (event instanceof NoteStart note) {
            return "+" + note.pitch() + " on " + note.channel();
        }
        if (event instanceof NoteEnd end) {
            return "-" + end.start().pitch() + " on " + end.start().channel();
        }
        Message message = (Message) event;
        boolean program = (message.status() & 0xF0) == Message.PROGRAM_CHANGE;
        return (program ? "program " : "controller " + message.data(1) + " = ")
                + message.data(program ? 1 : 2)
                + " on "
                + message.channel();
    }

    private static NoteStart note(long tick, int pitch) {
        return NoteStart.played(tick, pitch, 3, pitch, 90);
    }

    private static Way way(String part, String port, int channel) {
        return new Way(part, port, channel, true, null, Patch.OWN_VOLUME);
    }

    private static Way drums(Preset preset, int volume) {
        return new Way("drums", "Pier", 9, true, preset, volume);
    }

    private void take(long position, Way... now) {
        Map<String, Way> map = new LinkedHashMap<>();
        for (Way way : now) {
            map.put(way.part(), way);
        }
        ways.take(map, position);
    }

    private List<String> sent() {
        List<String> copy = List.copyOf(sent);
        sent.clear();
        return copy;
    }

    @Test
    void aNoteEndsWhereItBeganWhereverItsPartGoesByThen() {
        take(0, way("lead", "Pier", 3));
        NoteStart note = note(2, 60);
        ways.send("lead", note);
        take(3, way("lead", "Quay", 3));
        ways.send("lead", note(4, 62));
        ways.send("lead", NoteEnd.plain(5, note));
        assertThat(sent()).containsExactly("Pier +60 on 3 at 20", "Quay +62 on 3 at 40", "Pier -60 on 3 at 50");
        ways.send("lead", NoteEnd.plain(6, note));
        assertThat(sent()).as("it has ended").isEmpty();
    }

    @Test
    void whatAStageSendsPastAllPartsGoesToTheOutputItNames() {
        ways.send("output:Quay", note(1, 60));
        ways.send("Mole", note(2, 61));
        assertThat(sent()).containsExactly("Quay +60 on 3 at 10", "Mole +61 on 3 at 20");
    }

    @Test
    void notesOfAPartThatIsNotHeardAnyMoreEndInTheirOrderAndNoneBegins() {
        Way lead = way("lead", "Pier", 3);
        take(0, lead, way("bass", "Quay", 3));
        ways.send("lead", note(9, 64));
        ways.send("lead", note(2, 60));
        ways.send("bass", note(2, 40));
        sent();
        take(5, new Way("lead", "Pier", 3, false, null, Patch.OWN_VOLUME), way("bass", "Quay", 3));
        assertThat(sent())
                .as("no end comes before its start")
                .containsExactly("Pier -60 on 3 at 50", "Pier -64 on 3 at 100");
        ways.send("lead", note(6, 66));
        ways.send("lead", Message.control(6, 0, 3, 1, 64));
        assertThat(sent()).as("controllers go on").containsExactly("Pier controller 1 = 64 on 3 at 60");
        take(7);
        assertThat(sent()).as("a part that has gone ends its notes itself").isEmpty();
    }

    @Test
    void anInstrumentIsToldItsSoundWhereItIsNewOrAnother() {
        take(0, drums(Preset.of(8), Patch.OWN_VOLUME));
        assertThat(sent()).as("bank 0 is there already").containsExactly("Pier program 8 on 9 at 7");
        take(0, drums(Preset.of(8), Patch.OWN_VOLUME));
        assertThat(sent()).as("the same again").isEmpty();
        take(0, drums(new Preset(3 * 128 + 5, 8), Patch.OWN_VOLUME));
        assertThat(sent())
                .containsExactly(
                        "Pier controller 0 = 3 on 9 at 7",
                        "Pier controller 32 = 5 on 9 at 7",
                        "Pier program 8 on 9 at 7");
        take(0, drums(Preset.of(8), Patch.OWN_VOLUME));
        assertThat(sent())
                .as("a bank that was told stays until another is")
                .containsExactly(
                        "Pier controller 0 = 0 on 9 at 7",
                        "Pier controller 32 = 0 on 9 at 7",
                        "Pier program 8 on 9 at 7");
        take(0, drums(null, Patch.OWN_VOLUME));
        assertThat(sent()).isEmpty();
        take(0, drums(Preset.of(1), Patch.OWN_VOLUME));
        assertThat(sent()).containsExactly("Pier program 1 on 9 at 7");
    }

    @Test
    void aMelodicSoundIsToldOnAllChannelsButThatOfDrums() {
        take(0, new Way("lead", "Pier", 2, true, Preset.of(4), 50));
        List<String> told = sent();
        assertThat(told).hasSize(30).noneMatch(one -> one.contains("on 9"));
        assertThat(told).contains("Pier program 4 on 15 at 7", "Pier controller 7 = 50 on 15 at 7");
    }

    @Test
    void aVolumeIsToldWhereItIsSetOrChanges() {
        take(0, drums(null, 100));
        assertThat(sent()).containsExactly("Pier controller 7 = 100 on 9 at 7");
        take(0, drums(null, 100));
        assertThat(sent()).isEmpty();
        take(0, drums(null, Patch.OWN_VOLUME));
        assertThat(sent()).as("its own again is the loudest").containsExactly("Pier controller 7 = 127 on 9 at 7");
        take(0, new Way("drums", "Quay", 9, true, null, Patch.OWN_VOLUME));
        assertThat(sent()).as("nothing was told there").isEmpty();
        take(0, new Way("drums", "Quay", 9, true, null, 0));
        assertThat(sent()).containsExactly("Quay controller 7 = 0 on 9 at 7");
    }

    @Test
    void anOutputThatWasOpenedIsToldWhatThereIs() {
        take(0, drums(Preset.of(8), 90), way("lead", "Quay", 3));
        sent();
        opened.add("Mole");
        opened.add("Pier");
        ways.tellOpened();
        assertThat(sent()).containsExactly("Pier program 8 on 9 at 7", "Pier controller 7 = 90 on 9 at 7");
        ways.tellOpened();
        assertThat(sent()).isEmpty();
    }

    @Test
    void allThatSoundsEndsInItsOrder() {
        take(0, way("lead", "Pier", 3), way("bass", "Quay", 3));
        ways.send("lead", note(4, 64));
        ways.send("bass", note(2, 40));
        ways.send("lead", note(3, 60));
        sent();
        ways.endAll(99);
        assertThat(sent()).containsExactly("Quay -40 on 3 at 99", "Pier -60 on 3 at 99", "Pier -64 on 3 at 99");
    }

    @Test
    void whatWasEndedOtherwiseIsForgotten() {
        take(0, way("lead", "Pier", 3));
        NoteStart note = note(2, 60);
        ways.send("lead", note);
        ways.forget();
        sent();
        ways.send("lead", NoteEnd.plain(3, note));
        ways.endAll(99);
        assertThat(sent()).isEmpty();
    }

    @Test
    void aTestNoteSoundsOnTheChannelOfAPartThatGoesThereAndEndsTheOneBefore() {
        take(0, way("bass", "Quay", 5), way("lead", "Pier", 3));
        ways.testNote("Pier", 60, true, 10);
        ways.testNote("Pier", 62, true, 20);
        ways.testNote("Mole", 64, true, 30);
        ways.testNote("Pier", 62, false, 40);
        ways.testNote("Pier", 62, false, 50);
        assertThat(sent())
                .containsExactly(
                        "Pier +60 on 3 at 10",
                        "Pier -60 on 3 at 20",
                        "Pier +62 on 3 at 20",
                        "Mole +64 on 0 at 30",
                        "Pier -62 on 3 at 40");
    }
}
