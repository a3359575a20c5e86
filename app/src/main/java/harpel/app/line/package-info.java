/** One line for everything: what was typed is looked for among all that the window can do, and done. */
package harpel.app.line;
