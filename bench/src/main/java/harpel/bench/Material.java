package harpel.bench;

import harpel.chain.Chain;
import harpel.event.Event;
import harpel.format.ChainFile;
import harpel.format.FileException;
import harpel.format.midi.SmfForm;
import harpel.format.midi.SmfWriter;
import harpel.offline.PrintJob;
import harpel.phrase.Note;
import harpel.phrase.Phrase;
import harpel.piece.Piece;
import harpel.plan.Program;
import harpel.time.Ticks;
import harpel.time.TimeMap;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Random;

/** Music and chains to measure with. */
public final class Material {
    private Material() {}

    /** Stages that each give one note for one, so that the cost of more stages can be compared. */
    public static Chain stages(int count) {
        StringBuilder text = new StringBuilder("{\"harpel\":1,\"chain\":[");
        String[] kinds = {
            "{\"effect\":\"transpose\",\"semitones\":2}",
            "{\"effect\":\"touch\",\"curve\":20,\"loosen\":5}",
            "{\"effect\":\"scale-fit\",\"root\":\"G\",\"scale\":\"major\"}",
            "{\"effect\":\"stray\",\"amount\":30}"
        };
        for (int i = 0; i < count; i++) {
            text.append(i == 0 ? "" : ",").append(kinds[i % kinds.length]);
        }
        return chain(text.append("]}").toString());
    }

    public static Chain chain(String json) {
        try {
            return ChainFile.read(json).chain();
        } catch (FileException e) {
            throw new IllegalStateException(e);
        }
    }

    /** A dense phrase: chords of four in sixteenths, with a little spread. */
    public static Phrase phrase(int notes) {
        Random random = new Random(1);
        List<Note> list = new ArrayList<>(notes);
        long sixteenth = Ticks.PER_QUARTER / 4;
        for (int i = 0; i < notes; i++) {
            long tick = i / 4 * sixteenth + i % 4 * 160;
            list.add(Note.of(tick, sixteenth - 200, 40 + random.nextInt(48), 1 + random.nextInt(127)));
        }
        return Phrase.of("bench", (notes / 4 + 16) * sixteenth, list);
    }

    /** What a part hears of a phrase, once. */
    static List<Event> events(Phrase phrase) {
        Piece piece = Piece.empty().withPhrase(phrase).withPart("part-1", part -> part.withPhrase(phrase.id()));
        return PrintJob.phrases(Program.of(piece), 0, phrase.length() - 1)
                .get("part-1")
                .events();
    }

    public static byte[] file(Phrase phrase) {
        return SmfWriter.write(SmfForm.PLAIN, TimeMap.DEFAULT, List.of(), events(phrase), phrase.length());
    }

    static double median(double[] values) {
        double[] sorted = values.clone();
        Arrays.sort(sorted);
        return sorted[sorted.length / 2];
    }
}
