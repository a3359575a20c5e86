package harpel.testkit;

import static org.assertj.core.api.Assertions.assertThat;

import harpel.chain.Chain;
import harpel.chain.Differences;
import harpel.chain.Stage;
import harpel.effect.EffectCatalog;
import harpel.effect.EffectKind;
import harpel.effect.route.Split;
import harpel.event.NoteStart;
import harpel.param.Param;
import harpel.piece.Part;
import harpel.run.Renderer;
import harpel.run.Tap;
import harpel.run.Told;
import harpel.testkit.Laws.Checks;
import harpel.testkit.Laws.World;
import harpel.theory.Spelling;
import java.util.ArrayList;
import java.util.List;

/** What must hold of comparing and of what is shown, for any kind in any chain; tried like the other laws. */
final class CompareLaws {
    private CompareLaws() {}

    /** A and B in turn, the chain off and on, branches alone, stages replaced: every start gets its end. */
    static void twoChainsMayTakeTurnsAtAnyTime(EffectKind kind, long seed) {
        World world = new World(kind, seed);
        Randoms randoms = world.randoms;
        Checks checks = new Checks();
        checks.edits = true;
        Part part = Part.of("Lead", world.chain).withOtherChain().withChain(Laws.edited(randoms, world.chain));
        Renderer renderer = new Renderer(world.plan(part.chain()), checks, checks);
        renderer.start(0);
        int next = 0;
        for (long tick = 1; tick < Laws.LENGTH; tick += 1 + randoms.tick(Laws.LENGTH / 8)) {
            next = Laws.feed(renderer, world.music, next, tick);
            part = switch (randoms.between(0, 4)) {
                case 0 -> part.withChain(soloed(randoms, part.chain()));
                case 1 -> part.withChain(replaced(randoms, part.chain()));
                case 2 -> part.withChainOff(!part.rack().off());
                case 3 -> part.withOtherAlike().withChain(Laws.edited(randoms, part.chain()));
                default -> part.withOtherChain();
            };
            renderer.update(
                    world.plan(part.chain()).withDry(Laws.PART, part.rack().off()));
        }
        Laws.feed(renderer, world.music, next, Laws.LENGTH + 1);
        renderer.silence();
        renderer.render(Laws.LENGTH + 2);
        checks.nothingOpen();
    }

    private static Chain soloed(Randoms randoms, Chain chain) {
        return chain.stages().stream()
                .filter(stage -> !stage.branches().isEmpty())
                .findFirst()
                .map(stage -> chain.withStage(
                        stage.id(),
                        one -> one.withTakes(
                                randoms.between(1, one.branches().size()),
                                takes -> takes.with(Split.SOLO, !takes.get(Split.SOLO)))))
                .orElse(chain);
    }

    private static Chain replaced(Randoms randoms, Chain chain) {
        if (chain.stages().isEmpty()) {
            return chain;
        }
        Stage stage = randoms.oneOf(chain.stages());
        EffectKind kind = randoms.oneOf(EffectCatalog.kinds());
        return chain.withStage(stage.id(), one -> one.replacedBy(kind));
    }

    static void aDifferenceIsFoundJustWhereThereIsOne(EffectKind kind, long seed) {
        World world = new World(kind, seed);
        Chain changed = Laws.edited(world.randoms, world.chain);
        assertThat(Differences.between(world.chain, world.chain, Spelling.SHARPS))
                .isEmpty();
        assertThat(Differences.between(world.chain, changed, Spelling.SHARPS).isEmpty())
                .as("%s against %s", world.chain, changed)
                .isEqualTo(world.chain.equals(changed));
    }

    /** Renders the world's music once through its chain. */
    private static void render(World world, Tap tap) {
        Checks checks = new Checks();
        Renderer renderer = new Renderer(world.plan(world.chain), checks, tap);
        renderer.start(0);
        Laws.feed(renderer, world.music, 0, Laws.LENGTH);
        renderer.silence();
        renderer.render(Laws.LENGTH + 1);
    }

    static void shownStepsLieInTheirRows(EffectKind kind, long seed) {
        int most = 1 << 16;
        render(new World(kind, seed), told -> {
            Laws.EVENTS.increment();
            if (told instanceof Told.Stepped at) {
                assertThat(at.row()).isBetween(0, 256);
                assertThat(at.step()).isBetween(0, most);
            }
        });
    }

    static void everyDeedIsToldInWords(EffectKind kind, long seed) {
        World world = new World(kind, seed);
        List<NoteStart> made = new ArrayList<>();
        render(world, told -> {
            if (told instanceof Told.Left left && left.event() instanceof NoteStart note && note.cause() != null) {
                made.add(note);
            }
        });
        for (Stage stage : world.chain.stages()) {
            for (NoteStart note : made) {
                Laws.EVENTS.increment();
                String told = stage.kind().words().tell(note.cause(), note, stage.params(), world.key, world.time);
                assertThat(told).isNotNull().isEqualTo(told.strip()).doesNotContain("null", "  ");
            }
        }
    }

    static void aReplacedStageKeepsOnlyWhatFits(EffectKind kind, long seed) {
        Randoms randoms = new Randoms(seed);
        Stage before = randoms.stage(kind, 1);
        EffectKind other = randoms.oneOf(EffectCatalog.kinds());
        Stage after = before.replacedBy(other);
        assertThat(after.id()).isEqualTo(before.id());
        assertThat(after.kind()).isEqualTo(other);
        assertThat(after.on()).isEqualTo(before.on());
        assertThat(after.params().get(EffectKind.LABEL))
                .isEqualTo(before.params().get(EffectKind.LABEL));
        for (Param<?> param : after.params().spec().params()) {
            boolean kept = before.params().spec().byId(param.id()).isPresent();
            assertThat(kept || after.params().isDefault(param))
                    .as("%s of %s was set by nobody", param.id(), other)
                    .isTrue();
        }
        after.moves()
                .byParam()
                .keySet()
                .forEach(id -> assertThat(before.moves().byParam()).containsKey(id));
    }
}
