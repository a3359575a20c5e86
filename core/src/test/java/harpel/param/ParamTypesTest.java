package harpel.param;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import harpel.effect.EffectCatalog;
import harpel.effect.EffectKind;
import harpel.param.music.IntervalType;
import harpel.param.music.PitchTableType;
import harpel.param.music.ScaleType;
import harpel.param.music.TimeType;
import harpel.param.type.ChoiceType;
import harpel.param.type.IntType;
import harpel.param.type.ListType;
import harpel.param.type.NumberType;
import harpel.param.type.PointsType;
import harpel.param.type.PointsType.Point;
import harpel.param.type.RowType;
import harpel.param.type.SpanType;
import harpel.param.type.SpanType.Span;
import harpel.param.type.TextType;
import harpel.testkit.Randoms;
import harpel.theory.Interval;
import harpel.theory.Scale;
import harpel.time.TimeValue;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.MethodSource;

class ParamTypesTest {
    @org.junit.jupiter.api.Test
    void valuesAreFilledAndNudgedAtRandomWithinTheirRange() {
        java.util.Random random = new java.util.Random(3);
        IntType percent = IntType.percent(0, 100);
        ListType<Integer> cycle = new ListType<>(IntType.of(-28, 28, ""), 32);
        boolean far = false;
        for (int i = 0; i < 200; i++) {
            assertThat(percent.shuffled(50, 0.08, random::nextDouble)).isBetween(42, 58);
            int filled = percent.shuffled(50, 1, random::nextDouble);
            far |= Math.abs(filled - 50) > 40;
            assertThat(cycle.shuffled(java.util.List.of(0, 10, -28), 1, random::nextDouble))
                    .hasSize(3)
                    .allMatch(value -> value >= -28 && value <= 28);
        }
        assertThat(far).isTrue();
        assertThat(cycle.canShuffle(java.util.List.of())).isFalse();
        assertThat(new TextType(9).canShuffle("x")).isFalse();
        assertThat(new TextType(9).shuffled("x", 1, random::nextDouble)).isEqualTo("x");
    }

    private enum Stroke {
        UP,
        DOWN_UP
    }

    static List<EffectKind> kinds() {
        return EffectCatalog.kinds();
    }

    /** Whatever a type writes it reads back, and what it shows it takes when typed. */
    @ParameterizedTest
    @MethodSource("kinds")
    void everyValueOfEveryKindIsWrittenReadAndTyped(EffectKind kind) {
        for (long seed = 0; seed < 40; seed++) {
            ParamSet values = new Randoms(seed).params(kind.spec());
            for (Param<?> param : kind.spec().params()) {
                check(param, values);
            }
            assertThat(ParamSet.read(kind.spec(), values.write())).isEqualTo(values);
        }
    }

    private static <T> void check(Param<T> param, ParamSet values) {
        T value = values.get(param);
        assertThat(param.type().read(param.type().write(value)))
                .as("%s", param.id())
                .isEqualTo(value);
        boolean rows = param.type() instanceof ListType<?> list && list.item() instanceof RowType;
        boolean rounded = param.type() instanceof NumberType;
        if (!rows && !rounded) {
            assertThat(param.type().parse(param.type().show(value)))
                    .as("%s typed", param.id())
                    .isEqualTo(value);
        }
    }

    /** A bar's ends are the range's ends, and a step never leaves it. */
    @ParameterizedTest
    @MethodSource("kinds")
    void barsAndStepsStayInRange(EffectKind kind) {
        kind.spec().params().forEach(ParamTypesTest::checkBar);
    }

    private static <T> void checkBar(Param<T> param) {
        ParamType<T> type = param.type();
        if (Double.isNaN(type.fraction(param.defaultValue()))) {
            return;
        }
        for (double place : new double[] {-1, 0, 0.3, 1, 7}) {
            T value = type.atFraction(place);
            assertThat(type.fraction(value)).isBetween(0.0, 1.0);
            assertThat(type.read(type.write(value))).isEqualTo(value);
            for (int direction : new int[] {-1, 1}) {
                for (boolean fine : new boolean[] {true, false}) {
                    T stepped = type.step(value, direction, fine);
                    assertThat(type.read(type.write(stepped)))
                            .as("%s", param.id())
                            .isEqualTo(stepped);
                }
            }
        }
        assertThat(type.fraction(type.atFraction(1))).isCloseTo(1, within(1e-9));
    }

    @Test
    void wholeNumbersHaveUnitsAndWords() {
        IntType gate = IntType.percent(1, 200);
        assertThat(gate.show(60)).isEqualTo("60 %");
        assertThat(gate.parse("60 %")).isEqualTo(60);
        assertThat(gate.parse("60%")).isEqualTo(60);
        IntType channel = IntType.of(1, 16, "").orWord("all");
        assertThat(channel.read("all")).isZero();
        assertThat(channel.write(0)).isEqualTo("all");
        assertThat(channel.range()).isEqualTo("1–16 or \"all\"");
        assertThat(IntType.of(1, 4, "octaves").show(1)).isEqualTo("1 octave");
        assertThatThrownBy(() -> gate.read(7.5)).hasMessage("must be 1–200 % but was 7.5");
        assertThat(gate.read(7.0)).isEqualTo(7);
    }

    @ParameterizedTest
    @CsvSource({"C4, 60", "f#3, 54", "60, 60"})
    void pitchesAreNumbersOrNames(String typed, int pitch) {
        assertThat(IntType.ofPitch().read(typed)).isEqualTo(pitch);
    }

    @Test
    void choicesAreWords() {
        ChoiceType<Stroke> type = ChoiceType.of(Stroke.class);
        assertThat(type.read("down-up")).isEqualTo(Stroke.DOWN_UP);
        assertThat(type.parse("Down up")).isEqualTo(Stroke.DOWN_UP);
        assertThat(type.show(Stroke.DOWN_UP)).isEqualTo("down up");
        assertThatThrownBy(() -> type.read("sideways")).hasMessage("must be one of up, down-up but was \"sideways\"");
    }

    @Test
    void timesAreNoteValuesMillisecondsOrBeats() {
        TimeType type = TimeType.TIME;
        assertThat(type.read("1/8d")).isEqualTo(TimeValue.ofNote("1/8d"));
        assertThat(type.read("35 ms")).isEqualTo(new TimeValue.Millis(35));
        assertThat(type.read("0.75 beat")).isEqualTo(new TimeValue.Beats(0.75));
        assertThat(type.read("2 beats")).hasToString("2 beats");
        assertThat(type.step(TimeValue.ofNote("1/8"), 1, false)).hasToString("1/4t");
        assertThat(type.step(new TimeValue.Millis(35), 1, true)).hasToString("36 ms");
        assertThatThrownBy(() -> type.read("0 ms")).hasMessageContaining("\"1 ms\" to \"20000 ms\"");
        assertThatThrownBy(() -> type.read(8)).hasMessageContaining("but was 8");
    }

    @Test
    void intervalsAreSemitonesOrDegrees() {
        IntervalType type = new IntervalType(-24, 24);
        assertThat(type.read(7)).isEqualTo(Interval.ofSemitones(7));
        assertThat(type.read(Map.of("semitones", 7))).isEqualTo(Interval.ofSemitones(7));
        assertThat(type.read(Map.of("degrees", -2))).isEqualTo(Interval.ofDegrees(-2));
        assertThat(type.parse("−2 degrees")).isEqualTo(Interval.ofDegrees(-2));
        assertThat(type.parse("+7 st (fifth)")).isEqualTo(Interval.ofSemitones(7));
        assertThatThrownBy(() -> type.read(Map.of("octaves", 1))).hasMessageContaining("−24–24 semitones");
        assertThatThrownBy(() -> type.parse("far")).hasMessageContaining("\"far\"");
    }

    @Test
    void spansAreTypedAsPeopleWriteThem() {
        assertThat(SpanType.of(1, 127).parse("60–100")).isEqualTo(new Span(60, 100));
        assertThat(SpanType.of(1, 127).parse("60-100")).isEqualTo(new Span(60, 100));
        assertThat(SpanType.of(1, 127).parse("60 to 100")).isEqualTo(new Span(60, 100));
        assertThat(SpanType.ofPitches().parse("C2–B3")).isEqualTo(new Span(36, 59));
        assertThat(SpanType.ofPitches().write(new Span(36, 61))).isEqualTo(List.of("C2", "C#4"));
        assertThat(new Span(3, 5).contains(5)).isTrue();
    }

    @Test
    void drawnLinesAreStraightBetweenTheirPoints() {
        List<Point> line = List.of(new Point(10, 20), new Point(20, 40), new Point(30, 0));
        assertThat(PointsType.at(line, 5)).isEqualTo(20);
        assertThat(PointsType.at(line, 15)).isEqualTo(30);
        assertThat(PointsType.at(line, 25)).isEqualTo(20);
        assertThat(PointsType.at(line, 99)).isZero();
        PointsType type = new PointsType(1, 127);
        assertThat(type.parse("1→20 64→90")).containsExactly(new Point(1, 20), new Point(64, 90));
        assertThat(type.parse("none")).isEmpty();
        assertThatThrownBy(() -> type.parse("1→20 1→30")).hasMessageContaining("rise");
        assertThatThrownBy(() -> type.parse("steep")).hasMessageContaining("1→20 64→90");
    }

    @Test
    void scalesAreNamedDrawnOrTheKeys() {
        assertThat(ScaleType.SCALE.read("key")).isEmpty();
        assertThat(ScaleType.SCALE.read("dorian")).contains(Scale.of("dorian"));
        assertThat(ScaleType.SCALE.read(List.of(0, 3, 7)).map(Scale::steps)).contains(List.of(0, 3, 7));
        assertThat(ScaleType.SCALE.write(Optional.of(Scale.ofSteps(List.of(0, 3)))))
                .isEqualTo(List.of(0, 3));
        assertThatThrownBy(() -> ScaleType.SCALE.read(List.of(12))).hasMessageContaining("[0]: must be 0–11");
    }

    @Test
    void tablesMapNamesToNames() {
        PitchTableType type = PitchTableType.TABLE;
        assertThat(type.parse("C#→D F→drop")).isEqualTo(Map.of(1, 2, 5, PitchTableType.DROP));
        assertThat(type.show(Map.of(1, 2))).isEqualTo("C♯→D");
        assertThatThrownBy(() -> type.parse("C#D")).hasMessageContaining("C#→D");
        assertThatThrownBy(() -> type.read(Map.of("H", "C"))).hasMessageContaining("\"H\"");
    }

    @Test
    void aPathGrowsFromTheInside() {
        ParamException inner = new ParamException("velocity", "must be 1–127");
        assertThat(inner.under("[2]").under("voices").under("chain[0]"))
                .hasMessage("chain[0].voices[2].velocity: must be 1–127");
    }

    @Test
    void aSetKnowsOnlyItsOwnParameters() {
        Param<Integer> one = Param.of("late-catch", IntType.of(0, 9, "ms"), 3, "A sentence about it.");
        ParamSpec spec = ParamSpec.of(one);
        assertThat(one.label()).isEqualTo("Late catch");
        assertThat(spec.defaults().with(one, 5).write()).isEqualTo(Map.of("late-catch", 5));
        assertThat(spec.defaults().write()).isEmpty();
        Param<Integer> other = Param.of("late-catch", IntType.of(0, 9, "ms"), 3, "Another of the same name.");
        assertThatThrownBy(() -> spec.defaults().get(other)).hasMessageContaining("there are late-catch");
        assertThatThrownBy(() -> ParamSpec.of(one, other)).hasMessageContaining("two parameters");
        assertThatThrownBy(() -> ParamSet.read(spec, Map.of("early", 1))).hasMessageContaining("use one of late-catch");
    }
}
