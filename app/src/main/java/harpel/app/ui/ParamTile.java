package harpel.app.ui;

import harpel.app.ui.room.OnlyShown;
import harpel.move.Mover;
import harpel.move.Source;
import harpel.param.Param;
import harpel.param.ParamSet;
import harpel.param.music.ScaleType;
import harpel.param.type.ChoiceType;
import harpel.param.type.FlagType;
import harpel.param.type.WordType;
import harpel.param.type.WordsType;
import harpel.theory.Spelling;
import java.util.List;
import java.util.function.BiConsumer;
import java.util.function.BooleanSupplier;
import java.util.function.Consumer;
import java.util.function.Function;
import java.util.function.Supplier;
import java.util.function.UnaryOperator;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import javafx.css.PseudoClass;
import javafx.geometry.Insets;
import javafx.geometry.Side;
import javafx.scene.AccessibleRole;
import javafx.scene.control.ContentDisplay;
import javafx.scene.control.ContextMenu;
import javafx.scene.control.Label;
import javafx.scene.control.MenuItem;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.input.MouseEvent;
import javafx.scene.layout.Region;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import org.kordamp.ikonli.feather.Feather;
import org.kordamp.ikonli.javafx.FontIcon;

/**
 * A control made from a parameter's descriptor: name, value with unit, and a bar to drag. Typing or a double click sets it exactly, arrow
 * keys step (with Shift finely), Delete or Alt-click gives the default.
 *
 * @param <T> the value's class
 */
public final class ParamTile<T> extends VBox {
    /** What a tile tells: the new plain value, and whether the hand has left the control. */
    public interface Change extends BiConsumer<ParamTile<?>, Boolean> {}

    private static final PseudoClass WRONG = PseudoClass.getPseudoClass("wrong");
    private static final PseudoClass PICKABLE = PseudoClass.getPseudoClass("pickable");
    private static final double LITTLE = 0.08;

    private final Param<T> param;
    private final Change change;
    private final Consumer<String> say;
    private final Letters letters = new Letters();
    private Supplier<List<T>> choices;
    private Function<T, String> called;
    private final Label value = new Label();
    private final Region fill = new Region();
    private final StackPane bar = new StackPane(fill);
    private final Region movedMark = new Region();
    private final Region reach = new Region();
    private double reachLow;
    private double reachHigh;
    private BooleanSupplier taker = () -> false;
    private final Label movers = new Label();
    private final boolean hasBar;
    private boolean isMoved;
    private boolean inForceShown;
    private T current;
    private T pressedAt;
    private double pressedX;
    private boolean dragged;

    /**
     * @param spelling how notes are written at the moment
     * @param say tells what is wrong with a typed value
     */
    public ParamTile(Param<T> param, Change change, Supplier<Spelling> spelling, Consumer<String> say) {
        this.say = say;
        choices = this::ownChoices;
        called = value -> param.type().show(value, spelling.get());
        this.param = param;
        this.change = change;
        this.current = param.defaultValue();
        getStyleClass().add("tile");
        setPadding(new Insets(Space.CLOSE, Space.GAP, Space.CLOSE, Space.GAP));
        setSpacing(Space.HAIR);
        Label name = new Label(param.label());
        name.getStyleClass().add("tile-name");
        value.getStyleClass().add("tile-value");
        hasBar = !Double.isNaN(param.type().fraction(param.defaultValue()));
        bar.getStyleClass().add("tile-bar");
        fill.getStyleClass().add("tile-fill");
        bar.setAlignment(javafx.geometry.Pos.CENTER_LEFT);
        movers.getStyleClass().add("moved-by");
        movers.setManaged(false);
        movers.setVisible(false);
        movedMark.getStyleClass().add("tile-moved");
        movedMark.setVisible(false);
        reach.getStyleClass().add("tile-reach");
        reach.setVisible(false);
        bar.getChildren().addAll(reach, movedMark);
        OnlyShown.in(bar);
        getChildren().addAll(name, value, movers);
        boolean choice = !(param.type() instanceof FlagType) && !ownChoices().isEmpty();
        if (choice) {
            showAsChoice();
        } else if (hasBar) {
            getChildren().add(bar);
        }
        OnlyShown.in(this);
        bar.widthProperty().addListener((property, before, now) -> showBar());
        setId("param-" + param.id());
        setFocusTraversable(true);
        setAccessibleHelp(param.help());
        setAccessibleRole(hasBar ? AccessibleRole.SLIDER : AccessibleRole.TEXT_FIELD);
        Tips.set(
                this,
                () -> param.help() + "\n" + param.type().range()
                        + "\nDrag, or type a value; arrow keys step, Shift finely; Delete gives "
                        + param.type().show(param.defaultValue(), spelling.get()) + ".");
        setOnContextMenuRequested(event -> {
            offer();
            event.consume();
        });
        addEventHandler(MouseEvent.MOUSE_PRESSED, this::pressed);
        addEventHandler(MouseEvent.MOUSE_DRAGGED, this::dragged);
        addEventHandler(MouseEvent.MOUSE_RELEASED, event -> {
            change.accept(this, true);
            if (dragged) {
                // Whoever drags a value plays on; whoever clicks it is about to type.
                dragged = false;
                getParent().requestFocus();
            }
        });
        addEventHandler(KeyEvent.KEY_PRESSED, this::key);
        addEventHandler(KeyEvent.KEY_TYPED, this::typed);
        setOnScroll(event -> {
            if (isFocused() && event.getDeltaY() != 0) {
                set(param.type().step(current, event.getDeltaY() > 0 ? 1 : -1, event.isShiftDown()), false);
                event.consume();
            }
        });
    }

    public Param<T> param() {
        return param;
    }

    /** The value as files hold it. */
    public Object plain() {
        return param.type().write(current);
    }

    public void show(ParamSet values) {
        current = values.get(param);
        String text = called.apply(current);
        value.setText(text.isEmpty() ? "–" : text);
        setAccessibleText(param.label() + " " + text);
        showBar();
    }

    /** "5 → 12 degrees": a unit that both have is said once. */
    public static String fromTo(String from, String to) {
        String unit = to.substring(Math.max(0, to.lastIndexOf(' ')));
        boolean both = unit.startsWith(" ") && from.endsWith(unit);
        return (both ? from.substring(0, from.length() - unit.length()) : from) + " → " + to;
    }

    /** A choice has no bar but the sign of a list, which opens it; what is dragged or stepped through is the same. */
    private void showAsChoice() {
        Label sign = new Label("", new FontIcon(Feather.CHEVRON_DOWN));
        sign.setPadding(new Insets(0, Space.GAP, 0, Space.GAP));
        sign.setOnMousePressed(event -> {
            requestFocus();
            choose();
            event.consume();
        });
        value.setGraphic(sign);
        value.setContentDisplay(ContentDisplay.RIGHT);
        value.setMaxWidth(Double.MAX_VALUE);
    }

    private void showText(String text) {
        if (!value.getText().equals(text)) {
            value.setText(text);
        }
    }

    private void showBar() {
        if (hasBar) {
            double width = Math.max(2, bar.getWidth() * param.type().fraction(current));
            fill.setMinWidth(width);
            fill.setMaxWidth(width);
            double place = param.type().fraction(current);
            double low = share(place + reachLow) * bar.getWidth();
            double high = share(place + reachHigh) * bar.getWidth();
            reach.setTranslateX(low);
            reach.setMinWidth(high - low);
            reach.setMaxWidth(high - low);
        }
    }

    private static double share(double of) {
        return Math.max(0, Math.min(1, of));
    }

    /** What a press does instead while a lever waits for a control; it says whether it was taken. */
    public void onPick(BooleanSupplier newTaker) {
        taker = newTaker;
    }

    /** Marks the control as one that can be pointed at. */
    public void showPickable(boolean pickable) {
        pseudoClassStateChanged(PICKABLE, pickable);
    }

    /** Names what moves it, and marks how far. */
    public void showMovers(List<Mover> newMovers) {
        isMoved = !newMovers.isEmpty();
        reachLow = 0;
        reachHigh = 0;
        for (Mover mover : newMovers) {
            if (mover.source() != Source.AUTOMATION) {
                reachLow += Math.min(mover.offset(0), mover.offset(1));
                reachHigh += Math.max(mover.offset(0), mover.offset(1));
            }
        }
        reach.setVisible(hasBar && reachHigh > reachLow);
        showBar();
        movers.setText("← " + newMovers.stream().map(Mover::shown).collect(Collectors.joining(", ")));
        movers.setManaged(isMoved);
        movers.setVisible(isMoved);
        movedMark.setVisible(isMoved && movedMark.isVisible());
    }

    /** Marks where what moves it has brought it; null when that is not known. */
    public void showMoved(ParamSet moved) {
        boolean known = isMoved && hasBar && moved != null && moved.spec().has(param);
        movedMark.setVisible(known);
        if (known) {
            T now = moved.get(param);
            movedMark.setTranslateX(bar.getWidth() * param.type().fraction(now) - 2);
            String base = called.apply(current);
            String at = called.apply(now);
            showText(at.equals(base) ? base : fromTo(base, at));
        } else if (isMoved) {
            showText(called.apply(current));
        }
    }

    /** Says which value is in force where that is another than is set; null when that is not known. */
    @SuppressWarnings("unchecked") // who tells it has the parameter itself
    public void showInForce(Object now) {
        if (!isMoved && now != null || inForceShown) {
            String base = called.apply(current);
            String at = now == null || isMoved ? base : called.apply((T) now);
            inForceShown = !at.equals(base);
            showText(inForceShown ? fromTo(base, at) : base.isEmpty() ? "–" : base);
        }
    }

    private void set(T newValue, boolean done) {
        if (!newValue.equals(current)) {
            current = newValue;
            change.accept(this, done);
        }
    }

    private void pressed(MouseEvent event) {
        requestFocus();
        event.consume();
        if (event.isSecondaryButtonDown() || taker.getAsBoolean()) {
            return;
        }
        if (event.isAltDown()) {
            set(param.defaultValue(), true);
        } else if (param.type() instanceof FlagType) {
            set(param.type().step(current, Boolean.TRUE.equals(current) ? -1 : 1, false), true);
        } else if (event.getClickCount() == 2) {
            choose();
        } else {
            pressedAt = current;
            pressedX = event.getX();
        }
    }

    private void dragged(MouseEvent event) {
        if (hasBar && pressedAt != null && Math.abs(event.getX() - pressedX) > 2) {
            double moved = (event.getX() - pressedX) / Math.max(1, getWidth());
            double scale = event.isShiftDown() ? 0.2 : 1;
            dragged = true;
            set(param.type().atFraction(param.type().fraction(pressedAt) + moved * scale), false);
        }
        event.consume();
    }

    private void key(KeyEvent event) {
        int direction = switch (event.getCode()) {
            case UP, RIGHT -> 1;
            case DOWN, LEFT -> -1;
            default -> 0;
        };
        if (direction != 0 && hasBar && !event.isShortcutDown() && !event.isAltDown()) {
            set(param.type().step(current, direction, event.isShiftDown()), true);
            event.consume();
        } else if (event.getCode() == KeyCode.DELETE || event.getCode() == KeyCode.BACK_SPACE) {
            set(param.defaultValue(), true);
            event.consume();
        } else if (event.getCode() == KeyCode.ENTER) {
            if (!taker.getAsBoolean()) {
                choose();
            }
            event.consume();
        }
    }

    private void typed(KeyEvent event) {
        if (!letters.isOne(event)) {
            return;
        }
        event.consume();
        List<T> things = choices.get();
        if (things.isEmpty()) {
            type(event.getCharacter());
        } else {
            letters.find(event.getCharacter(), things, called).ifPresent(one -> set(one, true));
        }
    }

    /** Says more of a value than its type can. */
    public void name(UnaryOperator<String> more) {
        Function<T, String> plainly = called;
        called = value -> more.apply(plainly.apply(value));
    }

    /** Lets values be chosen by names of their own in place of what their type says of them. */
    public void offer(Supplier<List<T>> newChoices, Function<T, String> newNames) {
        choices = newChoices;
        called = newNames;
    }

    /** The values to choose from that the type itself knows, or none when a value is typed. */
    private List<T> ownChoices() {
        List<String> words = List.of();
        if (param.type() instanceof ChoiceType<?> choice) {
            words = choice.values().stream().map(ChoiceType::word).toList();
        } else if (param.type() instanceof WordsType some) {
            words = some.values();
        } else if (param.type() instanceof WordType some) {
            words = some.words();
        } else if (param.type() instanceof ScaleType) {
            words = ScaleType.words();
        } else if (param.type() instanceof FlagType) {
            return Stream.of("off", "on").map(param.type()::parse).toList();
        }
        return words.stream().map(param.type()::read).toList();
    }

    /** What can be done with the value besides setting it; also by the keyboard's menu key. */
    private void offer() {
        ContextMenu menu = Menus.list();
        menu.setId("tile-menu");
        offer(menu, "Default", () -> set(param.defaultValue(), true));
        if (param.type().canShuffle(current)) {
            offer(menu, "Fill at random", () -> set(param.type().shuffled(current, 1, Math::random), true));
            offer(
                    menu,
                    "Nudge at random, a little",
                    () -> set(param.type().shuffled(current, LITTLE, Math::random), true));
        }
        menu.show(this, Side.BOTTOM, 0, 0);
    }

    private static void offer(ContextMenu menu, String text, Runnable action) {
        MenuItem item = new MenuItem(text);
        item.setOnAction(event -> action.run());
        menu.getItems().add(item);
    }

    private void choose() {
        List<T> things = choices.get();
        if (things.isEmpty()) {
            type(null);
            return;
        }
        ContextMenu menu = Menus.list();
        for (T thing : things) {
            offer(menu, called.apply(thing), () -> set(thing, true));
        }
        menu.show(this, Side.BOTTOM, 0, 0);
    }

    /** Opens a field in place of the value; Enter takes what was typed, Escape leaves it. */
    private void type(String first) {
        TextField field = new TextField(first == null ? value.getText().equals("–") ? "" : value.getText() : first);
        field.setId("typing");
        int place = getChildren().indexOf(value);
        if (place < 0) {
            return;
        }
        getChildren().set(place, field);
        field.requestFocus();
        if (first == null) {
            field.selectAll();
        } else {
            field.end();
        }
        Runnable close = () -> {
            int at = getChildren().indexOf(field);
            if (at >= 0) {
                getChildren().set(at, value);
                requestFocus();
            }
        };
        field.setOnAction(event -> {
            try {
                T typed = param.type().parse(field.getText());
                close.run();
                set(typed, true);
            } catch (IllegalArgumentException e) {
                Tips.set(field, e.getMessage());
                field.pseudoClassStateChanged(WRONG, true);
                say.accept(param.label() + ": " + e.getMessage());
            }
        });
        field.addEventFilter(KeyEvent.KEY_PRESSED, event -> {
            if (event.getCode() == KeyCode.ESCAPE) {
                close.run();
                event.consume();
            }
        });
        field.focusedProperty().addListener((property, before, now) -> {
            if (!now) {
                close.run();
            }
        });
    }
}
