package harpel.app.phrase;

import harpel.app.desk.PhraseDesk;
import harpel.app.draw.Drawing;
import harpel.app.draw.Picture;
import harpel.app.draw.Raster;
import harpel.app.look.Look;
import harpel.app.look.Theme;
import harpel.app.ui.Tips;
import harpel.event.Message;
import harpel.phrase.Note;
import harpel.phrase.Phrase;
import harpel.phrase.Traits;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import javafx.beans.property.IntegerProperty;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.SimpleIntegerProperty;
import javafx.beans.property.SimpleObjectProperty;
import javafx.scene.input.MouseEvent;

/** A lane below the roll: velocities, chances, bend or a controller, drawn by dragging across; with Shift in a straight line. */
final class Lane extends Picture {
    private final PhraseDesk desk;
    /** What a lane shows. */
    enum Of {
        VELOCITY("Velocity"),
        CHANCE("Chance"),
        BEND("Bend"),
        CONTROLLER("Controller");

        final String words;

        Of(String words) {
            this.words = words;
        }
    }

    /** Modulation, which is shown where nothing else was chosen (MIDI 1.0). */
    private static final int MODULATION = 1;

    private static final double BAR = 4;
    /** From so many notes on bars cannot be told apart. */
    private static final int MANY = 3_000;

    private final RollWindow window;
    private final IntegerProperty controller = new SimpleIntegerProperty(MODULATION);
    private final ObjectProperty<Of> of = new SimpleObjectProperty<>(Of.VELOCITY);
    private final List<Note> visible = new ArrayList<>();
    private long drawnWindow = -1;
    private double lastX;
    private double lastY;
    private double pressX;
    private double pressY;
    private Phrase pressed;
    private int gestures;

    Lane(Look look, PhraseDesk desk, RollWindow window) {
        super(look);
        this.desk = desk;
        this.window = window;
        setId("lane");
        setMinHeight(56);
        setPrefHeight(76);
        Tips.set(
                this,
                "Drag across to draw; with Shift in a straight line. Where notes are picked only they are changed.\nBend is drawn"
                        + " by steps of the grid.");
        addEventHandler(MouseEvent.MOUSE_PRESSED, event -> {
            pressed = desk.phrase().orElse(null);
            gestures++;
            desk.endGesture();
            pressX = event.getX();
            pressY = event.getY();
            lastX = pressX;
            lastY = pressY;
            draw(event);
        });
        addEventHandler(MouseEvent.MOUSE_DRAGGED, this::draw);
        addEventHandler(MouseEvent.MOUSE_RELEASED, event -> desk.endGesture());
        desk.picked().addListener((property, before, now) -> repaint());
        of.addListener((property, before, now) -> repaint());
    }

    /** The number of the controller that is shown, where one is. */
    IntegerProperty controller() {
        return controller;
    }

    /** Shows the next controller that the phrase holds; modulation is always one of them. */
    void nextController() {
        TreeSet<Integer> there = new TreeSet<>(Set.of(MODULATION));
        desk.phrase()
                .ifPresent(phrase -> phrase.messages().stream()
                        .filter(message -> (message.status() & 0xF0) == Message.CONTROL_CHANGE)
                        .forEach(message -> there.add(message.data(1))));
        Integer next = there.higher(controller.get());
        controller.set(next == null ? there.first() : next);
        repaint();
    }

    ObjectProperty<Of> of() {
        return of;
    }

    private double up(double y) {
        return Drawing.clamp(1 - y / Math.max(1, getHeight()), 0, 1);
    }

    private void draw(MouseEvent event) {
        event.consume();
        if (pressed == null || !event.isPrimaryButtonDown()) {
            return;
        }
        boolean line = event.isShiftDown();
        double fromX = line ? pressX : lastX;
        double fromY = line ? pressY : lastY;
        double toX = event.getX();
        double toY = event.getY();
        lastX = toX;
        lastY = toY;
        Phrase now = line ? pressed : desk.phrase().orElse(pressed);
        boolean rising = fromX <= toX;
        Phrase after = of.get() == Of.BEND || of.get() == Of.CONTROLLER
                ? withMessages(
                        now, Math.min(fromX, toX), rising ? fromY : toY, Math.max(fromX, toX), rising ? toY : fromY)
                : withNotes(
                        now, Math.min(fromX, toX), rising ? fromY : toY, Math.max(fromX, toX), rising ? toY : fromY);
        if (after != now || line) {
            desk.set(
                    "Draw " + of.get().words.toLowerCase(java.util.Locale.ROOT),
                    "lane " + gestures,
                    after,
                    desk.picked().get());
        }
    }

    private Phrase withNotes(Phrase phrase, double fromX, double fromY, double toX, double toY) {
        double slack = BAR;
        long from = (long) Math.max(0, window.tickAt(fromX - slack, getWidth()));
        long to = (long) Math.max(0, window.tickAt(toX + slack, getWidth()));
        Set<Integer> picked = desk.picked().get();
        List<Note> changed = new ArrayList<>();
        for (Note note : phrase.notes().startingIn(from, to + 1)) {
            if (!picked.isEmpty() && !picked.contains(note.id())) {
                continue;
            }
            double share = toX - fromX < 1
                    ? 0
                    : Drawing.clamp((window.x(note.tick(), getWidth()) - fromX) / (toX - fromX), 0, 1);
            double value = up(fromY + (toY - fromY) * share);
            changed.add(
                    of.get() == Of.VELOCITY
                            ? note.withVelocity((int) Math.max(1, Math.round(127 * value)))
                            : note.withTraits(Traits.of(
                                    (int) Math.round(100 * value),
                                    note.traits().off(),
                                    note.traits().unknown())));
        }
        return phrase.withNotes(phrase.notes().withAll(changed));
    }

    private boolean isShown(Message message) {
        return of.get() == Of.BEND ? message.isBend() : message.isController(controller.get());
    }

    private Phrase withMessages(Phrase phrase, double fromX, double fromY, double toX, double toY) {
        long step = desk.stepTicks();
        long first = Math.floorDiv((long) Math.max(0, window.tickAt(fromX, getWidth())), step);
        long last = Math.floorDiv((long) Math.max(0, window.tickAt(toX, getWidth())), step);
        List<Message> messages = new ArrayList<>(phrase.messages());
        messages.removeIf(
                message -> isShown(message) && message.tick() >= first * step && message.tick() < (last + 1) * step);
        for (long at = first; at <= last && at * step < phrase.length(); at++) {
            double share = last == first ? 1 : (at - first) / (double) (last - first);
            double value = up(fromY + (toY - fromY) * share);
            messages.add(
                    of.get() == Of.BEND
                            ? Message.bend(at * step, 0, 0, (int) Math.round(Message.BEND_MOST * value))
                            : Message.control(at * step, 0, 0, controller.get(), (int) Math.round(127 * value)));
        }
        messages.sort(harpel.event.EventOrder.INSTANCE);
        return phrase.withMessages(messages);
    }

    /** Draws a frame. */
    void drawSeen() {
        if (window.version() != drawnWindow) {
            drawnWindow = window.version();
            repaint();
        }
        draw();
    }

    @Override
    protected void paint(Raster g, Theme theme) {
        Phrase phrase = desk.phrase().orElse(null);
        if (phrase == null) {
            return;
        }
        double width = g.shownWidth();
        double height = g.shownHeight();
        g.begin(Raster.mixed(theme.raised, theme.raised, 0));
        g.fill(0, Math.round(height / 2), width, 1, Raster.mixed(theme.raised, theme.rule, 0.6));
        if (of.get() == Of.BEND || of.get() == Of.CONTROLLER) {
            paintMessages(g, theme, phrase, width, height);
        } else {
            paintNotes(g, theme, phrase, width, height);
        }
    }

    private void paintNotes(Raster g, Theme theme, Phrase phrase, double width, double height) {
        RollPainter.seen(phrase, window.fromTick(), window.toTick(), visible);
        if (visible.size() > MANY) {
            paintOutline(g, theme, width, height);
            return;
        }
        Set<Integer> picked = desk.picked().get();
        long tick = -1;
        int beside = 0;
        for (Note note : visible) {
            beside = note.tick() == tick ? beside + 1 : 0;
            tick = note.tick();
            double tall = Math.max(1, Math.round(height * share(note)));
            // Notes of a chord stand beside one another.
            double x = Math.round(window.x(note.tick(), width)) + beside * (BAR + 1);
            boolean chosen = picked.contains(note.id());
            double strength = note.traits().off() ? 0.25 : 0.9;
            g.fill(x, height - tall, BAR, tall, Raster.mixed(theme.raised, chosen ? theme.brass : theme.ink, strength));
        }
    }

    private double share(Note note) {
        return of.get() == Of.VELOCITY ? note.velocity() / 127.0 : note.traits().chance() / 100.0;
    }

    /** Of very many notes the highest value at each pixel, since more could not be told apart. */
    private void paintOutline(Raster g, Theme theme, double width, double height) {
        double[] highest = new double[(int) width + 1];
        for (Note note : visible) {
            int x = (int) Drawing.clamp(window.x(note.tick(), width), 0, width);
            highest[x] = Math.max(highest[x], share(note));
        }
        int ink = Raster.mixed(theme.raised, theme.ink, 0.7);
        for (int x = 0; x < highest.length; x++) {
            double tall = Math.round(height * highest[x]);
            g.fill(x, height - tall, 1, tall, ink);
        }
    }

    private void paintMessages(Raster g, Theme theme, Phrase phrase, double width, double height) {
        double lastX = 0;
        double lastY = of.get() == Of.BEND ? height / 2 : height;
        int colour = Raster.mixed(theme.raised, theme.blue, 0.9);
        for (Message message : phrase.messages()) {
            if (!isShown(message)) {
                continue;
            }
            double x = Math.round(Drawing.clamp(window.x(message.tick(), width), 0, width));
            double value = message.isBend() ? message.bend() / (double) Message.BEND_MOST : message.data(2) / 127.0;
            double y = Math.round((height - 2) * (1 - value));
            g.fill(lastX, lastY, x - lastX, 2, colour);
            g.fill(x, Math.min(y, lastY), 2, Math.abs(y - lastY) + 2, colour);
            lastX = x;
            lastY = y;
        }
        g.fill(lastX, lastY, Math.max(0, window.x(phrase.length(), width) - lastX), 2, colour);
    }
}
