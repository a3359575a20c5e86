/** The kinds of values a parameter may have: numbers, choices, words, rows and curves; each reads, checks, steps and shows its values. */
package harpel.param.type;
