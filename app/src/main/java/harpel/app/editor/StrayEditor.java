package harpel.app.editor;

import harpel.app.draw.Drawing;
import harpel.app.session.Places;
import harpel.app.session.Session;
import harpel.app.session.Theme;
import harpel.app.session.TraceStore;
import harpel.effect.pitch.Stray;
import harpel.theory.Key;
import harpel.theory.Pitch;
import java.util.List;
import java.util.Locale;
import java.util.TreeMap;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.control.Label;
import javafx.scene.input.KeyEvent;
import javafx.scene.input.MouseEvent;

/** What a note can stray to, by name, and how often each comes: the note itself keeps the greatest share. */
final class StrayEditor extends StageEditor {
    private final Candidates candidates;
    private final Label words = words("stray-words");

    public StrayEditor(Session session, Edit edit) {
        super(session, edit);
        candidates = new Candidates(session);
        getChildren().addAll(candidates, words);
    }

    /** The note that came in last, or the root of the key. */
    private int note() {
        List<TraceStore.Drawn> last = session().transport().traces().last(Places.before(session(), address()), 1);
        return last.isEmpty()
                ? 60 + session().document().piece().get().key().root()
                : last.get(0).note.pitch();
    }

    /** Each pitch that can come of a note, with its share of all such notes in percent. */
    private TreeMap<Integer, Double> shares(int note) {
        Key key = session().document().piece().get().key();
        int choices = Stray.choices(stage().params());
        TreeMap<Integer, Double> shares = new TreeMap<>();
        shares.put(note, 100.0 - get(Stray.AMOUNT));
        for (int i = 0; i < choices; i++) {
            int pitch = get(Stray.SPACING).from(note, Stray.spacings(get(Stray.SIDE), i), key);
            shares.merge(pitch, get(Stray.AMOUNT) / (double) choices, Double::sum);
        }
        return shares;
    }

    @Override
    public void show() {
        words.setText(String.format(
                Locale.ROOT,
                "%d %% of notes are drawn anew; the note itself is among the candidates, so %.1f %% change.",
                get(Stray.AMOUNT),
                Stray.trueShare(stage().params())));
        candidates.setAccessibleText("Candidates: " + words.getText());
        candidates.repaint();
    }

    @Override
    public void draw() {
        candidates.follow(note());
        candidates.draw();
    }

    private final class Candidates extends Drawing {
        private int note = 60;
        private double pressedUp;
        private double amount;

        Candidates(Session session) {
            super(session, "stray-candidates", 84);
            addEventHandler(MouseEvent.MOUSE_PRESSED, event -> {
                pressedUp = up(event);
                amount = get(Stray.AMOUNT);
            });
            addEventHandler(MouseEvent.MOUSE_DRAGGED, event -> {
                set(Stray.AMOUNT, (int) Math.round(clamp(amount + 100 * (up(event) - pressedUp), 0, 100)), false);
                event.consume();
            });
            addEventHandler(MouseEvent.MOUSE_RELEASED, event -> set(Stray.AMOUNT, get(Stray.AMOUNT), true));
            tip(
                    this,
                    "What the last note that came in can become, and how often. Drag up and down for how many are drawn.\n"
                            + "Up and Down: how many, Shift finely; Left and Right: among how many candidates.");
        }

        void follow(int newNote) {
            if (newNote != note) {
                note = newNote;
                repaint();
            }
        }

        @Override
        public boolean reset() {
            return StrayEditor.this.reset(Stray.AMOUNT, Stray.CANDIDATES);
        }

        @Override
        public boolean key(KeyEvent event) {
            return switch (event.getCode()) {
                case LEFT -> step(Stray.CANDIDATES, -1, true);
                case RIGHT -> step(Stray.CANDIDATES, 1, true);
                case UP -> step(Stray.AMOUNT, 1, event.isShiftDown());
                case DOWN -> step(Stray.AMOUNT, -1, event.isShiftDown());
                default -> false;
            };
        }

        @Override
        public void paint(GraphicsContext g, Theme theme, double width, double height) {
            TreeMap<Integer, Double> shares = shares(note);
            double place = width / shares.size();
            double most = shares.values().stream().max(Double::compare).orElse(100.0);
            int i = 0;
            for (var entry : shares.entrySet()) {
                boolean itself = entry.getKey() == note;
                double tall = (height - 30) * entry.getValue() / most;
                double left = i++ * place;
                g.setFill(faint(theme.rule, 0.35));
                g.fillRect(left + 0.5, 14, place - 1, height - 30);
                g.setFill(itself ? theme.ink : theme.brass);
                g.fillRect(left + 2, 14 + height - 30 - tall, Math.max(1, place - 4), Math.max(1, tall));
                if (place >= 22 || shares.size() <= 12) {
                    g.setFill(theme.ink);
                    g.fillText(Pitch.shown(entry.getKey()), left + 1, height - 3);
                    g.setFill(theme.soft);
                    g.fillText(Math.round(entry.getValue()) + (place < 30 ? "" : " %"), left + 1, 10);
                }
            }
        }
    }
}
