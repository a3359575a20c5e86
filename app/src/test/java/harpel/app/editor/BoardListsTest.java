package harpel.app.editor;

import static org.assertj.core.api.Assertions.assertThat;

import harpel.chain.Stage;
import harpel.chain.StageAddress;
import harpel.effect.EffectCatalog;
import harpel.effect.notes.Carom;
import harpel.effect.notes.Carom.Direction;
import harpel.effect.notes.Carom.Thing;
import harpel.param.Param;
import harpel.param.ParamSet;
import java.util.List;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

class BoardListsTest {
    private Stage stage = Stage.of("carom", EffectCatalog.of("carom"))
            .with(Carom.MARBLES, List.of(marble(1, 2), marble(8, 8)))
            .with(
                    Carom.CELLS,
                    List.of(
                            Carom.cell(3, 3, Thing.GATE),
                            Carom.cell(4, 4, Thing.MIRROR_RISING),
                            Carom.cell(5, 5, Thing.BELL)));
    /** Whether the hand had let go at the last edit; null where there was none. */
    private Boolean done;

    private final StageEditor editor =
            new StageEditor(null, new StageEditor.Edit() {
                @Override
                public <T> void set(Param<T> param, T value, boolean letGo) {
                    stage = stage.with(param, value);
                    done = letGo;
                    editor().show(null, stage);
                }
            }) {
                @Override
                public void show() {}

                @Override
                public void draw() {}
            };
    private final BoardLists lists = new BoardLists(editor);

    private StageEditor editor() {
        return editor;
    }

    private static ParamSet marble(int column, int row) {
        return Carom.MARBLE.defaults().with(Carom.COLUMN, column).with(Carom.ROW, row);
    }

    @BeforeEach
    void show() {
        editor.show(StageAddress.parse("lead/carom"), stage);
    }

    private Direction direction() {
        return editor.get(Carom.MARBLES).get(0).get(Carom.DIRECTION);
    }

    @Test
    void whatStandsInACellIsFoundTheLastOfSeveral() {
        assertThat(lists.at(Carom.MARBLES, 8, 8)).isEqualTo(1);
        assertThat(lists.at(Carom.MARBLES, 8, 7)).isEqualTo(-1);
        assertThat(lists.isEmpty(2, 2)).isTrue();
        assertThat(lists.isEmpty(5, 5)).isFalse();
        lists.put(Carom.MARBLES, -1, marble(1, 2), true);
        assertThat(lists.at(Carom.MARBLES, 1, 2)).isEqualTo(2);
    }

    @Test
    void marblesTurnRoundAndBackThroughAllDirections() {
        Direction first = direction();
        for (int i = 0; i < Direction.values().length; i++) {
            lists.turn(1, 2, 1);
        }
        assertThat(direction()).isEqualTo(first);
        lists.turn(1, 2, -1);
        assertThat(direction())
                .isEqualTo(Direction.values()[Math.floorMod(first.ordinal() - 1, Direction.values().length)]);
    }

    @Test
    void mirrorsLeanTheOtherWayGatesOpenByTenthsAndBellsAreTheSameFromAllSides() {
        lists.turn(4, 4, 1);
        assertThat(editor.get(Carom.CELLS).get(1).get(Carom.IS)).isEqualTo(Thing.MIRROR_FALLING);
        lists.turn(3, 3, 1);
        assertThat(editor.get(Carom.CELLS).get(0).get(Carom.CHANCE)).isEqualTo(60);
        for (int i = 0; i < 5; i++) {
            lists.turn(3, 3, 1);
        }
        assertThat(editor.get(Carom.CELLS).get(0).get(Carom.CHANCE))
                .as("100, then shut")
                .isZero();
        done = null;
        lists.turn(5, 5, 1);
        lists.turn(2, 2, 1);
        assertThat(done).as("no edit").isNull();
    }

    @Test
    void whatIsMovedStaysWhereAnotherOfItsKindStands() {
        assertThat(lists.move(5, 5, 4, 4)).isFalse();
        assertThat(lists.move(2, 2, 6, 6)).as("nothing there").isFalse();
        assertThat(lists.move(1, 2, 4, 4)).as("a marble may come upon a mirror").isTrue();
        assertThat(done).as("the hand still holds it").isFalse();
        assertThat(editor.get(Carom.MARBLES).get(0).get(Carom.COLUMN)).isEqualTo(4);
        lists.takeOff(4, 4);
        assertThat(editor.get(Carom.MARBLES)).as("the marble before the mirror").hasSize(1);
        lists.takeOff(4, 4);
        assertThat(editor.get(Carom.CELLS)).hasSize(2);
        lists.takeOff(4, 4);
        assertThat(editor.get(Carom.CELLS)).hasSize(2);
    }
}
