/**
 * What runs chains, one span of ticks after another. Begin with {@link harpel.run.Renderer}: it has no clock and no thread, is given a
 * span and its input, and gives events; each part, chain, stage, lever and mover has its run below it. One {@link harpel.run.Tap} is told
 * all that happens.
 */
package harpel.run;
