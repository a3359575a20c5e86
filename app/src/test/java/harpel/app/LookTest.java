package harpel.app;

import static org.assertj.core.api.Assertions.assertThat;

import harpel.app.chain.TimeWindow;
import harpel.app.look.Look;
import harpel.app.look.Look.Fold;
import harpel.app.look.Messages;
import harpel.app.look.Theme;
import harpel.app.transport.Places;
import harpel.app.transport.TraceQueue;
import harpel.app.transport.TraceStore;
import harpel.app.transport.Words;
import harpel.app.ui.ParamTile;
import harpel.app.ui.Space;
import harpel.app.ui.Type;
import harpel.event.NoteEnd;
import harpel.event.NoteStart;
import harpel.param.type.SpanType;
import harpel.run.Tap;
import harpel.run.Told;
import harpel.theory.OctaveNaming;
import harpel.theory.Spelling;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import javafx.geometry.Rectangle2D;
import javafx.scene.paint.Color;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

/** What the views are made of, without a window. */
class LookTest {
    /** Web Content Accessibility Guidelines 2.1: relative luminance and contrast ratio. */
    private static double contrast(Color a, Color b) {
        double lighter = Math.max(luminance(a), luminance(b));
        double darker = Math.min(luminance(a), luminance(b));
        return (lighter + 0.05) / (darker + 0.05);
    }

    private static double luminance(Color color) {
        return 0.2126 * linear(color.getRed()) + 0.7152 * linear(color.getGreen()) + 0.0722 * linear(color.getBlue());
    }

    private static double linear(double channel) {
        return channel <= 0.03928 ? channel / 12.92 : Math.pow((channel + 0.055) / 1.055, 2.4);
    }

    /** WCAG 2.1, 1.4.3: text has a contrast of at least 4.5 to 1. */
    @ParameterizedTest
    @EnumSource(Theme.class)
    void textStandsOutFromItsGround(Theme theme) {
        for (Color ground : List.of(theme.paper, theme.panel, theme.raised)) {
            assertThat(contrast(theme.ink, ground)).isGreaterThan(4.5);
            assertThat(contrast(theme.soft, ground)).isGreaterThan(4.5);
            assertThat(contrast(theme.brassText, ground)).isGreaterThan(4.5);
        }
        assertThat(contrast(theme.onBar, theme.bar)).isGreaterThan(4.5);
    }

    @Test
    void theContrastFormulaGivesThePublishedEnds() {
        assertThat(contrast(Color.BLACK, Color.WHITE)).isEqualTo(21);
        assertThat(contrast(Color.RED, Color.RED)).isEqualTo(1);
    }

    @Test
    void theStyleSheetNamesOnlyTokensThatExistAndNoColourOrSizeOfItsOwn() throws IOException {
        String sheet = Files.readString(Path.of("src", "main", "styles", "harpel.css"));
        String colours = new String(
                java.util.Base64.getDecoder().decode(Theme.DAY.styles(1).get(1).split(",")[1]), StandardCharsets.UTF_8);
        Set<String> sizes = Stream.of(Space.class, Type.class)
                .flatMap(names -> Arrays.stream(names.getFields()))
                .map(field -> "-hp-" + field.getName().toLowerCase(Locale.ROOT))
                .collect(Collectors.toSet());
        Matcher used = Pattern.compile("-hp-[a-z-]+").matcher(sheet);
        while (used.find()) {
            assertThat(sizes.contains(used.group()) || colours.contains(used.group() + ":"))
                    .as(used.group())
                    .isTrue();
        }
        assertThat(sheet).doesNotContain("#");
        assertThat(sheet).doesNotContainPattern("-fx-(padding|spacing|line-spacing|font-size): [^;]*[1-9]");
    }

    /** Spaces and type sizes have names, as colours have. */
    @Test
    void noViewHasASpaceOrATypeSizeOfItsOwn() throws IOException {
        Pattern own = Pattern.compile(
                "(new ([HV]Box|FlowPane)\\(\\s*|set(Spacing|Hgap|Vgap)\\(|\\bsuper\\(|new Insets\\([^()]*?|Font\\.font\\([^()]*?)\\b[1-9]");
        for (String some :
                List.of("new HBox(4, a)", "super(6)", "new Insets(0, 0, 12, 0)", "Font.font(\"Lato\", 11)")) {
            assertThat(some).as("is found").containsPattern(own);
        }
        try (Stream<Path> all = Files.walk(Path.of("src", "main", "java"))) {
            for (Path source :
                    all.filter(path -> path.toString().endsWith(".java")).toList()) {
                assertThat(Files.readString(source)).as(source.toString()).doesNotContainPattern(own);
            }
        }
    }

    private static final Places.Place INPUT = Places.input("lead");
    private final TraceStore store = new TraceStore();

    private List<Integer> sounding() {
        BitSet pitches = new BitSet();
        store.sounding(INPUT, pitches);
        return pitches.stream().boxed().toList();
    }

    @Test
    void tracesPairNotesAndKeepThemWhenTimeStartsAnew() {
        TraceQueue queue = new TraceQueue(() -> 0);
        NoteStart note = NoteStart.played(100, 0, 0, 60, 90);
        queue.left("lead", Tap.INPUT, note);
        queue.left("lead", Tap.INPUT, harpel.event.Message.control(110, 1, 0, 1, 1));
        queue.drain(0, store::take);
        assertThat(sounding()).containsExactly(60);
        assertThat(store.countWithin(INPUT, 0, 100)).isZero();
        queue.left("lead", Tap.INPUT, new NoteEnd(200, note, 64));
        queue.drain(0, store::take);
        assertThat(sounding()).isEmpty();
        assertThat(store.countWithin(INPUT, 150, 160)).isEqualTo(1);
        assertThat(store.countWithin(INPUT, 200, 300)).isZero();
        assertThat(store.countWithin(Places.input("other"), 0, 300)).isZero();
        queue.tell(new Told.Restarted(1000, 1000));
        queue.drain(0, store::take);
        assertThat(store.notes(INPUT)).as("what was stays").hasSize(1);
    }

    @Test
    void aFullQueueDropsTraceDataAndCountsIt() {
        TraceQueue queue = new TraceQueue(() -> 0);
        for (int i = 0; i < 40_000; i++) {
            queue.left("lead", Tap.SOUND, NoteStart.played(i, i, 0, 60, 90));
        }
        List<Told> taken = new ArrayList<>();
        queue.drain(0, taken::add);
        assertThat(taken.size() + queue.dropped()).isEqualTo(40_000);
        assertThat(queue.dropped()).isPositive();
    }

    @Test
    void aNotesWayIsSaidInWords() {
        NoteStart played = NoteStart.played(0, 0, 0, 60, 100);
        NoteStart made = played.derive(0, 67, 100).derive(0, 67, 60);
        assertThat(Words.ancestry(made, Spelling.SHARPS, (from, to) -> from.pitch() == to.pitch() ? "" : "up a fifth"))
                .isEqualTo("G4 from C4: up a fifth, 100 → 60");
        assertThat(Words.ancestry(played, Spelling.SHARPS, (from, to) -> "never asked"))
                .isEqualTo("C4: velocity 100");
        assertThat(Words.milliseconds(345_678)).isEqualTo("0.3 ms");
    }

    @Test
    void aMovedValueSaysItsUnitOnce() {
        assertThat(ParamTile.fromTo("5 degrees", "12 degrees")).isEqualTo("5 → 12 degrees");
        assertThat(ParamTile.fromTo("60 %", "72 %")).isEqualTo("60 → 72 %");
        assertThat(ParamTile.fromTo("1/8", "1/4")).isEqualTo("1/8 → 1/4");
        assertThat(ParamTile.fromTo("off", "4 slots")).isEqualTo("off → 4 slots");
    }

    @Test
    void settingsAreKept(@TempDir Path home) {
        Settings fresh = new Settings(home);
        assertThat(fresh.theme()).isEqualTo(Theme.DAY);
        assertThat(fresh.octaves()).isEqualTo(OctaveNaming.C4);
        assertThat(fresh.isFirstStart()).isTrue();
        fresh.keep(Theme.NIGHT, OctaveNaming.C3, 1.5);
        assertThat(new Settings(home).isFirstStart()).isFalse();
        assertThat(new Settings(home).size()).isEqualTo(1.5);
        assertThat(new Settings(home).theme()).isEqualTo(Theme.NIGHT);
        assertThat(new Settings(home).octaves()).isEqualTo(OctaveNaming.C3);
    }

    @Test
    void theWindowOpensWithinAScreenWhereItWas(@TempDir Path home) {
        Rectangle2D small = new Rectangle2D(0, 0, 1024, 700);
        Rectangle2D second = new Rectangle2D(1024, 0, 1920, 1080);
        assertThat(WindowPlace.within(new Rectangle2D(-128, -50, 1280, 800), List.of(small)))
                .isEqualTo(small);
        assertThat(WindowPlace.within(new Rectangle2D(1000, 900, 1280, 800), List.of(small, second)))
                .as("on the screen that shows most of it")
                .isEqualTo(new Rectangle2D(1024, 280, 1280, 800));
        assertThat(WindowPlace.within(new Rectangle2D(4000, 50, 640, 480), List.of(small)))
                .as("its screen has gone")
                .isEqualTo(new Rectangle2D(384, 50, 640, 480));
        Settings settings = new Settings(home);
        assertThat(settings.place()).isEmpty();
        assertThat(settings.folds()).isEmpty();
        WindowPlace place = new WindowPlace(new Rectangle2D(-8, 30, 1280, 800), true);
        settings.keep(place, Map.of(Fold.KEYS, true, Fold.PARTS, false));
        assertThat(new Settings(home).place()).contains(place);
        assertThat(new Settings(home).folds()).isEqualTo(Map.of(Fold.KEYS, true, Fold.PARTS, false));
        assertThat(WindowPlace.parse("12 large")).isEmpty();
    }

    @Test
    void whatIsFoldedGivesWayToRoomUnlessSomeoneOpensIt() {
        Look look = new Look(new Messages());
        look.room(1280, 800);
        assertThat(look.folds().get()).isEmpty();
        look.view().set(Look.View.TIMELINE);
        assertThat(look.folds().get()).containsExactly(Fold.KEYS);
        look.toggle(Fold.KEYS);
        assertThat(look.folds().get()).isEmpty();
        look.room(683, 467);
        assertThat(look.folds().get()).containsExactlyInAnyOrder(Fold.PARTS, Fold.CONTROLS, Fold.HEARD);
        look.toggle(Fold.CONTROLS);
        look.room(1280, 800);
        look.toggle(Fold.HEARD);
        assertThat(look.folds().get()).containsExactly(Fold.HEARD);
        assertThat(look.wished()).isEqualTo(Map.of(Fold.KEYS, false, Fold.CONTROLS, false, Fold.HEARD, true));
    }

    @Test
    void pitchesAreShownAndTypedInTheChosenOctaves() {
        try {
            OctaveNaming.show(OctaveNaming.C3);
            NoteStart played = NoteStart.played(0, 0, 0, 60, 100);
            assertThat(Words.ancestry(played, Spelling.SHARPS, (from, to) -> ""))
                    .startsWith("C3");
            assertThat(SpanType.ofPitches().parse("C3–C4").low()).isEqualTo(60);
            assertThat(SpanType.ofPitches().write(SpanType.ofPitches().parse("C3–C4")))
                    .as("files keep to C4")
                    .isEqualTo(List.of("C4", "C5"));
        } finally {
            OctaveNaming.show(OctaveNaming.C4);
        }
    }

    @Test
    void allRowsShareOneTimeAxis() {
        TimeWindow window = new TimeWindow();
        assertThat(window.x(window.fromTick(), 500)).isZero();
        assertThat(window.x(window.toTick(), 500)).isCloseTo(500, org.assertj.core.api.Assertions.within(1e-9));
        assertThat(window.x(window.nowTick(), 500))
                .isCloseTo(500 * TimeWindow.NOW, org.assertj.core.api.Assertions.within(1e-9));
        window.resetPitches();
        window.include(100);
        assertThat(window.highest()).isEqualTo(102);
        assertThat(window.y(64, 60)).isGreaterThan(window.y(65, 60));
    }
}
