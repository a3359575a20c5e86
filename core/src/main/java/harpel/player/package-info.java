/**
 * Between the document and the engine: what is heard of a piece, compiled on a thread of its own. Begin with {@link harpel.player.Player}.
 */
package harpel.player;
