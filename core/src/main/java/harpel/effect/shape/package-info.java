/** Effects that shape velocity, length and time. */
package harpel.effect.shape;
