/** Effects that play held notes one after another, or hold them. */
package harpel.effect.held;
