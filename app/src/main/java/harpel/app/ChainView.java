package harpel.app;

import harpel.chain.Branch;
import harpel.chain.Chain;
import harpel.chain.Stage;
import harpel.chain.StageAddress;
import harpel.chain.StageAddress.Step;
import harpel.effect.route.Split;
import harpel.engine.Tap;
import harpel.event.NoteStart;
import harpel.piece.Advice;
import harpel.piece.Part;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.SimpleObjectProperty;
import javafx.geometry.Insets;
import javafx.geometry.Point2D;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.Tooltip;
import javafx.scene.input.MouseButton;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;

/** The chain of the shown part as a score: input at the top, stages one under another, sound at the bottom. */
final class ChainView extends BorderPane {
    private static final double INDENT = 22;

    private final Session session;
    private final TimeWindow window = new TimeWindow();
    private final ObjectProperty<NoteStart> pointed = new SimpleObjectProperty<>();
    private final VBox rows = new VBox();
    private final Label title = new Label();
    private final Label about = new Label();
    private final Label pointedWords = new Label();
    private final Map<String, StageRow> kept = new HashMap<>();
    private final List<StageRow> shown = new ArrayList<>();
    private List<Advice> advice = List.of();
    private long frame;

    ChainView(Session session) {
        this.session = session;
        getStyleClass().add("chain-view");
        title.getStyleClass().add("part-title");
        about.getStyleClass().add("soft");
        pointedWords.getStyleClass().add("soft");
        pointedWords.setId("pointed");
        Region space = new Region();
        HBox.setHgrow(space, Priority.ALWAYS);
        HBox head = new HBox(12, title, about, PresetMenu.ofChains(session), space, pointedWords);
        head.setAlignment(javafx.geometry.Pos.BASELINE_LEFT);
        head.setPadding(new Insets(8, 12, 4, 12));
        rows.setPadding(new Insets(0, 10, 6, 12));
        rows.setId("rows");
        ScrollPane scroll = new ScrollPane(rows);
        scroll.setFitToWidth(true);
        scroll.setFocusTraversable(false);
        scroll.setHbarPolicy(ScrollPane.ScrollBarPolicy.NEVER);
        setTop(head);
        setCenter(scroll);
        session.piece().addListener((property, before, now) -> build());
        session.partId().addListener((property, before, now) -> build());
        session.selected().addListener((property, before, now) -> select());
        pointed.addListener((property, before, now) -> pointedWords.setText(now == null ? "" : Words.ancestry(now)));
        build();
    }

    private void build() {
        Part part = session.part();
        title.setText(part.name());
        int stages = part.chain().stages().size();
        about.setText((stages == 1 ? "1 stage" : stages + " stages") + " · key "
                + session.piece().get().key().name() + " · variation "
                + session.piece().get().variation());
        rows.getChildren().clear();
        shown.clear();
        StageRow input = row(null, Tap.INPUT, 0);
        input.showWords("Input", part.phrase().isEmpty() ? "Keys" : "Keys + phrase “" + part.phrase() + "”");
        rows.getChildren().add(input);
        advice = Advice.chain(session.piece().get(), part);
        addChain(part.chain(), List.of(), 0);
        StageRow sound = row(null, Tap.SOUND, 0);
        sound.showWords(
                "Sound",
                (part.output().isEmpty() ? part.sound() : part.output()) + " · channel " + (part.channel() + 1));
        rows.getChildren().add(sound);
        kept.keySet().removeIf(place -> shown.stream().noneMatch(one -> one == kept.get(place)));
        select();
    }

    private StageRow row(StageAddress address, String place, double indent) {
        StageRow row = kept.computeIfAbsent(
                session.partId().get() + "|" + place + "|" + indent, key -> makeRow(address, place, indent));
        shown.add(row);
        return row;
    }

    private StageRow makeRow(StageAddress address, String place, double indent) {
        StageRow row = new StageRow(session, window, pointed, address, place, indent);
        if (address != null) {
            row.setOnMousePressed(event -> {
                row.requestFocus();
                session.selected().set(address);
            });
            row.setOnMouseDragged(event -> {
                if (event.getButton() == MouseButton.PRIMARY) {
                    row.setViewOrder(-1);
                    row.setTranslateY(row.getTranslateY() + event.getY() - row.getHeight() / 2);
                }
            });
            row.setOnMouseReleased(event -> {
                if (row.getTranslateY() != 0) {
                    row.setTranslateY(0);
                    row.setViewOrder(0);
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
        session.edit(
                "Move " + session.stage(address).map(Stage::name).orElse("stage"),
                "",
                address.chainWay(),
                chain -> chain.moved(address.stageId(), target));
    }

    private void addChain(Chain chain, List<Step> way, double indent) {
        String part = session.partId().get();
        for (int i = 0; i < chain.stages().size(); i++) {
            Stage stage = chain.stages().get(i);
            rows.getChildren().add(insertLine(way, i, indent));
            List<Step> steps = new ArrayList<>(way);
            steps.add(new Step(stage.id(), 0));
            StageAddress address = new StageAddress(part, steps);
            StageRow row = row(address, address.toString(), indent);
            row.showStage(stage, session.piece().get().key());
            row.showAdvice(
                    advice.stream()
                            .filter(one -> way.isEmpty() && one.stage().equals(stage.id()))
                            .findFirst()
                            .orElse(null),
                    session);
            rows.getChildren().add(row);
            for (int b = 0; b < stage.branches().size(); b++) {
                List<Step> inside = new ArrayList<>(way);
                inside.add(new Step(stage.id(), b + 1));
                rows.getChildren().add(branchHead(stage, b, new StageAddress(part, inside), indent + INDENT));
                addChain(stage.branches().get(b).chain(), inside, indent + 2 * INDENT);
            }
        }
        rows.getChildren().add(insertLine(way, chain.stages().size(), indent));
    }

    private Node branchHead(Stage stage, int number, StageAddress address, double indent) {
        Branch branch = stage.branches().get(number);
        Button head = new Button("Branch " + (number + 1) + " takes " + Split.describeTakes(branch.takes())
                + (branch.chain().stages().isEmpty() ? " · dry" : ""));
        head.getStyleClass().add("branch-head");
        head.setId("branch-" + stage.id() + "-" + (number + 1));
        head.setTooltip(new Tooltip("Choose which notes this branch takes"));
        head.setOnAction(event -> session.selected().set(address));
        VBox.setMargin(head, new Insets(2, 0, 0, indent));
        return head;
    }

    private Node insertLine(List<Step> way, int place, double indent) {
        Button line = new Button("+ add effect");
        line.getStyleClass().add("insert-line");
        line.setId("insert-"
                + way.stream()
                        .map(step -> step.stage() + "-" + step.branch() + "-")
                        .reduce("", String::concat)
                + place);
        line.setMaxWidth(Double.MAX_VALUE);
        line.setTooltip(new Tooltip("Add an effect here  (Ctrl+E adds after the selected stage)"));
        line.setOnAction(event -> EffectMenu.show(line, session, way, place));
        VBox.setMargin(line, new Insets(0, 0, 0, indent));
        return line;
    }

    private void select() {
        for (StageRow row : shown) {
            row.setSelected(
                    row.address != null && row.address.equals(session.selected().get()));
        }
    }

    /** Draws a frame. */
    void draw(long nanos) {
        window.follow(session.status(), session.piece().get(), nanos);
        if (frame++ % 15 == 0) {
            window.resetPitches();
            for (TraceStore.Drawn drawn : session.traces()
                    .within(session.partId().get(), Tap.SOUND, (long) window.fromTick(), (long) window.toTick())) {
                window.include(drawn.note.pitch());
            }
            for (TraceStore.Drawn drawn : session.traces()
                    .within(session.partId().get(), Tap.INPUT, (long) window.fromTick(), (long) window.toTick())) {
                window.include(drawn.note.pitch());
            }
            shown.forEach(StageRow::showCount);
        }
        shown.forEach(StageRow::draw);
    }
}
