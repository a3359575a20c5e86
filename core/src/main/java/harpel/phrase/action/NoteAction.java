package harpel.phrase.action;

import harpel.param.ParamSet;
import harpel.param.ParamSpec;
import harpel.phrase.Phrase;
import harpel.time.TimeValue;
import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.Optional;
import java.util.Set;

/**
 * Something that can be done to the notes of a phrase. What is declared here gives its button with its amounts, its key, what undo calls
 * it, and its place in the laws.
 *
 * @param id what its controls are called by
 * @param name what undo and messages call it, "Octave up"
 * @param button the words on its button; empty where a key alone does it
 * @param does what it does, in words, for the tip
 * @param key its key in the roll, such as "Shift+Up"; empty for none
 * @param inKey whether the key is this action's only while the roll keeps to the piece's key
 * @param ofAll whether it may change notes that are not picked
 * @param amounts what it asks for
 */
@RecordBuilder
public record NoteAction(
        String id,
        Group group,
        String name,
        String button,
        String does,
        String key,
        boolean inKey,
        boolean ofAll,
        ParamSpec amounts,
        Doing doing)
        implements NoteActionBuilder.With {
    /** Where its button is found. */
    public enum Group {
        PITCH("Pitch"),
        TIME("Time"),
        VELOCITY("Velocity and chance"),
        NOTES("Notes");

        private final String label;

        Group(String label) {
            this.label = label;
        }

        public String label() {
            return label;
        }
    }

    /**
     * How the roll stands when it is done.
     *
     * @param grid its steps; empty while it is off
     * @param stepTicks how far one step leads
     * @param mark the tick of the mark
     * @param draw another number draws others
     */
    public record Roll(Around around, Optional<TimeValue> grid, long stepTicks, long mark, long draw) {}

    /** How it is done. */
    public interface Doing {
        /**
         * @param picked the ids of the notes that are meant; none for all
         * @throws IllegalArgumentException saying what is missing, when it cannot be done so
         */
        Edited to(Phrase phrase, Set<Integer> picked, Roll roll, ParamSet amounts);
    }

    static NoteAction of(Group group, String id, String name, String button, String does, Doing doing) {
        return new NoteAction(id, group, name, button, does, "", false, false, ParamSpec.of(), doing);
    }

    /** What it does, and its key. */
    public String tip() {
        return key.isEmpty()
                ? does
                : does + "  (" + key.replace("Shortcut", "Ctrl") + (inKey ? ", in the key" : "") + ")";
    }

    public Edited to(Phrase phrase, Set<Integer> picked, Roll roll, ParamSet amounts) {
        return doing.to(phrase, picked, roll, amounts);
    }

    /** With the amounts it has by itself. */
    public Edited to(Phrase phrase, Set<Integer> picked, Roll roll) {
        return to(phrase, picked, roll, amounts.defaults());
    }
}
