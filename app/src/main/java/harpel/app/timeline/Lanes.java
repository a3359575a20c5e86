package harpel.app.timeline;

import harpel.app.document.Document;
import harpel.piece.KeyChange;
import harpel.piece.Mark;
import harpel.piece.Piece;
import harpel.piece.PieceEdit;
import harpel.theory.Key;
import harpel.time.MeterMap;
import harpel.time.TempoMap;
import harpel.time.TimeMap;
import java.util.ArrayList;
import java.util.List;

/** What stands above the rows and holds for all parts: each lane's points, in words, and what typing there does. */
enum Lanes {
    METER("Bars") {
        @Override
        List<Point> points(Piece piece) {
            return piece.time().meter().changes().stream()
                    .map(change -> new Point(change.tick(), change.shown()))
                    .toList();
        }

        @Override
        Piece set(Piece piece, long tick, String text) {
            List<MeterMap.Change> changes = new ArrayList<>(piece.time().meter().changes());
            changes.removeIf(change -> change.tick() == tick && (tick > 0 || !text.isEmpty()));
            if (!text.isEmpty()) {
                changes.add(MeterMap.Change.parse(tick, text));
            }
            return piece.withTime(new TimeMap(piece.time().tempo(), MeterMap.ofChanges(changes)));
        }

        @Override
        String hint() {
            return "A meter such as 3/4 from here on";
        }
    },
    TEMPO("Tempo") {
        @Override
        List<Point> points(Piece piece) {
            return piece.time().tempo().changes().stream()
                    .map(change -> new Point(change.tick(), number(change.bpm()) + (change.ramp() ? " ramp" : "")))
                    .toList();
        }

        @Override
        Piece set(Piece piece, long tick, String text) {
            List<TempoMap.Change> changes = new ArrayList<>(piece.time().tempo().changes());
            changes.removeIf(change -> change.tick() == tick && (tick > 0 || !text.isEmpty()));
            if (!text.isEmpty()) {
                if (!text.matches("\\d{1,3}([.,]\\d{1,3})?( *ramp)?")) {
                    throw new IllegalArgumentException(
                            "A tempo is a number of quarters a minute such as 96, or 96 ramp to go"
                                    + " evenly to the next, but was “" + text + "”.");
                }
                double bpm = Double.parseDouble(text.replace("ramp", "").strip().replace(',', '.'));
                changes.add(new TempoMap.Change(tick, bpm, text.endsWith("ramp")));
            }
            return piece.withTime(
                    new TimeMap(TempoMap.ofChanges(changes), piece.time().meter()));
        }

        @Override
        String hint() {
            return "Quarters a minute from here on; 96 ramp goes evenly to the next tempo";
        }
    },
    KEY("Key") {
        @Override
        List<Point> points(Piece piece) {
            List<Point> points =
                    new ArrayList<>(List.of(new Point(0, piece.key().name())));
            piece.keys()
                    .forEach(change ->
                            points.add(new Point(change.tick(), change.key().name())));
            return points;
        }

        @Override
        Piece set(Piece piece, long tick, String text) {
            if (tick == 0) {
                return text.isEmpty() ? piece : piece.withKey(Key.parse(text));
            }
            List<KeyChange> changes = new ArrayList<>(piece.keys());
            changes.removeIf(change -> change.tick() == tick);
            if (!text.isEmpty()) {
                changes.add(KeyChange.of(tick, Key.parse(text)));
            }
            return piece.withKeys(changes);
        }

        @Override
        String hint() {
            return "A key such as F major from here on; every effect that reads the key reads it";
        }
    },
    MARKS("Marks") {
        @Override
        List<Point> points(Piece piece) {
            return piece.marks().stream()
                    .map(mark -> new Point(mark.tick(), mark.name()))
                    .toList();
        }

        @Override
        Piece set(Piece piece, long tick, String text) {
            List<Mark> marks = new ArrayList<>(piece.marks());
            marks.removeIf(mark -> mark.tick() == tick);
            if (!text.isEmpty()) {
                marks.add(Mark.of(tick, text));
            }
            return piece.withMarks(marks);
        }

        @Override
        String hint() {
            return "A name for this place; Ctrl+Page Up and Page Down go from mark to mark";
        }
    };

    static final double TALL = 22;

    final String title;

    Lanes(String title) {
        this.title = title;
    }

    /** What holds from a tick on, in words. */
    record Point(long tick, String words) {}

    abstract List<Point> points(Piece piece);

    /**
     * With what was typed for a tick; with nothing typed without what stood there.
     *
     * @throws IllegalArgumentException in words
     */
    abstract Piece set(Piece piece, long tick, String text);

    abstract String hint();

    private static String number(double value) {
        return value == Math.rint(value) ? String.valueOf((long) value) : String.valueOf(value);
    }

    /** What stands at just that tick; empty where nothing does. */
    String at(Piece piece, long tick) {
        return points(piece).stream()
                .filter(point -> point.tick == tick)
                .map(Point::words)
                .findFirst()
                .orElse("");
    }

    /** Takes what was typed, as one undo. */
    void take(Document document, long tick, String text) {
        Piece before = document.piece().get();
        Piece after = set(before, tick, text);
        if (!after.equals(before)) {
            document.apply(PieceEdit.of("Set " + title.toLowerCase(java.util.Locale.ROOT), piece -> after));
        }
    }
}
