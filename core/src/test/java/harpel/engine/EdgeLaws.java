package harpel.engine;

import static org.assertj.core.api.Assertions.assertThat;

import harpel.clock.ClockOut;
import harpel.effect.EffectKind;
import harpel.piece.Part;
import harpel.piece.Piece;
import harpel.plan.Program;
import harpel.port.InputPort;
import harpel.port.OutputPort;
import harpel.port.Ports;
import harpel.run.Tap;
import harpel.testkit.Laws;
import harpel.testkit.Laws.World;
import harpel.testkit.Randoms;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;

/**
 * One law over the whole edge, from the way in to the port: whatever overflows, waits, fails, vanishes or comes at the wrong moment, every
 * start that reached a port is ended there, ends are never lost, a key beside a flood is not late, and Silence is at the port within one
 * message. The engine's turns are taken as {@link LiveEngine} takes them, on a clock of the law's own.
 */
final class EdgeLaws {
    private static final long MS = 1_000_000;
    private static final long KEY_LATE = 2 * MS;
    private static final List<String> OUTS = List.of("", "Pier", "Quay");
    private static final List<String> INS = List.of("Hand", "Flood", "Partner");

    /** A port that may be slow, fail and vanish, and knows what sounds there. */
    private final class Witness implements OutputPort {
        private final String name;
        private final Set<Integer> open = new HashSet<>();
        private final Map<Integer, Integer> perhaps = new HashMap<>();
        private long messageNanos;
        private boolean failing;
        private boolean gone;
        /** How many messages came since Silence was asked for; below 0 while it was not. */
        private int sinceSilence = -1;

        Witness(String name) {
            this.name = name;
        }

        @Override
        public String name() {
            return name;
        }

        @Override
        public void send(byte[] message, long dueNanos) {
            Laws.EVENTS.increment();
            // A slow one takes its time, in which the world goes on.
            now += messageNanos;
            int voice = (message[0] & 0x0F) << 7 | message[1];
            int kind = message[0] & 0xF0;
            if (failing || gone) {
                if (kind == 0x90) {
                    perhaps.merge(voice, 1, Integer::sum);
                }
                throw new IllegalStateException("unplugged");
            }
            if (kind == 0x90) {
                assertThat(open.add(voice))
                        .as("%s: started twice: %d", name, voice)
                        .isTrue();
                assertThat(sinceSilence).as("%s: a start behind Silence", name).isLessThan(0);
                if (voice == probe) {
                    heard = now;
                }
            } else if (kind == 0x80) {
                assertThat(open.remove(voice) || perhaps.remove(voice) != null)
                        .as("%s: ended without a start: %d", name, voice)
                        .isTrue();
            }
            if (sinceSilence >= 0 && (kind == 0x80 || kind == 0xB0 && message[1] >= 120)) {
                sinceSilence = -1;
            } else if (sinceSilence >= 0) {
                assertThat(++sinceSilence)
                        .as("%s: messages before Silence", name)
                        .isLessThanOrEqualTo(1);
            }
        }

        @Override
        public void reopen() {
            if (failing || gone) {
                throw new IllegalStateException("unplugged");
            }
        }

        @Override
        public void close() {
            if (!failing && !gone) {
                assertThat(open).as("%s: open when it closes", name).isEmpty();
            }
        }
    }

    private final Randoms randoms;
    private final Ports outputs;
    private final LiveCycle cycle;
    private final Map<String, Witness> witnesses = new TreeMap<>();
    private final Map<String, InputPort> inputs = new TreeMap<>();
    private final List<int[]> held = new ArrayList<>();
    private long now;
    private int clocks;
    private int probe = -1;
    private long heard;

    private EdgeLaws(EffectKind kind, long seed) {
        World world = new World(kind, seed);
        randoms = world.randoms;
        outputs = new Ports(() -> now, false);
        OUTS.forEach(this::plugIn);
        INS.forEach(name -> inputs.put(name, new InputPort(name, () -> {})));
        Piece piece = world.piece(
                        Part.of("Lead", world.chain).withPhrase("tide"),
                        Part.of("Second", randoms.chain(1)).withPort("Pier"))
                .withPhrases(List.of(randoms.phrase("Tide")));
        cycle = new LiveCycle(Program.of(piece), () -> now, outputs, Tap.NONE);
        cycle.keysTo("lead");
        cycle.followClock("Partner", 0);
    }

    private void plugIn(String name) {
        Witness witness = new Witness(name);
        witnesses.put(name, witness);
        outputs.add(name, witness);
    }

    /** Whatever happens at the edge, nothing is left sounding there. */
    static void nothingHangsAtTheEdge(EffectKind kind, long seed) {
        EdgeLaws law = new EdgeLaws(kind, seed);
        for (int i = 0; i < 80; i++) {
            // Several things in one turn of the engine, too.
            for (int k = law.randoms.between(1, 4); k > 0; k--) {
                law.act();
            }
            law.turn();
            if (law.randoms.oneIn(2)) {
                law.pass(law.randoms.between(1, 60) * MS);
            }
        }
        law.end();
    }

    private void end() {
        for (int[] key : held) {
            inputs.get(INS.get(key[0])).offer(0x80 | key[1], key[2], 64, now);
        }
        witnesses.values().forEach(one -> {
            one.failing = false;
            one.messageNanos = 0;
        });
        turn();
        now += 3_000 * MS;
        turn();
        cycle.stop(now);
        pass(200 * MS);
        for (Part part : cycle.piece().parts()) {
            assertThat(cycle.openInputs(part.id()))
                    .as("held at the input of %s with no key down", part.id())
                    .isEmpty();
        }
        cycle.silence(now);
        now += 3_000 * MS;
        turn();
        witnesses.forEach((name, one) -> {
            if (outputs.names().contains(name) && !one.gone) {
                assertThat(one.open).as("open at “%s”", name).isEmpty();
            }
        });
        outputs.close();
    }

    /** A turn as the engine takes it: what came, in the order in which it came, then the notes. */
    private void turn() {
        cycle.tellOpened();
        for (InputPort first = earliest(); first != null; first = earliest()) {
            InputPort.Played played = first.poll();
            if (played != null) {
                cycle.take(first.name(), played);
            }
        }
        cycle.render(now);
        outputs.pump();
    }

    private InputPort earliest() {
        InputPort first = null;
        for (InputPort port : inputs.values()) {
            if (port.nextNanos() < (first == null ? Long.MAX_VALUE : first.nextNanos())) {
                first = port;
            }
        }
        return first;
    }

    private void pass(long nanos) {
        long until = now + nanos;
        while (cycle.nextNanos() <= until) {
            now = Math.max(now + 1, cycle.nextNanos());
            turn();
        }
        now = Math.max(now, until);
        turn();
    }

    private void act() {
        Witness out = witnesses.get(randoms.oneOf(OUTS));
        switch (randoms.between(0, 17)) {
            case 0, 1, 2, 3 -> key();
            case 4, 5 -> letGo();
            case 6 -> flood();
            case 7 -> keyBesideAFlood();
            case 8 -> outputs.delay(out.name, randoms.between(0, 250));
            case 9 -> out.messageNanos = randoms.oneIn(2) ? 0 : randoms.between(1, 960) * 1_000;
            case 10 -> out.failing = randoms.oneIn(2);
            case 11 -> comesAndGoes(out);
            case 12, 13 -> clock();
            case 14 -> realTime();
            case 15 -> pulledOut(randoms.oneOf(INS));
            case 16 -> silence();
            default -> {
                if (randoms.oneIn(2)) {
                    cycle.play(now);
                } else {
                    cycle.stop(now);
                }
            }
        }
    }

    private void key() {
        int[] key = {randoms.between(0, 1), randoms.between(0, 1), randoms.between(55, 67)};
        held.add(key);
        inputs.get(INS.get(key[0])).offer(0x90 | key[1], key[2], randoms.between(1, 127), now);
        inputs.get(INS.get(key[0])).offer(0xB0 | key[1], 64, randoms.oneIn(3) ? 127 : 0, now);
    }

    private void letGo() {
        if (!held.isEmpty()) {
            int[] key = held.remove(randoms.between(0, held.size() - 1));
            inputs.get(INS.get(key[0])).offer(0x80 | key[1], key[2], 64, now);
        }
    }

    /** More than there is room for: controllers, and now and then notes. */
    private void flood() {
        InputPort port = inputs.get("Flood");
        int count = randoms.between(500, 6_000);
        boolean notes = randoms.oneIn(6);
        for (int i = 0; i < count; i++) {
            port.offer(0xB0, 1 + i % 3, i % 128, now);
            if (notes && i % 40 == 0) {
                port.offer(0x90, i / 40 % 128, 90, now);
                port.offer(0x80, i / 40 % 128, 64, now);
            }
        }
    }

    /** 100,000 messages a second beside a key: in the engine's time it is there with the turn that takes it. */
    private void keyBesideAFlood() {
        InputPort flood = inputs.get("Flood");
        for (int i = 0; i < 200; i++) {
            flood.offer(0xB0, 1, i % 128, now + i * 10_000L);
        }
        now += 2 * MS;
        Witness out = witnesses.get("");
        boolean undisturbed = !out.failing && !out.gone && out.messageNanos == 0;
        Piece piece = cycle.piece();
        boolean plain = piece.part("lead").orElseThrow().chain().stages().isEmpty();
        if (undisturbed && plain) {
            int pitch = 100;
            probe = pitch;
            heard = -1;
            inputs.get("Hand").offer(0x90, pitch, 90, now);
            long pressed = now;
            turn();
            if (heard >= 0) {
                assertThat(heard - pressed).isLessThanOrEqualTo(KEY_LATE);
            }
            inputs.get("Hand").offer(0x80, pitch, 64, now);
            probe = -1;
        }
    }

    private void comesAndGoes(Witness out) {
        if (outputs.names().contains(out.name)) {
            // Pulled out: nobody can end what sounds on it. Or taken out of use: then it is ended.
            out.gone = randoms.oneIn(2);
            outputs.remove(out.name);
        } else {
            plugIn(out.name);
        }
    }

    private void clock() {
        InputPort partner = inputs.get("Partner");
        for (int i = randoms.between(1, 6); i > 0; i--) {
            partner.offer(ClockOut.CLOCK, 0, 0, now);
            clocks++;
        }
    }

    /** A key and what moves time, taken by one turn of the engine. */
    private void realTime() {
        InputPort partner = inputs.get("Partner");
        if (randoms.oneIn(2)) {
            key();
        }
        int status = randoms.oneOf(List.of(ClockOut.START, ClockOut.CONTINUE, ClockOut.STOP, ClockOut.POSITION));
        partner.offer(status, randoms.between(0, 127), 0, now);
        if (randoms.oneIn(2)) {
            key();
        }
    }

    private void pulledOut(String name) {
        InputPort port = inputs.get(name);
        port.shut(true);
        key();
        turn();
        cycle.inputGone(name, now);
        if (randoms.oneIn(2)) {
            port.shut(false);
        } else {
            inputs.put(name, new InputPort(name, () -> {}));
        }
    }

    private void silence() {
        Set<String> away = outputs.problems().keySet();
        witnesses.values().forEach(one -> {
            if (outputs.names().contains(one.name) && !away.contains(one.name) && !one.failing && !one.gone) {
                one.sinceSilence = 0;
            }
        });
        for (int i = 0; i < 50; i++) {
            outputs.sendPlain("", new byte[] {(byte) 0xF8}, now);
        }
        cycle.silence(now);
        outputs.pump();
        witnesses.values().forEach(one -> {
            assertThat(one.sinceSilence).as("Silence came to “%s”", one.name).isEqualTo(-1);
            if (outputs.names().contains(one.name) && !away.contains(one.name) && !one.failing && !one.gone) {
                assertThat(one.open).as("open at “%s” behind Silence", one.name).isEmpty();
            }
        });
    }
}
