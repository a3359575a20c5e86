package harpel.control;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import harpel.control.ControllerMap.Cell;
import harpel.control.ControllerMap.Grid;
import harpel.control.ControllerMap.Knob;
import harpel.format.MapFile;
import harpel.param.ParamException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HexFormat;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Controllers byte by byte: MIDI 1.0 Detailed Specification, note on and control change; relative turns are common practice. */
class ControllersTest {
    private final List<String> said = new ArrayList<>();
    private final KnobReader.Taker taker = new KnobReader.Taker() {
        @Override
        public void stands(int knob, double value) {
            said.add(knob + " at " + Math.round(value * 16_383));
        }

        @Override
        public void turned(int knob, int steps) {
            said.add(knob + " by " + steps);
        }
    };

    @Test
    void padsAreFoundByTheirNotesFromTheTopLeft() {
        Grid close = new Grid(8, 8, 36, 8);
        assertThat(close.note(0, 7)).isEqualTo(36);
        assertThat(close.note(7, 0)).isEqualTo(99);
        assertThat(close.cell(36)).contains(new Cell(0, 7));
        assertThat(close.cell(99)).contains(new Cell(7, 0));
        assertThat(close.cell(35)).isEmpty();
        assertThat(close.cell(100)).isEmpty();
        Grid apart = new Grid(8, 8, 0, 16);
        assertThat(apart.cell(16)).contains(new Cell(0, 6));
        assertThat(apart.cell(8)).as("between two rows").isEmpty();
        assertThatThrownBy(() -> new Grid(8, 8, 80, 8)).hasMessageContaining("notes 0–127");
    }

    @Test
    void knobsOfEveryKindAreRead() {
        KnobReader reader = new KnobReader(List.of(
                new Knob(Knob.Kind.ABSOLUTE, 16),
                new Knob(Knob.Kind.RELATIVE, 17),
                new Knob(Knob.Kind.FINE, 1),
                new Knob(Knob.Kind.NRPN, 300)));
        assertThat(reader.take(16, 127, taker)).isTrue();
        reader.take(17, 1, taker);
        reader.take(17, 127, taker);
        reader.take(17, 65, taker);
        // 14 bits: controller 1 and its low byte, 33.
        reader.take(1, 64, taker);
        reader.take(33, 1, taker);
        // NRPN 300 = 2 * 128 + 44: 99, 98, then the data in 6 and 38.
        reader.take(99, 2, taker);
        reader.take(98, 44, taker);
        reader.take(6, 127, taker);
        reader.take(38, 127, taker);
        assertThat(said)
                .containsExactly(
                        "0 at 16383",
                        "1 by 1",
                        "1 by -1",
                        "1 by -63",
                        "2 at 8192",
                        "2 at 8193",
                        "3 at 16256",
                        "3 at 16383");
        assertThat(reader.take(7, 5, taker)).as("no knob of the map").isFalse();
        reader.take(99, 0, taker);
        reader.take(98, 1, taker);
        assertThat(reader.take(6, 3, taker)).as("another parameter").isFalse();
        assertThatThrownBy(() -> new Knob(Knob.Kind.FINE, 40)).hasMessageContaining("0–31 but it was 40");
    }

    @Test
    void lightsAreSentWhenTheyChangeAllAtFirstAndOffInTheEnd() {
        List<String> sent = new ArrayList<>();
        ControllerMap map = new ControllerMap(
                "Two",
                new Grid(2, 1, 36, 2),
                List.of(),
                new ControllerMap.Lights(false, List.of(0, 1, 3, 5, 7, 9)),
                Map.of(),
                Map.of());
        LightSender lights =
                new LightSender(map, bytes -> sent.add(HexFormat.of().formatHex(bytes)));
        lights.show(new Light[] {Light.ON, Light.OFF});
        assertThat(sent).containsExactly("902403", "902500");
        lights.show(new Light[] {Light.ON, Light.WAITS});
        assertThat(sent).containsExactly("902403", "902500", "902505");
        lights.connected();
        lights.show(new Light[] {Light.ON, Light.WAITS});
        assertThat(sent).hasSize(5);
        lights.off();
        assertThat(sent.subList(5, 7)).containsExactly("902400", "902500");
    }

    @Test
    void aColourMayBeTheChannel() {
        List<String> sent = new ArrayList<>();
        ControllerMap map = new ControllerMap(
                "One",
                new Grid(1, 1, 60, 1),
                List.of(),
                new ControllerMap.Lights(true, List.of(1, 1, 2, 3, 4, 16)),
                Map.of(),
                Map.of());
        LightSender lights =
                new LightSender(map, bytes -> sent.add(HexFormat.of().formatHex(bytes)));
        lights.show(new Light[] {Light.LEADS});
        lights.off();
        assertThat(sent).containsExactly("9f3c7f", "903c00");
    }

    @Test
    void theMapsThatShipAreReadAndWrittenAndOnesOwnComeInTheirPlace(@TempDir Path folder) throws Exception {
        Map<String, ControllerMap> shipped = MapFile.shipped();
        assertThat(shipped).hasSize(6);
        for (ControllerMap map : shipped.values()) {
            assertThat(MapFile.read(MapFile.write(map))).isEqualTo(map);
        }
        assertThat(shipped.get("pads-8x8-rows-of-8").pads().note(0, 7)).isEqualTo(36);
        assertThat(shipped.get("knobs-70-to-77").knobs())
                .hasSize(8)
                .first()
                .isEqualTo(new Knob(Knob.Kind.ABSOLUTE, 70));
        ControllerMap own = shipped.get("keyboard").withLearnt(48, 3).withLearnt(50, 3);
        assertThat(own.learnt()).containsExactly(Map.entry(50, 3));
        Files.writeString(folder.resolve("keyboard.map.json"), MapFile.write(own));
        Files.writeString(folder.resolve("a-broken-one.map.json"), "{\"harpel\": 1, \"pads\": {\"columns\": 99}}");
        List<String> problems = new ArrayList<>();
        Map<String, ControllerMap> all = MapFile.all(folder, problems::add);
        assertThat(all).hasSize(6).containsEntry("keyboard", own);
        assertThat(problems)
                .singleElement()
                .asString()
                .contains("a-broken-one.map.json is left out")
                .contains("1–16")
                .contains("99");
    }

    @Test
    void whatIsWrongInAMapIsNamed() {
        assertThatThrownBy(() -> MapFile.read("{\"harpel\": 1, \"knobs\": [{\"wheel\": 3}]}"))
                .isInstanceOf(ParamException.class)
                .hasMessageContaining("knobs");
        assertThatThrownBy(() -> MapFile.read("{\"harpel\": 1, \"lights\": {\"by\": \"smell\"}}"))
                .hasMessageContaining("velocity or channel but was smell");
        assertThatThrownBy(() -> MapFile.read("{\"harpel\": 1, \"learnt\": {\"200\": 3}}"))
                .hasMessageContaining("0–127");
    }
}
