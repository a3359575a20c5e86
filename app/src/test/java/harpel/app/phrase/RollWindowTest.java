package harpel.app.phrase;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import harpel.phrase.Note;
import harpel.phrase.Phrase;
import harpel.time.Ticks;
import java.util.List;
import org.junit.jupiter.api.Test;

/** The stretch of time and pitch that the roll shows. */
class RollWindowTest {
    private static final double WIDTH = 700;
    private static final double HEIGHT = 360;
    private static final long BAR = 4L * Ticks.PER_QUARTER;

    private final RollWindow window = new RollWindow();
    private final Phrase phrase =
            Phrase.of("P", 4 * BAR, List.of(Note.of(0, BAR, 48, 90), Note.of(3 * BAR, BAR, 72, 90)));

    RollWindowTest() {
        window.fit(phrase, List.of(), false, HEIGHT);
    }

    @Test
    void allIsSeenWhenItIsFitted() {
        assertThat(window.fromTick()).isZero();
        assertThat(window.toTick()).isGreaterThanOrEqualTo(phrase.length());
        for (Note note : phrase.notes()) {
            assertThat(window.y(note.pitch())).isBetween(0.0, HEIGHT - window.rowHeight());
            assertThat(window.pitchAt(window.y(note.pitch()) + 1)).isEqualTo(note.pitch());
        }
        RollWindow empty = new RollWindow();
        empty.fit(Phrase.of("E", BAR, List.of()), List.of(), false, HEIGHT);
        assertThat(empty.y(60)).as("the middle is seen where there is nothing").isBetween(0.0, HEIGHT);
        empty.fit(Phrase.of("E", BAR, List.of()), List.of(), true, HEIGHT);
        assertThat(List.of(36, 38, 42, 49, 51))
                .as("bass drum, snare, hi-hat, crash and ride")
                .allSatisfy(drum -> assertThat(empty.y(drum)).isBetween(0.0, HEIGHT));
    }

    @Test
    void aTickLiesWhereItIsLookedFor() {
        for (double tick : new double[] {0, 1000, BAR, 3.5 * BAR}) {
            assertThat(window.tickAt(window.x(tick, WIDTH), WIDTH)).isCloseTo(tick, within(0.01));
        }
    }

    @Test
    void zoomingKeepsThePlaceUnderThePointer() {
        double before = window.tickAt(0.3 * WIDTH, WIDTH);
        window.zoomTime(0.5, 0.3, phrase.length());
        assertThat(window.tickAt(0.3 * WIDTH, WIDTH)).isCloseTo(before, within(1.0));
        assertThat(window.ticks()).isLessThan(phrase.length());
        int pitch = window.pitchAt(0.5 * HEIGHT);
        window.zoomPitch(2, 0.5);
        assertThat(window.pitchAt(0.5 * HEIGHT)).isBetween(pitch - 1, pitch + 1);
        for (int i = 0; i < 60; i++) {
            window.zoomTime(0.5, 0.5, phrase.length());
        }
        assertThat(window.ticks()).as("not closer than an eighth of a quarter").isEqualTo(Ticks.PER_QUARTER / 8.0);
        for (int i = 0; i < 60; i++) {
            window.zoomTime(2, 0.5, phrase.length());
        }
        assertThat(window.ticks()).isLessThanOrEqualTo(4.0 * phrase.length());
    }

    @Test
    void scrollingEndsWhereThereIsNothingMore() {
        window.zoomTime(0.25, 0, phrase.length());
        window.scrollTime(-1e9, phrase.length());
        assertThat(window.fromTick()).isZero();
        window.scrollTime(1e9, phrase.length());
        assertThat(window.fromTick()).isLessThan(phrase.length());
        window.scrollPitch(1000);
        assertThat(window.pitchAt(0)).isEqualTo(127);
        window.scrollPitch(-1000);
        assertThat(window.pitchAt(HEIGHT - 1)).isZero();
        for (int i = 0; i < 40; i++) {
            window.zoomPitch(0.5, 0.5);
        }
        assertThat(window.pitchAt(0) - window.pitchAt(HEIGHT - 1))
                .as("never more than all pitches")
                .isLessThan(128);
    }

    @Test
    void aNoteIsBroughtIntoView() {
        window.zoomTime(0.1, 0, phrase.length());
        window.zoomPitch(4, 0);
        Note last = phrase.notes().get(1);
        window.reveal(last);
        assertThat(window.x(last.tick(), WIDTH)).isBetween(0.0, WIDTH);
        assertThat(window.y(last.pitch())).isBetween(0.0, HEIGHT);
        long version = window.version();
        window.tall(HEIGHT);
        assertThat(window.version()).as("nothing else is shown").isEqualTo(version);
    }

    @Test
    void whatWasSeenIsComeBackTo() {
        window.zoomTime(0.3, 0.4, phrase.length());
        window.scrollPitch(-3);
        RollWindow.Place place = window.place();
        double from = window.fromTick();
        int top = window.pitchAt(0);
        window.fit(phrase, List.of(), false, HEIGHT);
        assertThat(window.pitchAt(0)).isNotEqualTo(top);
        window.go(place);
        assertThat(window.fromTick()).isEqualTo(from);
        assertThat(window.pitchAt(0)).isEqualTo(top);
    }
}
