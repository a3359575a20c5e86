/** The sheet of variations. */
package harpel.app.vary;
