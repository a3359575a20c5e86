/**
 * What flows through a chain: note starts, note ends and every other MIDI message, all immutable. A note is its
 * {@link harpel.event.NoteStart} object; its end refers to it, and so does whatever is made from it.
 */
package harpel.event;
