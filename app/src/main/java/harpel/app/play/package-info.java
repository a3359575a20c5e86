/** The Play view, for the stage: levers as strings, pads, moments, parts, boards; all of it large. */
package harpel.app.play;
