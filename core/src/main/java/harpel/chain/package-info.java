/**
 * The document's chains: a {@link harpel.chain.Chain} is a row of {@link harpel.chain.Stage}s, and a stage may hold
 * {@link harpel.chain.Branch}es, each a chain again. All immutable.
 */
package harpel.chain;
