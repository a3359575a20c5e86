package harpel.app.ui;

import javafx.scene.text.Font;

/** How large words are, in pixels, and the plain face they are drawn in: all views take them from here, by name. */
public final class Type {
    /** Notes at the margin: numbers at lines, what a value is called. */
    public static final double NOTE = 11;

    public static final double SMALL = 12;
    public static final double TEXT = 13;
    /** Names of stages, phrases, strings; values. */
    public static final double NAME = 14;

    public static final double READING = 16;
    public static final double TITLE = 18;
    public static final double HEAD = 21;

    private Type() {}

    /** The plain face, for what is drawn. */
    public static Font plain(double size) {
        return Font.font("Lato", size);
    }
}
