/** The document: an immutable {@link harpel.piece.Piece}, and the {@link harpel.piece.History} of its edits. */
package harpel.piece;
