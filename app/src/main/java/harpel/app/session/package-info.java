/** What the window shows and changes: the open piece with its engine and traces, the theme, the settings. */
package harpel.app.session;
