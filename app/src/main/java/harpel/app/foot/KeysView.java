package harpel.app.foot;

import harpel.app.document.Document;
import harpel.app.document.Selection;
import harpel.app.draw.Drawing;
import harpel.app.draw.SharpCanvas;
import harpel.app.look.Look;
import harpel.app.look.Messages;
import harpel.app.look.Theme;
import harpel.app.transport.Places;
import harpel.app.transport.Places.Place;
import harpel.app.transport.Transport;
import harpel.app.ui.Menus;
import harpel.app.ui.Tips;
import harpel.app.ui.Type;
import harpel.theory.Chord;
import harpel.theory.GeneralMidi;
import harpel.theory.Key;
import harpel.theory.OctaveNaming;
import harpel.theory.Pitch;
import java.util.BitSet;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.control.ContextMenu;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.input.MouseButton;
import javafx.scene.input.MouseEvent;
import javafx.scene.layout.Region;
import javafx.scene.paint.Color;

/** The drawn keys C2–B6: played by mouse (further down is louder) and by two rows of the computer's keyboard; lit by input and output. */
public final class KeysView extends Region {
    private static final int LOWEST = 36;
    private static final int OCTAVES = 5;
    private static final int WHITE_KEYS = OCTAVES * 7;
    private static final int[] WHITE = {0, 2, 4, 5, 7, 9, 11};
    /** Black keys by the white key to their left: C D – F G A –. */
    private static final int[] BLACK = {1, 3, -1, 6, 8, 10, -1};

    private static final Map<KeyCode, Integer> KEYBOARD = Map.ofEntries(
            Map.entry(KeyCode.Z, 0),
            Map.entry(KeyCode.S, 1),
            Map.entry(KeyCode.X, 2),
            Map.entry(KeyCode.D, 3),
            Map.entry(KeyCode.C, 4),
            Map.entry(KeyCode.V, 5),
            Map.entry(KeyCode.G, 6),
            Map.entry(KeyCode.B, 7),
            Map.entry(KeyCode.H, 8),
            Map.entry(KeyCode.N, 9),
            Map.entry(KeyCode.J, 10),
            Map.entry(KeyCode.M, 11),
            Map.entry(KeyCode.Q, 12),
            Map.entry(KeyCode.DIGIT2, 13),
            Map.entry(KeyCode.W, 14),
            Map.entry(KeyCode.DIGIT3, 15),
            Map.entry(KeyCode.E, 16),
            Map.entry(KeyCode.R, 17),
            Map.entry(KeyCode.DIGIT5, 18),
            Map.entry(KeyCode.T, 19),
            Map.entry(KeyCode.DIGIT6, 20),
            Map.entry(KeyCode.Y, 21),
            Map.entry(KeyCode.DIGIT7, 22),
            Map.entry(KeyCode.U, 23),
            Map.entry(KeyCode.I, 24));

    private static final double HEAD = 14;
    private static final double TALL = 92;
    private static final double LEAST_TALL = 84;
    /** As a strip. */
    private static final double LOW = 30;

    private boolean strip;
    private final ContextMenu asking = Menus.list();
    private final Document document;
    private final Selection selection;
    private final Look look;
    private final Transport transport;
    private final SharpCanvas canvas = new SharpCanvas();
    private final Map<KeyCode, Integer> down = new HashMap<>();
    private int octave = 4;
    private int touch = 92;
    private int mousePitch = -1;
    private final BitSet in = new BitSet(128);
    private final BitSet out = new BitSet(128);
    private final BitSet drawnIn = new BitSet(128);
    private final BitSet drawnOut = new BitSet(128);
    private String shownPart = "";
    private Place input;
    private Place sound;
    private Theme drawnTheme;
    private double drawnWidth;
    private double drawnHeight;
    private double drawnSize;
    private OctaveNaming drawnNaming;
    private Key drawnKey;
    private boolean drawnDrums;

    KeysView(Document document, Selection selection, Look look, Transport transport, Messages messages) {
        this.document = document;
        this.selection = selection;
        this.look = look;
        this.transport = transport;
        setId("keys");
        getChildren().add(canvas);
        fold(false);
        Tips.set(
                this,
                "Play: further down on a key is louder. Computer keys Z–M and Q–I play too; [ and ] shift the octave.\nTinted are the notes of the key; a right press offers to make a key its root.");
        addEventHandler(MouseEvent.MOUSE_PRESSED, event -> {
            int pitch = pitchAt(event.getX(), event.getY());
            if (event.getButton() == MouseButton.PRIMARY) {
                mouse(event.getX(), event.getY());
            } else if (event.getButton() == MouseButton.SECONDARY && pitch >= 0) {
                askForRoot(messages, pitch, event);
            }
        });
        addEventHandler(MouseEvent.MOUSE_DRAGGED, event -> {
            if (event.isPrimaryButtonDown()) {
                mouse(event.getX(), event.getY());
            }
        });
        addEventHandler(MouseEvent.MOUSE_RELEASED, event -> mouseUp());
    }

    @Override
    protected void layoutChildren() {
        drawnTheme = null;
    }

    /** Shows them as a thin strip, which can be played all the same, or as tall as keys are. */
    void fold(boolean thin) {
        strip = thin;
        setMinHeight(thin ? LOW : LEAST_TALL);
        setPrefHeight(thin ? LOW : TALL);
        setMaxHeight(thin ? LOW : Double.MAX_VALUE);
        drawnTheme = null;
    }

    /** So much above the keys is for their names. */
    private double head() {
        return strip ? 0 : HEAD;
    }

    /** Asks before the piece has another key: the other button is pressed by mistake, too. */
    private void askForRoot(Messages messages, int pitch, MouseEvent event) {
        String name = Pitch.shown(pitch, document.spelling()).replaceAll("-?\\d+$", "");
        asking.getItems()
                .setAll(Menus.item(
                        "Make " + name + " the root of the key",
                        "make-root",
                        () -> KeyPicker.root(document, messages, Pitch.pitchClass(pitch))));
        asking.show(this, event.getScreenX(), event.getScreenY());
    }

    private void mouse(double x, double y) {
        int pitch = pitchAt(x, y);
        if (pitch != mousePitch) {
            mouseUp();
            mousePitch = pitch;
            if (pitch >= 0) {
                transport.press(pitch, velocityAt(y));
            }
        }
    }

    private void mouseUp() {
        if (mousePitch >= 0) {
            transport.release(mousePitch);
            mousePitch = -1;
        }
    }

    private int velocityAt(double y) {
        double place = (y - head()) / Math.max(1, getHeight() - head());
        return (int) Math.max(1, Math.min(127, Math.round(20 + place * 107)));
    }

    /** The key under a point, or -1. */
    int pitchAt(double x, double y) {
        double width = getWidth() / WHITE_KEYS;
        if (x < 0 || x >= getWidth() || y < 0 || y > getHeight()) {
            return -1;
        }
        if (y < head() + (getHeight() - head()) * 0.58) {
            int left = (int) Math.round(x / width) - 1;
            boolean near = Math.abs(x - (left + 1) * width) < width * 0.3;
            if (left >= 0 && left < WHITE_KEYS && near && BLACK[left % 7] >= 0) {
                return LOWEST + left / 7 * 12 + BLACK[left % 7];
            }
        }
        int key = (int) (x / width);
        return LOWEST + key / 7 * 12 + WHITE[key % 7];
    }

    /** Takes a key of the computer; true when it plays. */
    public boolean key(KeyEvent event) {
        if (event.getEventType() == KeyEvent.KEY_RELEASED) {
            // Whatever else is held by now: a key that was pressed is let go of.
            Integer pitch = down.remove(event.getCode());
            if (pitch != null) {
                transport.release(pitch);
            }
            return pitch != null;
        }
        if (event.isShortcutDown() || event.isAltDown()) {
            return false;
        }
        if (event.getCode() == KeyCode.OPEN_BRACKET || event.getCode() == KeyCode.CLOSE_BRACKET) {
            octave = Math.max(0, Math.min(8, octave + (event.getCode() == KeyCode.OPEN_BRACKET ? -1 : 1)));
            return true;
        }
        Integer above = KEYBOARD.get(event.getCode());
        if (above == null) {
            return false;
        }
        int pitch = 12 * (octave + 1) + above;
        if (!down.containsKey(event.getCode()) && Pitch.inRange(pitch)) {
            down.put(event.getCode(), pitch);
            transport.press(pitch, touch);
        }
        return true;
    }

    /** Lets go of every key, as when the window loses the keyboard. */
    public void releaseAll() {
        down.values().forEach(transport::release);
        down.clear();
        mouseUp();
    }

    int octave() {
        return octave;
    }

    int touch() {
        return touch;
    }

    void draw() {
        String part = selection.partId().get();
        if (!part.equals(shownPart)) {
            shownPart = part;
            input = Places.input(part);
            sound = Places.sound(part);
        }
        transport.traces().sounding(input, in);
        transport.traces().sounding(sound, out);
        Theme theme = look.theme().get();
        Key key = document.piece().get().key();
        boolean drums = selection.part().channel() == GeneralMidi.PERCUSSION_CHANNEL;
        boolean same = in.equals(drawnIn)
                && drums == drawnDrums
                && out.equals(drawnOut)
                && theme == drawnTheme
                && getWidth() == drawnWidth
                && getHeight() == drawnHeight
                && OctaveNaming.shown() == drawnNaming
                && key.equals(drawnKey)
                && look.size().get() == drawnSize;
        if (same) {
            return;
        }
        drawnIn.clear();
        drawnIn.or(in);
        drawnOut.clear();
        drawnOut.or(out);
        drawnTheme = theme;
        drawnWidth = getWidth();
        drawnHeight = getHeight();
        drawnNaming = OctaveNaming.shown();
        drawnKey = key;
        drawnDrums = drums;
        drawnSize = look.size().get();
        canvas.fit(getWidth(), getHeight(), look.size().get());
        GraphicsContext g = canvas.begin();
        double height = canvas.shownHeight();
        double width = canvas.shownWidth() / WHITE_KEYS;
        g.setFont(Type.plain(Type.NOTE));
        for (int place = 0; place < WHITE_KEYS; place++) {
            int pitch = LOWEST + place / 7 * 12 + WHITE[place % 7];
            double x = place * width;
            g.setFill(theme.rule);
            g.fillRect(x, head(), width, height - head());
            g.setFill(theme.ivory);
            g.fillRect(x + 0.5, head() + 0.5, width - 1, height - head() - 1);
            if (!drums) {
                tint(g, theme, key, pitch, x + 0.5, head() + 0.5, width - 1, height - head() - 1);
            }
            light(g, theme, in.get(pitch), out.get(pitch), x + 0.5, head() + 0.5, width - 1, height - head() - 1);
            if (drums && !strip) {
                drum(g, Theme.DAY.ink, pitch, x + width / 2 + 3, height - 4, (height - head()) * 0.42);
            } else if (!strip && (place % 7 == 0 || place % 7 == 3)) {
                g.setFill(place % 7 == 0 ? Theme.DAY.red : Theme.DAY.blue);
                g.fillRect(x + width / 2 - 1, height - 22, 2.5, 16);
            }
            if (place % 7 == 0) {
                g.setFill(theme.soft);
                g.fillText(
                        Pitch.shown(pitch, document.spelling()), x + (strip ? 3 : 1), strip ? height - 4 : head() - 3);
            }
        }
        for (int place = 0; place < WHITE_KEYS; place++) {
            if (BLACK[place % 7] >= 0) {
                int pitch = LOWEST + place / 7 * 12 + BLACK[place % 7];
                double x = (place + 1) * width - width * 0.3;
                double h = (height - head()) * 0.58;
                g.setFill(Theme.DAY.ink);
                g.fillRect(x, head(), width * 0.6, h);
                if (!drums) {
                    tint(g, theme, key, pitch, x + 1, head(), width * 0.6 - 2, h - 1);
                }
                light(g, theme, in.get(pitch), out.get(pitch), x + 1, head(), width * 0.6 - 2, h - 1);
                if (drums && !strip) {
                    drum(g, Theme.DAY.ivory, pitch, x + width * 0.3 + 3, head() + h - 3, h - 6);
                }
            }
        }
    }

    /** The name of a drum, upwards along its key. */
    private static void drum(GraphicsContext g, Color colour, int pitch, double x, double y, double room) {
        GeneralMidi.percussion(pitch).ifPresent(name -> {
            g.save();
            g.translate(x, y);
            g.rotate(-90);
            g.setFill(colour);
            g.fillText(GeneralMidi.brief(name), 0, 0, room);
            g.restore();
        });
    }

    /** The notes of the key are tinted, its root more. */
    private static void tint(
            GraphicsContext g, Theme theme, Key key, int pitch, double x, double y, double w, double h) {
        if (key.contains(pitch)) {
            boolean root = Pitch.pitchClass(pitch) == key.root();
            g.setFill(Drawing.faint(theme.brass, root ? 0.3 : 0.12));
            g.fillRect(x, y + h * 0.55, w, h * 0.45);
        }
    }

    /** What is held, by name, with the chord it makes; empty for nothing. */
    String held(int channel) {
        List<Integer> pitches = in.stream().boxed().toList();
        return pitches.isEmpty()
                ? ""
                : channel == GeneralMidi.PERCUSSION_CHANNEL
                        ? pitches.stream()
                                .map(pitch -> GeneralMidi.note(pitch, channel, document.spelling()))
                                .collect(Collectors.joining(", "))
                        : Chord.told(pitches, document.spelling());
    }

    private static void light(
            GraphicsContext g, Theme theme, boolean in, boolean out, double x, double y, double w, double h) {
        if (out) {
            g.setFill(Drawing.faint(theme.brass, 0.55));
            g.fillRect(x, y, w, h);
        }
        if (in) {
            g.setFill(Theme.DAY.sage);
            g.fillRect(x, y, w, 7);
        }
    }
}
