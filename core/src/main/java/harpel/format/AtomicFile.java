package harpel.format;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.util.UUID;

/** Writes files so that a crash leaves either the old one or the new one, never half of one. */
public final class AtomicFile {
    private AtomicFile() {}

    public static void write(Path file, byte[] content) throws IOException {
        Path folder = file.toAbsolutePath().getParent();
        Path draft = folder.resolve("." + file.getFileName() + "." + UUID.randomUUID() + ".part");
        try {
            try (FileChannel channel =
                    FileChannel.open(draft, StandardOpenOption.CREATE_NEW, StandardOpenOption.WRITE)) {
                ByteBuffer left = ByteBuffer.wrap(content);
                while (left.hasRemaining()) {
                    channel.write(left);
                }
                channel.force(true);
            }
            Files.move(draft, file, StandardCopyOption.ATOMIC_MOVE, StandardCopyOption.REPLACE_EXISTING);
        } finally {
            Files.deleteIfExists(draft);
        }
    }
}
