package harpel.cli;

/** A command could not do what it was asked; the message says why and what would help. */
final class CouldNot extends Exception {
    private static final long serialVersionUID = 1L;

    CouldNot(String message) {
        super(message);
    }
}
