package harpel.app.print;

import harpel.app.document.Document;
import harpel.app.document.Selection;
import harpel.app.look.Look;
import harpel.app.look.Look.View;
import harpel.app.ui.Asking;
import harpel.app.ui.Buttons;
import harpel.app.ui.Choice;
import harpel.app.ui.Space;
import harpel.app.ui.TextLine;
import harpel.device.SoundBank;
import harpel.format.midi.SmfForm;
import harpel.offline.Tail;
import harpel.piece.Part;
import harpel.piece.Piece;
import harpel.print.PrintFormat;
import harpel.print.PrintOrder;
import harpel.print.Provenance;
import harpel.print.VariationNumbers;
import harpel.sound.SoundFile;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import javafx.beans.binding.Bindings;
import javafx.event.ActionEvent;
import javafx.geometry.HPos;
import javafx.geometry.Insets;
import javafx.scene.Node;
import javafx.scene.control.Alert;
import javafx.scene.control.ButtonBar;
import javafx.scene.control.ButtonType;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.Region;
import javafx.stage.Window;

/** Asks which parts and bars are printed, how often round, which variations, what becomes of the end, and where it goes. */
public final class PrintSheet {
    private static final double FIELD_WIDE = 110;
    private static final int MOST_BARS = 10_000;
    private static final int MOST_ROUNDS = 999;
    private static final int MOST_VARIATIONS = 48;

    /** Where prints go. */
    public enum Target {
        PHRASES("as ready phrases, in the parts’ place"),
        FILE("to a file, all parts"),
        FILE_0("to a MIDI file of one track (format 0)"),
        FILES("to a file a part, in a folder"),
        STAGES("to a file a stage of the part, in a folder"),
        SOUND("to a sound file (WAV, 44.1 kHz, 16 bit)"),
        SOUND_FINE("to a sound file (WAV, 48 kHz, 24 bit)"),
        SOUND_PARTS("to a sound file a part, in a folder");

        private final String words;

        Target(String words) {
            this.words = words;
        }

        /** Whether notes are written, as a file of any kind. */
        boolean isNotes() {
            return this == FILE || this == FILES || this == STAGES;
        }

        public boolean isSound() {
            return this == SOUND || this == SOUND_FINE || this == SOUND_PARTS;
        }

        SoundFile sound(SoundBank bank) {
            return this == SOUND_FINE ? new SoundFile(48_000, 24, bank) : new SoundFile(44_100, 16, bank);
        }
    }

    /**
     * What was asked for.
     *
     * @param orders one a variation
     * @param as the kind of file
     * @param form of such files
     * @param loud whether sound files are brought to the usual loudness
     */
    public record Wanted(List<PrintOrder> orders, Target target, PrintFormat as, SmfForm form, boolean loud) {
        /** How sound files are written, with these sounds. */
        public SoundFile sound(SoundBank bank) {
            SoundFile plain = target.sound(bank);
            return loud ? plain.at(SoundFile.USUAL_LOUDNESS) : plain;
        }

        /** @param stem the piece's own file, without its ending */
        public String fileName(String stem) {
            PrintOrder order = orders.get(0);
            boolean whole = order.parts().size() == order.piece().parts().size();
            String which = whole
                    ? ""
                    : order.parts().size() == 1 ? "-" + order.parts().iterator().next() : "-parts";
            return stem + which + "." + (target.isSound() ? "wav" : as.ending());
        }
    }

    private final Look look;
    private final Piece piece;
    private final Map<String, CheckBox> parts = new LinkedHashMap<>();
    private final TextField from = field("print-from", "1", "The first bar, counted from 1");
    private final TextField bars = field("print-bars", "", "How many bars make a round");
    private final TextField rounds = field("print-rounds", "1", "How often the round is printed, one after the other");
    private final TextField variations =
            field("print-variations", "", "The number that chance depends on; 1-12 or 3,7 prints several");
    private final Choice<Tail> tail =
            new Choice<>("print-tail", "What becomes of notes that sound over the end", PrintSheet::words, one -> {});
    private final Choice<Target> target = new Choice<>("print-target", "What is printed", one -> one.words, one -> {});
    private final CheckBox loud = Buttons.check("as loud as music services ask for (−14 LUFS)", "print-loud", false);
    private final Choice<PrintFormat> as =
            new Choice<>("print-as", "What kind of file the notes are written as", PrintFormat::name, one -> {});
    private final TextField division = field(
            "print-division",
            String.valueOf(SmfForm.PLAIN.division()),
            "How finely time is counted in files of notes, 24–32767 ticks to a quarter");
    private final CheckBox sounds = Buttons.check("bank, program and level of each part", "print-sounds", true);
    private final Label wrong = new Label();
    private Wanted wanted;

    private PrintSheet(Document document, Selection selection, Look look) {
        this.look = look;
        this.piece = document.piece().get();
        String chosen = selection.partId().get();
        // From the timeline all that is heard is meant.
        boolean timeline = piece.timeline() && look.view().get() == View.TIMELINE;
        for (Part part : piece.parts()) {
            parts.put(
                    part.id(),
                    Buttons.check(
                            part.name(),
                            "print-part-" + part.id(),
                            timeline && piece.isHeard(part) || part.id().equals(chosen)));
        }
        long once = PrintOrder.onceThrough(piece, Set.of(chosen));
        bars.setText(String.valueOf(piece.time().meter().barAt(once - 1) + 1));
        variations.setText(String.valueOf(piece.variation()));
        tail.show(List.of(Tail.values()), piece.timeline() ? Tail.RING : Tail.ROUND);
        target.show(List.of(Target.values()), timeline ? Target.FILE : Target.PHRASES);
        as.show(PrintFormat.all(), PrintFormat.plain());
        wrong.setId("print-wrong");
        wrong.getStyleClass().add("error");
        wrong.setWrapText(true);
    }

    private static String words(Tail tail) {
        return switch (tail) {
            case ROUND -> "repeats past the end come in at the beginning: loops without a seam";
            case RING -> "rings out after the end";
            case CUT -> "is cut";
            case STOP -> "ends as when Stop is pressed";
        };
    }

    private static TextField field(String id, String text, String tip) {
        TextField field = new TextLine(id, tip, text);
        field.setPrefColumnCount(6);
        field.setMaxWidth(FIELD_WIDE);
        return field;
    }

    /** What to print; nothing when it was put away. */
    public static Optional<Wanted> ask(Document document, Selection selection, Look look, Window owner) {
        return new PrintSheet(document, selection, look).ask(owner);
    }

    private Optional<Wanted> ask(Window owner) {
        GridPane rows = new GridPane();
        rows.setHgap(Space.ROOM);
        rows.setVgap(Space.GAP);
        rows.setPadding(new Insets(Space.ROOM));
        FlowPane boxes = new FlowPane(Space.EDGE, Space.CLOSE);
        boxes.getChildren().setAll(parts.values());
        boxes.setPrefWrapLength(380);
        row(rows, 0, "Parts", boxes);
        row(rows, 1, "From bar", from);
        row(rows, 2, "Bars", bars);
        row(rows, 3, "Rounds", rounds);
        row(rows, 4, "Variation", variations);
        row(rows, 5, "What sounds over the end", tail);
        row(rows, 6, "Print", target);
        row(rows, 7, "Written as", as);
        row(rows, 8, "Ticks to a quarter", division);
        as.disableProperty()
                .bind(Bindings.createBooleanBinding(() -> !target.getValue().isNotes(), target.valueProperty()));
        division.disableProperty()
                .bind(Bindings.createBooleanBinding(
                        () -> target.getValue() == Target.PHRASES
                                || target.getValue().isSound(),
                        target.valueProperty()));
        row(rows, 9, "Begins with", sounds);
        sounds.disableProperty()
                .bind(Bindings.createBooleanBinding(
                        () -> !target.getValue().isNotes() || target.getValue() == Target.STAGES,
                        target.valueProperty()));
        row(rows, 10, "Loudness", loud);
        loud.disableProperty()
                .bind(Bindings.createBooleanBinding(() -> !target.getValue().isSound(), target.valueProperty()));
        rows.add(wrong, 0, 11, 2, 1);
        ButtonType print = new ButtonType("Print", ButtonBar.ButtonData.OK_DONE);
        Alert sheet = Asking.sheet(owner, look.styles(), "Print", "", print, ButtonType.CANCEL);
        sheet.getDialogPane().setContent(rows);
        sheet.getDialogPane().setMinHeight(Region.USE_PREF_SIZE);
        Node button = sheet.getDialogPane().lookupButton(print);
        button.setId("print-now");
        button.addEventFilter(ActionEvent.ACTION, event -> {
            try {
                wanted = read();
            } catch (IllegalArgumentException e) {
                wrong.setText(e.getMessage());
                event.consume();
            }
        });
        return sheet.showAndWait().filter(answer -> answer == print).map(answer -> wanted);
    }

    private static void row(GridPane rows, int row, String words, Node control) {
        Label label = new Label(words);
        label.setLabelFor(control);
        label.setMinWidth(Region.USE_PREF_SIZE);
        GridPane.setHalignment(label, HPos.LEFT);
        rows.add(label, 0, row);
        rows.add(control, 1, row);
    }

    private Wanted read() {
        Set<String> chosen = new LinkedHashSet<>();
        parts.forEach((id, box) -> {
            if (box.isSelected()) {
                chosen.add(id);
            }
        });
        if (chosen.isEmpty()) {
            throw new IllegalArgumentException("Choose one part at least.");
        }
        long first = number("From bar", from.getText(), MOST_BARS) - 1;
        long count = number("Bars", bars.getText(), MOST_BARS) * number("Rounds", rounds.getText(), MOST_ROUNDS);
        long begin = piece.time().meter().tickOfBar(first);
        long end = piece.time().meter().tickOfBar(first + count);
        Piece of = piece;
        if (target.getValue() == Target.PHRASES) {
            // Of a part that plays a print already it is the phrase behind that which goes through the chain.
            for (String id : chosen) {
                of = Provenance.back(of, id);
            }
        }
        PrintOrder order = new PrintOrder(of, chosen, begin, end, tail.getValue());
        List<PrintOrder> orders = new ArrayList<>();
        VariationNumbers.parse(variations.getText(), MOST_VARIATIONS)
                .forEach(variation -> orders.add(order.withVariation(variation)));
        if (orders.size() > 1 && target.getValue().isSound()) {
            throw new IllegalArgumentException(
                    "A sound file is of one variation; “" + variations.getText() + "” are " + orders.size() + ".");
        }
        if (target.getValue() == Target.STAGES && (orders.size() > 1 || chosen.size() > 1)) {
            throw new IllegalArgumentException("A file a stage is of one part and one variation; chosen are "
                    + (chosen.size() > 1 ? chosen.size() + " parts." : orders.size() + " variations."));
        }
        if (target.getValue() == Target.FILES && orders.size() > 1) {
            throw new IllegalArgumentException(
                    "A file a part is of one variation; “" + variations.getText() + "” are " + orders.size() + ".");
        }
        return new Wanted(
                orders,
                target.getValue(),
                target.getValue().isNotes() ? as.getValue() : PrintFormat.plain(),
                form(),
                target.getValue().isSound() && loud.isSelected());
    }

    private SmfForm form() {
        int ticks = (int) number("Ticks to a quarter", division.getText(), SmfForm.MOST_DIVISION);
        return new SmfForm(target.getValue() == Target.FILE_0 ? 0 : 1, ticks, !sounds.isSelected());
    }

    private static long number(String what, String text, long most) {
        if (text.strip().matches("\\d{1,6}")) {
            long number = Long.parseLong(text.strip());
            if (number >= 1 && number <= most) {
                return number;
            }
        }
        throw new IllegalArgumentException(what + " must be 1–" + most + " but was “" + text + "”.");
    }
}
