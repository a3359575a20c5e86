package harpel.print;

import harpel.format.AtomicFile;
import harpel.format.midi.SmfForm;
import harpel.piece.Part;
import harpel.piece.Piece;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.nio.file.Path;
import java.util.Collection;
import java.util.Comparator;
import java.util.List;
import java.util.ServiceLoader;
import java.util.function.DoubleConsumer;
import java.util.stream.Collectors;

/** A kind of file that notes are written as. One that is named as a service is offered by the command line, sheets and drags. */
public interface PrintFormat {
    /** Asked for most often. */
    List<String> FIRST = List.of(MidiFormat.ENDING, "wav");

    /** What such a file is called, as "MIDI file". */
    String name();

    /** The ending of its files, by which it is found, as "mid". */
    String ending();

    /**
     * Writes notes.
     *
     * @param form how finely time is counted, and how many tracks there are where the format has any
     * @param done told now and then how much is written, 0 to 1
     */
    void write(PrintedNotes notes, SmfForm form, OutputStream out, DoubleConsumer done) throws IOException;

    /** Writes all that was printed into a file. */
    default void write(Printed printed, SmfForm form, Path file, DoubleConsumer done) throws IOException {
        AtomicFile.write(file, out -> write(printed.allNotes(), form, out, done));
    }

    /** Writes notes into memory. */
    default byte[] bytes(PrintedNotes notes, SmfForm form) {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try {
            write(notes, form, out, share -> {});
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return out.toByteArray();
    }

    /**
     * As it is for one piece, with what lies beside it.
     *
     * @param folder of the piece
     */
    default PrintFormat of(Piece piece, Path folder) throws IOException {
        return this;
    }

    /** What it cannot give these parts, a sentence each. */
    default List<String> lacks(Collection<Part> parts) {
        return List.of();
    }

    /** Those there are, MIDI files and sound files first. */
    static List<PrintFormat> all() {
        return ServiceLoader.load(PrintFormat.class).stream()
                .map(ServiceLoader.Provider::get)
                .sorted(Comparator.comparingInt((PrintFormat one) ->
                                FIRST.contains(one.ending()) ? FIRST.indexOf(one.ending()) : FIRST.size())
                        .thenComparing(PrintFormat::ending))
                .toList();
    }

    /** The one of MIDI files. */
    static PrintFormat plain() {
        return all().get(0);
    }

    /** @throws IllegalArgumentException when there is none, with those there are */
    static PrintFormat ofEnding(String ending) {
        return all().stream()
                .filter(one -> one.ending().equalsIgnoreCase(ending))
                .findFirst()
                .orElseThrow(() -> new IllegalArgumentException("must be "
                        + all().stream().map(PrintFormat::ending).collect(Collectors.joining(" or ")) + " but was \""
                        + ending + "\""));
    }

    /** That of a file by its ending, that of MIDI files for any other. */
    static PrintFormat ofFile(String file) {
        return all().stream()
                .filter(one -> file.toLowerCase(java.util.Locale.ROOT).endsWith("." + one.ending()))
                .findFirst()
                .orElseGet(PrintFormat::plain);
    }
}
