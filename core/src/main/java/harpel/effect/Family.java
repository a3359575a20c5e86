package harpel.effect;

/** Where a kind of effect is found in menus and in the reference. */
public enum Family {
    HELD("Held notes"),
    NOTES("More notes from one"),
    PITCH("Other pitches"),
    SHAPE("Shape and time"),
    ROUTE("Routes and control");

    private final String label;

    Family(String label) {
        this.label = label;
    }

    public String label() {
        return label;
    }
}
