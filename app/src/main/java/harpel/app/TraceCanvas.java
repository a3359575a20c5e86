package harpel.app;

import harpel.event.NoteStart;
import harpel.piece.Piece;
import harpel.theory.Pitch;
import harpel.time.MeterMap;
import java.util.List;
import javafx.beans.property.ObjectProperty;
import javafx.scene.canvas.Canvas;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.Region;
import javafx.scene.paint.Color;

/** Draws the notes that leave one place on strings: C red, F blue, the others faint. Plain rectangles, since they are drawn every frame. */
final class TraceCanvas extends Region {
    private static final double HIT = 4;
    private final Canvas canvas = new Canvas();
    private final Session session;
    private final TimeWindow window;
    private final ObjectProperty<NoteStart> pointed;
    private final String place;

    TraceCanvas(Session session, TimeWindow window, ObjectProperty<NoteStart> pointed, String place, double height) {
        this.session = session;
        this.window = window;
        this.pointed = pointed;
        this.place = place;
        getChildren().add(canvas);
        setMinSize(120, height);
        setPrefHeight(height);
        setMaxHeight(height);
        Tooltip.install(this, new Tooltip("Notes that leave this stage. Point at one to see where it came from."));
        setOnMouseMoved(event -> pointed.set(noteAt(event.getX(), event.getY())));
        setOnMouseExited(event -> pointed.set(null));
    }

    @Override
    protected void layoutChildren() {
        canvas.setWidth(getWidth());
        canvas.setHeight(getHeight());
    }

    private List<TraceStore.Drawn> shown() {
        return session.traces().within(session.partId().get(), place, (long) window.fromTick(), (long) window.toTick());
    }

    /** How many notes the row shows. */
    int count() {
        return shown().size();
    }

    private NoteStart noteAt(double x, double y) {
        double width = getWidth();
        for (TraceStore.Drawn drawn : shown()) {
            double left = window.x(drawn.note.tick(), width) - HIT;
            double right = window.x(Math.min(drawn.endTick(), window.nowTick()), width) + HIT;
            if (x >= left && x <= right && Math.abs(window.y(drawn.note.pitch(), getHeight()) - y) <= HIT) {
                return drawn.note;
            }
        }
        return null;
    }

    void draw(boolean dimmed) {
        Theme theme = session.theme().get();
        GraphicsContext g = canvas.getGraphicsContext2D();
        double width = canvas.getWidth();
        double height = canvas.getHeight();
        g.clearRect(0, 0, width, height);
        drawStrings(g, theme, width, height);
        drawBars(g, theme, width, height);
        double thick = window.noteHeight(height);
        for (TraceStore.Drawn drawn : shown()) {
            double left = Math.max(0, window.x(drawn.note.tick(), width));
            double right = window.x(Math.min(drawn.endTick(), window.nowTick()), width);
            double top = window.y(drawn.note.pitch(), height) - thick / 2;
            g.setFill(color(drawn, theme, dimmed));
            g.fillRect(left, top, Math.max(2.5, right - left - 1), thick);
        }
        g.setFill(theme.brass);
        g.fillRect(Math.round(window.x(window.nowTick(), width)), 0, 1.5, height);
    }

    private Color color(TraceStore.Drawn drawn, Theme theme, boolean dimmed) {
        NoteStart light = pointed.get();
        boolean related = light != null && (light.descendsFrom(drawn.note) || drawn.note.descendsFrom(light));
        double strength = 0.35 + 0.65 * drawn.note.velocity() / 127.0;
        if (related) {
            return theme.red;
        }
        if (light != null) {
            strength *= 0.3;
        }
        if (dimmed) {
            strength *= 0.4;
        }
        Color base = drawn.sounds() && light == null ? theme.brass : theme.ink;
        return base.deriveColor(0, 1, 1, strength);
    }

    private void drawStrings(GraphicsContext g, Theme theme, double width, double height) {
        for (int pitch = window.lowest(); pitch <= window.highest(); pitch++) {
            int name = Pitch.pitchClass(pitch);
            boolean black = name == 1 || name == 3 || name == 6 || name == 8 || name == 10;
            if (!black) {
                Color string = name == 0 ? theme.red : name == 5 ? theme.blue : theme.rule;
                g.setFill(string.deriveColor(0, 1, 1, name == 0 || name == 5 ? 0.38 : 0.45));
                g.fillRect(0, Math.round(window.y(pitch, height)), width, 1);
            }
        }
    }

    private void drawBars(GraphicsContext g, Theme theme, double width, double height) {
        Piece piece = session.piece().get();
        MeterMap meter = piece.time().meter();
        long bar = meter.barAt(Math.max(0, (long) window.fromTick()));
        for (long tick = meter.tickOfBar(bar); tick < window.toTick(); tick = meter.tickOfBar(++bar)) {
            long beatTicks = meter.at(tick).beatTicks();
            for (long beat = tick; beat < meter.tickOfBar(bar + 1); beat += beatTicks) {
                g.setFill(theme.ink.deriveColor(0, 1, 1, beat == tick ? 0.45 : 0.10));
                g.fillRect(Math.round(window.x(beat, width)), 0, 1, height);
            }
        }
    }
}
