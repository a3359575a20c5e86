package harpel.effect;

/** What sets a kind of effect apart, as far as others must know it. Every kind declares its own. */
public enum Trait {
    /** It draws: another variation gives other notes. */
    DRAWS,
    /** It may send notes outside the key. */
    LEAVES_THE_KEY,
    /** It brings notes into a key. */
    FITS_THE_KEY,
    /** It plays without being played. */
    PLAYS_BY_ITSELF,
    /** What it sends is a pattern of its own, one note after another. */
    MAKES_A_PATTERN,
    /** It gives each note a way of its own; one that no way takes ends there. */
    GIVES_OUT,
    /** It works on chords; notes one at a time give it nothing to do. */
    NEEDS_CHORDS,
    /** Notes that end there are meant to. */
    SWALLOWS
}
