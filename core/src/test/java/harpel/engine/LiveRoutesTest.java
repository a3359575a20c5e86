package harpel.engine;

import static org.assertj.core.api.Assertions.assertThat;

import harpel.engine.LiveStatus.Mode;
import harpel.event.Message;
import harpel.event.NoteStart;
import harpel.format.FileException;
import harpel.format.PieceFile;
import harpel.piece.Piece;
import harpel.plan.Plan;
import harpel.plan.Program;
import harpel.port.InputPort;
import harpel.run.Renderer;
import harpel.run.Tap;
import harpel.testkit.Outputs;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** What plays by itself, devices and levers, live against a clock of the test's own; 120 bpm. */
class LiveRoutesTest extends OwnClock {
    private final List<String> heard = new ArrayList<>();

    @BeforeEach
    void begin() {
        now = 5 * MS;
    }

    private void open(String parts) throws FileException {
        String piece = "{'harpel':1,'levers':[{'name':'Tide','value':0,'controllers':[21]}],'parts':[" + parts + "]}";
        cycle = new LiveCycle(
                Program.of(eachOnItsPort(PieceFile.read(piece.replace('\'', '"')))),
                () -> now,
                Outputs.to(
                        (port, event) -> {
                            if (event instanceof NoteStart note) {
                                heard.add(port + " " + note.pitch() + "/" + note.velocity());
                            }
                        },
                        () -> heard.add("silence")),
                Tap.NONE);
    }

    private static Piece eachOnItsPort(Piece piece) {
        return piece.withParts(
                piece.parts().stream().map(part -> part.withPort(part.id())).toList());
    }

    private void send(String port, int status, int data1, int data2) {
        cycle.take(port, new InputPort.Played(status, data1, data2, now));
        cycle.render(now);
    }

    @Test
    void aPulsePlaysWhileAKeyIsHeldAndWhileTheTransportRuns() throws FileException {
        open("{'name':'Bells','chain':[{'effect':'pulse','follow-keys':true}]}");
        pass(2000);
        assertThat(heard).as("time stands").isEmpty();
        send(InputPort.KEYS, 0x90, 48, 100);
        pass(1100);
        assertThat(heard).containsExactly("bells 48/90", "bells 48/90", "bells 48/90");
        send(InputPort.KEYS, 0x80, 48, 64);
        heard.clear();
        pass(3000);
        assertThat(heard).isEmpty();
        assertThat(cycle.status(now).mode()).isEqualTo(Mode.STOPPED);
        cycle.play(now);
        pass(900);
        assertThat(heard).containsExactly("bells 60/90", "bells 60/90");
        cycle.stop(now);
        heard.clear();
        pass(3000);
        assertThat(heard).isEmpty();
    }

    @Test
    void silenceStopsWhatPlaysByItselfUntilSomeonePlays() throws FileException {
        open("{'name':'Bells','chain':[{'effect':'pulse'}]}");
        cycle.play(now);
        pass(100);
        heard.clear();
        cycle.silence(now);
        pass(5000);
        assertThat(heard).containsExactly("silence");
        assertThat(cycle.status(now).mode()).isEqualTo(Mode.STOPPED);
        assertThat(cycle.nextNanos()).isEqualTo(Long.MAX_VALUE);
    }

    @Test
    void aDeviceGoesToThePartsThatTookItAndElseToTheChosenOne() throws FileException {
        open(
                "{'name':'Bells','chain':[]},{'name':'Bass','input':{'device':'Pad board','channel':2},'chain':[]},"
                        + "{'name':'Gull','input':{'device':'Pad board'},'chain':[]},{'name':'Lamp','input':'none','chain':[]}");
        send("Pad board", 0x91, 40, 90);
        assertThat(heard).containsExactlyInAnyOrder("bass 40/90", "gull 40/90");
        heard.clear();
        send("Pad board", 0x90, 41, 90);
        assertThat(heard).containsExactly("gull 41/90");
        heard.clear();
        send("Small keyboard", 0x90, 42, 90);
        assertThat(heard).containsExactly("bells 42/90");
        heard.clear();
        cycle.keysTo("lamp");
        send("Small keyboard", 0x90, 43, 90);
        assertThat(heard).isEmpty();
        send(InputPort.KEYS, 0x90, 43, 90);
        assertThat(heard).as("the window's keys always play the chosen part").containsExactly("lamp 43/90");
        for (int pitch : new int[] {41, 42, 43}) {
            send("Pad board", 0x80, pitch, 0);
            send("Small keyboard", 0x80, pitch, 0);
            send(InputPort.KEYS, 0x80, pitch, 0);
        }
        send("Pad board", 0x81, 40, 0);
        pass(10);
        assertThat(cycle.status(now).mode()).isEqualTo(Mode.STOPPED);
    }

    @Test
    void aControllerMovesALever() throws FileException {
        open(
                "{'name':'Bells','chain':[{'effect':'touch','fixed':1,'move':{'fixed':[{'by':'lever','lever':'Tide','amount':100}]}}]}");
        send("Knobs", Message.CONTROL_CHANGE, 21, 0);
        send("Knobs", Message.CONTROL_CHANGE, 21, 64);
        send(InputPort.KEYS, 0x90, 60, 100);
        assertThat(heard).containsExactly("bells 60/65");
    }

    @Test
    void printedAndLiveLeverAndAutomationAreTheSame() throws FileException, InterruptedException {
        String part = "{'name':'Bells','chain':[{'effect':'pulse','layers':[{'every':2}],'velocity':1,'move':{"
                + "'velocity':[{'by':'automation','points':[[0,20],[61440,120]]},{'by':'lfo','pace':'1/2','amount':20}]}}]}";
        open(part);
        cycle.play(now);
        pass(3990);
        Renderer printed = new Renderer(
                Plan.of(PieceFile.read(("{'harpel':1,'parts':[" + part + "]}").replace('\'', '"'))),
                (to, event) -> {
                    if (event instanceof NoteStart note) {
                        heard.remove(to + " " + note.pitch() + "/" + note.velocity());
                    }
                },
                Tap.NONE);
        assertThat(heard).hasSize(16);
        printed.start(0);
        printed.render(2 * 61_440);
        assertThat(heard).isEmpty();
    }
}
