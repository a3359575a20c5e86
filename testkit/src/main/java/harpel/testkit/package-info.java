/** What tests are written with: {@link harpel.testkit.Played} plays notes through a chain, {@link harpel.testkit.Randoms} makes anything. */
package harpel.testkit;
