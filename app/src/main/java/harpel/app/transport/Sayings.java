package harpel.app.transport;

import harpel.run.Told;
import java.util.ArrayDeque;
import java.util.Deque;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Consumer;

/** What stages have said, such as a script's lines and what is wrong with it. Interface thread. */
public final class Sayings {
    private static final int MOST_LINES = 200;

    private final Map<String, Deque<String>> lines = new HashMap<>();
    private final Map<String, Told.Said> complaints = new HashMap<>();
    private Consumer<Told.Said> complained = said -> {};
    private long count;

    /** Hears of each complaint that is new. */
    public void onComplaint(Consumer<Told.Said> listener) {
        complained = listener;
    }

    void take(Told.Said said) {
        if (said.complaint() && !said.equals(complaints.put(said.place(), said))) {
            complained.accept(said);
        }
        Deque<String> of = lines.computeIfAbsent(said.place(), place -> new ArrayDeque<>());
        if (said.text().equals(of.peekLast())) {
            return;
        }
        of.addLast(said.text());
        if (of.size() > MOST_LINES) {
            of.removeFirst();
        }
        count++;
    }

    void take(Told.Fine fine) {
        complaints.remove(fine.place());
    }

    /** What a stage has said lately, oldest first. */
    public List<String> of(String place) {
        return List.copyOf(lines.getOrDefault(place, new ArrayDeque<>()));
    }

    /** What a stage complains of. */
    public Optional<Told.Said> complaint(String place) {
        return Optional.ofNullable(complaints.get(place));
    }

    /** How much has been said in all, to know whether anything is new. */
    public long count() {
        return count;
    }

    /** Forgets what a stage has said. */
    public void forget(String place) {
        lines.remove(place);
        complaints.remove(place);
        count++;
    }
}
