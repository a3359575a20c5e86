/** The Timeline view: parts as rows, blocks in them, and above them what holds for all. */
package harpel.app.timeline;
