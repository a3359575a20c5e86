/**
 * The exact memory of what was heard: {@link harpel.capture.Heard} is written by the engine's thread without waiting and without gaps, and
 * read by whoever wants to keep a stretch of it. It is apart from the drawn traces, which may drop.
 */
package harpel.capture;
