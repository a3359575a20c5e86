package harpel.effect.held;

import harpel.effect.Beyond;
import harpel.effect.Effect;
import harpel.effect.EffectContext;
import harpel.effect.Emitter;
import harpel.effect.HeldNotes;
import harpel.effect.HeldNotes.Hold;
import harpel.effect.Pedal;
import harpel.effect.held.Arpeggio.LatchMode;
import harpel.effect.held.Arpeggio.Lie;
import harpel.effect.held.Arpeggio.Order;
import harpel.effect.held.Arpeggio.Play;
import harpel.effect.held.Arpeggio.StartOver;
import harpel.effect.held.ArpeggioOrder.Entry;
import harpel.event.Message;
import harpel.event.NoteEnd;
import harpel.event.NoteStart;
import harpel.param.ParamSet;
import harpel.time.StepGrid;
import harpel.time.Ticks;
import harpel.time.TimeValue;
import java.util.ArrayList;
import java.util.List;

/** A running arpeggio. Owned by whoever renders. */
final class ArpeggioRun implements Effect {
    private final HeldNotes held = new HeldNotes();
    /** Notes kept open because the step after theirs is a tie. */
    private final List<NoteStart> tied = new ArrayList<>();
    /** The own gate of the step that struck last, which says how far the last step tied to it sounds. */
    private int struckGate;

    private ParamSet values;
    private EffectContext context;
    private ArpeggioOrder order;
    private StepGrid grid;
    private long originTick;
    private long emptySince = -1;
    private long nextIndex;
    private long nextTick = Ticks.NEVER;
    /** Steps since the start-over point, where that is not read off the bars. */
    private long counted;
    /** When the chord that is held began; a tick, since steps are counted otherwise when the pace changes. */
    private long chordTick;
    /** The step that was played late, by its first key. */
    private long lateStep = -1;

    @Override
    public void configure(ParamSet newValues, EffectContext newContext, long tick) {
        values = newValues;
        context = newContext;
        held.hold(
                switch (values.get(Arpeggio.LATCH)) {
                    case OFF -> Hold.OFF;
                    case REPLACE -> Hold.REPLACE;
                    case ADD -> Hold.ADD;
                });
        noteEmptiness(tick);
        order = null;
        layGrid();
        if (nextTick != Ticks.NEVER) {
            aim(grid.indexAtOrAfter(tick));
        }
    }

    private void layGrid() {
        TimeValue pace = values.get(Arpeggio.PACE);
        double swing = values.get(Arpeggio.SWING);
        grid = values.get(Arpeggio.STEPS_LIE_ON) == Lie.BAR_GRID
                ? StepGrid.ofPiece(context.time(), pace, swing)
                : StepGrid.from(originTick, context.time(), pace, swing);
    }

    private void aim(long index) {
        nextIndex = index;
        nextTick = grid.tickOf(index);
    }

    private void noteEmptiness(long tick) {
        if (held.isEmpty() && emptySince < 0) {
            emptySince = tick;
        }
    }

    @Override
    public void start(NoteStart note, Emitter out) {
        boolean wasEmpty = held.isEmpty();
        boolean newChord = values.get(Arpeggio.LATCH) == LatchMode.ADD ? wasEmpty : !held.anyKeyDown();
        held.press(note, new ArrayList<>());
        order = null;
        StartOver startOver = values.get(Arpeggio.START_OVER);
        if (startOver == StartOver.EACH_NOTE || startOver == StartOver.EACH_CHORD && newChord) {
            counted = 0;
        }
        long tick = out.tick();
        if (wasEmpty) {
            if (values.get(Arpeggio.STEPS_LIE_ON) == Lie.FIRST_KEY) {
                originTick = tick;
                layGrid();
            }
            aim(grid.indexAtOrAfter(tick));
        }
        if (newChord) {
            chordTick = tick;
        }
        catchLate(note, wasEmpty, out);
        if (wasEmpty) {
            emptySince = -1;
        }
    }

    /** A key a little after a step at which nothing was held still plays that step. */
    private void catchLate(NoteStart note, boolean wasEmpty, Emitter out) {
        long missed = grid.indexAtOrAfter(out.tick()) - 1;
        if (missed < 0 || grid.tickOf(missed + 1) == out.tick() || values.get(Arpeggio.STEPS_LIE_ON) == Lie.FIRST_KEY) {
            return;
        }
        long missedTick = grid.tickOf(missed);
        TimeValue most = new TimeValue.Millis(values.get(Arpeggio.LATE_CATCH));
        if (out.tick() > context.time().after(missedTick, most, 1)) {
            return;
        }
        if (wasEmpty && emptySince <= missedTick) {
            lateStep = missed;
            chordTick = missedTick;
            play(missed, counterAt(missed, missedTick), out);
        } else if (values.get(Arpeggio.ORDER) == Order.TOGETHER && lateStep == missed && !wasEmpty) {
            sound(new Entry(note, note.pitch()), null, missed, 0, out);
        }
    }

    @Override
    public void end(NoteEnd end, Emitter out) {
        if (held.letKeyGo(end.start())) {
            released(out.tick());
        }
    }

    private void released(long tick) {
        order = null;
        noteEmptiness(tick);
        if (held.isEmpty() && tied.isEmpty()) {
            nextTick = Ticks.NEVER;
        }
    }

    @Override
    public void message(Message message, Emitter out) {
        if (values.get(Pedal.PARAM) == Pedal.HOLD && message.isController(Message.SUSTAIN)) {
            held.pedal(Pedal.isDown(message));
            released(out.tick());
        } else if (message.isController(values.get(Pedal.LET_GO))) {
            if (Pedal.isDown(message)) {
                act(out);
            }
        } else {
            out.pass(message);
        }
    }

    @Override
    public long nextStep() {
        return nextTick;
    }

    @Override
    public void step(Emitter out) {
        long index = nextIndex;
        play(index, counterAt(index, out.tick()), out);
        if (held.isEmpty() && tied.isEmpty()) {
            nextTick = Ticks.NEVER;
        } else {
            aim(index + 1);
        }
    }

    /** How many steps lie between the start-over point and this step; moves the own count on. */
    private long counterAt(long index, long tick) {
        boolean onGrid = values.get(Arpeggio.STEPS_LIE_ON) == Lie.BAR_GRID;
        return switch (values.get(Arpeggio.START_OVER)) {
            case NEVER -> onGrid ? index : counted++;
            case EVERY_BARS -> {
                long bars = values.get(Arpeggio.START_OVER_EVERY);
                long bar = context.time().meter().barAt(tick) / bars * bars;
                long first = grid.indexAtOrAfter(context.time().meter().tickOfBar(bar));
                // A chord that begins within them starts the order, too.
                yield Math.max(0, index - Math.max(first, grid.indexAtOrAfter(chordTick)));
            }
            case EACH_CHORD, EACH_NOTE -> counted++;
        };
    }

    private void play(long index, long counter, Emitter out) {
        if (order == null) {
            order = ArpeggioOrder.of(held.notes(), values, context.key());
        }
        List<ParamSet> pattern = values.get(Arpeggio.PATTERN);
        context.step(0, (int) (counter % Math.max(1, pattern.isEmpty() ? order.length() : pattern.size())));
        ParamSet step = pattern.isEmpty() ? null : pattern.get((int) (counter % pattern.size()));
        Play play = step == null ? Play.NEXT : step.get(Arpeggio.PLAY);
        boolean beforeTie = !pattern.isEmpty()
                && pattern.get((int) ((counter + 1) % pattern.size())).get(Arpeggio.PLAY) == Play.TIE;
        if (play == Play.TIE && !held.isEmpty()) {
            if (!beforeTie) {
                int own = step.get(Arpeggio.STEP_GATE);
                endTied(endOf(own > 0 ? own : struckGate, index), out);
            }
            return;
        }
        endTied(out.tick(), out);
        if (held.isEmpty()) {
            return;
        }
        struckGate = step == null ? 0 : step.get(Arpeggio.STEP_GATE);
        boolean sounds = step == null || out.chance().percent(step.get(Arpeggio.STEP_CHANCE));
        for (Entry entry : order.at(play, step, nextsBefore(counter, pattern), out.chance())) {
            if (sounds) {
                NoteStart note = sound(entry, step, index, beforeTie ? tiedEnd(pattern, counter, index) : 0, out);
                if (beforeTie && note != null) {
                    tied.add(note);
                }
            }
        }
    }

    /** Of the steps before this one, how many took the next note of the order. */
    private static long nextsBefore(long counter, List<ParamSet> pattern) {
        if (pattern.isEmpty()) {
            return counter;
        }
        long before = 0;
        long all = 0;
        for (int i = 0; i < pattern.size(); i++) {
            int takes = pattern.get(i).get(Arpeggio.PLAY) == Play.NEXT ? 1 : 0;
            all += takes;
            before += i < counter % pattern.size() ? takes : 0;
        }
        return counter / pattern.size() * all + before;
    }

    /** Where the last of the ties behind a struck step ends, if nothing comes between. */
    private long tiedEnd(List<ParamSet> pattern, long counter, long index) {
        int ties = 0;
        ParamSet last = null;
        for (int i = 1; i < pattern.size(); i++) {
            ParamSet next = pattern.get((int) Math.floorMod(counter + i, (long) pattern.size()));
            if (next.get(Arpeggio.PLAY) != Play.TIE) {
                break;
            }
            last = next;
            ties = i;
        }
        int own = last == null ? 0 : last.get(Arpeggio.STEP_GATE);
        return endOf(own > 0 ? own : struckGate, index + ties);
    }

    /** Starts one note that ends with a step, or, where ties follow, later: at {@code tiedEnd} as far as is known. */
    private NoteStart sound(Entry entry, ParamSet step, long index, long tiedEnd, Emitter out) {
        int pitch = entry.pitch() + (step == null ? 0 : 12 * step.get(Arpeggio.STEP_OCTAVE));
        NoteStart made =
                values.get(Beyond.PARAM).derive(entry.from(), out.tick(), pitch, velocity(entry.from(), step), out);
        if (made == null) {
            return null;
        }
        NoteStart note = made == entry.from() ? made.copy() : made;
        out.start(note.lasting(Math.max(0, tiedEnd - out.tick())));
        if (tiedEnd == 0) {
            out.end(note, endOf(step == null ? 0 : step.get(Arpeggio.STEP_GATE), index), NoteEnd.PLAIN_RELEASE);
        }
        return note;
    }

    private int velocity(NoteStart from, ParamSet step) {
        return switch (values.get(Arpeggio.VELOCITY)) {
            case FIXED -> values.get(Arpeggio.FIXED_VELOCITY);
            case AS_PLAYED -> from.velocity();
            case PATTERN -> {
                int own = step == null ? 0 : step.get(Arpeggio.STEP_VELOCITY);
                yield own > 0 ? own : from.velocity();
            }
        };
    }

    /** Where a note of a step ends; a gate of its own of 0 is the stage's. */
    private long endOf(int own, long index) {
        double gate = (own > 0 ? own : values.get(Arpeggio.GATE)) / 100.0;
        long start = grid.tickOf(index);
        return start + Math.max(1, Ticks.round((grid.tickOf(index + 1) - start) * gate));
    }

    private void endTied(long tick, Emitter out) {
        tied.forEach(note -> out.end(note, tick, NoteEnd.PLAIN_RELEASE));
        tied.clear();
    }

    @Override
    public void act(Emitter out) {
        held.letGo();
        released(out.tick());
    }

    @Override
    public void stopGenerating(Emitter out) {
        held.stopHolding();
        endTied(out.tick(), out);
        released(out.tick());
    }
}
