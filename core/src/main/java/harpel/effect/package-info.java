/**
 * The small door through which every effect comes in: an {@link harpel.effect.EffectKind} declares parameters and creates running
 * {@link harpel.effect.Effect}s. To add one, write one class in a family's package below this one, annotated for
 * {@link java.util.ServiceLoader}, and its test; the interface, files, command line, reference and laws follow from it.
 */
package harpel.effect;
