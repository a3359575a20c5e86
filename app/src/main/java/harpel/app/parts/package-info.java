/** The parts and levers at the left. */
package harpel.app.parts;
