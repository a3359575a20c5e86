package harpel.engine;

import harpel.effect.EffectCatalog;
import harpel.effect.EffectKind;
import net.jqwik.api.Arbitraries;
import net.jqwik.api.Arbitrary;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.Provide;

/** The laws over every kind in the catalog: a kind that is added is covered by itself. */
class LawsTest {
    @Provide
    Arbitrary<EffectKind> kinds() {
        return Arbitraries.of(EffectCatalog.kinds());
    }

    @Property(tries = 400)
    void cuttingTimeIntoOtherBlocksChangesNothing(@ForAll("kinds") EffectKind kind, @ForAll long seed) {
        Laws.cuttingTimeIntoOtherBlocksChangesNothing(kind, seed);
    }

    @Property(tries = 200)
    void partsThatHearOneAnotherDoSoInAnyBlocks(@ForAll("kinds") EffectKind kind, @ForAll long seed) {
        Laws.partsThatHearOneAnotherDoSoInAnyBlocks(kind, seed);
    }

    @Property(tries = 300)
    void partsMayBeJoinedAndPartedAtAnyTime(@ForAll("kinds") EffectKind kind, @ForAll long seed) {
        Laws.partsMayBeJoinedAndPartedAtAnyTime(kind, seed);
    }

    @Property(tries = 1200)
    void everyStartGetsOneEndUnderAnyEdits(@ForAll("kinds") EffectKind kind, @ForAll long seed) {
        Laws.everyStartGetsOneEndUnderAnyEdits(kind, seed);
    }

    @Property(tries = 300)
    void liveAndPrintedAreTheSame(@ForAll("kinds") EffectKind kind, @ForAll long seed) throws InterruptedException {
        Laws.liveAndPrintedAreTheSame(kind, seed);
    }

    @Property(tries = 200)
    void sameVariationSameNotes(@ForAll("kinds") EffectKind kind, @ForAll long seed) {
        Laws.sameVariationSameNotes(kind, seed);
    }

    @Property(tries = 200)
    void nothingSoundsAfterSilence(@ForAll("kinds") EffectKind kind, @ForAll long seed) {
        Laws.nothingSoundsAfterSilence(kind, seed);
    }

    @Property(tries = 200)
    void ancestryLeadsBackToAPlayedNote(@ForAll("kinds") EffectKind kind, @ForAll long seed) {
        Laws.ancestryLeadsBackToAPlayedNote(kind, seed);
    }

    @Property(tries = 200)
    void whatIsNoNotePassesUntouched(@ForAll("kinds") EffectKind kind, @ForAll long seed) {
        Laws.whatIsNoNotePassesUntouched(kind, seed);
    }

    @Property(tries = 200)
    void anEffectSwitchedOffPassesEverything(@ForAll("kinds") EffectKind kind, @ForAll long seed) {
        Laws.anEffectSwitchedOffPassesEverything(kind, seed);
    }

    @Property(tries = 200)
    void otherChannelsPassBy(@ForAll("kinds") EffectKind kind, @ForAll long seed) {
        Laws.otherChannelsPassBy(kind, seed);
    }

    @Property(tries = 300)
    void aChainThatIsSavedAndReadIsEqual(@ForAll("kinds") EffectKind kind, @ForAll long seed) throws Exception {
        Laws.aChainThatIsSavedAndReadIsEqual(kind, seed);
    }

    @Property(tries = 600)
    void twoChainsMayTakeTurnsAtAnyTime(@ForAll("kinds") EffectKind kind, @ForAll long seed) {
        CompareLaws.twoChainsMayTakeTurnsAtAnyTime(kind, seed);
    }

    @Property(tries = 300)
    void aDifferenceIsFoundJustWhereThereIsOne(@ForAll("kinds") EffectKind kind, @ForAll long seed) {
        CompareLaws.aDifferenceIsFoundJustWhereThereIsOne(kind, seed);
    }

    @Property(tries = 150)
    void shownStepsLieInTheirRows(@ForAll("kinds") EffectKind kind, @ForAll long seed) {
        CompareLaws.shownStepsLieInTheirRows(kind, seed);
    }

    @Property(tries = 150)
    void everyDeedIsToldInWords(@ForAll("kinds") EffectKind kind, @ForAll long seed) {
        CompareLaws.everyDeedIsToldInWords(kind, seed);
    }

    @Property(tries = 300)
    void aReplacedStageKeepsOnlyWhatFits(@ForAll("kinds") EffectKind kind, @ForAll long seed) {
        CompareLaws.aReplacedStageKeepsOnlyWhatFits(kind, seed);
    }
}
