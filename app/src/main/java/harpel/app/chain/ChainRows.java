package harpel.app.chain;

import harpel.advice.Advice;
import harpel.advice.Advisor;
import harpel.app.desk.Keeping;
import harpel.app.document.Document;
import harpel.app.document.Selection;
import harpel.app.look.Look;
import harpel.app.transport.Places;
import harpel.app.transport.Places.Place;
import harpel.app.transport.Transport;
import harpel.app.transport.Words;
import harpel.app.ui.Buttons;
import harpel.app.ui.Space;
import harpel.chain.Branch;
import harpel.chain.Chain;
import harpel.chain.Stage;
import harpel.chain.StageAddress;
import harpel.chain.StageAddress.Step;
import harpel.effect.route.Split;
import harpel.event.NoteStart;
import harpel.piece.Part;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import javafx.beans.property.ObjectProperty;
import javafx.css.PseudoClass;
import javafx.geometry.Insets;
import javafx.geometry.Point2D;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ToggleButton;
import javafx.scene.input.KeyCode;
import javafx.scene.input.MouseButton;
import javafx.scene.layout.ColumnConstraints;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;

/** The rows of a chain, one under another: input, stages with their branches and the places for more between them, sound. */
final class ChainRows extends VBox {
    private static final PseudoClass OFF = PseudoClass.getPseudoClass("off");
    private static final int MOST_COLUMNS = 3;
    /** Six rows and the lines between them. */
    private static final int TOGETHER = 12;

    private static final double INSERT_WIDE = 230;
    private static final double OVER_ROWS = 7;

    private final Document document;
    private final Selection selection;
    private final Look look;
    private final Transport transport;
    private final Keeping keeping;
    private final TimeWindow window;
    private final ObjectProperty<NoteStart> pointed;
    private final Map<String, StageRow> kept = new HashMap<>();
    private final List<StageRow> shown = new ArrayList<>();
    private List<Advice> advice = List.of();
    private double tall;

    /** @param pointed the note that the pointer is at, or null */
    ChainRows(
            Document document,
            Selection selection,
            Look look,
            Transport transport,
            Keeping keeping,
            TimeWindow window,
            ObjectProperty<NoteStart> pointed,
            double tall) {
        this.document = document;
        this.selection = selection;
        this.look = look;
        this.transport = transport;
        this.keeping = keeping;
        this.window = window;
        this.pointed = pointed;
        this.tall = tall;
        setPadding(new Insets(0, Space.ROOM, Space.HAIR, Space.EDGE));
        setId("rows");
        getStyleClass().add("rows");
    }

    /** All rows, from above. */
    List<StageRow> shown() {
        return shown;
    }

    /** The row of the selected stage. */
    Optional<StageRow> selected() {
        return shown.stream()
                .filter(row -> row.address != null
                        && row.address.equals(selection.selected().get()))
                .findFirst();
    }

    void tall(double newTall) {
        tall = newTall;
        shown.forEach(row -> row.tall(tall));
    }

    /** Makes them anew of the shown part; rows of places that stay are kept. */
    void build() {
        Part part = selection.part();
        getChildren().clear();
        pseudoClassStateChanged(OFF, part.rack().off());
        shown.clear();
        StageRow input = row(null, Places.input(part.id()), false);
        input.showWords("Input", Words.takes(document.piece().get(), part));
        getChildren().add(input);
        advise(part);
        addChain(this, part.chain(), List.of());
        gather();
        StageRow sound = row(null, Places.sound(part.id()), false);
        sound.showWords(
                "Sound", (part.port().isEmpty() ? part.sound() : part.port()) + " · channel " + (part.channel() + 1));
        getChildren().add(sound);
        kept.keySet().removeIf(place -> shown.stream().noneMatch(one -> one == kept.get(place)));
    }

    /** Says what the stages' values are now. */
    void showValues() {
        advise(selection.part());
        for (StageRow row : shown) {
            if (row.address != null) {
                selection.stage(row.address).ifPresent(stage -> show(row, stage));
            }
        }
    }

    private void advise(Part part) {
        advice = Advisor.chain(document.piece().get(), part);
    }

    private void show(StageRow row, Stage stage) {
        row.showStage(stage, document.piece().get().key());
        row.showAdvice(advice.stream()
                .filter(one -> row.address.chainWay().isEmpty() && one.stage().equals(stage.id()))
                .findFirst()
                .orElse(null));
    }

    /**
     * Gathers the rows of a long chain in boxes of a few: where more than a dozen children of one node change in a frame, all of it
     * is drawn anew, words and all.
     */
    private void gather() {
        List<Node> nodes = List.copyOf(getChildren());
        getChildren().clear();
        for (int from = 0; from < nodes.size(); from += TOGETHER) {
            VBox box = new VBox();
            box.getChildren().addAll(nodes.subList(from, Math.min(nodes.size(), from + TOGETHER)));
            getChildren().add(box);
        }
    }

    private StageRow row(StageAddress address, Place place, boolean narrow) {
        StageRow row = kept.computeIfAbsent(
                place.part() + "|" + place.name() + "|" + narrow, key -> makeRow(address, place, narrow));
        shown.add(row);
        row.tall(tall);
        return row;
    }

    private StageRow makeRow(StageAddress address, Place place, boolean narrow) {
        StageRow row =
                new StageRow(document, selection, look, transport, keeping, window, pointed, address, place, narrow);
        if (address != null) {
            row.setOnMousePressed(event -> {
                row.requestFocus();
                selection.selected().set(address);
            });
            row.setOnKeyPressed(event -> {
                boolean up = event.getCode() == KeyCode.UP;
                if ((up || event.getCode() == KeyCode.DOWN) && !event.isAltDown() && !event.isShortcutDown()) {
                    StageActions.step(selection, up ? -1 : 1);
                    selected().ifPresent(Node::requestFocus);
                    event.consume();
                }
            });
            row.setOnMouseClicked(event -> {
                if (event.getClickCount() == 2 && event.isStillSincePress()) {
                    look.large().set(true);
                }
            });
            row.setOnMouseDragged(event -> {
                if (event.getButton() == MouseButton.PRIMARY) {
                    row.setViewOrder(-1);
                    row.getParent().setViewOrder(-1);
                    row.setTranslateY(row.getTranslateY() + event.getY() - row.getHeight() / 2);
                }
            });
            row.setOnMouseReleased(event -> {
                if (row.getTranslateY() != 0) {
                    row.setTranslateY(0);
                    row.setViewOrder(0);
                    row.getParent().setViewOrder(0);
                    drop(address, event.getSceneY());
                }
            });
        }
        return row;
    }

    /** Moves a dragged stage to where it was let go, among the stages of its own chain. */
    private void drop(StageAddress address, double sceneY) {
        int place = 0;
        for (StageRow other : shown) {
            boolean sameChain = other.address != null
                    && !other.address.equals(address)
                    && other.address.chainWay().equals(address.chainWay());
            if (sameChain) {
                Point2D middle = other.localToScene(0, other.getHeight() / 2);
                place += middle.getY() < sceneY ? 1 : 0;
            }
        }
        int target = place;
        selection.edit(
                "Move " + selection.stage(address).map(Stage::name).orElse("stage"),
                "",
                address.chainWay(),
                chain -> chain.moved(address.stageId(), target));
    }

    private void addChain(VBox column, Chain chain, List<Step> way) {
        String part = selection.partId().get();
        for (int i = 0; i < chain.stages().size(); i++) {
            Stage stage = chain.stages().get(i);
            column.getChildren().add(insertLine(way, i));
            StageAddress address = StageAddress.of(part, way, stage.id());
            StageRow row = row(address, Places.at(address), !way.isEmpty());
            show(row, stage);
            column.getChildren().add(row);
            if (!stage.branches().isEmpty() && !look.isFolded(address)) {
                column.getChildren().add(branches(stage, address));
            }
        }
        Node last = insertLine(way, chain.stages().size());
        if (way.isEmpty()) {
            // At the end of the chain it is always to be seen.
            last.getStyleClass().add("insert-last");
        }
        column.getChildren().add(last);
    }

    /** The branches of a split side by side; one under another where they lie in a branch themselves. */
    private GridPane branches(Stage stage, StageAddress address) {
        GridPane grid = new GridPane();
        grid.setHgap(Space.CLOSE);
        grid.setVgap(Space.FINE);
        int columns = address.chainWay().isEmpty()
                ? Math.min(MOST_COLUMNS, stage.branches().size())
                : 1;
        for (int i = 0; i < columns; i++) {
            ColumnConstraints share = new ColumnConstraints();
            share.setPercentWidth(100.0 / columns);
            grid.getColumnConstraints().add(share);
        }
        for (int b = 0; b < stage.branches().size(); b++) {
            VBox column = new VBox();
            column.getStyleClass().add("branch");
            column.getChildren().add(branchHead(stage, b, address.branch(b + 1)));
            Chain inside = stage.branches().get(b).chain();
            addChain(column, inside, address.branchWay(b + 1));
            if (inside.stages().isEmpty()) {
                Label dry = new Label("Notes pass unchanged.");
                dry.getStyleClass().add("soft");
                column.getChildren().add(dry);
            }
            grid.add(column, b % columns, b / columns);
        }
        return grid;
    }

    private Node branchHead(Stage stage, int number, StageAddress address) {
        Branch branch = stage.branches().get(number);
        Button head = Buttons.button(
                (number + 1) + " takes " + Split.describeTakes(branch.takes(), document.spelling())
                        + (branch.chain().stages().isEmpty() ? " · dry" : ""),
                "branch-" + stage.id() + "-" + (number + 1),
                "Choose which notes branch " + (number + 1) + " takes",
                () -> selection.selected().set(address));
        head.getStyleClass().add("branch-head");
        head.setMinWidth(0);
        head.setMaxWidth(Double.MAX_VALUE);
        HBox.setHgrow(head, Priority.ALWAYS);
        ToggleButton solo = Buttons.toggle(
                "solo",
                "solo-" + stage.id() + "-" + (number + 1),
                "Hear only this branch, and others that are solo",
                on -> selection.editStage(
                        "Solo branch " + (number + 1),
                        "",
                        address,
                        one -> one.withTakes(number + 1, takes -> takes.with(Split.SOLO, on))));
        solo.setAccessibleText("Solo branch " + (number + 1));
        solo.setSelected(branch.takes().get(Split.SOLO));
        HBox line = new HBox(Space.TIGHT, head, solo);
        line.setAlignment(Pos.CENTER_LEFT);
        return line;
    }

    private Node insertLine(List<Step> way, int place) {
        String ways = way.stream()
                .map(step -> step.stage() + "-" + step.branch() + "-")
                .reduce("", String::concat);
        Button line = Buttons.button(
                "+ add effect",
                "insert-" + ways + place,
                "Add an effect here  (Ctrl+E adds after the selected stage)",
                () -> {});
        line.getStyleClass().add("insert-line");
        boolean last = place == selection.chainAt(way).stages().size();
        line.setMaxWidth(last ? Double.MAX_VALUE : INSERT_WIDE);
        if (!last) {
            // As tall as a target has to be, over the edges of the rows beside it, and only where no trace is taken
            // from the hand.
            VBox.setMargin(line, new Insets(-OVER_ROWS, 0, -OVER_ROWS, 0));
            line.setViewOrder(-1);
        }
        line.setOnAction(event -> EffectMenu.show(line, selection, look, way, place));
        return line;
    }
}
