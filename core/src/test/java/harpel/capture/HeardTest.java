package harpel.capture;

import static org.assertj.core.api.Assertions.assertThat;

import harpel.event.Message;
import harpel.event.NoteEnd;
import harpel.event.NoteStart;
import harpel.phrase.Note;
import harpel.run.Tap;
import harpel.run.Told;
import harpel.time.MeterMap;
import java.util.List;
import org.junit.jupiter.api.Test;

/** The exact memory: what is kept, over starts and stops, within its bytes, and in which chords. */
class HeardTest {
    private static final long BEAT = 15_360;
    private static final long BAR = 4 * BEAT;

    private final Heard heard = new Heard();

    private NoteStart start(String place, long tick, int pitch) {
        NoteStart note = NoteStart.played(tick, 0, 0, pitch, 90);
        heard.left("lead", place, note);
        return note;
    }

    private void end(String place, NoteStart note, long tick) {
        heard.left("lead", place, new NoteEnd(tick, note, 30));
    }

    private List<String> sound(long from, long to) {
        return heard.take("lead", Tap.SOUND, from, to).notes().stream()
                .map(note -> note.pitch() + " " + note.tick() + "+" + note.length())
                .toList();
    }

    @Test
    void notesAreKeptExactlyAndCutAtTheEdges() {
        NoteStart across = start(Tap.SOUND, 100, 60);
        NoteStart within = start(Tap.SOUND, BAR + 5, 64);
        end(Tap.SOUND, within, BAR + 105);
        end(Tap.SOUND, across, BAR + 500);
        NoteStart still = start(Tap.SOUND, BAR + 600, 67);
        heard.left("lead", Tap.SOUND, Message.control(BAR + 7, 0, 0, 1, 99));
        assertThat(sound(BAR, 2 * BAR)).containsExactly("60 0+500", "64 5+100", "67 600+" + (BAR - 600));
        Heard.Take take = heard.take("lead", Tap.SOUND, BAR, 2 * BAR);
        assertThat(take.notes()).extracting(Note::velocity).containsOnly(90);
        assertThat(take.notes().get(1).release()).isEqualTo(30);
        assertThat(take.messages())
                .singleElement()
                .satisfies(message -> assertThat(message.tick()).isEqualTo(7));
        assertThat(heard.take("other", Tap.SOUND, 0, BAR).notes()).isEmpty();
        end(Tap.SOUND, still, BAR + 601);
    }

    @Test
    void whatIsForgottenIsGoneAtOnceAndTimeBeginsAnew() {
        heard.tell(new Told.Restarted(0, BAR));
        end(Tap.SOUND, start(Tap.SOUND, 3 * BAR, 60), 3 * BAR + 10);
        heard.tell(new Told.Restarted(0, BAR));
        Heard.Memory before = heard.turnTo(new Heard.Memory());
        NoteStart sounds = start(Tap.SOUND, 5, 48);
        assertThat(heard.turnTo(before)).isNotSameAs(before);
        assertThat(sound(0, 9 * BAR)).as("it comes back with its piece").containsExactly("60 " + 3 * BAR + "+10");
        end(Tap.SOUND, sounds, BEAT);
        assertThat(sound(0, 9 * BAR)).as("and has nothing of the other").hasSize(1);
        heard.turnTo(new Heard.Memory());
        assertThat(sound(0, 9 * BAR)).isEmpty();
        assertThat(heard.last()).isZero();
        assertThat(heard.onAxis(5)).isEqualTo(5);
        end(Tap.SOUND, start(Tap.SOUND, BEAT, 64), 2 * BEAT);
        assertThat(sound(0, 9 * BAR)).containsExactly("64 " + BEAT + "+" + BEAT);
    }

    @Test
    void ofAPieceThatIsNotOpenAnyMoreTheLatestIsKept() {
        for (int i = 0; i < Heard.KEPT_BYTES / 8; i++) {
            end(Tap.SOUND, start(Tap.SOUND, i * 10L, 60), i * 10L + 5);
        }
        long last = heard.last();
        Heard.Memory before = heard.turnTo(new Heard.Memory());
        start(Tap.SOUND, 0, 48);
        heard.turnTo(before);
        assertThat(heard.bytes()).isBetween(Heard.KEPT_BYTES / 2, Heard.KEPT_BYTES);
        assertThat(heard.last()).isEqualTo(last);
        assertThat(sound(last - 20, last)).hasSize(2);
    }

    @Test
    void whatIsOnlyTriedIsNotHeardAndPushesNothingOut() {
        NoteStart played = start("sound", 100, 60);
        end("sound", played, 300);
        long last = heard.last();
        for (int i = 1; i <= 14; i++) {
            heard.tell(new Told.Restarted(i * 7L, BAR));
            NoteStart tried = NoteStart.auditioned(i * 7L, i, 0, 72, 90).derive(i * 7L, 84, 90);
            heard.tell(new Told.Left("bells", "sound", tried));
            heard.tell(new Told.Left("bells", "sound", NoteEnd.plain(i * 7L + BEAT, tried)));
        }
        assertThat(heard.last()).isEqualTo(last);
        assertThat(sound(0, 20 * BAR)).hasSize(1);
    }

    @Test
    void timeGoesOnOverStopsStartsAndJumpsByWholeBars() {
        NoteStart first = start(Tap.SOUND, BEAT, 60);
        end(Tap.SOUND, first, 2 * BEAT);
        heard.tell(new Told.Restarted(0, BAR));
        assertThat(heard.onAxis(0)).as("the next bar line after what was heard").isEqualTo(BAR);
        end(Tap.SOUND, start(Tap.SOUND, BEAT, 62), 2 * BEAT);
        heard.tell(new Told.Restarted(40 * BAR + BEAT, BAR));
        assertThat(heard.onAxis(40 * BAR + BEAT)).as("a jump leaves no gap").isEqualTo(2 * BAR + BEAT);
        end(Tap.SOUND, start(Tap.SOUND, 40 * BAR + 2 * BEAT, 64), 40 * BAR + 3 * BEAT);
        assertThat(sound(0, 3 * BAR))
                .containsExactly(
                        "60 " + BEAT + "+" + BEAT,
                        "62 " + (BAR + BEAT) + "+" + BEAT,
                        "64 " + (2 * BAR + 2 * BEAT) + "+" + BEAT);
    }

    @Test
    void whatNobodyEndedEndsWhereTimeBeginsAnew() {
        start(Tap.SOUND, 0, 60);
        end(Tap.SOUND, start(Tap.SOUND, BEAT, 61), 2 * BEAT);
        heard.tell(new Told.Restarted(0, BAR));
        assertThat(sound(0, 4 * BAR)).containsExactly("60 0+" + 2 * BEAT, "61 " + BEAT + "+" + BEAT);
    }

    /** 1,000 notes a second for 5 minutes at 120 quarters a minute, at ten places: nothing is missing. */
    @Test
    void fiveMinutesOfAThousandNotesASecondAtTenPlacesStayWithin64Megabytes() {
        int notes = 5 * 60 * 1000;
        long apart = 2 * BEAT / 1000;
        for (int i = 0; i < notes; i++) {
            for (int place = 0; place < 10; place++) {
                end("place" + place, start("place" + place, i * apart, 60 + i % 12), i * apart + 10);
            }
        }
        assertThat(heard.bytes()).isLessThanOrEqualTo(Heard.MOST_BYTES);
        for (int place = 0; place < 10; place++) {
            List<Note> kept =
                    heard.take("lead", "place" + place, 0, notes * apart).notes();
            assertThat(kept).hasSize(notes);
            assertThat(kept.get(notes - 1).tick()).isEqualTo((notes - 1) * apart);
        }
    }

    @Test
    void whatIsOldestIsGivenUpFirst() {
        long most = 3L * HeardPlace.LONGEST * HeardPlace.NOTE_BYTES;
        Heard little = new Heard(most);
        int notes = 10 * HeardPlace.LONGEST;
        for (int i = 0; i < notes; i++) {
            NoteStart note = NoteStart.played(i, 0, 0, 60, 90);
            little.left("lead", Tap.SOUND, note);
            little.left("lead", Tap.SOUND, NoteEnd.plain(i + 1, note));
            little.left("bass", Tap.SOUND, Message.control(i, 0, 0, 1, i % 128));
        }
        assertThat(little.bytes()).isLessThanOrEqualTo(most);
        long from = little.keptFrom("lead", Tap.SOUND);
        assertThat(from).isPositive();
        List<Note> kept = little.take("lead", Tap.SOUND, 0, 1L << 40).notes();
        assertThat(kept).as("from there on nothing is missing").hasSize((int) (notes - from));
        assertThat(kept.get(0).tick()).isEqualTo(from);
        List<Message> messages = little.take("bass", Tap.SOUND, 0, 1L << 40).messages();
        assertThat(messages).hasSizeLessThan(notes);
        assertThat(messages.get(messages.size() - 1).tick()).isEqualTo(notes - 1);
        assertThat(little.keptFrom("lead", Tap.INPUT)).isEqualTo(Long.MAX_VALUE);
    }

    @Test
    void manyPlacesWhereLittleComesByTakeLittle() {
        for (int place = 0; place < 800; place++) {
            end("place" + place, start("place" + place, place, 60), place + 10);
        }
        assertThat(heard.bytes()).isLessThan(4L << 20);
    }

    /** A reader beside the writer: what it reads is always whole, in order, and never less than before. */
    @Test
    void whoReadsWhileItIsWrittenReadsWhatWasHeard() throws Exception {
        Thread writer = new Thread(() -> {
            for (int i = 0; i < 60_000; i++) {
                end(Tap.SOUND, start(Tap.SOUND, 10L * i, 36 + i % 60), 10L * i + 5);
                heard.left("lead", Tap.SOUND, Message.control(10L * i, 0, 0, 7, i % 128));
            }
        });
        writer.start();
        int before = 0;
        while (writer.isAlive()) {
            Heard.Take take = heard.take("lead", Tap.SOUND, 0, 1L << 40);
            List<Note> notes = take.notes();
            assertThat(notes.size()).isGreaterThanOrEqualTo(before);
            before = notes.size();
            // The last may still have been on its way.
            for (int i = 0; i + 1 < notes.size(); i += 97) {
                assertThat(notes.get(i))
                        .isEqualTo(new Note(Note.NEW, 10L * i, 5, 36 + i % 60, 90, 30, harpel.phrase.Traits.PLAIN));
            }
            for (int i = 0; i < take.messages().size(); i += 97) {
                assertThat(take.messages().get(i).data(2)).isEqualTo(i % 128);
            }
        }
        writer.join();
        assertThat(heard.take("lead", Tap.SOUND, 0, 1L << 40).notes()).hasSize(60_000);
    }

    @Test
    void chordsBeginWhereSomethingIsStruckWhileNothingIsHeld() {
        NoteStart c = start(Tap.INPUT, 10, 60);
        NoteStart e = start(Tap.INPUT, BEAT / 2, 64);
        end(Tap.INPUT, c, BEAT);
        end(Tap.INPUT, e, 2 * BEAT - 50);
        NoteStart f = start(Tap.INPUT, 2 * BEAT - 40, 65);
        end(Tap.INPUT, f, 6 * BEAT);
        end(Tap.INPUT, start(Tap.INPUT, 7 * BEAT + 100, 67), 7 * BEAT + 200);
        assertThat(heard.chords("lead", 0, 2 * BAR, MeterMap.FOUR_FOUR))
                .as("each with its own first note")
                .containsExactly(10L, 2 * BEAT - 40, 7 * BEAT + 100, 2 * BAR);
        end(Tap.INPUT, start(Tap.INPUT, 2 * BAR, 60), 2 * BAR + BEAT + BEAT / 16);
        NoteStart next = start(Tap.INPUT, 2 * BAR + BEAT, 62);
        end(Tap.INPUT, next, 2 * BAR + 2 * BEAT);
        assertThat(heard.chords("lead", 2 * BAR, 3 * BAR, MeterMap.FOUR_FOUR))
                .as("fingers that hang over")
                .containsExactly(2 * BAR, 2 * BAR + BEAT, 3 * BAR);
        assertThat(heard.chords("other", 0, BAR, MeterMap.FOUR_FOUR)).isEmpty();
        assertThat(heard.chordBars("lead", 0, 3 * BAR, MeterMap.FOUR_FOUR))
                .as("each bar in which a chord begins")
                .containsExactly(0L, BAR, 2 * BAR, 3 * BAR);
        end(Tap.INPUT, start(Tap.INPUT, 4 * BAR - 40, 60), 4 * BAR + BEAT);
        assertThat(heard.chordBars("lead", 3 * BAR, 5 * BAR, MeterMap.FOUR_FOUR))
                .as("struck a little before the bar line")
                .containsExactly(4 * BAR, 5 * BAR);
    }
}
