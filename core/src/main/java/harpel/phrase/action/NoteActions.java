package harpel.phrase.action;

import harpel.param.Param;
import harpel.param.ParamSpec;
import harpel.param.music.TimeType;
import harpel.param.type.FlagType;
import harpel.param.type.IntType;
import harpel.param.type.NumberType;
import harpel.phrase.action.NoteAction.Group;
import harpel.time.TimeValue;
import java.util.List;
import java.util.Optional;

/** Everything that can be done to the notes of a phrase by a button or a key, in the order in which it is shown. */
public final class NoteActions {
    private static final int LOUDER = 5;
    private static final int CHANCE_STEP = 10;
    /** So many of the finest moves make a step of the grid. */
    private static final int FINE = 24;

    private static final Param<Double> STRENGTH =
            Param.of("strength", new NumberType(0, 100, 1, "%"), 100.0, "How far of the way onto the grid");
    private static final Param<Double> SWING =
            Param.of("swing", new NumberType(50, 75, 1, "%"), 50.0, "Where the second of two steps lies; 50 is even");
    private static final Param<Boolean> ENDS =
            Param.of("ends", FlagType.FLAG, false, "Brings the ends of notes onto the grid, too");
    private static final Param<Integer> STRETCH =
            Param.of("to", IntType.percent(1, 1600), 150, "To how much of their length");
    private static final Param<TimeValue> APART =
            Param.of("by", TimeType.TIME, TimeValue.ofNote("1/64"), "How far apart");
    private static final Param<Integer> EQUAL = Param.of("to", IntType.of(1, 127, ""), 88, "To which velocity");
    private static final Param<Integer> RAMP_FROM = Param.of("from", IntType.of(1, 127, ""), 40, "From which velocity");
    private static final Param<Integer> RAMP_TO = Param.of("to", IntType.of(1, 127, ""), 110, "To which velocity");
    private static final Param<Integer> LOOSEN = Param.of("by", IntType.of(0, 127, ""), 8, "By how much at most");
    private static final Param<Integer> CHANCE_FROM =
            Param.of("from", IntType.percent(0, 100), 40, "Between which chances: the one end");
    private static final Param<Integer> CHANCE_TO =
            Param.of("to", IntType.percent(0, 100), 80, "Between which chances: the other end");

    private static final List<NoteAction> ALL = List.of(
            NoteAction.of(
                            Group.PITCH,
                            "octave-up",
                            "Octave up",
                            "octave up",
                            "An octave up",
                            (phrase, ids, roll, amounts) -> Pitches.transpose(phrase, ids, 12))
                    .withKey("Shift+Up"),
            NoteAction.of(
                            Group.PITCH,
                            "octave-down",
                            "Octave down",
                            "octave down",
                            "An octave down",
                            (phrase, ids, roll, amounts) -> Pitches.transpose(phrase, ids, -12))
                    .withKey("Shift+Down"),
            NoteAction.of(
                            Group.PITCH,
                            "semitone-up",
                            "Semitone up",
                            "+1 st",
                            "A semitone up",
                            (phrase, ids, roll, amounts) -> Pitches.transpose(phrase, ids, 1))
                    .withKey("Up"),
            NoteAction.of(
                            Group.PITCH,
                            "semitone-down",
                            "Semitone down",
                            "−1 st",
                            "A semitone down",
                            (phrase, ids, roll, amounts) -> Pitches.transpose(phrase, ids, -1))
                    .withKey("Down"),
            NoteAction.of(
                            Group.PITCH,
                            "degree-up",
                            "Degree up",
                            "degree up",
                            "A step of the key up",
                            (phrase, ids, roll, amounts) -> Pitches.degrees(phrase, ids, 1, roll.around()))
                    .withKey("Up")
                    .withInKey(true),
            NoteAction.of(
                            Group.PITCH,
                            "degree-down",
                            "Degree down",
                            "degree down",
                            "A step of the key down",
                            (phrase, ids, roll, amounts) -> Pitches.degrees(phrase, ids, -1, roll.around()))
                    .withKey("Down")
                    .withInKey(true),
            intoKey(
                    "into-key",
                    "Into the key",
                    "into the key",
                    "To the nearest note of the key, of two the lower",
                    Pitches.Into.NEAREST),
            intoKey(
                    "into-key-up",
                    "Up into the key",
                    "up into it",
                    "To the next note of the key above",
                    Pitches.Into.UP),
            intoKey(
                    "into-key-down",
                    "Down into the key",
                    "down into it",
                    "To the next note of the key below",
                    Pitches.Into.DOWN),
            NoteAction.of(
                    Group.PITCH,
                    "mirror",
                    "Mirror",
                    "mirror",
                    "The highest becomes the lowest",
                    (phrase, ids, roll, amounts) -> Pitches.mirror(phrase, ids, roll.around())),
            NoteAction.of(
                            Group.TIME,
                            "grid",
                            "Onto the grid",
                            "onto the grid",
                            "Starts onto the grid of the roll, so many percent of the way, with a swing",
                            (phrase, ids, roll, amounts) -> Times.ontoGrid(
                                    phrase,
                                    ids,
                                    roll.grid()
                                            .orElseThrow(() -> new IllegalArgumentException(
                                                    "the grid is off; choose one above the roll")),
                                    amounts.get(SWING),
                                    amounts.get(STRENGTH),
                                    amounts.get(ENDS),
                                    roll.around()))
                    .withAmounts(ParamSpec.of(STRENGTH, SWING, ENDS)),
            NoteAction.of(
                    Group.TIME,
                    "legato",
                    "Legato",
                    "legato",
                    "Each lasts until the next",
                    (phrase, ids, roll, amounts) -> Times.legato(phrase, ids, roll.around())),
            NoteAction.of(
                            Group.TIME,
                            "earlier",
                            "Earlier",
                            "earlier",
                            "By a step of the grid",
                            (phrase, ids, roll, amounts) -> Times.move(phrase, ids, -roll.stepTicks()))
                    .withKey("Left"),
            NoteAction.of(
                            Group.TIME,
                            "later",
                            "Later",
                            "later",
                            "By a step of the grid",
                            (phrase, ids, roll, amounts) -> Times.move(phrase, ids, roll.stepTicks()))
                    .withKey("Right"),
            NoteAction.of(
                            Group.TIME,
                            "shorter",
                            "Shorter",
                            "shorter",
                            "By a step of the grid",
                            (phrase, ids, roll, amounts) -> Times.lengthen(phrase, ids, -roll.stepTicks()))
                    .withKey("Shortcut+Left"),
            NoteAction.of(
                            Group.TIME,
                            "longer",
                            "Longer",
                            "longer",
                            "By a step of the grid",
                            (phrase, ids, roll, amounts) -> Times.lengthen(phrase, ids, roll.stepTicks()))
                    .withKey("Shortcut+Right"),
            NoteAction.of(
                    Group.TIME,
                    "round-left",
                    "Shift round to the left",
                    "round ◂",
                    "Shifts to the left by a step; what leaves comes in at the end",
                    (phrase, ids, roll, amounts) -> Times.shiftRound(phrase, ids, -roll.stepTicks())),
            NoteAction.of(
                    Group.TIME,
                    "round-right",
                    "Shift round to the right",
                    "round ▸",
                    "Shifts to the right by a step; what leaves comes in at the beginning",
                    (phrase, ids, roll, amounts) -> Times.shiftRound(phrase, ids, roll.stepTicks())),
            NoteAction.of(
                            Group.TIME,
                            "to-mark",
                            "To the mark",
                            "to the mark",
                            "All by the same, so that the first starts at the mark",
                            (phrase, ids, roll, amounts) -> Times.beginAt(phrase, ids, roll.mark()))
                    .withKey("M"),
            moved("bar-earlier", "Earlier by a bar", "Shift+Left", roll -> -bar(roll)),
            moved("bar-later", "Later by a bar", "Shift+Right", NoteActions::bar),
            moved("little-earlier", "Earlier by a little", "Alt+Left", roll -> -little(roll)),
            moved("little-later", "Later by a little", "Alt+Right", NoteActions::little),
            NoteAction.of(
                    Group.TIME,
                    "half",
                    "Half as long",
                    "half",
                    "Half as long",
                    (phrase, ids, roll, amounts) -> Times.stretch(phrase, ids, 0.5, roll.around())),
            NoteAction.of(
                    Group.TIME,
                    "double",
                    "Twice as long",
                    "double",
                    "Twice as long",
                    (phrase, ids, roll, amounts) -> Times.stretch(phrase, ids, 2, roll.around())),
            NoteAction.of(
                    Group.TIME,
                    "reverse",
                    "Reverse",
                    "reverse",
                    "What came last comes first",
                    (phrase, ids, roll, amounts) -> Times.reverse(phrase, ids)),
            NoteAction.of(
                            Group.TIME,
                            "stretch",
                            "Stretch",
                            "stretch",
                            "Times and lengths to so many percent",
                            (phrase, ids, roll, amounts) ->
                                    Times.stretch(phrase, ids, amounts.get(STRETCH) / 100.0, roll.around()))
                    .withAmounts(ParamSpec.of(STRETCH)),
            NoteAction.of(
                            Group.TIME,
                            "strum",
                            "Strum apart",
                            "strum apart",
                            "The notes of a chord one after another",
                            (phrase, ids, roll, amounts) -> Times.strumApart(
                                    phrase,
                                    ids,
                                    Math.round(amounts.get(APART)
                                            .ticksAt(0, roll.around().time())),
                                    roll.around()))
                    .withAmounts(ParamSpec.of(APART)),
            NoteAction.of(
                            Group.VELOCITY,
                            "equal",
                            "All equal",
                            "all equal",
                            "All to one velocity",
                            (phrase, ids, roll, amounts) -> Velocities.equal(phrase, ids, amounts.get(EQUAL)))
                    .withAmounts(ParamSpec.of(EQUAL)),
            NoteAction.of(
                            Group.VELOCITY,
                            "softer",
                            "Softer",
                            "softer",
                            "Softer by " + LOUDER,
                            (phrase, ids, roll, amounts) -> Velocities.louder(phrase, ids, -LOUDER))
                    .withKey("−"),
            NoteAction.of(
                            Group.VELOCITY,
                            "louder",
                            "Louder",
                            "louder",
                            "Louder by " + LOUDER,
                            (phrase, ids, roll, amounts) -> Velocities.louder(phrase, ids, LOUDER))
                    .withKey("+"),
            NoteAction.of(
                            Group.VELOCITY,
                            "ramp",
                            "Ramp",
                            "ramp",
                            "From one velocity to another",
                            (phrase, ids, roll, amounts) ->
                                    Velocities.ramp(phrase, ids, amounts.get(RAMP_FROM), amounts.get(RAMP_TO)))
                    .withAmounts(ParamSpec.of(RAMP_FROM, RAMP_TO)),
            NoteAction.of(
                            Group.VELOCITY,
                            "loosen",
                            "Loosen",
                            "loosen",
                            "Each up or down by a draw; again draws others",
                            (phrase, ids, roll, amounts) ->
                                    Velocities.loosen(phrase, ids, amounts.get(LOOSEN), roll.draw()))
                    .withAmounts(ParamSpec.of(LOOSEN)),
            NoteAction.of(
                            Group.VELOCITY,
                            "chance",
                            "Chance at random",
                            "chance at random",
                            "Each gets a chance between two; again draws others",
                            (phrase, ids, roll, amounts) -> Velocities.chanceAtRandom(
                                    phrase,
                                    ids,
                                    amounts.get(CHANCE_FROM),
                                    amounts.get(CHANCE_TO),
                                    roll.draw(),
                                    roll.around()))
                    .withAmounts(ParamSpec.of(CHANCE_FROM, CHANCE_TO)),
            NoteAction.of(
                            Group.VELOCITY,
                            "less-chance",
                            "Less chance",
                            "",
                            "The chance of all that of the first, less " + CHANCE_STEP,
                            (phrase, ids, roll, amounts) ->
                                    Velocities.stepChance(phrase, ids, -CHANCE_STEP, roll.around()))
                    .withKey("C"),
            NoteAction.of(
                            Group.VELOCITY,
                            "more-chance",
                            "More chance",
                            "",
                            "The chance of all that of the first, and " + CHANCE_STEP + " more",
                            (phrase, ids, roll, amounts) ->
                                    Velocities.stepChance(phrase, ids, CHANCE_STEP, roll.around()))
                    .withKey("Shift+C"),
            NoteAction.of(
                            Group.VELOCITY,
                            "off",
                            "Off or on",
                            "off",
                            "Kept, but not played; again to switch on",
                            (phrase, ids, roll, amounts) -> Velocities.off(phrase, ids))
                    .withKey("O"),
            NoteAction.of(
                    Group.NOTES,
                    "cut",
                    "Cut at the mark",
                    "cut at the mark",
                    "Notes that sound across the mark become two",
                    (phrase, ids, roll, amounts) -> Shapes.cutAt(phrase, ids, roll.mark())),
            NoteAction.of(
                    Group.NOTES,
                    "join",
                    "Join",
                    "join",
                    "Notes of one pitch that touch become one",
                    (phrase, ids, roll, amounts) -> Shapes.join(phrase, ids)),
            NoteAction.of(
                    Group.NOTES,
                    "fill",
                    "Fill",
                    "fill",
                    "Again and again to the phrase’s end",
                    (phrase, ids, roll, amounts) -> Shapes.fill(phrase, ids, roll.around())),
            NoteAction.of(
                            Group.NOTES,
                            "trim",
                            "Trim",
                            "trim",
                            "The phrase to its notes, by whole bars",
                            (phrase, ids, roll, amounts) -> Shapes.trim(phrase, ids, roll.around()))
                    .withOfAll(true),
            NoteAction.of(
                    Group.NOTES,
                    "twice",
                    "Phrase twice",
                    "phrase twice",
                    "The phrase twice as long, with its notes again",
                    (phrase, ids, roll, amounts) -> Shapes.twice(phrase, ids, roll.around())),
            NoteAction.of(
                            Group.NOTES,
                            "remove",
                            "Remove notes",
                            "remove",
                            "Takes the picked notes away",
                            (phrase, ids, roll, amounts) -> Shapes.remove(phrase, ids))
                    .withKey("Delete"));

    private NoteActions() {}

    private interface Way {
        long ticks(NoteAction.Roll roll);
    }

    private static NoteAction moved(String id, String name, String key, Way way) {
        return NoteAction.of(
                        Group.TIME,
                        id,
                        name,
                        "",
                        name,
                        (phrase, ids, roll, amounts) -> Times.move(phrase, ids, way.ticks(roll)))
                .withKey(key);
    }

    private static NoteAction intoKey(String id, String name, String button, String does, Pitches.Into into) {
        return NoteAction.of(
                Group.PITCH,
                id,
                name,
                button,
                does,
                (phrase, ids, roll, amounts) -> Pitches.intoKey(phrase, ids, into, roll.around()));
    }

    private static long bar(NoteAction.Roll roll) {
        return roll.around().time().meter().at(0).barTicks();
    }

    private static long little(NoteAction.Roll roll) {
        return Math.max(1, roll.stepTicks() / FINE);
    }

    public static List<NoteAction> all() {
        return ALL;
    }

    /**
     * What a key does.
     *
     * @param inKey whether the roll keeps to the piece's key
     */
    public static Optional<NoteAction> byKey(String key, boolean inKey) {
        return ALL.stream()
                .filter(one -> one.key().equals(key) && one.inKey() == inKey)
                .findFirst()
                .or(() -> ALL.stream()
                        .filter(one -> one.key().equals(key) && !one.inKey())
                        .findFirst());
    }
}
