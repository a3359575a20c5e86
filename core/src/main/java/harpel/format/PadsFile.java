package harpel.format;

import harpel.param.ParamException;
import harpel.param.type.ChoiceType;
import harpel.piece.perform.Moment;
import harpel.piece.perform.Pad;
import harpel.piece.perform.When;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/** Pads and moments as they stand in the file of a piece. */
final class PadsFile {
    private static final ChoiceType<Pad.Does> DOES = ChoiceType.of(Pad.Does.class);

    private PadsFile() {}

    static Pad readPad(Object plain, String path, boolean newer) {
        PlainMap fields = new PlainMap(plain, path, newer);
        int at = (int) fields.whole("at", 0, 0, Pad.PAGE * Pad.PAGES - 1);
        String name = fields.text("name", "");
        Pad.Does does = fields.take("does", Pad.Does.SILENCE, DOES::read);
        String part = fields.text("part", "");
        String what = fields.text("what", "");
        When when = fields.take("when", When.NOW, PadsFile::when);
        return new Pad(at, name, does, part, what, when, fields.end("at, name, does, part, what, when"));
    }

    static Map<String, Object> writePad(Pad pad) {
        Map<String, Object> plain = new LinkedHashMap<>();
        plain.put("at", pad.at());
        text(plain, "name", pad.name());
        plain.put("does", DOES.write(pad.does()));
        text(plain, "part", pad.part());
        text(plain, "what", pad.what());
        when(plain, pad.when(), When.NOW);
        PlainMap.merge(plain, pad.unknown());
        return plain;
    }

    private static void text(Map<String, Object> plain, String field, String value) {
        if (!value.isEmpty()) {
            plain.put(field, value);
        }
    }

    private static When when(Object plain) {
        try {
            return When.parse(String.valueOf(plain));
        } catch (IllegalArgumentException e) {
            throw new ParamException(e.getMessage());
        }
    }

    private static void when(Map<String, Object> plain, When when, When usual) {
        if (!when.equals(usual)) {
            plain.put("when", when.bars() > 1 ? when.bars() : when.toString());
        }
    }

    static Moment readMoment(Object plain, String path, boolean newer) {
        PlainMap fields = new PlainMap(plain, path, newer);
        String name = fields.text("name", "");
        When when = fields.take("when", When.BAR, PadsFile::when);
        double glide = fields.take("glide", 0.0, value -> number(value, Moment.LONGEST_GLIDE));
        Map<String, Moment.State> parts = fields.take("parts", Map.of(), value -> readStates(value, newer));
        Map<String, Double> levers = fields.take("levers", Map.of(), PadsFile::readLevers);
        Map<String, Object> unknown = fields.end("name, when, glide, parts, levers");
        return PlainMap.at(path, () -> new Moment(name, parts, levers, when, glide, unknown));
    }

    private static double number(Object plain, double most) {
        if (plain instanceof Number number && number.doubleValue() >= 0 && number.doubleValue() <= most) {
            return number.doubleValue();
        }
        throw new ParamException("must be 0–" + (int) most + " but was " + plain);
    }

    private static Map<String, Moment.State> readStates(Object plain, boolean newer) {
        Map<String, Moment.State> states = new LinkedHashMap<>();
        map(plain).forEach((part, state) -> {
            PlainMap fields = new PlainMap(state, part, newer);
            boolean mute = fields.flag("mute", false);
            boolean solo = fields.flag("solo", false);
            char chain = fields.take("chain", 'A', PadsFile::letter);
            boolean off = fields.flag("chain-off", false);
            String phrase = fields.text("phrase", "");
            Map<String, Boolean> stages = new LinkedHashMap<>();
            map(fields.take("stages", Map.of(), PadsFile::map)).forEach((stage, on) -> stages.put(stage, flag(on)));
            fields.end("mute, solo, chain, chain-off, phrase, stages");
            states.put(
                    part,
                    PlainMap.at(part + ".stages", () -> new Moment.State(mute, solo, chain, off, phrase, stages)));
        });
        return states;
    }

    private static char letter(Object plain) {
        if ("A".equals(plain) || "B".equals(plain)) {
            return ((String) plain).charAt(0);
        }
        throw new ParamException("must be A or B but was " + plain);
    }

    private static boolean flag(Object plain) {
        if (plain instanceof Boolean flag) {
            return flag;
        }
        throw new ParamException("must be true or false but was " + plain);
    }

    private static Map<String, Object> map(Object plain) {
        if (!(plain instanceof Map<?, ?> map)) {
            throw new ParamException("must be an object but was " + plain);
        }
        Map<String, Object> copy = new LinkedHashMap<>();
        map.forEach((key, value) -> copy.put(String.valueOf(key), value));
        return copy;
    }

    private static Map<String, Double> readLevers(Object plain) {
        Map<String, Double> levers = new LinkedHashMap<>();
        map(plain).forEach((name, value) -> levers.put(name, number(value, 100)));
        return levers;
    }

    static Map<String, Object> writeMoment(Moment moment) {
        Map<String, Object> plain = new LinkedHashMap<>();
        plain.put("name", moment.name());
        when(plain, moment.when(), When.BAR);
        if (moment.glide() > 0) {
            plain.put("glide", PlainMap.plain(moment.glide()));
        }
        Map<String, Object> parts = new LinkedHashMap<>();
        moment.parts().forEach((part, state) -> parts.put(part, writeState(state)));
        plain.put("parts", parts);
        Map<String, Object> levers = new LinkedHashMap<>();
        moment.levers().forEach((name, value) -> levers.put(name, PlainMap.plain(value)));
        plain.put("levers", levers);
        PlainMap.merge(plain, moment.unknown());
        return plain;
    }

    private static Map<String, Object> writeState(Moment.State state) {
        Map<String, Object> plain = new LinkedHashMap<>();
        for (Map.Entry<String, Boolean> flag : List.of(
                Map.entry("mute", state.mute()),
                Map.entry("solo", state.solo()),
                Map.entry("chain-off", state.off()))) {
            if (flag.getValue()) {
                plain.put(flag.getKey(), true);
            }
        }
        if (state.chain() != 'A') {
            plain.put("chain", String.valueOf(state.chain()));
        }
        text(plain, "phrase", state.phrase());
        if (!state.stages().isEmpty()) {
            plain.put("stages", state.stages());
        }
        return plain;
    }
}
