package harpel.app.line;

import harpel.app.chain.EffectMenu;
import harpel.app.desk.PhraseDesk;
import harpel.app.document.Document;
import harpel.app.document.Selection;
import harpel.app.document.TypedValue;
import harpel.app.look.Look;
import harpel.app.look.Look.View;
import harpel.app.transport.Sounds;
import harpel.chain.Branch;
import harpel.chain.Chain;
import harpel.chain.Stage;
import harpel.chain.StageAddress;
import harpel.effect.EffectCatalog;
import harpel.effect.EffectKind;
import harpel.param.Param;
import harpel.param.ParamSet;
import harpel.phrase.Phrase;
import harpel.piece.Part;
import harpel.piece.Piece;
import harpel.piece.PieceEdit;
import harpel.piece.perform.Lever;
import harpel.theory.Words;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.function.BiConsumer;
import java.util.function.Function;
import java.util.function.Supplier;
import java.util.function.UnaryOperator;

/** All that can be done in the window: its actions, and what this piece has: parts, stages, values, phrases, levers, sounds, effects to add. */
public final class Doables {
    private static final int MOST = 60;
    private static final int MOST_SOUNDS = 12;

    private final Document document;
    private final Selection selection;
    private final Look look;
    private final PhraseDesk desk;
    private final Sounds sounds;
    private final Supplier<List<Doable>> actions;
    private final BiConsumer<StageAddress, String> focus;

    /**
     * Finds what can be done.
     *
     * @param actions those of the window
     * @param focus gives the keyboard to a control of a stage, by its id
     */
    public Doables(
            Document document,
            Selection selection,
            Look look,
            PhraseDesk desk,
            Sounds sounds,
            Supplier<List<Doable>> actions,
            BiConsumer<StageAddress, String> focus) {
        this.document = document;
        this.selection = selection;
        this.look = look;
        this.desk = desk;
        this.sounds = sounds;
        this.actions = actions;
        this.focus = focus;
    }

    /** What the typed words mean: values to set first, then what begins with them, then what has them anywhere. */
    public List<Doable> found(String typed) {
        List<Doable> values = values(typed);
        List<Doable> all =
                new ArrayList<>(values.stream().filter(one -> one.run() != null).toList());
        List<Doable> rest = new ArrayList<>(actions.get());
        parts(rest);
        stages(rest);
        phrases(rest);
        rest.removeIf(one -> !Words.finds(typed, one.words()));
        String begin = typed.strip().toLowerCase(Locale.ROOT);
        rest.sort(Comparator.comparing(
                one -> !one.words().toLowerCase(Locale.ROOT).startsWith(begin)));
        all.addAll(rest);
        // What is no value may have meant something else.
        values.stream().filter(one -> one.run() == null).forEach(all::add);
        if (!typed.isBlank()) {
            effects(typed, all);
            sounds(typed, all);
        }
        return all.size() > MOST ? List.copyOf(all.subList(0, MOST)) : all;
    }

    private Piece piece() {
        return document.piece().get();
    }

    private void see(View view) {
        if (look.view().get() != view) {
            look.view().set(view);
        }
    }

    // What this piece has

    private void parts(List<Doable> into) {
        for (Part part : piece().parts()) {
            String id = part.id();
            into.add(new Doable("Part " + part.name(), "shows its chain", () -> {
                see(View.CHAIN);
                selection.partId().set(id);
            }));
            boolean mute = part.mix().mute();
            into.add(new Doable(
                    (mute ? "Unmute " : "Mute ") + part.name(),
                    "",
                    () -> edit(
                            "Mute",
                            piece -> piece.withPart(
                                    id, one -> one.withMix(one.mix().withMute(!mute))))));
            boolean solo = part.mix().solo();
            into.add(new Doable(
                    (solo ? "No longer solo: " : "Solo ") + part.name(),
                    "",
                    () -> edit(
                            "Solo",
                            piece -> piece.withPart(
                                    id, one -> one.withMix(one.mix().withSolo(!solo))))));
        }
    }

    private void edit(String label, UnaryOperator<Piece> change) {
        document.apply(PieceEdit.of(label, change));
    }

    private void stages(List<Doable> into) {
        for (Part part : piece().parts()) {
            walk(
                    part.id(),
                    List.of(),
                    part.chain(),
                    (address, stage) -> into.add(new Doable(
                            "Stage " + stage.name() + " of " + part.name(),
                            "shows its controls",
                            () -> select(address))));
        }
    }

    private void select(StageAddress address) {
        see(View.CHAIN);
        selection.partId().set(address.part());
        selection.selected().set(address);
    }

    private static void walk(
            String part, List<StageAddress.Step> way, Chain chain, BiConsumer<StageAddress, Stage> visit) {
        for (Stage stage : chain.stages()) {
            StageAddress address = StageAddress.of(part, way, stage.id());
            visit.accept(address, stage);
            int number = 0;
            for (Branch branch : stage.branches()) {
                walk(part, address.branchWay(++number), branch.chain(), visit);
            }
        }
    }

    private void phrases(List<Doable> into) {
        for (Phrase phrase : piece().phrases()) {
            into.add(new Doable("Phrase " + phrase.name(), "opens it", () -> {
                see(View.PHRASE);
                desk.show(phrase.id());
            }));
            Part part = selection.part();
            if (!part.phrase().equals(phrase.id())) {
                into.add(new Doable(
                        part.name() + " hears phrase " + phrase.name(),
                        "",
                        () -> edit(
                                "Choose phrase",
                                piece -> piece.withPart(part.id(), one -> one.withPhrase(phrase.id())))));
            }
        }
    }

    private void effects(String typed, List<Doable> into) {
        String name = typed.strip().replaceFirst("(?i)^add\\b", "");
        for (EffectKind kind : EffectCatalog.found(name)) {
            into.add(new Doable("Add " + kind.words().label(), kind.words().does(), () -> {
                see(View.CHAIN);
                EffectMenu.addBehindSelected(selection, kind);
            }));
        }
    }

    private void sounds(String typed, List<Doable> into) {
        Part part = selection.part();
        String name = typed.strip().replaceFirst("(?i)^sound\\b", "").strip();
        sounds.found(name).stream()
                .limit(MOST_SOUNDS)
                .forEach(sound -> into.add(new Doable(
                        "Sound " + sound.name(),
                        "for " + part.name() + " · " + sound.family(),
                        () -> sounds.choose(part.id(), sound.name(), ""))));
    }

    // Values

    /** "gate 60": every split of the words into a name and a value that is one. */
    private List<Doable> values(String typed) {
        List<Doable> all = new ArrayList<>();
        List<String> words = Arrays.stream(typed.strip().split("\\s+"))
                .filter(word -> !word.isEmpty())
                .toList();
        for (int names = 1; names <= words.size(); names++) {
            String name = String.join(" ", words.subList(0, names));
            String value = String.join(" ", words.subList(names, words.size()));
            ofPiece(name, value, all);
            ofStages(name, value, all);
        }
        return all;
    }

    private void ofPiece(String name, String value, List<Doable> into) {
        Piece now = piece();
        Part part = selection.part();
        ofPiece(
                "Tempo",
                String.valueOf(Math.round(now.time().tempo().bpmAt(0) * 10) / 10.0),
                name,
                value,
                into,
                TypedValue::tempo);
        ofPiece("Meter", now.time().meter().at(0).shown(), name, value, into, TypedValue::meter);
        ofPiece("Key", now.key().name(), name, value, into, TypedValue::key);
        ofPiece("Variation", String.valueOf(now.variation()), name, value, into, TypedValue::variation);
        ofPiece("Level of " + part.name(), part.mix().level() + " %", name, value, into, text -> {
            int level = (int) TypedValue.percent("level", text);
            return piece ->
                    piece.withPart(part.id(), one -> one.withMix(one.mix().withLevel(level)));
        });
        List<Lever> levers = now.levers();
        for (int i = 0; i < levers.size(); i++) {
            int place = i;
            Lever lever = levers.get(i);
            ofPiece("Lever " + lever.name(), Math.round(lever.value()) + " %", name, value, into, text -> {
                double to = TypedValue.percent("lever", text);
                return piece -> {
                    List<Lever> changed = new ArrayList<>(piece.levers());
                    changed.set(place, changed.get(place).withValue(to));
                    return piece.withLevers(changed);
                };
            });
        }
    }

    private void ofPiece(
            String what,
            String now,
            String name,
            String value,
            List<Doable> into,
            Function<String, UnaryOperator<Piece>> change) {
        if (!Words.finds(name, what) || !Words.finds(name.split(" ")[0], what.split(" ")[0])) {
            return;
        }
        if (value.isEmpty()) {
            into.add(new Doable(what, now + "; type a value behind it", null));
            return;
        }
        try {
            UnaryOperator<Piece> edit = change.apply(value);
            into.add(new Doable(
                    what + ": " + value, "now " + now, () -> edit("Set " + what.toLowerCase(Locale.ROOT), edit)));
        } catch (IllegalArgumentException e) {
            into.add(new Doable(what + ": " + value, e.getMessage(), null));
        }
    }

    private void ofStages(String name, String value, List<Doable> into) {
        StageAddress selected = selection.selected().get();
        Part part = selection.part();
        List<Doable> here = new ArrayList<>();
        List<Doable> elsewhere = new ArrayList<>();
        walk(part.id(), List.of(), part.chain(), (address, stage) -> {
            for (Param<?> param : stage.params().spec().params()) {
                String what = param.label() + " of " + stage.name();
                if (Words.finds(name, what) && Words.finds(name.split(" ")[0], param.label())) {
                    (address.equals(selected) ? here : elsewhere).add(ofStage(address, stage, param, what, value));
                }
            }
        });
        into.addAll(here);
        into.addAll(elsewhere);
    }

    private <T> Doable ofStage(StageAddress address, Stage stage, Param<T> param, String what, String value) {
        String now = param.show(stage.params(), document.spelling());
        if (value.isEmpty()) {
            return new Doable(what, now, () -> {
                select(address);
                focus.accept(address, param.id());
            });
        }
        try {
            T wanted = stage.params().typeOf(param).parse(value);
            ParamSet then = stage.kind().completed(stage.params().with(param, wanted), param, piece().key());
            return new Doable(what + ": " + param.show(then, document.spelling()), "now " + now, () -> {
                selection.editStage(
                        "Set " + param.label().toLowerCase(Locale.ROOT),
                        "",
                        address,
                        one -> one.withParams(
                                one.kind().completed(one.params().with(param, wanted), param, piece().key())));
                selection.selected().set(address);
            });
        } catch (IllegalArgumentException e) {
            return new Doable(what + ": " + value, e.getMessage(), null);
        }
    }
}
