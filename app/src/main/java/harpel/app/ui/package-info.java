/** Our own vocabulary of controls, used by every view: buttons, fields, choices, values to drag, tips. They know no session. */
package harpel.app.ui;
