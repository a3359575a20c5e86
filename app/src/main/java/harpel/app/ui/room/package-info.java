/** Who has how much room: what is scrolled, left out or made only when it is seen. */
package harpel.app.ui.room;
