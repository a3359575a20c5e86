/** MIDI clock: {@link harpel.clock.ClockIn} follows one, {@link harpel.clock.ClockOut} sends one, {@link harpel.clock.Anchor} ties ticks to nanoseconds. */
package harpel.clock;
