/** The open piece: {@link harpel.app.document.Document} with its undo, what a {@link harpel.app.document.Change} changed, what is selected, and the copy kept on its own. */
package harpel.app.document;
