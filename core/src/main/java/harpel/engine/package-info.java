/**
 * What runs chains. Begin with {@link harpel.engine.Renderer}: it has no clock and no thread, is given a span of ticks and its input,
 * and gives events. {@link harpel.engine.LiveEngine} drives it against the clock, {@link harpel.engine.PrintJob} as fast as it can.
 */
package harpel.engine;
