/**
 * What can be done to the notes of a phrase: each action takes a phrase and the notes that are picked, all where none are, and gives the
 * phrase after it, what is picked then, and one line that says what it did. All repeatable: what is drawn depends on a seed.
 */
package harpel.phrase.action;
