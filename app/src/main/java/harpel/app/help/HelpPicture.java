package harpel.app.help;

import harpel.app.draw.Picture;
import harpel.app.draw.Raster;
import harpel.app.look.Look;
import harpel.app.look.Theme;
import harpel.chain.Stage;
import harpel.offline.BeforeAfter;
import harpel.offline.BeforeAfter.Sounding;
import harpel.piece.Piece;
import java.util.List;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import javafx.application.Platform;
import javafx.beans.property.ReadOnlyStringProperty;
import javafx.beans.property.ReadOnlyStringWrapper;
import org.slf4j.LoggerFactory;

/** What a stage does with its present settings, as the engine makes it: what comes in above, what goes on below in brass. */
public final class HelpPicture extends Picture {
    public static final double TALL = 76;
    private static final double EDGE = 5;
    private static final int LEAST_ROWS = 14;

    /** One for all: the newest is wanted, and nothing waits for it. */
    private static final ExecutorService MAKER = Executors.newSingleThreadExecutor(work -> {
        Thread thread = new Thread(work, "harpel-help");
        thread.setDaemon(true);
        thread.setPriority(Thread.MIN_PRIORITY);
        return thread;
    });

    private final ReadOnlyStringWrapper words = new ReadOnlyStringWrapper("");
    private BeforeAfter shown;
    private List<Object> of = List.of();
    private volatile int newest;
    private Runnable whenMade = () -> {};

    public HelpPicture(Look look) {
        super(look);
        setId("help-picture");
        setMinHeight(TALL);
        setPrefHeight(TALL);
        setMaxHeight(TALL);
    }

    /** Hears of each picture that was made, where no frames are drawn. */
    public void onMade(Runnable listener) {
        whenMade = listener;
    }

    /** What is seen, in words. */
    public ReadOnlyStringProperty words() {
        return words.getReadOnlyProperty();
    }

    /** Shows what a stage does; made beside the window, and only where something has changed. */
    public void show(Piece piece, Stage stage) {
        List<Object> now =
                List.of(stage.kind(), stage.params(), stage.branches(), piece.key(), piece.time(), piece.variation());
        if (now.equals(of)) {
            return;
        }
        of = now;
        int number = ++newest;
        MAKER.execute(() -> {
            if (number != newest) {
                return;
            }
            try {
                BeforeAfter made = BeforeAfter.of(piece, stage);
                Platform.runLater(() -> take(number, made));
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
            } catch (RuntimeException e) {
                LoggerFactory.getLogger(HelpPicture.class).info("what {} does is not shown", stage.name(), e);
            }
        });
    }

    private void take(int number, BeforeAfter made) {
        if (number == newest) {
            shown = made;
            words.set(made.words());
            setAccessibleText(made.words());
            repaint();
            whenMade.run();
        }
    }

    @Override
    protected void paint(Raster g, Theme theme) {
        g.begin(Raster.mixed(theme.raised, theme.raised, 0));
        if (shown == null) {
            return;
        }
        int low = Integer.MAX_VALUE;
        int high = Integer.MIN_VALUE;
        for (List<Sounding> notes : List.of(shown.before(), shown.after())) {
            for (Sounding note : notes) {
                low = Math.min(low, note.pitch());
                high = Math.max(high, note.pitch());
            }
        }
        int rows = Math.max(LEAST_ROWS, high - low + 1);
        double half = g.shownHeight() / 2;
        g.fill(0, Math.round(half), g.shownWidth(), 1, Raster.mixed(theme.raised, theme.rule, 1));
        paint(g, shown.before(), EDGE, half - 2 * EDGE, low, rows, Raster.mixed(theme.raised, theme.ink, 1));
        paint(g, shown.after(), half + EDGE, half - 2 * EDGE, low, rows, Raster.mixed(theme.raised, theme.brass, 1));
    }

    private void paint(Raster g, List<Sounding> notes, double top, double tall, int low, int rows, int colour) {
        double wide = g.shownWidth() - 2 * EDGE;
        double row = tall / rows;
        for (Sounding note : notes) {
            double x = EDGE + wide * note.tick() / shown.length();
            double width = Math.max(2, wide * (note.end() - note.tick()) / shown.length() - 1);
            double y = top + tall - (note.pitch() - low + 1) * row;
            g.fill(x, y, width, Math.max(2, row), colour);
        }
    }
}
