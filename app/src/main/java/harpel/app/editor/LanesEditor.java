package harpel.app.editor;

import harpel.app.draw.StepRow;
import harpel.app.transport.Words;
import harpel.effect.held.Lanes;
import harpel.param.ParamSet;
import harpel.param.music.RouteType.Route;
import harpel.param.type.IntType;
import harpel.piece.Routes;
import harpel.theory.Pitch;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import javafx.scene.control.Label;

/** The steps of each lane, one lane under another, the highest at the top as on a staff. */
final class LanesEditor extends StageEditor {
    /** A step as a number: 0 rests, 10 sounds fully, between them tenths. */
    private static final IntType TENTHS = IntType.of(0, 10, "");

    private static final int MOST = 32;

    private final List<StepRow<Integer>> rows = new ArrayList<>();
    private final Label words = words("common-period");
    private final List<Integer> drivers = new ArrayList<>();

    public LanesEditor(Around around, Edit edit) {
        super(around, edit);
    }

    private static List<Integer> numbers(String steps) {
        return steps.chars()
                .map(step -> step == 'x' ? 10 : step == '.' ? 0 : step - '0')
                .boxed()
                .toList();
    }

    private static String text(List<Integer> numbers) {
        return numbers.stream()
                .map(number -> number >= 10 ? "x" : number <= 0 ? "." : String.valueOf(number))
                .collect(Collectors.joining());
    }

    @Override
    public void show() {
        List<ParamSet> lanes = get(Lanes.LANES);
        while (rows.size() < lanes.size()) {
            int lane = rows.size();
            drivers.add(-1);
            rows.add(new StepRow<>(
                    around().look(),
                    around().messages(),
                    "lane-" + (lane + 1),
                    "Lane " + (lane + 1),
                    TENTHS,
                    0,
                    MOST,
                    34,
                    (values, done) -> take(lane, values, done)));
        }
        List<StepRow<Integer>> highestFirst = new ArrayList<>();
        for (int i = lanes.size() - 1; i >= 0; i--) {
            int number = i;
            ParamSet lane = lanes.get(i);
            rows.get(i).show(numbers(lane.get(Lanes.STEPS)));
            rows.get(i).face(new StepRow.Face() {
                @Override
                public double width(int step) {
                    return lane.get(Lanes.LENGTH) / 100.0;
                }

                @Override
                public double strength(int step) {
                    // While others sound, a lane without a note is silent.
                    boolean silent = drivers.get(number) < 0 && drivers.stream().anyMatch(pitch -> pitch >= 0);
                    return !lane.get(Lanes.LANE_ON) || silent ? 0.2 : 1;
                }
            });
            highestFirst.add(rows.get(i));
        }
        List<javafx.scene.Node> wanted = new ArrayList<>(highestFirst);
        wanted.add(words);
        if (!getChildren().equals(wanted)) {
            getChildren().setAll(wanted);
        }
        words.setText(Words.period(
                        stage().kind()
                                .nature()
                                .roundTicks(
                                        stage().params(),
                                        around().document().piece().get().time()),
                        around().document())
                + " With Shift, steps are drawn for all lanes at once.");
    }

    private void take(int lane, List<Integer> values, boolean done) {
        // A lane has at least one step.
        String steps = values.isEmpty() ? "." : text(values);
        List<ParamSet> lanes = new ArrayList<>(get(Lanes.LANES));
        if (rows.get(lane).isShiftDrawn()) {
            drawAll(lanes, lane, values);
        }
        lanes.set(lane, lanes.get(lane).with(Lanes.STEPS, steps));
        set(Lanes.LANES, List.copyOf(lanes), done);
    }

    /** What the hand has changed in one lane is changed in all others that have the step. */
    private static void drawAll(List<ParamSet> lanes, int drawn, List<Integer> values) {
        List<Integer> before = numbers(lanes.get(drawn).get(Lanes.STEPS));
        for (int other = 0; other < lanes.size(); other++) {
            List<Integer> steps = new ArrayList<>(numbers(lanes.get(other).get(Lanes.STEPS)));
            for (int i = 0; i < Math.min(steps.size(), values.size()); i++) {
                if (!values.get(i).equals(before.get(i))) {
                    steps.set(i, values.get(i));
                }
            }
            lanes.set(other, lanes.get(other).with(Lanes.STEPS, text(steps)));
        }
    }

    /** "Lane 2 · E4 → Tide bass": the held note it has, and who gets what it plays. */
    private String title(int lane) {
        List<ParamSet> lanes = get(Lanes.LANES);
        int pitch = drivers.get(lane);
        Route to = lane < lanes.size() ? lanes.get(lane).get(Lanes.SEND_TO) : Route.ON;
        return "Lane " + (lane + 1)
                + (pitch >= 0 ? " · " + Pitch.shown(pitch, around().spelling()) : lane == 0 ? ", lowest note" : "")
                + (to.leaves()
                        ? " → " + Routes.placeName(around().document().piece().get(), to.to())
                        : to.channel() > 0 ? " → channel " + to.channel() : "");
    }

    @Override
    public void draw() {
        for (int lane = 0; lane < rows.size(); lane++) {
            int pitch = around().transport().traces().driver(address().toString(), lane);
            if (drivers.set(lane, pitch) != pitch) {
                rows.forEach(StepRow::rename);
            }
            rows.get(lane).title(title(lane));
        }
        IntStream.range(0, rows.size()).forEach(lane -> {
            rows.get(lane).light(around().transport().traces().step(address().toString(), lane));
            rows.get(lane).draw();
        });
    }
}
