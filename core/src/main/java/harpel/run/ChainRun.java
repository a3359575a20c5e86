package harpel.run;

import harpel.chain.Chain;
import harpel.chain.Stage;
import harpel.event.Event;
import harpel.event.EventBuffer;
import harpel.event.NoteEnd;
import harpel.event.NoteStart;
import harpel.event.OpenNotes;
import harpel.time.Ticks;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;

/** A running chain: its stages one after another. Owned by the renderer. */
final class ChainRun {
    private record Link(Stage stage, Node node) {}

    private final String address;
    private final OpenNotes inputs = new OpenNotes();
    private final EventBuffer taken = new EventBuffer();
    private final EventBuffer[] between = {new EventBuffer(), new EventBuffer()};
    private List<Link> links = List.of();
    /** Those of the links, in the same order. */
    private Node[] nodes = {};

    /** The chain that runs, and in what. */
    private Chain shown;

    private RunContext shownIn;

    /** @param address what comes before the stages' ids in their addresses */
    ChainRun(String address) {
        this.address = address;
    }

    void process(long to, List<Event> input, EventBuffer out) {
        taken.clear();
        for (int i = 0; i < input.size(); i++) {
            Event event = input.get(i);
            if (event instanceof NoteStart note) {
                inputs.started(note);
            } else if (event instanceof NoteEnd end && !inputs.ended(end.start())) {
                continue;
            }
            taken.add(event);
        }
        run(0, to, taken, out);
    }

    /** What the last span brought: its input without ends of notes that are not known any more. */
    List<Event> taken() {
        return taken;
    }

    /** Runs events through the stages from {@code first} on. */
    private void run(int first, long to, List<Event> input, EventBuffer out) {
        List<Event> events = input;
        for (int i = first; i < nodes.length; i++) {
            EventBuffer sink = i == nodes.length - 1 ? out : between[i & 1];
            if (sink != out) {
                sink.clear();
            }
            nodes[i].process(to, events, sink);
            events = sink;
        }
        if (first >= nodes.length) {
            out.addAll(input);
        }
    }

    long nextTick() {
        long next = Ticks.NEVER;
        for (Node node : nodes) {
            next = Math.min(next, node.nextTick());
        }
        return next;
    }

    /**
     * Takes a new chain at {@code tick}. Stages that stayed in order keep their state; one that was removed or moved ends what it
     * opened; one that is new comes to know what sounds where it stands.
     */
    void update(Chain chain, RunContext context, long tick, EventBuffer out) {
        if (chain == shown && context.sameAs(shownIn)) {
            return;
        }
        shown = chain;
        shownIn = context;
        Set<String> staying = staying(chain);
        for (int i = 0; i < links.size(); i++) {
            if (!staying.contains(links.get(i).stage.id())) {
                EventBuffer ends = new EventBuffer();
                links.get(i).node.leave(tick, ends);
                links.get(i).node.depart(tick);
                run(i + 1, tick, ends, out);
            }
        }
        List<Link> old = links;
        List<Link> kept =
                old.stream().filter(link -> staying.contains(link.stage.id())).toList();
        link(kept);
        List<NoteStart> sounding = inputs.inOrder();
        for (int i = 0; i < chain.stages().size(); i++) {
            Stage stage = chain.stages().get(i);
            EventBuffer changes = new EventBuffer();
            Node node;
            if (staying.contains(stage.id())) {
                node = links.get(i).node;
                node.update(stage, context, tick, changes);
                link(replaced(links, i, new Link(stage, node)));
            } else {
                node = stage.isKnown() && stage.kind().nature().branches()
                        ? new SplitRun(address + "/" + stage.id())
                        : new StageRun(address + "/" + stage.id());
                node.update(stage, context, tick, changes);
                List<Link> longer = new ArrayList<>(links);
                longer.add(i, new Link(stage, node));
                link(longer);
                node.join(sounding, tick, changes);
            }
            run(i + 1, tick, changes, out);
            sounding = node.open();
        }
        out.sortAll();
    }

    private void link(List<Link> newLinks) {
        links = newLinks;
        nodes = links.stream().map(Link::node).toArray(Node[]::new);
    }

    private static List<Link> replaced(List<Link> links, int place, Link link) {
        List<Link> changed = new ArrayList<>(links);
        changed.set(place, link);
        return changed;
    }

    /** The longest row of stages that stand in both chains in the same order, with the same kind. */
    private Set<String> staying(Chain chain) {
        int n = links.size();
        int m = chain.stages().size();
        int[][] longest = new int[n + 1][m + 1];
        for (int i = n - 1; i >= 0; i--) {
            for (int j = m - 1; j >= 0; j--) {
                longest[i][j] = same(links.get(i).stage, chain.stages().get(j))
                        ? longest[i + 1][j + 1] + 1
                        : Math.max(longest[i + 1][j], longest[i][j + 1]);
            }
        }
        Set<String> ids = new HashSet<>();
        for (int i = 0, j = 0; i < n && j < m; ) {
            if (same(links.get(i).stage, chain.stages().get(j))) {
                ids.add(links.get(i++).stage.id());
                j++;
            } else if (longest[i + 1][j] >= longest[i][j + 1]) {
                i++;
            } else {
                j++;
            }
        }
        return ids;
    }

    private static boolean same(Stage a, Stage b) {
        return a.id().equals(b.id()) && a.kind() == b.kind();
    }

    List<NoteStart> open() {
        return links.isEmpty()
                ? inputs.inOrder()
                : links.get(links.size() - 1).node.open();
    }

    List<NoteStart> openInputs() {
        return inputs.inOrder();
    }

    /** Comes to know notes that sound already and pass through every stage. */
    void join(List<NoteStart> sounding, long tick, EventBuffer out) {
        sounding.forEach(inputs::started);
        List<NoteStart> here = sounding;
        for (int i = 0; i < links.size(); i++) {
            EventBuffer changes = new EventBuffer();
            links.get(i).node.join(here, tick, changes);
            run(i + 1, tick, changes, out);
            here = links.get(i).node.open();
        }
    }

    /**
     * Stops; a stage behind one that rings out does so, too.
     */
    void stop(long tick, Ending ending, EventBuffer out) {
        List<Event> carried = new ArrayList<>();
        for (NoteStart note : inputs.inOrder()) {
            carried.add(NoteEnd.plain(tick, note));
        }
        inputs.clear();
        Ending how = ending;
        for (Link link : links) {
            EventBuffer sink = new EventBuffer();
            // Asked first: a mover may switch a stage on that forgets what it heard.
            boolean rings = how.mayRing() && link.node.ringsOut();
            if (how.rings() || rings) {
                // What rings out hears how its notes ended; what stops dead must not answer with new ones.
                link.node.process(tick, carried, sink);
            }
            link.node.stop(tick, how, sink);
            how = how.behind(rings);
            sink.sortAll();
            carried = sink;
        }
        out.addAll(carried);
    }

    void act(String stageAddress, long tick, EventBuffer out) {
        for (int i = 0; i < links.size(); i++) {
            EventBuffer changes = new EventBuffer();
            links.get(i).node.act(stageAddress, tick, changes);
            run(i + 1, tick, changes, out);
        }
    }

    /** Begins anew at a tick, after a stop. */
    void restart(long tick) {
        links.forEach(link -> link.node.restart(tick));
    }

    boolean ringsOut() {
        return links.stream().anyMatch(link -> link.node.ringsOut());
    }

    boolean isQuiet() {
        boolean quiet = inputs.isEmpty();
        for (int i = 0; i < links.size() && quiet; i++) {
            quiet = links.get(i).node.isQuiet();
        }
        return quiet;
    }
}
