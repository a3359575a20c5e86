package harpel.app.phrase;

import harpel.app.desk.PhraseDesk;
import harpel.app.document.Document;
import harpel.app.draw.Raster;
import harpel.app.look.Theme;
import harpel.app.transport.Made;
import harpel.app.transport.Places;
import harpel.app.transport.TraceStore.Drawn;
import harpel.event.NoteStart;
import harpel.phrase.Note;
import harpel.phrase.Notes;
import harpel.phrase.Phrase;
import harpel.theory.Key;
import harpel.theory.Pitch;
import harpel.time.MeterMap;
import harpel.time.StepGrid;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.List;
import javafx.scene.paint.Color;

/** Paints the field of the roll: strings, bars and grid, the written notes in ink, what the chain makes of them in brass. */
final class RollPainter {
    /** Lines of the grid closer than this are left out. */
    private static final double APART = 7;

    private static final double BARS_APART = 5;

    private final Document document;
    private final PhraseDesk desk;
    private final Made made;
    private final RollWindow window;
    /** From so many notes on what cannot be told apart is left out. */
    private static final int MANY = 5_000;

    /** By velocity, mixed once a painting. */
    private final int[] inks = new int[128];

    private final int[] brasses = new int[128];
    private final BitSet picked = new BitSet();
    /** For each pitch the pixel up to which notes were painted. */
    private final int[] paintedTo = new int[128];

    private final List<Note> visible = new ArrayList<>();

    RollPainter(Document document, PhraseDesk desk, Made made, RollWindow window) {
        this.document = document;
        this.desk = desk;
        this.made = made;
        this.window = window;
    }

    /** The notes that were painted last, in order. */
    List<Note> visible() {
        return visible;
    }

    /** The notes of a phrase that are seen, or at least begin or sound where it is looked at. */
    static void seen(Phrase phrase, double fromTick, double toTick, List<Note> found) {
        found.clear();
        Notes notes = phrase.notes();
        long from = Math.max(0, (long) fromTick);
        for (int index : notes.soundingAcross(from)) {
            found.add(notes.get(index));
        }
        notes.addStartingIn(from, (long) toTick + 1, found);
    }

    void paint(Raster g, Theme theme, Phrase phrase, Note pointed, boolean outside) {
        double width = g.shownWidth();
        double height = g.shownHeight();
        g.begin(Raster.mixed(theme.raised, theme.raised, 0));
        strings(g, theme, width, height);
        bars(g, theme, phrase, width, height);
        seen(phrase, window.fromTick(), window.toTick(), visible);
        // Asked for each note that is seen.
        picked.clear();
        desk.picked().get().forEach(picked::set);
        boolean dim = pointed != null;
        for (int velocity = 0; velocity < inks.length; velocity++) {
            inks[velocity] = Raster.mixed(theme.raised, theme.ink, 0.4 + 0.6 * velocity / 127.0);
            brasses[velocity] = Raster.mixed(theme.raised, theme.brass, 0.55 + 0.45 * velocity / 127.0);
        }
        Arrays.fill(paintedTo, -1);
        for (Note note : visible) {
            if (isHidden(note, width) && !picked.get(note.id())) {
                continue;
            }
            paint(g, theme, note, picked.get(note.id()), dim && note != pointed, phrase, width);
        }
        if (desk.showMade().get()) {
            made(g, theme, phrase, pointed, outside, width);
        }
        preview(g, theme, width);
        double end = window.x(phrase.length(), width);
        if (end < width) {
            g.fill(Math.max(0, end), 0, width - end, height, Raster.mixed(theme.panel, theme.rule, 0.35));
            g.fill(end, 0, 2, height, Raster.mixed(theme.raised, theme.brass, 1));
        }
        double mark = Math.round(window.x(desk.mark().get(), width));
        g.fill(mark, 0, 1, height, Raster.mixed(theme.raised, theme.sage, 0.9));
        g.end();
    }

    /** Where very many notes are seen, one that would cover the same pixels as the one before it on its string is not painted. */
    private boolean isHidden(Note note, double width) {
        int column = (int) window.x(note.endTick(), width) + 1;
        boolean hidden = column <= paintedTo[note.pitch()];
        paintedTo[note.pitch()] = Math.max(column, paintedTo[note.pitch()]);
        return hidden && visible.size() > MANY;
    }

    private void strings(Raster g, Theme theme, double width, double height) {
        Key key = document.piece().get().key();
        boolean drums = desk.isDrums();
        double row = window.rowHeight();
        int lowest = window.pitchAt(height);
        for (int pitch = window.pitchAt(0); pitch >= lowest; pitch--) {
            double y = window.y(pitch);
            if (!drums && !key.contains(pitch)) {
                g.fill(0, y, width, row, Raster.mixed(theme.raised, theme.panel, 0.85));
            }
            int name = Pitch.pitchClass(pitch);
            Color string = name == 0 ? theme.red : name == 5 ? theme.blue : theme.rule;
            double strength = name == 0 || name == 5 ? 0.5 : drums || key.contains(pitch) ? 0.6 : 0.25;
            g.fill(0, Math.round(y + row / 2), width, 1, Raster.mixed(theme.raised, string, strength));
        }
    }

    private void bars(Raster g, Theme theme, Phrase phrase, double width, double height) {
        desk.steps().ifPresent(steps -> grid(g, theme, steps, width, height));
        MeterMap meter = document.piece().get().time().meter();
        long bar = meter.barAt((long) window.fromTick());
        double wide = window.x(meter.at(0).barTicks(), width) - window.x(0, width);
        // Of very many bars every so many have a line.
        long every = Math.max(1, (long) Math.ceil(BARS_APART / wide));
        bar -= bar % every;
        for (long tick = meter.tickOfBar(bar); tick < window.toTick(); tick = meter.tickOfBar(bar += every)) {
            long beat = meter.at(tick).beatTicks();
            boolean beats = window.x(tick + beat, width) - window.x(tick, width) > APART;
            for (long at = tick + beat; beats && at < meter.tickOfBar(bar + 1); at += beat) {
                g.fill(Math.round(window.x(at, width)), 0, 1, height, Raster.mixed(theme.raised, theme.ink, 0.16));
            }
            g.fill(Math.round(window.x(tick, width)), 0, 1, height, Raster.mixed(theme.raised, theme.ink, 0.5));
        }
    }

    private void grid(Raster g, Theme theme, StepGrid steps, double width, double height) {
        long index = steps.indexAtOrAfter(Math.max(0, (long) window.fromTick()));
        long tick = steps.tickOf(index);
        double apart = window.x(steps.tickOf(index + 1), width) - window.x(tick, width);
        int colour = Raster.mixed(theme.raised, theme.ink, 0.07);
        while (apart >= APART && tick < window.toTick()) {
            g.fill(Math.round(window.x(tick, width)), 0, 1, height, colour);
            tick = steps.tickOf(++index);
        }
    }

    private void paint(Raster g, Theme theme, Note note, boolean chosen, boolean dim, Phrase phrase, double width) {
        double left = Math.round(window.x(note.tick(), width));
        double right = Math.round(window.x(Math.min(note.endTick(), phrase.length()), width));
        double wide = Math.max(2, right - left - 1);
        double y = Math.round(window.y(note.pitch()));
        double tall = Math.max(3, Math.round(window.rowHeight()) - 1);
        double strength = (0.4 + 0.6 * note.velocity() / 127.0) * (dim ? 0.35 : 1);
        int ink = dim ? Raster.mixed(theme.raised, theme.ink, strength) : inks[note.velocity()];
        if (note.traits().off()) {
            g.fill(left, y, wide, tall, Raster.mixed(theme.raised, theme.ink, 0.08));
            g.edge(left, y, wide, tall, ink);
        } else {
            // As much of it is full as it is often played.
            double full = Math.round(wide * note.traits().chance() / 100.0);
            g.fill(left, y, full, tall, ink);
            if (full < wide) {
                g.fill(left + full, y, wide - full, tall, Raster.mixed(theme.raised, theme.ink, 0.22 * strength));
                g.edge(left, y, wide, tall, Raster.mixed(theme.raised, theme.ink, 0.6 * strength));
            }
        }
        if (chosen) {
            int brass = Raster.mixed(theme.raised, theme.brass, 1);
            g.edge(left - 1, y - 1, wide + 2, tall + 2, brass);
            g.edge(left - 2, y - 2, wide + 4, tall + 4, brass);
        }
    }

    /** Notes that were made and are not in the phrase yet. */
    private void preview(Raster g, Theme theme, double width) {
        double tall = Math.max(3, Math.round(window.rowHeight()) - 1);
        int sage = Raster.mixed(theme.raised, theme.sage, 1);
        int pale = Raster.mixed(theme.raised, theme.sage, 0.45);
        for (Note note : desk.preview().get()) {
            double left = Math.round(window.x(note.tick(), width));
            double wide = Math.max(3, Math.round(window.x(note.endTick(), width)) - left - 1);
            double y = Math.round(window.y(note.pitch()));
            g.fill(left, y, wide, tall, pale);
            g.edge(left, y, wide, tall, sage);
        }
    }

    private void made(Raster g, Theme theme, Phrase phrase, Note pointed, boolean outside, double width) {
        Made.Result result = made.result().get();
        if (result == null || !result.phrase().equals(phrase.id())) {
            return;
        }
        Key key = document.piece().get().key();
        double tall = Math.max(2, Math.round(window.rowHeight() * 0.42));
        boolean many = result.at(Places.sound(result.part())).size() > MANY;
        Arrays.fill(paintedTo, -1);
        for (Drawn drawn : result.at(Places.sound(result.part()))) {
            if (drawn.endTick() <= window.fromTick() || drawn.startTick() >= window.toTick()) {
                continue;
            }
            int column = (int) window.x(drawn.endTick(), width) + 1;
            if (many && column <= paintedTo[drawn.note.pitch()]) {
                continue;
            }
            paintedTo[drawn.note.pitch()] = column;
            boolean related = pointed != null && comesOf(drawn.note, pointed);
            double left = Math.round(window.x(drawn.startTick(), width));
            double wide = Math.max(3, Math.round(window.x(drawn.endTick(), width)) - left - 1);
            double y = Math.round(window.y(drawn.note.pitch()) + (window.rowHeight() - tall) / 2);
            boolean away = outside && !key.contains(drawn.note.pitch());
            int colour = related || away
                    ? Raster.mixed(theme.raised, related ? theme.brassText : theme.red, 1)
                    : pointed != null ? Raster.mixed(theme.raised, theme.brass, 0.35) : brasses[drawn.note.velocity()];
            g.fill(left, y, wide, tall, colour);
        }
    }

    /** Whether a note that was made comes of a written one. */
    static boolean comesOf(NoteStart made, Note written) {
        for (NoteStart note = made; note != null; note = note.cause()) {
            if (note.cause() == null && note.tick() == written.tick() && note.pitch() == written.pitch()) {
                return true;
            }
            if (note.otherCause() != null && comesOf(note.otherCause(), written)) {
                return true;
            }
        }
        return false;
    }
}
