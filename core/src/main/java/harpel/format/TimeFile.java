package harpel.format;

import harpel.piece.Bracket;
import harpel.piece.KeyChange;
import harpel.piece.Mark;
import harpel.theory.Key;
import harpel.theory.Pitch;
import harpel.time.MeterMap;
import harpel.time.TempoMap;
import harpel.time.Ticks;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.function.Function;

/** Tempo, meter, keys, marks and the loop as {@link PieceFile} has them. */
final class TimeFile {
    private TimeFile() {}

    static TempoMap readTempo(Object plain, boolean newer) {
        if (plain instanceof Number bpm) {
            return TempoMap.of(bpm.doubleValue());
        }
        return new TempoMap(changes(
                plain,
                newer,
                fields -> new TempoMap.Change(
                        fields.whole("at", 0, 0, Ticks.FARTHEST),
                        fields.take("bpm", 120.0, PlainMap::number),
                        fields.flag("ramp", false))));
    }

    static MeterMap readMeter(Object plain, boolean newer) {
        if (plain instanceof String text) {
            return new MeterMap(List.of(MeterMap.Change.parse(0, text)));
        }
        return new MeterMap(changes(
                plain,
                newer,
                fields ->
                        MeterMap.Change.parse(fields.whole("at", 0, 0, Ticks.FARTHEST), fields.text("meter", "4/4"))));
    }

    private static <T> List<T> changes(Object plain, boolean newer, Function<PlainMap, T> reader) {
        List<T> changes = new ArrayList<>();
        List<?> list = PlainMap.list(plain);
        for (int i = 0; i < list.size(); i++) {
            PlainMap fields = new PlainMap(list.get(i), "[" + i + "]", newer);
            changes.add(reader.apply(fields));
            fields.end("at, bpm, ramp, meter");
        }
        return changes;
    }

    static KeyChange readKey(Object plain, String path, boolean newer) {
        PlainMap fields = new PlainMap(plain, path, newer);
        long at = fields.whole("at", 1, 1, Ticks.FARTHEST);
        Key key = fields.take("key", Key.C_MAJOR, value -> Key.parse(String.valueOf(value)));
        return new KeyChange(at, key, fields.end("at, key"));
    }

    static Mark readMark(Object plain, String path, boolean newer) {
        PlainMap fields = new PlainMap(plain, path, newer);
        long at = fields.whole("at", 0, 0, Ticks.FARTHEST);
        String name = fields.text("name", "");
        return new Mark(at, name, fields.end("at, name"));
    }

    static Bracket readBracket(Object plain, boolean newer) {
        PlainMap fields = new PlainMap(plain, "", newer);
        long from = fields.whole("from", 0, 0, Ticks.FARTHEST);
        long to = fields.whole("to", 0, 0, Ticks.FARTHEST);
        boolean on = fields.flag("on", false);
        return new Bracket(from, to, on, fields.end("from, to, on"));
    }

    static Object writeTempo(TempoMap tempo) {
        if (tempo.changes().size() == 1 && !tempo.rampsAt(0)) {
            return PlainMap.plain(tempo.bpmAt(0));
        }
        return tempo.changes().stream()
                .map(change -> change.ramp()
                        ? PlainMap.of("at", change.tick(), "bpm", PlainMap.plain(change.bpm()), "ramp", true)
                        : PlainMap.of("at", change.tick(), "bpm", PlainMap.plain(change.bpm())))
                .toList();
    }

    static Object writeMeter(MeterMap meter) {
        if (meter.changes().size() == 1) {
            return meter.at(0).shown();
        }
        return meter.changes().stream()
                .map(change -> PlainMap.of("at", change.tick(), "meter", change.shown()))
                .toList();
    }

    static Map<String, Object> writeKey(KeyChange change) {
        Map<String, Object> plain = PlainMap.of("at", change.tick(), "key", text(change.key()));
        PlainMap.merge(plain, change.unknown());
        return plain;
    }

    static Map<String, Object> writeMark(Mark mark) {
        Map<String, Object> plain = PlainMap.of("at", mark.tick(), "name", mark.name());
        PlainMap.merge(plain, mark.unknown());
        return plain;
    }

    static Map<String, Object> writeBracket(Bracket bracket) {
        Map<String, Object> plain = PlainMap.of("from", bracket.from(), "to", bracket.to(), "on", bracket.on());
        PlainMap.merge(plain, bracket.unknown());
        return plain;
    }

    static String text(Key key) {
        return Pitch.plain(key.name());
    }
}
