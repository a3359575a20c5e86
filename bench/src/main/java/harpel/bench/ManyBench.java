package harpel.bench;

import harpel.engine.LiveEngine;
import harpel.phrase.Note;
import harpel.phrase.Phrase;
import harpel.piece.Part;
import harpel.piece.Piece;
import harpel.port.Ports;
import harpel.run.Tap;
import harpel.time.MeterMap;
import harpel.time.TempoMap;
import harpel.time.Ticks;
import harpel.time.TimeMap;
import java.util.ArrayList;
import java.util.List;
import org.HdrHistogram.Histogram;

/** 32 parts with 8 effects each at 200 bpm and sixteenth notes: lateness and CPU, live. */
final class ManyBench {
    private static final int PARTS = 32;
    private static final int SECONDS = 20;
    private static final String CHAIN =
            "{\"harpel\":1,\"chain\":[{\"effect\":\"chord-keys\"},{\"effect\":\"arpeggio\"},{\"effect\":\"stray\"},"
                    + "{\"effect\":\"scale-fit\"},{\"effect\":\"echo\",\"repeats\":2},{\"effect\":\"touch\",\"loosen\":6},"
                    + "{\"effect\":\"humanize\"},{\"effect\":\"voices\",\"most\":6}]}";

    private ManyBench() {}

    public static void main(String[] args) throws InterruptedException {
        List<Note> notes = new ArrayList<>();
        long sixteenth = Ticks.PER_QUARTER / 4;
        for (int i = 0; i < 64; i++) {
            notes.add(Note.of(i * sixteenth, sixteenth - 100, 48 + i % 12, 100));
        }
        Piece piece = Piece.empty()
                .withTime(new TimeMap(TempoMap.of(200), MeterMap.FOUR_FOUR))
                .withPhrase(Phrase.of("p", 64 * sixteenth, notes));
        List<Part> parts = new ArrayList<>();
        for (int i = 0; i < PARTS; i++) {
            Part part = Part.of("Part " + (i + 1), Material.chain(CHAIN)).withPhrase("p");
            parts.add(part.withChannel(i % 16));
        }
        Piece many = piece.withParts(parts);
        Histogram late = new Histogram(10_000_000_000L, 3);
        try (Ports ports = MeasuringPort.ofLateness(late);
                LiveEngine live = new LiveEngine(many, ports, Tap.NONE)) {
            live.start();
            Thread.sleep(3000);
            live.play();
            Thread.sleep(5000);
            late.reset();
            double cpu = LiveBench.cpuOver(SECONDS * 1000L);
            System.out.printf(
                    "%d parts, 8 effects each, 200 bpm, sixteenths: %d notes/s%n",
                    PARTS, late.getTotalCount() / SECONDS);
            System.out.printf(
                    "lateness µs: p50 %.0f  p99 %.0f  p99.9 %.0f  worst %.0f; CPU of the engine's thread %.0f %% of a core%n",
                    late.getValueAtPercentile(50) / 1e3,
                    late.getValueAtPercentile(99) / 1e3,
                    late.getValueAtPercentile(99.9) / 1e3,
                    late.getMaxValue() / 1e3,
                    cpu);
        }
    }
}
