package harpel.app.phrase;

import harpel.app.ui.Tips;
import java.util.function.Consumer;
import javafx.geometry.Insets;
import javafx.geometry.Pos;
import javafx.scene.AccessibleRole;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.input.MouseEvent;
import javafx.scene.layout.Region;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;

/** A number that several things may have different: name, value or range, and a bar to drag; typing sets all alike. */
final class NumberTile extends VBox {
    /** Takes a value, and whether the hand has left the control. */
    interface Taker {
        void take(int value, boolean done);
    }

    private final String unit;
    private final int low;
    private final int high;
    private final Taker taker;
    private final Consumer<String> say;
    private final Label value = new Label();
    private final Region fill = new Region();
    private final StackPane bar = new StackPane(fill);
    private final TextField field = new TextField();
    private int[] shown;
    private double pressX;
    private int pressValue;
    private Runnable end = () -> {};

    NumberTile(String id, String name, String unit, int low, int high, Taker taker, Consumer<String> say) {
        super(1);
        this.unit = unit;
        this.low = low;
        this.high = high;
        this.taker = taker;
        this.say = say;
        setId(id);
        getStyleClass().add("tile");
        setPadding(new Insets(5, 8, 6, 8));
        setFocusTraversable(true);
        setAccessibleRole(AccessibleRole.SLIDER);
        Label words = new Label(name);
        words.getStyleClass().add("tile-name");
        value.getStyleClass().add("tile-value");
        bar.getStyleClass().add("tile-bar");
        bar.setAlignment(Pos.CENTER_LEFT);
        fill.getStyleClass().add("tile-fill");
        getChildren().addAll(words, value, bar);
        Tips.set(
                this,
                name + " of the picked notes, " + low + "–" + high + unit + ". Drag, type, or use the arrow keys.");
        addEventHandler(MouseEvent.MOUSE_PRESSED, event -> {
            requestFocus();
            pressX = event.getX();
            pressValue = shown == null ? low : (shown[0] + shown[1]) / 2;
            event.consume();
        });
        addEventHandler(MouseEvent.MOUSE_DRAGGED, event -> {
            double share = (event.getX() - pressX) / Math.max(1, getWidth());
            give((int) Math.round(pressValue + share * (high - low)), false);
        });
        addEventHandler(MouseEvent.MOUSE_RELEASED, event -> end.run());
        addEventHandler(MouseEvent.MOUSE_CLICKED, event -> {
            if (event.getClickCount() == 2) {
                type("");
            }
        });
        addEventHandler(KeyEvent.KEY_PRESSED, this::key);
        addEventHandler(KeyEvent.KEY_TYPED, event -> {
            if (isFocused() && event.getCharacter().matches("\\d")) {
                type(event.getCharacter());
                event.consume();
            }
        });
        field.setOnAction(event -> take());
        field.focusedProperty().addListener((property, before, now) -> {
            if (!now) {
                getChildren().set(1, value);
            }
        });
    }

    void setOnEnd(Runnable newEnd) {
        end = newEnd;
    }

    private void key(KeyEvent event) {
        if (getChildren().contains(field)) {
            if (event.getCode() == KeyCode.ESCAPE) {
                requestFocus();
                event.consume();
            }
            return;
        }
        int step = event.isShiftDown() ? 1 : 5;
        int middle = shown == null ? low : (shown[0] + shown[1]) / 2;
        switch (event.getCode()) {
            case RIGHT, UP -> give(middle + step, true);
            case LEFT, DOWN -> give(middle - step, true);
            default -> {
                return;
            }
        }
        event.consume();
    }

    private void type(String begin) {
        field.setText(begin);
        getChildren().set(1, field);
        field.requestFocus();
        field.end();
    }

    private void take() {
        try {
            int typed =
                    Integer.parseInt(field.getText().replace(unit.strip(), "").strip());
            if (typed < low || typed > high) {
                throw new NumberFormatException();
            }
            give(typed, true);
            requestFocus();
        } catch (NumberFormatException e) {
            say.accept("must be " + low + "–" + high + unit + " but was “" + field.getText() + "”");
        }
    }

    private void give(int wanted, boolean done) {
        if (shown != null) {
            taker.take(Math.max(low, Math.min(high, wanted)), done);
        }
    }

    /** Shows the least and the most there is; null where there is nothing. */
    void show(int[] range) {
        shown = range;
        value.setText(range == null ? "–" : range[0] == range[1] ? range[0] + unit : range[0] + "–" + range[1] + unit);
        double share = range == null ? 0 : ((range[0] + range[1]) / 2.0 - low) / (high - low);
        fill.maxWidthProperty().bind(bar.widthProperty().multiply(share));
        fill.minWidthProperty().bind(bar.widthProperty().multiply(share));
        setAccessibleText(value.getText());
    }
}
