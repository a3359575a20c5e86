package harpel.piece;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import harpel.chain.Chain;
import harpel.chain.Stage;
import harpel.chain.StageAddress;
import harpel.effect.EffectCatalog;
import harpel.effect.EffectKind;
import harpel.format.PieceFile;
import harpel.param.ParamException;
import harpel.param.type.PathType.Point;
import harpel.piece.perform.Lever;
import java.util.List;
import org.junit.jupiter.api.Test;

class LaneTest {
    private static final long BAR = 61_440;

    private final StageAddress echo = StageAddress.parse("bells/echo");
    private final Piece piece = Piece.empty()
            .withParts(List.of(Part.of("Bells", new Chain(List.of(Stage.of("echo", EffectCatalog.of("echo")))))))
            .withLevers(List.of(Lever.of("Tide", 30)));

    @Test
    void theLanesOfAPieceAreThoseThatHavePoints() {
        Piece written = new Lane.OfMute("bells").with(Lane.ofSwitch(echo).with(piece, BAR, false), 0, true);
        assertThat(Lane.of(piece)).as("none is begun").isEmpty();
        assertThat(Lane.of(new Lane.OfLever("Tide").with(piece, 0, 30.0))).containsExactly(new Lane.OfLever("Tide"));
        assertThat(Lane.of(written)).containsExactly(new Lane.OfMute("bells"), new Lane.OfStage<>(echo, EffectKind.ON));
        assertThat(Lane.of(written)).allMatch(lane -> lane.isIn(written));
        assertThat(Lane.ofSwitch(echo).isIn(Piece.empty())).isFalse();
    }

    @Test
    void aLeverGoesStraightAndASwitchHolds() {
        Lane<Double> lever = new Lane.OfLever("Tide");
        assertThat(lever.at(piece, BAR)).isEqualTo(30);
        Piece written = lever.with(lever.with(piece, 0, 20.0), 2 * BAR, 60.0);
        assertThat(lever.at(written, BAR)).isEqualTo(40);
        Lane<Boolean> on = Lane.ofSwitch(echo);
        Piece switched = on.with(on.with(piece, 0, true), 2 * BAR, false);
        assertThat(on.at(switched, BAR)).isTrue();
        assertThat(on.at(switched, 3 * BAR)).isFalse();
        assertThat(on.name(switched)).isEqualTo("Echo: On");
        assertThat(on.removed(switched)).isEqualTo(piece);
    }

    @Test
    void aPointTakesThePlaceOfOneAtTheSameTickAndWhatIsTypedIsOfTheType() {
        Lane<Double> lever = new Lane.OfLever("Tide");
        Piece written = lever.typed(lever.with(piece, BAR, 20.0), BAR, "75 %");
        assertThat(lever.points(written)).containsExactly(new Point<>(BAR, 75.0));
        assertThat(lever.points(lever.without(written, BAR))).isEmpty();
        assertThatThrownBy(() -> lever.typed(piece, BAR, "140"))
                .isInstanceOf(ParamException.class)
                .hasMessageContaining("0–100");
        assertThat(Lane.ofSwitch(echo).points(Lane.ofSwitch(echo).typed(piece, 5, "off")))
                .containsExactly(new Point<>(5, false));
    }

    @Test
    void pointsComeAlongWhenBarsComeAndGo() {
        Lane<Boolean> on = Lane.ofSwitch(echo);
        Lane<Boolean> mute = new Lane.OfMute("bells");
        Piece written = mute.with(on.with(on.with(piece, BAR, false), 3 * BAR, true), 2 * BAR, true);
        Piece longer = Timeline.insert(written, 2 * BAR, BAR);
        assertThat(on.points(longer)).containsExactly(new Point<>(BAR, false), new Point<>(4 * BAR, true));
        assertThat(mute.points(longer)).containsExactly(new Point<>(3 * BAR, true));
        Piece shorter = Timeline.takeOut(written, BAR, 3 * BAR);
        assertThat(on.points(shorter)).containsExactly(new Point<>(BAR, true));
        assertThat(mute.points(shorter)).isEmpty();
    }

    @Test
    void pointsOfTheChainThatWaitsComeAlongToo() {
        Lane<Boolean> on = Lane.ofSwitch(echo);
        Piece waits = on.with(piece, 3 * BAR, false).withPart("bells", Part::withOtherChain);
        Piece longer = Timeline.insert(waits, BAR, BAR);
        assertThat(on.points(longer)).containsExactly(new Point<>(4 * BAR, false));
        assertThat(on.points(longer.withPart("bells", Part::withOtherChain)))
                .containsExactly(new Point<>(4 * BAR, false));
        assertThat(longer.part("bells").orElseThrow().rack().letter()).isEqualTo('B');
    }

    @Test
    void mutesAreKeptInTheFile() throws Exception {
        Piece written = new Lane.OfMute("bells").with(piece, 2 * BAR, true);
        assertThat(PieceFile.read(PieceFile.write(written))).isEqualTo(written);
        assertThatThrownBy(() -> PieceFile.read(PieceFile.write(written).replaceFirst("true\\s*\\]", "3]")))
                .isInstanceOf(ParamException.class)
                .hasMessageContaining("mutes");
    }
}
