/** What a piece has for the stage: levers, pads and moments, and when what they do takes hold. */
package harpel.piece.perform;
