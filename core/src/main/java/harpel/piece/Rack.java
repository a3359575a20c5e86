package harpel.piece;

import harpel.chain.Chain;
import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.ArrayList;
import java.util.List;

/**
 * The two chains of a part, A and B, of which one is heard and the other waits.
 *
 * @param chain the one that is heard
 * @param off whether the part is heard without it
 * @param letter of the chain that is heard, A or B
 * @param other the chain of the other letter; null while there is only one
 * @param between the lever that stands between the two, at its lowest on A; empty for none
 */
@RecordBuilder
public record Rack(Chain chain, boolean off, char letter, Chain other, String between) implements RackBuilder.With {
    public Rack {
        if (letter != 'A' && letter != 'B') {
            throw new IllegalArgumentException("the chain that is heard is A or B but was \"" + letter + "\"");
        }
    }

    public static Rack of(Chain chain) {
        return new Rack(chain, false, 'A', null, "");
    }

    /** Whether both chains have the same stages, so that there is something between them. */
    public boolean isAlike() {
        return other != null && shape(chain).equals(shape(other));
    }

    private static List<String> shape(Chain chain) {
        List<String> shape = new ArrayList<>();
        Lane.eachStage(
                "part",
                List.of(),
                chain,
                (address, stage) -> shape.add(
                        address + " " + (stage.isKnown() ? stage.kind().id() : "unknown")));
        return shape;
    }

    public char otherLetter() {
        return letter == 'A' ? 'B' : 'A';
    }

    /** With the other chain in place of this one, which waits; the first time both are alike. */
    public Rack turned() {
        return new Rack(other == null ? chain : other, off, otherLetter(), chain, between);
    }
}
