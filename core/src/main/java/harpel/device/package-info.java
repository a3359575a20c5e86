/** The ports: real MIDI devices where the machine has them, and the stand-ins that ship with Harpel. Only here are ticks turned into time. */
package harpel.device;
