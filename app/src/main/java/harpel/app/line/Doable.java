package harpel.app.line;

/**
 * Something that can be done.
 *
 * @param words what it is, as it is found
 * @param more what it will do, or its key
 * @param run does it; null where it cannot be done, and {@code more} says why
 */
public record Doable(String words, String more, Runnable run) {}
