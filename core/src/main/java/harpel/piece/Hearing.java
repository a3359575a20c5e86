package harpel.piece;

/**
 * Where a part takes its notes from, besides its phrase.
 *
 * @param from the name of a device, or the id of a part; empty where neither is meant
 * @param channel of a device, 1–16, or 0 for all
 * @param keysHere whether keys play a part that hears what another sends; else they play that one
 */
public record Hearing(Source source, String from, int channel, boolean keysHere) {
    /** The keys of whoever plays, while the part is chosen. */
    public static final Hearing KEYS = new Hearing(Source.KEYS, "", 0);

    public static final Hearing NOTHING = new Hearing(Source.NONE, "", 0);

    /** What kind of place it is. */
    public enum Source {
        KEYS,
        NONE,
        DEVICE,
        OUTPUT_OF,
        INPUT_OF
    }

    public Hearing {
        boolean named = source != Source.KEYS && source != Source.NONE;
        if (named == from.isEmpty()) {
            throw new IllegalArgumentException(
                    named ? "the device or part that is heard has a name" : "keys and none name nothing that is heard");
        }
    }

    public Hearing(Source source, String from, int channel) {
        this(source, from, channel, false);
    }

    public Hearing withKeysHere(boolean here) {
        return new Hearing(source, from, channel, here);
    }

    /** Whether it hears another part. */
    public boolean ofPart() {
        return source == Source.OUTPUT_OF || source == Source.INPUT_OF;
    }

    /** Whether a message of that device and channel (1–16) comes in here. */
    public boolean takes(String device, int fromChannel) {
        return source == Source.DEVICE && from.equals(device) && (channel == 0 || channel == fromChannel);
    }

    @Override
    public String toString() {
        return switch (source) {
            case KEYS -> "keys";
            case NONE -> "none";
            case DEVICE -> from + (channel == 0 ? "" : ", channel " + channel);
            case OUTPUT_OF -> "what " + from + " sends";
            case INPUT_OF -> "what " + from + " hears";
        };
    }
}
