package harpel.app.ui;

import javafx.scene.control.Label;

/** Words of any length, such as a name: they give way to the buttons beside them down to a few letters, and the tip says them whole. */
public final class NameLabel extends Label {
    private static final double AT_LEAST = 132;

    private final double atLeast;

    public NameLabel() {
        this(AT_LEAST);
    }

    /** @param atLeast so wide it stays, where its words are as long as that */
    public NameLabel(double atLeast) {
        this.atLeast = atLeast;
        Tips.set(this, this::getText);
    }

    @Override
    protected double computeMinWidth(double height) {
        return Math.min(atLeast, computePrefWidth(height));
    }
}
