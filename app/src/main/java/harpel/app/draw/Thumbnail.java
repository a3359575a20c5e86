package harpel.app.draw;

import harpel.app.look.Theme;
import harpel.phrase.Note;
import harpel.phrase.Phrase;
import java.util.ArrayList;
import java.util.List;

/** A phrase in little. */
public final class Thumbnail {
    /** So many notes are painted at most. */
    private static final int MOST = 6_000;

    private Thumbnail() {}

    /** Paints all notes of a phrase into a raster that is as large as it is to be; it is to be ended then. */
    public static void paint(Raster g, Theme theme, Phrase phrase) {
        g.begin(Raster.mixed(theme.raised, theme.raised, 0));
        // Of very many notes some show as well what it looks like.
        int every = 1 + phrase.notes().size() / MOST;
        List<Note> some = new ArrayList<>();
        for (int i = 0; i < phrase.notes().size(); i += every) {
            some.add(phrase.notes().get(i));
        }
        int low = 127;
        int high = 0;
        for (Note note : some) {
            low = Math.min(low, note.pitch());
            high = Math.max(high, note.pitch());
        }
        double middle = (low + high) / 2.0;
        double rows = Math.max(16, high - low + 2);
        double row = g.shownHeight() / rows;
        double tall = Math.max(1.5, row);
        double unit = g.shownWidth() / Math.max(1, phrase.length());
        int ink = Raster.mixed(theme.raised, theme.ink, 0.8);
        int faint = Raster.mixed(theme.raised, theme.ink, 0.35);
        for (Note note : some) {
            double y = g.shownHeight() / 2 - (note.pitch() - middle + 0.5) * row;
            double wide = Math.max(1, note.length() * unit - 0.5);
            boolean sure = !note.traits().off() && note.traits().chance() == 100;
            g.fill(note.tick() * unit, y, wide, tall, sure ? ink : faint);
        }
    }
}
