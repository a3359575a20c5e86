package harpel.effect.held;

import com.google.auto.service.AutoService;
import harpel.effect.Beyond;
import harpel.effect.Effect;
import harpel.effect.EffectContext;
import harpel.effect.EffectKind;
import harpel.effect.EffectNature;
import harpel.effect.EffectWords;
import harpel.effect.Emitter;
import harpel.effect.Family;
import harpel.effect.HeldNotes;
import harpel.effect.Pedal;
import harpel.effect.StepClock;
import harpel.effect.Trait;
import harpel.event.Message;
import harpel.event.NoteEnd;
import harpel.event.NoteStart;
import harpel.param.Param;
import harpel.param.ParamSet;
import harpel.param.ParamSpec;
import harpel.param.music.RouteType;
import harpel.param.music.RouteType.Route;
import harpel.param.music.TimeType;
import harpel.param.type.ChoiceType;
import harpel.param.type.FlagType;
import harpel.param.type.IntType;
import harpel.param.type.ListType;
import harpel.param.type.RowType;
import harpel.param.type.StepsType;
import harpel.time.MeterMap;
import harpel.time.StepGrid;
import harpel.time.Ticks;
import harpel.time.TimeMap;
import harpel.time.TimeValue;
import java.math.BigInteger;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;

/** Each of the held notes, from low to high, drives a lane of steps of its own. */
@AutoService(EffectKind.class)
public final class Lanes extends EffectKind {
    private static final int MOST_LANES = 8;

    /** What becomes of the lanes above when a note is released. */
    public enum Rank {
        CLOSE_UP,
        STAY
    }

    public static final Param<String> STEPS =
            Param.of("steps", new StepsType(32), "x", "The lane's steps; it begins again after the last.");
    public static final Param<TimeValue> PACE =
            Param.of("pace", TimeType.TIME, TimeValue.ofNote("1/16"), "The length of a step.");
    public static final Param<Integer> LENGTH =
            Param.of("length", IntType.percent(0, 400), 50, "How much of its step a note lasts; 0 is a rest.");
    public static final Param<Integer> OCTAVE =
            Param.of("octave", IntType.of(-4, 4, ""), 0, "Octaves above the held note.");
    public static final Param<Integer> VELOCITY =
            Param.of("velocity", IntType.percent(1, 200), 100, "How much of the held note's velocity the lane has.");
    public static final Param<Route> SEND_TO =
            Param.of("send-to", RouteType.ROUTE, Route.ON, "A channel, another part or an output for this lane.");
    public static final Param<Boolean> LANE_ON = Param.of("on", FlagType.FLAG, true, "Off silences the lane.");

    public static final ParamSpec LANE = ParamSpec.of(STEPS, PACE, LENGTH, OCTAVE, VELOCITY, SEND_TO, LANE_ON);

    public static final Param<List<ParamSet>> LANES = Param.of(
            "lanes",
            new ListType<>(new RowType(LANE), MOST_LANES),
            List.of(lane("x..."), lane("..x."), lane(".x.x")),
            "Lane 1 is driven by the lowest held note, lane 2 by the next, up to 8.");
    public static final Param<Integer> START_OVER_EVERY = Param.of(
            "start-over-every",
            IntType.of(1, 64, "bars").orWord("never"),
            0,
            "All lanes go back to their first step at every so many bars.");
    public static final Param<Rank> RANK = Param.of(
            "rank",
            ChoiceType.of(Rank.class),
            Rank.CLOSE_UP,
            "close-up: when a note is released the higher ones move down a lane; stay: each keeps its lane until the chord is renewed.");

    private static final EffectWords WORDS = EffectWords.of(
                    "Lanes", Family.HELD, "gives each held note a lane of steps")
            .withFoundBy("polyrhythm steps rank")
            .withSetting(Lanes::describe)
            .withNotes(
                    "Steps are counted from the start of the piece, in each lane by its own pace, so that lanes of unlike lengths run"
                            + " against each other. A lane without a note of its rank is silent; a note without a lane is, too. With rank `stay`"
                            + " lanes are given out anew while a chord is being gathered, until its first key is released.");
    private static final EffectNature NATURE = EffectNature.of(Trait.MAKES_A_PATTERN, Trait.GIVES_OUT)
            .withHoldsNotes(true)
            .withRound(Lanes::roundTicks)
            .withStep((values, time) -> values.get(LANES).stream()
                    .filter(lane -> lane.get(LANE_ON))
                    .mapToDouble(lane -> lane.get(PACE).ticksAt(0, time))
                    .min()
                    .orElse(Double.NaN));

    public Lanes() {
        super("lanes", WORDS, NATURE, LANES, START_OVER_EVERY, RANK, Pedal.PARAM, Beyond.PARAM);
    }

    private static ParamSet lane(String steps) {
        return LANE.defaults().with(STEPS, steps);
    }

    @Override
    public Effect create() {
        return new Running();
    }

    private static String describe(ParamSet values) {
        List<String> lanes = new ArrayList<>();
        for (ParamSet lane : values.get(LANES)) {
            lanes.add(lane.get(LANE_ON) ? lane.get(STEPS) : "off");
        }
        return lanes.isEmpty() ? "no lanes" : String.join(" · ", lanes);
    }

    private static double roundTicks(ParamSet values, TimeMap time) {
        BigInteger common = BigInteger.ONE;
        for (ParamSet lane : values.get(LANES)) {
            if (lane.get(LANE_ON) && lane.get(PACE) instanceof TimeValue.Millis) {
                return Double.NaN;
            }
            if (lane.get(LANE_ON)) {
                long step = Math.max(1, Ticks.round(lane.get(PACE).ticksAt(0, time)));
                BigInteger length = BigInteger.valueOf(step * lane.get(STEPS).length());
                common = common.divide(common.gcd(length)).multiply(length);
            }
        }
        int bars = values.get(START_OVER_EVERY);
        double every = bars == 0
                ? Double.MAX_VALUE
                : (double) bars * time.meter().at(0).barTicks();
        return Math.min(every, common.doubleValue());
    }

    private static final class Running implements Effect {
        private final HeldNotes held = new HeldNotes();
        private final NoteStart[] fixed = new NoteStart[MOST_LANES];
        private final List<StepClock> clocks = new ArrayList<>();
        private boolean gathering = true;
        /** For each lane the pitch that was told to drive it, plus one. */
        private final int[] told = new int[MOST_LANES];

        private ParamSet values;
        private EffectContext context;
        private MeterMap meter;

        @Override
        public void configure(ParamSet newValues, EffectContext newContext, long tick) {
            values = newValues;
            context = newContext;
            meter = context.time().meter();
            clocks.clear();
            for (ParamSet lane : values.get(LANES)) {
                StepClock clock = new StepClock();
                clock.lay(StepGrid.ofPiece(context.time(), lane.get(PACE), 50), tick);
                clocks.add(clock);
            }
            tellLanes();
        }

        /** The note that drives a lane; null where none does. */
        private NoteStart driver(int lane, List<NoteStart> ranked) {
            return values.get(RANK) == Rank.STAY ? fixed[lane] : lane < ranked.size() ? ranked.get(lane) : null;
        }

        private void tellLanes() {
            List<NoteStart> ranked = ranked();
            for (int i = 0; i < clocks.size(); i++) {
                NoteStart note = driver(i, ranked);
                int pitch = note == null ? -1 : note.pitch();
                if (told[i] != pitch + 1) {
                    told[i] = pitch + 1;
                    context.drives(i, pitch);
                }
            }
        }

        @Override
        public void start(NoteStart note, Emitter out) {
            if (held.isEmpty()) {
                clocks.forEach(clock -> clock.aim(out.tick()));
                gathering = true;
            }
            held.press(note, new ArrayList<>());
            if (gathering) {
                rankAnew();
            } else {
                for (int i = 0; i < MOST_LANES; i++) {
                    if (fixed[i] == null) {
                        fixed[i] = note;
                        break;
                    }
                }
            }
            tellLanes();
        }

        private void rankAnew() {
            List<NoteStart> ranked = ranked();
            for (int i = 0; i < MOST_LANES; i++) {
                fixed[i] = i < ranked.size() ? ranked.get(i) : null;
            }
        }

        private List<NoteStart> ranked() {
            List<NoteStart> notes = new ArrayList<>(held.notes());
            notes.sort(Comparator.comparingInt(NoteStart::pitch));
            return notes;
        }

        @Override
        public void end(NoteEnd end, Emitter out) {
            if (held.letKeyGo(end.start())) {
                release(end.start());
            }
        }

        private void release(NoteStart note) {
            gathering = held.isEmpty();
            for (int i = 0; i < MOST_LANES; i++) {
                fixed[i] = fixed[i] == note ? null : fixed[i];
            }
            tellLanes();
        }

        @Override
        public void message(Message message, Emitter out) {
            if (values.get(Pedal.PARAM) == Pedal.HOLD && message.isController(Message.SUSTAIN)) {
                held.pedal(Pedal.isDown(message)).forEach(this::release);
            } else {
                out.pass(message);
            }
        }

        @Override
        public long nextStep() {
            long next = Ticks.NEVER;
            for (StepClock clock : held.isEmpty() ? List.<StepClock>of() : clocks) {
                next = Math.min(next, clock.tick());
            }
            return next;
        }

        @Override
        public void step(Emitter out) {
            List<NoteStart> ranked = ranked();
            for (int i = 0; i < clocks.size(); i++) {
                StepClock clock = clocks.get(i);
                if (clock.tick() == out.tick()) {
                    NoteStart note = driver(i, ranked);
                    if (note != null) {
                        play(i, clock, note, out);
                    }
                    clock.advance();
                }
            }
        }

        private void play(int number, StepClock clock, NoteStart note, Emitter out) {
            ParamSet lane = values.get(LANES).get(number);
            long n = clock.index();
            int bars = values.get(START_OVER_EVERY);
            if (bars > 0) {
                long bar = meter.barAt(clock.tick()) / bars * bars;
                n -= clock.grid().indexAtOrAfter(meter.tickOfBar(bar));
            }
            context.step(number, (int) Math.floorMod(n, (long) lane.get(STEPS).length()));
            double share = StepsType.at(lane.get(STEPS), n);
            if (share > 0 && lane.get(LENGTH) > 0 && lane.get(LANE_ON)) {
                double velocity = note.velocity() * share * lane.get(VELOCITY) / 100;
                int pitch = note.pitch() + 12 * lane.get(OCTAVE);
                NoteStart made = values.get(Beyond.PARAM).derive(note, out.tick(), pitch, velocity, out);
                if (made != null) {
                    Route route = lane.get(SEND_TO);
                    NoteStart sent = route.on(made == note ? made.copy() : made);
                    out.start(sent, route);
                    out.end(sent, out.tick() + clock.gateTicks(lane.get(LENGTH)), NoteEnd.PLAIN_RELEASE);
                }
            }
        }

        @Override
        public void stopGenerating(Emitter out) {
            held.stopHolding().forEach(this::release);
        }
    }
}
