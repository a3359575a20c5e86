/** Effects that choose other pitches. */
package harpel.effect.pitch;
