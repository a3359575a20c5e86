package harpel.app.session;

import harpel.app.desk.Keeping;
import harpel.app.desk.PhraseDesk;
import harpel.app.desk.Printing;
import harpel.app.desk.Recorder;
import harpel.app.desk.TimelineDesk;
import harpel.app.desk.TimelineMade;
import harpel.app.desk.VariationSheet;
import harpel.app.desk.WhySilent;
import harpel.app.document.Change;
import harpel.app.document.Document;
import harpel.app.document.Selection;
import harpel.app.look.Look;
import harpel.app.look.Messages;
import harpel.app.perform.ControllerDesk;
import harpel.app.perform.LeverWiring;
import harpel.app.perform.Performing;
import harpel.app.perform.Writing;
import harpel.app.transport.Audition;
import harpel.app.transport.DeviceDesk;
import harpel.app.transport.Made;
import harpel.app.transport.Sounds;
import harpel.app.transport.Transport;
import harpel.capture.Heard;
import harpel.chain.Stage;
import harpel.chain.StageAddress;
import harpel.device.JavaDevices;
import harpel.device.MachineDevices;
import harpel.device.SimulatedMachine;
import harpel.engine.LiveStatus;
import harpel.piece.Lane;
import harpel.piece.Part;
import harpel.piece.Piece;
import harpel.piece.Routes;
import harpel.piece.perform.Lever;
import harpel.port.Ports;
import harpel.run.Told;
import harpel.script.Script;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.LongSupplier;
import java.util.stream.Stream;

/** What one window works with: the document, the transport that plays it, the selection and the look; it only joins them. */
public final class Session implements AutoCloseable {
    /** What was heard is kept of so many pieces that are not open any more. */
    private static final int MOST_MEMORIES = 2;

    private final Messages messages = new Messages();
    private final Document document;
    private final Selection selection;
    private final Look look = new Look(messages);
    private final Transport transport;
    private final LeverWiring levers;
    private final PhraseDesk desk;
    private final Made made = new Made();
    private final Keeping keeping;
    private final Recorder recorder;
    private final Printing printing;
    private final WhySilent whySilent;
    private final Audition audition;
    private final VariationSheet variations;
    private final Sounds sounds;
    private final TimelineDesk timeline;
    private final TimelineMade timelineMade;
    private final Writing writing;
    private final Performing performing;
    private final DeviceDesk deviceDesk;
    private final ControllerDesk controller;
    private final SimulatedMachine simulated = new SimulatedMachine();
    /** What was heard of pieces that are not open any more, the last ones. */
    private final Map<Object, Heard.Memory> memories = new LinkedHashMap<>();
    /** The piece that is heard now. */
    private Object heardOf;

    public Session(Piece piece) {
        this(piece, new Ports(), new JavaDevices(), System::nanoTime);
    }

    /**
     * @param ports the ways out
     * @param machine the MIDI devices there are
     * @param clock as {@link System#nanoTime}
     */
    public Session(Piece piece, Ports ports, MachineDevices machine, LongSupplier clock) {
        document = new Document(piece, messages);
        selection = new Selection(document);
        transport = new Transport(document.piece().get(), ports, both(machine), clock, messages);
        levers = new LeverWiring(document, selection, transport, messages);
        desk = new PhraseDesk(document, selection, messages);
        keeping = new Keeping(document, selection, transport, desk, messages);
        recorder = new Recorder(document, selection, transport, desk, keeping, messages);
        printing = new Printing(document, selection, desk, messages);
        whySilent = new WhySilent(document, selection, transport, messages);
        audition = new Audition(transport);
        sounds = new Sounds(document, transport, messages);
        timeline = new TimelineDesk(document, selection, look, transport, desk, messages);
        variations = new VariationSheet(document, selection, look, audition, timeline, printing, messages);
        timelineMade = new TimelineMade(document, printing);
        writing = new Writing(document, transport, timeline, messages);
        performing = new Performing(document, transport, levers, timeline, writing, messages);
        deviceDesk = new DeviceDesk(transport, messages);
        controller = new ControllerDesk(document, selection, transport, performing, messages);
        heardOf = document.life();
        document.onOther(this::beginAnew);
        document.onChange(change -> {
            performing.give(change.after());
            transport.sound().parts(change.after());
            controller.moved(change.before(), change.after());
            outdate(change);
            forgetSaid(change);
        });
        transport.traces().sayings().onComplaint(this::tell);
        selection.partId().addListener((property, before, now) -> {
            transport.player().keysTo(now);
            transport.traces().look(now);
        });
        transport.traces().look(selection.partId().get());
        transport
                .dry()
                .addListener((property, before, now) ->
                        transport.player().hearDry(selection.partId().get(), now));
    }

    private MachineDevices both(MachineDevices machine) {
        return () -> Stream.concat(machine.found().stream(), simulated.found().stream())
                .toList();
    }

    /** A session that begins with the piece of a file. */
    public static Session of(Document.Opened opened) {
        Session session = new Session(opened.piece());
        session.document.begin(opened);
        return session;
    }

    public Document document() {
        return document;
    }

    public Selection selection() {
        return selection;
    }

    public Look look() {
        return look;
    }

    public Transport transport() {
        return transport;
    }

    /** What levers wait for: a controller, or a control to move. */
    public LeverWiring levers() {
        return levers;
    }

    /** The phrase that is worked on. */
    public PhraseDesk desk() {
        return desk;
    }

    public Recorder recorder() {
        return recorder;
    }

    /** Keeping what was heard. */
    public Keeping keeping() {
        return keeping;
    }

    /** What is heard in place without being in the piece. */
    public Audition audition() {
        return audition;
    }

    public VariationSheet variations() {
        return variations;
    }

    /** What is worked on in the timeline. */
    public TimelineDesk timeline() {
        return timeline;
    }

    /** The controller that is in hand. */
    public ControllerDesk controller() {
        return controller;
    }

    /** Simulated devices, beside those of the machine. */
    public SimulatedMachine simulated() {
        return simulated;
    }

    /** How the MIDI devices are used, and the clock. */
    public DeviceDesk deviceDesk() {
        return deviceDesk;
    }

    /** What is done on stage. */
    public Performing performing() {
        return performing;
    }

    /** Writing what is done onto the timeline. */
    public Writing writing() {
        return writing;
    }

    /** What parts send along the timeline. */
    public TimelineMade timelineMade() {
        return timelineMade;
    }

    /** What stands in for the built-in sounds. */
    public Sounds sounds() {
        return sounds;
    }

    public Printing printing() {
        return printing;
    }

    public WhySilent whySilent() {
        return whySilent;
    }

    /** What a chain makes of a phrase. */
    public Made made() {
        return made;
    }

    public Messages messages() {
        return messages;
    }

    /** One line at the foot of the window. */
    public void say(String text) {
        messages.say(text);
    }

    /** A complaint is said wherever one is, with the way to its stage. */
    private void tell(Told.Said said) {
        if (!StageAddress.isOne(said.place())) {
            return;
        }
        StageAddress address = StageAddress.parse(said.place());
        selection
                .stage(address)
                .ifPresent(stage -> messages.offer(
                        document.piece()
                                        .get()
                                        .part(address.part())
                                        .map(Part::name)
                                        .orElse("") + ", " + stage.name() + ": " + said.text(),
                        "details",
                        () -> {
                            look.view().set(Look.View.CHAIN);
                            selection.selected().set(address);
                            look.large().set(true);
                        }));
    }

    /** What a script has said belongs to its text. */
    private void forgetSaid(Change change) {
        for (Part part : change.after().parts()) {
            Part old = change.before().part(part.id()).orElse(part);
            if (old != part && old.chain() != part.chain()) {
                Lane.eachStage(part.id(), List.of(), part.chain(), (address, stage) -> {
                    boolean same = !stage.isKnown()
                            || !stage.params().spec().has(Script.CODE)
                            || old.chain()
                                    .at(address)
                                    .filter(Stage::isKnown)
                                    .filter(before -> before.params().spec().has(Script.CODE))
                                    .filter(before -> before.params()
                                            .get(Script.CODE)
                                            .equals(stage.params().get(Script.CODE)))
                                    .isPresent();
                    if (!same) {
                        transport.traces().sayings().forget(address.toString());
                    }
                });
            }
        }
    }

    /** While time stands nothing would take the place of what was heard before the edit. */
    private void outdate(Change change) {
        if (transport.status().mode() == LiveStatus.Mode.STOPPED) {
            Piece before = change.before();
            Piece after = change.after();
            boolean all = !before.key().equals(after.key())
                    || before.variation() != after.variation()
                    || !before.time().equals(after.time());
            Piece still = withoutLeversThatMoved(before, after);
            Routes routes = Routes.of(after);
            Set<String> others = new LinkedHashSet<>();
            for (Part part : after.parts()) {
                boolean same = before.part(part.id())
                        .filter(old -> old == part || old.chain().equals(part.chain()))
                        .filter(old -> before.phrase(old.phrase()).orElse(null)
                                == after.phrase(part.phrase()).orElse(null))
                        .filter(old -> still.part(part.id())
                                .filter(one -> one.rack().equals(part.rack()))
                                .isPresent())
                        .isPresent();
                if (all || !same) {
                    others.add(part.id());
                    others.addAll(routes.fedBy(part.id()));
                }
            }
            others.forEach(transport.traces()::outdate);
        }
    }

    /** With nothing that follows a lever that stands elsewhere now: what is another there follows one. */
    private static Piece withoutLeversThatMoved(Piece before, Piece after) {
        Piece still = after;
        for (int i = after.levers().size() - 1; i >= 0; i--) {
            Lever lever = after.levers().get(i);
            boolean moved = before.levers().stream()
                    .anyMatch(old -> old.name().equals(lever.name()) && old.value() != lever.value());
            still = moved ? still.withoutLever(i) : still;
        }
        return still;
    }

    /** Ends everything that sounds, goes to the start and forgets what was shown and said. */
    private void beginAnew() {
        variations.leaveSheet();
        desk.making().set(false);
        writing.forget();
        performing.forget();
        audition.end();
        transport.player().silence();
        transport.sound().ease();
        transport.toStart();
        transport.traces().forget();
        turnToWhatWasHeard();
        messages.say("");
        selection.selected().set(null);
    }

    /** What was heard of a piece goes with it, and comes back where opening another is undone. */
    private void turnToWhatWasHeard() {
        Heard.Memory memory = memories.getOrDefault(document.life(), new Heard.Memory());
        memories.put(heardOf, transport.heard().turnTo(memory));
        heardOf = document.life();
        memories.remove(heardOf);
        memories.keySet().removeIf(oldest -> memories.size() > MOST_MEMORIES);
    }

    /** Puts another piece, which is no file yet, in place of this one. */
    public void replace(Piece opened, String label) {
        document.other(opened, label);
    }

    /** Opens a piece in place of this one. */
    public void open(Document.Opened opened) {
        document.open(opened);
    }

    /** Puts work that was not saved in the place of what the file has. */
    public void bringBack(Piece unsaved) {
        beginAnew();
        document.replace(unsaved, "Bring back unsaved work");
    }

    @Override
    public void close() {
        controller.close();
        made.close();
        printing.close();
        sounds.close();
        transport.close();
    }
}
