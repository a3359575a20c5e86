/** The selected stage: its editor, its controls, what moves them. */
package harpel.app.inspector;
