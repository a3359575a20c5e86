package harpel.app;

import harpel.app.chain.ChainView;
import harpel.app.chain.EffectMenu;
import harpel.app.chain.StageActions;
import harpel.app.chain.TimeWindow;
import harpel.app.desk.OwnPhrases;
import harpel.app.document.Document;
import harpel.app.help.HelpSheet;
import harpel.app.help.Topics;
import harpel.app.help.Topics.Topic;
import harpel.app.inspector.Inspector;
import harpel.app.line.DoLine;
import harpel.app.line.Doable;
import harpel.app.line.Doables;
import harpel.app.line.KeysSheet;
import harpel.app.look.Look.Fold;
import harpel.app.look.Look.View;
import harpel.app.parts.PartActions;
import harpel.app.phrase.PhraseActions;
import harpel.app.session.Session;
import harpel.app.ui.Menus;
import harpel.make.TestPhrases;
import harpel.phrase.Phrase;
import harpel.piece.Part;
import harpel.piece.Piece;
import harpel.piece.PieceEdit;
import harpel.theory.Key;
import harpel.theory.OctaveNaming;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.function.BooleanSupplier;
import javafx.scene.Node;
import javafx.scene.control.Menu;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.control.SeparatorMenuItem;

/** Every action of the window with its words and its keys, and the menu of the piece. */
final class WindowActions {
    private static final int DRUM_CHANNEL = 9;

    private final Session session;
    private final Actions actions;
    private final MenuButton menu;
    private final Files files;
    private final ChainView chain;
    private final Inspector inspector;
    private final HarpelPane pane;
    private DoLine line;

    private WindowActions(HarpelPane pane, MenuButton menu, Inspector inspector, Files files) {
        this.session = pane.session();
        this.actions = pane.actions();
        this.chain = pane.chain();
        this.pane = pane;
        this.menu = menu;
        this.inspector = inspector;
        this.files = files;
    }

    /** Declares every action and fills the menu. */
    static void declare(HarpelPane pane, MenuButton menu, Inspector inspector, Files files) {
        new WindowActions(pane, menu, inspector, files).declare();
    }

    private void declare() {
        TimeWindow window = chain.window();
        Document document = session.document();
        BooleanSupplier stage = () -> session.selection().selected().get() != null;
        BooleanSupplier parts = () -> document.piece().get().parts().size() > 1;
        inMenu("new", "New piece", "Shortcut+N", files::newPiece);
        inMenu("open", "Open…", "Shortcut+O", files::open);
        Menu recent = new Menu("Open again");
        recent.setId("recent");
        Menu examples = new Menu("Examples");
        examples.setId("examples");
        Files.EXAMPLES.forEach((name, words) ->
                examples.getItems().add(Menus.item(words, "example-" + name, () -> files.openExample(name))));
        menu.getItems().addAll(recent, examples);
        inMenu("open-midi", "Open a MIDI file as a piece…", "Shortcut+Alt+O", files::openMidi);
        inMenu("save", "Save", "Shortcut+S", files::save);
        inMenu("save-as", "Save as…", "Shortcut+Shift+S", files::saveAs);
        line();
        inMenu("read-phrase", "Read a phrase from a MIDI file…", "Shortcut+I", files::openPhrase);
        Menu tests = new Menu("Send a test phrase through the chain");
        tests.setId("test-phrases");
        menu.setOnShowing(event -> {
            fillTests(tests, files);
            fillRecent(recent);
            actions.refresh();
        });
        menu.getItems().add(tests);
        inMenu("print", "Print the part through its chain", "Shortcut+P", files::print);
        inMenu("print-sheet", "Print parts, bars or variations…", "Shortcut+Alt+P", files::printSheet);
        inMenu("variations", "Variations of the part…", "Shortcut+Shift+V", session.variations()::toggleSheet);
        inMenu("export", "Export a MIDI file or sound file…", "Shortcut+Shift+E", files::export);
        line();
        inMenu("open-chain", "Open chain…", "Shortcut+Shift+O", files::openChain);
        inMenu("save-chain", "Save chain…", "Shortcut+Shift+P", files::saveChain);
        line();
        inMenu("choose-sounds", "Sounds from a SoundFont or DLS file…", "Shortcut+Alt+S", files::chooseSounds);
        inMenu(
                "built-in-sounds",
                "Built-in sounds again",
                "Shortcut+Alt+B",
                () -> !document.piece().get().sounds().isEmpty(),
                session.sounds()::builtIn);
        line();
        inMenu(
                "devices",
                "MIDI devices and clock…",
                "Shortcut+5",
                () -> session.look().view().set(View.DEVICES));
        inMenu("octaves", "Call note 60 C3, or C4 again", "Shortcut+Shift+C", this::otherOctaves);
        inMenu("larger", "Larger", "Shortcut+Shift+Equals", () -> session.look().resize(1));
        inMenu(
                "smaller",
                "Smaller",
                "Shortcut+Shift+Minus",
                () -> session.look().resize(-1));
        line();
        inMenu("first-steps", "First steps", "Shift+F1", () -> pane.showFirstPage(files));
        inMenu("help", "Help for what has the keyboard", "Shortcut+F1", this::help);
        inMenu("keys", "Keys and actions", "F1", this::showKeys);
        action(
                "view-chain",
                "The Chain view",
                "Shortcut+1",
                () -> session.look().view().set(View.CHAIN));
        action(
                "view-phrase",
                "The Phrase view",
                "Shortcut+2",
                () -> session.look().view().set(View.PHRASE));
        action(
                "view-timeline",
                "The Timeline view",
                "Shortcut+3",
                () -> session.look().view().set(View.TIMELINE));
        action(
                "view-play",
                "The Play view",
                "Shortcut+4",
                () -> session.look().view().set(View.PLAY));
        action(
                "metronome",
                "Metronome on or off",
                "Shortcut+Shift+J",
                () -> session.recorder()
                        .metronome()
                        .set(!session.recorder().metronome().get()));
        action(
                "nudge-earlier",
                "Time 10 ms earlier",
                "Shortcut+Comma",
                () -> session.deviceDesk().nudge(false));
        action(
                "nudge-later",
                "Time 10 ms later",
                "Shortcut+Period",
                () -> session.deviceDesk().nudge(true));
        action("tap", "Tap the tempo", "Shortcut+Shift+T", session.performing()::tap);
        action(
                "add-part",
                "Add a part",
                "Shortcut+Shift+N",
                () -> PartActions.add(session.document(), session.selection()));
        action(
                "duplicate-part",
                "Duplicate the part",
                "Shortcut+Shift+D",
                () -> PartActions.duplicate(session.document(), session.selection(), session.messages()));
        actions.add(
                "delete-part",
                "Delete the part",
                "Shortcut+Shift+Delete",
                parts,
                () -> PartActions.delete(session.document(), session.selection(), session.messages()));
        actions.add("undo", "Undo", "Shortcut+Z", () -> document.undoLabel().isPresent(), document::undo);
        actions.add(
                "redo", "Redo", "Shortcut+Shift+Z", () -> document.redoLabel().isPresent(), document::redo);
        actions.add("redo-too", "Redo", "Shortcut+Y", () -> document.redoLabel().isPresent(), document::redo);
        actions.add(
                "do-offered",
                "Do what is offered at the foot",
                "Shortcut+Enter",
                () -> session.messages().offered().get() != null,
                session.messages()::doOffered);
        action("to-start", "To the start", "Home", session.transport()::toStart);
        action("silence", "Silence; first it leaves what lies over the rows", "Esc", pane::escape);
        action(
                "next-area",
                "To the next area of the window: rows, controls, foot, top, parts",
                "F6",
                () -> pane.goRound(1));
        action("area-before", "To the area before", "Shift+F6", () -> pane.goRound(-1));
        actions.in(View.CHAIN);
        action("add-effect", "Add an effect after the selected stage", "Shortcut+E", this::addEffect);
        action(
                "copy",
                "Copy the selected stage, or the chain, as text",
                "Shortcut+C",
                () -> StageActions.copy(session.selection(), session.messages()));
        action(
                "paste",
                "Paste stages behind the selected one",
                "Shortcut+V",
                () -> StageActions.paste(session.selection(), session.messages()));
        actions.add(
                "replace",
                "Replace the selected stage",
                "Shortcut+R",
                stage,
                () -> StageActions.replace(session.selection(), session.look(), chain));
        actions.add(
                "fold",
                "Fold or unfold the selected stage",
                "Shortcut+F",
                stage,
                () -> StageActions.fold(session.selection(), session.look()));
        actions.add("large", "Open the stage’s editor large, or bring it back", "F7", inspector::hasEditor, () -> {
            session.look().routes().set(false);
            session.look().large().set(!session.look().large().get());
        });
        action(
                "routes",
                "Who hears whom: all routes, or the rows again",
                "F8",
                () -> session.look().routes().set(!session.look().routes().get()));
        actions.in(null);
        for (Fold fold : Fold.values()) {
            action(
                    "fold-" + fold.name().toLowerCase(Locale.ROOT),
                    "Show or fold away " + fold.words(),
                    fold.key(),
                    () -> session.look().toggle(fold));
        }
        action("record", "Record the chosen part, or end", "Shortcut+Shift+R", session.recorder()::toggle);
        action("write", "Write what you do onto the timeline, or end", "Shortcut+Alt+W", session.writing()::toggle);
        action(
                "phrase-to-timeline",
                "The phrase goes onto the timeline, where now is",
                "Shortcut+Alt+T",
                session.timeline()::putShown);
        action(
                "keep",
                "Keep the marked bars, or the last ones, as a phrase",
                "Shortcut+Alt+K",
                session.keeping()::keep);
        line = new DoLine(
                session.look(),
                new Doables(
                        session.document(),
                        session.selection(),
                        session.look(),
                        session.desk(),
                        session.sounds(),
                        this::doables,
                        (address, id) -> {
                            pane.openControls();
                            inspector.focusControl(id);
                        })::found);
        pane.setLine(line);
        action(
                "do",
                "One line for everything: type what you want",
                "Shortcut+K",
                () -> line.toggle(pane.getScene().getWindow()));
        action("keep-chords", "Keep a phrase for each chord", "Shortcut+Shift+K", session.keeping()::keepByChords);
        action("why-nothing", "Why do I hear nothing of this part?", "Shortcut+Shift+H", session.whySilent()::ask);
        action("hear-other", "Hear the other chain, A or B", "F2", session.selection()::hearOther);
        action("chain-off", "Whole chain off or on", "Shortcut+Shift+B", session.selection()::switchChain);
        actions.in(View.CHAIN);
        action("freeze", "Freeze the traces, or let them go on", "F4", () -> window.freeze(!window.isFrozen()));
        action("bar-back", "Go a bar back in the traces", "Alt+Left", () -> window.back(1));
        action("bar-forth", "Go a bar forth in the traces", "Alt+Right", () -> window.back(-1));
        action("fewer-bars", "Show fewer bars", "Shortcut+Equals", () -> window.zoomTime(1 / TimeWindow.ZOOM));
        action("more-bars", "Show more bars", "Shortcut+Minus", () -> window.zoomTime(TimeWindow.ZOOM));
        action("fewer-pitches", "Show fewer pitches", "Alt+Equals", () -> window.zoomPitch(TimeWindow.ZOOM));
        action("more-pitches", "Show more pitches", "Alt+Minus", () -> window.zoomPitch(1 / TimeWindow.ZOOM));
        action("zoom-reset", "Show bars and pitches as at first", "Shortcut+0", window::reset);
        action("difference", "The selected stage’s difference", "Shortcut+J", chain::toggleDifference);
        actions.add(
                "duplicate-stage",
                "Duplicate the selected stage",
                "Shortcut+D",
                stage,
                () -> StageActions.duplicate(session.selection()));
        actions.add(
                "remove-stage",
                "Remove the selected stage",
                "Shortcut+Delete",
                stage,
                () -> StageActions.remove(session.selection()));
        actions.add(
                "switch-stage",
                "Switch the selected stage off or on",
                "Shortcut+B",
                stage,
                () -> StageActions.toggle(session.selection()));
        actions.add(
                "stage-up",
                "Move the selected stage up",
                "Shortcut+Up",
                stage,
                () -> StageActions.move(session.selection(), -1));
        actions.add(
                "stage-down",
                "Move the selected stage down",
                "Shortcut+Down",
                stage,
                () -> StageActions.move(session.selection(), 1));
        action("select-above", "Select the stage above", "Alt+Up", () -> StageActions.step(session.selection(), -1));
        action("select-below", "Select the stage below", "Alt+Down", () -> StageActions.step(session.selection(), 1));
        actions.in(View.PHRASE);
        action(
                "copy-notes",
                "Copy the picked notes, or all, as text",
                "Shortcut+C",
                () -> PhraseActions.copy(session.desk(), session.messages()));
        action(
                "cut-notes",
                "Cut the picked notes",
                "Shortcut+X",
                () -> PhraseActions.cut(session.desk(), session.messages()));
        action(
                "paste-notes",
                "Paste notes at the mark",
                "Shortcut+V",
                () -> PhraseActions.paste(session.desk(), session.messages()));
        action("pick-all", "Pick all notes", "Shortcut+A", () -> PhraseActions.pickAll(session.desk()));
        action(
                "draw-or-pick",
                "Draw notes, or pick them",
                "Shortcut+D",
                () -> session.desk().drawing().set(!session.desk().drawing().get()));
        action(
                "step-in",
                "Step in what is played, or no longer",
                "Shortcut+E",
                () -> session.desk().stepping().set(!session.desk().stepping().get()));
        action(
                "make-phrase",
                "Make a melody, chords or a rhythm, or no longer",
                "Shortcut+Shift+M",
                () -> session.desk().making().set(!session.desk().making().get()));
        action(
                "cut-at-mark",
                "Cut notes at the mark",
                "Shortcut+M",
                () -> pane.phrases().cutAtMark());
        action(
                "less-time",
                "Show less time",
                "Shortcut+Equals",
                () -> pane.phrases().zoom(true));
        action(
                "more-time",
                "Show more time",
                "Shortcut+Minus",
                () -> pane.phrases().zoom(false));
        action(
                "fewer-pitches-of-roll",
                "Show fewer pitches",
                "Alt+Equals",
                () -> pane.phrases().zoomPitch(true));
        action(
                "more-pitches-of-roll",
                "Show more pitches",
                "Alt+Minus",
                () -> pane.phrases().zoomPitch(false));
        action(
                "fit-phrase",
                "Show the whole phrase",
                "Shortcut+0",
                () -> pane.phrases().fit());
        actions.in(View.TIMELINE);
        action("pick-all-blocks", "Pick all blocks", "Shortcut+A", session.timeline()::pickAll);
        action(
                "next-mark",
                "To the next mark",
                "Shortcut+Page Down",
                () -> pane.timeline().toMark(1));
        action(
                "mark-before",
                "To the mark before",
                "Shortcut+Page Up",
                () -> pane.timeline().toMark(-1));
        action(
                "timeline-less-time",
                "Show less time",
                "Shortcut+Equals",
                () -> pane.timeline().zoom(true));
        action(
                "timeline-more-time",
                "Show more time",
                "Shortcut+Minus",
                () -> pane.timeline().zoom(false));
        action(
                "fit-timeline",
                "Show the whole timeline",
                "Shortcut+0",
                () -> pane.timeline().fit());
        actions.in(null);
        action(
                "new-phrase",
                "A new phrase",
                "Shortcut+Alt+N",
                () -> PhraseActions.fresh(session.document(), session.selection(), session.desk(), session.messages()));
        action(
                "duplicate-phrase",
                "Duplicate the phrase",
                "Shortcut+Alt+D",
                () -> PhraseActions.duplicate(
                        session.document(),
                        session.desk(),
                        session.desk().phraseId().get()));
        action(
                "hear-phrase",
                "The chosen part hears the phrase",
                "Shortcut+Alt+H",
                () -> PhraseActions.hear(
                        session.document(),
                        session.selection(),
                        session.desk(),
                        session.messages(),
                        session.desk().phraseId().get()));
        action(
                "theme",
                "Day or night",
                "Shortcut+T",
                () -> session.look().theme().set(session.look().theme().get().other()));
    }

    private Actions.Action action(String id, String words, String key, Runnable run) {
        return actions.add(id, words, key, () -> true, run);
    }

    private void inMenu(String id, String words, String key, Runnable run) {
        menu.getItems().add(actions.item(action(id, words, key, run)));
    }

    private void inMenu(String id, String words, String key, BooleanSupplier enabled, Runnable run) {
        menu.getItems().add(actions.item(actions.add(id, words, key, enabled, run)));
    }

    private void line() {
        menu.getItems().add(new SeparatorMenuItem());
    }

    private void fillRecent(Menu recent) {
        recent.getItems().clear();
        files.recent()
                .forEach(path -> recent.getItems()
                        .add(Menus.item(
                                path.getFileName() + "  in " + path.getParent(),
                                "recent-" + recent.getItems().size(),
                                () -> files.leaving(() -> files.open(path)))));
        if (recent.getItems().isEmpty()) {
            MenuItem none = new MenuItem("No file was opened or saved yet");
            none.setDisable(true);
            recent.getItems().add(none);
        }
    }

    private void fillTests(Menu tests, Files files) {
        tests.getItems().clear();
        for (Phrase phrase : TestPhrases.all(Key.C_MAJOR, harpel.time.MeterMap.FOUR_FOUR)) {
            MenuItem item = new MenuItem(phrase.name().replace("Test: ", ""));
            item.setOnAction(event -> hearTestPhrase(phrase.name()));
            tests.getItems().add(item);
        }
        tests.getItems().add(new SeparatorMenuItem());
        for (String name : OwnPhrases.names(OwnPhrases.folder())) {
            MenuItem item = new MenuItem(name);
            item.setOnAction(event -> files.hearOwnPhrase(name));
            tests.getItems().add(item);
        }
        MenuItem keep = new MenuItem("Keep this part’s phrase as a test phrase");
        keep.setId("keep-test-phrase");
        keep.setOnAction(event -> files.keepTestPhrase());
        tests.getItems().add(keep);
    }

    /** The shown part hears a test phrase, in the piece's own key and meter, and the transport plays it. */
    private void hearTestPhrase(String name) {
        Piece now = session.document().piece().get();
        Phrase phrase = TestPhrases.all(now.key(), now.time().meter()).stream()
                .filter(one -> one.name().equals(name))
                .findFirst()
                .orElseThrow();
        String id = session.selection().partId().get();
        session.document()
                .apply(PieceEdit.of(
                        "Hear " + name,
                        // Heard over and over, as loops.
                        piece -> piece.withTimeline(false).withPhrase(phrase).withPart(id, part -> {
                            Part hears = part.withPhrase(phrase.id());
                            // Drums are on channel 10 (General MIDI 1).
                            return name.equals(TestPhrases.DRUMS)
                                    ? hears.withChannel(DRUM_CHANNEL).withSound("Hand drums")
                                    : hears;
                        })));
        session.transport().play();
    }

    private void otherOctaves() {
        OctaveNaming other = OctaveNaming.shown() == OctaveNaming.C4 ? OctaveNaming.C3 : OctaveNaming.C4;
        OctaveNaming.show(other);
        session.say("Note 60 is called " + other + " on the screen; files keep to C4.");
    }

    private void help() {
        View view = session.look().view().get();
        Node owner = pane.getScene().getFocusOwner();
        Topic topic = Topics.at(owner, view);
        // In the Chain view it is the effect one asks about, but for what has a page of its own.
        boolean effect = view == View.CHAIN
                && topic == Topics.at(null, view)
                && session.selection().selected().get() != null;
        if (effect) {
            inspector.help(pane.getScene().getWindow());
        } else {
            help(topic);
        }
    }

    private void help(Topic topic) {
        HelpSheet.show(pane.getScene().getWindow(), session.look(), topic);
    }

    private void addEffect() {
        EffectMenu.showBehindSelected(chain, session.selection(), session.look());
    }

    /** Those of the window, as the line for everything has them: in their view, with their keys. */
    private List<Doable> doables() {
        List<Doable> all = new ArrayList<>();
        Files.EXAMPLES.forEach(
                (name, words) -> all.add(new Doable("Example " + words, "", () -> files.openExample(name))));
        Topics.all().forEach(topic -> all.add(new Doable("Help: " + topic.title(), "", () -> help(topic))));
        files.recent()
                .forEach(path -> all.add(new Doable(
                        "Open again " + path.getFileName(),
                        "in " + path.getParent(),
                        () -> files.leaving(() -> files.open(path)))));
        actions.all().stream()
                .filter(action -> !action.id().equals("do"))
                .map(action -> new Doable(
                        action.words().replace("…", ""),
                        action.keys(),
                        action.enabled().getAsBoolean()
                                ? () -> {
                                    if (action.here() != null
                                            && session.look().view().get() != action.here()) {
                                        session.look().view().set(action.here());
                                    }
                                    action.run().run();
                                }
                                : null))
                .forEach(all::add);
        return all;
    }

    /** Keys that are no actions: they are held, or belong to what has the keyboard. */
    private static final List<KeysSheet.Line> OTHER_KEYS = List.of(
            new KeysSheet.Line("Space", "Play or stop"),
            new KeysSheet.Line("K", "Keep the marked bars, or the last ones, as a phrase"),
            new KeysSheet.Line("F3", "Hear dry while held"),
            new KeysSheet.Line("Z–M, Q–I", "Play notes; [ and ] shift the octave"),
            new KeysSheet.Line("Enter", "Press the button that has the keyboard; on a stage, go to its controls"),
            new KeysSheet.Line("Delete", "On a stage remove it; on a control bring back its default"),
            new KeysSheet.Line("Arrows", "On a control step its value, with Shift finely; or type a value and Enter"));

    private void showKeys() {
        List<KeysSheet.Section> sections = new ArrayList<>();
        sections.add(new KeysSheet.Section("Everywhere", lines(null, OTHER_KEYS)));
        for (View view : List.of(View.CHAIN, View.PHRASE, View.TIMELINE)) {
            String name = view.name().charAt(0) + view.name().substring(1).toLowerCase(Locale.ROOT);
            sections.add(new KeysSheet.Section("The " + name + " view", lines(view, List.of())));
        }
        KeysSheet.show(pane.getScene().getWindow(), session.look().styles(), sections);
    }

    private List<KeysSheet.Line> lines(View view, List<KeysSheet.Line> before) {
        List<KeysSheet.Line> lines = new ArrayList<>(before);
        actions.all().stream()
                .filter(action -> action.here() == view)
                .forEach(action -> lines.add(new KeysSheet.Line(action.keys(), action.words())));
        return lines;
    }
}
