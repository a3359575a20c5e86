/**
 * The window: what starts it, the bar at the top, actions, keys and files. It makes the {@link harpel.app.session.Session} and the views,
 * which show the piece and hand it edits, and hold no state of their own about it.
 */
package harpel.app;
