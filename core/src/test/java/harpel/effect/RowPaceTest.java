package harpel.effect;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import harpel.effect.held.Polymeter;
import harpel.effect.held.RowPace;
import harpel.param.ParamException;
import harpel.param.ParamType;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** How fast a row goes: a share of the stage's pace, or a note value. */
class RowPaceTest {
    private static final ParamType<RowPace> TYPE = Polymeter.ROW_PACE.type();

    @ParameterizedTest
    @CsvSource({
        "x1, ×1",
        "× 1/2, ×1/2",
        "x3/2, ×3/2",
        "3/2, ×3/2",
        "1.5, ×3/2",
        "0.67, ×2/3",
        "2, ×2",
        "x0.5, ×1/2",
        "3/4, 3/4",
        "1/8d, 1/8d",
        " x4 , ×4"
    })
    void typedAndShown(String typed, String shown) {
        RowPace pace = TYPE.parse(typed);
        assertThat(TYPE.show(pace)).isEqualTo(shown);
        assertThat(TYPE.read(TYPE.write(pace))).isEqualTo(pace);
    }

    @Test
    void whatIsNoneIsRefusedWithThoseThereAre() {
        assertThatThrownBy(() -> TYPE.parse("x7"))
                .isInstanceOf(ParamException.class)
                .hasMessageContaining("\"x2/3\"")
                .hasMessageContaining("but was \"x7\"");
        assertThatThrownBy(() -> TYPE.read("30 ms"))
                .hasMessageContaining("must be")
                .hasMessageContaining("30 ms");
    }

    @Test
    void fromTheSlowestToTheFastestByStepsAndPlaces() {
        RowPace slowest = TYPE.parse("x1/4");
        RowPace fastest = TYPE.parse("x4");
        assertThat(TYPE.fraction(slowest)).isZero();
        assertThat(TYPE.fraction(RowPace.SAME)).isCloseTo(0.5, within(1e-9));
        assertThat(TYPE.fraction(fastest)).isEqualTo(1);
        assertThat(TYPE.fraction(TYPE.parse("1/8"))).isNaN();
        assertThat(TYPE.atFraction(0.52)).isEqualTo(RowPace.SAME);
        assertThat(TYPE.atFraction(7)).isEqualTo(fastest);
        assertThat(TYPE.atFraction(-7)).isEqualTo(slowest);
        assertThat(TYPE.step(RowPace.SAME, 1, false)).isEqualTo(TYPE.parse("x4/3"));
        assertThat(TYPE.step(RowPace.SAME, -1, false)).isEqualTo(TYPE.parse("x3/4"));
        assertThat(TYPE.step(fastest, 1, false)).isEqualTo(fastest);
        assertThat(TYPE.step(slowest, -1, false)).isEqualTo(slowest);
        assertThat(TYPE.step(TYPE.parse("1/8"), 1, false)).isNotEqualTo(TYPE.parse("1/8"));
        assertThat(TYPE.moved(RowPace.SAME, 0.3)).isEqualTo(TYPE.parse("x2"));
        assertThat(TYPE.moved(TYPE.parse("1/8"), 0.3)).isEqualTo(TYPE.parse("1/8"));
    }
}
