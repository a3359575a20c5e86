package harpel.format;

import java.io.IOException;

/** A file that cannot be read, with the place and what was expected there. */
public final class FileException extends IOException {
    private static final long serialVersionUID = 1L;

    public FileException(String message) {
        super(message);
    }

    FileException(String message, Throwable cause) {
        super(message, cause);
    }

    public static FileException atByte(long position, String what) {
        return new FileException("byte " + position + ": " + what);
    }
}
