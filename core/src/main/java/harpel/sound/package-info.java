/** Sound files of prints, made by the software synthesizer as fast as it can. */
package harpel.sound;
