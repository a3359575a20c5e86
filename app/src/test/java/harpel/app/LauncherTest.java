package harpel.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import javafx.geometry.Dimension2D;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** What the window's command line says of a picture. */
class LauncherTest {
    @Test
    void aPictureIsAsLargeAndAsLateAsIsSaid() {
        assertThat(Launcher.size(List.of("a.harpel", "--shot", "a.png"))).isEqualTo(1);
        assertThat(Launcher.size(List.of("--size", "150"))).isEqualTo(1.5);
        assertThat(Launcher.bars(List.of("--shot", "a.png"), 4.2)).isEqualTo(4.2);
        assertThat(Launcher.bars(List.of("--bars", "1.5", "--shot", "a.png"), 4.2))
                .isEqualTo(1.5);
    }

    @ParameterizedTest
    @ValueSource(strings = {"", "x", "-1", "1001", "NaN"})
    void whatIsNoSuchNumberIsNamedWithItsRange(String word) {
        assertThatThrownBy(() -> Launcher.bars(List.of("--bars", word), 1))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessage("--bars must be a number from 0 to 1000 but was “" + word + "”");
        assertThatThrownBy(() -> Launcher.size(List.of("--size", word)))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessageContaining("--size must be a number from 100 to 200 but was");
    }

    @Test
    void theWindowOpensAsWideAndHighAsIsSaid() {
        assertThat(Launcher.window(List.of("--demo"))).isEqualTo(new Dimension2D(1280, 800));
        assertThat(Launcher.window(List.of("--window", "1024x700"))).isEqualTo(new Dimension2D(1024, 700));
    }

    @ParameterizedTest
    @ValueSource(strings = {"", "1024", "large", "639x700", "1024x479", "10000x700", "1024x", "-800x600"})
    void aWindowThatCannotBeIsNamedWithItsRange(String word) {
        assertThatThrownBy(() -> Launcher.window(List.of("--window", word)))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessage("--window must be WIDTHxHEIGHT, from 640x480 to 9999x9999, but was “" + word + "”");
    }

    @Test
    void anOptionWithoutItsNumberIsSaid() {
        assertThatThrownBy(() -> Launcher.bars(List.of("--bars"), 1)).hasMessageContaining("but was “”");
    }
}
