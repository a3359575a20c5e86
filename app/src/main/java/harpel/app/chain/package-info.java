/** The Chain view: the part’s stages in rows with their traces, and what is done to them. */
package harpel.app.chain;
