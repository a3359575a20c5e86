package harpel.format;

import harpel.effect.EffectCatalog;
import harpel.effect.EffectKind;
import harpel.effect.Family;
import harpel.effect.route.Split;
import harpel.move.Moves;
import harpel.move.Source;
import harpel.param.Param;
import harpel.param.ParamSpec;
import harpel.param.type.ChoiceType;
import harpel.param.type.ListType;
import harpel.param.type.RowType;
import harpel.phrase.Origin;
import harpel.piece.Mix;
import harpel.piece.Preset;
import harpel.piece.perform.Lever;
import harpel.piece.perform.Pad;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/** What the descriptors say, as text, Markdown, JSON and JSON Schema. */
public final class Reference {
    private Reference() {}

    /** One effect for a terminal. */
    public static String text(EffectKind kind) {
        StringBuilder text = new StringBuilder();
        text.append(kind.id())
                .append(" – ")
                .append(kind.words().label())
                .append(": ")
                .append(kind.words().does())
                .append('\n');
        addParams(text, kind.spec(), "  ");
        if (kind.nature().branches()) {
            text.append("  takes (of each branch)\n");
            addParams(text, Split.TAKES, "    ");
        }
        if (!kind.words().notes().isEmpty()) {
            text.append("\n  ").append(kind.words().notes()).append('\n');
        }
        return text.toString();
    }

    private static void addParams(StringBuilder text, ParamSpec spec, String indent) {
        for (Param<?> param : spec.params()) {
            text.append(String.format(
                    "%s%-18s %s%n%s%-18s %s (default %s)%n",
                    indent, param.id(), param.help(), indent, "", param.type().range(), defaultOf(param)));
            ParamSpec row = row(param);
            if (row != null) {
                addParams(text, row, indent + "    ");
            }
        }
    }

    private static <T> String defaultOf(Param<T> param) {
        Object plain = param.type().write(param.defaultValue());
        return plain instanceof String word
                ? (word.isEmpty() ? "empty" : word)
                : Json.write(plain).strip();
    }

    private static ParamSpec row(Param<?> param) {
        return param.type() instanceof ListType<?> list && list.item() instanceof RowType row ? row.spec() : null;
    }

    /** The presets of one effect, or with null of all and of whole chains. */
    public static String presets(Presets presets, EffectKind only) {
        StringBuilder text = new StringBuilder();
        for (EffectKind kind : only == null ? EffectCatalog.kinds() : List.of(only)) {
            text.append(kind.words().label()).append(" (").append(kind.id()).append(")\n");
            for (Presets.Preset preset : presets.of(kind)) {
                text.append(String.format("  %-28s %s%n", preset.name(), preset.does()));
            }
        }
        if (only == null) {
            text.append("Whole chains\n");
            for (Presets.Preset preset : presets.chains()) {
                text.append(String.format("  %-34s %s%n", preset.name(), preset.does()));
            }
        }
        return text.toString();
    }

    /** Every effect as one page. */
    public static String markdown() {
        StringBuilder page = new StringBuilder(
                "# Effects\n\nMade by `./harpel describe --markdown` from the descriptors that also drive"
                        + " the controls and the files; a test keeps it current.\n");
        Family family = null;
        for (EffectKind kind : EffectCatalog.kinds()) {
            if (kind.words().family() != family) {
                family = kind.words().family();
                page.append("\n## ").append(family.label()).append('\n');
            }
            page.append('\n').append(markdown(kind));
        }
        return page.append(movingParameters()).toString();
    }

    private static String movingParameters() {
        StringBuilder page = new StringBuilder(
                "\n## Moving parameters\n\n"
                        + "Every parameter that has a place between a lowest and a highest can be moved, but no seed and nothing of a split:"
                        + " a stage's `\"move\"` has for a parameter's id a list of movers, such as"
                        + " `\"move\": {\"gate\": [{\"by\": \"lfo\", \"pace\": \"1/2\", \"amount\": 40}]}`. Automation takes the place of the base"
                        + " value while the transport runs; what the others give is added to it, in parts of the control's range, and the"
                        + " sum is kept in range. What flows is looked at with every event and step of its stage and at every 64th note"
                        + " between them, live and printed alike. A lever is a piece's: `\"levers\": [{\"name\": \"Tide\", \"value\": 40,"
                        + " \"controllers\": [21], \"curve\": 0}]`; a controller takes a lever over when it has come to where the lever stands.\n");
        for (Source source : Source.values()) {
            page.append("\n### ")
                    .append(source.word())
                    .append("\n\n")
                    .append(source.does())
                    .append(".\n\n");
            table(page, settings(source));
        }
        return page.toString();
    }

    /** One effect as a chapter. */
    public static String markdown(EffectKind kind) {
        StringBuilder page = new StringBuilder();
        page.append("### ")
                .append(kind.words().label())
                .append(" (`")
                .append(kind.id())
                .append("`)\n\n");
        page.append(Character.toUpperCase(kind.words().does().charAt(0)))
                .append(kind.words().does().substring(1))
                .append(".\n\n");
        table(page, kind.spec());
        if (kind.nature().branches()) {
            page.append("\nWhat a branch `takes`:\n\n");
            table(page, Split.TAKES);
        }
        for (Param<?> param : kind.spec().params()) {
            if (row(param) != null) {
                page.append("\nEach of `").append(param.id()).append("`:\n\n");
                table(page, row(param));
            }
        }
        if (!kind.words().notes().isEmpty()) {
            page.append('\n').append(kind.words().notes()).append('\n');
        }
        return page.toString();
    }

    private static void table(StringBuilder page, ParamSpec spec) {
        page.append("| parameter | values | default | meaning |\n|---|---|---|---|\n");
        for (Param<?> param : spec.params()) {
            page.append(String.format(
                    "| `%s` | %s | `%s` | %s |%n",
                    param.id(), param.type().range().replace("|", "\\|"), defaultOf(param), param.help()));
        }
    }

    /** One effect, or with null all, as plain values. */
    public static Object json(EffectKind kind) {
        if (kind == null) {
            return EffectCatalog.kinds().stream().map(Reference::json).toList();
        }
        Map<String, Object> plain = new LinkedHashMap<>();
        plain.put("effect", kind.id());
        plain.put("label", kind.words().label());
        plain.put("family", kind.words().family().label());
        plain.put("does", kind.words().does());
        plain.put("parameters", jsonParams(kind.spec()));
        if (kind.nature().branches()) {
            plain.put("takes", jsonParams(Split.TAKES));
        }
        plain.put("notes", kind.words().notes());
        return plain;
    }

    private static List<Object> jsonParams(ParamSpec spec) {
        List<Object> list = new ArrayList<>();
        for (Param<?> param : spec.params()) {
            list.add(jsonParam(param));
        }
        return list;
    }

    private static <T> Map<String, Object> jsonParam(Param<T> param) {
        Map<String, Object> plain = new LinkedHashMap<>();
        plain.put("id", param.id());
        plain.put("label", param.label());
        plain.put("values", param.type().range());
        plain.put("default", param.type().write(param.defaultValue()));
        plain.put("help", param.help());
        plain.put("schema", param.type().schema());
        return plain;
    }

    /** The JSON Schema (draft 2020-12) of chain and piece files. */
    public static Map<String, Object> schema() {
        Map<String, Object> definitions = new LinkedHashMap<>();
        List<Object> stages = new ArrayList<>();
        for (EffectKind kind : EffectCatalog.kinds()) {
            definitions.put(kind.id(), stageSchema(kind));
            stages.add(ref(kind.id()));
        }
        List<Object> movers = new ArrayList<>();
        for (Source source : Source.values()) {
            Map<String, Object> mover = RowType.schemaOf(settings(source));
            properties(mover).put(ChainFile.BY, Map.of("const", source.word()));
            mover.put("required", List.of(ChainFile.BY));
            definitions.put("by-" + source.word(), mover);
            movers.add(ref("by-" + source.word()));
        }
        definitions.put("mover", Map.of("oneOf", movers));
        definitions.put("stage", Map.of("oneOf", stages));
        definitions.put("chain", Map.of("type", "array", "items", ref("stage")));
        Map<String, Object> branch = object("chain", ref("chain"));
        properties(branch).put("takes", RowType.schemaOf(Split.TAKES));
        definitions.put("branch", branch);
        definitions.put("chain-file", chainFileSchema());
        definitions.put("piece-file", pieceFileSchema());
        Map<String, Object> schema = new LinkedHashMap<>();
        schema.put("$schema", "https://json-schema.org/draft/2020-12/schema");
        schema.put("title", "Harpel chain or piece, version " + ChainFile.VERSION);
        schema.put("anyOf", List.of(ref("chain-file"), ref("piece-file")));
        schema.put("$defs", definitions);
        return schema;
    }

    private static Map<String, Object> ref(String name) {
        return Map.of("$ref", "#/$defs/" + name);
    }

    /** Patterns of the ids of values inside lists that can be moved: {@code voices\.N\.chance}. */
    private static List<String> insides(ParamSpec spec, String before) {
        List<String> patterns = new ArrayList<>();
        for (Param<?> param : spec.params()) {
            if (param.type() instanceof ListType<?> list) {
                String place = before + param.id() + "\\.[1-9][0-9]*";
                if (list.item() instanceof RowType row) {
                    row.spec().params().stream()
                            .filter(Moves::hasPlace)
                            .forEach(one -> patterns.add(place + "\\." + one.id()));
                    patterns.addAll(insides(row.spec(), place + "\\."));
                } else if (spec.anywhere(param.id() + ".1")
                        .filter(Moves::hasPlace)
                        .isPresent()) {
                    patterns.add(place);
                }
            }
        }
        return patterns;
    }

    private static Map<String, Object> stageSchema(EffectKind kind) {
        Map<String, Object> schema = RowType.schemaOf(kind.spec());
        schema.put("description", kind.words().label() + ": " + kind.words().does());
        properties(schema).put("id", Map.of("type", "string", "pattern", "^[a-z][a-z0-9-]*$"));
        if (kind.declaresMore()) {
            schema.put("additionalProperties", true);
        }
        Map<String, Object> moved = new LinkedHashMap<>();
        for (Param<?> param : kind.spec().params()) {
            if (Moves.canMove(kind, param)) {
                moved.put(param.id(), Map.of("type", "array", "items", ref("mover")));
            }
        }
        if (!moved.isEmpty()) {
            Map<String, Object> move = new LinkedHashMap<>();
            move.put("type", "object");
            move.put("properties", moved);
            Map<String, Object> inLists = new LinkedHashMap<>();
            insides(kind.spec(), "^")
                    .forEach(pattern -> inLists.put(pattern + "$", Map.of("type", "array", "items", ref("mover"))));
            if (!inLists.isEmpty()) {
                move.put("patternProperties", inLists);
            }
            move.put("additionalProperties", kind.declaresMore());
            properties(schema).put(ChainFile.MOVE, move);
        }
        if (kind.nature().branches()) {
            properties(schema)
                    .put(
                            "split",
                            Map.of(
                                    "type",
                                    "array",
                                    "items",
                                    ref("branch"),
                                    "minItems",
                                    1,
                                    "maxItems",
                                    Split.MOST_BRANCHES));
            schema.put("required", List.of("split"));
        } else {
            properties(schema).put("effect", Map.of("const", kind.id()));
            schema.put("required", List.of("effect"));
        }
        return schema;
    }

    /** All that a source can be set to: what it has of a moved time is the most. */
    private static ParamSpec settings(Source source) {
        return source.spec(source == Source.AUTOMATION ? EffectKind.ON : Source.PACE);
    }

    private static Map<String, Object> chainFileSchema() {
        Map<String, Object> schema = object("harpel", "chain", ref("chain"));
        properties(schema).put("part", Map.of("type", "string"));
        properties(schema).put("key", Map.of("type", "string"));
        return schema;
    }

    private static Map<String, Object> pieceFileSchema() {
        Map<String, Object> number = Map.of("type", "number");
        Map<String, Object> text = Map.of("type", "string");
        Map<String, Object> part = object("name", text);
        for (String field : List.of("id", "phrase", "sound", "output")) {
            properties(part).put(field, text);
        }
        Map<String, Object> hears = new LinkedHashMap<>();
        hears.put("device", text);
        hears.put("channel", Map.of("type", "integer", "minimum", 1, "maximum", 16));
        hears.put("output-of", text);
        hears.put("keys-here", Map.of("type", "boolean"));
        hears.put("input-of", text);
        properties(part)
                .put(
                        "input",
                        Map.of(
                                "anyOf",
                                List.of(
                                        Map.of("enum", List.of("keys", "none")),
                                        Map.of("type", "object", "properties", hears, "additionalProperties", false))));
        Map<String, Object> bankOrProgram = Map.of("type", "integer", "minimum", 0, "maximum", Preset.HIGHEST_BANK);
        properties(part).put("preset", Map.of("type", "array", "items", bankOrProgram, "minItems", 2, "maxItems", 2));
        properties(part).put("run", Map.of("enum", List.of("keys", "transport")));
        properties(part).put("channel", Map.of("type", "integer", "minimum", 1, "maximum", 16));
        properties(part).put("mute", Map.of("type", "boolean"));
        properties(part).put("solo", Map.of("type", "boolean"));
        properties(part).put("level", Map.of("type", "integer", "minimum", 0, "maximum", 100));
        properties(part)
                .put(
                        "variations",
                        Map.of("type", "array", "items", Map.of("type", "integer", "minimum", 0, "maximum", 999_999)));
        Map<String, Object> block = object("at", Map.of("type", "integer", "minimum", 0));
        properties(block).put("length", Map.of("type", "integer", "minimum", 1));
        properties(block).put("phrase", text);
        properties(block).put("from", Map.of("type", "integer", "minimum", 0));
        properties(block).put("chain", Map.of("type", "boolean"));
        properties(block).put("variation", Map.of("type", "integer", "minimum", 0, "maximum", 999_999));
        properties(part).put("blocks", Map.of("type", "array", "items", block));
        properties(part)
                .put("mutes", Map.of("type", "array", "items", Map.of("type", "array", "minItems", 2, "maxItems", 2)));
        properties(part).put("stars", Map.of("type", "array", "items", text));
        properties(part).put("colour", Map.of("type", "integer", "minimum", 0, "maximum", Mix.COLOURS - 1));
        properties(part).put("chain", ref("chain"));
        properties(part).put("chain-off", Map.of("type", "boolean"));
        properties(part).put("heard", Map.of("enum", List.of("A", "B")));
        properties(part).put("other-chain", ref("chain"));
        properties(part).put("between", text);
        Map<String, Object> phrase = object("name", text);
        properties(phrase).put("length", Map.of("type", "integer", "minimum", 0));
        Map<String, Object> whole = Map.of("type", "integer");
        properties(phrase).put("id", text);
        Map<String, Object> traits = new LinkedHashMap<>();
        traits.put("chance", Map.of("type", "integer", "minimum", 0, "maximum", 100));
        traits.put("off", Map.of("type", "boolean"));
        traits.put("release", Map.of("type", "integer", "minimum", 0, "maximum", 127));
        Map<String, Object> noteItem = Map.of(
                "anyOf", List.of(whole, Map.of("type", "object", "properties", traits, "additionalProperties", false)));
        properties(phrase)
                .put(
                        "notes",
                        Map.of(
                                "type",
                                "array",
                                "items",
                                Map.of("type", "array", "items", noteItem, "minItems", 4, "maxItems", 5)));
        properties(phrase).put("ready", Map.of("type", "boolean"));
        Map<String, Object> origin = object("from", text);
        properties(origin)
                .put(
                        "kind",
                        Map.of(
                                "enum",
                                Arrays.stream(Origin.Kind.values())
                                        .map(ChoiceType::word)
                                        .toList()));
        properties(origin).put("details", text);
        properties(origin).put("how", Map.of("type", "object"));
        properties(phrase).put("origin", origin);
        properties(phrase).put("messages", Map.of("type", "array", "items", Map.of("type", "array")));
        Map<String, Object> schema = object("harpel", "parts", Map.of("type", "array", "items", part));
        properties(schema).put("piece", text);
        properties(schema).put("key", text);
        properties(schema).put("sounds", text);
        properties(schema).put("variation", Map.of("type", "integer", "minimum", 0, "maximum", 999_999));
        properties(schema).put("tempo", Map.of("anyOf", List.of(number, Map.of("type", "array"))));
        properties(schema).put("meter", Map.of("anyOf", List.of(text, Map.of("type", "array"))));
        Map<String, Object> lever = object("name", text);
        properties(lever).put("value", Map.of("type", "number", "minimum", 0, "maximum", 100));
        properties(lever)
                .put(
                        "controllers",
                        Map.of("type", "array", "items", Map.of("type", "integer", "minimum", 0, "maximum", 127)));
        properties(lever).put("curve", Map.of("type", "integer", "minimum", -100, "maximum", 100));
        properties(lever).put("returns", Map.of("type", "boolean"));
        properties(lever).put("steps", Map.of("type", "integer", "minimum", 2, "maximum", Lever.MOST_STEPS));
        properties(lever)
                .put("points", Map.of("type", "array", "items", Map.of("type", "array", "minItems", 2, "maxItems", 2)));
        properties(schema).put("levers", Map.of("type", "array", "items", lever));
        Map<String, Object> key = object("at", Map.of("type", "integer", "minimum", 1));
        properties(key).put("key", text);
        properties(schema).put("keys", Map.of("type", "array", "items", key));
        Map<String, Object> when =
                Map.of("anyOf", List.of(text, Map.of("type", "integer", "minimum", 2, "maximum", 64)));
        Map<String, Object> pad = object("at", Map.of("type", "integer", "minimum", 0, "maximum", 127));
        properties(pad).put("name", text);
        properties(pad)
                .put(
                        "does",
                        Map.of(
                                "enum",
                                Arrays.stream(Pad.Does.values())
                                        .map(ChoiceType::word)
                                        .toList()));
        properties(pad).put("part", text);
        properties(pad).put("what", text);
        properties(pad).put("when", when);
        properties(schema).put("pads", Map.of("type", "array", "items", pad));
        Map<String, Object> moment = object("name", text);
        properties(moment).put("when", when);
        properties(moment).put("glide", Map.of("type", "number", "minimum", 0, "maximum", 64));
        properties(moment).put("parts", Map.of("type", "object"));
        properties(moment).put("levers", Map.of("type", "object"));
        properties(schema).put("moments", Map.of("type", "array", "items", moment));
        Map<String, Object> loop = object("from", Map.of("type", "integer", "minimum", 0));
        properties(loop).put("to", Map.of("type", "integer", "minimum", 0));
        properties(loop).put("on", Map.of("type", "boolean"));
        properties(schema).put("loop", loop);
        properties(schema).put("plays", Map.of("enum", List.of("loops", "timeline")));
        Map<String, Object> mark = object("at", Map.of("type", "integer", "minimum", 0));
        properties(mark).put("name", text);
        properties(schema).put("marks", Map.of("type", "array", "items", mark));
        properties(schema).put("phrases", Map.of("type", "array", "items", phrase));
        return schema;
    }

    /** A file's object with its version and one more required field. */
    private static Map<String, Object> object(String version, String field, Object fieldSchema) {
        Map<String, Object> schema = object(field, fieldSchema);
        properties(schema).put(version, Map.of("const", ChainFile.VERSION));
        schema.put("required", List.of(version, field));
        return schema;
    }

    private static Map<String, Object> object(String field, Object fieldSchema) {
        Map<String, Object> fields = new LinkedHashMap<>();
        fields.put(field, fieldSchema);
        Map<String, Object> schema = new LinkedHashMap<>();
        schema.put("type", "object");
        schema.put("properties", fields);
        schema.put("additionalProperties", false);
        return schema;
    }

    @SuppressWarnings("unchecked") // object() and schemaOf() put a map of strings there
    private static Map<String, Object> properties(Map<String, Object> schema) {
        return (Map<String, Object>) schema.get("properties");
    }
}
