package harpel.app.editor;

import harpel.app.draw.Drawing;
import harpel.app.draw.StepRow;
import harpel.app.draw.WaysRow;
import harpel.app.look.Theme;
import harpel.app.transport.Words;
import harpel.app.ui.Buttons;
import harpel.app.ui.Columns;
import harpel.app.ui.ParamTile;
import harpel.app.ui.Space;
import harpel.effect.Root;
import harpel.effect.notes.Pulse;
import harpel.param.Param;
import harpel.param.ParamSet;
import harpel.param.ParamSpec;
import harpel.param.type.IntType;
import harpel.theory.GeneralMidi;
import harpel.theory.Key;
import harpel.theory.Pitch;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.input.KeyEvent;
import javafx.scene.input.MouseEvent;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.GridPane;

/** The layers of a pulse over each other, what the chosen one is set to, the chance of all other steps, and the notes drawn from. */
final class PulseEditor extends StageEditor {
    private static final double LAYER = 24;
    private static final double WORDS = 110;

    private final Layers layers;
    private final Label words = words("pulse-words");
    private final FlowPane actions = new FlowPane(Space.TIGHT, Space.TIGHT);
    private final GridPane chosenTiles = Columns.two();
    private final Map<Param<?>, ParamTile<?>> tiles = new HashMap<>();
    private final StepRow<Integer> fill;
    private final WaysRow among;
    private int chosen;
    private boolean spreads;

    public PulseEditor(Around around, Edit edit) {
        super(around, edit);
        layers = new Layers(around);
        Button every = Buttons.button(
                "+ every…",
                "add-every",
                "A layer that sounds every so many steps",
                () -> add(Pulse.LAYER.defaults().with(Pulse.EVERY, 4)));
        Button spread = Buttons.button(
                "+ spread…",
                "add-spread",
                "A layer of so many steps, spread as evenly as possible",
                () -> add(Pulse.LAYER.defaults().with(Pulse.SPREAD, 5)));
        Button copy = Buttons.button("Copy", "copy-layer", "The chosen layer once more", () -> add(layer(chosen)));
        Button remove = Buttons.button(
                "Remove layer", "remove-layer", "Takes the chosen layer away  (Delete on the drawing)", this::remove);
        for (Button button : List.of(every, spread, copy, remove)) {
            button.getStyleClass().add("tiny");
        }
        actions.getChildren().addAll(every, spread, copy, remove);
        for (Param<?> param : Pulse.LAYER.params()) {
            ParamTile<?> tile = new ParamTile<>(
                    param,
                    (changed, done) -> change(layer(chosen).withPlain(param, changed.plain()), done),
                    around::spelling,
                    around::say);
            if (param == Pulse.NOTE) {
                tile.name(shown -> Words.withDrum(around.selection(), shown));
            }
            tile.setId("layer-" + param.id());
            tiles.put(param, tile);
        }
        IntType percent = IntType.percent(0, 100);
        fill = new StepRow<>(
                around.look(),
                around.messages(),
                "pulse-fill",
                "Fill",
                percent,
                0,
                64,
                34,
                (values, done) -> set(Pulse.FILL, values.isEmpty() ? List.of(0) : values, done));
        among = new WaysRow(
                around.look(),
                around.messages(),
                "pulse-among",
                "Among",
                (changed, done) -> set(Pulse.AMONG, changed, done));
        getChildren().addAll(layers, actions, chosenTiles, words, fill, among);
    }

    @Override
    public Set<Param<?>> instead(ParamSpec spec) {
        return Set.of(Pulse.LAYERS, Pulse.AMONG);
    }

    private ParamSet layer(int number) {
        List<ParamSet> all = get(Pulse.LAYERS);
        return number < all.size() ? all.get(number) : Pulse.LAYER.defaults().with(Pulse.EVERY, 4);
    }

    private void add(ParamSet layer) {
        List<ParamSet> all = new ArrayList<>(get(Pulse.LAYERS));
        if (all.size() >= Pulse.MOST_LAYERS) {
            around().say("At most " + Pulse.MOST_LAYERS + " layers lie over each other.");
            return;
        }
        all.add(layer);
        chosen = all.size() - 1;
        set(Pulse.LAYERS, List.copyOf(all), true);
    }

    private void remove() {
        List<ParamSet> all = new ArrayList<>(get(Pulse.LAYERS));
        if (chosen < all.size()) {
            all.remove(chosen);
            set(Pulse.LAYERS, List.copyOf(all), true);
        }
    }

    /** A layer has one of every and spread: giving it the one takes the other. */
    private void change(ParamSet to, boolean done) {
        List<ParamSet> all = new ArrayList<>(get(Pulse.LAYERS));
        if (chosen >= all.size()) {
            return;
        }
        ParamSet one = to;
        if (one.get(Pulse.EVERY) > 0 && one.get(Pulse.SPREAD) > 0) {
            one = all.get(chosen).get(Pulse.SPREAD) > 0 ? one.with(Pulse.SPREAD, 0) : one.with(Pulse.EVERY, 0);
        } else if (one.get(Pulse.EVERY) == 0 && one.get(Pulse.SPREAD) == 0) {
            one = all.get(chosen);
        }
        all.set(chosen, one);
        set(Pulse.LAYERS, List.copyOf(all), done);
    }

    private int root() {
        Object inForce = around().transport().traces().inForce(address().toString(), Pulse.ROOT.id());
        return inForce instanceof Integer now ? now : Pulse.root(stage().params(), key());
    }

    private Key key() {
        return around().document().piece().get().key();
    }

    private int led(int step) {
        int root = root();
        return Root.key(stage().params(), root, key()).shift(root, step);
    }

    @Override
    public void show() {
        List<ParamSet> all = get(Pulse.LAYERS);
        chosen = Math.max(0, Math.min(all.size() - 1, chosen));
        boolean any = !all.isEmpty();
        boolean spread = any && layer(chosen).get(Pulse.SPREAD) > 0;
        if (any != !chosenTiles.getChildren().isEmpty() || spread != spreads) {
            spreads = spread;
            chosenTiles.getChildren().clear();
            List<Param<?>> wanted = !any
                    ? List.of()
                    : spread
                            ? List.of(Pulse.SPREAD, Pulse.TURNED, Pulse.ACCENT, Pulse.NOTE)
                            : List.of(Pulse.EVERY, Pulse.FROM, Pulse.ACCENT, Pulse.NOTE);
            for (int i = 0; i < wanted.size(); i++) {
                chosenTiles.add(tiles.get(wanted.get(i)), i % 2, i / 2);
            }
        }
        if (any) {
            tiles.values().forEach(tile -> tile.show(layer(chosen)));
        }
        layers.tall(Math.max(1, all.size()) * LAYER + 2 * Drawing.EDGE);
        boolean[] always = Pulse.always(stage().params());
        double sounding = 0;
        int sure = 0;
        for (int i = 0; i < always.length; i++) {
            sure += always[i] ? 1 : 0;
            sounding += always[i] ? 1 : get(Pulse.FILL).get(i % get(Pulse.FILL).size()) / 100.0;
        }
        double step =
                get(Pulse.PACE).ticksAt(0, around().document().piece().get().time());
        double bar = around().document().piece().get().time().meter().at(0).barTicks();
        words.setText(String.format(
                Locale.ROOT,
                "%d of %d steps always sound; about %.1f a bar in all.",
                sure,
                always.length,
                sounding * bar / (step * always.length)));
        layers.setAccessibleText("Layers: " + words.getText());
        layers.repaint();
        fill.show(get(Pulse.FILL));
        among.show(get(Pulse.AMONG), "degrees", key(), this::led);
    }

    @Override
    public void draw() {
        layers.light(around().transport().traces().step(address().toString(), 0));
        layers.draw();
        fill.draw();
        among.draw();
    }

    /** "every 8 from 4", "5 of 16". */
    private String name(ParamSet layer) {
        boolean spread = layer.get(Pulse.SPREAD) > 0;
        int by = layer.get(spread ? Pulse.TURNED : Pulse.FROM);
        String rhythm =
                spread ? layer.get(Pulse.SPREAD) + " of " + get(Pulse.STEPS) : "every " + layer.get(Pulse.EVERY);
        int note = layer.get(Pulse.NOTE);
        boolean drums = around().selection().part().channel() == GeneralMidi.PERCUSSION_CHANNEL;
        String own = layer.isDefault(Pulse.NOTE)
                ? ""
                : "  "
                        + GeneralMidi.percussion(note)
                                .filter(drum -> drums)
                                .orElse(Pitch.shown(note, around().spelling()));
        return rhythm + (by == 0 ? "" : " +" + by) + own;
    }

    private final class Layers extends Drawing {
        private int lit = -1;
        private int pressedStep;
        private int pressedShift;

        Layers(Around around) {
            super(around.look(), "pulse-layers", LAYER);
            addEventHandler(MouseEvent.MOUSE_PRESSED, this::pressed);
            addEventHandler(MouseEvent.MOUSE_DRAGGED, this::dragged);
            addEventHandler(
                    MouseEvent.MOUSE_RELEASED, event -> around().document().endGesture());
            tip(
                    this,
                    "Press a layer to choose it, drag it sideways to turn it.\nUp and Down choose a layer, Left and Right turn it, Page Up"
                            + " and Page Down change its number, Insert adds one, Delete takes it away.");
        }

        /** How tall a layer is drawn. */
        private double layerTall() {
            return (getHeight() - 2 * EDGE) / Math.max(1, get(Pulse.LAYERS).size());
        }

        void light(int step) {
            if (step != lit) {
                lit = step;
                repaint();
            }
        }

        private Param<Integer> shift() {
            return layer(chosen).get(Pulse.SPREAD) > 0 ? Pulse.TURNED : Pulse.FROM;
        }

        /** Where a turn ends: a spread comes round after the cycle, an every after its own distance. */
        private int shifted(int by) {
            int round =
                    shift() == Pulse.TURNED ? get(Pulse.STEPS) : layer(chosen).get(Pulse.EVERY);
            return Math.floorMod(by, Math.max(1, round));
        }

        private int stepAt(MouseEvent event) {
            double x = event.getX() - EDGE - WORDS;
            double wide = getWidth() - 2 * EDGE - WORDS;
            return (int) clamp(Math.floor(x / Math.max(1, wide) * get(Pulse.STEPS)), 0, get(Pulse.STEPS) - 1.0);
        }

        private void pressed(MouseEvent event) {
            int layer = (int) Math.floor((event.getY() - EDGE) / layerTall());
            if (layer >= 0 && layer < get(Pulse.LAYERS).size()) {
                choose(layer);
                pressedStep = stepAt(event);
                pressedShift = layer(chosen).get(shift());
            }
        }

        private void choose(int layer) {
            chosen = layer;
            PulseEditor.this.show();
        }

        private void dragged(MouseEvent event) {
            if (!get(Pulse.LAYERS).isEmpty()) {
                turn(pressedShift + stepAt(event) - pressedStep, false);
            }
            event.consume();
        }

        private void turn(int to, boolean done) {
            change(layer(chosen).with(shift(), shifted(to)), done);
        }

        private void number(int by) {
            Param<Integer> number = layer(chosen).get(Pulse.SPREAD) > 0 ? Pulse.SPREAD : Pulse.EVERY;
            int to = Math.max(1, Math.min(get(Pulse.STEPS), layer(chosen).get(number) + by));
            change(layer(chosen).with(number, to), true);
        }

        @Override
        public boolean key(KeyEvent event) {
            switch (event.getCode()) {
                case LEFT -> turn(layer(chosen).get(shift()) - 1, true);
                case RIGHT -> turn(layer(chosen).get(shift()) + 1, true);
                case UP -> choose(Math.max(0, chosen - 1));
                case DOWN -> choose(Math.min(Math.max(0, get(Pulse.LAYERS).size() - 1), chosen + 1));
                case PAGE_UP -> number(1);
                case PAGE_DOWN -> number(-1);
                case INSERT -> add(Pulse.LAYER.defaults().with(Pulse.EVERY, 4));
                case DELETE, BACK_SPACE -> remove();
                default -> {
                    return false;
                }
            }
            return true;
        }

        @Override
        public void wheel(boolean up, boolean fine) {
            number(up ? 1 : -1);
        }

        @Override
        public void paint(GraphicsContext g, Theme theme, double width, double height) {
            List<ParamSet> all = get(Pulse.LAYERS);
            int steps = get(Pulse.STEPS);
            double step = (width - WORDS) / steps;
            double tall = layerTall();
            for (int layer = 0; layer < all.size(); layer++) {
                double top = layer * tall;
                boolean here = layer == chosen;
                boolean[] sounds = Pulse.steps(all.get(layer), steps);
                if (here) {
                    g.setFill(faint(theme.brass, isFocused() ? 0.3 : 0.15));
                    g.fillRect(0, top, width, tall);
                }
                g.setFill(here ? theme.ink : theme.soft);
                g.fillText(name(all.get(layer)), 4, top + tall / 2 + 4, WORDS - 8);
                for (int i = 0; i < steps; i++) {
                    double left = WORDS + i * step;
                    g.setFill(faint(theme.rule, i == lit ? 1 : i % 4 == 0 ? 0.7 : 0.4));
                    g.fillRect(left + 0.5, top + 2, step - 1, tall - 4);
                    if (sounds[i]) {
                        g.setFill(i == lit ? theme.brass : theme.ink);
                        double r = Math.min(step - 3, Math.min(tall, 2 * LAYER) - 9) / 2;
                        g.fillOval(left + step / 2 - r, top + tall / 2 - r, 2 * r, 2 * r);
                    }
                }
            }
            if (all.isEmpty()) {
                g.setFill(theme.soft);
                g.fillText("No layer: only what fills.", 4, tall / 2 + 4);
            }
        }
    }
}
