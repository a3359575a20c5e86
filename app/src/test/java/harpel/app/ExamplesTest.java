package harpel.app;

import static org.assertj.core.api.Assertions.assertThat;

import harpel.advice.Advisor;
import harpel.effect.EffectCatalog;
import harpel.format.PieceFile;
import harpel.offline.Tail;
import harpel.piece.Part;
import harpel.piece.Piece;
import harpel.print.PrintOrder;
import harpel.print.Printed;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Path;
import java.util.List;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/** The small pieces that ship: whole, heard, and each of the kind of work that it says. */
class ExamplesTest {
    static List<String> names() {
        return List.copyOf(Files.EXAMPLES.keySet());
    }

    static Piece read(String name) throws IOException {
        try (InputStream stream = Files.class.getResourceAsStream("demo/examples/" + name + ".harpel")) {
            return PieceFile.read(stream.readAllBytes());
        }
    }

    @ParameterizedTest
    @MethodSource("names")
    void itIsWholeAndHeard(String name) throws Exception {
        Piece piece = read(name);
        assertThat(PieceFile.unknown(piece)).isEmpty();
        for (Part part : piece.parts()) {
            assertThat(Advisor.missing(piece, part)).as(part.name()).isEmpty();
            assertThat(part.chain().stages()).allMatch(stage -> stage.isKnown());
        }
        Printed printed = new PrintOrder(
                        piece,
                        piece.parts().stream().map(Part::id).collect(Collectors.toSet()),
                        0,
                        piece.time().meter().tickOfBar(4),
                        Tail.CUT)
                .print(done -> {});
        assertThat(printed.losses()).isEmpty();
        assertThat(printed.events().values().stream().filter(events -> !events.isEmpty()))
                .as("parts that send something")
                .hasSizeGreaterThanOrEqualTo(Math.max(1, piece.parts().size() - 1));
        assertThat(printed.count()).isGreaterThan(2);
    }

    @Test
    void eachShowsItsKindOfWork() throws Exception {
        assertThat(EffectCatalog.of("strum")).isIn(kinds("strum"));
        assertThat(EffectCatalog.of("pulse")).isIn(kinds("groove"));
        assertThat(EffectCatalog.of("lanes")).isIn(kinds("lanes"));
        assertThat(EffectCatalog.of("note-bend")).isIn(kinds("bend"));
        assertThat(EffectCatalog.of("carom")).isIn(kinds("board"));
        assertThat(read("maker").phrases()).hasSizeGreaterThan(1);
    }

    private static List<Object> kinds(String name) throws IOException {
        return read(name).parts().stream()
                .flatMap(part -> part.chain().stages().stream())
                .<Object>map(stage -> stage.kind())
                .toList();
    }

    @Test
    void theFilesThatWereOpenLastAreRememberedOnceEach(@TempDir Path home) {
        Settings settings = new Settings(home);
        assertThat(settings.recent()).isEmpty();
        for (int i = 0; i < 10; i++) {
            settings.keepRecent(home.resolve(i + ".harpel"));
        }
        settings.keepRecent(home.resolve("7.harpel"));
        assertThat(new Settings(home).recent())
                .hasSize(8)
                .startsWith(home.resolve("7.harpel"), home.resolve("9.harpel"), home.resolve("8.harpel"))
                .doesNotHaveDuplicates();
    }
}
