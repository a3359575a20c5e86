package harpel.engine;

import harpel.testkit.Laws;
import harpel.testkit.Laws.Law;
import java.util.LinkedHashMap;
import java.util.Map;

/**
 * The promises of effects ({@link Laws}) and, beside them, of all that carries notes past them. The tests try a modest count of them
 * ({@link LawsTest}), a soak as many as one likes ({@link Soak}).
 */
final class EngineLaws {
    private EngineLaws() {}

    /** Every law by its name. */
    static Map<String, Law> all() {
        Map<String, Law> laws = new LinkedHashMap<>(Laws.all());
        laws.put("everyStartEndsAtItsPort", PortLaws::everyStartEndsAtItsPort);
        laws.put("nothingHangsAtTheEdge", EdgeLaws::nothingHangsAtTheEdge);
        laws.put("anEditOfAPhraseTouchesNoOtherNote", PortLaws::anEditOfAPhraseTouchesNoOtherNote);
        laws.put("aPhraseIsPrintedFromAnywhereAsHeard", PhraseLaws::printedFromAnywhereAsHeard);
        laws.put("theFirstRoundIsHeardAndPrinted", PhraseLaws::theFirstRoundIsHeardAndPrinted);
        laws.put("loopsAreTheirUnrolling", PhraseLaws::loopsAreTheirUnrolling);
        laws.put("whatComesRoundIsItsUnrolling", PhraseLaws::whatComesRoundIsItsUnrolling);
        laws.put("whatIsDoneOnStageLeavesNothingHanging", (kind, seed) -> StageLaws.performed(kind, seed, 100));
        laws.put("aPhraseEditedInPlayLeavesNothingHanging", (kind, seed) -> PhraseLaws.edited(kind, seed, 100));
        laws.put("whatIsKeptIsWhatTheOutputGot", HeardLaws::whatIsKeptIsWhatTheOutputGot);
        return laws;
    }
}
