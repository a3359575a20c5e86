package harpel.event;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** The ledger's table beside a map of Java's: as a row of a few notes, as a table of many, and where the one becomes the other. */
class NoteMapTest {
    /** Many on one tick, pitch and channel, so that hashes fall together. */
    private static NoteStart note(Random random) {
        return NoteStart.generated(random.nextInt(3) * 3_840, random.nextInt(2), 60 + random.nextInt(3), 64);
    }

    @ParameterizedTest
    @ValueSource(ints = {1, 7, 8, 9, 40, 1_000})
    void keepsWhatAMapOfJavaKeeps(int most) {
        Random random = new Random(most);
        NoteMap<Integer> map = new NoteMap<>();
        Map<NoteStart, Integer> wanted = new IdentityHashMap<>();
        List<NoteStart> there = new ArrayList<>();
        for (int i = 0; i < 20 * most + 200; i++) {
            if (there.size() < most && random.nextInt(5) < 3) {
                NoteStart note = note(random);
                there.add(note);
                assertThat(map.put(note, i)).isEqualTo(wanted.put(note, i));
            } else if (!there.isEmpty()) {
                NoteStart note = there.get(random.nextInt(there.size()));
                if (random.nextInt(4) == 0) {
                    assertThat(map.put(note, -i)).isEqualTo(wanted.put(note, -i));
                } else {
                    there.remove(note);
                    assertThat(map.remove(note)).isEqualTo(wanted.remove(note));
                    assertThat(map.remove(note)).isNull();
                }
            }
            assertThat(map.size()).isEqualTo(wanted.size());
        }
        there.forEach(note -> assertThat(map.get(note)).isEqualTo(wanted.get(note)));
        assertThat(map.containsKey(note(random))).isFalse();
        assertThat(order(map)).containsExactlyInAnyOrderElementsOf(there);
    }

    @ParameterizedTest
    @ValueSource(ints = {1, 8, 9, 300})
    void forgetsThoseThatAreToGoAndNoOthers(int count) {
        Random random = new Random(count);
        NoteMap<Integer> map = new NoteMap<>();
        Set<NoteStart> stay = new HashSet<>();
        for (int i = 0; i < count; i++) {
            NoteStart note = note(random);
            map.put(note, i);
            if (i % 3 == 0) {
                stay.add(note);
            }
        }
        map.removeIf((note, number) -> number % 3 != 0);
        assertThat(order(map)).containsExactlyInAnyOrderElementsOf(stay);
        map.clear();
        assertThat(map.isEmpty()).isTrue();
        stay.forEach(note -> assertThat(map.get(note)).isNull());
    }

    /** On every machine, whatever identity Java gives to what is put in. */
    @ParameterizedTest
    @ValueSource(ints = {5, 200})
    void isGoneThroughInTheSameOrderEachTime(int count) {
        List<List<String>> orders = new ArrayList<>();
        for (int time = 0; time < 3; time++) {
            Random random = new Random(7);
            NoteMap<Integer> map = new NoteMap<>();
            List<NoteStart> there = new ArrayList<>();
            for (int i = 0; i < count; i++) {
                NoteStart note = note(random);
                map.put(note, i);
                there.add(note);
                if (i % 4 == 3) {
                    map.remove(there.remove(random.nextInt(there.size())));
                }
            }
            orders.add(
                    order(map).stream().map(note -> note + " " + map.get(note)).toList());
        }
        assertThat(orders.get(1)).isEqualTo(orders.get(0)).isEqualTo(orders.get(2));
        assertThat(orders.get(0)).isNotEmpty();
    }

    private static List<NoteStart> order(NoteMap<Integer> map) {
        List<NoteStart> notes = new ArrayList<>();
        map.forEach((note, value) -> notes.add(note));
        return notes;
    }
}
