package harpel.app;

import harpel.chain.Stage;
import harpel.move.Mover;
import harpel.move.Moves;
import harpel.move.Source;
import harpel.param.Param;
import harpel.param.ParamSet;
import harpel.piece.Lever;
import java.util.ArrayList;
import java.util.List;
import java.util.function.BiConsumer;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.Menu;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;

/** What moves the parameters of a stage: each mover with its settings, and a way to add one. */
final class MovesEditor extends VBox {
    private final Session session;
    private final BiConsumer<Moves, Boolean> change;
    private final MenuButton add = new MenuButton("Move a control…");
    private final VBox list = new VBox(6);
    private Stage stage;
    private Moves built;

    MovesEditor(Session session, BiConsumer<Moves, Boolean> change) {
        super(6);
        this.session = session;
        this.change = change;
        add.setId("add-mover");
        add.setTooltip(
                new Tooltip("Let a lever, a curve, a wave, velocity or a controller move a control of this stage"));
        getChildren().addAll(add, list);
    }

    void show(Stage newStage) {
        boolean sameMovers = built != null && sameShape(built, newStage.moves()) && sameSpec(newStage);
        stage = newStage;
        if (!sameMovers) {
            build();
        }
        built = newStage.moves();
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
                Menu menu = new Menu(param.label());
                for (Source source : Source.values()) {
                    if (source != Source.LEVER) {
                        MenuItem item = new MenuItem("by " + source.word().replace('-', ' ') + " – " + source.does());
                        item.setOnAction(event ->
                                change.accept(stage.moves().plus(param, Mover.of(source, param)), true));
                        menu.getItems().add(item);
                    }
                }
                for (Lever lever : session.piece().get().levers()) {
                    MenuItem item = new MenuItem("by the lever “" + lever.name() + "”");
                    item.setOnAction(event -> {
                        Mover mover = Mover.of(Source.LEVER, param);
                        Mover named = new Mover(mover.source(), mover.settings().with(Source.NAME, lever.name()));
                        change.accept(stage.moves().plus(param, named), true);
                    });
                    menu.getItems().add(item);
                }
                add.getItems().add(menu);
            }
        }
        list.getChildren().clear();
        stage.moves()
                .byParam()
                .forEach((id, movers) -> stage.params().spec().byId(id).ifPresent(param -> {
                    for (int i = 0; i < movers.size(); i++) {
                        list.getChildren().add(mover(param, movers.get(i), i));
                    }
                }));
    }

    private VBox mover(Param<?> param, Mover mover, int place) {
        Label name = new Label(param.label() + " ← " + mover.source().word().replace('-', ' '));
        name.getStyleClass().add("moved-by");
        Button remove = new Button("×");
        remove.setAccessibleText("Stop moving " + param.label());
        remove.setTooltip(new Tooltip("Stop moving it"));
        remove.setOnAction(event -> {
            List<Mover> left = new ArrayList<>(stage.moves().of(param));
            left.remove(place);
            change.accept(stage.moves().with(param, left), true);
        });
        Region space = new Region();
        HBox.setHgrow(space, Priority.ALWAYS);
        GridPane tiles = Inspector.twoColumns();
        List<Param<?>> params = mover.settings().spec().params();
        for (int i = 0; i < params.size(); i++) {
            tiles.add(tile(param, params.get(i), place), i % 2, i / 2);
        }
        VBox box = new VBox(3, new HBox(6, name, space, remove), tiles);
        box.setId("mover-" + param.id() + "-" + (place + 1));
        return box;
    }

    private <T> ParamTile<T> tile(Param<?> moved, Param<T> setting, int place) {
        ParamTile<T> tile = new ParamTile<>(setting, (changed, done) -> {
            List<Mover> movers = new ArrayList<>(stage.moves().of(moved));
            Mover before = movers.get(place);
            ParamSet settings = before.settings().withPlain(setting, changed.plain());
            movers.set(place, new Mover(before.source(), settings));
            changed.show(settings);
            change.accept(stage.moves().with(moved, movers), done);
        });
        tile.show(stage.moves().of(moved).get(place).settings());
        return tile;
    }
}
