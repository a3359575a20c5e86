package harpel.run;

/** How what plays comes to its end. */
enum Ending {
    /** Everything ends at once. */
    SILENCE,
    /** Every stage ends what it opened, but from the first that is set to ring out on, repeats may finish. */
    STOP,
    /** What generates stops, and all the rest may finish. */
    RING,
    /** The same for a part that is not there any more: notes that play by themselves end, as those of a phrase do. */
    REST;

    /** Whether every stage rings out, set to or not. */
    boolean rings() {
        return this == RING || this == REST;
    }

    /** Whether a stage rings out that is set to. */
    boolean mayRing() {
        return this != SILENCE;
    }

    /** How it goes on behind a stage that rings out. */
    Ending behind(boolean ringing) {
        return ringing && this == STOP ? RING : this;
    }
}
