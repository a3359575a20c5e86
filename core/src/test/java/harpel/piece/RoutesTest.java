package harpel.piece;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import harpel.event.Event;
import harpel.event.Message;
import harpel.event.NoteEnd;
import harpel.event.NoteStart;
import harpel.format.FileException;
import harpel.format.PieceFile;
import harpel.offline.PrintJob;
import harpel.offline.Tail;
import harpel.param.ParamException;
import harpel.plan.Plan;
import harpel.run.Renderer;
import harpel.run.Tap;
import harpel.testkit.Heard;
import harpel.time.Ticks;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;

/** Parts that hear one another. */
class RoutesTest {
    private static Piece piece(String... parts) {
        try {
            return PieceFile.read(("{'harpel':1,'parts':[" + String.join(",", parts) + "]}").replace('\'', '"'));
        } catch (FileException e) {
            throw new AssertionError(e);
        }
    }

    private static String part(String name, String fields, String chain) {
        return "{'name':'" + name + "'" + fields + ",'chain':[" + chain + "]}";
    }

    private static List<Event> play(Piece piece, String into, String from, NoteStart... notes) {
        List<Event> input = new ArrayList<>();
        for (NoteStart note : notes) {
            input.add(note);
            input.add(new NoteEnd(note.tick() + Ticks.PER_QUARTER, note, 64));
        }
        List<Event> heard = new ArrayList<>();
        Renderer renderer = new Renderer(
                Plan.of(piece),
                (part, event) -> {
                    if (part.equals(from)) {
                        heard.add(event);
                    }
                },
                Tap.NONE);
        input.sort(harpel.event.EventOrder.INSTANCE);
        input.forEach(event -> renderer.play(into, event));
        renderer.render(8 * Ticks.PER_QUARTER);
        assertThat(renderer.isQuiet()).isTrue();
        return heard;
    }

    private static NoteStart c4() {
        return NoteStart.played(0, 0, 0, 60, 100);
    }

    @Test
    void aPartHearsWhatAnotherSendsOnItsOwnChannel() {
        Piece piece = piece(
                part("Bass", ",'channel':3,'input':{'output-of':'bells'}", "{'effect':'transpose','octaves':-1}"),
                part("Bells", "", "{'effect':'transpose','semitones':7}"));
        List<Heard> notes = Heard.of(play(piece, "bells", "bass", c4()));
        assertThat(notes).containsExactly(new Heard(0, 1, 55, 100, 3));
    }

    @Test
    void aSectionHearsOneInput() {
        Piece piece = piece(
                part("Bells", "", "{'effect':'transpose','semitones':7}"),
                part("Bass", ",'channel':2,'input':{'input-of':'bells'}", ""));
        assertThat(Heard.of(play(piece, "bells", "bass", c4()))).containsExactly(new Heard(0, 1, 60, 100, 2));
    }

    @Test
    void sendAndLanesReachAnotherPart() {
        Piece piece = piece(
                part("Bells", "", "{'effect':'send','to':'bass','way':'instead'}"),
                part("Bass", ",'channel':2", "{'effect':'echo','repeats':1,'time':'1/4','fade':50}"));
        assertThat(play(piece, "bells", "bells", c4())).isEmpty();
        assertThat(Heard.of(play(piece, "bells", "bass", c4())))
                .containsExactly(new Heard(0, 1, 60, 100, 2), new Heard(1, 1, 60, 50, 2));
        Piece lanes = piece(
                part("Bells", "", "{'effect':'lanes','lanes':[{'steps':'x...','send-to':'bass'}]}"),
                part("Bass", ",'channel':2", ""));
        assertThat(Heard.of(play(lanes, "bells", "bass", c4()))).containsExactly(new Heard(0, 0.125, 60, 100, 2));
    }

    @Test
    void aSendReachesAnOutput() {
        Piece piece = piece(part("Bells", "", "{'effect':'send','to':'output:Pier'}"));
        assertThat(Heard.of(play(piece, "bells", "output:Pier", c4()))).containsExactly(new Heard(0, 1, 60, 100, 1));
    }

    @Test
    void aNoteBendBendsTheOtherPartAndStrikesItAgain() {
        Piece piece = piece(
                part("Gull", "", "{'effect':'note-bend','to':'bass','on-new-note':'strike-again'}"),
                part("Bass", ",'channel':2", ""));
        List<Event> heard = new ArrayList<>();
        Renderer renderer = new Renderer(
                Plan.of(piece),
                (part, event) -> {
                    if (part.equals("bass")) {
                        heard.add(event);
                    }
                },
                Tap.NONE);
        NoteStart held = NoteStart.played(0, 0, 1, 36, 90);
        NoteStart gull = NoteStart.played(1000, 1, 0, 67, 80);
        renderer.play("bass", held);
        renderer.play("gull", gull);
        renderer.render(2000);
        renderer.play("bass", NoteEnd.plain(3000, held));
        renderer.play("gull", NoteEnd.plain(3500, gull));
        renderer.render(4000);
        assertThat(heard.stream().filter(event -> event instanceof Message message && message.isBend()))
                .extracting(event -> event.channel() + ":" + ((Message) event).bend())
                .containsExactly("1:12971", "1:8192");
        assertThat(heard.stream().filter(NoteStart.class::isInstance))
                .extracting(Event::tick)
                .containsExactly(0L, 1000L);
        assertThat(renderer.isQuiet()).isTrue();
    }

    @Test
    void aPartThatIsHeardNoMoreLeavesNoNote() {
        String bass = part("Bass", ",'input':{'output-of':'bells'}", "");
        String alone = part("Bass", "", "");
        String bells = part("Bells", "", "");
        List<Event> heard = new ArrayList<>();
        Renderer renderer = new Renderer(Plan.of(piece(bells, bass)), (part, event) -> heard.add(event), Tap.NONE);
        renderer.play("bells", c4());
        renderer.render(100);
        renderer.update(Plan.of(piece(bells, alone)));
        renderer.render(200);
        assertThat(heard.stream().filter(NoteEnd.class::isInstance)).hasSize(1);
        renderer.update(Plan.of(piece(bells, bass)));
        renderer.update(Plan.of(piece(alone)));
        renderer.render(300);
        assertThat(renderer.isQuiet()).isTrue();
    }

    @Test
    void aCircleIsRefusedWithItsPath() {
        assertThatThrownBy(() -> piece(
                        part("Bells", "", "{'effect':'send','to':'bass'}"),
                        part("Bass", "", "{'effect':'send','to':'gull'}"),
                        part("Gull", "", "{'split':[{'chain':[{'effect':'send','to':'bells'}]}]}")))
                .isInstanceOf(ParamException.class)
                .hasMessageContaining("bells → bass → gull → bells");
        assertThatThrownBy(() -> piece(part("Bells", "", "{'effect':'send','to':'bells'}")))
                .hasMessageContaining("bells → bells");
    }

    @Test
    void deadAndDoubledWaysAreNamed() {
        Piece piece = piece(
                part(
                        "Bells",
                        "",
                        "{'effect':'send','to':'bass'},{'effect':'send','to':'nobody'},{'effect':'send','to':'output:Pier'}"),
                part("Bass", ",'input':{'output-of':'bells'}", ""),
                part("Gull", ",'input':{'device':'Pad board','channel':2}", ""),
                part("Lamp", ",'input':{'device':'Pad board','channel':2}", ""));
        assertThat(Routes.of(piece).problems(List.of("")))
                .containsExactly(
                        "\"Bells\": Send sends there, but there is no part \"nobody\"",
                        "\"Bells\": Send sends there, but there is no output \"Pier\"",
                        "\"Bass\" gets the notes of \"Bells\" twice: Send sends there; hears what Bells sends",
                        "\"Gull\" and \"Lamp\" both hear Pad board, channel 2 and sound on channel 1,"
                                + " so that every note comes twice");
    }

    @Test
    void aPrintOfAPartHasWhatOthersSendToIt() throws InterruptedException {
        Piece piece = piece(
                part(
                        "Drum",
                        "",
                        "{'effect':'pulse','layers':[{'every':16}],'root':36},{'effect':'send','to':'bass','way':'instead'}"),
                part("Bass", ",'channel':10", ""));
        List<Event> printed = new PrintJob(Plan.of(piece), "bass", Tail.STOP, Tap.NONE)
                .print(List.of(), 4 * Ticks.PER_QUARTER)
                .events();
        assertThat(Heard.of(printed)).containsExactly(new Heard(0, 0.125, 36, 90, 10));
    }

    @Test
    void routesAndInputsAreSavedAndRead() throws FileException {
        Piece piece = piece(
                part("Bells", ",'input':'none'", "{'effect':'send','to':'bass'}"),
                part("Bass", ",'input':{'device':'Pad board','channel':2}", ""),
                part("Gull", ",'input':{'input-of':'bells'}", ""));
        assertThat(PieceFile.read(PieceFile.write(piece))).isEqualTo(piece);
    }

    @Test
    void deadAndDoubledWaysAreToldApart() {
        Piece piece = piece(
                part(
                        "Drum",
                        "",
                        "{'effect':'send','to':'bass'},{'effect':'send','to':'bass'},{'effect':'send','to':'gone'}"),
                part("Bass", "", "{'effect':'send','to':'output:Pier'}"),
                part("Pad", ",'input':{'output-of':'bass'}", ""));
        Routes routes = Routes.of(piece);
        List<Routes.Way> ways = routes.ways();
        assertThat(ways)
                .extracting(way -> way.from() + " > " + way.to())
                .containsExactly("drum > bass", "drum > bass", "drum > gone", "bass > output:Pier", "bass > pad");
        assertThat(ways)
                .extracting(way -> routes.isDead(way, List.of()))
                .containsExactly(false, false, true, true, false);
        assertThat(routes.isDead(ways.get(3), List.of("Pier"))).isFalse();
        assertThat(ways).extracting(routes::isDoubled).containsExactly(true, true, false, false, false);
    }
}
