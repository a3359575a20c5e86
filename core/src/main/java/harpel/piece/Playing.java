package harpel.piece;

import java.util.List;

/** What a part plays of itself while the transport runs. */
public sealed interface Playing {
    /** The id of the phrase that is heard, or empty. */
    String phrase();

    /** The numbers of the variations that are taken in turn, one a round; empty where that of the piece holds. */
    List<Long> variations();

    /**
     * One phrase over and over.
     *
     * @param phrase its id; empty for none
     */
    record Loop(String phrase, List<Long> variations) implements Playing {
        public static final Loop NOTHING = new Loop("", List.of());

        public Loop {
            variations = List.copyOf(variations);
        }
    }
}
