package harpel.piece;

import harpel.chain.Stage;
import harpel.effect.EffectCatalog;
import harpel.effect.EffectKind;
import harpel.effect.held.Arpeggio;
import harpel.param.RouteType;
import harpel.theory.GeneralMidi;
import harpel.theory.Pitch;
import harpel.time.TimeMap;
import harpel.time.TimeValue;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.function.ToIntFunction;
import java.util.function.UnaryOperator;
import java.util.stream.Collectors;

/**
 * Something that will surprise: what and why, and the one action that helps.
 *
 * @param stage the id of the stage it is about, or empty for the part
 * @param action what the action is called; empty where there is none
 */
public record Advice(String stage, String text, String action, UnaryOperator<Piece> fix) {
    private static final Set<String> PATTERNS = Set.of("arpeggio", "lanes", "polymeter", "pulse", "carom", "echo");
    /** So many notes without any that goes on are no accident. */
    private static final int FEW = 3;

    private static final Set<String> LEAVE_THE_KEY =
            Set.of("harmony", "chord-keys", "transpose", "stray", "echo", "carom");

    private static Advice of(String stage, String text, String action, String part, UnaryOperator<Part> fix) {
        return new Advice(stage, text, action, piece -> piece.withPart(part, fix));
    }

    /**
     * Why a part cannot be heard, or nothing when it can.
     *
     * @param outputs the names of the outputs there are
     */
    public static Optional<Advice> silence(Piece piece, Part part, List<String> outputs) {
        Part.Mix mix = part.mix();
        if (mix.mute()) {
            return Optional.of(of(
                    "",
                    "It is mute.",
                    "Unmute",
                    part.id(),
                    one -> one.withMix(one.mix().withMute(false))));
        }
        if (!piece.isHeard(part)) {
            return Optional.of(new Advice("", "Another part is solo.", "Solo off", Advice::withoutSolo));
        }
        if (mix.level() == 0) {
            return Optional.of(of(
                    "",
                    "Its level is 0 %.",
                    "Level 100 %",
                    part.id(),
                    one -> one.withMix(one.mix().withLevel(100))));
        }
        if (!part.output().isEmpty() && !outputs.contains(part.output())) {
            return Optional.of(of(
                    "",
                    "Its output “" + part.output() + "” is not connected.",
                    "Use the built-in sounds",
                    part.id(),
                    one -> one.withOutput("")));
        }
        Part.Input input = part.input();
        boolean heard = input.ofPart() && piece.part(input.from()).isPresent();
        boolean hearsNothing = input.source() == Part.Input.Source.NONE || input.ofPart() && !heard;
        boolean plays = part.chain().stages().stream().anyMatch(Advice::playsByItself);
        if (hearsNothing
                && part.phrase().isEmpty()
                && !plays
                && !Routes.of(piece).isFed(part.id())) {
            return Optional.of(of(
                    "",
                    input.ofPart()
                            ? "It hears “" + input.from() + "”, and there is no such part."
                            : "It hears nothing.",
                    "Hear the keys",
                    part.id(),
                    one -> one.withInput(Part.Input.KEYS)));
        }
        return Optional.empty();
    }

    /** Why the built-in sounds are not heard on a machine without a sound device; with the first MIDI output as the way out. */
    public static Optional<Advice> noSound(Part part, String noSound, List<String> outputs) {
        Optional<String> output =
                outputs.stream().filter(name -> !name.isEmpty()).findFirst();
        if (noSound.isEmpty() || !part.output().isEmpty() || output.isEmpty()) {
            return Optional.empty();
        }
        return Optional.of(of(
                "",
                "No sound device is connected.",
                "Send to " + output.get(),
                part.id(),
                one -> one.withOutput(output.get())));
    }

    /**
     * The stage at which the notes of a part stop, if they do.
     *
     * @param came how many notes lately came in
     * @param left how many lately left the stage of that id
     */
    public static Optional<Advice> notesStop(Part part, int came, ToIntFunction<String> left) {
        int before = came;
        for (Stage stage : part.chain().stages()) {
            int after = left.applyAsInt(stage.id());
            if (before >= FEW && after == 0 && stage.on() && !leads(stage)) {
                return Optional.of(stopped(part, stage, before));
            }
            before = after;
        }
        return Optional.empty();
    }

    /** Whether what comes in may well go elsewhere than on. */
    private static boolean leads(Stage stage) {
        return stage.kind().changesMessages(stage.params())
                || stage.kind().branches()
                || Routes.routes(stage.params()).stream().anyMatch(RouteType.Route::leaves);
    }

    private static Advice stopped(Part part, Stage stage, int came) {
        if (stage.kind().id().equals("arpeggio")) {
            return ofStage(
                    stage,
                    "Notes stop here: " + came + " came and were let go before a step.",
                    "Keep them until the next chord",
                    part,
                    one -> one.with(Arpeggio.LATCH, Arpeggio.LatchMode.REPLACE));
        }
        return ofStage(
                stage,
                "Notes stop here: " + came + " came in, none went out.",
                "Switch it off",
                part,
                one -> one.with(EffectKind.ON, false));
    }

    /**
     * How many of the pitches that lately sounded leave the key.
     *
     * @param pitches 0–127
     */
    public static Optional<Advice> leavesTheKey(Piece piece, Part part, Set<Integer> pitches) {
        List<Integer> outside = new TreeSet<>(pitches)
                .stream().filter(pitch -> !piece.key().contains(pitch)).toList();
        List<Stage> stages = part.chain().stages().stream().filter(Stage::on).toList();
        boolean fitted =
                !stages.isEmpty() && stages.get(stages.size() - 1).kind().id().equals("scale-fit");
        if (outside.isEmpty() || fitted || part.channel() == GeneralMidi.PERCUSSION_CHANNEL) {
            return Optional.empty();
        }
        String names = outside.stream().limit(4).map(Pitch::shown).collect(Collectors.joining(" "));
        boolean one = outside.size() == 1;
        EffectKind fit = EffectCatalog.of("scale-fit");
        return Optional.of(of(
                "",
                outside.size() + " of " + pitches.size() + (one ? " pitches leaves" : " pitches leave") + " the key: "
                        + names + (outside.size() > 4 ? " …" : ""),
                "Fit them at the end",
                part.id(),
                before -> before.withChain(
                        before.chain().plus(before.chain().stages().size(), fit))));
    }

    private static boolean playsByItself(Stage stage) {
        return stage.on()
                && Set.of("pulse", "carom", "polymeter", "script")
                        .contains(stage.kind().id());
    }

    private static Piece withoutSolo(Piece piece) {
        return piece.withParts(piece.parts().stream()
                .map(part -> part.withMix(part.mix().withSolo(false)))
                .toList());
    }

    /** What will surprise in a part's chain, stage by stage. */
    public static List<Advice> chain(Piece piece, Part part) {
        List<Advice> advice = new ArrayList<>();
        List<Stage> stages = part.chain().stages();
        for (int i = 0; i < stages.size(); i++) {
            Stage stage = stages.get(i);
            if (!stage.on()) {
                continue;
            }
            if (stage.kind().id().equals("arpeggio")) {
                restart(part, stages, i).ifPresent(advice::add);
                unevenChords(piece, part, stages, i).ifPresent(advice::add);
            }
            if (stage.kind().id().equals("scale-fit")) {
                keyTooEarly(part, stages, i).ifPresent(advice::add);
            }
            deadSend(piece, part, stage).ifPresent(advice::add);
        }
        return advice;
    }

    /** A pattern fed by a pattern begins anew with each of its notes. */
    private static Optional<Advice> restart(Part part, List<Stage> stages, int place) {
        Stage stage = stages.get(place);
        Arpeggio.StartOver startOver = stage.params().get(Arpeggio.START_OVER);
        boolean restarts = startOver == Arpeggio.StartOver.EACH_NOTE || startOver == Arpeggio.StartOver.EACH_CHORD;
        Optional<Stage> feeding = stages.subList(0, place).stream()
                .filter(one -> one.on()
                        && PATTERNS.contains(one.kind().id())
                        && !one.kind().id().equals("echo"))
                .findFirst();
        if (!restarts || feeding.isEmpty()) {
            return Optional.empty();
        }
        return Optional.of(ofStage(
                stage,
                "It is fed by " + feeding.get().name() + " and starts over with its notes, so that "
                        + neverReached(stage, feeding.get()),
                "Start over never",
                part,
                one -> one.with(Arpeggio.START_OVER, Arpeggio.StartOver.NEVER)));
    }

    /** "steps 3–8 are never reached", where the paces of both say so. */
    private static String neverReached(Stage stage, Stage feeding) {
        int steps = stage.params().get(Arpeggio.PATTERN).size();
        Optional<TimeValue> between = feeding.params()
                .spec()
                .byId("pace")
                .map(param -> feeding.params().get(param))
                .filter(TimeValue.class::isInstance)
                .map(TimeValue.class::cast);
        if (between.isPresent()) {
            double fed = between.get().ticksAt(0, TimeMap.DEFAULT);
            double own = stage.params().get(Arpeggio.PACE).ticksAt(0, TimeMap.DEFAULT);
            int reached = (int) Math.max(1, Math.ceil(fed / own - 1e-9));
            if (reached < steps) {
                return (reached + 1 == steps
                                ? "step " + steps + " is"
                                : "steps " + (reached + 1) + "–" + steps + " are")
                        + " never reached.";
            }
        }
        return "it never gets past its beginning.";
    }

    /** Chords of unequal size shift the rhythm of an order. */
    private static Optional<Advice> unevenChords(Piece piece, Part part, List<Stage> stages, int place) {
        Stage stage = stages.get(place);
        boolean asPlayed = stages.subList(0, place).stream().noneMatch(Stage::on);
        Set<Integer> sizes = piece.phrase(part.phrase()).map(Advice::chordSizes).orElse(Set.of());
        if (!asPlayed || sizes.size() < 2 || stage.params().get(Arpeggio.KEEP_EVEN) > 0) {
            return Optional.empty();
        }
        int most = sizes.stream().max(Integer::compare).orElseThrow();
        String list = String.join(" and ", sizes.stream().map(String::valueOf).toList());
        return Optional.of(ofStage(
                stage,
                "Chords of " + list + " notes shift the pattern.",
                "Keep even with " + most + " slots",
                part,
                one -> one.with(Arpeggio.KEEP_EVEN, Math.min(16, most))));
    }

    private static Set<Integer> chordSizes(Phrase phrase) {
        Map<Long, Integer> atTick = new TreeMap<>();
        phrase.notes().forEach(note -> atTick.merge(note.tick(), 1, Integer::sum));
        Set<Integer> sizes = new TreeSet<>(atTick.values());
        sizes.remove(1);
        return sizes;
    }

    /** A key set early does not hold for what is made after it. */
    private static Optional<Advice> keyTooEarly(Part part, List<Stage> stages, int place) {
        List<Stage> after = stages.subList(place + 1, stages.size());
        Optional<Stage> leaving = after.stream()
                .filter(one -> one.on()
                        && LEAVE_THE_KEY.contains(one.kind().id())
                        && !one.kind().id().equals("echo"))
                .findFirst();
        boolean again =
                after.stream().anyMatch(one -> one.on() && one.kind().id().equals("scale-fit"));
        if (leaving.isEmpty() || again) {
            return Optional.empty();
        }
        Stage stage = stages.get(place);
        return Optional.of(of(
                stage.id(),
                "What " + leaving.get().name() + " makes after it can leave the key.",
                "Move it to the end",
                part.id(),
                one -> one.withChain(
                        one.chain().moved(stage.id(), one.chain().stages().size() - 1))));
    }

    private static Optional<Advice> deadSend(Piece piece, Part part, Stage stage) {
        for (RouteType.Route route : Routes.routes(stage.params())) {
            boolean toPart = route.leaves() && !route.to().startsWith(RouteType.OUTPUT);
            if (toPart && piece.part(route.to()).isEmpty()) {
                return Optional.of(ofStage(
                        stage,
                        "It sends to “" + route.to() + "”, and there is no such part.",
                        "Switch it off",
                        part,
                        one -> one.with(EffectKind.ON, false)));
            }
        }
        return Optional.empty();
    }

    private static Advice ofStage(Stage stage, String text, String action, Part part, UnaryOperator<Stage> fix) {
        return of(
                stage.id(),
                text,
                action,
                part.id(),
                one -> one.withChain(one.chain().withStage(stage.id(), fix)));
    }
}
