/**
 * {@link harpel.app.session.Session} joins what one window works with. Only the shell and the views that put their parts together know
 * it; all others get what they use.
 */
package harpel.app.session;
