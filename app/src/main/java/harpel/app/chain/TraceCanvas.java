package harpel.app.chain;

import harpel.app.desk.Keeping;
import harpel.app.document.Document;
import harpel.app.draw.Raster;
import harpel.app.look.Look;
import harpel.app.look.Theme;
import harpel.app.transport.Places.Place;
import harpel.app.transport.TraceStore;
import harpel.app.transport.Transport;
import harpel.app.ui.Tips;
import harpel.event.Message;
import harpel.event.NoteStart;
import harpel.piece.Piece;
import harpel.run.Tap;
import harpel.theory.Pitch;
import harpel.time.MeterMap;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HashMap;
import java.util.List;
import java.util.Set;
import javafx.beans.property.ObjectProperty;
import javafx.scene.input.MouseEvent;
import javafx.scene.input.ScrollEvent;
import javafx.scene.input.ZoomEvent;
import javafx.scene.layout.Region;
import javafx.scene.paint.Color;

/**
 * Draws the notes that leave one place on strings: C red, F blue, the others faint. Plain rectangles, since they are drawn every frame.
 * Dragged sideways it goes back in time.
 */
public final class TraceCanvas extends Region {
    /** What was heard before an edit lies in grey under what is heard now. */
    private static final double OUTDATED = 0.35;

    private static final double HIT = 4;
    /** Ground of one colour around what is drawn anew, so that nothing behind it has to be. */
    static final double EDGE = 2;

    private static final double DASH = 3;
    /** So much of the row's height a controller at its most takes. */
    private static final double FOOT = 0.3;

    private static final double WHEEL = 1.15;
    private final Raster canvas = new Raster();
    private double fitted;
    private final Document document;
    private final Look look;
    private final Transport transport;
    private final TimeWindow window;
    private final ObjectProperty<NoteStart> pointed;
    private final Place place;
    /** Where the notes come from that this place made of them; null where there is no such place. */
    private Place before;

    private final List<TraceStore.Drawn> notes = new ArrayList<>();
    private final List<TraceStore.Mark> marks = new ArrayList<>();
    private double draggedX;
    private double pressedX;

    public TraceCanvas(
            Document document,
            Look look,
            Transport transport,
            Keeping keeping,
            TimeWindow window,
            ObjectProperty<NoteStart> pointed,
            Place place,
            double height) {
        this.document = document;
        this.look = look;
        this.transport = transport;
        this.window = window;
        this.pointed = pointed;
        this.place = place;
        getStyleClass().add("trace");
        getChildren().add(canvas);
        setMinSize(80, height);
        setPrefHeight(height);
        setMaxHeight(height);
        Tips.set(
                this,
                "Notes that leave this stage. Point at one to see where it came from.\nDrag sideways to go back in time; with Shift on a frozen one it marks bars to keep;"
                        + " Ctrl and wheel zoom in time, Ctrl, Shift and wheel in pitch.\nDashed notes are sent elsewhere; a line is pitch"
                        + " bend, bars at the foot are controllers, red squares were clipped or dropped.");
        setOnMouseMoved(event -> pointed.set(noteAt(event.getX() - EDGE, event.getY() - EDGE)));
        setOnMouseExited(event -> pointed.set(null));
        addEventHandler(MouseEvent.MOUSE_PRESSED, event -> {
            draggedX = event.getX();
            pressedX = event.getX();
        });
        addEventHandler(MouseEvent.MOUSE_DRAGGED, event -> {
            if (event.isShiftDown() && window.isFrozen()) {
                keeping.place().set(place.name());
                keeping.mark(heardAt(pressedX), heardAt(event.getX()));
                event.consume();
                return;
            }
            window.back((event.getX() - draggedX) / Math.max(1, getWidth()) * window.bars());
            draggedX = event.getX();
            event.consume();
        });
        addEventHandler(ScrollEvent.SCROLL, this::scrolled);
        addEventHandler(ZoomEvent.ZOOM, event -> {
            window.zoomTime(1 / event.getZoomFactor());
            event.consume();
        });
    }

    private long heardAt(double x) {
        return transport.heard().onAxis(window.tickAt(x - EDGE, getWidth() - 2 * EDGE));
    }

    private void scrolled(ScrollEvent event) {
        // With Shift held some systems turn the wheel sideways.
        double turned = event.getDeltaY() != 0 ? event.getDeltaY() : event.getDeltaX();
        if (event.isShortcutDown() && event.isShiftDown()) {
            window.zoomPitch(turned > 0 ? WHEEL : 1 / WHEEL);
        } else if (event.isShortcutDown()) {
            window.zoomTime(turned > 0 ? 1 / WHEEL : WHEEL);
        } else if (event.isShiftDown()) {
            window.back(Math.signum(turned) * window.bars() / 10);
        } else {
            return;
        }
        event.consume();
    }

    @Override
    protected void layoutChildren() {
        fitted = 0;
    }

    /** Shows the difference to another place from now on, or with null none. */
    void compareWith(Place newBefore) {
        before = newBefore;
    }

    private List<TraceStore.Drawn> shown(Place where, List<TraceStore.Drawn> found) {
        transport.traces().within(where, (long) window.fromTick(), (long) window.toTick(), found);
        return found;
    }

    /** How many notes the row shows. */
    int count() {
        return transport.traces().countWithin(place, (long) window.fromTick(), (long) window.toTick());
    }

    /** The note at a point; of several the one that is nearest, and of those the one that starts last. */
    private NoteStart noteAt(double x, double y) {
        double width = getWidth() - 2 * EDGE;
        NoteStart nearest = null;
        double least = HIT;
        for (TraceStore.Drawn drawn : shown(place, notes)) {
            double left = window.x(drawn.startTick(), width);
            double right = window.x(Math.min(drawn.endTick(), window.drawnTo()), width);
            double away = Math.max(0, Math.max(left - x, x - right));
            boolean level = Math.abs(window.y(drawn.note.pitch(), getHeight() - 2 * EDGE) - y) <= HIT;
            if (level && away <= least) {
                least = away;
                nearest = drawn.note;
            }
        }
        return nearest;
    }

    void draw(boolean dimmed) {
        Theme theme = look.theme().get();
        if (fitted != look.size().get()) {
            fitted = look.size().get();
            canvas.relocate(EDGE, EDGE);
            canvas.fit(getWidth() - 2 * EDGE, getHeight() - 2 * EDGE, fitted);
        }
        Raster g = canvas;
        g.begin(Raster.mixed(theme.raised, theme.raised, 0));
        double width = canvas.shownWidth();
        double height = canvas.shownHeight();
        drawStrings(g, theme, width, height);
        drawBars(g, theme, width, height);
        transport.traces().outdatedWithin(place, (long) window.fromTick(), (long) window.toTick(), notes);
        for (int i = 0; i < notes.size(); i++) {
            fill(g, notes.get(i), width, height, Raster.mixed(theme.raised, theme.soft, OUTDATED));
        }
        shown(place, notes);
        if (before != null) {
            drawDifference(g, theme, width, height);
        } else {
            for (int i = 0; i < notes.size(); i++) {
                fill(g, notes.get(i), width, height, colour(notes.get(i), theme, dimmed));
            }
        }
        if (!window.isAhead()) {
            drawMarks(g, theme, width, height);
        }
        double now = Math.round(window.x(window.nowTick(), width));
        if (now <= width) {
            g.fill(now, 0, 2, height, full(theme, theme.brass));
        }
        g.end();
    }

    /** A bend is a line from bottom to top of the row, a controller a fine bar at its foot; what was clipped or dropped is marked in red. */
    private void drawMarks(Raster g, Theme theme, double width, double height) {
        transport.traces().marksWithin(place, (long) window.fromTick(), (long) window.toTick(), marks);
        double bendX = Double.NaN;
        double bendY = 0;
        int line = Raster.mixed(theme.raised, theme.blue, 0.8);
        for (int i = 0; i < marks.size(); i++) {
            TraceStore.Mark mark = marks.get(i);
            double x = Math.round(Math.max(0, window.x(mark.tick(), width)));
            if (mark.message == null) {
                double y = Math.round(Math.max(2, Math.min(height - 4, window.y(mark.pitch, height))));
                g.edge(x - 2, y - 3, 6, 6, full(theme, theme.red));
            } else if (mark.message.isBend()) {
                double y = Math.round((height - 2) * (1 - mark.message.bend() / (double) Message.BEND_MOST));
                if (!Double.isNaN(bendX)) {
                    g.fill(bendX, bendY, x - bendX + 1, 1.5, line);
                    g.fill(x, Math.min(y, bendY), 1.5, Math.abs(y - bendY) + 1, line);
                }
                bendX = x;
                bendY = y;
            } else {
                double tall = Math.max(1, height * FOOT * mark.message.data(2) / 127.0);
                g.fill(x, height - tall, 1, tall, Raster.mixed(theme.raised, theme.sage, 0.8));
            }
        }
        if (!Double.isNaN(bendX)) {
            double to = Math.min(width, window.x(window.nowTick(), width));
            g.fill(bendX, bendY, Math.max(0, to - bendX), 1.5, line);
        }
    }

    private static int full(Theme theme, Color colour) {
        return Raster.mixed(theme.raised, colour, 1);
    }

    private void fill(Raster g, TraceStore.Drawn drawn, double width, double height, int colour) {
        double thick = Math.round(window.noteHeight(height));
        double left = Math.round(Math.max(0, window.x(drawn.startTick(), width)));
        double right = Math.round(window.x(Math.min(drawn.endTick(), window.drawnTo()), width));
        double top = Math.round(window.y(drawn.note.pitch(), height) - thick / 2);
        double wide = Math.max(2, right - left - 1);
        if (drawn.away) {
            // What is sent away is seen leaving: dashed, as all that goes past the chain.
            for (double x = left; x < left + wide; x += 2 * DASH) {
                g.fill(x, top, Math.min(DASH, left + wide - x), thick, colour);
            }
        } else {
            g.fill(left, top, wide, thick, colour);
        }
    }

    /** What went through is faint, what is new is brass, and what was taken away is outlined in red. */
    private void drawDifference(Raster g, Theme theme, double width, double height) {
        Set<NoteStart> came = Collections.newSetFromMap(new HashMap<>());
        Set<NoteStart> left = Collections.newSetFromMap(new HashMap<>());
        List<TraceStore.Drawn> input = shown(before, new ArrayList<>());
        input.forEach(drawn -> came.add(drawn.note));
        notes.forEach(drawn -> left.add(drawn.note));
        double thick = window.noteHeight(height);
        for (TraceStore.Drawn drawn : input) {
            if (!left.contains(drawn.note)) {
                double x = Math.round(Math.max(0, window.x(drawn.startTick(), width)));
                double to = Math.round(window.x(Math.min(drawn.endTick(), window.drawnTo()), width));
                double y = Math.round(window.y(drawn.note.pitch(), height) - thick / 2);
                g.edge(x, y, Math.max(3, to - x - 1), Math.max(3, Math.round(thick)), full(theme, theme.red));
            }
        }
        for (TraceStore.Drawn drawn : notes) {
            int colour =
                    came.contains(drawn.note) ? Raster.mixed(theme.raised, theme.ink, 0.3) : full(theme, theme.brass);
            fill(g, drawn, width, height, colour);
        }
    }

    private int colour(TraceStore.Drawn drawn, Theme theme, boolean dimmed) {
        NoteStart light = pointed.get();
        boolean related = light != null && (light.descendsFrom(drawn.note) || drawn.note.descendsFrom(light));
        double strength = 0.35 + 0.65 * drawn.note.velocity() / 127.0;
        if (related) {
            return full(theme, theme.brassText);
        }
        if (light != null) {
            strength *= 0.3;
        }
        if (dimmed) {
            strength *= 0.4;
        }
        // What is to come is what the chain makes, but for what it is given.
        boolean made = window.isAhead() && !place.name().equals(Tap.INPUT);
        Color base = made || drawn.sounds() && light == null && !window.isAhead() ? theme.brass : theme.ink;
        return Raster.mixed(theme.raised, base, strength);
    }

    private void drawStrings(Raster g, Theme theme, double width, double height) {
        for (int pitch = window.lowest(); pitch <= window.highest(); pitch++) {
            int name = Pitch.pitchClass(pitch);
            boolean black = name == 1 || name == 3 || name == 6 || name == 8 || name == 10;
            if (!black) {
                Color string = name == 0 ? theme.red : name == 5 ? theme.blue : theme.rule;
                int colour = Raster.mixed(theme.raised, string, name == 0 || name == 5 ? 0.38 : 0.45);
                g.fill(0, Math.round(window.y(pitch, height)), width, 1, colour);
            }
        }
    }

    private void drawBars(Raster g, Theme theme, double width, double height) {
        Piece piece = document.piece().get();
        MeterMap meter = piece.time().meter();
        // Before the beginning lies what was played before time began anew, in bars like the first.
        for (long tick = -meter.at(0).barTicks();
                tick > window.fromTick();
                tick -= meter.at(0).barTicks()) {
            g.fill(Math.round(window.x(tick, width)), 0, 1, height, Raster.mixed(theme.raised, theme.ink, 0.45));
        }
        for (long mark : transport.traces().marks()) {
            g.fill(Math.round(window.x(mark, width)) - 1, 0, 3, height, Raster.mixed(theme.raised, theme.brass, 0.5));
        }
        long bar = meter.barAt(Math.max(0, (long) window.fromTick()));
        boolean beats = window.bars() <= 10;
        for (long tick = meter.tickOfBar(bar); tick < window.toTick(); tick = meter.tickOfBar(++bar)) {
            long beatTicks = beats ? meter.at(tick).beatTicks() : Long.MAX_VALUE / 4;
            for (long beat = tick; beat < meter.tickOfBar(bar + 1); beat += beatTicks) {
                int colour = Raster.mixed(theme.raised, theme.ink, beat == tick ? 0.45 : 0.10);
                g.fill(Math.round(window.x(beat, width)), 0, 1, height, colour);
            }
        }
    }
}
