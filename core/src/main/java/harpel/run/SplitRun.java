package harpel.run;

import harpel.chain.Branch;
import harpel.chain.Stage;
import harpel.effect.Chance;
import harpel.effect.EffectKind;
import harpel.effect.route.Split.Chooser;
import harpel.event.Event;
import harpel.event.EventBuffer;
import harpel.event.NoteEnd;
import harpel.event.NoteMap;
import harpel.event.NoteStart;
import harpel.event.OpenNotes;
import harpel.param.ParamSet;
import harpel.time.Ticks;
import java.util.ArrayList;
import java.util.Collections;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Set;

/** A running split: every branch with copies of what it takes, merged by the order of events. Owned by the renderer. */
final class SplitRun implements Node {
    private final String address;
    private final List<ChainRun> branches = new ArrayList<>();
    private final List<Inbox> branchInputs = new ArrayList<>();
    /** For every note that came in: its copy in each branch, null where the branch did not take it; empty for one passing by. */
    private final NoteMap<NoteStart[]> copies = new NoteMap<>();

    private final OpenNotes passing = new OpenNotes();
    /** What has left the split and not ended: an edit within a branch may end notes that never came this far. */
    private final OpenNotes sent = new OpenNotes();

    private final Chooser chooser = new Chooser();
    private final EventBuffer merged = new EventBuffer();
    private List<ParamSet> takes = List.of();
    private RunContext context;
    private Chance chance;
    private boolean on;
    private int onlyChannel;

    SplitRun(String address) {
        this.address = address;
    }

    @Override
    public void update(Stage stage, RunContext newContext, long tick, EventBuffer out) {
        boolean wasOn = on;
        context = newContext;
        chance = Chance.of(context.draws(), stage.params().get(EffectKind.SEED), address);
        onlyChannel = stage.params().get(EffectKind.CHANNEL);
        on = stage.on() && !stage.branches().isEmpty();
        takes = stage.branches().stream().map(Branch::takes).toList();
        begin();
        if (wasOn && !on) {
            closeBranches(tick);
        }
        while (branches.size() > takes.size()) {
            ChainRun gone = branches.remove(branches.size() - 1);
            branchInputs.remove(branches.size());
            gone.stop(tick, Ending.SILENCE, merged);
        }
        for (int i = 0; i < takes.size(); i++) {
            if (i == branches.size()) {
                branches.add(new ChainRun(address + "." + (i + 1)));
                branchInputs.add(new Inbox());
            }
        }
        for (int i = 0; i < takes.size(); i++) {
            RunContext within = context.withAside(i + 1 < takes.size() ? branchInputs.get(i + 1) : null);
            branches.get(i).update(stage.branches().get(i).chain(), within, tick, merged);
        }
        merge(out);
    }

    @Override
    public void process(long to, List<Event> input, EventBuffer out) {
        begin();
        for (int i = 0; i < input.size(); i++) {
            distribute(input.get(i));
        }
        // Where time stands, the input lies at the very tick up to which it is worked.
        long done = input.isEmpty() ? to - 1 : input.get(input.size() - 1).tick();
        for (int i = 0; i < branches.size(); i++) {
            branches.get(i).process(to, branchInputs.get(i).take(done, to), merged);
        }
        merge(out);
    }

    private void distribute(Event event) {
        boolean concerns = on && (onlyChannel == 0 || event.channel() < 0 || event.channel() == onlyChannel - 1);
        if (event instanceof NoteStart note) {
            if (concerns) {
                branch(note);
            } else {
                copies.put(note, new NoteStart[0]);
                passing.started(note);
                merged.add(note);
            }
        } else if (event instanceof NoteEnd end) {
            NoteStart[] made = copies.remove(end.start());
            if (made != null && made.length == 0 && passing.ended(end.start())) {
                merged.add(end);
            } else if (made != null) {
                for (int i = 0; i < Math.min(made.length, branches.size()); i++) {
                    if (made[i] != null) {
                        branchInputs.get(i).add(new NoteEnd(end.tick(), made[i], end.releaseVelocity()));
                    }
                }
            }
        } else if (concerns) {
            branchInputs.forEach(branchInput -> branchInput.add(event));
        } else {
            merged.add(event);
        }
    }

    private void branch(NoteStart note) {
        boolean[] taken = new boolean[takes.size()];
        chooser.choose(note, takes, chance.at(note.tick()), taken);
        NoteStart[] made = new NoteStart[taken.length];
        for (int i = 0; i < taken.length; i++) {
            if (taken[i]) {
                made[i] = note.copy();
                branchInputs.get(i).add(made[i]);
            }
        }
        copies.put(note, made);
    }

    private void begin() {
        merged.clear();
    }

    /** A message that went through several branches untouched comes out once. */
    private void merge(EventBuffer out) {
        merged.sortAll();
        Set<Event> messages = Collections.newSetFromMap(new IdentityHashMap<>());
        for (int i = 0; i < merged.size(); i++) {
            Event event = merged.get(i);
            boolean goesOn = true;
            if (event instanceof NoteStart note) {
                sent.started(note);
            } else if (event instanceof NoteEnd end) {
                goesOn = sent.ended(end.start());
            } else {
                goesOn = messages.add(event);
            }
            if (goesOn) {
                out.add(event);
                context.tap().left(context.part(), address, event);
            }
        }
    }

    @Override
    public long nextTick() {
        long next = Ticks.NEVER;
        for (int i = 0; i < branches.size(); i++) {
            next = Math.min(
                    next,
                    Math.min(branches.get(i).nextTick(), branchInputs.get(i).nextTick()));
        }
        return next;
    }

    @Override
    public List<NoteStart> open() {
        return sent.inOrder();
    }

    @Override
    public void restart(long tick) {
        branches.forEach(branch -> branch.restart(tick));
    }

    @Override
    public void join(List<NoteStart> sounding, long tick, EventBuffer out) {
        for (NoteStart note : sounding) {
            copies.put(note, new NoteStart[0]);
            passing.started(note);
            sent.started(note);
            context.tap().left(context.part(), address, note);
        }
    }

    @Override
    public void depart(long tick) {
        for (NoteStart note : passing.inOrder()) {
            context.tap().left(context.part(), address, NoteEnd.plain(tick, note));
        }
    }

    private void closeBranches(long tick) {
        branches.forEach(branch -> branch.stop(tick, Ending.SILENCE, merged));
        branchInputs.forEach(Inbox::clear);
        copies.removeIf((note, made) -> made.length > 0);
    }

    @Override
    public void leave(long tick, EventBuffer out) {
        begin();
        closeBranches(tick);
        merge(out);
    }

    @Override
    public void stop(long tick, Ending how, EventBuffer out) {
        begin();
        // Asked first: a mover may switch a stage on that forgets what it heard.
        boolean rings = how.rings() || how.mayRing() && ringsOut();
        branches.forEach(branch -> branch.stop(tick, how, merged));
        if (!rings) {
            for (NoteStart note : passing.inOrder()) {
                merged.add(NoteEnd.plain(tick, note));
            }
            passing.clear();
            copies.clear();
            branchInputs.forEach(Inbox::clear);
        }
        merge(out);
    }

    @Override
    public void act(String wanted, long tick, EventBuffer out) {
        begin();
        branches.forEach(branch -> branch.act(wanted, tick, merged));
        merge(out);
    }

    @Override
    public boolean ringsOut() {
        return branches.stream().anyMatch(ChainRun::ringsOut);
    }

    @Override
    public boolean isQuiet() {
        boolean quiet = passing.isEmpty();
        for (int i = 0; i < branches.size() && quiet; i++) {
            quiet = branchInputs.get(i).isEmpty() && branches.get(i).isQuiet();
        }
        return quiet;
    }
}
