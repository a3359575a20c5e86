package harpel.print;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import harpel.chain.Chain;
import harpel.event.NoteStart;
import harpel.format.PieceFile;
import harpel.format.midi.MidiFile;
import harpel.format.midi.SmfForm;
import harpel.format.midi.SmfReader;
import harpel.offline.Tail;
import harpel.phrase.Note;
import harpel.phrase.Origin;
import harpel.phrase.Phrase;
import harpel.piece.Block;
import harpel.piece.Bracket;
import harpel.piece.Hearing;
import harpel.piece.Mark;
import harpel.piece.Part;
import harpel.piece.Piece;
import harpel.testkit.Played;
import harpel.theory.Key;
import harpel.time.MeterMap;
import harpel.time.TempoMap;
import harpel.time.Ticks;
import harpel.time.TimeMap;
import java.io.ByteArrayInputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import javax.sound.midi.MetaMessage;
import javax.sound.midi.MidiSystem;
import javax.sound.midi.Sequence;
import javax.sound.midi.Track;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** Prints of pieces: tails, several parts, files, what is lost, and how a print says where it comes from. */
class PrintOrderTest {
    private static final long QUARTER = Ticks.PER_QUARTER;
    private static final long BAR = 4 * QUARTER;

    /** A piece of one part, with a phrase of a bar. */
    private static Piece piece(String chain, Note... notes) {
        return Piece.empty()
                .withPhrase(Phrase.of("Tide", BAR, List.of(notes)))
                .withParts(List.of(Part.of("Lead", Played.chain(chain)).withPhrase("tide")));
    }

    private static Printed print(PrintOrder order) throws InterruptedException {
        return order.print(done -> {});
    }

    private static List<String> notes(Phrase phrase) {
        return phrase.notes().stream()
                .map(note ->
                        note.pitch() + " " + note.tick() / (double) QUARTER + "+" + note.length() / (double) QUARTER)
                .toList();
    }

    /** A quarter on the last beat of a bar with two echoes a beat apart: by hand, what each tail makes of it. */
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "CUT  | 60 3.0+1.0                                  | 1",
                "RING | 60 3.0+1.0, 60 4.0+1.0, 60 5.0+1.0           | 2",
                // The echoes that begin past the end fall on the first and the second beat.
                "ROUND| 60 0.0+1.0, 60 1.0+1.0, 60 3.0+1.0           | 1",
            })
    void whatRingsOverTheEndIsCutRingsOutOrComesInAtTheBeginning(Tail tail, String expected, int bars)
            throws InterruptedException {
        Piece piece =
                piece("{'effect':'echo','repeats':2,'time':'1/4','fade':0}", Note.of(3 * QUARTER, QUARTER, 60, 90));
        Phrase printed = print(PrintOrder.of(piece, "lead", tail)).phrase("lead", piece);
        assertThat(notes(printed)).containsExactly(expected.split(", "));
        assertThat(printed.length()).isEqualTo(bars * BAR);
        assertThat(printed.ready()).isTrue();
    }

    private static byte[] midi(Printed printed, SmfForm form) {
        return PrintFormat.plain().bytes(printed.allNotes(), form);
    }

    /** A phrase that is no whole number of bars loops as it does: three and a half beats, the echo of the last one on the half beat. */
    @Test
    void aPrintLoopsAsItsPhraseDoes() throws InterruptedException {
        Piece piece = piece("{'effect':'echo','repeats':1,'time':'1/4','fade':0}")
                .withPhrase(Phrase.of("Tide", 7 * QUARTER / 2, List.of(Note.of(3 * QUARTER, QUARTER / 2, 60, 90))));
        Phrase printed = print(PrintOrder.of(piece, "lead", Tail.ROUND)).phrase("lead", piece);
        assertThat(printed.length()).isEqualTo(7 * QUARTER / 2);
        assertThat(notes(printed)).containsExactly("60 0.5+0.5", "60 3.0+0.5");
    }

    /** A note that is held over the end, as by a latch, is cut there: nothing comes from a second round. */
    @Test
    void whatIsHeldOverTheSeamIsCut() throws InterruptedException {
        Piece piece = piece("{'effect':'latch'}", Note.of(2 * QUARTER, QUARTER, 60, 90));
        Phrase printed = print(PrintOrder.of(piece, "lead", Tail.ROUND)).phrase("lead", piece);
        assertThat(notes(printed)).containsExactly("60 2.0+2.0");
    }

    /** Whole notes 64 60 67 62 through Stray 100 %: the draws of the first round, those that are drawn and heard. */
    @Test
    void whatChanceDrewForTheFirstRoundIsPrinted() throws InterruptedException {
        Piece piece = piece(
                "{'effect':'stray','amount':100,'reach':11}",
                Note.of(0, QUARTER, 64, 90),
                Note.of(QUARTER, QUARTER, 60, 90),
                Note.of(2 * QUARTER, QUARTER, 67, 90),
                Note.of(3 * QUARTER, QUARTER, 62, 90));
        List<String> stopped =
                notes(print(PrintOrder.of(piece, "lead", Tail.STOP)).phrase("lead", piece));
        assertThat(notes(print(PrintOrder.of(piece, "lead", Tail.ROUND)).phrase("lead", piece)))
                .isEqualTo(stopped);
    }

    /** Without a phrase a print is 8 bars long: it begins with the first of them. */
    @Test
    void aGeneratorIsPrintedFromItsFirstBar() throws InterruptedException {
        Piece piece = Piece.empty().withParts(List.of(Part.of("Clock", Played.chain("{'effect':'polymeter'}"))));
        List<String> cut = notes(print(PrintOrder.of(piece, "clock", Tail.CUT)).phrase("clock", piece));
        assertThat(notes(print(PrintOrder.of(piece, "clock", Tail.ROUND)).phrase("clock", piece)))
                .isEqualTo(cut);
    }

    /** On the timeline it is blocks that are printed, and the print lies in their place: what is heard stays the same. */
    @Test
    void blocksArePrintedInTheirPlace() throws InterruptedException {
        Piece piece = piece(
                        "{'effect':'stray','amount':100,'reach':5},{'effect':'echo','repeats':1,'time':'1/4','fade':0}",
                        Note.of(0, QUARTER, 64, 90),
                        Note.of(3 * QUARTER, QUARTER, 60, 90))
                .withTimeline(true)
                .withPart(
                        "lead",
                        part -> part.withBlocks(List.of(
                                Block.of(BAR, BAR, "tide"),
                                Block.of(3 * BAR, 2 * BAR, "tide"),
                                Block.of(6 * BAR, BAR, "tide"))));
        PrintOrder whole = new PrintOrder(piece, Set.of("lead"), 0, 8 * BAR, Tail.CUT);
        List<Block> first = piece.part("lead").orElseThrow().blocks().subList(0, 2);
        PrintOrder order = PrintOrder.together(piece, "lead", first);
        Phrase printed = print(order).phrase("lead", piece);
        Piece with = Provenance.putBlock(piece, "lead", order, printed);
        assertThat(with.part("lead").orElseThrow().blocks())
                .extracting(Block::at)
                .as("one in the place of two; what rings on ends where the next begins")
                .containsExactly(BAR, 6 * BAR);
        assertThat(with.part("lead").orElseThrow().blocks().get(0).end()).isEqualTo(6 * BAR);
        assertThat(notes(print(new PrintOrder(with, Set.of("lead"), 0, 8 * BAR, Tail.CUT))
                        .phrase("lead", with)))
                .isEqualTo(notes(print(whole).phrase("lead", piece)));
    }

    private static List<String> heardOf(Piece piece, String part, long end) throws InterruptedException {
        return notes(
                print(new PrintOrder(piece, Set.of(part), 0, end, Tail.CUT)).phrase(part, piece));
    }

    /** Lead sends its notes to Bell as well, Sister hears what Lead hears, Bass stays by itself. */
    @ParameterizedTest
    @ValueSource(strings = {"lead", "bell"})
    void whoSharesNotesIsPrintedTogetherAndAllSoundsAsBefore(String printed) throws InterruptedException {
        Piece piece = Piece.empty()
                .withPhrase(Phrase.of(
                        "Tide",
                        BAR,
                        List.of(
                                Note.of(0, QUARTER, 60, 90),
                                Note.of(QUARTER, QUARTER, 64, 90),
                                Note.of(2 * QUARTER, QUARTER, 67, 90))))
                .withPhrase(Phrase.of("Bow", 3 * QUARTER, List.of(Note.of(0, QUARTER, 40, 90))))
                .withParts(List.of(
                        Part.of(
                                        "Lead",
                                        Played.chain(
                                                "{'effect':'send','to':'bell','way':'as-well'},{'effect':'transpose','octaves':1}"))
                                .withPhrase("tide"),
                        Part.of("Bell", Played.chain("{'effect':'transpose','semitones':7}"))
                                .withPhrase("bow"),
                        Part.of("Sister", Played.chain("{'effect':'transpose','octaves':-1}"))
                                .withHearing(new Hearing(Hearing.Source.INPUT_OF, "lead", 0)),
                        Part.of("Bass", Played.chain("{'effect':'latch'}")).withPhrase("bow")));
        PrintOrder order = PrintOrder.together(piece, printed, Tail.ROUND);
        assertThat(order.parts()).containsExactlyInAnyOrder("lead", "bell");
        assertThat(order.parts().iterator().next())
                .as("what was asked for comes first")
                .isEqualTo(printed);
        assertThat(order.to())
                .as("a bar and three beats begin together again after three bars")
                .isEqualTo(3 * BAR);
        assertThat(PrintOrder.together(piece, "bass", Tail.ROUND).parts()).containsExactly("bass");
        assertThat(PrintOrder.together(piece, "sister", Tail.ROUND).parts())
                .as("she only listens, and keeps the phrase when another is printed")
                .containsExactly("sister");
        Printed print = print(order);
        Piece with = piece;
        for (String part : order.parts()) {
            with = Provenance.put(with, part, print.phrase(part, with));
        }
        for (Part part : piece.parts()) {
            assertThat(heardOf(with, part.id(), 3 * BAR)).as(part.name()).isEqualTo(heardOf(piece, part.id(), 3 * BAR));
            assertThat(heardOf(piece, part.id(), 3 * BAR)).as(part.name()).isNotEmpty();
        }
        Piece back = Provenance.back(Provenance.back(with, "lead"), "bell");
        assertThat(back.parts()).isEqualTo(piece.parts());
    }

    /** Below plays along with what Lead hears: were Lead's blocks printed alone it would fall silent. */
    @Test
    void whoPlaysAlongOnTheTimelineIsPrintedTooAndAllSoundsAsBefore() throws InterruptedException {
        Piece piece = piece("{'effect':'transpose','semitones':2}", Note.of(0, QUARTER, 64, 90))
                .withTimeline(true);
        List<Part> parts = new ArrayList<>(piece.parts());
        parts.set(0, parts.get(0).withBlocks(List.of(Block.of(0, 2 * BAR, "tide"), Block.of(4 * BAR, BAR, "tide"))));
        parts.add(Part.of("Below", Played.chain("{'effect':'transpose','octaves':-1}"))
                .withHearing(new Hearing(Hearing.Source.INPUT_OF, "lead", 0))
                .withBlocks(List.of(Block.of(BAR, BAR, ""), Block.of(4 * BAR, BAR, ""))));
        Piece both = piece.withParts(parts);
        PrintOrder order = PrintOrder.together(
                both, "lead", both.part("lead").orElseThrow().blocks().subList(0, 1));
        assertThat(order.parts()).containsExactly("lead", "below");
        Printed printed = print(order);
        Piece with = both;
        for (String part : order.parts()) {
            with = Provenance.putBlock(with, part, order, printed.phrase(part, with));
        }
        for (String part : order.parts()) {
            PrintOrder before = new PrintOrder(both, Set.of(part), 0, 5 * BAR, Tail.CUT);
            PrintOrder after = new PrintOrder(with, Set.of(part), 0, 5 * BAR, Tail.CUT);
            assertThat(notes(print(before).phrase(part, both))).hasSizeGreaterThan(1);
            assertThat(notes(print(after).phrase(part, with)))
                    .isEqualTo(notes(print(before).phrase(part, both)));
        }
    }

    @Test
    void aPrintIsOfPartsThatAreThereAndGoesForward() {
        Piece piece = piece("{'effect':'latch'}");
        assertThatThrownBy(() -> PrintOrder.of(piece, "oboe", Tail.CUT))
                .hasMessage("there is no part \"oboe\"; there are lead");
        assertThatThrownBy(() -> new PrintOrder(piece, Set.of(), 0, BAR, Tail.CUT))
                .hasMessageContaining("one part");
        assertThatThrownBy(() -> new PrintOrder(piece, Set.of("lead"), BAR, BAR, Tail.CUT))
                .hasMessageContaining("behind its beginning");
        assertThat(PrintOrder.onceThrough(piece, Set.of("lead"))).isEqualTo(BAR);
        assertThat(PrintOrder.onceThrough(Piece.empty(), Set.of("part-1")))
                .as("8 bars where no phrase says how long")
                .isEqualTo(8 * BAR);
    }

    /** A generator in one part, another that hears what it sends, from bar 2 on, read by an independent reader. */
    @Test
    void severalPartsAreNamedTracksWithTempoMeterKeyAndMarks() throws Exception {
        Piece piece = Piece.empty()
                .withName("The Salt Clock")
                .withKey(Key.parse("D dorian"))
                .withTime(new TimeMap(
                        new TempoMap(List.of(
                                new TempoMap.Change(0, 90),
                                new TempoMap.Change(BAR / 2, 100),
                                new TempoMap.Change(BAR + QUARTER, 120))),
                        TimeMap.DEFAULT.meter()))
                .withMarks(List.of(Mark.of(0, "Ebb"), Mark.of(BAR, "Flood"), Mark.of(9 * BAR, "Late")))
                .withParts(List.of(
                        Part.of("Clock", Played.chain("{'effect':'polymeter'}")),
                        Part.of("Above", Played.chain("{'effect':'transpose','octaves':1}"))
                                .withHearing(
                                        new harpel.piece.Hearing(harpel.piece.Hearing.Source.OUTPUT_OF, "clock", 0))
                                .withVoice(new harpel.piece.Voice("", 4, "", null))));
        Set<String> both = new java.util.LinkedHashSet<>(List.of("clock", "above"));
        Printed printed = print(new PrintOrder(piece, both, BAR, 3 * BAR, Tail.CUT));
        Sequence file = MidiSystem.getSequence(new ByteArrayInputStream(midi(printed, SmfForm.PLAIN)));
        List<String> facts = new ArrayList<>();
        for (Track track : file.getTracks()) {
            for (int i = 0; i < track.size(); i++) {
                if (track.get(i).getMessage() instanceof MetaMessage meta && meta.getType() != 0x2F) {
                    byte[] data = meta.getData();
                    String shown = switch (meta.getType()) {
                        case 0x03, 0x06 -> new String(data, java.nio.charset.StandardCharsets.UTF_8);
                        case 0x51 ->
                            "tempo " + 60_000_000 / ((data[0] & 0xFF) << 16 | (data[1] & 0xFF) << 8 | data[2] & 0xFF);
                        case 0x58 -> "meter " + data[0] + "/" + (1 << data[1]);
                        default -> "key " + data[0] + " " + data[1];
                    };
                    facts.add(shown + " at " + track.get(i).getTick() / 960.0);
                }
            }
        }
        assertThat(facts)
                .containsExactlyInAnyOrder(
                        "The Salt Clock at 0.0",
                        "Clock at 0.0",
                        "Above at 0.0",
                        "meter 4/4 at 0.0",
                        "tempo 100 at 0.0",
                        "tempo 120 at 1.0",
                        // D dorian has the notes of C major: no sharps, no flats.
                        "key 0 0 at 0.0",
                        "Flood at 0.0");
        MidiFile read = SmfReader.read(midi(printed, SmfForm.PLAIN));
        List<MidiFile.Note> clock = read.lines().get(0).notes();
        List<MidiFile.Note> above = read.lines().get(1).notes();
        assertThat(clock).isNotEmpty();
        assertThat(clock.get(0).tick())
                .as("the file begins where the print does")
                .isLessThan(QUARTER);
        assertThat(above.stream().map(note -> note.tick() + " " + (note.pitch() - 12)))
                .as("what the other part sends, an octave higher")
                .containsExactlyElementsOf(clock.stream()
                        .map(note -> note.tick() + " " + note.pitch())
                        .toList());
        assertThat(above).allMatch(note -> note.channel() == 4);
        MidiFile one = SmfReader.read(midi(printed, SmfForm.of(0)));
        assertThat(one.notes()).hasSize(clock.size() + above.size());
        assertThat(one.marks()).containsExactly(Mark.of(0, "Flood"));
        assertThat(printed.count()).isEqualTo(clock.size() + above.size());
    }

    @ParameterizedTest
    @CsvSource({
        "D dorian, 0, 0",
        "A minor, 0, 1",
        "E major, 4, 0",
        "G mixolydian, 0, 0",
        "F# minor, 3, 1",
        "Bb major, -2, 0",
        "F lydian, 0, 0",
        "C harmonic minor, none, none",
        "C# major, -5, 0"
    })
    void keySignaturesFollowTheCircleOfFifths(String key, String sharps, String minor) throws Exception {
        Piece piece = piece("", Note.of(0, QUARTER, 60, 90)).withKey(Key.parse(key));
        byte[] midi = midi(print(PrintOrder.of(piece, "lead", Tail.CUT)), SmfForm.PLAIN);
        List<String> found = new ArrayList<>();
        Track conductor = MidiSystem.getSequence(new ByteArrayInputStream(midi)).getTracks()[0];
        for (int i = 0; i < conductor.size(); i++) {
            if (conductor.get(i).getMessage() instanceof MetaMessage meta && meta.getType() == 0x59) {
                found.add(meta.getData()[0] + "," + meta.getData()[1]);
            }
        }
        assertThat(found).isEqualTo(sharps.equals("none") ? List.of() : List.of(sharps + "," + minor));
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "{'effect':'transpose','octaves':4} | 86 | Lead, Transpose: 1 note outside 0–127 or the range of the stage",
                "{'effect':'lanes','lanes':[{'send-to':'oboe'}]} | 60 | Lead, Lanes: 4 notes sent to a part that is not there (“oboe”)",
                "{'effect':'script','code':'when note(n) { }'} | 60 | Lead, Script: *",
                "{'effect':'arpeggio','pace':'1/1','steps-lie-on':'bar-grid','late-catch':0} | 60 | "
                        + "Lead, Arpeggio: 1 note held too short for a step",
            })
    void whatIsLostOnTheWayIsSaid(String chain, int pitch, String expected) throws InterruptedException {
        Piece piece = piece(chain, Note.of(QUARTER, QUARTER / 2, pitch, 90), Note.of(0, QUARTER / 2, 40, 90));
        List<String> losses = print(PrintOrder.of(piece, "lead", Tail.CUT)).losses().stream()
                .map(Losses.Loss::shown)
                .toList();
        assertThat(losses).hasSize(1);
        assertThat(losses.get(0))
                .matches(expected.replace("(", "\\(").replace(")", "\\)").replace("*", ".+"));
    }

    @Test
    void whatArrivesIsNotCalledLost() throws InterruptedException {
        Piece piece = piece(
                "{'effect':'arpeggio','pace':'1/8'},{'effect':'echo','repeats':3}",
                Note.of(0, BAR, 60, 90),
                Note.of(0, BAR, 67, 90));
        assertThat(print(PrintOrder.of(piece, "lead", Tail.RING)).losses()).isEmpty();
    }

    @Test
    void aPrintSaysWhereItComesFromAndWhenThatHasChanged() throws Exception {
        Piece piece = piece("{'effect':'echo','repeats':1,'time':'1/4'}", Note.of(0, QUARTER, 60, 90));
        Phrase printed = print(PrintOrder.of(piece.withVariation(41), "lead", Tail.ROUND))
                .phrase("lead", piece);
        assertThat(printed.name()).isEqualTo("Printed 1, Tide");
        assertThat(printed.origin().kind()).isEqualTo(Origin.Kind.PRINTED);
        assertThat(printed.origin().details()).isEqualTo("“Tide”, bar 1, variation 41");
        Piece with = piece.withPhrase(printed).withPart("lead", part -> part.withPhrase(printed.id()));
        Piece read = PieceFile.read(PieceFile.write(with));
        Phrase again = read.phrase(printed.id()).orElseThrow();
        assertThat(Provenance.isStale(read, again)).isFalse();
        assertThat(Provenance.source(read, again)).contains(read.phrase("tide").orElseThrow());
        assertThat(Provenance.chain(again))
                .contains(read.part("lead").orElseThrow().chain());
        Piece otherChain = read.withPart("lead", part -> part.withChain(Played.chain("{'effect':'latch'}")));
        assertThat(Provenance.isStale(otherChain, again)).isTrue();
        Piece otherNotes = read.withPhrase(Phrase.of("Tide", BAR, List.of(Note.of(0, QUARTER, 61, 90))));
        assertThat(Provenance.isStale(otherNotes, again)).isTrue();
        assertThat(Provenance.isStale(read, read.phrase("tide").orElseThrow())).isFalse();
        Phrase second = print(PrintOrder.of(piece, "lead", Tail.CUT)).phrase("lead", with);
        assertThat(second.name()).isEqualTo("Printed 2, Tide");
    }

    @Test
    void aPrintTakesThePlaceOfAGeneratorAndOfWhatIsHeardAndGivesItBack() throws Exception {
        Piece piece = Piece.empty()
                .withParts(List.of(
                        Part.of("Clock", Played.chain("{'effect':'polymeter'}")),
                        Part.of("Above", Played.chain("{'effect':'transpose','octaves':1}"))
                                .withHearing(new Hearing(Hearing.Source.OUTPUT_OF, "clock", 0))));
        Piece printed = piece;
        for (String part : List.of("clock", "above")) {
            Phrase phrase = print(PrintOrder.of(printed, part, Tail.ROUND)).phrase(part, printed);
            assertThat(phrase.notes()).isNotEmpty();
            printed = Provenance.put(printed, part, phrase);
        }
        Piece read = PieceFile.read(PieceFile.write(printed));
        Part clock = read.part("clock").orElseThrow();
        Part above = read.part("above").orElseThrow();
        assertThat(clock.rack().off())
                .as("it would play by itself beside the print")
                .isTrue();
        assertThat(above.rack().off()).isFalse();
        assertThat(above.hearing()).isEqualTo(Hearing.NOTHING);
        Set<String> both = Set.of("clock", "above");
        long end = PrintOrder.onceThrough(read, both);
        for (String part : both) {
            assertThat(notes(print(new PrintOrder(read, both, 0, end, Tail.CUT)).phrase(part, read)))
                    .as("what is heard of %s is what was printed", part)
                    .isEqualTo(notes(
                            read.phrase(read.part(part).orElseThrow().phrase()).orElseThrow()));
        }
        Piece back = Provenance.back(Provenance.back(read, "clock"), "above");
        assertThat(back.parts()).isEqualTo(piece.parts());
        assertThat(back.phrases()).as("the prints stay in the list").hasSize(2);
        assertThat(Provenance.back(back, "clock"))
                .as("there is no way back twice")
                .isSameAs(back);
        assertThat(Provenance.isPrinted(read, clock)).isTrue();
        assertThat(Provenance.isPrinted(back, back.part("clock").orElseThrow())).isFalse();
    }

    @Test
    void aPrintIsMadeAgainOfWhatThereIsNowWithTheVariationOfThen() throws Exception {
        Piece piece =
                piece("{'effect':'stray','amount':50}", Note.of(0, QUARTER, 60, 90), Note.of(QUARTER, QUARTER, 64, 90));
        Phrase first =
                print(PrintOrder.of(piece.withVariation(9), "lead", Tail.CUT)).phrase("lead", piece);
        Piece placed = Provenance.put(piece, "lead", first);
        PrintOrder same = Provenance.again(placed, "lead");
        assertThat(same.piece().variation()).isEqualTo(9);
        assertThat(same.tail()).isEqualTo(Tail.CUT);
        assertThat(notes(print(same).phrase("lead", placed))).isEqualTo(notes(first));
        Piece longer = placed.withPhrase(Phrase.of("Tide", 2 * BAR, List.of(Note.of(0, QUARTER, 72, 90))));
        PrintOrder again = Provenance.again(longer, "lead");
        assertThat(again.to()).isEqualTo(2 * BAR);
        assertThat(print(again).phrase("lead", longer).notes()).hasSize(1);
    }

    @Test
    void whatGoesRoundIsPrintedAgainAsLoopsWhateverThePiecePlaysAs() throws Exception {
        Piece piece = piece("{'effect':'transpose','octaves':1}", Note.of(0, QUARTER, 60, 90));
        Phrase first = print(PrintOrder.of(piece, "lead", Tail.ROUND)).phrase("lead", piece);
        Piece timeline = Provenance.put(piece, "lead", first).withTimeline(true);
        Phrase again = print(Provenance.again(timeline, "lead")).phrase("lead", timeline);
        assertThat(notes(again)).isEqualTo(notes(first)).isNotEmpty();
    }

    /** RFC 4180: a line ends with CR LF, what holds a comma or a quotation mark is quoted, and a quotation mark is doubled. */
    @Test
    void aTableOfNotesTellsEachNoteInTicksBeatsAndSeconds() throws InterruptedException {
        Piece piece = piece("", Note.of(0, QUARTER, 60, 90), Note.of(3 * QUARTER / 2, QUARTER / 2, 61, 7))
                .withTime(new TimeMap(TempoMap.of(120), MeterMap.FOUR_FOUR))
                .withPart("lead", part -> part.withName("Bell, the \"low\" one"));
        Printed printed = print(PrintOrder.of(piece, "lead", Tail.CUT));
        String table = new String(
                PrintFormat.ofEnding("csv").bytes(printed.allNotes(), SmfForm.PLAIN), StandardCharsets.UTF_8);
        assertThat(table)
                .startsWith("part,start ticks,start beats,start seconds,pitch,name,velocity,length ticks,length beats,"
                        + "length seconds,channel\r\n"
                        + "\"Bell, the \"\"low\"\" one\",0,0,0,60,C4,90,960,1,0.5,1\r\n"
                        + "\"Bell, the \"\"low\"\" one\",1440,1.5,0.75,61,C♯4,7,480,0.5,0.25,1\r\n");
    }

    /** RFC 8259, read back by another reader than it was written by. */
    @Test
    void theSameTableAsJsonHoldsNumbersAndText() throws Exception {
        Piece piece = piece("", Note.of(3 * QUARTER / 2, QUARTER / 2, 61, 7))
                .withTime(new TimeMap(TempoMap.of(120), MeterMap.FOUR_FOUR))
                .withPart("lead", part -> part.withName("Bell, the \"low\" one"));
        byte[] json = PrintFormat.ofEnding("json")
                .bytes(print(PrintOrder.of(piece, "lead", Tail.CUT)).allNotes(), SmfForm.PLAIN);
        JsonNode table = new ObjectMapper().readTree(json);
        assertThat(table).hasSize(1);
        JsonNode note = table.get(0);
        assertThat(note.get("part").textValue()).isEqualTo("Bell, the \"low\" one");
        assertThat(note.get("name").textValue()).isEqualTo("C♯4");
        assertThat(note.get("start-ticks").intValue()).isEqualTo(1440);
        assertThat(note.get("start-beats").doubleValue()).isEqualTo(1.5);
        assertThat(note.get("start-seconds").doubleValue()).isEqualTo(0.75);
        assertThat(note.get("length-ticks").intValue()).isEqualTo(480);
        assertThat(note.get("length-seconds").doubleValue()).isEqualTo(0.25);
        assertThat(note.get("pitch").intValue()).isEqualTo(61);
        assertThat(note.get("velocity").intValue()).isEqualTo(7);
        assertThat(note.get("channel").intValue()).isEqualTo(1);
    }

    @Test
    void aTableHasTheNotesOfTheMidiFileOfTheSamePrint() throws Exception {
        Piece demo = PieceFile.read(Files.readString(Path.of("../demo/the-salt-clock.harpel")));
        Set<String> all =
                new LinkedHashSet<>(demo.parts().stream().map(Part::id).toList());
        Printed printed = print(new PrintOrder(demo, all, BAR, 5 * BAR, Tail.RING));
        List<String> midi = new ArrayList<>();
        for (MidiFile.Line line : SmfReader.read(midi(printed, SmfForm.PLAIN)).lines()) {
            for (MidiFile.Note note : line.notes()) {
                midi.add(line.name() + " " + Ticks.toResolution(note.tick(), 960) + " " + note.pitch() + " "
                        + note.velocity() + " " + Ticks.toResolution(note.lengthTicks(), 960));
            }
        }
        List<String> table = new String(
                        PrintFormat.ofEnding("CSV").bytes(printed.allNotes(), SmfForm.PLAIN), StandardCharsets.UTF_8)
                .lines()
                .skip(1)
                .map(line -> line.split(","))
                .map(cells -> cells[0] + " " + cells[1] + " " + cells[4] + " " + cells[6] + " " + cells[7])
                .toList();
        assertThat(midi).hasSizeGreaterThan(50);
        assertThat(table).containsExactlyInAnyOrderElementsOf(midi);
    }

    @Test
    void formatsAreFoundByTheirEndings() {
        assertThat(PrintFormat.all())
                .extracting(PrintFormat::ending)
                .startsWith("mid")
                .contains("csv");
        assertThat(PrintFormat.ofFile("Tide.CSV").ending()).isEqualTo("csv");
        assertThat(PrintFormat.ofFile("tide").ending()).isEqualTo("mid");
        assertThatThrownBy(() -> PrintFormat.ofEnding("tide"))
                .hasMessage("must be mid or wav or csv or json but was \"tide\"");
    }

    /** What comes round when it is played goes straight on in a print, with the automation of its place. */
    @Test
    void phrasesOfUnlikeLengthBeginAtTheirBeginningWithEveryTail() throws InterruptedException {
        Piece piece = Piece.empty()
                .withPhrase(Phrase.of("Long", 3 * BAR, List.of(Note.of(0, BAR, 60, 90), Note.of(2 * BAR, BAR, 62, 90))))
                .withPhrase(Phrase.of("Short", 2 * BAR, List.of(Note.of(0, BAR, 70, 90), Note.of(BAR, BAR, 72, 90))))
                .withParts(List.of(
                        Part.of("Lead", Chain.EMPTY).withPhrase("long"),
                        Part.of("Clock", Chain.EMPTY).withPhrase("short")));
        for (Tail tail : Tail.values()) {
            for (int bars : new int[] {1, 3, 4}) {
                Printed printed = new PrintOrder(piece, Set.of("lead", "clock"), 0, bars * BAR, tail).print(done -> {});
                List<Integer> pitches = printed.events().get("clock").stream()
                        .filter(NoteStart.class::isInstance)
                        .map(event -> ((NoteStart) event).pitch())
                        .toList();
                assertThat(pitches)
                        .as("%s, %d bars", tail, bars)
                        .isEqualTo(List.of(70, 72, 70, 72).subList(0, bars));
            }
        }
    }

    @Test
    void aLoopThatIsOnIsNoPartOfAPrint() throws InterruptedException {
        Piece piece = piece(
                        "{'effect':'touch','fixed':1,'move':{'fixed':[{'by':'automation','between':'hold',"
                                + "'points':[[0,10],[61440,20],[122880,30]]}]}}",
                        Note.of(0, QUARTER, 60, 90))
                .withTimeline(true);
        piece = piece.withPart("lead", part -> part.withBlocks(List.of(Block.of(0, 3 * BAR, part.phrase()))));
        List<String> straight = heard(piece);
        assertThat(straight).isNotEmpty();
        assertThat(heard(piece.withBracket(new Bracket(0, BAR, true)))).isEqualTo(straight);
    }

    private static List<String> heard(Piece piece) throws InterruptedException {
        return print(new PrintOrder(piece, Set.of("lead"), 0, 3 * BAR, Tail.CUT)).events().get("lead").stream()
                .map(Object::toString)
                .toList();
    }
}
