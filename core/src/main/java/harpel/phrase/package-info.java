/**
 * Written music: a {@link harpel.phrase.Phrase} has an identity that survives renaming, and {@link harpel.phrase.Notes} that share all
 * that an edit did not touch. All immutable.
 */
package harpel.phrase;
