package harpel.format;

import harpel.chain.Branch;
import harpel.chain.Chain;
import harpel.chain.Stage;
import harpel.effect.EffectCatalog;
import harpel.effect.EffectKind;
import harpel.effect.route.Split;
import harpel.move.Mover;
import harpel.move.Moves;
import harpel.move.Source;
import harpel.param.Param;
import harpel.param.ParamException;
import harpel.param.ParamSet;
import harpel.param.ParamSpec;
import harpel.param.type.ChoiceType;
import harpel.param.type.RowType;
import harpel.theory.Key;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/**
 * A chain in a file of its own: {@code {"harpel": 1, "key": "D dorian", "chain": [{"effect": "arpeggio", "pace": "1/8"}, …]}}.
 *
 * @param part the part's id in the addresses of its stages, on which its draws depend
 * @param key null when the file names none
 * @param unknown what a newer version wrote
 */
public record ChainFile(String part, Key key, Chain chain, Map<String, Object> unknown) {
    /** The version of the format that this program writes. */
    public static final int VERSION = 1;
    /** The part's name in addresses where a file names none. */
    public static final String PART = "chain";

    static final String VERSION_KEY = "harpel";
    private static final String SPLIT = "split";
    private static final String EFFECT = "effect";
    /** The field of a stage that says what moves its parameters, and of a mover that says what by. */
    static final String MOVE = "move";

    static final String BY = "by";
    private static final ParamSpec NONE = ParamSpec.of();

    static final String A_PIECE = "a piece";
    private static final String A_CHAIN = "a chain";

    /** Reads the bytes of a file. Throws as {@link #read(String)}, and when they are no text. */
    public static ChainFile read(byte[] bytes) throws FileException {
        return read(Json.text(bytes));
    }

    /**
     * Reads a chain file.
     *
     * @throws FileException when it is not JSON
     * @throws ParamException with path, value, range and way out when a value does not fit
     */
    public static ChainFile read(String text) throws FileException {
        Map<String, Object> plain = Json.parseObject(text);
        refuseOther(plain, A_CHAIN);
        ChainFile file = read(plain);
        if (!isNewer(plain)) {
            return file;
        }
        Map<String, Object> unknown = new LinkedHashMap<>(file.unknown);
        unknown.put(VERSION_KEY, NewerFile.of(plain.get(VERSION_KEY), plain, file.plain()));
        return new ChainFile(file.part, file.key, file.chain, unknown);
    }

    /** What a file of Harpel seems to be; empty where that cannot be told. */
    private static String kind(Map<String, Object> file) {
        if (file.containsKey("parts") || file.containsKey("phrases")) {
            return A_PIECE;
        }
        return file.containsKey("chain")
                ? A_CHAIN
                : file.containsKey("presets")
                        ? "a file of presets"
                        : file.containsKey("map")
                                ? "a map of a controller"
                                : file.containsKey(NotesText.NOTES) ? "notes of the clipboard" : "";
    }

    /** Refuses a file of Harpel of another kind, in words. */
    static void refuseOther(Map<String, Object> file, String wanted) throws FileException {
        String kind = kind(file);
        if (file.containsKey(VERSION_KEY) && !kind.isEmpty() && !kind.equals(wanted)) {
            throw new FileException("this is " + kind + ", not " + wanted);
        }
    }

    private static ChainFile read(Map<String, Object> plain) {
        PlainMap file = new PlainMap(plain, "", isNewer(plain));
        takeVersion(file);
        if (!file.has("chain")) {
            throw new ParamException("chain", "a chain file has a \"chain\", a list of stages");
        }
        String part = file.text("part", PART);
        Key key = file.take("key", null, value -> Key.parse(String.valueOf(value)));
        Chain chain = takeChain(file, "chain", Chain.EMPTY);
        return new ChainFile(part, key, chain, file.end("harpel, part, key, chain"));
    }

    /** Whether a newer version wrote a file. */
    static boolean isNewer(Map<String, Object> file) {
        if (!file.containsKey(VERSION_KEY)) {
            throw new ParamException(VERSION_KEY, "a file of Harpel begins with \"harpel\": " + VERSION);
        }
        return PlainMap.at(VERSION_KEY, () -> PlainMap.whole(file.get(VERSION_KEY), 1, Integer.MAX_VALUE)) > VERSION;
    }

    /** Takes the version; a newer one's number is kept for the file. */
    static void takeVersion(PlainMap file) {
        if (!file.newer()) {
            file.take(VERSION_KEY);
        }
    }

    /** Whether a newer version wrote it. */
    public boolean isNewer() {
        return unknown.containsKey(VERSION_KEY);
    }

    /** As text; a newer version's number and fields are written again. */
    public String write() {
        Map<String, Object> plain = plain();
        return Json.write(unknown.get(VERSION_KEY) instanceof NewerFile newer ? newer.over(plain) : plain);
    }

    private Map<String, Object> plain() {
        Map<String, Object> plain = new LinkedHashMap<>();
        plain.put(VERSION_KEY, version(unknown));
        if (!part.equals(PART)) {
            plain.put("part", part);
        }
        if (key != null) {
            plain.put("key", TimeFile.text(key));
        }
        plain.put("chain", writeChain(chain));
        PlainMap.merge(plain, unknown);
        return plain;
    }

    /** The version that is written: a newer one's again. */
    static Object version(Map<String, Object> unknown) {
        Object kept = unknown.getOrDefault(VERSION_KEY, VERSION);
        return kept instanceof NewerFile newer ? newer.version() : kept;
    }

    /** The stages whose effect this program does not know. */
    public static List<Stage> unknownStages(Chain chain) {
        List<Stage> found = new ArrayList<>();
        for (Stage stage : chain.stages()) {
            if (!stage.isKnown()) {
                found.add(stage);
            }
            stage.branches().forEach(branch -> found.addAll(unknownStages(branch.chain())));
        }
        return found;
    }

    /** What of a chain this version does not know and keeps for the file, in words. */
    public static List<String> unknown(Chain chain) {
        List<String> found = new ArrayList<>();
        for (Stage stage : chain.stages()) {
            if (!stage.isKnown()) {
                found.add("effect \"" + stage.name() + "\"");
                continue;
            }
            stage.unknown().keySet().forEach(field -> found.add("\"" + field + "\" of " + stage.name()));
            stage.moves()
                    .unknown()
                    .keySet()
                    .forEach(field -> found.add("a mover of \"" + field + "\" of " + stage.name()));
            for (Branch branch : stage.branches()) {
                branch.unknown()
                        .keySet()
                        .forEach(field -> found.add("\"" + field + "\" of a branch of " + stage.name()));
                found.addAll(unknown(branch.chain()));
            }
        }
        return found;
    }

    /** The chain in a field, or the fallback. Stages of a newer version that do not read are kept as ones of unknown effects. */
    static Chain takeChain(PlainMap fields, String field, Chain fallback) {
        return fields.has(field) ? readChain(fields.take(field), fields.path(field), fields.newer()) : fallback;
    }

    static Chain readChain(Object plain, String path, boolean newer) {
        Chain chain = Chain.EMPTY;
        List<?> list = PlainMap.at(path, () -> PlainMap.list(plain));
        for (int i = 0; i < list.size(); i++) {
            Stage stage = readStage(list.get(i), path + "[" + i + "]", newer);
            chain = chain.plus(chain.stages().size(), stage);
        }
        return chain;
    }

    private static Stage readStage(Object plain, String path, boolean newer) {
        PlainMap fields = new PlainMap(plain, path, newer);
        boolean split = fields.has(SPLIT);
        if (split == fields.has(EFFECT)) {
            throw new ParamException(
                    path, "a stage has either an \"effect\" (" + EffectCatalog.ids() + ") or a \"split\"");
        }
        String name = split ? SPLIT : PlainMap.at(fields.path(EFFECT), () -> PlainMap.text(fields.see(EFFECT)));
        EffectKind kind = EffectCatalog.find(name).orElse(null);
        if (kind == null) {
            return new Stage(idFor(name), null, NONE.defaults(), Moves.NONE, List.of(), fields.end(true, ""));
        }
        fields.take(EFFECT);
        if (kind.nature().branches() && !split) {
            throw new ParamException(path, "a split is written {\"split\": [ … ]} with a list of branches");
        }
        List<Branch> branches = split ? readBranches(fields.take(SPLIT), path + "." + SPLIT, newer) : List.of();
        String id = fields.text("id", kind.id());
        ParamSet params = kind.fit(readParams(kind.spec().defaults(), fields));
        params = readParams(params, fields);
        ParamSet read = params;
        Moves moves = fields.take(MOVE, Moves.NONE, value -> readMoves(kind, read, value, fields.path(MOVE), newer));
        Map<String, Object> unknown =
                fields.end(newer || kind.keepsUnknown(params), params.spec().ids() + ", " + MOVE);
        return PlainMap.at(fields.path("id"), () -> new Stage(id, kind, read, moves, branches, unknown));
    }

    private static String idFor(String name) {
        String id = name.toLowerCase(java.util.Locale.ROOT)
                .replaceAll("[^a-z0-9-]", "")
                .replaceFirst("^[^a-z]+", "");
        return id.isEmpty() ? "unknown" : id;
    }

    private static ParamSet readParams(ParamSet base, PlainMap fields) {
        ParamSet params = base;
        for (Param<?> param : base.spec().params()) {
            if (fields.has(param.id())) {
                params = take(params, param, fields);
            }
        }
        return params;
    }

    private static Moves readMoves(EffectKind kind, ParamSet params, Object plain, String path, boolean newer) {
        PlainMap fields = new PlainMap(plain, path, newer);
        Map<String, List<Mover>> byParam = new LinkedHashMap<>();
        for (String id : fields.names()) {
            boolean foreign = newer
                    && params.spec()
                            .anywhere(id)
                            .filter(param -> Moves.canMove(kind, param))
                            .isEmpty();
            if (!foreign) {
                Param<?> param = PlainMap.at(path, () -> Moves.movable(kind, params.spec(), id));
                byParam.put(id, fields.list(id, (one, onePath) -> readMover(param, new PlainMap(one, onePath, newer))));
            }
        }
        return new Moves(byParam, fields.end(newer, params.spec().ids()));
    }

    private static Mover readMover(Param<?> moved, PlainMap fields) {
        Source source = fields.has(BY)
                ? PlainMap.at(fields.path(BY), () -> new ChoiceType<>(Source.class).read(fields.take(BY)))
                : null;
        if (source == null) {
            throw new ParamException(
                    fields.path(BY),
                    "a mover says what it moves " + BY + ": " + new ChoiceType<>(Source.class).range());
        }
        ParamSpec spec = source.spec(moved);
        ParamSet settings = readParams(spec.defaults(), fields);
        return new Mover(source, settings, fields.end(BY + ", " + spec.ids()));
    }

    private static <T> ParamSet take(ParamSet params, Param<T> param, PlainMap fields) {
        return params.with(param, fields.take(param.id(), param.defaultValue(), param.type()::read));
    }

    private static List<Branch> readBranches(Object plain, String path, boolean newer) {
        List<?> list = PlainMap.at(path, () -> PlainMap.list(plain));
        if (list.isEmpty() || list.size() > Split.MOST_BRANCHES) {
            throw new ParamException(path, "a split has 1–" + Split.MOST_BRANCHES + " branches but has " + list.size());
        }
        List<Branch> branches = new ArrayList<>();
        for (int i = 0; i < list.size(); i++) {
            PlainMap fields = new PlainMap(list.get(i), path + "[" + i + "]", newer);
            ParamSet takes = fields.take("takes", Split.TAKES.defaults(), new RowType(Split.TAKES)::read);
            Chain chain = takeChain(fields, "chain", Chain.EMPTY);
            branches.add(new Branch(takes, chain, fields.end("takes, chain")));
        }
        return branches;
    }

    /** A chain as a file has it, for keeping it beside what was made with it. */
    public static List<Object> plain(Chain chain) {
        return writeChain(chain);
    }

    /** The chain that {@link #plain} gave; what this version does not know is kept. */
    public static Chain chainOf(Object plain) {
        return readChain(plain, "chain", true);
    }

    static List<Object> writeChain(Chain chain) {
        List<Object> list = new ArrayList<>();
        Chain soFar = Chain.EMPTY;
        for (Stage stage : chain.stages()) {
            list.add(writeStage(stage, soFar));
            soFar = soFar.plus(soFar.stages().size(), stage);
        }
        return list;
    }

    private static Map<String, Object> writeStage(Stage stage, Chain before) {
        Map<String, Object> plain = new LinkedHashMap<>();
        if (!stage.isKnown()) {
            plain.put(EFFECT, stage.unknown().get(EFFECT));
            PlainMap.merge(plain, stage.unknown());
            return plain;
        }
        if (stage.kind().nature().branches()) {
            plain.put(
                    SPLIT, stage.branches().stream().map(ChainFile::writeBranch).toList());
        } else {
            plain.put(EFFECT, stage.kind().id());
        }
        // The id that reading would give is not written.
        if (!stage.id().equals(before.freeId(stage.kind().id()))) {
            plain.put("id", stage.id());
        }
        plain.putAll(stage.params().write());
        if (!stage.moves().isEmpty()) {
            plain.put(MOVE, writeMoves(stage.moves()));
        }
        PlainMap.merge(plain, stage.unknown());
        return plain;
    }

    private static Map<String, Object> writeMoves(Moves moves) {
        Map<String, Object> plain = new LinkedHashMap<>();
        moves.byParam().forEach((id, movers) -> {
            List<Object> list = new ArrayList<>();
            for (Mover mover : movers) {
                Map<String, Object> one = new LinkedHashMap<>();
                one.put(BY, mover.source().word());
                one.putAll(mover.settings().write());
                PlainMap.merge(one, mover.unknown());
                list.add(one);
            }
            plain.put(id, list);
        });
        PlainMap.merge(plain, moves.unknown());
        return plain;
    }

    private static Map<String, Object> writeBranch(Branch branch) {
        Map<String, Object> plain = new LinkedHashMap<>();
        Map<String, Object> takes = branch.takes().write();
        if (!takes.isEmpty()) {
            plain.put("takes", takes);
        }
        plain.put("chain", writeChain(branch.chain()));
        PlainMap.merge(plain, branch.unknown());
        return plain;
    }
}
