/** Standard MIDI Files 1.0: begin with {@link harpel.format.midi.MidiFile}. */
package harpel.format.midi;
