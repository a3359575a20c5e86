package harpel.app.phrase;

import harpel.app.desk.Keeping;
import harpel.app.desk.Keeping.Span;
import harpel.app.desk.PhraseDesk;
import harpel.app.document.Document;
import harpel.app.document.Selection;
import harpel.app.draw.Picture;
import harpel.app.draw.Raster;
import harpel.app.look.Look;
import harpel.app.look.Look.Fold;
import harpel.app.look.Messages;
import harpel.app.look.Theme;
import harpel.app.transport.Transport;
import harpel.app.ui.Buttons;
import harpel.app.ui.Choice;
import harpel.app.ui.Space;
import harpel.app.ui.Tips;
import harpel.phrase.Note;
import java.util.List;
import javafx.geometry.Insets;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ToggleButton;
import javafx.scene.input.MouseEvent;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;

/** What was heard in the last bars, always remembered: mark a stretch of it and keep it as a phrase. */
public final class HeardStrip extends HBox {
    private static final int BARS = 16;
    private static final double LOW = 30;
    private static final double TALL = 38;
    /** So many frames from one drawing to the next: it is a memory, not a meter. */
    private static final int DRAW_EVERY = 12;

    private final Selection selection;
    private final Look look;
    private final Transport transport;
    private final Keeping keeping;
    private final Choice<String> place;
    private final Choice<Integer> bars;
    private final Choice<Boolean> cut;
    private final Button keep;
    private final Strip strip;
    private int frame;

    public HeardStrip(
            Document document,
            Selection selection,
            Look look,
            Transport transport,
            PhraseDesk desk,
            Keeping keeping,
            Messages messages) {
        super(Space.GAP);
        this.selection = selection;
        this.look = look;
        this.transport = transport;
        this.keeping = keeping;
        strip = new Strip();
        setId("heard");
        getStyleClass().add("heard-strip");
        setAlignment(Pos.CENTER_LEFT);
        setPadding(new Insets(Space.FINE, Space.GAP, Space.FINE, Space.ROOM));
        Label title = new Label("Heard");
        title.getStyleClass().add("stage-name");
        place = new Choice<>(
                "heard-place",
                "Which notes of the part are shown and kept",
                name -> keeping.called(selection.part(), name),
                keeping.place()::set);
        place.setPrefWidth(124);
        VBox words = new VBox(Space.HAIR, title, place);
        words.setMinWidth(124);
        keep = Buttons.button(
                "Keep last",
                "keep",
                "Keeps it as a phrase of the piece  (K). Drag it to a part, or out of the window as a MIDI file; with Alt as a table of notes (CSV).",
                keeping::keep);
        keep.setOnDragDetected(event -> {
            String before = desk.phraseId().get();
            keeping.keep();
            String kept = desk.phraseId().get();
            if (!kept.equals(before)) {
                PhraseActions.carry(document, messages, keep, kept, event.isAltDown());
            }
            event.consume();
        });
        bars = new Choice<>(
                "keep-bars", "How many bars are kept", number -> number == 1 ? "1 bar" : number + " bars", number -> {
                    keeping.span().set(null);
                    keeping.bars().set(number);
                });
        bars.setPrefWidth(84);
        ToggleButton hang = Buttons.toggle(
                "on the part",
                "keep-hang",
                "The part hears it at once; else it is only put in the list",
                keeping.hang()::set);
        Button chords = Buttons.button(
                "by chords",
                "keep-chords",
                "A phrase for each chord that was held, cut where all keys were let go and others struck",
                keeping::keepByChords);
        cut = new Choice<>(
                "keep-cut",
                "Where phrases by chords begin: with each chord’s first note, or at the bar line it is played at",
                bar -> bar ? "at bars" : "at starts",
                keeping.atBars()::set);
        cut.setPrefWidth(100);
        cut.setMinWidth(100);
        HBox first = new HBox(Space.TIGHT, keep, bars);
        HBox second = new HBox(Space.TIGHT, hang, chords, cut);
        first.setAlignment(Pos.CENTER_LEFT);
        VBox buttons = new VBox(Space.FINE, first, second);
        buttons.setMinWidth(Region.USE_PREF_SIZE);
        HBox.setHgrow(strip, Priority.ALWAYS);
        getChildren().addAll(words, strip, buttons);
        look.folds().addListener((property, before, now) -> fold(words, second));
        fold(words, second);
        keeping.span().addListener((property, before, now) -> show());
        keeping.place().addListener((property, before, now) -> show());
        keeping.bars().addListener((property, before, now) -> show());
        selection.partId().addListener((property, before, now) -> show());
        document.piece().addListener((property, before, now) -> show());
        show();
    }

    /** Folded it is one line: its name, and what keeps the last bars. */
    private void fold(VBox words, HBox second) {
        boolean folded = look.folds().get().contains(Fold.HEARD);
        place.setVisible(!folded);
        place.setManaged(!folded);
        strip.setVisible(!folded);
        strip.setManaged(!folded);
        second.setVisible(!folded);
        second.setManaged(!folded);
        words.setAlignment(Pos.CENTER_LEFT);
        setMinHeight(folded ? LOW : TALL + 4);
    }

    private void show() {
        List<String> places = keeping.places();
        if (!places.contains(keeping.place().get())) {
            keeping.place().set(harpel.run.Tap.SOUND);
        }
        place.show(places, keeping.place().get());
        bars.show(Keeping.LENGTHS, keeping.bars().get());
        cut.show(List.of(false, true), keeping.atBars().get());
        Span span = keeping.span().get();
        long count = span == null ? 0 : (span.to() - span.from()) / keeping.barTicks();
        keep.setText(span == null ? "Keep last" : count == 1 ? "Keep this bar" : "Keep these " + count + " bars");
        bars.setVisible(span == null);
        bars.setManaged(span == null);
        frame = 0;
    }

    /** Draws now and then. */
    public void draw() {
        if (frame++ % DRAW_EVERY == 0) {
            strip.repaint();
        }
        strip.draw();
    }

    /** The strip itself. */
    private final class Strip extends Picture {
        private long from;
        private double pressX;
        private boolean dragged;

        Strip() {
            super(look);
            setId("heard-notes");
            setMinSize(80, TALL);
            setPrefHeight(TALL);
            setMaxHeight(TALL);
            Tips.set(
                    this,
                    "The last bars, exactly as they were heard, over stops and starts. Drag marks bars to keep, a click none;\nShift and"
                            + " drag on a frozen trace marks there, too.");
            addEventHandler(MouseEvent.MOUSE_PRESSED, event -> {
                pressX = event.getX();
                dragged = false;
                event.consume();
            });
            addEventHandler(MouseEvent.MOUSE_DRAGGED, event -> {
                dragged |= Math.abs(event.getX() - pressX) > 3;
                if (dragged) {
                    keeping.mark(tickAt(pressX), tickAt(event.getX()));
                    repaint();
                }
                event.consume();
            });
            addEventHandler(MouseEvent.MOUSE_RELEASED, event -> {
                if (!dragged) {
                    keeping.span().set(null);
                    repaint();
                }
            });
        }

        private long tickAt(double x) {
            return from + Math.round(x / Math.max(1, getWidth()) * BARS * keeping.barTicks());
        }

        @Override
        protected void paint(Raster g, Theme theme) {
            g.begin(Raster.mixed(theme.raised, theme.raised, 0));
            long bar = keeping.barTicks();
            long to = Math.max(BARS * bar, -Math.floorDiv(-transport.heardNow(), bar) * bar);
            from = to - BARS * bar;
            double unit = g.shownWidth() / (BARS * bar);
            Span span = keeping.span().get();
            if (span != null) {
                double left = (span.from() - from) * unit;
                g.fill(
                        left,
                        0,
                        (span.to() - span.from()) * unit,
                        g.shownHeight(),
                        Raster.mixed(theme.raised, theme.brass, 0.28));
                g.edge(
                        left,
                        0,
                        (span.to() - span.from()) * unit,
                        g.shownHeight(),
                        Raster.mixed(theme.raised, theme.brass, 1));
            }
            for (int i = 0; i < BARS; i++) {
                g.fill(Math.round(i * bar * unit), 0, 1, g.shownHeight(), Raster.mixed(theme.raised, theme.rule, 0.8));
            }
            List<Note> notes = transport
                    .heard()
                    .take(selection.partId().get(), keeping.place().get(), from, Math.min(to, transport.heardNow()))
                    .notes();
            int low = notes.stream().mapToInt(Note::pitch).min().orElse(48);
            int high = notes.stream().mapToInt(Note::pitch).max().orElse(72);
            double row = (g.shownHeight() - 4) / Math.max(12, high - low + 1);
            int ink = Raster.mixed(theme.raised, theme.ink, 0.8);
            for (Note note : notes) {
                double y = 2 + (high - note.pitch()) * row;
                g.fill(note.tick() * unit, y, Math.max(1.5, note.length() * unit - 0.5), Math.max(1.5, row), ink);
            }
        }
    }
}
