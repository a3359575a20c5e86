package harpel.piece;

import harpel.chain.Chain;
import io.soabase.recordbuilder.core.RecordBuilder;

/**
 * The two chains of a part, A and B, of which one is heard and the other waits.
 *
 * @param chain the one that is heard
 * @param off whether the part is heard without it
 * @param letter of the chain that is heard, A or B
 * @param other the chain of the other letter; null while there is only one
 */
@RecordBuilder
public record Rack(Chain chain, boolean off, char letter, Chain other) implements RackBuilder.With {
    public Rack {
        if (letter != 'A' && letter != 'B') {
            throw new IllegalArgumentException("the chain that is heard is A or B but was \"" + letter + "\"");
        }
    }

    public static Rack of(Chain chain) {
        return new Rack(chain, false, 'A', null);
    }

    public char otherLetter() {
        return letter == 'A' ? 'B' : 'A';
    }

    /** With the other chain in place of this one, which waits; the first time both are alike. */
    public Rack turned() {
        return new Rack(other == null ? chain : other, off, otherLetter(), chain);
    }
}
