package harpel.make;

import harpel.effect.Chance;
import harpel.param.Param;
import harpel.param.ParamSet;
import harpel.param.ParamSpec;
import harpel.param.music.TimeType;
import harpel.param.type.ChoiceType;
import harpel.param.type.IntType;
import harpel.param.type.NumberType;
import harpel.param.type.TextType;
import harpel.phrase.Note;
import harpel.theory.Key;
import harpel.theory.Pitch;
import harpel.time.StepGrid;
import harpel.time.TimeMap;
import harpel.time.TimeValue;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.IntPredicate;

/**
 * Makes melodies and textures: on each step of a grid a note, or not, of the allowed pitches. The same settings and seed always give the
 * same notes; all draws depend on the seed and the step alone.
 */
public final class MelodyMaker {
    /** How many sound together. */
    public enum Texture {
        ONE_VOICE,
        CHORDS,
        OVERLAPPING
    }

    /** Where the line leads. */
    public enum Contour {
        FREE,
        RISING,
        FALLING,
        ARCH,
        VALLEY,
        WAVE
    }

    public static final Param<Integer> LOWEST =
            Param.of("lowest", IntType.ofPitch(), 57, "The lowest pitch there may be.");
    public static final Param<Integer> HIGHEST =
            Param.of("highest", IntType.ofPitch(), 76, "The highest pitch there may be.");
    public static final Param<String> NOTES = Param.of(
            "notes",
            new TextType(60),
            "",
            "The notes there may be, by name (C D E G); those of the key where it is empty.");
    public static final Param<Integer> BARS = Param.of("bars", IntType.of(1, 16, "bars"), 4, "How many bars are made.");
    public static final Param<TimeValue> GRID = Param.of(
            "grid", TimeType.TIME, TimeValue.ofNote("1/8"), "Where notes may begin, and how long a short one is.");
    public static final Param<Double> DENSITY = Param.of(
            "density",
            new NumberType(0.25, 64, 0.5, "a bar"),
            6.0,
            "How many notes a bar are to be expected on an average of many seeds, as far as the grid has room.");
    public static final Param<Texture> TEXTURE = Param.of(
            "texture",
            ChoiceType.of(Texture.class),
            Texture.ONE_VOICE,
            "One note at a time, chords, or voices that overlap.");
    public static final Param<Integer> VOICES =
            Param.of("voices", IntType.of(2, 6, ""), 3, "How many notes a chord has, or how many voices there are.");
    public static final Param<Contour> CONTOUR =
            Param.of("contour", ChoiceType.of(Contour.class), Contour.FREE, "Where the line leads over all bars.");
    public static final Param<Integer> LEAPS =
            Param.of("leaps", IntType.of(0, 100, "%"), 25, "How often the line leaps instead of going by steps.");
    public static final Param<Integer> MOTIF =
            Param.of("motif", IntType.of(0, 2, "bars"), 0, "Bars that are repeated over and over; 0 for none.");
    public static final Param<Integer> CHANGE =
            Param.of("change", IntType.of(0, 100, "%"), 20, "How much of a repeated motif is drawn anew.");
    public static final Param<Integer> LONGEST = Param.of(
            "longest",
            IntType.of(1, 16, "steps"),
            1,
            "How many steps a note lasts at most; lengths are drawn up to it.");
    public static final Param<Integer> SOFTEST =
            Param.of("softest", IntType.of(1, 127, ""), 60, "The lowest velocity.");
    public static final Param<Integer> LOUDEST =
            Param.of("loudest", IntType.of(1, 127, ""), 100, "The highest velocity.");
    public static final Param<Integer> ACCENT = Param.of(
            "accent", IntType.of(0, 100, "%"), 40, "How much louder notes on beats are, of the range of velocities.");
    public static final Param<Integer> OFFBEATS =
            Param.of("offbeats", IntType.of(0, 100, "%"), 50, "What share of the notes begins off the beats.");
    public static final Param<Integer> SEED =
            Param.of("seed", IntType.of(0, 9999, ""), 1, "Another seed gives other notes.");

    public static final ParamSpec SPEC = ParamSpec.of(
            LOWEST, HIGHEST, NOTES, BARS, GRID, DENSITY, TEXTURE, VOICES, CONTOUR, LEAPS, MOTIF, CHANGE, LONGEST,
            SOFTEST, LOUDEST, ACCENT, OFFBEATS, SEED);

    /** A leap is up to so many of the allowed pitches. */
    private static final int LEAP = 6;

    private final ParamSet values;
    private final List<Integer> allowed = new ArrayList<>();
    private final long barTicks;
    private final long beatTicks;
    private final long end;
    private final StepGrid grid;

    private MelodyMaker(ParamSet values, IntPredicate pitches, TimeMap time) {
        this.values = values;
        end = length(values, time);
        int low = Math.min(values.get(LOWEST), values.get(HIGHEST));
        int high = Math.max(values.get(LOWEST), values.get(HIGHEST));
        for (int pitch = low; pitch <= high; pitch++) {
            if (pitches.test(pitch)) {
                allowed.add(pitch);
            }
        }
        if (allowed.isEmpty()) {
            throw new IllegalArgumentException("no allowed note lies between the lowest and the highest; widen them");
        }
        barTicks = time.meter().at(0).barTicks();
        beatTicks = time.meter().at(0).beatTicks();
        grid = StepGrid.ofPiece(time, values.get(GRID), 50);
    }

    /**
     * The notes, from tick 0 on, of what is allowed or else of a key.
     *
     * @throws IllegalArgumentException when what is allowed is no note, or none lies in the range
     */
    public static List<Note> notes(ParamSet values, Key key, TimeMap time) {
        String own = values.get(NOTES).strip();
        if (own.isEmpty()) {
            return new MelodyMaker(values, key::contains, time).make();
        }
        Set<Integer> classes = new HashSet<>();
        for (String name : own.split("[\\s,]+")) {
            classes.add(Pitch.parseClass(name));
        }
        return new MelodyMaker(values, pitch -> classes.contains(Pitch.pitchClass(pitch)), time).make();
    }

    /** How long what is made is. */
    public static long length(ParamSet values, TimeMap time) {
        return time.meter().tickOfBar(values.get(BARS));
    }

    private List<Note> make() {
        List<Note> notes = new ArrayList<>();
        boolean voices = values.get(TEXTURE) == Texture.OVERLAPPING;
        int count = voices ? values.get(VOICES) : 1;
        for (int voice = 0; voice < count; voice++) {
            line(notes, voice, count);
        }
        return notes;
    }

    /** The chance of a step on a beat and off one, so that as many notes as wanted are to be expected, and as many off the beats. */
    private double[] chances(double wanted) {
        int on = 0;
        int off = 0;
        for (long i = grid.indexAtOrAfter(0); grid.tickOf(i) < barTicks; i++) {
            if (isOnBeat(grid.tickOf(i))) {
                on++;
            } else {
                off++;
            }
        }
        double share = on == 0 ? 1 : off == 0 ? 0 : values.get(OFFBEATS) / 100.0;
        double pOn = on == 0 ? 0 : wanted * (1 - share) / on;
        double pOff = off == 0 ? 0 : wanted * share / off;
        // What has no room on the one goes to the other.
        double over = Math.max(0, pOn - 1) * on;
        double overOff = Math.max(0, pOff - 1) * off;
        pOff = off == 0 ? 0 : Math.min(1, pOff + over / off);
        pOn = on == 0 ? 0 : Math.min(1, pOn + overOff / on);
        return new double[] {Math.min(1, pOn), pOff};
    }

    private boolean isOnBeat(long tick) {
        return tick % barTicks % beatTicks == 0;
    }

    private void line(List<Note> notes, int voice, int voices) {
        boolean chords = values.get(TEXTURE) == Texture.CHORDS;
        double wanted = values.get(DENSITY) / (chords ? values.get(VOICES) : voices);
        double[] chances = chances(wanted);
        int place = start(voice, voices);
        long lastEnd = 0;
        Note last = null;
        for (long i = grid.indexAtOrAfter(0); grid.tickOf(i) < end; i++) {
            long tick = grid.tickOf(i);
            Chance chance = chance(voice, tick);
            boolean strikes = chance.unit() < chances[isOnBeat(tick) ? 0 : 1];
            int moved = move(chance);
            double loud = chance.unit();
            int steps = 1 + chance.below(values.get(LONGEST));
            if (!strikes) {
                continue;
            }
            place = place(place + moved, tick, voice, voices);
            long until = Math.min(end, grid.tickOf(i + steps));
            if (last != null && tick < lastEnd) {
                // One voice sounds one note at a time.
                cut(notes, last, tick);
            }
            int velocity = velocity(tick, loud);
            for (int pitch : struck(place, chords ? values.get(VOICES) : 1)) {
                last = Note.of(tick, until - tick, pitch, velocity);
                notes.add(last);
            }
            lastEnd = until;
        }
    }

    /** So many of the allowed pitches, every second one upwards; where there is no more room above, the chord grows downwards. */
    private Set<Integer> struck(int place, int count) {
        Set<Integer> pitches = new TreeSet<>();
        int below = place;
        for (int k = 0; k < count; k++) {
            int stacked = place + 2 * k;
            if (stacked >= allowed.size()) {
                below -= 2;
            }
            pitches.add(allowed.get(stacked < allowed.size() ? stacked : Math.max(0, below)));
        }
        return pitches;
    }

    private static void cut(List<Note> notes, Note last, long tick) {
        for (int i = notes.size() - 1; i >= 0 && notes.get(i).tick() == last.tick(); i--) {
            notes.set(i, notes.get(i).withLength(Math.max(1, tick - last.tick())));
        }
    }

    /** The draws of a step; within a motif those of its first time, unless they are among the share that changes. */
    private Chance chance(int voice, long tick) {
        long motif = values.get(MOTIF) * barTicks;
        Chance own = Chance.of(values.get(SEED), voice, "make").at(tick);
        if (motif == 0 || tick < motif || own.percent(values.get(CHANGE))) {
            return Chance.of(values.get(SEED), voice, "make/step").at(tick);
        }
        return Chance.of(values.get(SEED), voice, "make/step").at(tick % motif);
    }

    private int start(int voice, int voices) {
        return (int) ((voice + 0.5) / voices * allowed.size());
    }

    private int move(Chance chance) {
        boolean leaps = chance.percent(values.get(LEAPS));
        int up = chance.unit() < 0.5 ? -1 : 1;
        int far = leaps ? 2 + chance.below(LEAP - 1) : 1;
        return up * far;
    }

    /** Keeps a line where its contour wants it, and within what is allowed. */
    private int place(int wanted, long tick, int voice, int voices) {
        int top = allowed.size() - 1;
        double way = tick / (double) end;
        double height = switch (values.get(CONTOUR)) {
            case FREE -> -1;
            case RISING -> way;
            case FALLING -> 1 - way;
            case ARCH -> 1 - Math.abs(2 * way - 1);
            case VALLEY -> Math.abs(2 * way - 1);
            case WAVE -> 0.5 + 0.5 * Math.sin(2 * Math.PI * way);
        };
        if (height < 0) {
            return Math.abs(wanted) <= top ? Math.abs(wanted) : Math.max(0, 2 * top - Math.abs(wanted));
        }
        int centre = (int) Math.round(height * top);
        // A third of the range to either side, so that the line still moves by itself.
        int slack = Math.max(1, top / 6);
        int near = Math.max(centre - slack, Math.min(centre + slack, wanted));
        return Math.max(0, Math.min(top, near));
    }

    private int velocity(long tick, double drawn) {
        int soft = Math.min(values.get(SOFTEST), values.get(LOUDEST));
        int range = Math.abs(values.get(LOUDEST) - values.get(SOFTEST));
        double accent = values.get(ACCENT) / 100.0;
        double share = (1 - accent) * drawn + (isOnBeat(tick) ? accent : 0);
        return (int) Math.max(1, Math.min(127, Math.round(soft + share * range)));
    }
}
