package harpel.app.phrase;

import harpel.app.desk.PhraseDesk;
import harpel.app.document.Document;
import harpel.app.look.Theme;
import harpel.app.ui.Type;
import harpel.phrase.Note;
import harpel.phrase.Phrase;
import harpel.theory.Chord;
import harpel.theory.GeneralMidi;
import harpel.theory.Key;
import harpel.theory.Numeral;
import harpel.theory.Pitch;
import harpel.time.MeterMap;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import javafx.geometry.VPos;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.text.TextAlignment;

/** The words around the roll: pitches or drums at the left, above it bars, the phrase's extent, and the chords there are. */
final class RollWords {
    /** From so many notes on chords are not named, since nobody could read them. */
    private static final int MOST_NAMED = 600;

    private final Document document;
    private final PhraseDesk desk;
    private final RollWindow window;
    private final RollPainter painter;

    RollWords(Document document, PhraseDesk desk, RollWindow window, RollPainter painter) {
        this.document = document;
        this.desk = desk;
        this.window = window;
        this.painter = painter;
    }

    /** Draws them around a roll of that size. */
    void draw(GraphicsContext g, Theme theme, Phrase phrase, Roll roll) {
        double width = roll.fieldWidth();
        double height = roll.fieldHeight();
        g.setFont(Type.plain(Type.NOTE));
        g.setFill(theme.paper);
        g.fillRect(0, 0, (Roll.GUTTER + width), Roll.RULER);
        g.fillRect(0, Roll.RULER, Roll.GUTTER, height);
        pitchNames(g, theme, height);
        g.setFill(theme.paper);
        g.fillRect(0, 0, Roll.GUTTER, Roll.RULER);
        bracket(g, theme, phrase, width);
        if (desk.isDrums()) {
            drumsBesideNotes(g, theme, width, height);
        } else {
            chords(g, theme, width);
        }
        if (roll.isFocused()) {
            g.setStroke(theme.brassText);
            g.setLineWidth(1);
            g.strokeRect(Roll.GUTTER - 0.5, Roll.RULER - 0.5, width, height);
        }
    }

    private void pitchNames(GraphicsContext g, Theme theme, double height) {
        boolean drums = desk.isDrums();
        Set<Integer> used = new TreeSet<>();
        if (drums) {
            painter.visible().forEach(note -> used.add(note.pitch()));
        }
        g.setTextAlign(TextAlignment.RIGHT);
        g.setTextBaseline(VPos.CENTER);
        for (int pitch = window.pitchAt(height); pitch <= window.pitchAt(0); pitch++) {
            double y = Roll.RULER + window.y(pitch) + window.rowHeight() / 2;
            int name = Pitch.pitchClass(pitch);
            if (drums
                    && GeneralMidi.percussion(pitch).isPresent()
                    && (used.contains(pitch) || window.rowHeight() >= 11)) {
                g.setFill(theme.soft);
                g.fillText(
                        GeneralMidi.brief(GeneralMidi.percussion(pitch).orElseThrow()),
                        Roll.GUTTER - 4,
                        y,
                        Roll.GUTTER - 4);
            } else if (!drums && (name == 0 || name == 5)) {
                g.setFill(name == 0 ? theme.red : theme.blue);
                g.fillText(Pitch.shown(pitch, document.spelling()), Roll.GUTTER - 4, y);
            }
        }
        g.setTextBaseline(VPos.BASELINE);
        g.setTextAlign(TextAlignment.LEFT);
    }

    /** The first note that is seen of each drum has its name beside it, where there is room for words. */
    private void drumsBesideNotes(GraphicsContext g, Theme theme, double width, double height) {
        if (window.rowHeight() < Type.NOTE) {
            return;
        }
        Set<Integer> named = new TreeSet<>();
        g.setFill(theme.soft);
        g.setTextBaseline(VPos.CENTER);
        for (Note note : painter.visible()) {
            double x = window.x(note.endTick(), width);
            double y = window.y(note.pitch()) + window.rowHeight() / 2;
            boolean seen = x >= 0 && x < width - 40 && y > 0 && y < height;
            if (seen && named.add(note.pitch())) {
                GeneralMidi.percussion(note.pitch())
                        .ifPresent(drum -> g.fillText(GeneralMidi.brief(drum), Roll.GUTTER + x + 4, Roll.RULER + y));
            }
        }
        g.setTextBaseline(VPos.BASELINE);
    }

    private void bracket(GraphicsContext g, Theme theme, Phrase phrase, double width) {
        MeterMap meter = document.piece().get().time().meter();
        double end = Math.min(width, window.x(phrase.length(), width));
        double start = Math.max(0, window.x(0, width));
        g.setFill(theme.brass);
        if (end > start) {
            g.fillRect(Roll.GUTTER + start, Roll.RULER - 4, end - start, 3);
            if (window.x(phrase.length(), width) <= width) {
                g.fillRect(Roll.GUTTER + end - 3, Roll.RULER - 14, 3, 14);
            }
        }
        long bar = meter.barAt((long) window.fromTick());
        double free = 0;
        g.setFill(theme.soft);
        for (long tick = meter.tickOfBar(bar); tick < window.toTick(); tick = meter.tickOfBar(++bar)) {
            double x = window.x(tick, width);
            if (x >= free && x >= -1 && x < width - 10) {
                g.fillText(String.valueOf(bar + 1), Roll.GUTTER + x + 3, Roll.RULER - 7);
                free = x + 26;
            }
        }
    }

    /** Names what sounds together, where three or more notes begin at once. */
    private void chords(GraphicsContext g, Theme theme, double width) {
        if (painter.visible().size() > MOST_NAMED) {
            return;
        }
        Key key = document.piece().get().key();
        g.setFill(theme.ink);
        double free = 0;
        List<Note> notes = painter.visible();
        for (int i = 0; i < notes.size(); ) {
            long tick = notes.get(i).tick();
            Set<Integer> pitches = new TreeSet<>();
            for (; i < notes.size() && notes.get(i).tick() == tick; i++) {
                pitches.add(notes.get(i).pitch());
            }
            double x = window.x(tick, width);
            if (pitches.size() >= 3 && x >= free && x < width - 16) {
                String symbol = Chord.named(pitches, document.spelling()).orElse("");
                String named = symbol.isEmpty()
                        ? ""
                        : symbol + "  " + Numeral.of(Chord.parse(symbol.replaceFirst("/[A-G].*", "")), key);
                if (!named.isEmpty()) {
                    g.fillText(named, Roll.GUTTER + x + 3, 12);
                    free = x + 12 + named.length() * 6.5;
                }
            }
        }
    }
}
