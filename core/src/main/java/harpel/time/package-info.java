/**
 * Time in whole ticks, {@link harpel.time.Ticks#PER_QUARTER} to a quarter note. Seconds exist only at the ports; the
 * {@link harpel.time.TimeMap} of a piece turns one into the other.
 */
package harpel.time;
