package harpel.app;

import harpel.app.chain.StageActions;
import harpel.app.document.Autosave;
import harpel.app.document.Document;
import harpel.app.file.FileAsk;
import harpel.app.look.Theme;
import harpel.app.look.ToolkitStyles;
import harpel.app.session.Session;
import harpel.app.session.ShortMemory;
import harpel.format.AtomicFile;
import harpel.piece.Piece;
import harpel.theory.OctaveNaming;
import java.io.IOException;
import java.lang.management.ManagementFactory;
import java.nio.file.Path;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.CompletableFuture;
import javafx.animation.PauseTransition;
import javafx.application.Application;
import javafx.application.Platform;
import javafx.beans.Observable;
import javafx.embed.swing.SwingFXUtils;
import javafx.geometry.Dimension2D;
import javafx.scene.Scene;
import javafx.scene.text.Font;
import javafx.stage.Stage;
import javafx.util.Duration;
import javax.imageio.ImageIO;
import org.kordamp.ikonli.feather.Feather;
import org.kordamp.ikonli.javafx.FontIcon;

/** The application: one window with one piece. Options: a file to open, --demo, --night, --phrase, --timeline, --play, --shot FILE, --window WIDTHxHEIGHT, and for a picture --size PERCENT and --bars COUNT. */
public final class HarpelApp extends Application {
    private static final long JUST_MADE_SECONDS = 10;
    private static final double SHOT_AFTER_BARS = 4.2;

    private CompletableFuture<Void> fonts;
    private Session session;
    private HarpelPane pane;
    private Autosave autosave;
    private Settings settings;
    private WindowPlace place;
    private static final Duration PLACED_BY_THEN = Duration.millis(250);
    private Frames frames;
    private ShortMemory shortMemory;
    private int drawn;

    /** What the window needs and the piece does not is made ready while the piece is read: the toolkit's styles, and fonts. */
    @Override
    public void init() {
        ToolkitStyles.use();
        fonts = CompletableFuture.runAsync(HarpelApp::loadFonts);
    }

    @Override
    public void start(Stage stage) {
        Launcher.drawBehindNotes();
        List<String> words = getParameters().getRaw();
        String shot = Launcher.after(words, "--shot");
        Optional<Session> opened = Launcher.session();
        session = opened.orElseGet(() -> new Session(Piece.empty()));
        Uncaught.takeAll(session, stage);
        pane = new HarpelPane(session);
        Dimension2D size = Launcher.window(words);
        Scene scene = SizedRoot.scene(session, pane, size.getWidth(), size.getHeight());
        stage.setScene(scene);
        stage.setMinWidth(Launcher.LEAST_WIDTH);
        stage.setMinHeight(Launcher.LEAST_HEIGHT);
        Path home = Path.of(System.getProperty(
                "harpel.home",
                Path.of(System.getProperty("user.home"), ".harpel").toString()));
        settings = new Settings(home);
        Files files = new Files(
                session,
                stage,
                new FileAsk(
                        stage,
                        session.look()::styles,
                        settings,
                        session.document().file()::get));
        files.recentBy(settings::recent);
        session.document().file().addListener((property, before, now) -> keepRecent(now));
        keepRecent(session.document().file().get());
        pane.setActions(files);
        session.printing()
                .openFoldersBy(
                        folder -> getHostServices().showDocument(folder.toUri().toString()));
        stage.titleProperty()
                .bind(javafx.beans.binding.Bindings.createStringBinding(
                        () -> title(session.document()),
                        session.document().unsaved(),
                        session.document().piece(),
                        session.document().file()));
        stage.setOnCloseRequest(event -> {
            // It goes when it is saved or given up, which may take a while.
            event.consume();
            files.leaving(() -> {
                autosave.forget();
                stage.hide();
            });
        });
        stage.focusedProperty().addListener((property, before, now) -> {
            if (!now) {
                pane.releaseKeys();
            }
        });
        keepUnsavedWork(home, shot != null);
        OctaveNaming.show(settings.octaves());
        session.look().theme().set(shot == null ? settings.theme() : Theme.DAY);
        session.look().size().set(shot == null ? settings.size() : Launcher.size(words));
        if (shot == null) {
            session.deviceDesk().take(settings.devices());
            session.controller().readMaps(home.resolve("maps"));
            session.deviceDesk()
                    .changes()
                    .addListener((property, before, now) ->
                            settings.keep(session.deviceDesk().kept()));
        }
        if (shot == null
                && opened.isPresent()
                && settings.isFirstStart()
                && session.document().file().get() == null) {
            pane.showFirstPage(files);
        }
        if (words.contains("--night")) {
            session.look().theme().set(Theme.NIGHT);
        }
        fonts.join();
        place = WindowPlace.inTheMiddle(size.getWidth(), size.getHeight());
        if (shot == null) {
            if (!words.contains("--window")) {
                place = settings.place().orElse(place);
            }
            settings.folds().forEach(session.look()::wish);
            place.place(stage);
            WindowPlace wanted = place;
            // A window manager may give a window another place and size than it was shown with.
            PauseTransition placed = new PauseTransition(PLACED_BY_THEN);
            placed.setOnFinished(event -> wanted.place(stage));
            placed.play();
        }
        stage.show();
        for (Observable one : List.of(
                stage.xProperty(),
                stage.yProperty(),
                stage.widthProperty(),
                stage.heightProperty(),
                stage.maximizedProperty())) {
            one.addListener(property -> place = WindowPlace.of(stage, place));
        }
        pane.requestFocus();
        boolean exitAtFirstFrame = words.contains("--exit-at-first-frame");
        frames = new Frames(session, nanos -> {
            pane.draw(nanos);
            drawn++;
            if (drawn == 2) {
                if (exitAtFirstFrame) {
                    // Read first: what says when the process began takes a while itself.
                    long now = System.currentTimeMillis();
                    long began = ManagementFactory.getRuntimeMXBean().getStartTime();
                    System.out.println("first frame after " + (now - began) + " ms");
                    Platform.exit();
                    return;
                }
                session.transport().start();
                // A picture is taken in silence, also of a piece that would play the devices of this machine.
                if (shot == null) {
                    session.transport().openDevices();
                }
                autosave.start();
                if (opened.isEmpty()) {
                    files.open(Launcher.file(words), Launcher::read);
                }
                sweep();
                shortMemory = ShortMemory.of(session);
                if (words.contains("--demo")) {
                    startDemo();
                }
            }
        });
        frames.start(scene);
        if (words.contains("--phrase")) {
            session.look().view().set(harpel.app.look.Look.View.PHRASE);
        }
        if (words.contains("--play")) {
            session.look().view().set(harpel.app.look.Look.View.PLAY);
        }
        if (words.contains("--timeline")) {
            session.look().view().set(harpel.app.look.Look.View.TIMELINE);
        }
        if (shot != null) {
            shootLater(scene, Path.of(shot), Launcher.bars(words, SHOT_AFTER_BARS));
        }
    }

    private void keepRecent(Path file) {
        if (file != null && !getParameters().getRaw().contains("--shot")) {
            settings.keepRecent(file);
        }
    }

    /** The piece's name, a mark for what is not saved, and where its file is. */
    static String title(Document document) {
        Path file = document.file().get();
        Path folder = file == null ? null : file.toAbsolutePath().getParent();
        return (document.unsaved().get() ? "• " : "")
                + document.piece().get().name()
                + (file == null ? "" : " – " + file.getFileName() + " in " + folder)
                + " – Harpel";
    }

    /** Removes what a killed window has left of files it was writing; a disk may take long over that. */
    private void sweep() {
        Set<Path> folders = settings.folders();
        Instant before = Instant.now().minusSeconds(JUST_MADE_SECONDS);
        Thread sweeping = new Thread(() -> folders.forEach(folder -> AtomicFile.sweep(folder, before)), "harpel-sweep");
        sweeping.setDaemon(true);
        sweeping.start();
    }

    static void loadFonts() {
        // The font of the icons comes with the first of them.
        new FontIcon(Feather.PLAY);
        for (String name : List.of(
                "Lato-Regular",
                "Lato-Bold",
                "Lato-Semibold",
                "Vollkorn-SemiBold",
                "Vollkorn-Italic",
                "FiraCode-Regular")) {
            Font.loadFont(HarpelApp.class.getResourceAsStream("fonts/" + name + ".ttf"), 12);
        }
    }

    private void keepUnsavedWork(Path home, boolean shooting) {
        autosave = new Autosave(session.document(), session.messages(), home);
        if (shooting) {
            return;
        }
        autosave.leftOver().ifPresent(left -> {
            if (left.fileChanged() == null) {
                session.bringBack(left.piece());
                session.say("Work that was not saved last time is back. Ctrl+Z leaves it out.");
            } else {
                session.messages()
                        .offer(
                                "Someone changed this file at " + clock(left.fileChanged())
                                        + ". There is unsaved work on it from " + clock(left.changed()) + ".",
                                "take the unsaved work",
                                () -> take(left));
            }
        });
    }

    /** The time of day, with the date where that is not today. */
    private static String clock(Instant moment) {
        LocalDateTime at = LocalDateTime.ofInstant(moment, ZoneId.systemDefault());
        boolean today = at.toLocalDate().equals(LocalDate.now());
        return at.format(DateTimeFormatter.ofPattern(today ? "HH:mm" : "yyyy-MM-dd HH:mm"));
    }

    private void take(Autosave.LeftOver left) {
        try {
            session.document().askBeforeSaving();
            autosave.takeUp(left);
            session.bringBack(left.piece());
            session.say("Work that was not saved is back. Ctrl+Z gives what the file has.");
        } catch (IOException e) {
            session.say(e.getMessage());
        }
    }

    private void startDemo() {
        var stages = session.selection().part().chain().stages();
        if (!stages.isEmpty()) {
            StageActions.select(session.selection(), List.of(), stages.get(0).id());
        }
        session.transport().play();
    }

    private void shootLater(Scene scene, Path target, double bars) {
        double seconds = session.document().piece().get().time().tempo().nanosAt((long) (bars
                        * session.document().piece().get().time().meter().at(0).barTicks()))
                / 1e9;
        PauseTransition wait = new PauseTransition(Duration.seconds(seconds));
        wait.setOnFinished(event -> {
            try {
                ImageIO.write(SwingFXUtils.fromFXImage(scene.snapshot(null), null), "png", target.toFile());
            } catch (IOException e) {
                System.err.println("harpel: " + target + ": " + e.getMessage());
            }
            Platform.exit();
        });
        wait.play();
    }

    @Override
    public void stop() {
        if (!getParameters().getRaw().contains("--shot")) {
            settings.keep(place, session.look().wished());
            settings.keep(
                    session.look().theme().get(),
                    OctaveNaming.shown(),
                    session.look().size().get());
        }
        frames.close();
        if (shortMemory != null) {
            shortMemory.close();
        }
        autosave.close();
        session.close();
    }
}
