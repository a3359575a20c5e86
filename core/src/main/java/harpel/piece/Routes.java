package harpel.piece;

import harpel.chain.Branch;
import harpel.chain.Chain;
import harpel.chain.Stage;
import harpel.param.Param;
import harpel.param.ParamSet;
import harpel.param.music.PartType;
import harpel.param.music.RouteType;
import harpel.param.music.RouteType.Route;
import harpel.param.type.ListType;
import harpel.param.type.RowType;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;

/** Which parts of a piece send to which: in what order they are worked out, and what is wrong with it. */
public final class Routes {
    /**
     * How notes come from one part to another, or to an output.
     *
     * @param to a part's id, or {@link RouteType#OUTPUT} and an output's name
     * @param how "hears what Bass sends", "Echo sends there"
     * @param stage the name of the stage that sends them out of its chain; empty where they are only listened to
     * @param on whether that stage is on
     */
    public record Way(String from, String to, String how, String stage, boolean on) {
        /** Whether a stage sends them out of its chain. */
        public boolean sent() {
            return !stage.isEmpty();
        }
    }

    private final List<Part> parts;
    private final List<Way> ways = new ArrayList<>();
    /** For every part those that must be worked out before it. */
    private final Map<String, Set<String>> before = new LinkedHashMap<>();

    private Routes(List<Part> parts) {
        this.parts = parts;
        parts.forEach(part -> before.put(part.id(), new LinkedHashSet<>()));
        for (Part part : parts) {
            Hearing input = part.hearing();
            if (input.ofPart()) {
                boolean sends = input.source() == Hearing.Source.OUTPUT_OF;
                String how = "hears what " + name(input.from()) + (sends ? " sends" : " hears");
                ways.add(new Way(input.from(), part.id(), how, "", true));
            }
            addChain(part, part.chain());
        }
        for (Way way : ways) {
            if (before.containsKey(way.to) && before.containsKey(way.from)) {
                before.get(way.to).add(way.from);
            }
        }
        // Who only listens to what another holds comes after it where that part is itself fed by others.
        parts.forEach(part -> addListening(part, part.chain()));
    }

    /** The routes of a piece; it has no circle. */
    public static Routes of(Piece piece) {
        return new Routes(piece.parts());
    }

    /**
     * The part that keys play when a part is chosen: one that hears what another sends is played by way of that, from the head of the way
     * on, unless it is to have the keys itself.
     *
     * @return empty where the chosen part is not there
     */
    public static Optional<Part> played(Piece piece, String chosen) {
        Optional<Part> part = piece.part(chosen);
        Optional<Part> before = part.map(Part::hearing)
                .filter(hearing -> hearing.source() == Hearing.Source.OUTPUT_OF && !hearing.keysHere())
                .flatMap(hearing -> piece.part(hearing.from()));
        return before.isPresent() ? played(piece, before.get().id()) : part;
    }

    /**
     * Refuses a circle.
     *
     * @throws IllegalArgumentException with its path
     */
    static void refuseCircle(List<Part> parts) {
        Routes routes = new Routes(parts);
        for (Part part : parts) {
            // No circle goes through one that nobody comes before.
            List<String> path = routes.before.getOrDefault(part.id(), Set.of()).isEmpty()
                    ? List.of()
                    : routes.circleThrough(part.id());
            if (!path.isEmpty()) {
                throw new IllegalArgumentException("notes would go round in a circle: " + String.join(" → ", path)
                        + "; take one of these ways out");
            }
        }
    }

    private List<String> circleThrough(String id) {
        List<String> path = new ArrayList<>();
        return search(id, id, path, new HashSet<>()) ? path : List.of();
    }

    private boolean search(String from, String goal, List<String> path, Set<String> seen) {
        path.add(from);
        for (Map.Entry<String, Set<String>> entry : before.entrySet()) {
            if (entry.getValue().contains(from)) {
                if (entry.getKey().equals(goal)) {
                    path.add(goal);
                    return true;
                }
                if (seen.add(entry.getKey()) && search(entry.getKey(), goal, path, seen)) {
                    return true;
                }
            }
        }
        path.remove(path.size() - 1);
        return false;
    }

    private void addChain(Part part, Chain chain) {
        for (Stage stage : chain.stages()) {
            if (stage.isKnown()) {
                for (Route route : routes(stage.params())) {
                    if (route.leaves()) {
                        ways.add(new Way(
                                part.id(), route.to(), stage.name() + " sends there", stage.name(), stage.on()));
                    }
                }
            }
            for (Branch branch : stage.branches()) {
                addChain(part, branch.chain());
            }
        }
    }

    private void addListening(Part part, Chain chain) {
        for (Stage stage : chain.stages()) {
            for (Param<?> param : stage.isKnown() ? stage.params().spec().params() : List.<Param<?>>of()) {
                if (param.type() instanceof PartType) {
                    String heard = (String) stage.params().get(param);
                    if (before.containsKey(heard) && isFed(heard) && !heard.equals(part.id())) {
                        before.get(part.id()).add(heard);
                    }
                }
            }
            stage.branches().forEach(branch -> addListening(part, branch.chain()));
        }
    }

    /** Every route among the values, those in rows too. */
    public static List<Route> routes(ParamSet values) {
        List<Route> found = new ArrayList<>();
        for (Param<?> param : values.spec().params()) {
            if (param.type() instanceof RouteType) {
                found.add((Route) values.get(param));
            } else if (param.type() instanceof ListType<?> list && list.item() instanceof RowType) {
                ((List<?>) values.get(param)).forEach(row -> found.addAll(routes((ParamSet) row)));
            }
        }
        return found;
    }

    /** The same values for words: where they name another part by its id, by its name. */
    public static ParamSet named(Piece piece, ParamSet values) {
        ParamSet named = values;
        for (Param<?> param : values.spec().params()) {
            named = named(piece, named, param);
        }
        return named;
    }

    @SuppressWarnings("unchecked") // what a parameter's type says its values are
    private static ParamSet named(Piece piece, ParamSet values, Param<?> param) {
        if (param.type() instanceof RouteType) {
            Route route = (Route) values.get(param);
            return route.leaves()
                    ? values.with((Param<Route>) param, new Route(0, placeName(piece, route.to())))
                    : values;
        }
        if (param.type() instanceof PartType) {
            return values.with((Param<String>) param, placeName(piece, (String) values.get(param)));
        }
        if (param.type() instanceof ListType<?> list && list.item() instanceof RowType) {
            List<ParamSet> rows = ((List<ParamSet>) values.get(param))
                    .stream().map(row -> named(piece, row)).toList();
            return values.with((Param<List<ParamSet>>) param, rows);
        }
        return values;
    }

    /** What a place that notes are sent to is called: a part's name, or "output Pier". */
    public static String placeName(Piece piece, String to) {
        return to.startsWith(RouteType.OUTPUT)
                ? "output " + to.substring(RouteType.OUTPUT.length())
                : piece.part(to).map(Part::name).orElse(to);
    }

    /** Every way between parts, and from parts to outputs that are not their own. */
    public List<Way> ways() {
        return List.copyOf(ways);
    }

    /** Whether a way leads from or to something that is not there. */
    public boolean isDead(Way way, List<String> outputs) {
        boolean arrives = way.to.startsWith(RouteType.OUTPUT)
                ? outputs.contains(way.to.substring(RouteType.OUTPUT.length()))
                : before.containsKey(way.to);
        return !arrives || !before.containsKey(way.from);
    }

    /** Whether the same notes come there another way, too. */
    public boolean isDoubled(Way way) {
        return ways.stream()
                        .filter(one -> one.from.equals(way.from) && one.to.equals(way.to))
                        .count()
                > 1;
    }

    /** Whether any other part sends something to this one. */
    public boolean isFed(String id) {
        return ways.stream().anyMatch(way -> way.to.equals(id) && before.containsKey(way.from));
    }

    /** Who sends notes out of a chain to a part, by name: "Lanes of Quay lamps". */
    public List<String> senders(String id) {
        return ways.stream()
                .filter(way -> way.sent() && way.on && way.to.equals(id) && before.containsKey(way.from))
                .map(way -> way.stage + " of " + name(way.from))
                .distinct()
                .toList();
    }

    /** The ids of all parts to which notes of a part come, straight or by way of others. */
    public Set<String> fedBy(String id) {
        Set<String> fed = new LinkedHashSet<>();
        before.forEach((to, froms) -> {
            if (froms.contains(id)) {
                fed.add(to);
                fed.addAll(fedBy(to));
            }
        });
        return fed;
    }

    /** The parts, each after those that send to it, else in their order. */
    public List<Part> inOrder() {
        List<Part> ordered = new ArrayList<>();
        Set<String> done = new HashSet<>();
        while (ordered.size() < parts.size()) {
            Part next = parts.stream()
                    .filter(part -> !done.contains(part.id()) && done.containsAll(before.get(part.id())))
                    .findFirst()
                    .orElseThrow();
            done.add(next.id());
            ordered.add(next);
        }
        return ordered;
    }

    /**
     * What is wrong, in sentences that name the parts: ways to nobody, and notes that come twice.
     *
     * @param outputs the names of the outputs there are
     */
    public List<String> problems(List<String> outputs) {
        List<String> problems = new ArrayList<>();
        for (Way way : ways) {
            boolean output = way.to.startsWith(RouteType.OUTPUT);
            if (output && !outputs.contains(way.to.substring(RouteType.OUTPUT.length()))) {
                problems.add("\"" + name(way.from) + "\": " + way.how + ", but there is no output \""
                        + way.to.substring(RouteType.OUTPUT.length()) + "\"");
            } else if (!output && !before.containsKey(way.to)) {
                problems.add("\"" + name(way.from) + "\": " + way.how + ", but there is no part \"" + way.to + "\"");
            } else if (!before.containsKey(way.from)) {
                problems.add("\"" + name(way.to) + "\" " + way.how + ", but there is no such part");
            }
        }
        for (int i = 0; i < parts.size(); i++) {
            Part part = parts.get(i);
            Map<String, List<Way>> bySource = ways.stream()
                    .filter(way -> way.to.equals(part.id()))
                    .collect(Collectors.groupingBy(way -> way.from, LinkedHashMap::new, Collectors.toList()));
            bySource.forEach((from, twice) -> {
                if (twice.size() > 1) {
                    problems.add("\"" + part.name() + "\" gets the notes of \"" + name(from) + "\" "
                            + (twice.size() == 2 ? "twice" : twice.size() + " times") + ": "
                            + twice.stream().map(Way::how).collect(Collectors.joining("; ")));
                }
            });
            addDoubledDevice(i, problems);
        }
        return problems;
    }

    /** Two parts that hear one device and sound on one channel of one output double every note. */
    private void addDoubledDevice(int place, List<String> problems) {
        Part part = parts.get(place);
        for (Part other : parts.subList(0, place)) {
            boolean sameIn = part.hearing().source() == Hearing.Source.DEVICE
                    && part.hearing().equals(other.hearing());
            if (sameIn && part.channel() == other.channel() && part.port().equals(other.port())) {
                problems.add("\"" + other.name() + "\" and \"" + part.name() + "\" both hear " + part.hearing()
                        + " and sound on channel " + (part.channel() + 1) + ", so that every note comes twice");
            }
        }
    }

    private String name(String id) {
        return parts.stream()
                .filter(part -> part.id().equals(id))
                .map(Part::name)
                .findFirst()
                .orElse(id);
    }
}
