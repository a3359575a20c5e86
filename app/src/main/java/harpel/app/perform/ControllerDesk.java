package harpel.app.perform;

import harpel.app.document.Document;
import harpel.app.document.Selection;
import harpel.app.look.Messages;
import harpel.app.transport.Places;
import harpel.app.transport.Transport;
import harpel.chain.StageAddress;
import harpel.control.ControllerMap;
import harpel.control.ControllerMap.Cell;
import harpel.control.ControllerMap.Grid;
import harpel.control.ControllerMap.Knob;
import harpel.control.KnobReader;
import harpel.control.LightSender;
import harpel.effect.notes.Carom;
import harpel.format.AtomicFile;
import harpel.format.MapFile;
import harpel.param.ParamSet;
import harpel.piece.Lane;
import harpel.piece.Part;
import harpel.piece.Piece;
import harpel.piece.PieceEdit;
import harpel.piece.perform.Lever;
import harpel.piece.perform.Pad;
import harpel.port.InputPort;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.atomic.AtomicBoolean;
import javafx.application.Platform;
import javafx.beans.property.IntegerProperty;
import javafx.beans.property.SimpleIntegerProperty;

/**
 * A controller with pads, knobs and lights, in hand: what its pads are at the moment, and what their lights say. The row at the top always
 * leads between the board, the pads, the parts and keys. Interface thread, but for what comes in.
 */
public final class ControllerDesk {
    /** What the pads are. */
    public enum Hands {
        BOARD,
        PADS,
        PARTS,
        KEYS
    }

    private static final int PAGE_COLUMNS = 4;
    private static final int LOWEST_KEY = 36;
    /** From row to row of keys: a fourth, common practice. */
    private static final int ROW_OF_KEYS = 5;

    private static final double NEAR = 0.02;

    private final Document document;
    private final Selection selection;
    private final Transport transport;
    private final Performing performing;
    private final Messages messages;
    private final IntegerProperty changes = new SimpleIntegerProperty();
    /** What its pads and knobs did, which is done here; its keys go to the engine as those of any device. */
    private final InputPort came = new InputPort("controller", this::drainSoon);

    private final AtomicBoolean drains = new AtomicBoolean();
    private final Map<Integer, Pad> down = new HashMap<>();
    /** The pitches that its pads play as keys, by their notes. Written on the device's thread. */
    private final Map<Integer, Integer> keysDown = new ConcurrentHashMap<>();

    /** Where each lever's knob stood last, 0–1. */
    private final Map<String, Double> knobs = new HashMap<>();

    private final Map<String, Boolean> met = new HashMap<>();
    private Path folder;
    /** Null until they are asked for. */
    private Map<String, ControllerMap> maps;

    private String device = "";
    private String mapId = "pads-8x8-rows-of-8";
    private volatile ControllerMap map;
    private LightSender lights;
    private boolean lit = true;
    private boolean connected;
    private KnobReader reader = new KnobReader(List.of());
    private volatile Hands hands = Hands.PADS;
    /** The page of pads at its left. */
    private volatile int firstPage;

    private final PadLearning learning;

    public ControllerDesk(
            Document document, Selection selection, Transport transport, Performing performing, Messages messages) {
        this.document = document;
        this.selection = selection;
        this.transport = transport;
        this.performing = performing;
        this.messages = messages;
        this.learning = new PadLearning(messages, this);
    }

    /** Takes maps of one's own from a folder, too; what is learnt is kept there. */
    public void readMaps(Path newFolder) {
        folder = newFolder;
        maps = null;
        changed();
    }

    void changed() {
        changes.set(changes.get() + 1);
    }

    /** Grows whenever anything of this changes. */
    public IntegerProperty changes() {
        return changes;
    }

    /** The maps there are, by their ids, with their names. */
    public Map<String, ControllerMap> maps() {
        if (maps == null) {
            maps = MapFile.all(folder, messages::say);
        }
        return maps;
    }

    public String device() {
        return device;
    }

    public String mapId() {
        return mapId;
    }

    public Hands hands() {
        return hands;
    }

    public boolean isLit() {
        return lit;
    }

    /** Takes a device in hand, or with an empty name none; its lights go out when it is left. */
    public void take(String newDevice, String newMapId) {
        leave();
        learning.forget();
        device = newDevice;
        mapId = maps().containsKey(newMapId) ? newMapId : mapId;
        ControllerMap taken = maps().get(mapId);
        map = device.isEmpty() ? null : taken;
        reader = new KnobReader(taken.knobs());
        if (map != null) {
            transport.devices().intercept(device, this::mine);
            String to = device;
            lights = new LightSender(map, bytes -> transport.engine().sendPlain(to, bytes));
            connected = false;
        }
        changed();
    }

    private void leave() {
        if (map != null) {
            transport.devices().intercept(device, null);
            lights.off();
            down.values().forEach(performing::release);
            down.clear();
            keysDown.clear();
            map = null;
        }
    }

    public void lit(boolean now) {
        lit = now;
        if (!now && lights != null && map != null) {
            lights.off();
        }
        changed();
    }

    /** What the pads are from now on. */
    public void lead(Hands to) {
        hands = to;
        changed();
    }

    /** What the device is; null while none is in hand. */
    ControllerMap map() {
        return map;
    }

    /** What it has learnt is kept. */
    void replace(ControllerMap with) {
        Map<String, ControllerMap> more = new LinkedHashMap<>(maps());
        more.put(mapId, with);
        maps = more;
        map = with;
        keep(with);
        changed();
    }

    public PadLearning learning() {
        return learning;
    }

    private void keep(ControllerMap with) {
        if (folder != null) {
            try {
                Files.createDirectories(folder);
                AtomicFile.write(
                        folder.resolve(mapId + MapFile.ENDING),
                        MapFile.write(with).getBytes(StandardCharsets.UTF_8));
            } catch (IOException e) {
                messages.say("What was learnt could not be kept in " + folder + ": " + e.getMessage());
            }
        }
    }

    // What comes in

    /** On the device's thread: what a message plays, where it is not for the pads, knobs and lights. */
    private int mine(int status, int data1, int data2) {
        ControllerMap now = map;
        int kind = status & 0xF0;
        boolean note = kind == 0x90 || kind == 0x80;
        boolean knob = now != null && kind == 0xB0 && !now.knobs().isEmpty();
        Optional<Cell> cell = now == null || !note || now.pads() == null
                ? Optional.empty()
                : now.pads().cell(data1);
        boolean other = now != null && note && (learning.isOn() || now.learnt().containsKey(data1));
        boolean press = kind == 0x90 && data2 > 0;
        if (note && !press && keysDown.remove(data1) != null) {
            drainSoon();
        }
        if (press
                && hands == Hands.KEYS
                && !other
                && cell.isPresent()
                && cell.get().row() > 0) {
            int pitch = pitch(now.pads(), cell.get());
            if (pitch > 127) {
                return InputPort.Interceptor.MINE;
            }
            keysDown.put(data1, pitch);
            drainSoon();
            return pitch;
        }
        boolean pad = other || cell.isPresent();
        if (pad || knob) {
            came.offer(status, data1, data2, transport.nanos());
        }
        return pad ? InputPort.Interceptor.MINE : data1;
    }

    private void drainSoon() {
        if (drains.compareAndSet(false, true)) {
            Platform.runLater(this::drain);
        }
    }

    private void drain() {
        drains.set(false);
        for (InputPort.Played one = came.poll(); one != null; one = came.poll()) {
            if (map == null) {
                continue;
            }
            if ((one.status() & 0xF0) == 0xB0) {
                reader.take(one.data1(), one.data2(), taker);
            } else if (one.isPress()) {
                press(one.data1(), one.data2());
            } else {
                release(one.data1());
            }
        }
        changed();
    }

    private void press(int note, int velocity) {
        Optional<Cell> cell = map.pads() == null ? Optional.empty() : map.pads().cell(note);
        if (learning.pressed(note, cell.filter(ControllerDesk::isLeading).isPresent())) {
            return;
        }
        Integer learntPad = map.learnt().get(note);
        if (learntPad != null) {
            pressPad(note, learntPad);
        } else if (cell.isPresent()) {
            press(note, cell.get());
        }
        changed();
    }

    private void press(int note, Cell cell) {
        if (cell.row() == 0) {
            if (isLeading(cell)) {
                Hands to = Hands.values()[cell.column()];
                if (to == Hands.PADS && hands == Hands.PADS) {
                    nextPages();
                }
                lead(to);
            }
            return;
        }
        switch (hands) {
            case PADS -> padAt(cell).ifPresent(at -> pressPad(note, at));
            case PARTS -> part(cell).ifPresent(part -> pressPart(part, cell.row()));
            case BOARD -> launch(cell);
            case KEYS -> {
                // Those sound without this.
            }
        }
    }

    private void release(int note) {
        Pad pad = down.remove(note);
        if (pad != null) {
            performing.release(pad);
        }
        changed();
    }

    private static boolean isLeading(Cell cell) {
        return cell.row() == 0 && cell.column() < Hands.values().length;
    }

    private Piece piece() {
        return document.piece().get();
    }

    private Grid grid() {
        return map.pads();
    }

    /** The next pages of pads that have room on it, or again the first. */
    private void nextPages() {
        int room = Math.max(1, grid().columns() / PAGE_COLUMNS);
        firstPage = firstPage + room < Pad.PAGES ? firstPage + room : 0;
        int last = Math.min(Pad.PAGES, firstPage + room);
        messages.say("Pads: " + (room == 1 ? "page " : "pages ") + (firstPage + 1)
                + (last == firstPage + 1 ? "" : "–" + last) + " of " + Pad.PAGES + ".");
    }

    /** The pads lie in the lower left, the next page beside them. */
    Optional<Integer> padAt(Cell cell) {
        int row = cell.row() - (grid().rows() - PAGE_COLUMNS);
        int page = firstPage + cell.column() / PAGE_COLUMNS;
        return row < 0 || page >= Pad.PAGES
                ? Optional.empty()
                : Optional.of(page * Pad.PAGE + row * PAGE_COLUMNS + cell.column() % PAGE_COLUMNS);
    }

    private void pressPad(int note, int at) {
        piece().pad(at).ifPresent(pad -> {
            down.put(note, pad);
            performing.press(pad);
        });
    }

    Optional<Part> part(Cell cell) {
        List<Part> parts = piece().parts();
        return cell.column() < parts.size() ? Optional.of(parts.get(cell.column())) : Optional.empty();
    }

    private void pressPart(Part part, int row) {
        if (row == 3) {
            selection.partId().set(part.id());
        } else if (row < 3) {
            boolean mute = row == 1;
            document.apply(PieceEdit.of(
                    mute ? "Mute" : "Solo",
                    piece -> piece.withPart(
                            part.id(),
                            one -> one.withMix(
                                    mute
                                            ? one.mix().withMute(!one.mix().mute())
                                            : one.mix().withSolo(!one.mix().solo())))));
        }
    }

    int pitch(Cell cell) {
        return pitch(grid(), cell);
    }

    private static int pitch(Grid grid, Cell cell) {
        return LOWEST_KEY + cell.column() + (grid.rows() - 1 - cell.row()) * ROW_OF_KEYS;
    }

    // The board

    Optional<StageAddress> board() {
        return Places.board(document, selection);
    }

    /** A marble is launched, or taken off. */
    private void launch(Cell cell) {
        board().ifPresentOrElse(
                        address -> selection.editStage("Launch a marble", "", address, stage -> {
                            List<ParamSet> marbles =
                                    new ArrayList<>(stage.params().get(Carom.MARBLES));
                            int column = cell.column() + 1;
                            int row = grid().rows() - cell.row();
                            boolean gone = marbles.removeIf(
                                    one -> one.get(Carom.COLUMN) == column && one.get(Carom.ROW) == row);
                            boolean fits = column <= stage.params().get(Carom.SIZE)
                                    && row <= stage.params().get(Carom.SIZE);
                            if (!gone && fits && marbles.size() < Carom.MOST_MARBLES) {
                                marbles.add(Carom.MARBLE
                                        .defaults()
                                        .with(Carom.COLUMN, column)
                                        .with(Carom.ROW, row)
                                        .with(Carom.DIRECTION, stage.params().get(Carom.PAD_DIRECTION)));
                            }
                            return stage.with(Carom.MARBLES, List.copyOf(marbles));
                        }),
                        () -> messages.say(
                                "No part has a board: add a Carom to a chain, and its cells are played here."));
    }

    // Knobs

    private final KnobReader.Taker taker = new KnobReader.Taker() {
        @Override
        public void stands(int knob, double value) {
            lever(knob).ifPresent(lever -> {
                double before = knobs.getOrDefault(lever.name(), Double.NaN);
                double at = lever.value() / 100;
                boolean passes = (before - at) * (value - at) <= 0;
                boolean near = Math.abs(value - at) <= NEAR;
                boolean caught = met.getOrDefault(lever.name(), false) || passes || near;
                knobs.put(lever.name(), value);
                met.put(lever.name(), caught);
                if (caught) {
                    set(lever, value * 100);
                }
            });
        }

        @Override
        public void turned(int knob, int steps) {
            lever(knob).ifPresent(lever -> set(lever, lever.value() + steps));
        }
    };

    /** The lever of a knob, in their order; what a lever has learnt moves that alone. */
    private Optional<Lever> lever(int knob) {
        List<Lever> levers = piece().levers();
        Knob one = map.knobs().get(knob);
        boolean learntOne = one.kind() != Knob.Kind.NRPN
                && levers.stream().anyMatch(lever -> lever.controllers().contains(one.number()));
        return !learntOne && knob < levers.size() ? Optional.of(levers.get(knob)) : Optional.empty();
    }

    private void set(Lever lever, double value) {
        Lane<Double> lane = new Lane.OfLever(lever.name());
        double at = lever.nearest(Math.round(Math.max(0, Math.min(100, value)) * 10) / 10.0);
        transport.traces().forgetLever(lever.name());
        document.apply(new PieceEdit("Move lever", "knob " + lever.name(), piece -> lane.withBase(piece, at)));
    }

    /** Where the knob of a lever stands, 0–1, that has not met it. */
    public Optional<Double> unmet(String lever) {
        return met.getOrDefault(lever, true) ? Optional.empty() : Optional.ofNullable(knobs.get(lever));
    }

    /** A lever was moved otherwise: its knob has to meet it again. One that learns is shown the knob it has learnt. */
    public void moved(Piece before, Piece now) {
        for (Lever lever : now.levers()) {
            if (before.levers().stream()
                    .anyMatch(old -> old.name().equals(lever.name())
                            && !old.controllers().equals(lever.controllers()))) {
                knobs.remove(lever.name());
                met.remove(lever.name());
            }
            Double knob = knobs.get(lever.name());
            if (knob != null && Math.abs(knob * 100 - lever.value()) > 100 * NEAR) {
                met.put(lever.name(), false);
            }
        }
    }

    /** Whether a pitch sounds by one of its pads as keys. */
    boolean isDown(int pitch) {
        return keysDown.containsValue(pitch);
    }

    // Lights

    /** Tells the lights what has changed; with every frame. */
    public void look() {
        if (map == null || lights == null || map.pads() == null || !lit) {
            return;
        }
        boolean there = transport.outputs().contains(device);
        if (there && !connected) {
            lights.connected();
        }
        connected = there;
        if (there) {
            lights.show(new ControllerLights(document, selection, transport, performing, this, grid()).all());
        }
    }

    /** Lights out, as when the program ends. */
    public void close() {
        leave();
    }
}
