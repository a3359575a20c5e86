/** Prints of a piece: what is printed, what came of it, as phrases and as files, and what was lost on the way. */
package harpel.print;
