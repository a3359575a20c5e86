package harpel.app;

import harpel.piece.Piece;
import java.io.IOException;
import java.lang.management.ManagementFactory;
import java.nio.file.Path;
import java.util.List;
import javafx.animation.AnimationTimer;
import javafx.animation.KeyFrame;
import javafx.animation.PauseTransition;
import javafx.animation.Timeline;
import javafx.application.Application;
import javafx.application.Platform;
import javafx.embed.swing.SwingFXUtils;
import javafx.scene.Scene;
import javafx.scene.text.Font;
import javafx.stage.Stage;
import javafx.util.Duration;
import javax.imageio.ImageIO;

/** The application: one window with one piece. Options: a file to open, --demo, --night, --shot FILE. */
public final class HarpelApp extends Application {
    private static final double WIDTH = 1280;
    private static final double HEIGHT = 800;
    private static final double SHOT_AFTER_BARS = 4.2;

    private Session session;
    private HarpelPane pane;
    private Autosave autosave;

    @Override
    public void start(Stage stage) {
        loadFonts();
        List<String> words = getParameters().getRaw();
        String shot = after(words, "--shot");
        String problem = openNamed(words, shot);
        pane = new HarpelPane(session);
        Scene scene = new Scene(pane, WIDTH, HEIGHT);
        stage.setScene(scene);
        stage.setMinWidth(1000);
        stage.setMinHeight(660);
        Files files = new Files(session, stage);
        pane.setActions(files);
        stage.titleProperty().bind(javafx.beans.binding.Bindings.createStringBinding(
                () -> (session.unsaved().get() ? "• " : "") + session.piece().get().name() + " – Harpel",
                session.unsaved(),
                session.piece()));
        stage.setOnCloseRequest(event -> {
            if (!files.mayLeave()) {
                event.consume();
            } else {
                autosave.forget();
            }
        });
        stage.focusedProperty().addListener((property, before, now) -> {
            if (!now) {
                pane.releaseKeys();
            }
        });
        keepUnsavedWork(shot != null);
        if (words.contains("--night")) {
            session.theme().set(Theme.NIGHT);
        }
        stage.show();
        pane.requestFocus();
        boolean exitAtFirstFrame = words.contains("--exit-at-first-frame");
        new AnimationTimer() {
            private int frames;

            @Override
            public void handle(long now) {
                pane.draw(System.nanoTime());
                if (exitAtFirstFrame && frames++ == 1) {
                    long began = ManagementFactory.getRuntimeMXBean().getStartTime();
                    System.out.println("first frame after " + (System.currentTimeMillis() - began) + " ms");
                    Platform.exit();
                }
            }
        }.start();
        session.openDevices();
        if (problem != null) {
            session.say(problem);
        }
        if (words.contains("--demo")) {
            startDemo();
        }
        if (shot != null) {
            shootLater(scene, Path.of(shot));
        }
    }

    static void loadFonts() {
        for (String name : List.of("Lato-Regular", "Lato-Bold", "Lato-Semibold", "Vollkorn-SemiBold", "Vollkorn-Italic")) {
            Font.loadFont(HarpelApp.class.getResourceAsStream("fonts/" + name + ".ttf"), 12);
        }
    }

    private static String after(List<String> words, String option) {
        int place = words.indexOf(option);
        return place >= 0 && place + 1 < words.size() ? words.get(place + 1) : null;
    }

    /** Starts with the piece named on the command line, or an empty one; what went wrong, or null. */
    private String openNamed(List<String> words, String shot) {
        for (String word : words) {
            if (!word.startsWith("--") && !word.equals(shot)) {
                try {
                    session = Session.opening(Path.of(word));
                    return null;
                } catch (IOException | IllegalArgumentException e) {
                    session = new Session(Piece.empty());
                    return word + ": " + e.getMessage();
                }
            }
        }
        session = new Session(Piece.empty());
        return null;
    }

    private void keepUnsavedWork(boolean shooting) {
        String home = System.getProperty("harpel.home", Path.of(System.getProperty("user.home"), ".harpel").toString());
        autosave = new Autosave(session, Path.of(home));
        if (shooting) {
            return;
        }
        autosave.leftOver().ifPresent(piece -> {
            session.replace(piece, "Bring back unsaved work");
            session.say("Work that was not saved last time is back. Ctrl+Z leaves it out.");
        });
        Timeline timer = new Timeline(new KeyFrame(Duration.seconds(2), event -> autosave.keep()));
        timer.setCycleCount(Timeline.INDEFINITE);
        timer.play();
    }

    private void startDemo() {
        var stages = session.part().chain().stages();
        if (!stages.isEmpty()) {
            StageActions.select(session, List.of(), stages.get(0).id());
        }
        session.play();
    }

    private void shootLater(Scene scene, Path target) {
        double seconds = session.piece().get().time().tempo().nanosAt(
                        (long) (SHOT_AFTER_BARS * session.piece().get().time().meter().at(0).barTicks()))
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
        session.close();
    }
}
