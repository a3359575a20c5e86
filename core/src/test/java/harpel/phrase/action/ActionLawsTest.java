package harpel.phrase.action;

import static org.assertj.core.api.Assertions.assertThat;

import harpel.phrase.Note;
import harpel.phrase.Phrase;
import harpel.testkit.Randoms;
import harpel.testkit.Tries;
import harpel.time.TimeValue;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;

/** What every action promises, over random phrases, keys, meters and picks. */
class ActionLawsTest {
    /** An action with all it needs but phrase and picked notes. */
    private interface Doing {
        Edited on(Phrase phrase, Set<Integer> picked, Around around, Randoms randoms);
    }

    private static final Map<String, Doing> ALL = new LinkedHashMap<>();

    static {
        for (NoteAction action : NoteActions.all()) {
            ALL.put(
                    action.id(),
                    (p, ids, a, r) -> action.to(
                            p,
                            ids,
                            new NoteAction.Roll(
                                    a,
                                    Optional.of(TimeValue.parse(r.oneOf(List.of("1/4", "1/8t", "1/16", "1/8d")))),
                                    1 + r.tick(50_000),
                                    r.tick(p.length()),
                                    r.between(0, 99)),
                            r.params(action.amounts())));
        }
        // By amounts that no button has.
        ALL.put("transpose by any", (p, ids, a, r) -> Pitches.transpose(p, ids, r.between(-24, 24)));
        ALL.put("degrees by any", (p, ids, a, r) -> Pitches.degrees(p, ids, r.between(-7, 7), a));
        ALL.put("move by any", (p, ids, a, r) -> Times.move(p, ids, r.between(-200_000, 200_000)));
        ALL.put("round by any", (p, ids, a, r) -> Times.shiftRound(p, ids, r.between(-200_000, 200_000)));
        ALL.put("lengthen by any", (p, ids, a, r) -> Times.lengthen(p, ids, r.between(-50_000, 50_000)));
        ALL.put("louder by any", (p, ids, a, r) -> Velocities.louder(p, ids, r.between(-127, 127)));
        ALL.put("lasting", (p, ids, a, r) -> Times.lasting(p, ids, r.between(1, 50_000)));
        ALL.put("length", (p, ids, a, r) -> Shapes.length(p, ids, 1 + r.tick(2 * p.length()), a));
        ALL.put("paste", (p, ids, a, r) -> Shapes.paste(p, p.notes(), r.tick(p.length())));
    }

    /** Those that may change what is not picked. */
    private static final Set<String> OF_ALL = Stream.concat(
                    Stream.of("length"),
                    NoteActions.all().stream().filter(NoteAction::ofAll).map(NoteAction::id))
            .collect(Collectors.toSet());

    @Test
    void eachIsDeclaredWithAButtonOrAKeyAndNoTwoAreMistaken() {
        assertThat(NoteActions.all())
                .allMatch(one -> !one.button().isEmpty() || !one.key().isEmpty());
        assertThat(NoteActions.all().stream().map(NoteAction::id)).doesNotHaveDuplicates();
        assertThat(NoteActions.all().stream().map(NoteAction::name)).doesNotHaveDuplicates();
        assertThat(NoteActions.all().stream()
                        .filter(one -> !one.key().isEmpty())
                        .map(one -> one.key() + " " + one.inKey()))
                .doesNotHaveDuplicates();
        assertThat(NoteActions.byKey("Up", false).orElseThrow().name()).isEqualTo("Semitone up");
        assertThat(NoteActions.byKey("Up", true).orElseThrow().name()).isEqualTo("Degree up");
        assertThat(NoteActions.byKey("Shift+Up", true).orElseThrow().name()).isEqualTo("Octave up");
        assertThat(NoteActions.byKey("Z", true)).isEmpty();
        assertThat(NoteActions.byKey("Shift+Up", false).orElseThrow().tip()).isEqualTo("An octave up  (Shift+Up)");
        assertThat(NoteActions.byKey("Up", true).orElseThrow().tip())
                .isEqualTo("A step of the key up  (Up, in the key)");
        assertThat(NoteActions.byKey("Shortcut+Left", false).orElseThrow().tip())
                .isEqualTo("By a step of the grid  (Ctrl+Left)");
        assertThat(NoteActions.all().stream().filter(one -> one.key().isEmpty()))
                .allMatch(one -> one.tip().equals(one.does()));
        assertThat(NoteAction.Group.values()).allMatch(group -> !group.label().isBlank());
    }

    private static Set<Integer> some(Phrase phrase, Randoms randoms) {
        Set<Integer> picked = new HashSet<>();
        phrase.notes().forEach(note -> {
            if (randoms.oneIn(3)) {
                picked.add(note.id());
            }
        });
        return picked;
    }

    @Test
    void whatIsNotPickedStaysAndWhatComesOutIsAPhrase() {
        Tries.of(60, "actions", seed -> {
            Randoms randoms = new Randoms(seed);
            Phrase phrase = randoms.phrase("Tide");
            Around around = new Around(randoms.key(), randoms.time());
            for (Map.Entry<String, Doing> action : ALL.entrySet()) {
                Set<Integer> picked = some(phrase, randoms);
                Edited edited = action.getValue().on(phrase, picked, around, randoms);
                Set<Integer> ids =
                        edited.phrase().notes().stream().map(Note::id).collect(Collectors.toSet());
                assertThat(ids)
                        .as(action.getKey() + " gives each note an id")
                        .hasSameSizeAs(edited.phrase().notes());
                assertThat(ids).as(action.getKey()).containsAll(edited.picked());
                assertThat(edited.said()).as(action.getKey()).isNotBlank();
                assertThat(edited.phrase().notes())
                        .as(action.getKey() + " keeps notes within the phrase")
                        .allMatch(note -> note.tick() < edited.phrase().length());
                if (!picked.isEmpty() && !OF_ALL.contains(action.getKey())) {
                    for (Note note : phrase.notes()) {
                        if (!picked.contains(note.id())) {
                            assertThat(edited.phrase().notes().findOrNull(note.id()))
                                    .as(action.getKey() + " leaves " + note)
                                    .isEqualTo(note);
                        }
                    }
                }
                assertThat(edited.phrase().id()).isEqualTo(phrase.id());
            }
        });
    }

    @Test
    void anEmptyPhraseIsNoTrouble() {
        Randoms randoms = new Randoms(1);
        Phrase empty = Phrase.of("Empty", 61_440, List.of());
        Around around = new Around(randoms.key(), randoms.time());
        ALL.forEach((name, action) -> {
            Edited edited = action.on(empty, Set.of(), around, randoms);
            assertThat(edited.phrase().notes()).as(name).isEmpty();
            assertThat(edited.said()).as(name).isNotBlank();
        });
    }

    /** Each of these done twice, or there and back, is what was. */
    @Test
    void thereAndBackIsWhatWas() {
        Tries.of(60, "there and back", seed -> {
            Randoms randoms = new Randoms(seed);
            Phrase any = randoms.phrase("Tide");
            // Notes that do not last past the end, and stay within all pitches.
            Phrase phrase = any.withNotes(any.notes()
                    .withAll(any.notes().stream()
                            .map(note -> note.withPitch(40 + note.pitch() % 40)
                                    .withLength(Math.min(note.length(), any.length() - note.tick())))
                            .toList()));
            Around around = new Around(randoms.key(), randoms.time());
            Set<Integer> none = Set.of();
            int by = randoms.between(-20, 20);
            assertThat(back(phrase, p -> Pitches.transpose(p, none, by), p -> Pitches.transpose(p, none, -by)))
                    .isEqualTo(phrase);
            assertThat(back(phrase, p -> Pitches.mirror(p, none, around), p -> Pitches.mirror(p, none, around)))
                    .isEqualTo(phrase);
            assertThat(back(phrase, p -> Times.reverse(p, none), p -> Times.reverse(p, none)))
                    .isEqualTo(phrase);
            long ticks = randoms.between(-100_000, 100_000);
            assertThat(back(phrase, p -> Times.shiftRound(p, none, ticks), p -> Times.shiftRound(p, none, -ticks)))
                    .isEqualTo(phrase);
            assertThat(back(phrase, p -> Times.stretch(p, none, 2, around), p -> Times.stretch(p, none, 0.5, around)))
                    .isEqualTo(phrase);
            assertThat(back(
                            phrase,
                            p -> Shapes.twice(p, none, around),
                            p -> Shapes.length(p, none, phrase.length(), around)))
                    .isEqualTo(phrase);
            Edited once = Pitches.intoKey(phrase, none, Pitches.Into.NEAREST, around);
            assertThat(Pitches.intoKey(once.phrase(), none, Pitches.Into.NEAREST, around)
                            .phrase())
                    .as("what is in the key stays")
                    .isEqualTo(once.phrase());
            assertThat(once.phrase().notes()).allMatch(note -> around.key().contains(note.pitch()));
        });
    }

    private static Phrase back(
            Phrase phrase,
            java.util.function.Function<Phrase, Edited> there,
            java.util.function.Function<Phrase, Edited> again) {
        return again.apply(there.apply(phrase).phrase()).phrase();
    }
}
