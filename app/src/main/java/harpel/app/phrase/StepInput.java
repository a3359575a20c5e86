package harpel.app.phrase;

import harpel.app.desk.PhraseDesk;
import harpel.app.document.Selection;
import harpel.app.transport.Places;
import harpel.app.transport.TraceStore;
import harpel.app.transport.TraceStore.Drawn;
import harpel.app.transport.Transport;
import harpel.engine.LiveStatus;
import harpel.event.NoteStart;
import harpel.phrase.Note;
import harpel.phrase.Phrase;
import harpel.phrase.action.Shapes;
import java.util.ArrayList;
import java.util.List;

/**
 * Steps by playing: while steps are wanted, what is played goes into the phrase at the mark, all that is held together as a chord, and the
 * mark moves on when all is let go. While the transport runs what comes in may be the phrase itself, so nothing is taken then. Interface
 * thread.
 */
final class StepInput {
    private final Selection selection;
    private final Transport transport;
    private final PhraseDesk desk;
    private NoteStart last;
    private String part = "";
    private boolean held;

    StepInput(Selection selection, Transport transport, PhraseDesk desk) {
        this.selection = selection;
        this.transport = transport;
        this.desk = desk;
    }

    void take() {
        TraceStore traces = transport.traces();
        String now = selection.partId().get();
        Places.Place input = Places.input(now);
        List<Drawn> notes = traces.notes(input);
        boolean playing = transport.status().mode() == LiveStatus.Mode.PLAYING;
        if (!desk.stepping().get() || playing || !now.equals(part)) {
            part = now;
            last = notes.isEmpty() ? null : notes.get(notes.size() - 1).note;
            held = false;
            return;
        }
        List<Note> fresh = new ArrayList<>();
        int from = notes.size();
        while (from > 0 && notes.get(from - 1).note != last) {
            from--;
        }
        for (Drawn drawn : notes.subList(from, notes.size())) {
            fresh.add(Note.of(0, desk.stepTicks(), drawn.note.pitch(), drawn.note.velocity()));
            last = drawn.note;
        }
        Phrase phrase = desk.phrase().orElse(null);
        if (phrase == null) {
            return;
        }
        if (!fresh.isEmpty()) {
            long at = desk.mark().get();
            desk.act("Step in", (one, picked) -> Shapes.paste(one, fresh, at));
            held = true;
        }
        if (held && !traces.sounds(input)) {
            held = false;
            // Round the loop, as everything else goes.
            desk.mark().set((desk.mark().get() + desk.stepTicks()) % phrase.length());
        }
    }
}
