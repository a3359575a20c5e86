package harpel.format;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.time.Instant;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class AtomicFileTest {
    @TempDir
    Path folder;

    private static byte[] bytes(String text) {
        return text.getBytes();
    }

    @Test
    void aLinkLeadsWhereItLedAndAFileKeepsItsMode() throws IOException {
        Path file = Files.writeString(folder.resolve("tide.harpel"), "old");
        Files.setPosixFilePermissions(file, PosixFilePermissions.fromString("rw-r-----"));
        Path link = Files.createSymbolicLink(folder.resolve("link.harpel"), Path.of("tide.harpel"));
        AtomicFile.write(link, bytes("new"));
        assertThat(link).isSymbolicLink();
        assertThat(file).hasContent("new");
        assertThat(PosixFilePermissions.toString(Files.getPosixFilePermissions(file)))
                .isEqualTo("rw-r-----");
        Path dangling = Files.createSymbolicLink(folder.resolve("later"), folder.resolve("made.harpel"));
        AtomicFile.write(dangling, bytes("x"));
        assertThat(folder.resolve("made.harpel")).hasContent("x");
    }

    @Test
    void whatGoesWrongInTheMiddleNamesTheFileAndLeavesTheOldOne() throws IOException {
        Path file = Files.writeString(folder.resolve("tide.wav"), "old");
        assertThatThrownBy(() -> AtomicFile.write(file, out -> {
                    out.write(bytes("half"));
                    throw new IOException("No space left on device");
                }))
                .hasMessage(file + ": No space left on device");
        assertThat(file).hasContent("old");
        try (var left = Files.list(folder)) {
            assertThat(left).containsExactly(file);
        }
    }

    @Test
    void whatAKillLeftIsSweptAndWhatIsBeingWrittenStays() throws IOException {
        Path left = Files.writeString(folder.resolve(".0123456789abcdef.harpel-part"), "half");
        Path others = Files.writeString(folder.resolve(".others.harpel-part"), "whole");
        AtomicFile.write(folder.resolve("tide.harpel"), out -> {
            AtomicFile.sweep(folder, Files.getLastModifiedTime(left).toInstant().minusSeconds(1));
            assertThat(left).as("too new").exists();
            AtomicFile.sweep(folder, Instant.MAX);
            out.write(bytes("new"));
        });
        assertThat(left).doesNotExist();
        assertThat(others).exists();
        assertThat(folder.resolve("tide.harpel")).hasContent("new");
    }

    @Test
    void aFileUnderTwoNamesStaysOneFile() throws IOException {
        Path file = Files.writeString(folder.resolve("a"), "old and longer");
        Files.createLink(folder.resolve("b"), file);
        AtomicFile.write(file, bytes("new"));
        assertThat(folder.resolve("b")).hasContent("new");
    }

    @Test
    void aDeviceIsWrittenToAndNotReplaced() throws IOException {
        Path device = Path.of("/dev/null");
        AtomicFile.write(device, bytes("x"));
        assertThat(Files.isRegularFile(device)).isFalse();
        assertThatThrownBy(() -> AtomicFile.write(Path.of("/dev/full"), bytes("x")))
                .isInstanceOf(IOException.class);
    }

    @Test
    void whatMayNotBeWrittenIsRefusedInWordsAndStays() throws IOException {
        Path file = Files.writeString(folder.resolve("kept.harpel"), "old");
        Files.setPosixFilePermissions(file, PosixFilePermissions.fromString("r--r--r--"));
        assertThatThrownBy(() -> AtomicFile.write(file, bytes("new")))
                .hasMessageContaining("kept.harpel")
                .hasMessageContaining("may not be written");
        assertThat(file).hasContent("old");
        assertThatThrownBy(() -> AtomicFile.write(folder, bytes("x"))).hasMessageContaining("this is a folder");
        assertThatThrownBy(() -> AtomicFile.write(folder.resolve("no/x.mid"), bytes("x")))
                .hasMessageContaining("there is no folder");
        assertThat(folder).isDirectoryNotContaining("glob:**.harpel-part");
    }
}
