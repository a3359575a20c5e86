/** Pages of help: of each effect, from its own declaration, and of what else the window has. */
package harpel.app.help;
