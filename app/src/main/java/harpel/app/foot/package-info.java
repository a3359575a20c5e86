/** The foot of the window: what was said last, the drawn keys, the key and the variation of the piece. */
package harpel.app.foot;
