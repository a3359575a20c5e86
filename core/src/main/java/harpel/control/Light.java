package harpel.control;

/** What a pad's light says. */
public enum Light {
    OFF,
    /** There is something that is off. */
    THERE,
    ON,
    /** Something waits for its beat or bar. */
    WAITS,
    /** Something moves there, or is held. */
    MOVES,
    /** Leads elsewhere. */
    LEADS
}
