/**
 * What moves a parameter while it plays: a {@link harpel.move.Mover} is a {@link harpel.move.Source} and its settings, and a stage's
 * {@link harpel.move.Moves} say which parameter has which. The value heard is the base and all of them, kept in range.
 */
package harpel.move;
