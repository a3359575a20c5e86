package harpel.chain;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import harpel.effect.EffectCatalog;
import harpel.effect.EffectKind;
import harpel.effect.held.Arpeggio;
import harpel.effect.notes.Pulse;
import harpel.event.Event;
import harpel.event.NoteEnd;
import harpel.event.NoteStart;
import harpel.format.FileException;
import harpel.format.PieceFile;
import harpel.offline.PrintJob;
import harpel.offline.Tail;
import harpel.param.ParamException;
import harpel.piece.Part;
import harpel.piece.Piece;
import harpel.plan.Plan;
import harpel.run.Tap;
import harpel.theory.Interval;
import harpel.theory.Key;
import harpel.theory.Spelling;
import harpel.time.TimeMap;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Two chains of a part, what differs, a stage replaced, a branch alone, and what happened to a note in words. */
class CompareTest {
    private static Piece piece(String part) throws FileException {
        return PieceFile.read(("{'harpel':1,'parts':[" + part + "]}").replace('\'', '"'));
    }

    private static Part part(String chain) throws FileException {
        return piece("{'name':'Lead','chain':[" + chain + "]}").parts().get(0);
    }

    @Test
    void bBeginsAsACopyOfAAndBothAreKept() throws FileException {
        Part a = part("{'effect':'transpose'}");
        Part b = a.withOtherChain();
        assertThat(b.chain()).isEqualTo(a.chain());
        assertThat(b.rack().letter()).isEqualTo('B');
        Part changed = b.withChain(Chain.EMPTY);
        Part back = changed.withOtherChain();
        assertThat(back.chain()).isEqualTo(a.chain());
        assertThat(back.rack().letter()).isEqualTo('A');
        assertThat(back.rack().other()).isEqualTo(Chain.EMPTY);
        assertThat(back.withOtherAlike().rack().other()).isEqualTo(a.chain());
    }

    @Test
    void bothChainsAndTheSwitchAreInTheFile() throws FileException {
        Piece piece = piece("{'name':'Lead','chain':[{'effect':'transpose'}]}")
                .withPart(
                        "lead",
                        part -> part.withOtherChain().withChain(Chain.EMPTY).withChainOff(true));
        assertThat(PieceFile.read(PieceFile.write(piece))).isEqualTo(piece);
        assertThatThrownBy(() -> piece("{'name':'Lead','heard':'C'}"))
                .isInstanceOf(ParamException.class)
                .hasMessageContaining("heard: must be \"A\", the \"chain\", or \"B\"");
        // The letter says which: A is the chain, B the other-chain.
        Part both = piece("{'name':'Lead','heard':'B','chain':[{'effect':'echo'}],'other-chain':[{'effect':'touch'}]}")
                .parts()
                .get(0);
        assertThat(both.chain().stages()).extracting(Stage::id).containsExactly("touch");
        assertThat(both.rack().other().stages()).extracting(Stage::id).containsExactly("echo");
    }

    @Test
    void whatDiffersIsListed() throws FileException {
        Chain a = part("{'effect':'arpeggio','gate':60},{'effect':'echo'},{'effect':'touch'}")
                .chain();
        Chain b = part("{'effect':'touch'},{'effect':'arpeggio','gate':80},{'effect':'strum'}")
                .chain();
        assertThat(Differences.between(a, b, Spelling.SHARPS))
                .containsExactly(
                        "Arpeggio: gate 60 % → 80 %",
                        "Echo: only in the first", "Strum: only in the second", "the order of stages");
        assertThat(Differences.between(a, a, Spelling.SHARPS)).isEmpty();
    }

    @Test
    void differencesInBranchesAndMoversAreFoundToo() throws FileException {
        Chain a = part("{'split':[{'chain':[{'effect':'transpose','octaves':1}]},{'chain':[]}]}")
                .chain();
        Chain b = part("{'split':[{'takes':{'keys':['C2','B3']},'chain':[{'effect':'transpose','octaves':2}]}]}")
                .chain();
        assertThat(Differences.between(a, b, Spelling.SHARPS))
                .containsExactly(
                        "Split: 2 → 1 branches",
                        "Split, branch 1: takes every note → keys C2–B3",
                        "Split, branch 1, Transpose: octaves 1 octave → 2 octaves");
        Chain still = part("{'effect':'arpeggio'}").chain();
        Chain moved = part("{'effect':'arpeggio','move':{'gate':[{'by':'velocity'}]}}")
                .chain();
        assertThat(Differences.between(still, moved, Spelling.SHARPS))
                .containsExactly("Arpeggio: what moves its controls");
    }

    @Test
    void aStageIsReplacedKeepingWhatFits() throws FileException {
        Stage arpeggio =
                part("{'effect':'arpeggio','pace':'1/8','swing':60,'velocity':'fixed','label':'Tide','on':false,"
                                + "'move':{'swing':[{'by':'velocity'}],'gate':[{'by':'velocity'}]}}")
                        .chain()
                        .stages()
                        .get(0);
        Stage pulse = arpeggio.replacedBy(EffectCatalog.of("pulse"));
        assertThat(pulse.id()).isEqualTo("arpeggio");
        assertThat(pulse.name()).isEqualTo("Tide");
        assertThat(pulse.on()).isFalse();
        assertThat(Pulse.PACE.show(pulse.params())).isEqualTo("1/8");
        assertThat(pulse.params().get(Pulse.SWING)).isEqualTo(60.0);
        assertThat(pulse.params().get(Pulse.VELOCITY))
                .as("a word is no number")
                .isEqualTo(Pulse.VELOCITY.defaultValue());
        assertThat(pulse.moves().of(Pulse.SWING)).hasSize(1);
        assertThat(pulse.moves().byParam()).as("there is no gate here").containsOnlyKeys("swing");
        assertThat(pulse.replacedBy(EffectCatalog.of("arpeggio")).params().get(Arpeggio.SWING))
                .isEqualTo(60.0);
    }

    private static List<String> printed(Part part) throws InterruptedException {
        Piece piece = Piece.empty().withParts(List.of(part));
        NoteStart note = NoteStart.played(0, 0, 0, 60, 90);
        List<Event> music = new ArrayList<>(List.of(note, NoteEnd.plain(960, note)));
        return new PrintJob(Plan.of(piece), part.id(), Tail.STOP, Tap.NONE)
                .print(music, 2000).events().stream()
                        .filter(NoteStart.class::isInstance)
                        .map(event -> String.valueOf(((NoteStart) event).pitch()))
                        .toList();
    }

    @Test
    void aSoloBranchIsHeardAloneAndAChainThatIsOffIsNotHeard() throws FileException, InterruptedException {
        String split = "{'split':[{'takes':{%s},'chain':[{'effect':'transpose','semitones':7}]},"
                + "{'chain':[{'effect':'transpose','semitones':4}]}]}";
        assertThat(printed(part(String.format(split, "")))).containsExactly("64", "67");
        Part solo = part(String.format(split, "'solo':true"));
        assertThat(printed(solo)).containsExactly("67");
        assertThat(printed(solo.withChainOff(true))).containsExactly("60");
    }

    /** Degrees and intervals counted by hand in C major. */
    @ParameterizedTest
    @CsvSource({
        "60,60,''",
        "60,64,up two degrees",
        "64,62,down a degree",
        "60,72,up an octave",
        "60,36,down two octaves",
        "60,66,up a tritone",
        "61,65,up a major third",
        "60,79,up eleven degrees",
        "60,78,up 18 semitones",
        "60,81,up twelve degrees",
        "0,127,up 74 degrees"
    })
    void intervalsAreToldInTheKeyOrByName(int from, int to, String words) {
        assertThat(Interval.told(from, to, Key.C_MAJOR)).isEqualTo(words);
    }

    @Test
    void stagesTellWhatTheyDid() {
        NoteStart played = NoteStart.played(0, 0, 0, 60, 60);
        EffectKind echo = EffectCatalog.of("echo");
        assertThat(tell(echo, played, played.derive(2 * 11_520, 60, 22))).isEqualTo("echo 2 of 3");
        assertThat(tell(EffectCatalog.of("harmony"), played, played.derive(0, 64, 60)))
                .isEqualTo("harmony up two degrees");
        assertThat(tell(EffectCatalog.of("scale-fit"), played.derive(0, 61, 60), played))
                .isEqualTo("down a minor second into the key");
        assertThat(tell(EffectCatalog.of("touch"), played, played.derive(0, 60, 36)))
                .isEmpty();
    }

    private static String tell(EffectKind kind, NoteStart from, NoteStart made) {
        return kind.words().tell(from, made, kind.spec().defaults(), Key.C_MAJOR, TimeMap.DEFAULT);
    }
}
