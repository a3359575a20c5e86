package harpel.piece;

/** What a part plays of itself while the transport runs. */
public sealed interface Playing {
    /** The id of the phrase that is heard, or empty. */
    String phrase();

    /**
     * One phrase over and over.
     *
     * @param phrase its id; empty for none
     */
    record Loop(String phrase) implements Playing {
        public static final Loop NOTHING = new Loop("");
    }
}
