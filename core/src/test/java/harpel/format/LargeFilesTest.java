package harpel.format;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import harpel.piece.Piece;
import harpel.time.Ticks;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** What is large opens or is refused in words, and what is read is bounded before it fills the memory. */
class LargeFilesTest {
    @TempDir
    Path folder;

    private static String many(int count, String one) {
        return IntStream.rangeClosed(1, count)
                .mapToObj(i -> one.replace("#", "" + i))
                .collect(Collectors.joining(","));
    }

    private static String piece(String parts, String phrases) {
        return "{\"harpel\":1,\"parts\":[" + parts + "],\"phrases\":[" + phrases + "]}";
    }

    @Test
    void aThousandPartsAreReadAndMoreAreRefused() throws FileException {
        assertThat(PieceFile.read(piece(many(1_000, "{\"name\":\"P #\"}"), "")).parts())
                .hasSize(1_000);
        assertThatThrownBy(() -> PieceFile.read(piece(many(1_001, "{\"name\":\"P #\"}"), "")))
                .hasMessageContaining("a piece holds at most 1,000 parts, but these would be 1,001");
    }

    @Test
    void blocksAndNotesOfAllPartsTogetherHaveABound() throws FileException {
        String block = "{\"at\":#,\"length\":1}";
        String half = "{\"name\":\"P #\",\"blocks\":[" + many(Piece.MOST_BLOCKS / 2, block) + "]}";
        assertThat(PieceFile.read(piece(many(2, half), "")).parts()).hasSize(2);
        assertThatThrownBy(() -> PieceFile.read(
                        piece(many(2, half) + ",{\"name\":\"Last\",\"blocks\":[{\"at\":0,\"length\":1}]}", "")))
                .hasMessageContaining("100,000 blocks, but these would be 100,001");
        String phrase = "{\"name\":\"F #\",\"length\":15360,\"notes\":[" + many(1_000, "[#,1,60,90]") + "]}";
        Piece piece = PieceFile.read(piece("", phrase.replace("#", "0")));
        // Phrases are immutable, so that many may share their notes.
        assertThatThrownBy(() -> piece.withPhrases(IntStream.range(0, 1_501)
                        .mapToObj(i -> piece.phrases().get(0).withId("f-" + i))
                        .toList()))
                .hasMessage("a piece holds at most 1,500,000 notes, but these would be 1,501,000");
    }

    @Test
    void whatIsBeyondTheMemoryIsRefusedBeforeItFillsIt() throws IOException {
        InFile.Room room = new InFile.Room();
        assertThatThrownBy(() -> room.take(Runtime.getRuntime().maxMemory()))
                .isInstanceOf(FileException.class)
                .hasMessageContaining("too large");
        assertThatThrownBy(() -> InFile.read(folder)).hasMessage("this is a folder; open a file in it");
        assertThatThrownBy(() -> InFile.read(folder.resolve("none"))).hasMessage("there is no such file");
        Path file = Files.writeString(folder.resolve("one"), "abc");
        assertThat(InFile.read(file)).containsExactly('a', 'b', 'c');
    }

    @Test
    void aPlaceIsWithinAMillionQuarters() throws FileException {
        String phrase = "{\"name\":\"F\",\"length\":" + Ticks.FARTHEST + ",\"notes\":[[#,1,60,90]]}";
        assertThat(PieceFile.read(piece("", phrase.replace("#", "" + (Ticks.FARTHEST - 1))))
                        .phrases())
                .hasSize(1);
        assertThatThrownBy(() -> PieceFile.read(piece("", phrase.replace("#", "" + (Ticks.FARTHEST + 1)))))
                .hasMessageContaining("must be a whole number 0–15360000000 but was 15360000001");
    }
}
