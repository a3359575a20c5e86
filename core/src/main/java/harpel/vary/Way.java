package harpel.vary;

/** What one variation has other than the next. */
public enum Way {
    /** The draws: the number of the variation is another. */
    CHANCE(0, 0, 0, 0),
    /** Settings are moved a little; choices rarely, and no stage is switched. */
    LITTLE(0.35, 0.12, 0.02, 0),
    /** Settings are moved a lot; now and then a choice, and seldom a stage is switched. */
    LOT(0.6, 0.4, 0.12, 0.06),
    /** The phrase is another of the same making. */
    MADE(0, 0, 0, 0);

    /** How often a setting with a range is moved, 0–1. */
    final double often;

    /** How far at most, as a share of its range. */
    final double far;

    /** How often a choice is another, 0–1. */
    final double choices;

    /** How often a stage is switched on or off, 0–1. */
    final double switches;

    Way(double often, double far, double choices, double switches) {
        this.often = often;
        this.far = far;
        this.choices = choices;
        this.switches = switches;
    }
}
