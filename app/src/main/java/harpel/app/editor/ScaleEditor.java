package harpel.app.editor;

import harpel.app.draw.Drawing;
import harpel.app.look.Theme;
import harpel.effect.Root;
import harpel.effect.pitch.ScaleFit;
import harpel.param.type.WordsType;
import harpel.theory.Key;
import harpel.theory.Pitch;
import harpel.theory.Scale;
import harpel.theory.Spelling;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.control.Label;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.input.MouseEvent;
import javafx.scene.text.TextAlignment;

/** The scale as a ring of twelve; pressing a note takes it in or leaves it out, which makes a set of one's own. */
final class ScaleEditor extends StageEditor {
    private final Ring ring;
    private final Label words = words("scale-words");

    public ScaleEditor(Around around, Edit edit) {
        super(around, edit);
        ring = new Ring(around);
        getChildren().addAll(ring, words);
    }

    /** The root: a note's own name; that of the key where it is taken from there or from playing. */
    private int root() {
        String word = get(ScaleFit.ROOT);
        return word.length() <= 2
                ? Pitch.parseClass(word)
                : around().document().piece().get().key().root();
    }

    private Scale scale() {
        return get(Root.SCALE).orElse(around().document().piece().get().key().scale());
    }

    private boolean holds(int pitchClass) {
        return scale().steps().contains(Math.floorMod(pitchClass - root(), 12));
    }

    private void toggle(int pitchClass) {
        Set<Integer> steps = new TreeSet<>(scale().steps());
        int step = Math.floorMod(pitchClass - root(), 12);
        if (step == 0) {
            around().say("The root belongs to every scale. Make another note the root by a right-click or Insert.");
            return;
        }
        if (!steps.remove(step)) {
            steps.add(step);
        }
        set(Root.SCALE, Optional.of(Scale.ofSteps(steps)), true);
    }

    /** The notes are written as this scale writes them, whatever the piece's key. */
    private Spelling spelling() {
        return Spelling.of(new Key(root(), scale()));
    }

    @Override
    public void show() {
        StringBuilder notes = new StringBuilder();
        for (int step : scale().steps()) {
            notes.append(notes.isEmpty() ? "" : " ").append(spelling().of(root() + step));
        }
        words.setText(scale().size() + " of 12: " + notes + (get(Root.SCALE).isEmpty() ? ", from the key" : ""));
        ring.say();
        ring.repaint();
    }

    @Override
    public void draw() {
        ring.draw();
    }

    private final class Ring extends Drawing {
        private static final double TALL = 168;
        private int chosen;

        Ring(Around around) {
            super(around.look(), "scale-ring", TALL);
            addEventHandler(MouseEvent.MOUSE_PRESSED, event -> {
                int at = at(event);
                if (at >= 0) {
                    chosen = at;
                    if (event.isSecondaryButtonDown()) {
                        makeRoot();
                    } else {
                        toggle(at);
                    }
                }
            });
            tip(
                    this,
                    "Press a note to take it in or leave it out; right-click makes it the root.\n"
                            + "Left and Right go round, Enter takes in or leaves out, Insert makes it the root, Delete goes back to"
                            + " the scale of the key.");
        }

        private double radius() {
            return Math.min(getHeight(), getWidth()) * 64 / TALL;
        }

        /** How large a note is drawn: it grows with the ring, but not so far. */
        private double dot() {
            return Math.min(26, radius() * 14 / 64);
        }

        private double x(int pitchClass) {
            return (getWidth() - 2 * EDGE) / 2 + radius() * Math.sin(pitchClass * Math.PI / 6);
        }

        private double y(int pitchClass) {
            return (getHeight() - 2 * EDGE) / 2 - radius() * Math.cos(pitchClass * Math.PI / 6);
        }

        private int at(MouseEvent event) {
            for (int i = 0; i < 12; i++) {
                if (Math.hypot(event.getX() - EDGE - x(i), event.getY() - EDGE - y(i)) < dot() + 2) {
                    return i;
                }
            }
            return -1;
        }

        private void makeRoot() {
            String name = ((WordsType) ScaleFit.ROOT.type())
                    .values().stream()
                            .filter(word -> word.length() <= 2 && Pitch.parseClass(word) == chosen)
                            .findFirst()
                            .orElseThrow();
            set(ScaleFit.ROOT, name, true);
        }

        void say() {
            setAccessibleText(spelling().of(chosen)
                    + (holds(chosen) ? " is in the scale" : " is not in the scale")
                    + (chosen == root() ? ", the root" : ""));
        }

        @Override
        public boolean key(KeyEvent event) {
            KeyCode code = event.getCode();
            switch (code) {
                case LEFT, UP -> chosen = Math.floorMod(chosen - 1, 12);
                case RIGHT, DOWN -> chosen = (chosen + 1) % 12;
                case ENTER -> toggle(chosen);
                case INSERT -> makeRoot();
                case DELETE, BACK_SPACE -> set(Root.SCALE, Optional.empty(), true);
                default -> {
                    return false;
                }
            }
            say();
            repaint();
            return true;
        }

        @Override
        public void paint(GraphicsContext g, Theme theme, double width, double height) {
            Spelling names = spelling();
            g.setTextAlign(TextAlignment.CENTER);
            g.setStroke(theme.rule);
            g.strokeOval(width / 2 - radius(), height / 2 - radius(), 2 * radius(), 2 * radius());
            for (int i = 0; i < 12; i++) {
                double r = dot();
                boolean in = holds(i);
                g.setFill(in ? (i == root() ? theme.brass : theme.ink) : theme.raised);
                g.fillOval(x(i) - r, y(i) - r, 2 * r, 2 * r);
                g.setStroke(i == 0 ? theme.red : i == 5 ? theme.blue : theme.soft);
                g.setLineWidth(i == 0 || i == 5 ? 2.5 : 1);
                g.strokeOval(x(i) - r, y(i) - r, 2 * r, 2 * r);
                if (i == chosen && isFocused()) {
                    g.setStroke(theme.brassText);
                    g.setLineWidth(2);
                    g.strokeOval(x(i) - r - 3, y(i) - r - 3, 2 * r + 6, 2 * r + 6);
                }
                g.setLineWidth(1);
                g.setFill(in ? theme.paper : theme.soft);
                g.fillText(names.of(i), x(i), y(i) + 4);
            }
            g.setFill(theme.soft);
            String name = scale().name();
            g.fillText(name.isEmpty() ? "a set of your own" : name, width / 2, height / 2 + 4);
        }
    }
}
