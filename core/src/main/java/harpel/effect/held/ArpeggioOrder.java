package harpel.effect.held;

import harpel.effect.Chance;
import harpel.effect.held.Arpeggio.Order;
import harpel.effect.held.Arpeggio.Play;
import harpel.event.NoteStart;
import harpel.param.ParamSet;
import harpel.theory.Interval;
import harpel.theory.Key;
import java.util.ArrayList;
import java.util.Collections;
import java.util.Comparator;
import java.util.List;
import java.util.stream.IntStream;

/** The order that an arpeggio goes through, made anew whenever what is held changes. */
final class ArpeggioOrder {
    /** A note to play and the held note it comes from. */
    record Entry(NoteStart from, int pitch) {}

    private final Order order;
    private final List<NoteStart> ascending;
    private final List<Entry> entries;
    /** For together: one group of entries for each level. */
    private final List<List<Entry>> levels;

    private ArpeggioOrder(Order order, List<NoteStart> ascending, List<Entry> entries, List<List<Entry>> levels) {
        this.order = order;
        this.ascending = ascending;
        this.entries = entries;
        this.levels = levels;
    }

    static ArpeggioOrder of(List<NoteStart> held, ParamSet values, Key key) {
        Order order = values.get(Arpeggio.ORDER);
        int slots = values.get(Arpeggio.KEEP_EVEN);
        List<NoteStart> ascending = ascending(held);
        List<NoteStart> kept = slots > 0 ? ascending.subList(0, Math.min(slots, ascending.size())) : ascending;
        List<NoteStart> leg = repeated(leg(order, kept, held), slots);

        int octaves = values.get(Arpeggio.OCTAVES);
        Interval climb = values.get(Arpeggio.CLIMB_BY);
        List<List<Entry>> levels = new ArrayList<>();
        for (int level = 0; level <= values.get(Arpeggio.CLIMB_TIMES); level++) {
            for (int octave = 0; octave < octaves; octave++) {
                int times = level;
                int up = 12 * octave;
                levels.add(leg.stream()
                        .map(note -> new Entry(note, climb.from(note.pitch(), times, key) + up))
                        .toList());
            }
        }
        if (order == Order.DOWN || order == Order.DOWN_UP || order == Order.AS_PLAYED_REVERSED) {
            Collections.reverse(levels);
        }
        List<Entry> entries = new ArrayList<>();
        levels.forEach(entries::addAll);
        turnAround(order, entries);
        return new ArpeggioOrder(order, ascending, entries, levels);
    }

    /** Low to high, each pitch once. */
    private static List<NoteStart> ascending(List<NoteStart> held) {
        List<NoteStart> sorted = new ArrayList<>();
        held.stream().sorted(Comparator.comparingInt(NoteStart::pitch)).forEach(note -> {
            if (sorted.isEmpty() || sorted.get(sorted.size() - 1).pitch() != note.pitch()) {
                sorted.add(note);
            }
        });
        return sorted;
    }

    /** One way through the notes, before octaves and the way back. */
    private static List<NoteStart> leg(Order order, List<NoteStart> ascending, List<NoteStart> held) {
        List<NoteStart> leg = new ArrayList<>(ascending);
        switch (order) {
            case DOWN, DOWN_UP -> Collections.reverse(leg);
            case AS_PLAYED -> leg.sort(Comparator.comparingInt(held::indexOf));
            case AS_PLAYED_REVERSED ->
                leg.sort(Comparator.comparingInt(held::indexOf).reversed());
            case EDGES_FIRST -> leg = edgesFirst(ascending);
            case MIDDLE_FIRST -> {
                leg = edgesFirst(ascending);
                Collections.reverse(leg);
            }
            default -> {}
        }
        return leg;
    }

    private static List<NoteStart> edgesFirst(List<NoteStart> ascending) {
        List<NoteStart> result = new ArrayList<>();
        for (int low = 0, high = ascending.size() - 1; low <= high; low++, high--) {
            result.add(ascending.get(low));
            if (low < high) {
                result.add(ascending.get(high));
            }
        }
        return result;
    }

    private static List<NoteStart> repeated(List<NoteStart> leg, int slots) {
        if (slots == 0 || leg.isEmpty()) {
            return leg;
        }
        return IntStream.range(0, slots).mapToObj(i -> leg.get(i % leg.size())).toList();
    }

    private static void turnAround(Order order, List<Entry> entries) {
        int last = entries.size() - 1;
        switch (order) {
            case UP_DOWN, DOWN_UP -> {
                for (int i = last - 1; i > 0; i--) {
                    entries.add(entries.get(i));
                }
            }
            case UP_DOWN_ENDS_TWICE -> {
                for (int i = last; i >= 0; i--) {
                    entries.add(entries.get(i));
                }
            }
            default -> {}
        }
    }

    /** After how many steps the order begins again. */
    int length() {
        return order == Order.TOGETHER ? levels.size() : entries.size();
    }

    /** What a step plays. {@code counter} is how many steps before it took the next note. */
    List<Entry> at(Play play, ParamSet step, long counter, Chance chance) {
        if (ascending.isEmpty()) {
            return List.of();
        }
        return switch (play) {
            case REST, TIE -> List.of();
            case LOWEST -> List.of(plain(ascending.get(0)));
            case HIGHEST -> List.of(plain(ascending.get(ascending.size() - 1)));
            case NTH -> {
                int n = step.get(Arpeggio.NTH);
                yield n <= ascending.size() ? List.of(plain(ascending.get(n - 1))) : List.of();
            }
            case CHORD -> ascending.stream().map(ArpeggioOrder::plain).toList();
            case NEXT -> next(counter, chance);
        };
    }

    private List<Entry> next(long counter, Chance chance) {
        int size = entries.size();
        return switch (order) {
            case TOGETHER -> distinct(levels.get((int) (counter % levels.size())));
            case RANDOM -> List.of(entries.get(chance.below(size)));
            case SHUFFLE -> List.of(entries.get(shuffled(size, counter / size, chance)[(int) (counter % size)]));
            default -> List.of(entries.get((int) (counter % size)));
        };
    }

    /** With keep-even a chord may hold one note twice; sounding together it is one. */
    private static List<Entry> distinct(List<Entry> level) {
        return level.stream().distinct().toList();
    }

    /** The permutation of a pass, the same however often it is asked for. */
    private static int[] shuffled(int size, long pass, Chance chance) {
        return IntStream.range(0, size)
                .boxed()
                .sorted(Comparator.comparingDouble(slot -> chance.unitOf(~pass, slot)))
                .mapToInt(Integer::intValue)
                .toArray();
    }

    private static Entry plain(NoteStart note) {
        return new Entry(note, note.pitch());
    }
}
