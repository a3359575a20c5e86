/** Printing: its buttons and its sheet. */
package harpel.app.print;
