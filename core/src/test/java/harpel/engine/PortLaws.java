package harpel.engine;

import static org.assertj.core.api.Assertions.assertThat;

import harpel.chain.Chain;
import harpel.effect.EffectKind;
import harpel.phrase.Note;
import harpel.phrase.Phrase;
import harpel.piece.Mix;
import harpel.piece.Part;
import harpel.piece.Piece;
import harpel.piece.perform.Lever;
import harpel.plan.Program;
import harpel.port.InputPort;
import harpel.port.Ports;
import harpel.run.Tap;
import harpel.testkit.Laws;
import harpel.testkit.Laws.World;
import harpel.testkit.Outputs;
import harpel.testkit.Randoms;
import harpel.testkit.StrictPort;
import harpel.time.TempoMap;
import harpel.time.TimeMap;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;

/** The promises at the ports, where the listener's ears are: whatever is done while it plays, each start there gets its end there. */
final class PortLaws {
    private static final long MS = 1_000_000;
    private static final List<String> PORTS = List.of("", "Pier", "Quay");

    private final Randoms randoms;
    private final Map<String, StrictPort> ports = new TreeMap<>();
    private final Ports outputs;
    private final LiveCycle cycle;
    private final List<Integer> keys = new ArrayList<>();
    private Piece piece;
    private Program program;
    private long now;

    private PortLaws(EffectKind kind, long seed) {
        World world = new World(kind, seed);
        randoms = world.randoms;
        outputs = new Ports(() -> now, false);
        PORTS.forEach(this::plugIn);
        piece = world.piece(
                        Part.of("Lead", world.chain).withPhrase("tide"),
                        Part.of("Second", randoms.chain(1)).withPort("Pier").withPhrase("crab"))
                .withPhrases(List.of(randoms.phrase("Tide"), randoms.phrase("Crab")))
                .withLevers(List.of(Lever.of("Tide", 50, 21)));
        program = Program.of(piece);
        cycle = new LiveCycle(program, () -> now, outputs, Tap.NONE);
    }

    private void plugIn(String name) {
        StrictPort port = ports.computeIfAbsent(name, StrictPort::new);
        outputs.add(name, port);
    }

    /** Random play, edits of everything, transport, devices that vanish and fail: nothing hangs at any port. */
    static void everyStartEndsAtItsPort(EffectKind kind, long seed) {
        PortLaws law = new PortLaws(kind, seed);
        law.cycle.keysTo("lead");
        for (int i = 0; i < 60; i++) {
            law.act();
            law.pass(law.randoms.between(0, 120) * MS);
        }
        law.ports.values().forEach(port -> port.fail(false));
        law.now += 5_000 * MS;
        law.outputs.pump();
        law.cycle.silence(law.now);
        law.outputs.pump();
        law.nothingOpen("after silence");
        law.outputs.close();
    }

    private void nothingOpen(String when) {
        ports.forEach((name, port) -> {
            Laws.EVENTS.add(port.log().size());
            assertThat(port.open()).as("open at \"%s\" %s", name, when).isEmpty();
        });
    }

    private void pass(long nanos) {
        long until = now + nanos;
        while (cycle.nextNanos() <= until) {
            now = Math.max(now + 1, cycle.nextNanos());
            cycle.render(now);
        }
        now = until;
        cycle.tellOpened();
        cycle.render(now);
        outputs.pump();
    }

    private interface Edit {
        Piece of(Piece before);
    }

    /** One that the piece refuses, such as a circle of routes, is not done. */
    private void edit(Edit edit) {
        try {
            piece = edit.of(piece);
        } catch (IllegalArgumentException e) {
            return;
        }
        program = Program.after(program, piece);
        cycle.update(program, now);
    }

    private void act() {
        String part = randoms.oneOf(piece.parts()).id();
        switch (randoms.between(0, 19)) {
            case 0, 1, 2 -> press();
            case 3, 4 -> release();
            case 5 -> cycle.play(now);
            case 6 -> cycle.stop(now);
            case 7 -> cycle.locate(randoms.tick(Laws.LENGTH), now);
            case 8 -> edit(before -> before.withPart(part, one -> one.withPort(randoms.oneOf(PORTS))));
            case 9 -> edit(before -> before.withPart(part, one -> one.withChannel(randoms.between(0, 3))));
            case 10 ->
                edit(before -> before.withPart(
                        part,
                        one -> one.withMix(new Mix(randoms.oneIn(2), randoms.oneIn(4), randoms.between(0, 100), 0))));
            case 11 -> edit(before -> before.withPart(part, one -> one.withChain(Laws.edited(randoms, one.chain()))));
            case 12 -> partsComeAndGo(part);
            case 13 -> edit(before -> before.withPhrase(edited(randoms.oneOf(piece.phrases()))));
            case 14 ->
                edit(before -> before.withTime(new TimeMap(
                        TempoMap.of(randoms.between(60, 240)), piece.time().meter())));
            case 15 -> edit(before -> before.withLevers(List.of(Lever.of("Tide", randoms.between(0, 100), 21))));
            case 16 -> devicesComeAndGo();
            case 17 ->
                ports.getOrDefault(randoms.oneOf(PORTS), new StrictPort("gone")).fail(randoms.oneIn(2));
            case 18 -> cycle.hearDry(part, randoms.oneIn(2));
            default ->
                edit(before ->
                        before.withPart(part, one -> one.withSound(randoms.oneOf(List.of("Kalimba", "Lamp pad")))));
        }
    }

    private void press() {
        int pitch = randoms.between(55, 67);
        keys.add(pitch);
        cycle.take(InputPort.KEYS, new InputPort.Played(0x90, pitch, randoms.between(1, 127), now));
    }

    private void release() {
        if (!keys.isEmpty()) {
            int pitch = keys.remove(randoms.between(0, keys.size() - 1));
            cycle.take(InputPort.KEYS, new InputPort.Played(0x80, pitch, 64, now));
        }
    }

    private void partsComeAndGo(String part) {
        if (piece.parts().size() > 1 && randoms.oneIn(2)) {
            edit(before -> before.withParts(
                    piece.parts().stream().filter(one -> !one.id().equals(part)).toList()));
        } else if (piece.parts().size() < 4) {
            edit(before -> before.withDuplicate(part));
        }
    }

    private Phrase edited(Phrase phrase) {
        if (phrase.notes().isEmpty() || randoms.oneIn(3)) {
            return phrase.withNotes(phrase.notes().plus(randoms.note(phrase.length())));
        }
        Note note = randoms.oneOf(phrase.notes());
        return randoms.oneIn(3)
                ? phrase.withNotes(phrase.notes().minus(note.id()))
                : phrase.withNotes(
                        phrase.notes().with(randoms.note(phrase.length()).withId(note.id())));
    }

    private void devicesComeAndGo() {
        String name = randoms.oneOf(PORTS);
        if (outputs.names().contains(name)) {
            outputs.remove(name);
            if (ports.get(name).isFailing()) {
                // Nobody can end what sounds on a device that was unplugged.
                ports.remove(name);
            }
        } else {
            ports.put(name, new StrictPort(name));
            plugIn(name);
        }
    }

    /** An edit of any note of a phrase leaves what sounds of it alone, unless it is that note. */
    static void anEditOfAPhraseTouchesNoOtherNote(EffectKind kind, long seed) {
        Randoms randoms = new Randoms(seed);
        long length = 8L * harpel.time.Ticks.PER_QUARTER;
        List<Note> notes = new ArrayList<>();
        for (int i = 0; i < 12; i++) {
            notes.add(Note.of(randoms.tick(length / 2), length / 4, 40 + i, 90));
        }
        Phrase phrase = Phrase.of("Tide", length, notes);
        Piece first = Piece.empty()
                .withPhrase(phrase)
                .withPart("part-1", part -> part.withChain(Chain.EMPTY).withPhrase("tide"));
        Program before = Program.of(first);
        Map<Integer, Long> open = new HashMap<>();
        List<Integer> ended = new ArrayList<>();
        long[] now = {0};
        LiveCycle cycle = new LiveCycle(
                before,
                () -> now[0],
                Outputs.to((port, event) -> {
                    if (event instanceof harpel.event.NoteStart note) {
                        open.put(note.pitch(), note.tick());
                    } else if (event instanceof harpel.event.NoteEnd end) {
                        open.remove(end.start().pitch());
                        ended.add(end.start().pitch());
                    }
                }),
                Tap.NONE);
        cycle.play(0);
        now[0] = randoms.between(1, 1900) * MS;
        cycle.render(now[0]);
        ended.clear();
        Note touched = randoms.oneOf(phrase.notes());
        Phrase after = phrase.withNotes(
                randoms.oneIn(2)
                        ? phrase.notes().minus(touched.id())
                        : phrase.notes().with(touched.withPitch(100)));
        cycle.update(Program.after(before, first.withPhrase(after)), now[0]);
        cycle.render(now[0]);
        assertThat(ended).allMatch(pitch -> pitch == touched.pitch());
        Laws.EVENTS.add(ended.size() + 1L);
        cycle.stop(now[0]);
        assertThat(open).isEmpty();
    }
}
