package harpel.app.editor;

import harpel.app.document.Document;
import harpel.app.document.Selection;
import harpel.app.transport.Transport;
import harpel.app.ui.Buttons;
import harpel.app.ui.Space;
import harpel.chain.Stage;
import harpel.chain.StageAddress;
import harpel.offline.Trial;
import harpel.piece.Piece;
import harpel.script.Script;
import java.time.Duration;
import java.util.Collection;
import java.util.Collections;
import java.util.List;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import javafx.application.Platform;
import javafx.css.PseudoClass;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import org.fxmisc.flowless.VirtualizedScrollPane;
import org.fxmisc.richtext.CodeArea;
import org.fxmisc.richtext.LineNumberFactory;
import org.fxmisc.richtext.model.StyleSpans;
import org.fxmisc.richtext.model.StyleSpansBuilder;

/** Edits a script: its text with words told apart, what is wrong with it, and what it says while it plays. */
public final class ScriptEditor extends VBox {
    private static final PseudoClass WRONG = PseudoClass.getPseudoClass("wrong");
    private static final Duration PAUSE = Duration.ofMillis(400);
    private static final Pattern LINE = Pattern.compile("^line (\\d+)");
    private static final Pattern WORDS = Pattern.compile("(?<comment>//[^\\n]*|/\\*(?s:.*?)\\*/)"
            + "|(?<text>\"(?:[^\"\\\\\\n]|\\\\.)*\"|'(?:[^'\\\\\\n]|\\\\.)*'|`(?:[^`\\\\]|\\\\.)*`)"
            + "|\\b(?<keyword>const|let|var|function|return|if|else|for|while|do|of|in|new|true|false|null|switch|case|break|continue"
            + "|default|yield|try|catch|finally|throw|typeof)\\b"
            + "|\\b(?<ours>onNote|onRelease|onStep|onController|onStop|play|stop|held|every|control|random|now|inKey|shift|keyRoot|chord"
            + "|numeral|spread|pitch|noteName|frequency|controller|log)(?=\\s*\\()"
            + "|\\b(?<number>\\d+(?:\\.\\d+)?)\\b");

    private final Document document;
    private final Selection selection;
    private final Transport transport;
    private final CodeArea area = new CodeArea();
    private final Label problem = new Label();
    private final Label said = new Label();
    private final Label tried = new Label();
    /** Tries scripts, those of all editors. */
    private static final ExecutorService TRIALS = Executors.newSingleThreadExecutor(work -> {
        Thread thread = new Thread(work, "harpel-trial");
        thread.setDaemon(true);
        thread.setPriority(Thread.MIN_PRIORITY);
        return thread;
    });

    private Future<?> trial = CompletableFuture.completedFuture(null);
    private Stage triedStage;
    private StageAddress address;
    private boolean showing;
    private int wrongLine = -1;
    private long saidCount = -1;

    public ScriptEditor(Document document, Selection selection, Transport transport) {
        super(Space.TIGHT);
        this.document = document;
        this.selection = selection;
        this.transport = transport;
        area.setId("code");
        area.getStyleClass().add("code");
        area.setAccessibleText("Script");
        area.setParagraphGraphicFactory(LineNumberFactory.get(area));
        area.setPrefHeight(280);
        area.setWrapText(true);
        area.multiPlainChanges().subscribe(change -> area.setStyleSpans(0, highlight(area.getText())));
        area.multiPlainChanges().successionEnds(PAUSE).subscribe(change -> take());
        area.focusedProperty().addListener((property, before, now) -> {
            if (!now) {
                take();
                document.endGesture();
            }
        });
        problem.setId("script-problem");
        problem.getStyleClass().add("problem");
        problem.setWrapText(true);
        problem.setMinHeight(Region.USE_PREF_SIZE);
        said.setId("script-said");
        said.getStyleClass().add("code-said");
        said.setWrapText(true);
        said.setMinHeight(Region.USE_PREF_SIZE);
        Button clear = Buttons.button(
                "clear",
                "clear-said",
                "Forget what the script has said",
                () -> transport.traces().sayings().forget(address.toString()));
        Label says = new Label("Says");
        says.getStyleClass().add("tile-name");
        Region space = new Region();
        HBox.setHgrow(space, Priority.ALWAYS);
        VirtualizedScrollPane<CodeArea> scroll = new VirtualizedScrollPane<>(area);
        scroll.setPrefHeight(280);
        VBox.setVgrow(scroll, Priority.ALWAYS);
        tried.setId("script-tried");
        tried.getStyleClass().add("code-said");
        tried.setWrapText(true);
        tried.setMinHeight(Region.USE_PREF_SIZE);
        Label triedHead = new Label("Tried with three notes");
        triedHead.getStyleClass().add("tile-name");
        getChildren().addAll(scroll, problem, triedHead, tried, new HBox(Space.CLOSE, says, space, clear), said);
    }

    private static StyleSpans<Collection<String>> highlight(String text) {
        StyleSpansBuilder<Collection<String>> spans = new StyleSpansBuilder<>();
        Matcher matcher = WORDS.matcher(text);
        int end = 0;
        while (matcher.find()) {
            String style = List.of("comment", "text", "keyword", "ours", "number").stream()
                    .filter(name -> matcher.group(name) != null)
                    .findFirst()
                    .orElseThrow();
            spans.add(Collections.emptyList(), matcher.start() - end);
            spans.add(List.of("code-" + style), matcher.end() - matcher.start());
            end = matcher.end();
        }
        spans.add(Collections.emptyList(), text.length() - end);
        return spans.create();
    }

    public void show(StageAddress newAddress, Stage stage) {
        boolean other = !newAddress.equals(address);
        address = newAddress;
        String code = stage.params().get(Script.CODE);
        if (other || !area.isFocused() && !area.getText().equals(code)) {
            showing = true;
            area.replaceText(code);
            area.getUndoManager().forgetHistory();
            area.moveTo(0);
            area.requestFollowCaret();
            showing = false;
        }
        showProblem(Script.problem(code));
        if (stage != triedStage) {
            triedStage = stage;
            tryOut(stage);
        }
    }

    /** Shows what the script makes of three notes, as soon as that is known. */
    private void tryOut(Stage stage) {
        trial.cancel(true);
        Piece piece = document.piece().get();
        trial = TRIALS.submit(() -> {
            try {
                List<String> lines = Trial.of(piece, stage);
                Platform.runLater(() -> {
                    if (stage == triedStage) {
                        tried.setText(String.join("\n", lines));
                    }
                });
            } catch (InterruptedException e) {
                // Another text is tried by now.
                Thread.currentThread().interrupt();
            }
        });
    }

    private void showProblem(String text) {
        problem.setText(text);
        problem.setManaged(!text.isEmpty());
        problem.setVisible(!text.isEmpty());
        if (wrongLine >= 0 && wrongLine < area.getParagraphs().size()) {
            area.setParagraphStyle(wrongLine, List.of());
        }
        Matcher matcher = LINE.matcher(text);
        wrongLine = matcher.find() ? Integer.parseInt(matcher.group(1)) - 1 : -1;
        if (wrongLine >= 0 && wrongLine < area.getParagraphs().size()) {
            area.setParagraphStyle(wrongLine, List.of("code-wrong"));
        }
        area.pseudoClassStateChanged(WRONG, !text.isEmpty());
    }

    /** Hands the text over; a script with an error leaves the last good one playing. */
    private void take() {
        StageAddress target = address;
        String code = area.getText();
        boolean known = selection
                .stage(target)
                .filter(stage -> stage.isKnown() && stage.params().spec().has(Script.CODE))
                .filter(stage -> !stage.params().get(Script.CODE).equals(code))
                .isPresent();
        if (!showing && known) {
            selection.editStage("Edit script", target + " code", target, stage -> stage.with(Script.CODE, code));
        }
    }

    /** Shows what has been said since. */
    public void draw() {
        long count = transport.traces().sayings().count();
        if (address != null && count != saidCount) {
            saidCount = count;
            List<String> lines = transport.traces().sayings().of(address.toString());
            said.setText(String.join("\n", lines.subList(Math.max(0, lines.size() - 6), lines.size())));
        }
    }
}
