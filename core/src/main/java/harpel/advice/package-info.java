/**
 * What will surprise in a piece, and the one action that helps: {@link harpel.advice.Advisor} asks one rule after another, each a class
 * of its own. Effects are known by the traits they declare, never by their names.
 */
package harpel.advice;
