package harpel.print;

import harpel.format.midi.SmfForm;
import java.util.Comparator;
import java.util.List;
import java.util.ServiceLoader;
import java.util.stream.Collectors;

/** A kind of file that notes are written as. One that is named as a service is offered by the command line, sheets and drags. */
public interface PrintFormat {
    /** What such a file is called, as "MIDI file". */
    String name();

    /** The ending of its files, by which it is found, as "mid". */
    String ending();

    /** @param form how finely time is counted, and how many tracks there are where the format has any */
    byte[] write(PrintedNotes notes, SmfForm form);

    /** Those there are, MIDI files first. */
    static List<PrintFormat> all() {
        return ServiceLoader.load(PrintFormat.class).stream()
                .map(ServiceLoader.Provider::get)
                .sorted(Comparator.comparing((PrintFormat one) -> !one.ending().equals(MidiFormat.ENDING))
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
