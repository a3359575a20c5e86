/** The Phrase view: a piano roll on harp strings, lanes, an overview, and what the chain makes of the phrase. */
package harpel.app.phrase;
