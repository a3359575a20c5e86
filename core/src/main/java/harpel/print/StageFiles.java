package harpel.print;

import harpel.chain.Branch;
import harpel.chain.Chain;
import harpel.chain.Stage;
import harpel.event.Event;
import harpel.event.EventBuffer;
import harpel.run.Tap;
import harpel.run.Told;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/** Collects what leaves each stage of a part and writes it, numbered in the order of the chain. */
public final class StageFiles implements Tap {
    private final Map<String, EventBuffer> byPlace = new HashMap<>();
    private final String part;

    public StageFiles(String part) {
        this.part = part;
    }

    /** Writes what left one place. */
    public interface Writer {
        void write(Path file, List<Event> events) throws IOException;
    }

    @Override
    public void tell(Told told) {
        if (told instanceof Told.Left left && left.part().equals(part)) {
            byPlace.computeIfAbsent(left.place(), name -> new EventBuffer()).add(left.event());
        }
    }

    /** @param ending of the files, as "mid" */
    public void write(Path folder, String ending, Chain chain, Writer writer) throws IOException {
        Files.createDirectories(folder);
        write(folder, "00", ending, Tap.INPUT, "input", writer);
        write(folder, "", ending, chain, part + "/", writer);
        write(folder, "99", ending, Tap.SOUND, "sound", writer);
    }

    private void write(Path folder, String number, String ending, Chain chain, String before, Writer writer)
            throws IOException {
        int place = 0;
        for (Stage stage : chain.stages()) {
            String own = number + String.format("%02d", ++place);
            String address = before + stage.id();
            int branchNumber = 0;
            for (Branch branch : stage.branches()) {
                branchNumber++;
                write(
                        folder,
                        own + "." + branchNumber + ".",
                        ending,
                        branch.chain(),
                        address + "." + branchNumber + "/",
                        writer);
            }
            write(folder, own, ending, address, stage.id(), writer);
        }
    }

    private void write(Path folder, String number, String ending, String place, String name, Writer writer)
            throws IOException {
        EventBuffer events = byPlace.getOrDefault(place, new EventBuffer());
        events.sortAll();
        writer.write(folder.resolve(number + "-" + name + "." + ending), events);
    }
}
