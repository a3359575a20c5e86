/**
 * The window. {@link harpel.app.session.Session} is the one bridge between the piece, the engine and JavaFX; views show it and hand it edits,
 * and hold no state of their own about the piece.
 */
package harpel.app;
