package harpel.engine;

import harpel.engine.KeysDown.Held;
import harpel.engine.KeysDown.Key;
import harpel.event.Event;
import harpel.event.Message;
import harpel.event.NoteEnd;
import harpel.event.NoteStart;
import harpel.piece.Part;
import harpel.piece.Piece;
import harpel.port.InputPort;
import harpel.run.Tap;

/** What keys and controllers play, to the parts that hear them, and which keys are down. Owned by the engine thread. */
final class LiveKeys {
    private final LiveCycle cycle;
    private final Tap tap;
    private final KeysDown down = new KeysDown();
    private final PartInputs inputs = new PartInputs();
    private final Takers takers;
    private long arrival;
    private long pressed;
    private int lastController = -1;
    private long controllers;

    LiveKeys(LiveCycle cycle, Piece piece, Tap tap) {
        this.cycle = cycle;
        this.tap = tap;
        this.takers = new Takers(piece);
    }

    void take(Piece piece) {
        takers.take(piece);
    }

    /** @param part the id of the part that keys play from now on */
    void playTo(String part) {
        takers.keysTo(part);
    }

    /** How many keys were pressed in all. */
    long pressed() {
        return pressed;
    }

    /** The controller that came in last, or -1. */
    int lastController() {
        return lastController;
    }

    long controllers() {
        return controllers;
    }

    boolean isNoneDown() {
        return down.isEmpty();
    }

    /** What came in and has not been played yet. */
    PartInputs inputs() {
        return inputs;
    }

    /** @param port the name of the way it came in; {@link InputPort#KEYS} and {@link InputPort#AUDITION} always go to the chosen part */
    void take(String port, InputPort.Played played) {
        if (played.isRelease()) {
            release(Key.of(port, played), played);
            return;
        }
        if ((played.status() & 0xF0) == Message.CONTROL_CHANGE) {
            lastController = played.data1();
            controllers++;
        }
        for (Part part : takers.of(port, played.status() & 0x0F)) {
            if (played.isPress()) {
                press(part, port, played);
            } else {
                add(part.id(), message(part, played));
            }
        }
    }

    private void press(Part part, String port, InputPort.Played played) {
        if (cycle.time().isStanding()) {
            if (part.run() == Part.Run.TRANSPORT) {
                return;
            }
            cycle.startByKey(played.nanos());
        }
        long tick = tick(played);
        pressed++;
        NoteStart note = port.equals(InputPort.AUDITION)
                ? NoteStart.auditioned(tick, arrival++, part.channel(), played.data1(), played.data2())
                : NoteStart.played(tick, arrival++, part.channel(), played.data1(), played.data2());
        down.press(
                Key.of(port, played),
                new Held(part.id(), note),
                before -> add(before.part(), NoteEnd.plain(tick, before.note())));
        add(part.id(), note);
    }

    private void release(Key key, InputPort.Played played) {
        for (Held held : down.release(key)) {
            add(held.part(), NoteEnd.atOrAfter(tick(played), held.note(), played.data2()));
        }
    }

    /** Every key that a way in holds is let go of. */
    void inputGone(String port, long now) {
        for (Key key : down.of(port)) {
            release(key, new InputPort.Played(0x80 | key.channel(), key.pitch(), NoteEnd.PLAIN_RELEASE, now));
        }
    }

    private Message message(Part part, InputPort.Played played) {
        int kind = played.status() & 0xF0;
        byte status = (byte) (kind | part.channel());
        boolean two = kind == Message.PROGRAM_CHANGE || kind == Message.CHANNEL_PRESSURE;
        return two
                ? new Message(tick(played), arrival++, status, (byte) played.data1())
                : new Message(tick(played), arrival++, status, (byte) played.data1(), (byte) played.data2());
    }

    private long tick(InputPort.Played played) {
        return Math.max(cycle.renderer().position(), cycle.time().tickAt(played.nanos()));
    }

    private void add(String part, Event event) {
        tap.left(part, Tap.KEYS, event);
        inputs.add(part, event);
    }

    /** Keys that are down go on where time has started anew. */
    void strikeAgain(long tick) {
        down.replaceAll(held -> {
            NoteStart again =
                    held.note().derive(tick, held.note().pitch(), held.note().velocity());
            tap.left(held.part(), Tap.KEYS, again);
            cycle.renderer().play(held.part(), again);
            return new Held(held.part(), again);
        });
    }

    /** Keys that are down are let go of, as far as is told. */
    void tellEnd() {
        down.forEach(held -> tap.left(
                held.part(),
                Tap.KEYS,
                NoteEnd.atOrAfter(cycle.renderer().position(), held.note(), NoteEnd.PLAIN_RELEASE)));
    }

    /** No key is down any more. */
    void forget() {
        tellEnd();
        down.clear();
    }
}
