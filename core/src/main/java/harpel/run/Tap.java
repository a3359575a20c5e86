package harpel.run;

import harpel.event.Event;

/** Is told what happens on the way through the chains, on the thread that renders; it must not wait. */
public interface Tap {
    /** The place of a part's input and of its sound, besides the addresses of its stages. */
    String INPUT = "input";

    String SOUND = "sound";

    /** What is played live, before it joins the phrase at a part's input. */
    String KEYS = "keys";

    Tap NONE = told -> {};

    void tell(Told told);

    /** Tells that an event has left a place; by far the most of what is told, for which nothing is made where nobody listens. */
    default void left(String part, String place, Event event) {
        if (this != NONE) {
            tell(new Told.Left(part, place, event));
        }
    }

    /** Tells two of everything. */
    static Tap both(Tap one, Tap other) {
        return told -> {
            one.tell(told);
            other.tell(told);
        };
    }
}
