/**
 * What plays without a clock, as fast as it can. Begin with {@link harpel.offline.PrintJob}: a part through its chain, and as long after
 * its end as {@link harpel.offline.Tail} says; {@link harpel.offline.OneRound} is what comes of a phrase each time it comes round.
 */
package harpel.offline;
