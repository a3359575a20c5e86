package harpel.format;

import harpel.effect.EffectCatalog;
import harpel.effect.EffectKind;
import harpel.effect.Family;
import harpel.effect.route.Split;
import harpel.move.Moves;
import harpel.move.Source;
import harpel.param.Param;
import harpel.param.ParamSpec;
import harpel.param.type.ListType;
import harpel.param.type.RowType;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
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

    /** What files that are written by hand, and who computes along, must know. */
    private static final String EXACTLY = """

            ## Exactly

            Ticks are counted from the beginning of the piece, 15,360 to a quarter.

            - **At one tick** notes end first, then messages are sent, then notes begin: keys first, then parts in their order, each from
              its lowest note up.
            - **Written values and what is added** are rounded once: the value is written + offsets, as parts of the control's range, then
              rounded to what the control can be. Switches and choices hold from point to point, whatever `between` says.
            - **A lever's points** hold on the timeline alone; a piece that plays as loops takes no notice of them.
            - **Source `velocity`** stands at (velocity − 1) / 126, **source `key`** at (pitch − low) / (high − low) of its `keys`, both kept
              within 0–1.
            - **`variations`** of a part: round r of its phrase, counted from 0, draws with number r mod n of the n in the list, as a first
              round does. On the timeline a block says which number holds.
            - **Rounds of a block** are counted from where its phrase would begin: (tick − at + from) / length of the phrase, rounded down.
              What is cut off a block begins at its own place in the phrase, and counts anew from there, so that later rounds draw as first
              ones.
            - **Strikes of `repeats`**: strike k of n, counted from 0, begins at late + k · (step − late) / n of its step and lasts
              step · length / n.
            - **Swing**: step n begins at n · pace, the second of a pair at (n − 1 + 2 · swing / 100) · pace. Pairs are counted anew from the
              first step of each bar, also where a pace does not divide the bar; in a meter change steps are counted anew as well.
            - **What a phrase has set before the place where play begins** stands there: of each controller, the bend, the pressure and the
              program the last one before it, in this round or, from the second on, the one before.
            """;

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
        return page.append(movingParameters()).append(EXACTLY).toString();
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
        Map<String, Object> branch = object("chain", described(ref("chain"), "The stages of the branch, in order."));
        properties(branch)
                .put(
                        "takes",
                        described(RowType.schemaOf(Split.TAKES), "Which notes go into the branch. Default: all."));
        definitions.put("branch", branch);
        definitions.put("chain-file", chainFileSchema());
        definitions.put("piece-file", PieceSchema.piece());
        Map<String, Object> schema = new LinkedHashMap<>();
        schema.put("$schema", "https://json-schema.org/draft/2020-12/schema");
        schema.put("title", "Harpel chain or piece, version " + ChainFile.VERSION);
        schema.put("anyOf", List.of(ref("chain-file"), ref("piece-file")));
        schema.put("$defs", definitions);
        return schema;
    }

    private static Map<String, Object> described(Map<String, Object> type, String meaning) {
        Map<String, Object> described = new LinkedHashMap<>(type);
        described.put("description", meaning);
        return described;
    }

    private static Map<String, Object> text(String meaning) {
        return Map.of("type", "string", "description", meaning);
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
        Map<String, Object> id = new LinkedHashMap<>(
                text(
                        "By which others name it, one in the chain. Default: the effect's, with a number where it is there already."));
        id.put("pattern", "^[a-z][a-z0-9-]*$");
        properties(schema).put("id", id);
        if (kind.declaresMore()) {
            schema.put("additionalProperties", true);
        }
        Map<String, Object> moved = new LinkedHashMap<>();
        for (Param<?> param : kind.spec().params()) {
            if (Moves.canMove(kind, param)) {
                moved.put(
                        param.id(),
                        Map.of(
                                "type",
                                "array",
                                "items",
                                ref("mover"),
                                "description",
                                "What moves " + param.label().toLowerCase(Locale.ROOT) + "."));
            }
        }
        if (!moved.isEmpty()) {
            Map<String, Object> move = new LinkedHashMap<>();
            move.put("type", "object");
            move.put(
                    "description",
                    "What moves parameters, by their ids; a value inside a list by its place, such as voices.1.chance.");
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
                                    Split.MOST_BRANCHES,
                                    "description",
                                    "The branches, whose notes come together behind them."));
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
        Map<String, Object> schema = object("harpel", "chain", described(ref("chain"), "The stages, in order."));
        properties(schema).put("part", text("The name of the part it came from."));
        properties(schema).put("key", text("Root and scale, such as \"D dorian\", that it was made in."));
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
