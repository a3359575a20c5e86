package harpel.app.draw;

import harpel.app.look.Look;
import harpel.app.look.Messages;
import harpel.app.ui.Buttons;
import harpel.app.ui.Space;
import harpel.app.ui.TextLine;
import harpel.param.type.IntType;
import harpel.param.type.WaysType;
import harpel.theory.Key;
import harpel.theory.Pitch;
import harpel.theory.Spelling;
import harpel.theory.Ways;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.TreeMap;
import java.util.function.BiConsumer;
import java.util.function.IntUnaryOperator;
import javafx.scene.control.Button;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.VBox;

/** Ways drawn as bars over their steps, each named by where it leads. */
public final class WaysRow extends VBox {
    private static final List<Integer> REACHES = List.of(7, 12, WaysType.FURTHEST);
    /** Lighter ways than this are drawn as if the heaviest weighed a hundred: only how they compare counts. */
    private static final int LIGHT = 50;

    private final BiConsumer<Ways, Boolean> change;
    private final StepRow<Integer> row;
    private final Button wide;
    private final TextLine every;
    private Ways ways = Ways.evenly(0);
    private int reach = REACHES.get(0);
    private IntUnaryOperator leads = step -> -1;
    private String unit = "";
    private Key key = Key.C_MAJOR;

    /** @param change takes the ways, and whether the hand has left the row */
    public WaysRow(Look look, Messages messages, String id, String name, BiConsumer<Ways, Boolean> change) {
        this.change = change;
        row = new StepRow<>(
                look,
                messages,
                id,
                name,
                IntType.of(0, Ways.HEAVIEST, ""),
                0,
                2 * WaysType.FURTHEST + 1,
                86,
                this::take);
        row.named(this::name, this::say);
        every = new TextLine("every-" + id, "Every so many steps from the chosen one, up and down", "2");
        every.setPrefColumnCount(2);
        FlowPane tools = new FlowPane(Space.TIGHT, Space.TIGHT);
        tools.getChildren()
                .addAll(
                        tool("All alike", "alike-" + id, "Every way there is is equally likely", this::alike),
                        tool(
                                "Mirror",
                                "mirror-" + id,
                                "Down as up: the other side like the chosen step's",
                                this::mirror),
                        tool("Less afar", "less-" + id, "The further away, the less often", this::lessAfar),
                        tool("Key only", "key-" + id, "Leaves out what leads out of the key", this::keyOnly),
                        tool(
                                "Every",
                                "every-k-" + id,
                                "A way at every so many steps from the chosen one",
                                this::everyK),
                        every);
        row.addToTool(tools);
        wide = tool("", "reach-" + id, "How many steps up and down are shown: 7, 12 or 24", this::reach);
        row.addToHead(wide);
        getChildren().add(row);
    }

    private static Button tool(String words, String id, String tip, Runnable action) {
        Button button = Buttons.button(words, id, tip, action);
        button.getStyleClass().add("tiny");
        return button;
    }

    /**
     * @param newLeads the pitch that a step leads to from the note that is looked at; -1 for none
     * @param newUnit what is stepped in: "degrees"
     */
    public void show(Ways newWays, String newUnit, Key newKey, IntUnaryOperator newLeads) {
        ways = newWays;
        unit = newUnit;
        key = newKey;
        leads = newLeads;
        int furthest = ways.steps().stream().mapToInt(Math::abs).max().orElse(0);
        while (reach < furthest) {
            reach = REACHES.get(REACHES.indexOf(reach) + 1);
        }
        lay();
    }

    /** The note that is looked at has changed. */
    public void leads(IntUnaryOperator newLeads) {
        leads = newLeads;
        row.rename();
    }

    private void lay() {
        int scale = scale();
        List<Integer> bars = new ArrayList<>();
        for (int step = -reach; step <= reach; step++) {
            bars.add(Math.min(Ways.HEAVIEST, ways.weightOf(step) * scale));
        }
        row.show(bars);
        wide.setText("±" + reach);
    }

    private int scale() {
        int heaviest = ways.weights().stream().max(Integer::compare).orElse(0);
        return heaviest == 0 || heaviest > LIGHT ? 1 : Ways.HEAVIEST / heaviest;
    }

    /** The next reach that shows all ways there are; after the furthest the nearest again. */
    private void reach() {
        int step = row.chosen() - reach;
        int furthest = ways.steps().stream().mapToInt(Math::abs).max().orElse(0);
        do {
            reach = REACHES.get((REACHES.indexOf(reach) + 1) % REACHES.size());
        } while (reach < furthest);
        lay();
        row.choose(step + reach);
    }

    private String name(int place) {
        int step = place - reach;
        int pitch = leads.applyAsInt(step);
        return Pitch.inRange(pitch) ? Pitch.shown(pitch, Spelling.of(key)) : WaysType.shown(step);
    }

    private String say(int place) {
        int step = place - reach;
        int pitch = leads.applyAsInt(step);
        String to = Pitch.inRange(pitch) ? " to " + Pitch.shown(pitch, Spelling.of(key)) : "";
        return String.format(Locale.ROOT, "%s %s%s: %.0f %%", WaysType.shown(step), unit, to, 100 * ways.share(step));
    }

    private void take(List<Integer> bars, boolean done) {
        Map<Integer, Integer> weights = new TreeMap<>();
        for (int i = 0; i < bars.size(); i++) {
            weights.put(i - reach, bars.get(i));
        }
        tell(Ways.of(weights), done);
    }

    private void tell(Ways changed, boolean done) {
        ways = changed;
        change.accept(changed, done);
    }

    private void each(IntUnaryOperator weightOfStep) {
        Map<Integer, Integer> weights = new TreeMap<>();
        for (int step = -reach; step <= reach; step++) {
            weights.put(step, Math.max(0, Math.min(Ways.HEAVIEST, weightOfStep.applyAsInt(step))));
        }
        tell(Ways.of(weights), true);
    }

    private void alike() {
        each(step -> ways.weightOf(step) > 0 ? Ways.HEAVIEST : 0);
    }

    private void mirror() {
        int side = row.chosen() >= reach ? 1 : -1;
        each(step -> ways.weightOf(side * Math.abs(step)));
    }

    private void lessAfar() {
        each(step -> ways.weightOf(step) > 0 ? Math.max(1, Ways.HEAVIEST / (1 + Math.abs(step))) : 0);
    }

    private void keyOnly() {
        each(step -> {
            int pitch = leads.applyAsInt(step);
            return pitch < 0 || key.contains(pitch) ? ways.weightOf(step) : 0;
        });
    }

    private void everyK() {
        String typed = every.getText().strip();
        if (typed.matches("[1-9]\\d?")) {
            int from = row.chosen() - reach;
            each(step -> Math.floorMod(step - from, Integer.parseInt(typed)) == 0 ? Ways.HEAVIEST : 0);
        }
    }

    /** Paints if anything has changed; once a frame. */
    public void draw() {
        row.draw();
    }
}
