/** Variations: other results of the same phrase and chain to choose from, and how unlike they are. */
package harpel.vary;
