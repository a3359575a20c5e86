package harpel.app.ui;

/** How far things stand apart, in pixels: all views take their spaces from these, by name, as they take colours from the theme. */
public final class Space {
    public static final double HAIR = 1;
    public static final double FINE = 2;
    public static final double TIGHT = 4;
    public static final double CLOSE = 6;
    public static final double GAP = 8;
    public static final double ROOM = 10;
    public static final double EDGE = 12;
    public static final double WIDE = 16;
    public static final double PAGE = 20;
    public static final double FAR = 36;
    /** Where words stand that belong to a chain's rows. */
    public static final double INDENT = 42;

    private Space() {}
}
