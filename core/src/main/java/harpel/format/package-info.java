/**
 * Files: Standard MIDI Files ({@link harpel.format.midi.MidiFile}), pieces and chains as JSON ({@link harpel.format.PieceFile},
 * {@link harpel.format.ChainFile}), and the reference made from the descriptors. What cannot be read is refused with its place; nothing
 * is read halfway in silence.
 */
package harpel.format;
