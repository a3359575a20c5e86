package harpel.print;

import harpel.advice.Advice;
import harpel.advice.Advisor;
import harpel.chain.Stage;
import harpel.chain.StageAddress;
import harpel.effect.EffectKind;
import harpel.effect.Trait;
import harpel.event.NoteStart;
import harpel.offline.Tail;
import harpel.phrase.Note;
import harpel.phrase.Phrase;
import harpel.piece.Hearing;
import harpel.piece.Part;
import harpel.piece.Piece;
import harpel.piece.Routes;
import harpel.piece.Standing;
import harpel.run.Tap;
import harpel.run.Told;
import harpel.time.Ticks;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.ToIntFunction;
import java.util.function.UnaryOperator;

/**
 * Why nothing is heard of a part: walks its way from the key to the ear and names the first place where notes stop, with the one action that
 * helps. The chain is tried: with what the part plays here or, where only keys would play it, with three notes.
 */
public final class WhyNothing {
    private static final int BARS = 4;
    private static final long TRIED = 2L * Ticks.PER_QUARTER;
    private static final List<Integer> TRIAD = List.of(60, 64, 67);

    private WhyNothing() {}

    /** What the action does. */
    public enum Does {
        NOTHING,
        EDIT,
        PLAY
    }

    /**
     * The answer.
     *
     * @param action what is offered; empty for nothing
     * @param fix what an edit does to the piece
     */
    public record Answer(String text, String action, Does does, UnaryOperator<Piece> fix) {
        private static Answer says(String text) {
            return new Answer(text, "", Does.NOTHING, piece -> piece);
        }

        private static Answer of(Advice advice) {
            return new Answer(advice.text(), advice.action(), Does.EDIT, advice.fix());
        }
    }

    /**
     * How things stand.
     *
     * @param plays whether the transport runs
     * @param tick the place in the piece
     * @param noSound why the built-in sounds cannot be heard; empty where they can
     * @param outputs the outputs there are
     */
    public record Now(boolean plays, long tick, String noSound, List<String> outputs) {}

    /** @throws InterruptedException when the thread is interrupted while the chain is tried */
    public static Answer of(Piece piece, Part part, Now now) throws InterruptedException {
        Optional<Advice> silent = Advisor.silence(piece, part, now.outputs);
        if (silent.isPresent()) {
            return Answer.of(silent.get());
        }
        Standing standing = Standing.of(piece, part, now.tick);
        if (standing.silent()) {
            return notHere(part, standing);
        }
        boolean keysOnly = isKeysOnly(piece, part);
        Optional<Answer> stops = walk(piece, part, keysOnly, now.tick);
        if (stops.isPresent()) {
            return stops.get();
        }
        if (!now.noSound.isEmpty() && part.port().isEmpty()) {
            return Advisor.noSound(part, now.noSound, now.outputs)
                    .map(Answer::of)
                    .orElseGet(() -> Answer.says(now.noSound));
        }
        if (!now.plays && !keysOnly) {
            return new Answer(
                    "Time stands still: what this part plays begins with Play.", "Play", Does.PLAY, one -> one);
        }
        return Answer.says(part.name() + " is on its way: "
                + (keysOnly ? "keys that are played pass its chain" : "it sends notes")
                + " and go to " + (part.port().isEmpty() ? part.sound() : "“" + part.port() + "”") + " on channel "
                + (part.channel() + 1) + ". Look at the volume behind that.");
    }

    private static Answer notHere(Part part, Standing standing) {
        String text = part.name() + " is not heard: " + standing.words() + ".";
        return part.blocks().isEmpty()
                ? Answer.says(text)
                : new Answer(text, "Play loops", Does.EDIT, piece -> piece.withTimeline(false));
    }

    /** Whether nothing would come in if nobody played. */
    private static boolean isKeysOnly(Piece piece, Part part) {
        boolean plays = part.chain().stages().stream()
                .anyMatch(stage -> stage.on() && stage.kind().has(Trait.PLAYS_BY_ITSELF));
        Hearing.Source source = part.hearing().source();
        boolean live = source == Hearing.Source.KEYS || source == Hearing.Source.DEVICE;
        return live
                && part.phrase().isEmpty()
                && part.blocks().stream().allMatch(block -> block.phrase().isEmpty())
                && !plays
                && !Routes.of(piece).isFed(part.id());
    }

    /** Tries the chain: where notes stop in it, or that none come in. */
    private static Optional<Answer> walk(Piece piece, Part part, boolean keysOnly, long tick)
            throws InterruptedException {
        Piece tried = keysOnly ? withTriad(piece, part) : piece;
        long from = tried.timeline()
                ? tried.time().meter().tickOfBar(tried.time().meter().barAt(tick))
                : 0;
        long bar = tried.time().meter().at(from).barTicks();
        Map<String, Integer> left = new HashMap<>();
        Tap counts = told -> {
            if (told instanceof Told.Left one && one.part().equals(part.id()) && one.event() instanceof NoteStart) {
                left.merge(one.place(), 1, Integer::sum);
            }
        };
        Printed printed =
                new PrintOrder(tried, Set.of(part.id()), from, from + BARS * bar, Tail.CUT).print(done -> {}, counts);
        int came = left.getOrDefault(Tap.INPUT, 0);
        Part now = tried.part(part.id()).orElseThrow();
        if (printed.count() > 0) {
            return Optional.empty();
        }
        if (!printed.losses().isEmpty()) {
            return Optional.of(Answer.says(
                    "All notes are lost on the way: " + printed.losses().get(0).shown() + "."));
        }
        ToIntFunction<String> leaves = stage ->
                left.getOrDefault(StageAddress.of(part.id(), List.of(), stage).toString(), 0);
        int before = came;
        for (Stage stage : now.chain().stages()) {
            int after = leaves.applyAsInt(stage.id());
            if (before > 0 && after == 0) {
                return Optional.of(stops(now, stage, before, Advisor.notesStop(now, came, leaves)));
            }
            before = after;
        }
        return Optional.of(Answer.says(
                came == 0
                        ? "Nothing comes in within " + BARS
                                + " bars from here: the phrase has no note there that is on."
                        : came + (came == 1 ? " note comes" : " notes come") + " in, and none leaves the chain."));
    }

    /** With what advice knows of it; else it can be switched off. */
    private static Answer stops(Part part, Stage stage, int came, Optional<Advice> known) {
        if (known.isPresent()) {
            return new Answer(
                    stage.name() + ": " + known.get().text(),
                    known.get().action(),
                    Does.EDIT,
                    known.get().fix());
        }
        return new Answer(
                stage.name() + ": " + (came == 1 ? "1 note comes" : came + " notes come") + " in and none goes on"
                        + (stage.kind().has(Trait.SWALLOWS) ? "; it turns them into something else." : "."),
                "Switch " + stage.name() + " off",
                Does.EDIT,
                piece -> piece.withPart(
                        part.id(),
                        one -> one.withChain(one.chain().withStage(stage.id(), it -> it.with(EffectKind.ON, false)))));
    }

    private static Piece withTriad(Piece piece, Part part) {
        Phrase triad = Phrase.of(
                "Three notes",
                TRIED,
                TRIAD.stream().map(pitch -> Note.of(0, TRIED, pitch, 90)).toList());
        Phrase free = triad.withId(piece.freePhraseId(triad.id()));
        return piece.withTimeline(false).withPhrase(free).withPart(part.id(), one -> one.withPhrase(free.id()));
    }
}
