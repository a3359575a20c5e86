/** The music of one stage, drawn and edited: an editor for each effect that has one. */
package harpel.app.editor;
