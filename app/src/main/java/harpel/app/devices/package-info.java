/** The page of MIDI devices and of the clock. */
package harpel.app.devices;
