/** How the window looks and what it says: themes and sizes, style sheets, the line at the foot. */
package harpel.app.look;
