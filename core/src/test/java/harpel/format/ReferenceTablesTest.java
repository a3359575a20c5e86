package harpel.format;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import harpel.event.Event;
import harpel.format.midi.MidiFile;
import harpel.format.midi.MidiFile.Note;
import harpel.format.midi.SmfForm;
import harpel.format.midi.SmfReader;
import harpel.format.midi.SmfWriter;
import harpel.offline.PrintJob;
import harpel.plan.Plan;
import harpel.run.Tap;
import harpel.theory.Chord;
import harpel.theory.Interval;
import harpel.theory.Key;
import harpel.theory.Pitch;
import harpel.theory.Scale;
import harpel.time.Ticks;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.TreeSet;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/**
 * Checks against libraries that know nothing of Harpel: the npm packages tonal 6.4.3 (scales and note names) and midi-file 1.2.4 (a
 * reader of MIDI files). {@code tools/reference} makes the tables again.
 */
class ReferenceTablesTest {
    private static final Path DEMO = Path.of("").toAbsolutePath().getParent().resolve("demo");

    private static JsonNode table(String name) throws IOException {
        try (InputStream stream = ReferenceTablesTest.class.getResourceAsStream("/reference/" + name + ".json")) {
            return new ObjectMapper().readTree(stream);
        }
    }

    @Test
    void everyNamedScaleIsTonals() throws IOException {
        JsonNode scales = table("tonal-6.4.3").get("scales");
        assertThat(scales.size()).isEqualTo(Scale.names().size());
        for (String name : Scale.names()) {
            // A scale is a set of pitch classes here; tonal lists degrees.
            TreeSet<Integer> steps = new TreeSet<>();
            scales.get(name).forEach(step -> steps.add(step.asInt() % 12));
            assertThat(Scale.of(name).steps()).as(name).containsExactlyElementsOf(steps);
        }
    }

    @Test
    void everyNoteNameIsTonals() throws IOException {
        JsonNode notes = table("tonal-6.4.3").get("notes");
        assertThat(notes.size()).isGreaterThan(150);
        for (var entry : notes.properties()) {
            assertThat(Pitch.parse(entry.getKey()))
                    .as(entry.getKey())
                    .isEqualTo(entry.getValue().asInt());
        }
    }

    @Test
    void everyChordSymbolIsTonals() throws IOException {
        JsonNode chords = table("tonal-6.4.3").get("chords");
        assertThat(chords.size()).isEqualTo(Chord.qualities().size());
        for (String quality : Chord.qualities()) {
            List<Integer> intervals = new ArrayList<>();
            chords.get(quality).forEach(interval -> intervals.add(interval.asInt()));
            assertThat(Chord.parse("C" + quality).intervals())
                    .as("C%s", quality)
                    .isEqualTo(intervals);
        }
    }

    /** The sevenths that stand on the degrees of each major key. */
    @Test
    void stackedThirdsAreTonalsSevenths() throws IOException {
        for (var entry : table("tonal-6.4.3").get("sevenths").properties()) {
            Key key = Key.parse(entry.getKey() + " major");
            for (int degree = 0; degree < 7; degree++) {
                List<Integer> expected = new ArrayList<>();
                entry.getValue().get(degree).forEach(pitchClass -> expected.add(pitchClass.asInt()));
                int pitch = key.shift(60 + key.root(), degree);
                assertThat(Chord.stackedThirds(key, pitch, 4).stream().map(Pitch::pitchClass))
                        .as("%s, degree %d", key.name(), degree + 1)
                        .containsExactlyElementsOf(expected);
            }
        }
    }

    @Test
    void intervalNamesAreTonals() throws IOException {
        JsonNode intervals = table("tonal-6.4.3").get("intervals");
        String[][] names = {
            {"1P", "unison"},
            {"2m", "minor second"},
            {"2M", "major second"},
            {"3m", "minor third"},
            {"3M", "major third"},
            {"4P", "fourth"},
            {"5d", "tritone"},
            {"5P", "fifth"},
            {"6m", "minor sixth"},
            {"6M", "major sixth"},
            {"7m", "minor seventh"},
            {"7M", "major seventh"},
            {"8P", "octave"}
        };
        assertThat(intervals.size()).isEqualTo(names.length);
        for (String[] name : names) {
            assertThat(Interval.ofSemitones(intervals.get(name[0]).asInt()).shown())
                    .endsWith("(" + name[1] + ")");
        }
    }

    @Test
    void romanNumeralsAreTonals() throws IOException {
        var romans = table("tonal-6.4.3").get("romans").properties();
        assertThat(romans).hasSize(180);
        for (var entry : romans) {
            String[] words = entry.getKey().split(" ");
            String roman = Chord.parse(words[1]).romanIn(Key.parse(words[0]));
            assertThat(roman.replace('♭', 'b').replace('♯', '#'))
                    .as("%s in %s", words[1], words[0])
                    .isEqualTo(entry.getValue().asText());
        }
    }

    /** ISO 16 (A4 is 440 Hz) in equal temperament, and as tonal has it. */
    @Test
    void frequenciesAreTonals() throws IOException {
        JsonNode frequencies = table("tonal-6.4.3").get("frequencies");
        for (int pitch = 0; pitch <= 127; pitch++) {
            assertThat(Pitch.frequency(pitch))
                    .isCloseTo(frequencies.get(String.valueOf(pitch)).asDouble(), within(1e-9));
        }
        assertThat(Pitch.frequency(69)).isEqualTo(440);
    }

    /** A file as midi-file reads it, as words in the order of ticks. */
    private static List<String> independent(String name) throws IOException {
        List<String> events = new ArrayList<>();
        table(name + "-midi-file-1.2.4").forEach(event -> events.add(event.toString()));
        return events.stream().sorted().toList();
    }

    /** The same of what Harpel reads. */
    private static List<String> ours(MidiFile file) {
        List<String> events = new ArrayList<>();
        for (Note note : file.notes()) {
            events.add(String.format(
                    "[%d,\"on\",%d,%d,%d]", tick(note.tick()), note.channel(), note.pitch(), note.velocity()));
            events.add(String.format(
                    "[%d,\"off\",%d,%d,%d]",
                    tick(note.tick() + note.lengthTicks()), note.channel(), note.pitch(), note.releaseVelocity()));
        }
        file.time()
                .tempo()
                .changes()
                .forEach(change -> events.add(
                        String.format("[%d,\"tempo\",%d]", tick(change.tick()), Math.round(60e6 / change.bpm()))));
        file.time()
                .meter()
                .changes()
                .forEach(change -> events.add(
                        String.format("[%d,\"meter\",%d,%d]", tick(change.tick()), change.beats(), change.unit())));
        events.add(String.format("[%d,\"end\"]", tick(file.endTick())));
        events.add(String.format("[%d,\"end\"]", tick(file.endTick())));
        return events.stream().sorted().toList();
    }

    private static long tick(long ticks) {
        return Ticks.toResolution(ticks, SmfForm.PLAIN.division());
    }

    @ParameterizedTest
    @ValueSource(strings = {"tide-table", "lamp-song"})
    void anIndependentReaderFindsTheSameInTheDemosFiles(String name) throws IOException {
        MidiFile file = SmfReader.read(Files.readAllBytes(DEMO.resolve(name + ".mid")));
        assertThat(ours(file)).isEqualTo(independent(name));
    }

    /** What Harpel prints is, byte for byte, what the independent reader was given, and it found the notes that were heard. */
    @Test
    void anIndependentReaderFindsTheSameInWhatIsPrinted() throws Exception {
        byte[] printed;
        try (InputStream stream = ReferenceTablesTest.class.getResourceAsStream("/reference/printed.mid")) {
            printed = stream.readAllBytes();
        }
        MidiFile in = SmfReader.read(Files.readAllBytes(DEMO.resolve("tide-table.mid")));
        ChainFile chain = ChainFile.read(Files.readString(DEMO.resolve("bells.chain.json")));
        List<Event> events = in.events();
        PrintJob.Result result = new PrintJob(
                        Plan.ofChain(chain.part(), chain.chain(), chain.key(), in.time(), 41),
                        chain.part(),
                        harpel.offline.Tail.STOP,
                        Tap.NONE)
                .print(events, in.printedEnd());
        assertThat(SmfWriter.write(SmfForm.PLAIN, in.time(), in.metas(), result.events(), result.lengthTicks()))
                .isEqualTo(printed);
        assertThat(ours(SmfReader.read(printed))).isEqualTo(independent("printed"));
    }
}
