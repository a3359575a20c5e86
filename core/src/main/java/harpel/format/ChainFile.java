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
import harpel.param.ChoiceType;
import harpel.param.Param;
import harpel.param.ParamException;
import harpel.param.ParamSet;
import harpel.param.ParamSpec;
import harpel.param.RowType;
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

    /**
     * Reads a chain file.
     *
     * @throws FileException when it is not JSON
     * @throws ParamException with path, value, range and way out when a value does not fit
     */
    public static ChainFile read(String text) throws FileException {
        PlainMap file = new PlainMap(Json.parseObject(text), "");
        boolean newer = readVersion(file);
        if (!file.has("chain")) {
            throw new ParamException("chain", "a chain file has a \"chain\", a list of stages");
        }
        String part = file.text("part", PART);
        Key key = file.take("key", null, value -> Key.parse(String.valueOf(value)));
        Chain chain = readChain(file.take("chain"), "chain", newer);
        Map<String, Object> unknown = new LinkedHashMap<>(file.end(newer, "harpel, part, key, chain"));
        return new ChainFile(part, key, chain, unknown);
    }

    /** Takes the version; true when it is newer than this program's. The number is kept for the file. */
    static boolean readVersion(PlainMap file) {
        if (!file.has(VERSION_KEY)) {
            throw new ParamException(VERSION_KEY, "a file of Harpel begins with \"harpel\": " + VERSION);
        }
        long version =
                PlainMap.at(VERSION_KEY, () -> PlainMap.whole(file.rest().get(VERSION_KEY), 1, Integer.MAX_VALUE));
        if (version <= VERSION) {
            file.take(VERSION_KEY);
        }
        return version > VERSION;
    }

    /** As text; a newer version's number and fields are written again. */
    public String write() {
        Map<String, Object> plain = new LinkedHashMap<>();
        plain.put(VERSION_KEY, VERSION);
        if (!part.equals(PART)) {
            plain.put("part", part);
        }
        if (key != null) {
            plain.put("key", key.name().replace('♯', '#'));
        }
        plain.put("chain", writeChain(chain));
        plain.putAll(unknown);
        return Json.write(plain);
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
        PlainMap fields = new PlainMap(plain, path);
        boolean split = fields.has(SPLIT);
        if (split == fields.has(EFFECT)) {
            throw new ParamException(
                    path, "a stage has either an \"effect\" (" + EffectCatalog.ids() + ") or a \"split\"");
        }
        String name = split ? SPLIT : fields.text(EFFECT, "");
        EffectKind kind = EffectCatalog.find(name).orElse(null);
        if (kind == null) {
            Map<String, Object> kept = new LinkedHashMap<>(fields.rest());
            kept.put(EFFECT, name);
            return new Stage(idFor(name), null, NONE.defaults(), Moves.NONE, List.of(), kept);
        }
        if (kind.branches() && !split) {
            throw new ParamException(path, "a split is written {\"split\": [ … ]} with a list of branches");
        }
        List<Branch> branches = split ? readBranches(fields.take(SPLIT), path + "." + SPLIT, newer) : List.of();
        String id = fields.text("id", kind.id());
        ParamSet params = kind.fit(readParams(kind.spec().defaults(), fields));
        params = readParams(params, fields);
        Moves moves = fields.has(MOVE) ? readMoves(kind, params, fields.take(MOVE), fields.path(MOVE)) : Moves.NONE;
        ParamSet read = params;
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

    private static Moves readMoves(EffectKind kind, ParamSet params, Object plain, String path) {
        PlainMap fields = new PlainMap(plain, path);
        Map<String, List<Mover>> byParam = new LinkedHashMap<>();
        for (String id : List.copyOf(fields.rest().keySet())) {
            Param<?> param = PlainMap.at(path, () -> Moves.movable(kind, params.spec(), id));
            List<Mover> movers = new ArrayList<>();
            List<?> list = PlainMap.at(fields.path(id), () -> PlainMap.list(fields.take(id)));
            for (int i = 0; i < list.size(); i++) {
                movers.add(readMover(param, new PlainMap(list.get(i), fields.path(id) + "[" + i + "]")));
            }
            byParam.put(id, movers);
        }
        return new Moves(byParam);
    }

    private static Mover readMover(Param<?> moved, PlainMap fields) {
        Source source = fields.take(BY, null, new ChoiceType<>(Source.class)::read);
        if (source == null) {
            throw new ParamException(
                    fields.path(BY),
                    "a mover says what it moves " + BY + ": " + new ChoiceType<>(Source.class).range());
        }
        ParamSpec spec = source.spec(moved);
        Mover mover = new Mover(source, readParams(spec.defaults(), fields));
        fields.end(false, BY + ", " + spec.ids());
        return mover;
    }

    private static <T> ParamSet take(ParamSet params, Param<T> param, PlainMap fields) {
        return params.with(param, fields.take(param.id(), null, param.type()::read));
    }

    private static List<Branch> readBranches(Object plain, String path, boolean newer) {
        List<?> list = PlainMap.at(path, () -> PlainMap.list(plain));
        if (list.isEmpty() || list.size() > Split.MOST_BRANCHES) {
            throw new ParamException(path, "a split has 1–" + Split.MOST_BRANCHES + " branches but has " + list.size());
        }
        List<Branch> branches = new ArrayList<>();
        for (int i = 0; i < list.size(); i++) {
            PlainMap fields = new PlainMap(list.get(i), path + "[" + i + "]");
            ParamSet takes = fields.take("takes", Split.TAKES.defaults(), new RowType(Split.TAKES)::read);
            Chain chain =
                    readChain(fields.has("chain") ? fields.take("chain") : List.of(), fields.path("chain"), newer);
            fields.end(false, "takes, chain");
            branches.add(new Branch(takes, chain));
        }
        return branches;
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
            plain.putAll(stage.unknown());
            return plain;
        }
        if (stage.kind().branches()) {
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
        plain.putAll(stage.unknown());
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
                list.add(one);
            }
            plain.put(id, list);
        });
        return plain;
    }

    private static Map<String, Object> writeBranch(Branch branch) {
        Map<String, Object> plain = new LinkedHashMap<>();
        Map<String, Object> takes = branch.takes().write();
        if (!takes.isEmpty()) {
            plain.put("takes", takes);
        }
        plain.put("chain", writeChain(branch.chain()));
        return plain;
    }
}
