/**
 * What tests of effects are written with, those of other people, too: {@link harpel.testkit.Played} plays notes through a chain,
 * {@link harpel.testkit.Randoms} makes anything, {@link harpel.testkit.Laws} are what is promised of every effect, {@link
 * harpel.testkit.Tries} tries them.
 */
package harpel.testkit;
