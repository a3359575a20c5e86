/** What drawn controls are made of. */
package harpel.app.draw;
