/** Effects that make more notes from one. */
package harpel.effect.notes;
