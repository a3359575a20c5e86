package harpel.engine;

import static org.assertj.core.api.Assertions.assertThat;

import harpel.chain.Chain;
import harpel.event.NoteEnd;
import harpel.event.NoteStart;
import harpel.piece.Mix;
import harpel.piece.Part;
import harpel.piece.Piece;
import harpel.plan.Program;
import harpel.port.InputPort;
import harpel.run.Tap;
import harpel.testkit.Outputs;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** Mute and solo, live: what is not heard ends at once, and nothing hangs. */
class LiveMixTest {
    private final List<String> heard = new ArrayList<>();
    private Piece piece;
    private LiveCycle cycle;

    @BeforeEach
    void begin() {
        piece = Piece.empty().withParts(List.of(Part.of("Lead", Chain.EMPTY), Part.of("Bass", Chain.EMPTY)));
        cycle = new LiveCycle(
                Program.of(piece),
                () -> 0,
                Outputs.to(
                        (port, event) -> {
                            if (event instanceof NoteStart note) {
                                heard.add("+" + note.pitch());
                            } else if (event instanceof NoteEnd end) {
                                heard.add("-" + end.start().pitch());
                            }
                        },
                        () -> heard.add("silence")),
                Tap.NONE);
    }

    private void key(boolean down, int pitch, long nanos) {
        cycle.take(InputPort.KEYS, new InputPort.Played(down ? 0x90 : 0x80, pitch, 100, nanos));
        cycle.render(nanos);
    }

    private void mix(String id, Mix mix) {
        piece = piece.withPart(id, part -> part.withMix(mix));
        cycle.update(Program.of(piece), 0);
    }

    @Test
    void aMuteEndsWhatSoundsAndNothingSoundsTwice() {
        key(true, 60, 0);
        mix("lead", Mix.PLAIN.withMute(true));
        key(true, 62, 100);
        key(false, 60, 200);
        mix("lead", Mix.PLAIN);
        key(false, 62, 300);
        key(true, 64, 400);
        key(false, 64, 500);
        cycle.render(1_000_000_000);
        assertThat(heard).containsExactly("+60", "-60", "+64", "-64");
    }

    @Test
    void aSoloElsewhereSilencesAPart() {
        mix("bass", Mix.PLAIN.withSolo(true));
        key(true, 60, 0);
        key(false, 60, 100);
        cycle.keysTo("bass");
        key(true, 40, 200);
        key(false, 40, 300);
        cycle.render(1_000_000_000);
        assertThat(heard).containsExactly("+40", "-40");
    }
}
