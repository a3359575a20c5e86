package harpel.app.ui;

import javafx.scene.control.Label;

/** A name, which may be of any length: it gives way to the buttons beside it down to a few letters, and its tip says it whole. */
public final class NameLabel extends Label {
    private static final double AT_LEAST = 132;

    public NameLabel() {
        Tips.set(this, this::getText);
    }

    @Override
    protected double computeMinWidth(double height) {
        return Math.min(AT_LEAST, computePrefWidth(height));
    }
}
