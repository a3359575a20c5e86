/**
 * Typed descriptors of parameters and immutable sets of their values. One {@link harpel.param.Param} is declared once and drives the
 * control, the file, the command line and the reference page.
 *
 * <p>Outside this package a value of a file is "plain": a String, Boolean, Integer, Long, Double, List or Map, so that no file
 * format is known here.
 */
package harpel.param;
