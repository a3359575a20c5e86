package harpel.cli;

import harpel.chain.Stage;
import harpel.effect.EffectCatalog;
import harpel.event.Event;
import harpel.event.NoteStart;
import harpel.format.ChainFile;
import harpel.format.FileException;
import harpel.format.InFile;
import harpel.format.midi.MidiFile;
import harpel.format.midi.SmfForm;
import harpel.format.midi.SmfReader;
import harpel.format.midi.SmfWriter;
import harpel.offline.PrintJob;
import harpel.offline.Tail;
import harpel.param.ParamException;
import harpel.piece.Part;
import harpel.piece.Piece;
import harpel.plan.Plan;
import harpel.print.Losses;
import harpel.print.PrintFormat;
import harpel.print.PrintedNotes;
import harpel.print.StageFiles;
import harpel.run.Tap;
import harpel.theory.Key;
import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import java.util.Set;

/** Prints the notes of a MIDI file through a chain file. */
final class ChainPrint {
    private final Report report;
    private final PrintFormat as;
    private final SmfForm form;

    ChainPrint(Report report, PrintFormat as, SmfForm form) {
        this.report = report;
        this.as = as;
        this.form = form;
    }

    /**
     * Prints.
     *
     * @param bars how many, or null for as long as the input
     * @param stages the folder for what leaves each stage, or null
     */
    void print(Path chainPath, String in, String out, long variation, Integer bars, Tail tail, Path stages)
            throws IOException, CouldNot, InterruptedException {
        ChainFile chain = readChain(chainPath);
        MidiFile input = readMidi(in);
        input.repairs().forEach(repair -> report.warn(in + ": " + repair));

        Key key = chain.key() == null ? Key.C_MAJOR : chain.key();
        Plan plan = Plan.ofChain(chain.part(), chain.chain(), key, input.time(), variation);
        List<Event> events = input.events();
        long end = bars == null ? input.printedEnd() : input.time().meter().tickOfBar(bars);
        StageFiles taps = new StageFiles(chain.part());
        Part part = Part.of(chain.part(), chain.chain());
        Losses losses = new Losses(
                Piece.empty().withTime(input.time()).withParts(List.of(part.withId(chain.part()))),
                Set.of(chain.part()));
        Tap tap = stages == null ? losses : Tap.both(losses, taps);
        PrintJob.Result result = new PrintJob(plan, chain.part(), tail, tap)
                .toTheLast(bars == null)
                .print(events, end);

        write(out, input, result.events(), result.lengthTicks());
        long notes =
                result.events().stream().filter(NoteStart.class::isInstance).count();
        report.wrote(Report.of(notes, input.time(), 0, Math.max(1, result.lengthTicks())), out);
        if (stages != null) {
            taps.write(
                    stages,
                    as.ending(),
                    chain.chain(),
                    (file, stageEvents) -> write(file.toString(), input, stageEvents, result.lengthTicks()));
        }
        report.lost("", losses.found(result.refused()));
    }

    private ChainFile readChain(Path path) throws IOException, CouldNot {
        try {
            ChainFile chain = ChainFile.read(InFile.read(path));
            if (chain.isNewer()) {
                report.warn(path + ": a newer version wrote this chain");
            }
            for (Stage stage : ChainFile.unknownStages(chain.chain())) {
                String what = path + ": this version knows no effect \"" + stage.name() + "\"";
                if (chain.unknown().isEmpty()) {
                    throw new CouldNot(what + "; known are " + EffectCatalog.ids());
                }
                report.warn(what + ", which a newer one wrote; its notes pass unchanged");
            }
            return chain;
        } catch (FileException | ParamException e) {
            throw new CouldNot(path + ": " + e.getMessage());
        }
    }

    private static MidiFile readMidi(String in) throws IOException, CouldNot {
        byte[] bytes;
        if (in.equals(Report.STANDARD)) {
            bytes = System.in.readAllBytes();
        } else {
            try {
                bytes = InFile.read(Path.of(in));
            } catch (FileException e) {
                throw new CouldNot(in + ": " + e.getMessage());
            }
        }
        try {
            return SmfReader.read(bytes);
        } catch (FileException e) {
            throw new CouldNot(in + ": " + e.getMessage());
        }
    }

    private void write(String target, MidiFile input, List<? extends Event> events, long length) throws IOException {
        PrintedNotes notes = new PrintedNotes(
                input.time(), input.metas(), List.of(new SmfWriter.Track("", events)), List.of(), length);
        Report.write(target, file -> as.write(notes, form, file, done -> {}));
    }
}
