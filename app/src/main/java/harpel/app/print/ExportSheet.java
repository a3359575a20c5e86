package harpel.app.print;

import harpel.app.document.Document;
import harpel.app.document.Selection;
import harpel.app.look.Look;
import harpel.app.ui.Asking;
import harpel.app.ui.Buttons;
import harpel.app.ui.Choice;
import harpel.app.ui.Space;
import harpel.device.SoundBank;
import harpel.format.midi.SmfForm;
import harpel.offline.Tail;
import harpel.piece.Piece;
import harpel.print.MidiFormat;
import harpel.print.PrintFormat;
import harpel.print.PrintOrder;
import harpel.sound.SoundFile;
import java.util.List;
import java.util.Optional;
import javafx.geometry.Insets;
import javafx.scene.control.CheckBox;
import javafx.scene.control.TextField;
import javafx.scene.control.ToggleButton;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.VBox;
import javafx.stage.Window;

/** Asks which parts and bars are written to which kind of file. What is asked for seldom is behind "more". */
public final class ExportSheet {
    /** What goes into one file. */
    public enum Each {
        ALL("all parts in one file"),
        PART("one file per part, in a folder"),
        STAGE("one file per stage of the part, in a folder");

        private final String words;

        Each(String words) {
            this.words = words;
        }
    }

    /** How sound is written. */
    private enum Samples {
        PLAIN("44.1 kHz, 16 bit", 44_100, 16),
        FINE("48 kHz, 24 bit", 48_000, 24);

        private final String words;
        private final int rate;
        private final int bits;

        Samples(String words, int rate, int bits) {
            this.words = words;
            this.rate = rate;
            this.bits = bits;
        }
    }

    /**
     * What was asked for.
     *
     * @param orders one a variation
     * @param as the kind of file, and how it is written
     * @param form of files that count time
     */
    public record Wanted(List<PrintOrder> orders, Each each, PrintFormat as, SmfForm form) {
        /** @param stem the piece's own file, without its ending */
        public String fileName(String stem) {
            PrintOrder order = orders.get(0);
            boolean whole = order.parts().size() == order.piece().parts().size();
            String which = whole
                    ? ""
                    : order.parts().size() == 1 ? "-" + order.parts().iterator().next() : "-parts";
            return stem + which + "." + as.ending();
        }

        /** Whether it is one file; else they go into a folder. */
        public boolean isOne() {
            return each == Each.ALL && orders.size() == 1;
        }
    }

    private final Stretch stretch;
    private final SoundBank bank;
    private final Choice<PrintFormat> as =
            new Choice<>("export-as", "What kind of file is written", PrintFormat::name, one -> {});
    private final Choice<Each> each =
            new Choice<>("export-each", "What goes into one file", one -> one.words, one -> {});
    private final CheckBox oneTrack = Buttons.check("all in one track (format 0)", "export-one-track", false);
    private final TextField division = Stretch.field(
            "export-division",
            String.valueOf(SmfForm.PLAIN.division()),
            "How finely time is counted, 24–32767 ticks to a quarter");
    private final CheckBox sounds = Buttons.check("bank, program and level of each part", "export-sounds", true);
    private final Choice<Samples> samples =
            new Choice<>("export-samples", "How sound is written", one -> one.words, one -> {});
    private final CheckBox loud = Buttons.check("as loud as music services ask for (−14 LUFS)", "export-loud", false);

    private ExportSheet(Document document, Selection selection, SoundBank bank) {
        this.bank = bank;
        Piece piece = document.piece().get();
        stretch = new Stretch(document, selection, piece::isHeard, Tail.RING);
        as.show(PrintFormat.all(), PrintFormat.plain());
        each.show(List.of(Each.values()), Each.ALL);
        samples.show(List.of(Samples.values()), Samples.PLAIN);
    }

    /**
     * What to write; nothing when it was put away.
     *
     * @param bank the sounds of the piece, null for built-in ones
     */
    public static Optional<Wanted> ask(
            Document document, Selection selection, Look look, SoundBank bank, Window owner) {
        return new ExportSheet(document, selection, bank).ask(look, owner);
    }

    private Optional<Wanted> ask(Look look, Window owner) {
        GridPane first = rows();
        Stretch.row(first, "Parts", stretch.parts());
        Stretch.row(first, "Written as", as);
        Stretch.row(first, "From bar", stretch.bars());
        Stretch.row(first, "What sounds over the end", stretch.tail());
        GridPane second = rows();
        as.valueProperty().addListener((property, before, now) -> fill(second));
        fill(second);
        ToggleButton more = Buttons.toggle(
                "more", "export-more", "One file a part, variations, how time and sound are written", on -> {});
        second.visibleProperty().bind(more.selectedProperty());
        second.managedProperty().bind(more.selectedProperty());
        more.selectedProperty().addListener((property, before, now) -> Asking.fit(more));
        VBox all = new VBox(Space.ROOM, first, more, second);
        all.setPadding(new Insets(Space.ROOM));
        return Asking.forValues(owner, look.styles(), "Export", "Export…", "export", all, this::read);
    }

    /** Asks for what the kind of file that is chosen can tell. */
    private void fill(GridPane rows) {
        rows.getChildren().clear();
        Stretch.row(rows, "Files", each);
        Stretch.row(rows, "Variation", stretch.variations());
        if (as.getValue() instanceof SoundFile) {
            Stretch.row(rows, "Samples", samples);
            Stretch.row(rows, "Loudness", loud);
        } else {
            Stretch.row(rows, "Ticks to a quarter", division);
        }
        if (as.getValue() instanceof MidiFormat) {
            Stretch.row(rows, "Tracks", oneTrack);
            Stretch.row(rows, "Begins with", sounds);
        }
        if (rows.getScene() != null && rows.isVisible()) {
            Asking.fit(rows);
        }
    }

    private static GridPane rows() {
        return new GridPane(Space.ROOM, Space.GAP);
    }

    private Wanted read() {
        List<PrintOrder> orders = stretch.orders((piece, parts) -> piece);
        int parts = orders.get(0).parts().size();
        if (each.getValue() != Each.ALL && orders.size() > 1) {
            throw new IllegalArgumentException(
                    "Several variations are written with all parts in one file each; chosen is “"
                            + each.getValue().words + "” with " + orders.size() + " variations.");
        }
        if (each.getValue() == Each.STAGE && parts > 1) {
            throw new IllegalArgumentException("One file per stage is written of one part; ticked are " + parts + ".");
        }
        int ticks = (int) Stretch.number("Ticks to a quarter", division.getText(), SmfForm.MOST_DIVISION);
        return new Wanted(
                orders,
                each.getValue(),
                format(),
                new SmfForm(oneTrack.isSelected() ? 0 : 1, ticks, !sounds.isSelected()));
    }

    private PrintFormat format() {
        if (!(as.getValue() instanceof SoundFile)) {
            return as.getValue();
        }
        SoundFile plain = new SoundFile(samples.getValue().rate, samples.getValue().bits, bank);
        return loud.isSelected() ? plain.at(SoundFile.USUAL_LOUDNESS) : plain;
    }
}
