package harpel.app.perform;

import harpel.app.document.Document;
import harpel.app.document.Selection;
import harpel.app.look.Messages;
import harpel.app.transport.Transport;
import harpel.chain.Stage;
import harpel.chain.StageAddress;
import harpel.engine.LiveStatus;
import harpel.move.Mover;
import harpel.move.Moves;
import harpel.move.Source;
import harpel.param.Param;
import harpel.piece.PieceEdit;
import harpel.piece.perform.Lever;
import harpel.theory.GeneralMidi;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.UnaryOperator;
import java.util.stream.Collectors;
import javafx.beans.property.LongProperty;
import javafx.beans.property.SimpleLongProperty;
import javafx.beans.property.SimpleStringProperty;
import javafx.beans.property.StringProperty;

/** Joins levers to the knob that moves them, learnt by moving it, and to the controls that they move, pointed at. */
public final class LeverWiring {
    private final Document document;
    private final Selection selection;
    private final Transport transport;
    private final Messages messages;
    private final StringProperty learning = new SimpleStringProperty("");
    private final StringProperty picking = new SimpleStringProperty("");
    private final LongProperty learnt = new SimpleLongProperty();
    private long controllersAtLearning;
    /** Whether it is learnt besides those that move the lever already. */
    private boolean more;

    public LeverWiring(Document document, Selection selection, Transport transport, Messages messages) {
        this.document = document;
        this.selection = selection;
        this.transport = transport;
        this.messages = messages;
    }

    /** A lever more. */
    public void add() {
        List<String> names =
                document.piece().get().levers().stream().map(Lever::name).toList();
        int number = names.size() + 1;
        while (names.contains("Lever " + number)) {
            number++;
        }
        String name = names.isEmpty() ? "Tide" : "Lever " + number;
        document.apply(PieceEdit.of("Add lever", piece -> {
            List<Lever> more = new ArrayList<>(piece.levers());
            more.add(Lever.of(name, 0));
            return piece.withLevers(more);
        }));
    }

    /** No lever waits for a control any more. */
    void leave() {
        picking.set("");
    }

    /** From now on the next controller that comes in moves that lever in place of others; asked again it is left as it is. */
    public void learn(String lever) {
        learn(lever, false);
    }

    /** The same for one more, besides those that move it already. */
    public void learnMore(String lever) {
        learn(lever, true);
    }

    private void learn(String lever, boolean besides) {
        more = besides;
        learning.set(lever.equals(learning.get()) ? "" : lever);
        controllersAtLearning = transport.status().controllersIn();
        learnt.set(learnt.get() + 1);
    }

    /** The lever that waits for a controller, or empty. */
    public StringProperty learning() {
        return learning;
    }

    /** Counts up whenever learning begins or ends. */
    public LongProperty learnt() {
        return learnt;
    }

    /** Takes the controller that a lever waits for; once a frame. */
    public void takeLearnt() {
        LiveStatus status = transport.status();
        if (learning.get().isEmpty() || status.controllersIn() == controllersAtLearning) {
            return;
        }
        String name = learning.get();
        learning.set("");
        learnt.set(learnt.get() + 1);
        List<Integer> learntNow = new ArrayList<>();
        document.piece().get().levers().stream()
                .filter(lever -> more && lever.name().equals(name))
                .forEach(lever -> learntNow.addAll(lever.controllers()));
        learntNow.add(status.lastController());
        change("Learn controller", name, lever -> lever.withControllers(learntNow));
        String others = sharing(name, List.of(status.lastController()));
        messages.say("“" + name + "” is moved by " + GeneralMidi.controller(status.lastController())
                + (others.isEmpty() ? "." : ", which moves " + others + " as well."));
    }

    /** Changes one lever. */
    public void change(String label, String name, UnaryOperator<Lever> change) {
        document.apply(PieceEdit.of(
                label,
                piece -> piece.withLevers(piece.levers().stream()
                        .map(lever -> lever.name().equals(name) ? change.apply(lever) : lever)
                        .toList())));
    }

    /** The other levers that one of these controllers moves, in words; empty for none. */
    public String sharing(String name, List<Integer> controllers) {
        return document.piece().get().levers().stream()
                .filter(other -> !other.name().equals(name)
                        && other.controllers().stream().anyMatch(controllers::contains))
                .map(other -> "“" + other.name() + "”")
                .collect(Collectors.joining(", "));
    }

    /** The lever that waits to be shown a control to move, or empty. */
    public StringProperty picking() {
        return picking;
    }

    /** From now on the next control that is pressed is moved by that lever; asked again it is left as it is. */
    public void pick(String lever) {
        boolean again = lever.equals(picking.get());
        picking.set(again ? "" : lever);
        messages.say(again ? "" : "Press the control that “" + lever + "” shall move. Escape leaves it.");
    }

    /** Lets the lever that waits move a parameter; false when none waits or that cannot be moved. */
    public boolean picked(StageAddress address, Param<?> param) {
        String lever = picking.get();
        Optional<Stage> stage = selection.stage(address).filter(Stage::isKnown);
        if (lever.isEmpty() || stage.isEmpty() || !Moves.canMove(stage.get().kind(), param)) {
            return false;
        }
        picking.set("");
        Mover plain = Mover.proposed(Source.LEVER, param);
        Mover mover = new Mover(Source.LEVER, plain.settings().with(Source.NAME, lever));
        selection.editStage(
                "Let " + lever + " move " + param.label().toLowerCase(java.util.Locale.ROOT),
                "",
                address,
                one -> one.withMoves(one.moves().plus(param, mover)));
        messages.say("“" + lever + "” moves " + param.label() + " now; from where to where stands below.");
        return true;
    }
}
