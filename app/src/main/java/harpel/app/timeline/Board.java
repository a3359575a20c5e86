package harpel.app.timeline;

import harpel.app.desk.TimelineDesk;
import harpel.app.desk.TimelineMade;
import harpel.app.document.Document;
import harpel.app.document.Selection;
import harpel.app.draw.Drawing;
import harpel.app.draw.Raster;
import harpel.app.draw.SharpCanvas;
import harpel.app.look.Look;
import harpel.app.look.Messages;
import harpel.app.look.Theme;
import harpel.app.phrase.PhraseList;
import harpel.app.transport.Transport;
import harpel.app.ui.Tips;
import harpel.app.ui.Type;
import harpel.app.ui.TypedOver;
import harpel.phrase.Phrase;
import harpel.piece.Block;
import harpel.piece.Bracket;
import harpel.piece.Part;
import harpel.piece.Piece;
import harpel.piece.Timeline.Ref;
import harpel.time.MeterMap;
import harpel.time.TempoMap;
import java.util.List;
import java.util.OptionalLong;
import javafx.geometry.Point2D;
import javafx.geometry.VPos;
import javafx.scene.AccessibleRole;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.input.MouseButton;
import javafx.scene.input.MouseEvent;
import javafx.scene.input.ScrollEvent;
import javafx.scene.input.TransferMode;
import javafx.scene.input.ZoomEvent;
import javafx.scene.layout.Region;
import javafx.scene.shape.Rectangle;
import javafx.scene.text.Font;

/** The drawn part of the timeline: the lanes above, the rows below, the line where now is. */
final class Board extends Region {
    static final double LANES = Lanes.values().length * Lanes.TALL;

    private static final double WHEEL = 1.2;
    private static final double FIELD_WIDE = 130;

    private final Document document;
    private final Look look;
    private final Transport transport;
    private final Messages messages;
    private final TimelineDesk desk;
    private final TimelineWindow window;
    private final Raster field = new Raster();
    private final SharpCanvas words = new SharpCanvas();
    private final Region now = new Region();
    private final Region frame = new Region();
    private final TypedOver typed = new TypedOver("lane-field");
    private final BoardPainter painter;
    private final BoardMouse mouse;
    private final LaneCarry carry;
    private Lanes lane;
    private long laneTick;
    private boolean stale = true;
    private double fitted;
    private long drawnWindow = -1;
    private Theme drawnIn;
    private boolean locating;
    private boolean looping;
    private double loopFrom;
    private int loops;

    Board(
            Document document,
            Selection selection,
            Look look,
            Transport transport,
            TimelineDesk timeline,
            TimelineMade timelineMade,
            Messages messages,
            TimelineWindow window) {
        this.document = document;
        this.look = look;
        this.transport = transport;
        this.messages = messages;
        this.desk = timeline;
        this.window = window;
        painter = new BoardPainter(timelineMade, window);
        mouse = new BoardMouse(document, selection, timeline, this::repaint);
        carry = new LaneCarry(document, timeline, messages);
        setId("board-timeline");
        getStyleClass().add("roll");
        setFocusTraversable(true);
        setAccessibleRole(AccessibleRole.LIST_VIEW);
        setAccessibleText("Blocks of the timeline");
        now.getStyleClass().add("roll-now");
        now.setMouseTransparent(true);
        now.setManaged(false);
        frame.getStyleClass().add("roll-frame");
        frame.setMouseTransparent(true);
        frame.setManaged(false);
        frame.setVisible(false);
        getChildren().addAll(field, words, now, frame, typed);
        setMinSize(200, 200);
        Rectangle clip = new Rectangle();
        clip.widthProperty().bind(widthProperty());
        clip.heightProperty().bind(heightProperty());
        setClip(clip);
        Tips.set(
                this,
                "Press and drag in a row draws a block; drag one to move it, Ctrl to copy it, its ends to resize; Shift and drag picks"
                        + " several.\nDouble click a lane above to type a meter, a tempo, a key or a mark; drag the last three to move them. Press or drag in the bars to go"
                        + " there, with Shift to let a stretch come round.\nKeys: arrows move, Shift resizes, Tab walks, N new, X cut at now, J join, D repeat, L loop, Enter opens the"
                        + " phrase.\nWheel scrolls the rows, Shift in time, Ctrl zooms.");
        addEventHandler(MouseEvent.MOUSE_PRESSED, this::pressed);
        addEventHandler(MouseEvent.MOUSE_DRAGGED, this::dragged);
        addEventHandler(MouseEvent.MOUSE_RELEASED, this::released);
        addEventHandler(ScrollEvent.SCROLL, this::scrolled);
        addEventHandler(ZoomEvent.ZOOM, event -> {
            zoom(1 / event.getZoomFactor(), event.getX() / getWidth());
            event.consume();
        });
        addEventHandler(KeyEvent.KEY_PRESSED, event -> {
            if (event.getTarget() != typed && key(event)) {
                event.consume();
            }
        });
        setOnDragOver(event -> {
            if (PhraseList.carries(event) && isRow(rowAt(event.getY()))) {
                event.acceptTransferModes(TransferMode.COPY);
                event.consume();
            }
        });
        setOnDragDropped(event -> {
            int row = rowAt(event.getY());
            if (PhraseList.carries(event) && isRow(row)) {
                desk.put(piece().parts().get(row).id(), PhraseList.carried(event), desk.snapped(tickAt(event.getX())));
                event.setDropCompleted(true);
                event.consume();
            }
        });
        desk.picked().addListener((property, before, after) -> repaint());
        document.piece().addListener((property, before, after) -> repaint());
        timelineMade.notes().addListener((property, before, after) -> repaint());
        selection.partId().addListener((property, before, after) -> repaint());
        focusedProperty().addListener((property, before, after) -> repaint());
    }

    void repaint() {
        stale = true;
    }

    private Piece piece() {
        return document.piece().get();
    }

    private double rowsTall() {
        return Math.max(1, getHeight() - LANES);
    }

    private double tickAt(double x) {
        return Math.max(0, window.tickAt(x, getWidth()));
    }

    private int rowAt(double y) {
        return (int) Math.floor((y - LANES + window.top()) / TimelineWindow.ROW);
    }

    private boolean isRow(int row) {
        return row >= 0 && row < piece().parts().size();
    }

    private BoardMouse.Spot spot(MouseEvent event) {
        return new BoardMouse.Spot(
                tickAt(event.getX()),
                rowAt(event.getY()),
                window.ticks() / Math.max(1, getWidth()),
                event.isShiftDown(),
                event.isShortcutDown());
    }

    // The mouse

    private void pressed(MouseEvent event) {
        if (event.getTarget() == typed) {
            return;
        }
        requestFocus();
        event.consume();
        if (event.getButton() != MouseButton.PRIMARY) {
            return;
        }
        if (event.getY() < LANES) {
            Lanes pressed = Lanes.values()[(int) (event.getY() / Lanes.TALL)];
            if (event.getClickCount() == 2) {
                openField(pressed, event.getX());
            } else if (pressed == Lanes.METER && event.isShiftDown()) {
                looping = true;
                loops++;
                loopFrom = tickAt(event.getX());
            } else if (pressed == Lanes.METER) {
                locating = true;
                locate(event.getX());
            } else {
                carry.press(pressed, near(pressed, event.getX()), tickAt(event.getX()));
            }
            return;
        }
        mouse.press(spot(event), event.getClickCount());
        showFrame();
    }

    private void locate(double x) {
        transport.player().locate(desk.snapped(tickAt(x)));
    }

    private void dragged(MouseEvent event) {
        event.consume();
        if (locating) {
            locate(event.getX());
        } else if (looping) {
            double to = tickAt(event.getX());
            desk.loop(desk.snapped(Math.min(loopFrom, to)), desk.snapped(Math.max(loopFrom, to)), "loop " + loops);
        } else if (carry.isOn()) {
            carry.drag(tickAt(event.getX()));
        } else {
            mouse.drag(spot(event));
            showFrame();
        }
    }

    private void released(MouseEvent event) {
        boolean other = locating || looping || carry.isOn();
        carry.release();
        locating = false;
        looping = false;
        if (!other) {
            mouse.release(spot(event));
        }
        showFrame();
        event.consume();
    }

    private void showFrame() {
        frame.setVisible(mouse.isFraming());
        if (mouse.isFraming()) {
            double left = window.x(mouse.frameFrom(), getWidth());
            double right = window.x(mouse.frameTo(), getWidth());
            double top = LANES + mouse.frameTop() * TimelineWindow.ROW - window.top();
            double bottom = LANES + (mouse.frameBottom() + 1) * TimelineWindow.ROW - window.top();
            frame.resizeRelocate(left, top, right - left, bottom - top);
        }
    }

    private void scrolled(ScrollEvent event) {
        double turned = event.getDeltaY() != 0 ? event.getDeltaY() : event.getDeltaX();
        if (turned == 0) {
            return;
        }
        boolean up = turned > 0;
        if (event.isShortcutDown()) {
            zoom(up ? 1 / WHEEL : WHEEL, Drawing.clamp(event.getX() / Math.max(1, getWidth()), 0, 1));
        } else if (event.isShiftDown()) {
            window.scroll((up ? -1 : 1) * window.ticks() / 10, piece().timelineEnd());
        } else {
            window.scrollRows(up ? -38 : 38, piece().parts().size(), rowsTall());
        }
        event.consume();
    }

    /** Where on the screen a tick lies in a row, or with a row below 0 in a lane, −1 being the lowest. */
    Point2D place(double tick, double row) {
        double y = row < 0 ? LANES + (row + 0.5) * Lanes.TALL : LANES + (row + 0.5) * TimelineWindow.ROW - window.top();
        return localToScreen(window.x(tick, getWidth()), y);
    }

    void zoom(double factor, double share) {
        window.zoom(factor, share, piece().timelineEnd());
    }

    // Typing into the lanes

    /** The tick of what stands in a lane at a place, whose words are to the right of it. */
    private OptionalLong near(Lanes lane, double x) {
        double tick = tickAt(x);
        double near = window.ticks() / Math.max(1, getWidth()) * 60;
        return lane.points(piece()).stream()
                .mapToLong(Lanes.Point::tick)
                .filter(at -> tick >= at - near / 10 && tick - at < near)
                .max();
    }

    private void openField(Lanes into, double x) {
        // What stands near is meant, else the bar.
        laneTick = near(into, x).orElseGet(() -> desk.snapped(tickAt(x)));
        lane = into;
        typed.setPromptText(into.title);
        Tips.set(typed, into.hint() + "; Enter sets it, empty takes it away");
        double left = Drawing.clamp(window.x(laneTick, getWidth()), 0, Math.max(0, getWidth() - FIELD_WIDE));
        typed.resizeRelocate(left, into.ordinal() * Lanes.TALL - 2, FIELD_WIDE, Lanes.TALL + 4);
        typed.ask(into.at(piece(), laneTick), this::take);
    }

    private void take(String text) {
        try {
            lane.take(document, laneTick, text);
            typed.putAway();
            requestFocus();
        } catch (IllegalArgumentException e) {
            messages.say(e.getMessage());
        }
    }

    // Keys

    private boolean key(KeyEvent event) {
        if (event.isShortcutDown() || event.isAltDown()) {
            return false;
        }
        long at = desk.picked().get().stream().mapToLong(Ref::at).min().orElse(0);
        switch (event.getCode()) {
            case LEFT, RIGHT -> {
                long by = event.getCode() == KeyCode.LEFT ? -desk.step(Math.max(0, at - 1)) : desk.step(at);
                if (event.isShiftDown()) {
                    desk.resizeBy(by);
                } else {
                    desk.move(by, 0, false);
                }
            }
            case HOME, END -> desk.walkTo(event.getCode() == KeyCode.HOME);
            case UP -> desk.move(0, -1, false);
            case DOWN -> desk.move(0, 1, false);
            case TAB -> desk.walk(event.isShiftDown() ? -1 : 1);
            case N -> desk.addHere();
            case X -> desk.cutHere();
            case J -> desk.join();
            case L -> desk.loop();
            case D -> desk.repeat();
            case DELETE, BACK_SPACE -> desk.remove();
            case ENTER -> desk.openPhrase();
            default -> {
                return false;
            }
        }
        desk.picked().get().stream().findFirst().ifPresent(ref -> window.reveal(ref.at()));
        return true;
    }

    // Drawing

    @Override
    protected void layoutChildren() {
        fitted = 0;
    }

    /** Draws a frame. */
    void draw(double nowTick) {
        if (getWidth() < 1 || getHeight() < LANES) {
            // Shown only now, it is laid out with the next frame.
            return;
        }
        Theme theme = look.theme().get();
        double size = look.size().get();
        if (fitted != size) {
            fitted = size;
            field.relocate(0, LANES);
            field.fit(getWidth(), rowsTall(), size);
            words.fit(getWidth(), getHeight(), size);
            window.scrollRows(0, piece().parts().size(), rowsTall());
            stale = true;
        }
        if (stale || theme != drawnIn || window.version() != drawnWindow) {
            stale = false;
            drawnIn = theme;
            drawnWindow = window.version();
            Piece shown = mouse.shown(piece());
            painter.paint(field, theme, shown, mouse.picked());
            field.end();
            words(words.begin(), theme, shown);
        }
        double x = window.x(nowTick, getWidth());
        now.setVisible(nowTick >= 0 && x >= 0 && x <= getWidth());
        now.resizeRelocate(Math.round(x), 4, 2, getHeight() - 4);
    }

    private void words(GraphicsContext g, Theme theme, Piece piece) {
        double width = getWidth();
        Font small = Type.plain(Type.SMALL);
        Font italic = Font.font("Vollkorn", javafx.scene.text.FontPosture.ITALIC, Type.TEXT);
        g.setTextBaseline(VPos.CENTER);
        g.setFill(theme.panel);
        g.fillRect(0, 0, width, Lanes.TALL);
        g.setFill(theme.raised);
        g.fillRect(0, Lanes.TALL, width, LANES - Lanes.TALL);
        g.setFill(theme.rule);
        for (Lanes each : Lanes.values()) {
            g.fillRect(0, (each.ordinal() + 1) * Lanes.TALL - 1, width, 1);
        }
        Bracket loop = piece.bracket();
        if (loop.isThere()) {
            double left = Math.max(0, window.x(loop.from(), width));
            double right = Math.min(width, window.x(loop.to(), width));
            g.setFill(loop.on() ? theme.brass : theme.rule);
            g.fillRect(left, 0, Math.max(0, right - left), 4);
        }
        bars(g, theme, piece.time().meter(), small);
        tempo(g, theme, piece.time().tempo());
        for (Lanes each : Lanes.values()) {
            if (each == Lanes.METER) {
                continue;
            }
            g.setFont(each == Lanes.MARKS ? italic : small);
            List<Lanes.Point> points = each.points(piece);
            for (int i = 0; i < points.size(); i++) {
                double x = window.x(points.get(i).tick(), width);
                double next = i + 1 < points.size() ? window.x(points.get(i + 1).tick(), width) : width;
                if (next < 0 || x > width) {
                    continue;
                }
                double y = each.ordinal() * Lanes.TALL;
                g.setFill(theme.soft);
                g.fillRect(Math.round(x), y, 1, Lanes.TALL - 1);
                g.setFill(theme.ink);
                // What holds is said also where it began out of sight.
                fit(g, points.get(i).words(), Math.max(0, x) + 4, y + Lanes.TALL / 2, next - Math.max(0, x) - 6);
            }
        }
        g.setFont(small);
        for (int i = 0; i < piece.parts().size(); i++) {
            double y = LANES + i * TimelineWindow.ROW - window.top();
            if (y > LANES - TimelineWindow.ROW && y < getHeight()) {
                names(g, theme, piece, piece.parts().get(i), y);
            }
        }
        if (isFocused()) {
            g.setStroke(theme.brass);
            g.strokeRect(0.5, LANES + 0.5, width - 1, getHeight() - LANES - 1);
        }
    }

    private void bars(GraphicsContext g, Theme theme, MeterMap meter, Font font) {
        g.setFont(font);
        g.setFill(theme.soft);
        long first = meter.barAt((long) window.from());
        long last = meter.barAt((long) (window.from() + window.ticks()));
        double apart = getWidth() / Math.max(1.0, last - first + 1);
        int every = 1;
        while (apart * every < 44) {
            every *= 2;
        }
        for (long bar = first / every * every; bar <= last; bar += every) {
            double x = window.x(meter.tickOfBar(bar), getWidth());
            g.fillText(String.valueOf(bar + 1), x + 4, Lanes.TALL / 2);
            g.fillRect(Math.round(x), Lanes.TALL - 6, 1, 6);
        }
        for (MeterMap.Change change : meter.changes()) {
            double x = window.x(change.tick(), getWidth());
            if (change.tick() > 0 && x >= 0 && x < getWidth()) {
                g.setFill(theme.brassText);
                g.fillText(change.shown(), x + 24, Lanes.TALL / 2);
                g.setFill(theme.soft);
            }
        }
    }

    /** The tempo as a line, the fastest at the top. */
    private void tempo(GraphicsContext g, Theme theme, TempoMap tempo) {
        double low =
                tempo.changes().stream().mapToDouble(TempoMap.Change::bpm).min().orElse(0);
        double high =
                tempo.changes().stream().mapToDouble(TempoMap.Change::bpm).max().orElse(0);
        if (low == high) {
            return;
        }
        g.setStroke(theme.brass);
        g.beginPath();
        double top = Lanes.TEMPO.ordinal() * Lanes.TALL + 4;
        for (int x = 0; x <= getWidth(); x += 2) {
            double bpm = tempo.bpmAt(Math.max(0, (long) window.tickAt(x, getWidth())));
            double y = top + (high - bpm) / (high - low) * (Lanes.TALL - 8);
            if (x == 0) {
                g.moveTo(x, y);
            } else {
                g.lineTo(x, y);
            }
        }
        g.stroke();
    }

    private void names(GraphicsContext g, Theme theme, Piece piece, Part part, double y) {
        g.save();
        g.beginPath();
        g.rect(0, LANES, getWidth(), getHeight() - LANES);
        g.clip();
        for (Block block : part.blocks()) {
            double left = window.x(block.at(), getWidth());
            double right = window.x(block.end(), getWidth());
            if (right > 0 && left < getWidth()) {
                String name = piece.phrase(block.phrase()).map(Phrase::name).orElse("");
                g.setFill(name.isEmpty() ? theme.soft : theme.ink);
                String words = name.isEmpty() ? part.hearing().ofPart() ? "plays along" : "no phrase" : name;
                if (block.variation() != Block.OF_THE_PART) {
                    words += " · " + block.variation();
                }
                double x = Math.max(0, left) + 6;
                fit(g, words, x, y + 15, right - x - 4);
            }
        }
        g.restore();
    }

    /** Words as far as there is room, with the rest left out. */
    private static void fit(GraphicsContext g, String words, double x, double y, double room) {
        int letters = (int) Math.floor(room / 6.3);
        if (letters < 2) {
            return;
        }
        g.fillText(words.length() <= letters ? words : words.substring(0, letters - 1) + "…", x, y);
    }
}
