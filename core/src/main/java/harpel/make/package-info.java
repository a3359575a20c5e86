/** Makes phrases: chords in order, melodies and textures, rhythms; each the same for the same settings. */
package harpel.make;
