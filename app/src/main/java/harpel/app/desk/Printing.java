package harpel.app.desk;

import harpel.app.document.Document;
import harpel.app.document.Selection;
import harpel.app.look.Messages;
import harpel.format.AtomicFile;
import harpel.format.midi.SmfForm;
import harpel.offline.Tail;
import harpel.phrase.Phrase;
import harpel.piece.Block;
import harpel.piece.Part;
import harpel.piece.Piece;
import harpel.piece.PieceEdit;
import harpel.print.Losses;
import harpel.print.PrintFormat;
import harpel.print.PrintOrder;
import harpel.print.PrintPool;
import harpel.print.Printed;
import harpel.print.Provenance;
import harpel.print.StageFiles;
import harpel.run.Tap;
import java.io.IOException;
import java.io.InterruptedIOException;
import java.nio.channels.ClosedByInterruptException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.Future;
import java.util.function.Consumer;
import java.util.function.DoubleConsumer;
import javafx.application.Platform;
import org.slf4j.LoggerFactory;

/** Printing parts, in the background: onto the parts as ready phrases, or to a file. Interface thread, but for the printing. */
public final class Printing implements AutoCloseable {
    private static final long TELL_AFTER_NANOS = 300_000_000;
    private static final String CANCELLED = " was cancelled.";
    private static final double SECOND = 1e9;

    private final Document document;
    private final Selection selection;
    private final PhraseDesk desk;
    private final Messages messages;
    private final PrintPool pool = new PrintPool();

    private Consumer<Path> opener = folder -> {};

    public Printing(Document document, Selection selection, PhraseDesk desk, Messages messages) {
        this.document = document;
        this.selection = selection;
        this.desk = desk;
        this.messages = messages;
    }

    /** Where prints are made side by side. */
    public PrintPool pool() {
        return pool;
    }

    /** Whether the chosen part plays a phrase that goes through its chain. */
    public boolean hasPhrase() {
        return document.piece()
                .get()
                .phrase(selection.part().phrase())
                .filter(phrase -> phrase.length() > 0)
                .isPresent();
    }

    /** Whether the chosen part plays a print of itself. */
    public boolean isPrinted() {
        return Provenance.isPrinted(document.piece().get(), selection.part());
    }

    /** Whether what the chosen part's print was made of has changed since. */
    public boolean isStale() {
        Piece piece = document.piece().get();
        return piece.phrase(selection.part().phrase())
                .filter(phrase -> Provenance.isStale(piece, phrase))
                .isPresent();
    }

    /** Prints the chosen part's phrase once through its chain, so that it loops without a seam, and puts the print in its place. */
    public void once() {
        Piece piece = document.piece().get();
        Part part = selection.part();
        if (isPrinted()) {
            again();
        } else if (piece.phrase(part.phrase()).filter(Phrase::ready).isPresent()) {
            messages.say("“" + piece.phrase(part.phrase()).orElseThrow().name()
                    + "” is a ready phrase, past the chain already. Switch “Ready” off to print it through the chain.");
        } else {
            together(PrintOrder.together(piece, part.id(), Tail.ROUND));
        }
    }

    /** Says what opens a folder in the system's own window of files. */
    public void openFoldersBy(Consumer<Path> opens) {
        opener = opens;
    }

    /** Prints a part with those that share notes with it. */
    private void together(PrintOrder order) {
        List<String> names = order.parts().stream().map(id -> name(order, id)).toList();
        List<String> with = names.subList(1, names.size());
        ontoParts(
                List.of(order),
                names.get(0),
                with.isEmpty() ? "" : "; " + String.join(" and ", with) + " too, since notes go between them");
    }

    /** Prints some blocks of the chosen part on the timeline, and puts the print in their place. */
    public void blocks(List<Block> blocks) {
        Piece piece = document.piece().get();
        PrintOrder order = PrintOrder.together(piece, selection.partId().get(), blocks);
        List<String> always = order.parts().stream()
                .map(id -> piece.part(id).orElseThrow())
                .filter(part -> part.blocks().isEmpty())
                .map(Part::name)
                .toList();
        if (always.isEmpty()) {
            together(order);
        } else {
            messages.say(
                    "Nothing was printed: notes go between " + selection.part().name() + " and "
                            + String.join(" and ", always) + ", so they are printed together, but "
                            + (always.size() == 1 ? "it has" : "they have") + " no blocks. Give "
                            + (always.size() == 1 ? "it" : "each") + " one first.");
        }
    }

    /** Prints again what the chosen part plays a print of, of what there is now. */
    public void again() {
        Piece piece = document.piece().get();
        Part part = selection.part();
        Phrase old = piece.phrase(part.phrase()).orElseThrow();
        print("Printing " + part.name() + " again", List.of(Provenance.again(piece, part.id())), printed -> {
            Printed one = printed.get(0);
            Piece meanwhile = document.piece().get();
            if (meanwhile.phrase(old.id()).isEmpty()
                    || meanwhile.part(part.id()).isEmpty()) {
                messages.say("Nothing was printed again: "
                        + (meanwhile.part(part.id()).isEmpty() ? part.name() : old.name()) + " was deleted meanwhile.");
                return;
            }
            document.apply(PieceEdit.of("Print again", now -> {
                Phrase fresh = one.phrase(part.id(), now);
                return Provenance.put(now, part.id(), fresh.withId(old.id()).withName(old.name()));
            }));
            messages.say(said("Printed " + part.name() + " again", printed));
        });
    }

    /** The chosen part is heard through its chain again. */
    public void back() {
        back(List.of(selection.partId().get()));
    }

    private void back(List<String> parts) {
        document.apply(PieceEdit.of("Through the chain again", piece -> {
            Piece back = piece;
            for (String part : parts) {
                back = Provenance.back(back, part);
            }
            return back;
        }));
        List<String> names = parts.stream()
                .flatMap(part -> document.piece().get().part(part).stream())
                .map(Part::name)
                .toList();
        if (!names.isEmpty()) {
            messages.say(
                    names.size() == 1
                            ? names.get(0) + " is heard through its chain again; the print stays in the list."
                            : String.join(", ", names)
                                    + " are heard through their chains again; the prints stay in the list.");
        }
    }

    /** Prints, and puts each part's print in its place; prints of several variations go into the list only. */
    public void ontoParts(List<PrintOrder> orders) {
        ontoParts(
                orders,
                orders.get(0).parts().size() == 1
                        ? name(orders.get(0), orders.get(0).parts().iterator().next())
                        : orders.get(0).parts().size() + " parts",
                "");
    }

    /** @param beside who was printed beside what was asked for, and why */
    private void ontoParts(List<PrintOrder> orders, String what, String beside) {
        boolean place = orders.size() == 1;
        boolean timeline = orders.get(0).piece().timeline();
        print("Printing " + what, orders, printed -> {
            List<String> ids = new ArrayList<>();
            document.apply(PieceEdit.of("Print", piece -> {
                Piece with = piece;
                ids.clear();
                for (Printed one : printed) {
                    for (String part : one.order().parts()) {
                        Phrase phrase = one.phrase(part, with);
                        ids.add(phrase.id());
                        with = place ? put(with, part, one.order(), phrase) : with.withPhrase(phrase);
                    }
                }
                return with;
            }));
            if (!timeline) {
                desk.show(ids.get(0));
            }
            String words = said("Printed " + what, printed)
                    + (!place
                            ? ", in the list of phrases"
                            : timeline ? ", in the place of its blocks" + beside : beside + kept(orders.get(0)));
            List<String> parts = List.copyOf(orders.get(0).parts());
            if (place && !timeline && document.piece().get().part(parts.get(0)).isPresent()) {
                // Of what was printed, whichever part is chosen by then.
                messages.offer(words, "Through the chain again", () -> back(parts));
            } else {
                messages.say(words);
            }
        });
    }

    private static Piece put(Piece piece, String part, PrintOrder order, Phrase phrase) {
        if (piece.part(part).isEmpty()) {
            return piece.withPhrase(phrase);
        }
        return order.piece().timeline()
                ? Provenance.putBlock(piece, part, order, phrase)
                : Provenance.put(piece, part, phrase);
    }

    /** Who heard the phrase at the input of a part that plays a print now, and keeps it. */
    private static String kept(PrintOrder order) {
        Piece piece = order.piece();
        List<String> sisters = order.parts().stream()
                .flatMap(id -> Provenance.sisters(piece, piece.part(id).orElseThrow()).stream())
                .filter(id -> !order.parts().contains(id))
                .map(id -> name(order, id))
                .toList();
        return sisters.isEmpty()
                ? ""
                : "; " + String.join(" and ", sisters) + (sisters.size() == 1 ? " keeps" : " keep") + " the phrase";
    }

    private static String name(PrintOrder order, String part) {
        return order.piece().part(part).orElseThrow().name();
    }

    /** Exports into a file. */
    public void toFile(PrintOrder order, PrintFormat as, SmfForm form, Path path) {
        export(
                path,
                List.of(order),
                "Exported " + path.getFileName() + " to "
                        + path.toAbsolutePath().getParent(),
                path.toAbsolutePath().getParent(),
                (printed, tell) -> as.write(printed, form, path, tell));
    }

    /** Exports each variation into a file of its own in a folder. */
    public void toFolder(List<PrintOrder> orders, PrintFormat as, SmfForm form, Path folder) {
        export(
                folder,
                orders,
                "Exported " + orders.size() + " files to " + folder,
                folder,
                (printed, tell) -> as.write(
                        printed,
                        form,
                        folder.resolve("variation-" + printed.order().piece().variation() + "." + as.ending()),
                        tell));
    }

    /** Exports each part into a file of its own in a folder. */
    public void toFiles(PrintOrder order, PrintFormat as, SmfForm form, Path folder) {
        int count = order.parts().size();
        export(
                folder,
                List.of(order),
                "Exported " + (count == 1 ? "1 file" : count + " files") + " to " + folder,
                folder,
                (printed, tell) -> {
                    int done = 0;
                    for (String part : order.parts()) {
                        int before = done++;
                        AtomicFile.write(
                                folder.resolve(part + "." + as.ending()),
                                out -> as.write(
                                        printed.notes(List.of(part)),
                                        form,
                                        out,
                                        share -> tell.accept((before + share) / count)));
                    }
                });
    }

    /** Exports what left each stage of one part, each into a file of its own in a folder. */
    public void toStages(PrintOrder order, PrintFormat as, SmfForm form, Path folder) {
        String part = order.parts().iterator().next();
        StageFiles stages = new StageFiles(part);
        export(folder, List.of(order), "Exported every stage to " + folder, folder, new Written() {
            @Override
            public Tap tap() {
                return stages;
            }

            @Override
            public void write(Printed printed, DoubleConsumer tell) throws IOException {
                stages.write(
                        folder,
                        as.ending(),
                        order.piece().part(part).orElseThrow().chain(),
                        (file, events) -> AtomicFile.write(
                                file,
                                out -> as.write(
                                        printed.notes(part, file.getFileName().toString(), events),
                                        form,
                                        out,
                                        share -> {})));
            }
        });
    }

    /** Says where it went, and offers to look at it there. */
    private void export(Path to, List<PrintOrder> orders, String done, Path folder, Written written) {
        print(
                "Exporting to " + to.getFileName(),
                orders,
                printed -> messages.offer(said(done, printed), "Open folder", () -> opener.accept(folder)),
                written);
    }

    /** "Printed Harbour bells: 132 notes in 4 bars; 3 notes lost: …". */
    private static String said(String begin, List<Printed> printed) {
        long notes = printed.stream().mapToLong(Printed::count).sum();
        PrintOrder order = printed.get(0).order();
        long bars = order.piece().time().meter().barAt(order.to() - 1)
                - order.piece().time().meter().barAt(order.from())
                + 1;
        List<String> losses = printed.stream()
                .flatMap(one -> one.losses().stream())
                .map(Losses.Loss::shown)
                .distinct()
                .toList();
        String more = losses.size() > 1 ? " and " + (losses.size() - 1) + " more" : "";
        return begin + ": " + (notes == 1 ? "1 note" : notes + " notes") + " in "
                + (bars == 1 ? "1 bar" : bars + " bars")
                + (losses.isEmpty() ? "" : "; lost on the way: " + losses.get(0) + more);
    }

    /** What is done with each print on the printing thread. */
    private interface Written {
        void write(Printed printed, DoubleConsumer tell) throws IOException, InterruptedException;

        /** What is shown what happens while it is printed. */
        default Tap tap() {
            return Tap.NONE;
        }
    }

    private void print(String what, List<PrintOrder> orders, Consumer<List<Printed>> done) {
        print(what, orders, done, null);
    }

    private void print(String what, List<PrintOrder> orders, Consumer<List<Printed>> done, Written written) {
        Work work = new Work(what, orders, written);
        List<Future<Printed>> prints = new ArrayList<>();
        Runnable cancel = () -> {
            prints.forEach(print -> print.cancel(true));
            work.end(what + CANCELLED);
        };
        work.ended = words -> Platform.runLater(() -> {
            messages.end(cancel);
            if (words != null) {
                messages.say(words);
            } else {
                done.accept(List.of(work.printed));
            }
        });
        messages.begin(cancel);
        messages.say(what + " …");
        for (int i = 0; i < orders.size(); i++) {
            int number = i;
            prints.add(pool.submit(() -> work.print(number)));
        }
    }

    /** Some prints that belong together. Touched by the printing threads. */
    private final class Work {
        private final String what;
        private final List<PrintOrder> orders;
        private final Written written;
        private final Printed[] printed;
        private final double[] share;
        private final long begun = System.nanoTime();
        private int left;
        private int told;
        private boolean over;
        /** Takes what went wrong, or null when all are done. */
        private Consumer<String> ended;

        Work(String what, List<PrintOrder> orders, Written written) {
            this.what = what;
            this.orders = orders;
            this.written = written;
            printed = new Printed[orders.size()];
            share = new double[orders.size()];
            left = orders.size();
        }

        Printed print(int number) {
            try {
                // Where something is written, too, that is the longer half of the work.
                double half = written == null ? 1 : 0.5;
                Printed one = orders.get(number)
                        .print(done -> tell(number, done * half), written == null ? Tap.NONE : written.tap());
                if (written != null) {
                    written.write(one, done -> tell(number, half + done * half));
                }
                if (isLast(number, one)) {
                    ended.accept(null);
                }
                return one;
            } catch (InterruptedException | ClosedByInterruptException | InterruptedIOException e) {
                end(what + CANCELLED);
            } catch (IOException e) {
                end(what + " failed: " + e.getMessage());
            } catch (RuntimeException | Error e) {
                LoggerFactory.getLogger(Printing.class).error("{} failed", what, e);
                end(what + " failed: " + e);
            }
            return null;
        }

        private synchronized boolean isLast(int number, Printed one) {
            printed[number] = one;
            return --left == 0 && !over;
        }

        private synchronized void end(String words) {
            if (!over) {
                over = true;
                ended.accept(words);
            }
        }

        private synchronized void tell(int number, double done) {
            share[number] = done;
            long took = System.nanoTime() - begun;
            double sum = 0;
            for (double one : share) {
                sum += one;
            }
            int percent = (int) (100 * sum / share.length);
            if (percent >= told + 5 && took > TELL_AFTER_NANOS && !over) {
                told = percent;
                long seconds = Math.round(took / SECOND);
                Platform.runLater(() -> messages.say(what + " … " + percent + " %, " + seconds + " s"));
            }
        }
    }

    @Override
    public void close() {
        pool.close();
    }
}
