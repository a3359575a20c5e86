package harpel.app.inspector;

import harpel.app.document.Document;
import harpel.app.draw.StepRow;
import harpel.app.look.Look;
import harpel.app.look.Messages;
import harpel.app.transport.Transport;
import harpel.app.ui.Buttons;
import harpel.app.ui.Columns;
import harpel.app.ui.Field;
import harpel.app.ui.Menus;
import harpel.app.ui.ParamTile;
import harpel.app.ui.Space;
import harpel.chain.Stage;
import harpel.effect.Trait;
import harpel.move.Mover;
import harpel.move.Moves;
import harpel.move.Source;
import harpel.param.Param;
import harpel.param.ParamSet;
import harpel.param.ParamType;
import harpel.param.type.CurveType;
import harpel.param.type.ListType;
import harpel.param.type.RowType;
import harpel.piece.perform.Lever;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.BiConsumer;
import java.util.function.Consumer;
import java.util.function.UnaryOperator;
import java.util.regex.Pattern;
import javafx.geometry.Side;
import javafx.scene.control.Button;
import javafx.scene.control.ContextMenu;
import javafx.scene.control.Label;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;

/** What moves the parameters of a stage: each mover with its settings, and a way to add one. */
final class MovesEditor extends VBox {
    private final Document document;
    private final Look look;
    private final Transport transport;
    private final Messages messages;
    /** Those that go on while a note lasts. */
    private static final Set<Source> FLOWING = EnumSet.of(
            Source.AUTOMATION,
            Source.CURVE,
            Source.LEVER,
            Source.LFO,
            Source.STEPS,
            Source.ENVELOPE,
            Source.CONTROLLER);

    /** Whatever people write between two values. */
    private static final Pattern BETWEEN =
            Pattern.compile("\\s*(?:…|\\.\\.+|→|–|—|\\bto\\b)\\s*|(?<=[\\w♯♭%])\\s*-\\s*");

    /** A difference of beats that nobody hears. */
    private static final double SAME_BEATS = 1e-6;

    private final BiConsumer<Moves, Boolean> change;
    /** Changes more of the stage than what moves it, as one edit. */
    private final Consumer<UnaryOperator<Stage>> edit;

    private final MenuButton add = Menus.button(
            "Move a control…",
            "add-mover",
            "Let a lever, a curve, a wave, velocity or a controller move a control of this stage");
    private final VBox list = new VBox(Space.CLOSE);
    /** The drawn ones, by parameter and place. */
    private final Map<String, CurveEditor> curves = new HashMap<>();

    private final Map<String, StepRow<Integer>> steps = new HashMap<>();
    /** How far movers bring their control, in its own unit. */
    private final Map<String, Field> reaches = new HashMap<>();
    /** Show each setting as it is now. */
    private final List<Runnable> shown = new ArrayList<>();
    /** The offers to make what is drawn as long as its loop. */
    private final Map<String, Button> fits = new HashMap<>();

    private Stage stage;
    private Moves built;

    MovesEditor(
            Document document,
            Look look,
            Transport transport,
            Messages messages,
            BiConsumer<Moves, Boolean> change,
            Consumer<UnaryOperator<Stage>> edit) {
        super(Space.CLOSE);
        this.document = document;
        this.look = look;
        this.transport = transport;
        this.messages = messages;
        this.change = change;
        this.edit = edit;
        getChildren().addAll(add, list);
    }

    void show(Stage newStage) {
        boolean sameMovers = built != null && sameShape(built, newStage.moves()) && sameSpec(newStage);
        stage = newStage;
        if (!sameMovers) {
            build();
        }
        built = newStage.moves();
        shown.forEach(Runnable::run);
        built.byParam().forEach((id, movers) -> {
            for (int i = 0; i < movers.size(); i++) {
                Mover mover = movers.get(i);
                Optional.ofNullable(curves.get(id + i)).ifPresent(curve -> curve.show(mover));
                Optional.ofNullable(reaches.get(id + i))
                        .ifPresent(field ->
                                stage.params().spec().anywhere(id).ifPresent(param -> field.show(reach(param, mover))));
                Optional.ofNullable(fits.get(id + i)).ifPresent(button -> offerToFit(button, mover));
                Optional.ofNullable(steps.get(id + i))
                        .ifPresent(row -> row.show(mover.settings().get(Source.VALUES)));
            }
        });
    }

    private boolean sameSpec(Stage newStage) {
        return stage != null && stage.params().spec() == newStage.params().spec();
    }

    /** The same movers of the same parameters, whatever they are set to. */
    private static boolean sameShape(Moves a, Moves b) {
        return shape(a).equals(shape(b));
    }

    private static List<String> shape(Moves moves) {
        List<String> shape = new ArrayList<>();
        moves.byParam().forEach((id, movers) -> movers.forEach(mover -> shape.add(id + mover.source())));
        return shape;
    }

    private void build() {
        add.getItems().clear();
        for (Param<?> param : stage.params().spec().params()) {
            if (Moves.canMove(stage.kind(), param)) {
                add.getItems().add(item(param.label(), param.id(), () -> offerSources(param)));
            } else if (param.type() instanceof ListType<?>) {
                add.getItems().add(item(param.label() + "…", param.id(), () -> offerPlaces(param)));
            }
        }
        list.getChildren().clear();
        reaches.clear();
        fits.clear();
        shown.clear();
        curves.clear();
        steps.clear();
        stage.moves()
                .byParam()
                .forEach((id, movers) -> stage.params().spec().anywhere(id).ifPresent(param -> {
                    for (int i = 0; i < movers.size(); i++) {
                        list.getChildren().add(mover(param, movers.get(i), i));
                    }
                }));
    }

    /** An id as the names of nodes can have it. */
    private static String dashed(String id) {
        return id.replace('.', '-');
    }

    private static MenuItem item(String words, String id, Runnable action) {
        return Menus.item(words, "move-" + dashed(id), action);
    }

    /** The rows or values of a list, of which one is to be moved. */
    private <T> void offerPlaces(Param<T> param) {
        ListType<?> type = (ListType<?>) param.type();
        List<?> values = (List<?>) stage.params().get(param);
        ContextMenu menu = Menus.list();
        menu.setId("places");
        for (int i = 0; i < values.size(); i++) {
            String id = param.id() + "." + (i + 1);
            String words = (i + 1) + "  " + shown(type.item(), values.get(i));
            if (type.item() instanceof RowType row) {
                menu.getItems().add(item(words, id, () -> offerInside(id, row)));
            } else {
                stage.params()
                        .spec()
                        .anywhere(id)
                        .ifPresent(one -> menu.getItems().add(item(words, id, () -> offerSources(one))));
            }
        }
        if (values.isEmpty()) {
            messages.say("There is nothing in " + param.label().toLowerCase(java.util.Locale.ROOT) + " to move yet.");
        } else {
            menu.show(add, Side.BOTTOM, 0, 0);
        }
    }

    private int length(Param<?> list) {
        return ((List<?>) stage.params().get(list)).size();
    }

    @SuppressWarnings("unchecked") // the value is one of the list's own
    private <T> String shown(ParamType<T> type, Object value) {
        return type.show((T) value, document.spelling());
    }

    /** What of a row can be moved. */
    private void offerInside(String place, RowType row) {
        ContextMenu menu = Menus.list();
        menu.setId("inside");
        for (Param<?> one : row.spec().params()) {
            stage.params()
                    .spec()
                    .anywhere(place + "." + one.id())
                    .filter(inside -> Moves.canMove(stage.kind(), inside))
                    .ifPresent(inside ->
                            menu.getItems().add(item(inside.label(), inside.id(), () -> offerSources(inside))));
            if (one.type() instanceof ListType<?>) {
                // A row's own list, by number: its values have no names.
                String list = place + "." + one.id();
                int length =
                        stage.params().spec().anywhere(list).map(this::length).orElse(0);
                for (int i = 1; i <= length; i++) {
                    stage.params()
                            .spec()
                            .anywhere(list + "." + i)
                            .ifPresent(inside ->
                                    menu.getItems().add(item(inside.label(), inside.id(), () -> offerSources(inside))));
                }
            }
        }
        menu.show(add, Side.BOTTOM, 0, 0);
    }

    /** What can move a parameter, in a list of its own: one beside another would be cut off at the window's edge. */
    private void offerSources(Param<?> param) {
        ContextMenu menu = Menus.list();
        menu.setId("sources");
        for (Lever lever : document.piece().get().levers()) {
            Mover mover = Mover.proposed(Source.LEVER, param);
            source(
                    menu,
                    param,
                    "the lever “" + lever.name() + "”",
                    mover.withSettings(mover.settings().with(Source.NAME, lever.name())));
        }
        for (Source source : Source.values()) {
            if (source != Source.LEVER) {
                source(
                        menu,
                        param,
                        source.word().replace('-', ' ') + " – " + source.does().split(",")[0],
                        Mover.proposed(source, param));
            }
        }
        menu.show(add, Side.BOTTOM, 0, 0);
    }

    private void source(ContextMenu menu, Param<?> param, String words, Mover mover) {
        MenuItem item = new MenuItem("by " + words);
        item.setId("by-" + mover.source().word());
        item.setOnAction(event -> change.accept(stage.moves().plus(param, mover), true));
        menu.getItems().add(item);
    }

    private VBox mover(Param<?> param, Mover mover, int place) {
        Label name = new Label(param.label() + " ← " + mover.source().word().replace('-', ' '));
        name.getStyleClass().add("moved-by");
        Button remove = Buttons.button("×", "stop-" + dashed(param.id()) + "-" + (place + 1), "Stop moving it", () -> {
            List<Mover> left = new ArrayList<>(stage.moves().of(param));
            left.remove(place);
            change.accept(stage.moves().with(param, left), true);
        });
        remove.setAccessibleText("Stop moving " + param.label());
        Region space = new Region();
        HBox.setHgrow(space, Priority.ALWAYS);
        VBox box = new VBox(Space.TIGHT, new HBox(Space.CLOSE, name, space, remove));
        String key = param.id() + place;
        CurveEditor curve = CurveEditor.of(
                document,
                look,
                transport,
                "curve-" + dashed(param.id()) + "-" + (place + 1),
                param,
                mover.source(),
                (settings, done) -> take(param, place, settings, done));
        if (curve != null) {
            curves.put(key, curve);
            box.getChildren().add(curve);
        }
        if (mover.source() == Source.STEPS) {
            StepRow<Integer> row = row(param, place);
            steps.put(key, row);
            box.getChildren().add(row);
        }
        if (mover.source() != Source.AUTOMATION) {
            Field reach = new Field(
                    "reach-" + dashed(param.id()) + "-" + (place + 1),
                    "From where to where it moves " + param.label()
                            + ", in its own unit; type both, such as 10–14, or only where it shall come to",
                    text -> reachTo(param, place, text),
                    messages::say);
            reach.show(reach(param, mover));
            reaches.put(key, reach);
            box.getChildren().add(reach);
        }
        if (FLOWING.contains(mover.source()) && !taken(stage).isEmpty()) {
            Label words = new Label(taken(stage));
            words.getStyleClass().add("soft");
            words.setId("taken-" + dashed(param.id()) + "-" + (place + 1));
            box.getChildren().add(words);
        }
        if (mover.source() == Source.CURVE) {
            Button fit = Buttons.small(
                    "",
                    "fit-" + dashed(param.id()) + "-" + (place + 1),
                    "What is drawn becomes as long as the loop",
                    () -> fit(param, place));
            fits.put(key, fit);
            box.getChildren().add(fit);
        }
        GridPane tiles = Columns.two();
        int count = 0;
        for (Param<?> setting : mover.settings().spec().params()) {
            boolean drawn = curve != null && setting.id().equals("points")
                    || setting == Source.VALUES
                    // Notes say it better than shares of them.
                    || mover.source() == Source.KEY && setting == Source.RANGE;
            if (!drawn) {
                tiles.add(tile(param, setting, place), count % 2, count / 2);
                count++;
            }
        }
        box.getChildren().add(tiles);
        box.setId("mover-" + dashed(param.id()) + "-" + (place + 1));
        return box;
    }

    /** "3 … 7 degrees": where a mover brings a control from and to, as it stands now. */
    private <T> String reach(Param<T> param, Mover mover) {
        ParamType<T> type = stage.params().typeOf(param);
        T base = stage.params().get(param);
        List<Mover> one = List.of(mover);
        String from = type.show(Mover.moved(type, base, mover.offset(0), one), document.spelling());
        String to = type.show(Mover.moved(type, base, mover.offset(1), one), document.spelling());
        return ParamTile.fromTo(from, to).replace("→", "…");
    }

    /**
     * Lets a mover bring its control to a value when its source is at its most; where two are typed, from the first to the second, so that
     * the control itself is set as well.
     */
    private <T> void reachTo(Param<T> param, int place, String text) {
        ParamType<T> type = stage.params().typeOf(param);
        String[] ends = BETWEEN.split(text.strip(), 2);
        double base = type.fraction(stage.params().get(param));
        double to = type.fraction(type.parse(ends[ends.length - 1]));
        Mover mover = stage.moves().of(param).get(place);
        boolean both = mover.settings().get(Source.BOTH_WAYS);
        double from = both ? 2 * base - to : base;
        if (ends.length == 2) {
            // The unit may stand behind the second alone.
            String unit = ends[1].replaceFirst("^[^ ]*", "");
            from = type.fraction(type.parse(ends[0].contains(" ") ? ends[0] : ends[0] + unit));
        }
        double middle = both ? (from + to) / 2 : from;
        double amount = Math.max(-1, Math.min(1, both ? (to - from) / 2 : to - from));
        ParamSet settings = mover.settings().withPlain(Source.AMOUNT, (int) Math.round(amount * 100));
        List<Mover> movers = new ArrayList<>(stage.moves().of(param));
        movers.set(place, new Mover(mover.source(), settings));
        boolean sets = ends.length == 2;
        edit.accept(one -> {
            Stage moved = one.withMoves(one.moves().with(param, movers));
            return sets ? moved.with(param, type.atFraction(middle)) : moved;
        });
    }

    /** How a stage takes values that move under its notes. */
    private static String taken(Stage stage) {
        boolean byNote = !stage.kind().nature().holdsNotes()
                && !stage.kind().has(Trait.PLAYS_BY_ITSELF)
                && !stage.kind().nature().changesMessages(stage.params());
        return byNote ? "Each note takes it as it begins." : "";
    }

    /** Draws a frame. */
    void draw() {
        long now = System.nanoTime();
        curves.values().forEach(curve -> curve.follow(now));
        curves.values().forEach(CurveEditor::draw);
        steps.values().forEach(StepRow::draw);
    }

    private StepRow<Integer> row(Param<?> moved, int place) {
        ListType<Integer> type = (ListType<Integer>) Source.VALUES.type();
        return new StepRow<>(
                look,
                messages,
                "mover-steps-" + dashed(moved.id()),
                Source.VALUES.label(),
                type.item(),
                0,
                type.most(),
                44,
                (values, done) -> take(
                        moved,
                        place,
                        stage.moves().of(moved).get(place).settings().with(Source.VALUES, values),
                        done));
    }

    /** Where the drawn curve ends before its loop does, or behind it, it can be made as long. */
    private void offerToFit(Button button, Mover mover) {
        double drawn = drawnBeats(mover.settings());
        double loop = loopBeats(mover.settings());
        boolean fits = drawn <= 0 || Math.abs(drawn - loop) < SAME_BEATS;
        button.setText((drawn < loop ? "stretch to " : "shorten to ")
                + Source.LOOP.type().show(mover.settings().get(Source.LOOP), document.spelling()));
        button.setVisible(!fits);
        button.setManaged(!fits);
    }

    private double loopBeats(ParamSet settings) {
        var time = document.piece().get().time();
        return settings.get(Source.LOOP).ticksAt(0, time) / time.meter().at(0).beatTicks();
    }

    private static double drawnBeats(ParamSet settings) {
        List<CurveType.Point> points = settings.get(Source.SHAPE_POINTS);
        return points.isEmpty() ? 0 : points.get(points.size() - 1).at();
    }

    /** What is drawn takes the whole loop. */
    private void fit(Param<?> moved, int place) {
        ParamSet settings = stage.moves().of(moved).get(place).settings();
        double times = loopBeats(settings) / drawnBeats(settings);
        List<CurveType.Point> points = settings.get(Source.SHAPE_POINTS).stream()
                .map(point -> new CurveType.Point(point.at() * times, point.height()))
                .toList();
        take(moved, place, settings.with(Source.SHAPE_POINTS, points), true);
    }

    /** Takes other settings for one of the movers of a parameter. */
    private void take(Param<?> moved, int place, ParamSet settings, boolean done) {
        List<Mover> movers = new ArrayList<>(stage.moves().of(moved));
        movers.set(place, new Mover(movers.get(place).source(), settings));
        change.accept(stage.moves().with(moved, movers), done);
    }

    private <T> ParamTile<T> tile(Param<?> moved, Param<T> setting, int place) {
        ParamTile<T> tile = new ParamTile<>(
                setting,
                (changed, done) -> {
                    ParamSet settings =
                            stage.moves().of(moved).get(place).settings().withPlain(setting, changed.plain());
                    changed.show(settings);
                    take(moved, place, settings, done);
                },
                document::spelling,
                messages::say);
        shown.add(() -> tile.show(stage.moves().of(moved).get(place).settings()));
        return tile;
    }
}
