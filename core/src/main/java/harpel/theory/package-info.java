/**
 * Values of music theory with no behaviour in time. Begin with {@link harpel.theory.Pitch} and {@link harpel.theory.Key}.
 *
 * <p>Everywhere in Harpel: no argument and no result is null unless its name or text says so; arithmetic on ticks is exact and
 * throws {@link ArithmeticException} where it would overflow.
 */
package harpel.theory;
