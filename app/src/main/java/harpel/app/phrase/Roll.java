package harpel.app.phrase;

import harpel.app.desk.PhraseDesk;
import harpel.app.desk.Recorder;
import harpel.app.document.Document;
import harpel.app.draw.Drawing;
import harpel.app.draw.Raster;
import harpel.app.draw.SharpCanvas;
import harpel.app.look.Look;
import harpel.app.look.Messages;
import harpel.app.look.Theme;
import harpel.app.phrase.RollMouse.Held;
import harpel.app.phrase.RollMouse.Hold;
import harpel.app.transport.Made;
import harpel.app.transport.Transport;
import harpel.app.ui.Tips;
import harpel.phrase.Note;
import harpel.phrase.Phrase;
import harpel.phrase.action.Edited;
import harpel.time.MeterMap;
import java.util.List;
import java.util.Set;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.SimpleObjectProperty;
import javafx.scene.AccessibleRole;
import javafx.scene.input.KeyEvent;
import javafx.scene.input.MouseButton;
import javafx.scene.input.MouseEvent;
import javafx.scene.input.ScrollEvent;
import javafx.scene.input.ZoomEvent;
import javafx.scene.layout.Region;
import javafx.scene.shape.Rectangle;

/** The piano roll on harp strings, with its ruler above and the names of pitches at the left. */
final class Roll extends Region {
    static final double GUTTER = 44;
    /** Chords are named above, bars below. */
    static final double RULER = 32;

    private static final double HANDLE = 6;
    private static final double WHEEL = 1.2;
    private final Document document;
    private final Look look;
    private final Transport transport;
    private final PhraseDesk desk;
    private final Messages messages;
    private final RollWindow window;
    private final Raster field = new Raster();
    private final SharpCanvas words = new SharpCanvas();
    private final Region now = new Region();
    private final Region frame = new Region();
    private final RollPainter painter;
    private final RollWords names;
    private final RollMouse mouse;
    private final RollKeys keys;
    private final ObjectProperty<Note> pointed = new SimpleObjectProperty<>();
    private boolean outside;
    private boolean stale = true;
    private double fitted;
    private long drawnWindow = -1;
    private Theme drawnIn;
    private boolean draggingEnd;
    private int gestures;

    Roll(
            Document document,
            Look look,
            Transport transport,
            PhraseDesk desk,
            Recorder recorder,
            Made made,
            Messages messages,
            RollWindow window) {
        this.document = document;
        this.look = look;
        this.transport = transport;
        this.desk = desk;
        this.messages = messages;
        this.window = window;
        painter = new RollPainter(document, desk, made, window);
        names = new RollWords(document, desk, window, painter);
        mouse = new RollMouse(document, transport, desk, recorder);
        keys = new RollKeys(transport, desk, recorder, messages, window);
        setId("roll");
        getStyleClass().add("roll");
        setFocusTraversable(true);
        setAccessibleRole(AccessibleRole.LIST_VIEW);
        setAccessibleText("Notes of the phrase");
        now.getStyleClass().add("roll-now");
        now.setMouseTransparent(true);
        now.setManaged(false);
        frame.getStyleClass().add("roll-frame");
        frame.setMouseTransparent(true);
        frame.setManaged(false);
        frame.setVisible(false);
        getChildren().addAll(field, words, now, frame);
        setMinSize(200, 160);
        Rectangle clip = new Rectangle();
        clip.widthProperty().bind(widthProperty());
        clip.heightProperty().bind(heightProperty());
        setClip(clip);
        Tips.set(
                this,
                "Press and drag draws a note; drag one to move it, its ends to resize; Alt keeps off the grid, Ctrl copies, or at an"
                        + " end stretches all picked ones, double"
                        + " click removes. Shift and drag picks.\nKeys: arrows move, Shift by octave or bar, Ctrl resizes; N new, Tab"
                        + " next, + and − velocity, C chance, O off.\nWheel scrolls, Shift in time, Ctrl zooms in time, Ctrl and Shift"
                        + " in pitch. Drag the phrase’s end in the ruler.");
        addEventHandler(MouseEvent.MOUSE_PRESSED, this::pressed);
        addEventHandler(MouseEvent.MOUSE_DRAGGED, this::dragged);
        addEventHandler(MouseEvent.MOUSE_RELEASED, event -> released());
        addEventHandler(MouseEvent.MOUSE_MOVED, event -> point(noteAt(event.getX(), event.getY())));
        addEventHandler(MouseEvent.MOUSE_EXITED, event -> point(null));
        addEventHandler(ScrollEvent.SCROLL, this::scrolled);
        addEventHandler(ZoomEvent.ZOOM, event -> {
            double share = Drawing.clamp((event.getX() - GUTTER) / fieldWidth(), 0, 1);
            desk.phrase().ifPresent(phrase -> window.zoomTime(1 / event.getZoomFactor(), share, phrase.length()));
            event.consume();
        });
        addEventHandler(KeyEvent.KEY_PRESSED, event -> {
            // The pointer rests while keys are used, and notes move away from under it.
            point(null);
            if (keys.take(event)) {
                event.consume();
            }
        });
        desk.picked().addListener((property, before, after) -> repaint());
        desk.grid().addListener((property, before, after) -> repaint());
        desk.showMade().addListener((property, before, after) -> repaint());
        desk.preview().addListener((property, before, after) -> repaint());
        desk.mark().addListener((property, before, after) -> repaint());
        made.result().addListener((property, before, after) -> repaint());
        pointed.addListener((property, before, after) -> repaint());
        focusedProperty().addListener((property, before, after) -> repaint());
    }

    /** The note under the pointer; null for none. */
    ObjectProperty<Note> pointed() {
        return pointed;
    }

    private void point(Note note) {
        pointed.set(note);
    }

    /** Shows in red what the chain makes outside the key, or no longer. */
    void showOutside(boolean on) {
        outside = on;
        repaint();
    }

    boolean showsOutside() {
        return outside;
    }

    void repaint() {
        stale = true;
    }

    double fieldWidth() {
        return Math.max(1, getWidth() - GUTTER);
    }

    double fieldHeight() {
        return Math.max(1, getHeight() - RULER);
    }

    private Phrase phrase() {
        return desk.phrase().orElse(null);
    }

    private double tickAt(double x) {
        return Math.max(0, window.tickAt(x - GUTTER, fieldWidth()));
    }

    private int pitchAt(double y) {
        return window.pitchAt(y - RULER);
    }

    private Note noteAt(double x, double y) {
        Note found = null;
        double tick = window.tickAt(x - GUTTER, fieldWidth());
        double slack = window.ticks() / fieldWidth() * 2;
        if (x < GUTTER || y < RULER) {
            return null;
        }
        int pitch = pitchAt(y);
        List<Note> visible = painter.visible();
        for (int i = visible.size() - 1; i >= 0 && found == null; i--) {
            Note note = visible.get(i);
            if (note.pitch() == pitch && tick >= note.tick() - slack && tick <= note.endTick() + slack) {
                found = note;
            }
        }
        return found;
    }

    private Hold holdAt(Note note, double x) {
        double left = GUTTER + window.x(note.tick(), fieldWidth());
        double right = GUTTER + window.x(note.endTick(), fieldWidth());
        double edge = Math.min(HANDLE, (right - left) / 3);
        return x >= right - edge ? Hold.RIGHT : x <= left + edge ? Hold.LEFT : Hold.BODY;
    }

    private static Held held(MouseEvent event) {
        return new Held(event.isShiftDown(), event.isShortcutDown(), event.isAltDown());
    }

    private void pressed(MouseEvent event) {
        requestFocus();
        event.consume();
        Phrase phrase = phrase();
        if (phrase == null || event.getButton() != MouseButton.PRIMARY) {
            return;
        }
        if (event.getY() < RULER) {
            pressedRuler(event, phrase);
            return;
        }
        Note on = noteAt(event.getX(), event.getY());
        if (on != null && event.getClickCount() == 2) {
            desk.pick(Set.of(on.id()));
            desk.act("Remove a note", harpel.phrase.action.Shapes::remove);
            return;
        }
        Hold hold = on == null ? Hold.BODY : holdAt(on, event.getX());
        mouse.press(phrase, on, hold, tickAt(event.getX()), pitchAt(event.getY()), held(event));
        showFrame();
    }

    private void pressedRuler(MouseEvent event, Phrase phrase) {
        double end = GUTTER + window.x(phrase.length(), fieldWidth());
        if (Math.abs(event.getX() - end) <= HANDLE + 2) {
            draggingEnd = true;
            gestures++;
            desk.endGesture();
        } else {
            long tick = snapped(tickAt(event.getX()), event.isAltDown());
            desk.mark().set(Math.min(tick, Math.max(0, phrase.length() - 1)));
            transport.player().locate(desk.mark().get());
        }
    }

    private long snapped(double tick, boolean free) {
        return free
                ? Math.round(tick)
                : desk.steps()
                        .map(steps -> harpel.phrase.action.Times.nearest(steps, Math.round(tick)))
                        .orElse(Math.round(tick));
    }

    private void dragged(MouseEvent event) {
        event.consume();
        Phrase phrase = phrase();
        if (phrase == null || !event.isPrimaryButtonDown()) {
            return;
        }
        if (draggingEnd) {
            MeterMap meter = document.piece().get().time().meter();
            double tick = tickAt(event.getX());
            long bar = meter.tickOfBar(meter.barAt((long) tick));
            long next = meter.barLineAtOrAfter((long) tick + 1);
            long length = event.isAltDown() ? Math.round(tick) : tick - bar < next - tick ? bar : next;
            long least = event.isAltDown() ? 1 : meter.at(0).barTicks();
            Edited edited = harpel.phrase.action.Shapes.length(
                    phrase, desk.picked().get(), Math.max(least, length), desk.around());
            desk.set("Set the phrase’s end", "end " + gestures, edited.phrase(), edited.picked());
            messages.say(edited.said());
        } else {
            mouse.drag(tickAt(event.getX()), pitchAt(event.getY()), held(event));
            showFrame();
        }
    }

    private void released() {
        if (draggingEnd) {
            draggingEnd = false;
            desk.endGesture();
        }
        mouse.release();
        showFrame();
    }

    private void showFrame() {
        frame.setVisible(mouse.isFraming());
        if (mouse.isFraming()) {
            double left = GUTTER + window.x(mouse.frameFromTick(), fieldWidth());
            double right = GUTTER + window.x(mouse.frameToTick(), fieldWidth());
            double top = RULER + window.y(mouse.frameHighest());
            double bottom = RULER + window.y(mouse.frameLowest()) + window.rowHeight();
            frame.resizeRelocate(left, top, right - left, bottom - top);
        }
    }

    private void scrolled(ScrollEvent event) {
        Phrase phrase = phrase();
        double turned = event.getDeltaY() != 0 ? event.getDeltaY() : event.getDeltaX();
        if (phrase == null || turned == 0) {
            return;
        }
        boolean up = turned > 0;
        double share = Drawing.clamp((event.getX() - GUTTER) / fieldWidth(), 0, 1);
        if (event.isShortcutDown() && event.isShiftDown()) {
            window.zoomPitch(up ? WHEEL : 1 / WHEEL, Drawing.clamp((event.getY() - RULER) / fieldHeight(), 0, 1));
        } else if (event.isShortcutDown()) {
            window.zoomTime(up ? 1 / WHEEL : WHEEL, share, phrase.length());
        } else if (event.isShiftDown()) {
            window.scrollTime((up ? -1 : 1) * window.ticks() / 10, phrase.length());
        } else {
            window.scrollPitch(up ? 2 : -2);
        }
        event.consume();
    }

    @Override
    protected void layoutChildren() {
        fitted = 0;
    }

    /** Draws a frame. */
    void draw(double nowTick) {
        Theme theme = look.theme().get();
        Phrase phrase = phrase();
        double size = look.size().get();
        if (fitted != size) {
            fitted = size;
            field.relocate(GUTTER, RULER);
            field.fit(fieldWidth(), fieldHeight(), size);
            words.fit(getWidth(), getHeight(), size);
            window.tall(fieldHeight());
            stale = true;
        }
        if (phrase == null) {
            return;
        }
        if (stale || theme != drawnIn || window.version() != drawnWindow) {
            stale = false;
            drawnIn = theme;
            drawnWindow = window.version();
            painter.paint(field, theme, phrase, pointed.get(), outside);
            names.draw(words.begin(), theme, phrase, this);
        }
        double x = window.x(nowTick, fieldWidth());
        now.setVisible(nowTick >= 0 && x >= 0 && x <= fieldWidth());
        now.resizeRelocate(GUTTER + Math.round(x), RULER - 8, 2, fieldHeight() + 8);
    }
}
