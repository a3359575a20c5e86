package harpel.engine;

import static org.assertj.core.api.Assertions.assertThat;

import harpel.effect.EffectKind;
import harpel.event.NoteStart;
import harpel.piece.Lane;
import harpel.piece.Part;
import harpel.piece.Piece;
import harpel.piece.perform.Lever;
import harpel.piece.perform.Moment;
import harpel.piece.perform.Pad;
import harpel.piece.perform.Pad.Does;
import harpel.piece.perform.When;
import harpel.plan.Program;
import harpel.port.InputPort;
import harpel.run.Tap;
import harpel.testkit.Laws;
import harpel.testkit.Laws.World;
import harpel.testkit.Outputs;
import harpel.testkit.Randoms;
import java.util.HashSet;
import java.util.List;
import java.util.Set;

/** The promises about what is done on stage: nothing hangs, whatever is pressed and whenever it is done. */
final class StageLaws {
    private StageLaws() {}

    /** Moments, pads, gliding levers, struck chords, nudges, stops and jumps leave no note open. */
    static void performed(EffectKind kind, long seed, int deeds) {
        World world = new World(kind, seed);
        Randoms randoms = world.randoms;
        Piece piece = world.piece(
                        randoms.blended(Part.of("Lead", world.chain).withPhrase("tide")),
                        Part.of("Second", randoms.chain(1)).withPhrase("crab"))
                .withPhrases(List.of(randoms.phrase("Tide"), randoms.phrase("Crab")))
                .withLevers(List.of(Lever.of("Tide", randoms.between(0, 100))));
        Moment first = Moment.of("First", piece);
        Program program = Program.of(piece);
        Set<NoteStart> open = new HashSet<>();
        long[] now = {0};
        LiveCycle cycle = new LiveCycle(program, () -> now[0], Outputs.counting(open), Tap.NONE);
        cycle.play(0);
        for (int i = 0; i < deeds; i++) {
            long tick = cycle.status(now[0]).anchorTick() + randoms.tick(200_000);
            switch (randoms.between(0, 9)) {
                case 0, 1, 2 -> {
                    piece = randoms.oneIn(3)
                            ? first.withGlide(randoms.between(0, 4)).on(piece)
                            : pad(randoms, piece).pressed(piece);
                    program = Program.after(program, piece);
                    cycle.updateAt(tick, program, randoms.oneIn(2) ? 0 : randoms.tick(60_000));
                }
                case 3 -> {
                    piece = new Lane.OfLever("Tide").withBase(piece, (double) randoms.between(0, 100));
                    program = Program.after(program, piece);
                    cycle.update(program, now[0]);
                }
                case 4 -> cycle.strikeAt(tick, InputPort.toPart("lead"), List.of(60, 64, 67), 90);
                case 5 -> cycle.strikeAt(tick, InputPort.toPart("lead"), List.of(60, 64, 67), 0);
                case 6 ->
                    cycle.actAt(
                            tick, "lead", "lead/" + world.chain.stages().get(0).id());
                case 7 -> cycle.nudge(randoms.between(-30, 30) * 1_000_000L);
                case 8 -> {
                    if (randoms.oneIn(4)) {
                        cycle.stop(now[0]);
                    }
                    cycle.play(now[0]);
                }
                default -> {
                    if (randoms.oneIn(4)) {
                        cycle.locate(randoms.tick(300_000), now[0]);
                    }
                }
            }
            now[0] += randoms.between(0, 60) * 1_000_000L;
            cycle.render(now[0]);
        }
        cycle.stop(now[0]);
        cycle.locate(0, now[0]);
        assertThat(open).isEmpty();
        Laws.EVENTS.add(deeds);
    }

    private static Pad pad(Randoms randoms, Piece piece) {
        Does does =
                randoms.oneOf(List.of(Does.MUTE, Does.SOLO, Does.CHAIN, Does.CHAIN_OFF, Does.STAGE, Does.VARIATION));
        Part part = randoms.oneOf(piece.parts());
        String what = part.chain().stages().isEmpty()
                ? part.id() + "/none"
                : part.id() + "/" + part.chain().stages().get(0).id();
        return Pad.of(0, does, part.id(), what, When.BAR);
    }
}
