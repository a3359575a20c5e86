package harpel.engine;

import harpel.event.Event;
import harpel.event.EventOrder;
import harpel.event.Message;
import harpel.event.NoteEnd;
import harpel.event.NoteMap;
import harpel.event.NoteStart;
import harpel.param.music.RouteType;
import harpel.piece.Preset;
import harpel.plan.Patch;
import harpel.plan.Patch.Way;
import harpel.port.LiveOutput;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.LongSupplier;
import java.util.function.LongUnaryOperator;

/**
 * The ways to the instruments: where what leaves each part goes, and which notes sound there, so that each ends where it began. Owned by
 * the engine thread.
 */
final class WaysOut {
    private static final int TEST_VELOCITY = 90;

    private final LiveOutput output;
    private final LongSupplier clock;
    private final LongUnaryOperator moment;
    /** The notes that were sent and not ended, each with the way it went. */
    private final NoteMap<Way> sounding = new NoteMap<>();

    /** The ways to outputs that stages send to past any part. */
    private final Map<String, Way> past = new HashMap<>();

    /** The test notes that sound, by their outputs. */
    private final Map<String, NoteStart> tests = new HashMap<>();

    private Map<String, Way> ways = Map.of();

    /** @param moment when something at a tick is due */
    WaysOut(LiveOutput output, LongSupplier clock, LongUnaryOperator moment) {
        this.output = output;
        this.clock = clock;
        this.moment = moment;
    }

    /** Sends what leaves a part, or what a stage sends past all. */
    void send(String part, Event event) {
        Way way = way(part);
        if (event instanceof NoteStart note) {
            if (!way.heard()) {
                return;
            }
            sounding.put(note, way);
        } else if (event instanceof NoteEnd end) {
            // An open note ends where it began, whatever the part's way is now.
            way = sounding.remove(end.start());
            if (way == null) {
                return;
            }
        }
        sendOut(way, event);
    }

    private Way way(String part) {
        Way way = ways.get(part);
        if (way == null) {
            way = past.computeIfAbsent(part, id -> {
                String port = id.startsWith(RouteType.OUTPUT) ? id.substring(RouteType.OUTPUT.length()) : id;
                return new Way(id, port, 0, true, null, Patch.OWN_VOLUME);
            });
        }
        return way;
    }

    private void sendOut(Way way, Event event) {
        output.send(way.port(), event, moment.applyAsLong(event.tick()));
    }

    /** Takes the ways of a program: notes of parts that are not heard any more end, instruments are told what to sound like. */
    void take(Map<String, Way> newWays, long position) {
        Map<String, Way> before = ways;
        if (before == newWays) {
            return;
        }
        ways = newWays;
        List<NoteStart> unheard = new ArrayList<>();
        sounding.forEach((note, way) -> {
            Way now = ways.get(way.part());
            if (now != null && !now.heard()) {
                unheard.add(note);
            }
        });
        unheard.sort(EventOrder.INSTANCE);
        for (NoteStart note : unheard) {
            sendOut(sounding.remove(note), NoteEnd.plain(Math.max(position, note.tick()), note));
        }
        ways.values().forEach(way -> tell(way, before.get(way.part())));
    }

    private void tell(Way way, Way before) {
        boolean elsewhere = way.goesElsewhereThan(before);
        Preset preset = way.preset();
        if (preset != null && (elsewhere || !preset.equals(before.preset()))) {
            // A bank that was told stays until another is.
            if (preset.bank() > 0
                    || before != null
                            && before.preset() != null
                            && before.preset().bank() > 0) {
                control(way, Message.BANK, preset.bank() >> 7);
                control(way, Message.BANK_FINE, preset.bank() & 0x7F);
            }
            for (int channel : way.channels()) {
                byte status = (byte) (Message.PROGRAM_CHANGE | channel);
                output.send(way.port(), new Message(0, 0, status, (byte) preset.program()), clock.getAsLong());
            }
        }
        int volume = way.volume() == Patch.OWN_VOLUME ? 127 : way.volume();
        boolean loudest = way.volume() == Patch.OWN_VOLUME;
        if (elsewhere ? !loudest : way.volume() != before.volume()) {
            control(way, Message.VOLUME, volume);
        }
    }

    private void control(Way way, int controller, int value) {
        for (int channel : way.channels()) {
            output.send(way.port(), Message.control(0, 0, channel, controller, value), clock.getAsLong());
        }
    }

    /** Tells the instruments of ports that were opened what to sound like. */
    void tellOpened() {
        for (String port = output.takeOpened(); port != null; port = output.takeOpened()) {
            for (Way way : ways.values()) {
                if (way.port().equals(port)) {
                    tell(way, null);
                }
            }
        }
    }

    /** Ends every note at its port, whatever becomes of those who sent it. */
    void endAll(long now) {
        List<NoteStart> open = new ArrayList<>();
        sounding.forEach((note, way) -> open.add(note));
        open.sort(EventOrder.INSTANCE);
        for (NoteStart note : open) {
            output.send(sounding.get(note).port(), NoteEnd.plain(note.tick() + 1, note), now);
        }
    }

    /** What sounded has been ended otherwise. */
    void forget() {
        sounding.clear();
    }

    /** Sounds a note at an output, past all chains, or ends it: on the channel of a part that goes there, if one does. */
    void testNote(String port, int pitch, boolean on, long now) {
        NoteStart before = tests.remove(port);
        if (before != null) {
            output.send(port, NoteEnd.plain(before.tick() + 1, before), now);
        }
        if (on) {
            int channel = ways.values().stream()
                    .filter(way -> way.port().equals(port))
                    .map(Way::channel)
                    .findFirst()
                    .orElse(0);
            NoteStart note = NoteStart.played(0, 0, channel, pitch, TEST_VELOCITY);
            tests.put(port, note);
            output.send(port, note, now);
        }
    }
}
