package harpel.app.editor;

import harpel.app.draw.StepRow;
import harpel.app.session.Session;
import harpel.app.session.Words;
import harpel.effect.held.Polymeter;
import harpel.param.ListType;
import harpel.param.Param;
import harpel.param.ParamSpec;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import javafx.scene.control.Label;

/** The five cycles of a polymeter, each with its own length, the step it is at, and after how many bars all come together. */
final class CyclesEditor extends StageEditor {
    private final List<StepRow<Integer>> rows = new ArrayList<>();
    private final Label words = words("common-period");

    public CyclesEditor(Session session, Edit edit) {
        super(session, edit);
        for (Param<List<Integer>> cycle : Polymeter.CYCLES) {
            ListType<Integer> type = (ListType<Integer>) cycle.type();
            StepRow<Integer> row = new StepRow<>(
                    session,
                    "cycle-" + cycle.id(),
                    cycle.label(),
                    type.item(),
                    cycle.defaultValue().get(0),
                    type.most(),
                    cycle == Polymeter.DEGREE ? 52 : 34,
                    (values, done) -> set(cycle, values, done));
            rows.add(row);
        }
        getChildren().addAll(rows);
        getChildren().add(words);
    }

    @Override
    public Set<Param<?>> instead(ParamSpec spec) {
        return Set.copyOf(Polymeter.CYCLES);
    }

    @Override
    public void show() {
        for (int i = 0; i < rows.size(); i++) {
            rows.get(i).show(get(Polymeter.CYCLES.get(i)));
        }
        double step = get(Polymeter.PACE)
                .ticksAt(0, session().document().piece().get().time());
        words.setText(Words.period(Polymeter.commonPeriod(stage().params()) * step, session()));
    }

    @Override
    public void draw() {
        for (int i = 0; i < rows.size(); i++) {
            rows.get(i).light(session().transport().traces().step(address().toString(), i));
            rows.get(i).draw();
        }
    }
}
