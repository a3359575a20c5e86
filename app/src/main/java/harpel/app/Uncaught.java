package harpel.app;

import harpel.app.look.Messages;
import harpel.app.session.Session;
import harpel.app.ui.Asking;
import java.io.PrintWriter;
import java.io.StringWriter;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.function.Consumer;
import javafx.application.Platform;
import javafx.scene.control.Alert;
import javafx.scene.control.ButtonType;
import javafx.scene.control.TextArea;
import javafx.stage.Window;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * Takes what nobody caught, on whichever thread: it goes to the log, and the foot of the window says calmly that Harpel goes on, with the
 * details one click away. What comes from the same place again, as with each frame, is neither logged nor said anew for a while.
 */
final class Uncaught implements Thread.UncaughtExceptionHandler {
    private static final long AGAIN_NANOS = 60_000_000_000L;
    private static final int MOST_PLACES = 100;

    private final Messages messages;
    /** When each kind of fault came last, by what it is and where. */
    private final Map<String, Long> came = Collections.synchronizedMap(new LinkedHashMap<>() {
        @Override
        protected boolean removeEldestEntry(Map.Entry<String, Long> eldest) {
            return size() > MOST_PLACES;
        }
    });

    /** Shows them. */
    private final Consumer<String> details;

    private Uncaught(Messages messages, Consumer<String> details) {
        this.messages = messages;
        this.details = details;
    }

    /** From now on for every thread that has nobody else, over a window. */
    static void takeAll(Session session, Window window) {
        Thread.setDefaultUncaughtExceptionHandler(new Uncaught(session.messages(), text -> {
            Alert sheet = Asking.sheet(window, session.look().styles(), "What went wrong", "", ButtonType.CLOSE);
            TextArea area = new TextArea(text);
            area.setId("details");
            area.setEditable(false);
            sheet.getDialogPane().setContent(area);
            sheet.show();
        }));
    }

    @Override
    public void uncaughtException(Thread thread, Throwable thrown) {
        try {
            StackTraceElement[] trace = thrown.getStackTrace();
            String place = thrown.getClass().getName() + (trace.length == 0 ? "" : " at " + trace[0]);
            long now = System.nanoTime();
            Long before = came.put(place, now);
            if (before != null && now - before < AGAIN_NANOS) {
                return;
            }
            log().error("nobody caught this on {}", thread.getName(), thrown);
            Platform.runLater(() -> messages.offer(
                    "Something went wrong, and Harpel goes on.",
                    "details",
                    () -> details.accept(words(thread, thrown))));
        } catch (Throwable again) {
            // Without memory, or behind the window's end: there is nothing left to say it with.
            System.err.println("harpel: " + thrown);
        }
    }

    private static String words(Thread thread, Throwable thrown) {
        StringWriter text = new StringWriter();
        thrown.printStackTrace(new PrintWriter(text));
        return "On " + thread.getName() + ". All of it is in "
                + LogSetup.folder().resolve(LogSetup.FILE) + "\n\n" + text;
    }

    private static Logger log() {
        return LoggerFactory.getLogger(Uncaught.class);
    }
}
