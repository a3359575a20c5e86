package harpel.engine;

import static org.assertj.core.api.Assertions.assertThat;

import harpel.chain.Chain;
import harpel.piece.Hearing;
import harpel.piece.Part;
import harpel.piece.Piece;
import harpel.port.InputPort;
import java.util.List;
import org.junit.jupiter.api.Test;

class TakersTest {
    private static final Piece PIECE = Piece.empty()
            .withParts(List.of(
                    Part.of("Chosen", Chain.EMPTY),
                    Part.of("Pads", Chain.EMPTY).withHearing(new Hearing(Hearing.Source.DEVICE, "Desk", 10)),
                    Part.of("Deaf", Chain.EMPTY).withHearing(Hearing.NOTHING),
                    Part.of("Second", Chain.EMPTY).withHearing(new Hearing(Hearing.Source.OUTPUT_OF, "chosen", 0)),
                    Part.of("Third", Chain.EMPTY).withHearing(new Hearing(Hearing.Source.OUTPUT_OF, "second", 0))));

    private final Takers takers = new Takers(PIECE);

    private List<String> of(String port, int channel) {
        return takers.of(port, channel).stream().map(Part::id).toList();
    }

    @Test
    void aDeviceGoesToThosePartsThatTookItAndOtherwiseToTheChosenOne() {
        assertThat(of("Desk", 9)).as("channel 10").containsExactly("pads");
        assertThat(of("Desk", 0)).as("another channel").containsExactly("chosen");
        assertThat(of("Keys upstairs", 9)).containsExactly("chosen");
    }

    @Test
    void aPartThatHearsSomethingElseIsPlayedByTheWindowsKeysAlone() {
        takers.keysTo("deaf");
        assertThat(of("Desk", 0)).isEmpty();
        assertThat(of(InputPort.KEYS, 0)).containsExactly("deaf");
        assertThat(of(InputPort.TO_PART + "pads", 3)).containsExactly("pads");
        assertThat(of(InputPort.TO_PART + "gone", 3)).isEmpty();
    }

    @Test
    void aPartThatHearsWhatAnotherSendsIsPlayedFromTheHeadOfTheWayUnlessItIsToHaveTheKeys() {
        takers.keysTo("third");
        assertThat(of(InputPort.KEYS, 0)).containsExactly("chosen");
        assertThat(of("Desk", 0)).containsExactly("chosen");
        assertThat(of(InputPort.AUDITION, 0))
                .as("what is drawn is the part's own")
                .containsExactly("third");
        takers.take(
                PIECE.withPart("second", part -> part.withHearing(part.hearing().withKeysHere(true))));
        assertThat(of(InputPort.KEYS, 0)).containsExactly("second");
        assertThat(of("Desk", 0)).containsExactly("second");
    }

    @Test
    void whatIsKnownIsForgottenWithAnotherPieceOrAnotherChosenPart() {
        assertThat(of("Desk", 0)).containsExactly("chosen");
        assertThat(takers.of("Desk", 0)).as("looked for once").isSameAs(takers.of("Desk", 0));
        takers.keysTo("deaf");
        assertThat(of("Desk", 0)).isEmpty();
        takers.take(PIECE.withPart("deaf", part -> part.withHearing(new Hearing(Hearing.Source.DEVICE, "Desk", 0))));
        assertThat(of("Desk", 9)).containsExactly("pads", "deaf");
    }
}
