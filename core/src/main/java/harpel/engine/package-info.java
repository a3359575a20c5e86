/**
 * What plays live. Begin with {@link harpel.engine.LiveEngine}, the thread, and {@link harpel.engine.LiveCycle}, one turn of it: time,
 * transport, keys, edits, ways out and what is shown are objects of their own, and a {@link harpel.run.Renderer} plays the notes.
 */
package harpel.engine;
