package harpel.app.desk;

import harpel.app.document.Document;
import harpel.app.document.Selection;
import harpel.app.look.Messages;
import harpel.app.transport.Transport;
import harpel.engine.LiveStatus.Mode;
import harpel.piece.Part;
import harpel.piece.Piece;
import harpel.piece.PieceEdit;
import harpel.print.WhyNothing;
import harpel.print.WhyNothing.Answer;
import harpel.print.WhyNothing.Now;
import java.util.concurrent.CompletableFuture;
import javafx.application.Platform;
import org.slf4j.LoggerFactory;

/** Why nothing is heard of the chosen part: found out beside the window, said at its foot with the one action that helps. */
public final class WhySilent {
    private final Document document;
    private final Selection selection;
    private final Transport transport;
    private final Messages messages;

    public WhySilent(Document document, Selection selection, Transport transport, Messages messages) {
        this.document = document;
        this.selection = selection;
        this.transport = transport;
        this.messages = messages;
    }

    /** Asks, and says the answer once it is there. */
    public void ask() {
        Piece piece = document.piece().get();
        Part part = selection.part();
        Now now = new Now(
                transport.status().mode() == Mode.PLAYING,
                (long) transport.songTick(),
                transport.noSound().get(),
                transport.outputs());
        CompletableFuture.runAsync(() -> {
            try {
                Answer answer = WhyNothing.of(piece, part, now);
                Platform.runLater(() -> say(part, answer));
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
            } catch (RuntimeException e) {
                LoggerFactory.getLogger(WhySilent.class).error("the way of {} could not be walked", part.name(), e);
                Platform.runLater(() -> messages.say("This could not be found out: " + e.getMessage()));
            }
        });
    }

    private void say(Part part, Answer answer) {
        String words = answer.text().startsWith(part.name()) ? answer.text() : part.name() + ": " + answer.text();
        switch (answer.does()) {
            case NOTHING -> messages.say(words);
            case EDIT ->
                messages.offer(
                        words, answer.action(), () -> document.apply(PieceEdit.of(answer.action(), answer.fix())));
            case PLAY -> messages.offer(words, answer.action(), transport::play);
        }
    }
}
