package harpel.param.music;

import harpel.event.NoteStart;
import harpel.param.Ids;
import harpel.param.ParamException;
import harpel.param.ParamType;
import harpel.param.Plain;
import harpel.param.type.IntType;
import java.util.List;
import java.util.Map;

/** Where notes are sent: on as they are, to a channel, to another part, or to another output. */
public record RouteType() implements ParamType<RouteType.Route> {
    public static final RouteType ROUTE = new RouteType();
    /** What stands before the name of an output. */
    public static final String OUTPUT = "output:";

    private static final String ON = "on";
    private static final IntType CHANNELS = IntType.of(1, 16, "");

    /**
     * A way.
     *
     * @param channel 1–16, or 0 for a note's own
     * @param to a part's id, or {@link #OUTPUT} and an output's name; empty for the way on through the chain
     */
    public record Route(int channel, String to) {
        public static final Route ON = new Route(0, "");

        /** The note as it goes this way: one of its own on the route's channel, or itself. */
        public NoteStart on(NoteStart note) {
            return channel > 0 ? note.onChannel(channel - 1) : note;
        }

        /** Whether it leaves the chain. */
        public boolean leaves() {
            return !to.isEmpty();
        }
    }

    @Override
    public Route read(Object plain) {
        if (plain instanceof Number) {
            return new Route(CHANNELS.read(plain), "");
        }
        if (ON.equals(plain)) {
            return Route.ON;
        }
        if (plain instanceof String text
                && (Ids.isOne(text) && !text.matches("\\d+")
                        || text.startsWith(OUTPUT) && text.length() > OUTPUT.length())) {
            return new Route(0, text);
        }
        throw new ParamException("must be " + range() + " but was " + Plain.quote(plain));
    }

    @Override
    public Route parse(String typed) {
        String bare = typed.strip().replaceFirst("^channel\\s+", "");
        return bare.matches("\\d{1,3}") ? read(Integer.valueOf(bare)) : read(bare);
    }

    @Override
    public Object write(Route value) {
        return value.channel() > 0 ? (Object) value.channel() : value.leaves() ? value.to() : ON;
    }

    @Override
    public Map<String, Object> schema() {
        return Map.of("anyOf", List.of(CHANNELS.schema(), Map.of("type", "string")));
    }

    @Override
    public String show(Route value) {
        return value.channel() > 0 ? "channel " + value.channel() : value.leaves() ? value.to() : ON;
    }

    @Override
    public String range() {
        return "\"on\" (the way on), a channel 1–16, the id of another part, or \"" + OUTPUT
                + "\" and an output's name";
    }
}
