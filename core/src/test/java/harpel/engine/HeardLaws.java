package harpel.engine;

import static org.assertj.core.api.Assertions.assertThat;

import harpel.capture.Heard;
import harpel.effect.EffectKind;
import harpel.event.NoteEnd;
import harpel.event.NoteStart;
import harpel.piece.Part;
import harpel.piece.Piece;
import harpel.plan.Program;
import harpel.port.InputPort;
import harpel.run.Tap;
import harpel.testkit.Laws;
import harpel.testkit.Laws.World;
import harpel.testkit.Outputs;
import harpel.testkit.Randoms;
import harpel.time.TempoMap;
import harpel.time.TimeMap;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/** The promise of the memory: what is kept equals what the output got, whatever is done meanwhile. */
final class HeardLaws {
    private static final long MS = 1_000_000;

    private HeardLaws() {}

    static void whatIsKeptIsWhatTheOutputGot(EffectKind kind, long seed) {
        World world = new World(kind, seed);
        Randoms randoms = world.randoms;
        Piece piece = world.piece(Part.of("Lead", world.chain).withPort("Own").withPhrase("tide"))
                .withPhrases(List.of(randoms.phrase("Tide")));
        Heard heard = new Heard();
        List<String> got = new ArrayList<>();
        Map<NoteStart, Long> begun = new HashMap<>();
        Program program = Program.of(piece);
        long[] now = {0};
        LiveCycle cycle = new LiveCycle(
                program,
                () -> now[0],
                Outputs.to(
                        (port, event) -> {
                            long tick = heard.onAxis(event.tick());
                            if (!port.equals("Own")) {
                                // Sent away by a stage, to an output without a part.
                                return;
                            }
                            if (event instanceof NoteStart note) {
                                begun.put(note, tick);
                            } else if (event instanceof NoteEnd end && begun.containsKey(end.start())) {
                                long start = begun.remove(end.start());
                                got.add(start + "+" + Math.max(1, tick - start) + " "
                                        + end.start().pitch() + " "
                                        + end.start().velocity() + " " + end.releaseVelocity());
                            }
                        },
                        () -> {}),
                heard);
        int key = 0;
        for (int i = 0; i < 60; i++) {
            switch (randoms.between(0, 9)) {
                case 0 -> cycle.play(now[0]);
                case 1 -> cycle.stop(now[0]);
                case 2 -> cycle.silence(now[0]);
                case 3 -> cycle.locate(randoms.tick(8 * 61_440), now[0]);
                case 4 -> {
                    double bpm = randoms.between(60, 200);
                    piece = piece.withTime(
                            new TimeMap(TempoMap.of(bpm), piece.time().meter()));
                    program = Program.after(program, piece);
                    cycle.update(program, now[0]);
                }
                case 5 -> {
                    piece = piece.withPart("lead", part -> part.withChain(randoms.chain(1)));
                    program = Program.after(program, piece);
                    cycle.update(program, now[0]);
                }
                default -> {
                    key = randoms.between(40, 80);
                    boolean down = randoms.oneIn(2);
                    cycle.take(
                            InputPort.KEYS,
                            new InputPort.Played(down ? 0x90 : 0x80, key, randoms.between(1, 127), now[0]));
                }
            }
            now[0] += randoms.between(0, 300) * MS;
            cycle.render(now[0]);
        }
        cycle.locate(0, now[0]);
        List<String> kept = new ArrayList<>();
        heard.take("lead", Tap.SOUND, 0, Long.MAX_VALUE >> 1)
                .notes()
                .forEach(note -> kept.add(note.tick() + "+" + note.length() + " " + note.pitch() + " " + note.velocity()
                        + " " + note.release()));
        assertThat(kept).containsExactlyInAnyOrderElementsOf(got);
        Laws.EVENTS.add(kept.size() + 1L);
    }
}
