package harpel.app.perform;

import static org.assertj.core.api.Assertions.assertThat;

import harpel.app.session.Session;
import harpel.engine.LiveStatus;
import harpel.piece.Bracket;
import harpel.piece.Piece;
import harpel.piece.perform.Lever;
import harpel.piece.perform.Moment;
import harpel.piece.perform.Pad;
import harpel.piece.perform.Pad.Does;
import harpel.piece.perform.When;
import harpel.port.Ports;
import harpel.time.Ticks;
import java.util.List;
import java.util.concurrent.atomic.AtomicLong;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** Pads and moments in play, while time stands still at its beginning. */
class PerformingTest {
    private static final long BAR = 4L * Ticks.PER_QUARTER;

    private final AtomicLong now = new AtomicLong(1);
    private final Piece piece = Piece.empty()
            .withTimeline(true)
            .withBracket(new Bracket(0, 3 * BAR, true))
            .withLevers(List.of(Lever.of("Tide", 20)));
    private final Session session = new Session(piece, new Ports(), List::of, now::get);

    @BeforeEach
    void play() {
        session.transport().start();
        session.transport().play();
        long giveUp = System.nanoTime() + 20_000_000_000L;
        while (session.transport().status().mode() != LiveStatus.Mode.PLAYING && System.nanoTime() < giveUp) {
            Thread.onSpinWait();
        }
    }

    @AfterEach
    void close() {
        session.close();
    }

    @Test
    void whatIsDueBehindTheEndOfALoopIsDoneWhereItComesRound() {
        Pad soon = Pad.of(0, Does.MUTE, "part-1", "", new When(2));
        Pad late = Pad.of(1, Does.SOLO, "part-1", "", new When(4));
        now.addAndGet(100_000_000);
        session.performing().press(soon);
        session.performing().press(late);
        assertThat(session.performing().waitsFor(soon)).contains(2 * BAR);
        assertThat(session.performing().waitsFor(late))
                .as("not in bar 5, which never comes")
                .contains(0L);
    }

    @Test
    void aMomentThatGlidesTakesItsTimeAlsoWhereItIsRecalledAtOnce() {
        Moment moment = Moment.of("Low tide", piece).withWhen(When.NOW);
        session.performing().recall(moment.withGlide(4));
        assertThat(session.performing().waitsFor(moment.withGlide(4))).isPresent();
        session.performing().recall(moment.withGlide(0));
        assertThat(session.performing().waitsFor(moment.withGlide(0))).isEmpty();
    }
}
