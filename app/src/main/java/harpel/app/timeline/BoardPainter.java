package harpel.app.timeline;

import harpel.app.desk.TimelineMade;
import harpel.app.draw.Raster;
import harpel.app.look.Theme;
import harpel.param.type.PathType.Point;
import harpel.phrase.Note;
import harpel.phrase.Notes;
import harpel.phrase.Phrase;
import harpel.piece.Block;
import harpel.piece.Mix;
import harpel.piece.Part;
import harpel.piece.Piece;
import harpel.piece.Timeline.Ref;
import harpel.time.MeterMap;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import javafx.scene.paint.Color;

/** Paints the rows of the timeline: bars, blocks, and in them the notes they hold. */
final class BoardPainter {
    static final double NAME = 16;
    private static final double GAP = 6;
    private static final double BARS_APART = 6;
    /** So many notes are painted in a block at most. */
    private static final int MOST = 3_000;

    /** Made once, for mixtures of them are kept by which they are. */
    private static final Map<Theme, List<Color>> COLOURS = new EnumMap<>(Theme.class);

    private final TimelineMade timelineMade;
    private final TimelineWindow window;

    BoardPainter(TimelineMade timelineMade, TimelineWindow window) {
        this.timelineMade = timelineMade;
        this.window = window;
    }

    /** The colour of a part, as that of its card. */
    static Color colour(Theme theme, Part part) {
        return COLOURS.computeIfAbsent(theme, BoardPainter::colours)
                .get(part.mix().colour() % Mix.COLOURS);
    }

    private static List<Color> colours(Theme theme) {
        List<Color> colours = new ArrayList<>(List.of(theme.brass, theme.blue, theme.red, theme.sage));
        List.copyOf(colours).forEach(plain -> colours.add(plain.interpolate(theme.paper, 0.35)));
        return colours;
    }

    /**
     * Paints.
     *
     * @param shown the piece as it would be were what is dragged let go of
     */
    void paint(Raster g, Theme theme, Piece shown, Set<Ref> picked) {
        g.begin(Raster.mixed(theme.paper, theme.paper, 0));
        double width = g.shownWidth();
        double height = g.shownHeight();
        int rule = Raster.mixed(theme.paper, theme.rule, 0.9);
        int faint = Raster.mixed(theme.paper, theme.rule, 0.4);
        bars(g, shown.time().meter(), rule, faint, width, height);
        for (int i = 0; i < shown.parts().size(); i++) {
            double y = i * TimelineWindow.ROW - window.top();
            if (y + TimelineWindow.ROW >= 0 && y <= height) {
                Part part = shown.parts().get(i);
                g.fill(0, y + TimelineWindow.ROW - 1, width, 1, rule);
                mutes(g, theme, part, y);
                for (Block block : part.blocks()) {
                    double left = window.x(block.at(), width);
                    double right = window.x(block.end(), width);
                    if (right >= 0 && left <= width) {
                        block(
                                g,
                                theme,
                                shown,
                                part,
                                block,
                                left,
                                right,
                                y,
                                picked.contains(new Ref(part.id(), block.at())));
                    }
                }
            }
        }
    }

    /** A red line over the row, where the part is mute. */
    private void mutes(Raster g, Theme theme, Part part, double y) {
        List<Point<Boolean>> mutes = part.playing().mutes();
        for (int i = 0; i < mutes.size(); i++) {
            if (mutes.get(i).value()) {
                double left = Math.max(0, window.x(mutes.get(i).tick(), g.shownWidth()));
                double right =
                        i + 1 < mutes.size() ? window.x(mutes.get(i + 1).tick(), g.shownWidth()) : g.shownWidth();
                if (right > left) {
                    g.fill(left, y + 1, right - left, 2, Raster.mixed(theme.paper, theme.red, 1));
                }
            }
        }
    }

    private void bars(Raster g, MeterMap meter, int strong, int faint, double width, double height) {
        long first = meter.barAt((long) window.from());
        long last = meter.barAt((long) (window.from() + window.ticks())) + 1;
        double apart = width / Math.max(1, last - first);
        int every = 1;
        while (apart * every < BARS_APART) {
            every *= 2;
        }
        for (long bar = first; bar <= last; bar++) {
            if (bar % every == 0) {
                double x = window.x(meter.tickOfBar(bar), width);
                g.fill(Math.round(x), 0, 1, height, bar % (4L * every) == 0 ? strong : faint);
            }
        }
    }

    private void block(
            Raster g,
            Theme theme,
            Piece piece,
            Part part,
            Block block,
            double left,
            double right,
            double y,
            boolean picked) {
        double x = Math.max(-4, left + 1);
        double wide = Math.max(2, Math.min(g.shownWidth() + 4, right - 1) - x);
        double top = y + GAP;
        double tall = TimelineWindow.ROW - 2 * GAP - 1;
        Color colour = colour(theme, part);
        g.fill(x, top, wide, tall, Raster.mixed(theme.raised, colour, picked ? 0.16 : 0));
        int edge = Raster.mixed(theme.raised, colour, picked ? 1 : 0.75);
        g.edge(x, top, wide, tall, edge);
        if (picked) {
            g.edge(x + 1, top + 1, wide - 2, tall - 2, edge);
        }
        boolean ready = !block.chain()
                || piece.phrase(block.phrase()).map(Phrase::ready).orElse(false);
        double foot = top + tall - 4;
        if (ready) {
            int soft = Raster.mixed(theme.raised, theme.soft, 0.9);
            for (double at = x + 4; at < x + wide - 6; at += 6) {
                g.fill(at, foot, 3, 1, soft);
            }
        } else {
            g.fill(x + 4, foot, wide - 8, 2, Raster.mixed(theme.raised, theme.brass, 0.9));
        }
        notes(
                g,
                theme,
                piece,
                part,
                block,
                x,
                wide,
                top + NAME,
                tall - NAME - 7,
                part.mix().mute() ? 0.35 : 0.75);
    }

    private void notes(
            Raster g,
            Theme theme,
            Piece piece,
            Part part,
            Block block,
            double x,
            double wide,
            double top,
            double tall,
            double strength) {
        Phrase phrase = piece.phrase(block.phrase()).orElse(null);
        int ink = Raster.mixed(theme.raised, theme.ink, strength);
        Field field = new Field(g, x + 2, wide - 4, top, tall, ink);
        if (phrase == null) {
            Notes made = timelineMade.of(part.id());
            int first = made.indexAtOrAfter(block.at());
            int end = made.indexAtOrAfter(block.end());
            for (int i = first; i < end; i++) {
                field.reach(made.get(i).pitch());
            }
            for (int i = first; i < end; i++) {
                Note note = made.get(i);
                field.note(note.tick(), Math.min(note.endTick(), block.end()), note.pitch());
            }
        } else if (phrase.length() > 0 && !phrase.notes().isEmpty()) {
            phrase.notes().forEach(note -> field.reach(note.pitch()));
            long base = block.at() - block.from();
            int every = 1 + phrase.notes().size() / MOST;
            double seen = Math.max(block.at(), window.from());
            long until = (long) Math.min(block.end(), window.from() + window.ticks());
            for (long round = base + (long) ((seen - base) / phrase.length()) * phrase.length();
                    round < until;
                    round += phrase.length()) {
                for (int i = 0; i < phrase.notes().size(); i += every) {
                    Note note = phrase.notes().get(i);
                    long begin = Math.max(block.at(), round + note.tick());
                    long end = Math.min(block.end(), round + Math.min(phrase.length(), note.endTick()));
                    if (begin < end && !note.traits().off()) {
                        field.note(begin, end, note.pitch());
                    }
                }
            }
        }
    }

    /** Where notes of one block are painted. */
    private final class Field {
        private final Raster g;
        private final double x;
        private final double wide;
        private final double top;
        private final double tall;
        private final int ink;
        private int low = 127;
        private int high;

        Field(Raster g, double x, double wide, double top, double tall, int ink) {
            this.g = g;
            this.x = x;
            this.wide = wide;
            this.top = top;
            this.tall = tall;
            this.ink = ink;
        }

        void reach(int pitch) {
            low = Math.min(low, pitch);
            high = Math.max(high, pitch);
        }

        void note(long begin, long end, int pitch) {
            double rows = Math.max(12, high - low + 2);
            double middle = (low + high) / 2.0;
            double y = top + tall / 2 - (pitch - middle + 0.5) * tall / rows;
            double left = Math.max(x, window.x(begin, g.shownWidth()));
            double right = Math.min(x + wide, window.x(end, g.shownWidth()));
            if (right > left) {
                g.fill(left, y, Math.max(1.5, right - left - 0.5), Math.max(2, tall / rows), ink);
            }
        }
    }
}
