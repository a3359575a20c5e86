package harpel.app.document;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.DigestInputStream;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.HexFormat;

/** By which it is known whether a file holds something else by now: SHA-256, in hexadecimal digits. */
final class Digests {
    /** Of nothing that a file can hold. */
    static final String OTHER = "other";

    private Digests() {}

    static MessageDigest begin() {
        try {
            return MessageDigest.getInstance("SHA-256");
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException("every Java has SHA-256", e);
        }
    }

    static String end(MessageDigest digest) {
        return HexFormat.of().formatHex(digest.digest());
    }

    static String of(byte[] bytes) {
        MessageDigest digest = begin();
        digest.update(bytes);
        return end(digest);
    }

    static String of(Path file) throws IOException {
        MessageDigest digest = begin();
        try (InputStream in = new DigestInputStream(Files.newInputStream(file), digest)) {
            in.transferTo(OutputStream.nullOutputStream());
        }
        return end(digest);
    }
}
