package harpel.phrase;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import harpel.event.Event;
import harpel.event.NoteEnd;
import harpel.event.NoteStart;
import harpel.testkit.Randoms;
import harpel.testkit.Tries;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.junit.jupiter.api.Test;

class NotesTest {
    private static final long LENGTH = 1_000_000;

    private static List<Note> sorted(Map<Integer, Note> model) {
        List<Note> list = new ArrayList<>(model.values());
        list.sort(Comparator.comparingLong(Note::tick)
                .thenComparingInt(Note::pitch)
                .thenComparingInt(Note::id));
        return list;
    }

    /** Random edits, beside a plain table that does the same. */
    @Test
    void notesAreWhatAPlainTableWouldHold() {
        Tries.of(20, "notes", seed -> {
            Randoms randoms = new Randoms(seed);
            Notes notes = Notes.EMPTY;
            Map<Integer, Note> model = new TreeMap<>();
            int next = 0;
            for (int i = 0; i < 1500; i++) {
                Notes before = notes;
                List<Note> was = i % 100 == 0 ? new ArrayList<>(notes) : null;
                int id = randoms.between(0, Math.max(0, next - 1));
                Note note = randoms.note(LENGTH);
                switch (randoms.between(0, 5)) {
                    case 0 -> {
                        notes = notes.minus(id);
                        model.remove(id);
                    }
                    case 1, 2 -> {
                        if (model.containsKey(id)) {
                            notes = notes.with(note.withId(id));
                            model.put(id, note.withId(id));
                        }
                    }
                    default -> {
                        notes = notes.plus(note);
                        model.put(next, note.withId(next));
                        next++;
                    }
                }
                assertThat(notes.size()).isEqualTo(model.size());
                assertThat(notes.find(id)).isEqualTo(java.util.Optional.ofNullable(model.get(id)));
                if (was != null) {
                    assertThat(List.copyOf(before))
                            .as("what was is not touched")
                            .isEqualTo(was);
                    List<Note> all = sorted(model);
                    assertThat(List.copyOf(notes)).isEqualTo(all);
                    long from = randoms.tick(LENGTH);
                    long to = from + randoms.tick(LENGTH / 4);
                    assertThat(List.copyOf(notes.startingIn(from, to)))
                            .isEqualTo(all.stream()
                                    .filter(one -> one.tick() >= from && one.tick() < to)
                                    .toList());
                    assertThat(Notes.of(all)).isEqualTo(notes);
                }
            }
        });
    }

    /** Many at once, and what is asked of many, beside a plain table that does the same. */
    @Test
    void manyAtOnceAreWhatAPlainTableWouldHold() {
        Tries.of(30, "many notes", seed -> {
            Randoms randoms = new Randoms(seed);
            Map<Integer, Note> model = new TreeMap<>();
            Notes notes = Notes.EMPTY;
            int next = 0;
            for (int i = 0; i < 12; i++) {
                List<Note> added = new ArrayList<>();
                for (int k = randoms.between(0, 200); k > 0; k--) {
                    Note note = randoms.note(LENGTH);
                    added.add(note);
                    model.put(next, note.withId(next));
                    next++;
                }
                notes = notes.plusAll(added);
                List<Note> changed = new ArrayList<>();
                java.util.Set<Integer> gone = new java.util.TreeSet<>();
                for (Note note : new ArrayList<>(model.values())) {
                    if (randoms.oneIn(i % 2 == 0 ? 3 : 40)) {
                        Note other = randoms.note(LENGTH).withId(note.id());
                        changed.add(other);
                        model.put(note.id(), other);
                    } else if (randoms.oneIn(i % 3 == 0 ? 4 : 60)) {
                        gone.add(note.id());
                        model.remove(note.id());
                    }
                }
                notes = notes.withAll(changed).minusAll(gone);
                List<Note> all = sorted(model);
                assertThat(List.copyOf(notes)).isEqualTo(all);
                assertThat(notes.stream().toList()).isEqualTo(all);
                List<Note> walked = new ArrayList<>();
                notes.iterator().forEachRemaining(walked::add);
                assertThat(walked).isEqualTo(all);
                long at = randoms.tick(LENGTH);
                Notes now = notes;
                assertThat(notes.soundingAcross(at).stream().map(now::get).toList())
                        .isEqualTo(all.stream()
                                .filter(note -> note.tick() < at && note.endTick() > at)
                                .toList());
                List<Note> found = new ArrayList<>();
                notes.addStartingIn(at, at + LENGTH / 5, found);
                assertThat(found)
                        .isEqualTo(all.stream()
                                .filter(note -> note.tick() >= at && note.tick() < at + LENGTH / 5)
                                .toList());
            }
        });
    }

    @Test
    void whatChangesNothingIsTheSameObject() {
        Notes notes = Notes.of(List.of(Note.of(0, 10, 60, 90), Note.of(5, 10, 62, 90)));
        assertThat(notes.withAll(List.copyOf(notes))).isSameAs(notes);
        assertThat(notes.minusAll(java.util.Set.of(77))).isSameAs(notes);
        assertThat(notes.withAll(List.of())).isSameAs(notes);
        assertThatThrownBy(() -> Notes.EMPTY.iterator().next()).isInstanceOf(java.util.NoSuchElementException.class);
        assertThatThrownBy(() -> notes.withAll(List.of(Note.of(0, 1, 60, 90).withId(9))))
                .hasMessageContaining("no note of the id 9");
    }

    @Test
    void anEditOfALongPhraseSharesAllButAFewHundredNotes() {
        Randoms randoms = new Randoms(3);
        List<Note> many = new ArrayList<>();
        for (int i = 0; i < 100_000; i++) {
            many.add(randoms.note(LENGTH));
        }
        Notes notes = Notes.of(many);
        Note note = notes.get(50_000);
        Notes moved = notes.with(note.withTick(note.tick() + 100));
        assertThat(moved.bytesBeside(notes)).isLessThan(50_000);
        assertThat(moved.with(moved.get(7))).as("nothing new is said").isSameAs(moved);
        assertThat(notes.bytesBeside(notes)).isZero();
    }

    @Test
    void idsAreNeverUsedAgain() {
        Notes notes = Notes.of(List.of(Note.of(0, 1, 60, 90), Note.of(0, 1, 61, 90)));
        Notes less = notes.minus(1);
        assertThat(less.plus(Note.of(5, 1, 62, 90)).get(1).id()).isEqualTo(2);
        assertThatThrownBy(() -> less.plus(Note.of(0, 1, 1, 1).withId(0))).hasMessageContaining("two notes");
        assertThatThrownBy(() -> less.with(Note.of(0, 1, 1, 1).withId(9))).hasMessageContaining("no note");
        assertThatThrownBy(() -> Note.of(0, 1, 128, 1)).hasMessage("a note's pitch must be 0–127 but was 128");
        assertThatThrownBy(() -> Note.of(0, 1, 1, 0)).hasMessageContaining("velocity must be 1–127");
    }

    private static NoteStart start(long tick, int pitch) {
        return NoteStart.played(tick, 0, 0, pitch, 90);
    }

    /** A stretch from tick 100 to 200: what begins before, ends before, sounds on and lies past it. */
    @Test
    void whatSoundsInAStretchIsCutToIt() {
        NoteStart before = start(10, 60);
        NoteStart gone = start(20, 61);
        NoteStart touching = start(30, 62);
        NoteStart within = start(120, 63);
        NoteStart brief = start(150, 64);
        NoteStart on = start(180, 65);
        NoteStart past = start(200, 66);
        List<Event> events = List.of(
                before,
                gone,
                touching,
                new NoteEnd(90, gone, 64),
                new NoteEnd(100, touching, 64),
                within,
                new NoteEnd(130, before, 64),
                new NoteEnd(140, within, 30),
                brief,
                new NoteEnd(151, brief, 64),
                on,
                past,
                new NoteEnd(260, on, 64),
                new NoteEnd(270, past, 64));
        assertThat(Notes.heard(events, 100, 200))
                .extracting(note -> note.pitch() + " " + note.tick() + "+" + note.length())
                .containsExactly("60 0+30", "63 20+20", "64 50+1", "65 80+20");
        assertThat(Notes.heard(events, 100, 200).get(1).release()).isEqualTo(30);
        assertThat(Notes.heard(events.subList(0, 3), 100, 200))
                .as("what has no end yet sounds on")
                .extracting(Note::length)
                .containsExactly(100L, 100L, 100L);
    }

    @Test
    void alikeAreThoseOfOneTickAndPitch() {
        Notes notes = Notes.of(List.of(
                Note.of(0, 5, 60, 90),
                Note.of(10, 5, 60, 90),
                Note.of(10, 6, 60, 80),
                Note.of(10, 7, 60, 70),
                Note.of(10, 5, 62, 90)));
        assertThat(notes.alikeBefore(0)).isZero();
        assertThat(notes.alikeBefore(1)).isZero();
        assertThat(notes.alikeBefore(2)).isEqualTo(1);
        assertThat(notes.alikeBefore(3)).isEqualTo(2);
        assertThat(notes.alikeBefore(4)).isZero();
    }

    /** However they came about, and in whatever pieces they are kept. */
    @Test
    void equalNotesAreEqual() {
        Tries.of(20, "equal", seed -> {
            Randoms randoms = new Randoms(seed);
            List<Note> list = new ArrayList<>();
            for (int i = 0; i < 700; i++) {
                list.add(randoms.note(LENGTH).withId(i));
            }
            Notes whole = Notes.of(list);
            Notes grown = Notes.EMPTY;
            for (Note note : list) {
                grown = grown.plus(note);
            }
            assertThat(grown.equals(whole)).isTrue();
            assertThat(whole.equals(grown)).isTrue();
            assertThat(grown.hashCode()).isEqualTo(whole.hashCode());
            Note changed = list.get(randoms.between(0, 699));
            Notes other = whole.with(changed.withVelocity(changed.velocity() % 127 + 1));
            assertThat(whole.equals(other)).isFalse();
            assertThat(other.equals(whole)).isFalse();
            assertThat(whole.equals(whole.minus(changed.id()))).isFalse();
            assertThat(whole.equals(List.copyOf(whole)))
                    .as("a list of the same")
                    .isTrue();
            assertThat(whole.equals("notes")).isFalse();
        });
        assertThat(Notes.EMPTY.equals(Notes.of(List.of()))).isTrue();
        assertThat(Notes.EMPTY.hashCode()).isZero();
    }
}
