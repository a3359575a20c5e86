package harpel.phrase.action;

import static org.assertj.core.api.Assertions.assertThat;

import harpel.event.Message;
import harpel.phrase.Note;
import harpel.phrase.Phrase;
import harpel.phrase.Traits;
import harpel.theory.Key;
import harpel.time.MeterMap;
import harpel.time.TempoMap;
import harpel.time.Ticks;
import harpel.time.TimeMap;
import harpel.time.TimeValue;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;

/** Every action against worked examples, in 480 ticks a quarter. */
class ActionsTest {
    private static final long UNIT = Ticks.PER_QUARTER / 480;
    private static final long BAR = 1920 * UNIT;
    private static final Around AROUND = new Around(Key.C_MAJOR, new TimeMap(TempoMap.of(120), MeterMap.FOUR_FOUR));
    private static final Set<Integer> ALL = Set.of();

    /** Notes as "pitch start+length", with the velocity behind a v where it is not 90. */
    private static Phrase phrase(long length, String... notes) {
        List<Note> list = new ArrayList<>();
        for (String text : notes) {
            String[] parts = text.split("[ +v]");
            int velocity = parts.length > 3 ? Integer.parseInt(parts[3]) : 90;
            list.add(Note.of(
                    Long.parseLong(parts[1]) * UNIT,
                    Long.parseLong(parts[2]) * UNIT,
                    Integer.parseInt(parts[0]),
                    velocity));
        }
        return Phrase.of("P", length * UNIT, list);
    }

    private static Phrase example() {
        return phrase(1920, "57 0+240", "60 240+240", "64 720+480", "55 1680+240");
    }

    private static List<String> notes(Edited edited) {
        return notes(edited.phrase());
    }

    private static List<String> notes(Phrase phrase) {
        return phrase.notes().stream()
                .map(note -> note.pitch() + " " + note.tick() / UNIT + "+" + note.length() / UNIT
                        + (note.velocity() == 90 ? "" : "v" + note.velocity()))
                .toList();
    }

    private static Set<Integer> at(Phrase phrase, Integer... pitches) {
        return phrase.notes().stream()
                .filter(note -> List.of(pitches).contains(note.pitch()))
                .map(Note::id)
                .collect(Collectors.toSet());
    }

    // Time

    @Test
    void shiftedRoundRightAndLeftAndBack() {
        Phrase example = example();
        Edited right = Times.shiftRound(example, ALL, 240 * UNIT);
        assertThat(notes(right)).containsExactly("55 0+240", "57 240+240", "60 480+240", "64 960+480");
        assertThat(notes(Times.shiftRound(example, ALL, -240 * UNIT)))
                .containsExactly("60 0+240", "64 480+480", "55 1440+240", "57 1680+240");
        assertThat(Times.shiftRound(right.phrase(), ALL, -240 * UNIT).phrase()).isEqualTo(example);
        assertThat(right.said()).isEqualTo("4 notes shifted round to the right");
    }

    @Test
    void theFirstComesToTheMarkAndTheOthersWithIt() {
        Phrase example = example();
        assertThat(notes(Times.beginAt(example, at(example, 60, 64), 480 * UNIT)))
                .containsExactly("57 0+240", "60 480+240", "64 960+480", "55 1680+240");
        assertThat(notes(Times.beginAt(example, at(example, 60, 64), 0)))
                .containsExactly("57 0+240", "60 0+240", "64 480+480", "55 1680+240");
        assertThat(Times.beginAt(phrase(1920), ALL, 480).said()).isEqualTo("There is no note to move.");
    }

    @Test
    void ontoTheGridWithStrengthSwingAndEnds() {
        Phrase late = phrase(1920, "60 30+200", "62 250+230", "64 1900+100");
        TimeValue eighth = TimeValue.parse("1/8");
        assertThat(notes(Times.ontoGrid(late, ALL, eighth, 50, 100, false, AROUND)))
                .as("what is nearest to the end is the beginning of the loop")
                .containsExactlyInAnyOrder("60 0+200", "64 0+100", "62 240+230");
        assertThat(notes(Times.ontoGrid(late, at(late, 60, 62), eighth, 50, 50, false, AROUND)))
                .containsExactly("60 15+200", "62 245+230", "64 1900+100");
        assertThat(notes(Times.ontoGrid(late, at(late, 62), eighth, 66.66666666666667, 100, true, AROUND)))
                .as("the off-beat of a 2:1 swing lies at two thirds of the beat")
                .contains("62 320+160");
        Edited all = Times.ontoGrid(late, ALL, eighth, 50, 100, true, AROUND);
        assertThat(all.said()).isEqualTo("3 notes onto 1/8; 3 moved, the furthest by 31 ms");
        assertThat(Times.ontoGrid(all.phrase(), ALL, eighth, 50, 100, true, AROUND)
                        .said())
                .endsWith("all lay there");
    }

    @Test
    void legatoLastsUntilTheNextStartAndTheLastToTheEnd() {
        Phrase chords = phrase(1920, "57 0+100", "60 0+50", "64 960+10", "67 960+10");
        assertThat(notes(Times.legato(chords, ALL, AROUND)))
                .containsExactly("57 0+960", "60 0+960", "64 960+960", "67 960+960");
        assertThat(notes(Times.legato(example(), ALL, AROUND)))
                .containsExactly("57 0+240", "60 240+480", "64 720+960", "55 1680+240");
    }

    /** Chords as hands play them, their notes up to 25 ms apart (24 of these at 120 bpm), are chords all the same. */
    @Test
    void whatIsStruckTogetherIsOneChordToLegatoAndStrum() {
        Phrase played = phrase(1920, "57 0+100", "64 5+100", "60 20+50", "64 960+10", "57 984+10", "60 985+10");
        assertThat(notes(Times.legato(played, ALL, AROUND)))
                .as("the last came too late to be struck with the others")
                .containsExactly("57 0+960", "64 5+955", "60 20+940", "64 960+25", "57 984+1", "60 985+935");
        assertThat(notes(Times.strumApart(phrase(1920, "57 0+100", "64 5+100", "60 20+50"), ALL, 10 * UNIT, AROUND)))
                .containsExactly("57 0+100", "60 10+60", "64 20+85");
    }

    @Test
    void earlierAndLaterStayInThePhrase() {
        Phrase example = example();
        assertThat(notes(Times.move(example, at(example, 60, 64), 240 * UNIT)))
                .containsExactly("57 0+240", "60 480+240", "64 960+480", "55 1680+240");
        assertThat(Times.move(example, ALL, -UNIT).said()).isEqualTo("The first is at the beginning.");
        assertThat(notes(Times.move(example, at(example, 55), 480 * UNIT)).get(3))
                .startsWith("55 1919");
    }

    @Test
    void halfDoubleAndStretch() {
        Phrase example = example();
        Edited half = Times.stretch(example, ALL, 0.5, AROUND);
        assertThat(notes(half)).containsExactly("57 0+120", "60 120+120", "64 360+240", "55 840+120");
        assertThat(half.phrase().length()).isEqualTo(BAR / 2);
        assertThat(Times.stretch(half.phrase(), ALL, 2, AROUND).phrase()).isEqualTo(example);
        Edited picked = Times.stretch(example, at(example, 64, 55), 2, AROUND);
        assertThat(notes(picked)).containsExactly("57 0+240", "60 240+240", "64 720+960", "55 2640+480");
        assertThat(picked.phrase().length()).as("whole bars longer").isEqualTo(2 * BAR);
    }

    @Test
    void reversedTwiceIsTheOriginal() {
        Phrase example = example();
        Edited reversed = Times.reverse(example, ALL);
        assertThat(notes(reversed)).containsExactly("55 0+240", "64 720+480", "60 1440+240", "57 1680+240");
        assertThat(Times.reverse(reversed.phrase(), ALL).phrase()).isEqualTo(example);
        assertThat(notes(Times.reverse(example, at(example, 57, 60))))
                .containsExactly("60 0+240", "57 240+240", "64 720+480", "55 1680+240");
    }

    @Test
    void strummedApartKeepsEnds() {
        Phrase chord = phrase(1920, "57 0+480", "60 0+480", "64 0+20");
        assertThat(notes(Times.strumApart(chord, ALL, 10 * UNIT, AROUND)))
                .containsExactly("57 0+480", "60 10+470", "64 19+0");
    }

    // Pitch

    @Test
    void octavesSemitonesAndWhatWouldLeaveStays() {
        Phrase high = phrase(1920, "60 0+240", "120 240+240");
        Edited up = Pitches.transpose(high, ALL, 12);
        assertThat(notes(up)).containsExactly("72 0+240", "120 240+240");
        assertThat(up.said()).isEqualTo("1 note up an octave; 1 stayed, as they would leave the 128 pitches");
        assertThat(notes(Pitches.transpose(high, ALL, -3))).containsExactly("57 0+240", "117 240+240");
    }

    @Test
    void allVelocitiesTo88ThenNotesAbove59AnOctaveDown() {
        Phrase example = example();
        Phrase even = Velocities.equal(example, ALL, 88).phrase();
        Phrase lower = Pitches.transpose(even, at(even, 60, 64), -12).phrase();
        assertThat(notes(lower)).containsExactly("57 0+240v88", "48 240+240v88", "52 720+480v88", "55 1680+240v88");
    }

    @Test
    void degreesOfTheKeyAndIntoIt() {
        Phrase some = phrase(1920, "60 0+240", "64 240+240", "66 480+240", "70 720+240");
        assertThat(notes(Pitches.degrees(some, at(some, 60, 64), 1, AROUND)))
                .containsExactly("62 0+240", "65 240+240", "66 480+240", "70 720+240");
        assertThat(notes(Pitches.intoKey(some, ALL, Pitches.Into.NEAREST, AROUND)))
                .as("of two equally near the lower")
                .containsExactly("60 0+240", "64 240+240", "65 480+240", "69 720+240");
        assertThat(notes(Pitches.intoKey(some, ALL, Pitches.Into.UP, AROUND)))
                .containsExactly("60 0+240", "64 240+240", "67 480+240", "71 720+240");
        assertThat(notes(Pitches.intoKey(some, ALL, Pitches.Into.DOWN, AROUND)).get(3))
                .isEqualTo("69 720+240");
    }

    @Test
    void mirroredTwiceIsTheOriginal() {
        Phrase example = example();
        Edited mirrored = Pitches.mirror(example, ALL, AROUND);
        assertThat(notes(mirrored)).containsExactly("62 0+240", "59 240+240", "55 720+480", "64 1680+240");
        assertThat(mirrored.said()).isEqualTo("4 notes mirrored between G3 and E4");
        assertThat(Pitches.mirror(mirrored.phrase(), ALL, AROUND).phrase()).isEqualTo(example);
    }

    // Velocity and chance

    @Test
    void louderSofterAndRampStayWithin1To127() {
        Phrase example = example();
        assertThat(Velocities.louder(example, ALL, 60).phrase().notes()).allMatch(note -> note.velocity() == 127);
        assertThat(Velocities.louder(example, ALL, -200).phrase().notes()).allMatch(note -> note.velocity() == 1);
        assertThat(Velocities.ramp(example, ALL, 20, 90).phrase().notes())
                .extracting(Note::velocity)
                .containsExactly(20, 30, 50, 90);
    }

    @Test
    void loosenedByASeedIsRepeatable() {
        Phrase example = example();
        Phrase once = Velocities.loosen(example, ALL, 8, 3).phrase();
        assertThat(Velocities.loosen(example, ALL, 8, 3).phrase()).isEqualTo(once);
        assertThat(Velocities.loosen(example, ALL, 8, 4).phrase()).isNotEqualTo(once);
        assertThat(once.notes()).allMatch(note -> Math.abs(note.velocity() - 90) <= 8);
    }

    @Test
    void chanceAtRandomSaysHowManyAreToBeExpected() {
        Phrase example = example();
        Edited drawn = Velocities.chanceAtRandom(example, ALL, 40, 60, 5, AROUND);
        assertThat(drawn.phrase().notes())
                .allMatch(note -> note.traits().chance() >= 40 && note.traits().chance() <= 60);
        assertThat(drawn.said()).matches("4 notes with a chance of 40–60 %; [12]\\.\\d notes a bar are to be expected");
        assertThat(Velocities.chance(example, at(example, 57, 60), 50, AROUND).said())
                .isEqualTo("2 notes to 50 %; 3.0 notes a bar are to be expected");
    }

    @Test
    void offAndOnAgainKeepTheChance() {
        Phrase example = Velocities.chance(example(), ALL, 30, AROUND).phrase();
        Phrase off = Velocities.off(example, ALL).phrase();
        assertThat(off.notes()).allMatch(note -> note.traits().equals(Traits.of(30, true, Map.of())));
        assertThat(off.expectedNotes()).isZero();
        assertThat(Velocities.off(off, ALL).phrase()).isEqualTo(example);
    }

    // Notes

    @Test
    void aCutThatIsJoinedGivesTheOldNoteBack() {
        Phrase example = phrase(3840, "57 0+240", "60 240+240", "64 720+480", "55 1680+240");
        Edited cut = Shapes.cutAt(example, ALL, 960 * UNIT);
        assertThat(notes(cut)).containsExactly("57 0+240", "60 240+240", "64 720+240", "64 960+240", "55 1680+240");
        assertThat(cut.picked()).hasSize(2);
        assertThat(Shapes.join(cut.phrase(), cut.picked()).phrase()).isEqualTo(example);
        Note second = cut.phrase().notes().get(3);
        Phrase moved = Times.move(cut.phrase(), Set.of(second.id()), BAR).phrase();
        Edited apart = Shapes.join(moved, cut.picked());
        assertThat(apart.phrase().notes()).hasSize(5);
        assertThat(apart.said()).isEqualTo("No two notes of one pitch touch.");
        assertThat(Shapes.cutAt(example, ALL, 0).said()).isEqualTo("No note sounds across that place.");
    }

    @Test
    void fillRepeatsByWholeBeatsToTheEnd() {
        Phrase begun = phrase(1920, "57 0+240", "60 240+200");
        assertThat(notes(Shapes.fill(begun, ALL, AROUND)))
                .containsExactly(
                        "57 0+240",
                        "60 240+200",
                        "57 480+240",
                        "60 720+200",
                        "57 960+240",
                        "60 1200+200",
                        "57 1440+240",
                        "60 1680+200");
        Phrase late = phrase(1920, "57 480+500", "60 1000+200");
        assertThat(notes(Shapes.fill(late, ALL, AROUND)))
                .as("two beats, from its own beat")
                .containsExactly("57 480+500", "60 1000+200", "57 1440+500");
    }

    @Test
    void trimTwiceAndLength() {
        Phrase late = phrase(4 * 1920, "57 1930+240", "60 3000+240");
        Edited trimmed = Shapes.trim(late, ALL, AROUND);
        assertThat(notes(trimmed)).containsExactly("57 10+240", "60 1080+240");
        assertThat(trimmed.phrase().length()).isEqualTo(BAR);
        Edited twice = Shapes.twice(trimmed.phrase(), ALL, AROUND);
        assertThat(notes(twice)).containsExactly("57 10+240", "60 1080+240", "57 1930+240", "60 3000+240");
        assertThat(twice.said()).isEqualTo("Twice as long now, 2 bars");
        Edited shorter = Shapes.length(twice.phrase(), ALL, BAR, AROUND);
        assertThat(shorter.phrase()).isEqualTo(trimmed.phrase());
        assertThat(shorter.said()).isEqualTo("The phrase ends after 1 bar; 2 notes past it taken out");
    }

    @Test
    void pastedNotesArePickedAndWhatLiesPastTheEndIsSaid() {
        Phrase example = example();
        Edited pasted = Shapes.paste(example, example.notes(), 960 * UNIT);
        assertThat(pasted.picked()).hasSize(3);
        assertThat(pasted.said()).isEqualTo("3 notes pasted; 1 lay past the phrase’s end");
        assertThat(Shapes.remove(pasted.phrase(), pasted.picked()).phrase()).isEqualTo(example);
    }

    // What else a phrase holds, and what is said

    private static Phrase withBend(Phrase phrase, long... units) {
        List<Message> bends = new ArrayList<>();
        for (long unit : units) {
            bends.add(Message.bend(unit * UNIT, 0, 0, 9000));
        }
        return phrase.withMessages(bends);
    }

    private static List<Long> bends(Edited edited) {
        return edited.phrase().messages().stream()
                .map(message -> message.tick() / UNIT)
                .toList();
    }

    @Test
    void bendsAndControllersGoWithTheWholePhrase() {
        Phrase bent = withBend(example(), 240, 960);
        assertThat(bends(Times.stretch(bent, ALL, 2, AROUND))).containsExactly(480L, 1920L);
        assertThat(bends(Times.stretch(bent, at(bent, 57), 2, AROUND)))
                .as("of picked notes alone they stay")
                .containsExactly(240L, 960L);
        assertThat(bends(Shapes.twice(bent, ALL, AROUND))).containsExactly(240L, 960L, 2160L, 2880L);
        Phrase late = withBend(phrase(4 * 1920, "57 1930+240"), 0, 1919, 1920, 3839, 3840);
        assertThat(bends(Shapes.trim(late, ALL, AROUND)))
                .as("those within the bars that are left")
                .containsExactly(0L, 1919L);
        assertThat(bends(Shapes.length(bent, ALL, 960 * UNIT, AROUND))).containsExactly(240L);
    }

    @Test
    void lengthsByAStepOrAllAlike() {
        Phrase example = example();
        Edited longer = Times.lengthen(example, at(example, 57, 64), 120 * UNIT);
        assertThat(notes(longer)).containsExactly("57 0+360", "60 240+240", "64 720+600", "55 1680+240");
        assertThat(longer.said()).isEqualTo("2 notes longer");
        Edited shorter = Times.lengthen(example, ALL, -300 * UNIT);
        assertThat(shorter.phrase().notes()).extracting(Note::length).containsExactly(1L, 1L, 180 * UNIT, 1L);
        assertThat(shorter.said()).isEqualTo("4 notes shorter");
        assertThat(notes(Times.lasting(example, ALL, 120 * UNIT)))
                .containsExactly("57 0+120", "60 240+120", "64 720+120", "55 1680+120");
    }

    @Test
    void whatWasDoneIsSaidInOneLine() {
        Phrase example = example();
        assertThat(Times.move(example, at(example, 60), 240 * UNIT).said()).isEqualTo("1 note later");
        assertThat(Times.move(example, at(example, 60), -240 * UNIT).said()).isEqualTo("1 note earlier");
        Phrase atEnd =
                phrase(1920, "57 0+240").withNotes(phrase(1920, "57 0+240").notes());
        Phrase last = Times.move(atEnd, ALL, 5000 * UNIT).phrase();
        assertThat(Times.move(last, ALL, UNIT).said()).isEqualTo("The last is at the phrase’s end.");
        assertThat(Times.stretch(example, ALL, 0.5, AROUND).said()).isEqualTo("4 notes half as long");
        assertThat(Times.stretch(example, ALL, 2, AROUND).said()).isEqualTo("4 notes twice as long");
        assertThat(Times.stretch(example, ALL, 1.5, AROUND).said()).isEqualTo("4 notes stretched to 150 %");
        assertThat(Times.shiftRound(example, ALL, -UNIT).said()).isEqualTo("4 notes shifted round to the left");
        assertThat(Velocities.louder(example, ALL, 5).said()).isEqualTo("4 notes louder by 5");
        assertThat(Velocities.louder(example, ALL, -5).said()).isEqualTo("4 notes softer by 5");
        assertThat(Pitches.degrees(example, ALL, -1, AROUND).said()).isEqualTo("4 notes down a degree of C major");
        assertThat(Pitches.degrees(example, ALL, 2, AROUND).said()).isEqualTo("4 notes up 2 degrees of C major");
        assertThat(Pitches.transpose(example, ALL, -12).said()).isEqualTo("4 notes down an octave");
        assertThat(Pitches.transpose(example, ALL, 0).said()).isEqualTo("0 notes up 0 octaves");
        Phrase cut = Shapes.cutAt(example, ALL, 960 * UNIT).phrase();
        assertThat(Shapes.join(cut, ALL).said()).isEqualTo("2 notes joined into 1");
        assertThat(Shapes.trim(example, ALL, AROUND).said()).isEqualTo("It is as short as its notes.");
        assertThat(Shapes.trim(phrase(3840, "57 0+240"), ALL, AROUND).said()).isEqualTo("Trimmed to 1 bar");
        assertThat(Shapes.trim(phrase(1920), ALL, AROUND).said()).isEqualTo("There is no note to trim to.");
    }

    @Test
    void whatIsAddedIsPickedWithWhatItCameFrom() {
        Phrase begun = phrase(1920, "57 0+240", "60 240+200");
        assertThat(Shapes.fill(begun, ALL, AROUND).picked()).hasSize(8);
        Phrase atBar = phrase(1920, "57 0+480");
        assertThat(notes(Shapes.fill(atBar, ALL, AROUND)))
                .as("a beat that is full takes no other")
                .containsExactly("57 0+480", "57 480+480", "57 960+480", "57 1440+480");
        assertThat(Shapes.cutAt(atBar, ALL, 480 * UNIT).said())
                .as("where it ends nothing is cut")
                .isEqualTo("No note sounds across that place.");
    }

    @Test
    void aWayRoundTheChancesAndEitherEndFirst() {
        Phrase example = example();
        assertThat(Velocities.stepChance(example, ALL, -10, AROUND).phrase().notes())
                .allMatch(note -> note.traits().chance() == 90);
        assertThat(Velocities.stepChance(example, ALL, 10, AROUND).phrase().notes())
                .as("past 100 it begins at 0")
                .allMatch(note -> note.traits().chance() == 0);
        Phrase never = Velocities.chance(example, ALL, 0, AROUND).phrase();
        assertThat(Velocities.stepChance(never, ALL, -10, AROUND).phrase().notes())
                .allMatch(note -> note.traits().chance() == 100);
        assertThat(Velocities.stepChance(never, ALL, 10, AROUND).phrase().notes())
                .allMatch(note -> note.traits().chance() == 10);
        assertThat(Velocities.stepChance(phrase(1920), ALL, 10, AROUND).said()).isEqualTo("There is no note.");
        assertThat(Velocities.chanceAtRandom(example, ALL, 60, 40, 5, AROUND))
                .isEqualTo(Velocities.chanceAtRandom(example, ALL, 40, 60, 5, AROUND));
        Phrase mixed = Velocities.off(example, at(example, 57)).phrase();
        assertThat(Velocities.off(mixed, ALL).phrase().notes())
                .as("while one sounds all are switched off")
                .allMatch(note -> note.traits().off());
    }

    @Test
    void drawsReachBothEnds() {
        List<Note> many = new ArrayList<>();
        for (int i = 0; i < 400; i++) {
            many.add(Note.of(i, 1, 60, 64));
        }
        Phrase phrase = Phrase.of("Many", BAR, many);
        assertThat(Velocities.loosen(phrase, ALL, 3, 1).phrase().notes())
                .extracting(Note::velocity)
                .contains(61, 67)
                .allMatch(velocity -> velocity >= 61 && velocity <= 67);
        assertThat(Velocities.chanceAtRandom(phrase, ALL, 40, 43, 1, AROUND)
                        .phrase()
                        .notes())
                .extracting(note -> note.traits().chance())
                .contains(40, 43)
                .allMatch(chance -> chance >= 40 && chance <= 43);
    }

    @Test
    void intoAKeyThatHasOneNoteNearTheEnds() {
        Phrase ends = phrase(1920, "1 0+240", "126 240+240");
        assertThat(notes(Pitches.intoKey(ends, ALL, Pitches.Into.NEAREST, AROUND)))
                .containsExactly("0 0+240", "125 240+240");
        assertThat(notes(Pitches.intoKey(ends, ALL, Pitches.Into.UP, AROUND)))
                .containsExactly("2 0+240", "127 240+240");
    }
}
