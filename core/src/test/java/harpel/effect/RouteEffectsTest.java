package harpel.effect;

import static org.assertj.core.api.Assertions.assertThat;

import harpel.effect.pitch.NoteBend;
import harpel.event.Event;
import harpel.event.Message;
import harpel.event.NoteStart;
import harpel.param.ParamSet;
import harpel.testkit.Heard;
import harpel.testkit.Played;
import harpel.time.Ticks;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Bends, glides, time grid, sieve, send and controllers. */
class RouteEffectsTest {
    private static List<Message> messages(List<Event> events) {
        List<Message> messages = new ArrayList<>();
        events.forEach(event -> {
            if (event instanceof Message message) {
                messages.add(message);
            }
        });
        return messages;
    }

    private static List<Integer> bends(List<Event> events) {
        return messages(events).stream()
                .filter(Message::isBend)
                .map(Message::bend)
                .toList();
    }

    /** MIDI 1.0 Detailed Specification: 14 bits, 8192 in the middle. */
    @ParameterizedTest
    @CsvSource({"60, 8192", "67, 12971", "55, 4779", "72, 16383", "48, 0", "90, 16383", "20, 0"})
    void aNoteBecomesABend(int pitch, int bend) {
        ParamSet values = ParamSet.read(EffectCatalog.of("note-bend").spec(), Map.of());
        assertThat(NoteBend.bend(values, pitch)).isEqualTo(bend);
    }

    @Test
    void aFifthMeantForTwelveIsOneAndASixthSemitonesAtTwo() {
        // Common practice: sender and instrument must agree on the range.
        int bend = NoteBend.bend(ParamSet.read(EffectCatalog.of("note-bend").spec(), Map.of()), 67);
        assertThat((bend - 8192) / 8192.0 * 2).isCloseTo(1.17, org.assertj.core.data.Offset.offset(0.005));
    }

    @Test
    void theRangeIsAgreedByRegisteredParameterZeroBeforeTheFirstBend() {
        List<Event> events = Played.through("{'effect':'note-bend','bend-range':7}")
                .note("G4", 0, 1)
                .note("C5", 2, 1)
                .events(1);
        // MIDI 1.0: controllers 101 and 100 choose registered parameter 0,0, 6 and 38 set it, 127 and 127 choose none.
        assertThat(messages(events).subList(0, 6))
                .extracting(message -> message.data(1) + "=" + message.data(2))
                .containsExactly("101=0", "100=0", "6=7", "38=0", "101=127", "100=127");
        assertThat(bends(events)).containsExactly(16383, 8192, 16383, 8192);
        assertThat(messages(events)).hasSize(10);
        assertThat(events).noneMatch(NoteStart.class::isInstance);
    }

    @Test
    void theLastKeyHeldCountsAndTheBendMayStay() {
        assertThat(bends(Played.through("{'effect':'note-bend'}")
                        .note("E4", 0, 3)
                        .note("G4", 1, 1)
                        .events(1)))
                .containsExactly(10923, 12971, 10923, 8192);
        assertThat(bends(Played.through("{'effect':'note-bend'}")
                        .note("C4", 0, 1)
                        .events(1)))
                .as("the first bend is sent, also where it is the centre: who knows where the instrument stands")
                .containsExactly(8192);
        assertThat(bends(Played.through("{'effect':'note-bend','after-release':'stay'}")
                        .note("E4", 0, 1)
                        .events(1)))
                .as("it goes back only when all stops")
                .containsExactly(10923, 8192);
    }

    @Test
    void aGlideSendsAtMostOneBendAMillisecondAndEndsExactly() {
        List<Event> events = Played.through("{'effect':'note-bend'},{'effect':'glide','time':'100 ms'}")
                .note("C5", 0, 3.5)
                .events(1);
        List<Message> bends = messages(events).stream()
                .filter(message -> message.isBend() && message.tick() < 3 * Ticks.PER_QUARTER)
                .toList();
        assertThat(bends).hasSize(100);
        assertThat(bends.get(49).bend()).isEqualTo(8192 + 4096);
        assertThat(bends.get(99).bend()).isEqualTo(16383);
        // At 120 bpm 100 ms are a fifth of a beat.
        assertThat(bends.get(99).tick()).isEqualTo(Ticks.PER_QUARTER / 5);
        for (int i = 1; i < bends.size(); i++) {
            assertThat(bends.get(i).tick() - bends.get(i - 1).tick()).isGreaterThanOrEqualTo(30);
        }
    }

    @Test
    void aCurvedGlideLeavesFastOrSlowly() {
        int[] middle = new int[2];
        for (int i = 0; i < 2; i++) {
            middle[i] = bends(Played.through("{'effect':'note-bend'},{'effect':'glide','time':'100 ms','curve':"
                                    + (i == 0 ? 100 : -100) + "}")
                            .note("C5", 0, 3.5)
                            .events(1))
                    .get(49);
        }
        assertThat(middle[0]).isEqualTo((int) Math.floor(8192 + 8191 * Math.sqrt(0.5) + 0.5));
        assertThat(middle[1]).isLessThan(8192 + 2100);
    }

    @Test
    void startsWaitForTheNextGridPointAndKeepTheirLength() {
        List<Heard> notes = Played.through("{'effect':'time-grid','grid':'1/8'}")
                .note("C4", 0.1, 0.3)
                .note("D4", 1.0, 0.3)
                .bars(1);
        assertThat(notes).extracting(Heard::beat).containsExactly(0.5, 1.0);
        assertThat(notes.get(0).length()).isCloseTo(0.3, org.assertj.core.data.Offset.offset(1e-4));
    }

    @Test
    void halfStrengthGoesHalfTheWayAndLateByComesOnTop() {
        assertThat(Played.through("{'effect':'time-grid','grid':'1/4','strength':50}")
                        .note("C4", 0.5, 0.3)
                        .beats(1))
                .containsExactly(0.75);
        assertThat(Played.through("{'effect':'time-grid','grid':'1/4','late-by':'3840 ticks'}")
                        .note("C4", 0.5, 0.3)
                        .beats(1))
                .containsExactly(1.25);
        assertThat(Played.through("{'effect':'time-grid','grid':'1/8','swing':75}")
                        .note("C4", 0.4, 0.1)
                        .beats(1))
                .containsExactly(0.75);
    }

    @Test
    void nearestLeavesWhatCameLate() {
        List<Double> beats = Played.through("{'effect':'time-grid','grid':'1/4','to':'nearest'}")
                .note("C4", 0.25, 0.1)
                .note("C4", 0.75, 0.1)
                .beats(1);
        assertThat(beats).containsExactly(0.25, 1.0);
    }

    @Test
    void aSieveCountsRangesAndBars() {
        Played every = Played.through("{'effect':'sieve','every':3}");
        for (int i = 0; i < 8; i++) {
            every.note(60 + i, i * 0.5, 0.2, 100, 1);
        }
        assertThat(every.pitches(1)).containsExactly(60, 63, 66);
        assertThat(Played.through("{'effect':'sieve','keys':['C4','E4'],'velocity':[60,127]}")
                        .note("C4", 0, 0.5, 59)
                        .note("D4", 1, 0.5, 60)
                        .note("F4", 2, 0.5, 100)
                        .pitches(1))
                .containsExactly(62);
        assertThat(Played.through("{'effect':'sieve','bars-open':1,'bars-of':2}")
                        .note("C4", 0, 0.5)
                        .note("D4", 4, 0.5)
                        .note("E4", 8, 0.5)
                        .pitches(3))
                .containsExactly(60, 64);
    }

    @Test
    void theRestGoesToTheOtherBranch() {
        List<Heard> notes = Played.through(
                        "{'split':[{'chain':[{'effect':'sieve','keys':['C4','C5'],'rest':'other-branch'}]},"
                                + "{'takes':{'velocity':[1,1]},'chain':[{'effect':'transpose','octaves':1}]}]}")
                .note("D4", 0, 1)
                .note("D3", 1, 1)
                .bars(1);
        assertThat(notes).extracting(Heard::pitch).containsExactly(62, 62);
        assertThat(notes).extracting(Heard::beat).containsExactly(0.0, 1.0);
        assertThat(Played.through("{'effect':'sieve','keys':['C4','C5'],'rest':'other-branch'}")
                        .note("D3", 1, 1)
                        .pitches(1))
                .isEmpty();
    }

    @Test
    void aSendReachesAnotherChannel() {
        assertThat(Played.through("{'effect':'send','to':5}").note("C4", 0, 1).bars(1))
                .extracting(Heard::channel)
                .containsExactlyInAnyOrder(1, 5);
        assertThat(Played.through("{'effect':'send','to':5,'way':'instead'}")
                        .note("C4", 0, 1)
                        .bars(1))
                .extracting(Heard::channel)
                .containsExactly(5);
    }

    @Test
    void controllersAreRewritten() {
        List<Event> events = Played.through(
                        "{'effect':'controls','rules':[{'from-number':1,'to-number':11,'range':[20,100]}]}")
                .control(1, 0, 0)
                .control(1, 127, 1)
                .control(7, 9, 2)
                .events(1);
        assertThat(messages(events))
                .extracting(message -> message.data(1) + "=" + message.data(2))
                .containsExactly("11=20", "11=100", "7=9");
    }

    @Test
    void velocityAndControllersTurnIntoEachOther() {
        List<Event> events = Played.through(
                        "{'effect':'controls','rules':[{'from':'velocity','to-number':74,'reverse':true}]}")
                .note("C4", 0, 1, 27)
                .events(1);
        assertThat(events.get(0)).isInstanceOf(Message.class);
        assertThat(((Message) events.get(0)).data(2)).isEqualTo(100);
        assertThat(Played.through("{'effect':'controls','rules':[{'from-number':2,'to':'velocity'}]}")
                        .note("C4", 0, 0.5, 90)
                        .control(2, 33, 1)
                        .note("C4", 1, 0.5, 90)
                        .velocities(1))
                .containsExactly(90, 33);
        assertThat(messages(Played.through("{'effect':'controls','rules':[{'from-number':64,'to':'drop'}]}")
                        .control(64, 127, 0)
                        .events(1)))
                .isEmpty();
    }

    /** A controller through a stage on channel 1, as channel and value of all that comes out. */
    private static List<String> controlled(String stage) {
        return messages(Played.through(stage)
                        .note("C4", 0, 1)
                        .control(74, 33, 0.5)
                        .events(1))
                .stream()
                .filter(message -> !message.isBend())
                .map(message -> (message.channel() + 1) + " " + message.data(2))
                .toList();
    }

    @Test
    void messagesAreSentWithNotesOnlyWhereThatIsSet() {
        assertThat(controlled("{'effect':'send','to':5,'messages':true}")).containsExactlyInAnyOrder("1 33", "5 33");
        assertThat(controlled("{'effect':'send','to':5,'messages':true,'way':'instead'}"))
                .containsExactly("5 33");
        assertThat(controlled("{'effect':'send','to':5,'messages':false,'way':'instead'}"))
                .containsExactly("1 33");
        assertThat(controlled("{'effect':'send','to':5,'messages':false}")).containsExactly("1 33");
        assertThat(controlled("{'effect':'send','messages':true}"))
                .as("sent nowhere")
                .containsExactly("1 33");
    }

    @Test
    void aGlideLetsNotesAndWhatIsNoBendPass() {
        assertThat(controlled("{'effect':'glide'}")).containsExactly("1 33");
        assertThat(Played.through("{'effect':'glide'}").note("C4", 0, 1).bars(1))
                .singleElement()
                .asString()
                .contains("beat=0.0, length=1.0, pitch=60");
    }

    @Test
    void aNoteBeyondTheRangeBendsAsFarAsItGoesOrNotAtAll() {
        ParamSet clips = ParamSet.read(EffectCatalog.of("note-bend").spec(), Map.of());
        ParamSet drops = ParamSet.read(EffectCatalog.of("note-bend").spec(), Map.of("out-of-range", "drop"));
        assertThat(NoteBend.bend(clips, 73)).isEqualTo(16_383);
        assertThat(NoteBend.bend(drops, 73)).isEqualTo(-1);
        assertThat(NoteBend.bend(drops, 72))
                .as("the end of the range is within")
                .isEqualTo(16_383);
        assertThat(NoteBend.bend(drops, 48)).isZero();
        assertThat(NoteBend.bend(drops, 47)).isEqualTo(-1);
    }
}
