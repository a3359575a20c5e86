package harpel.app;

import harpel.app.session.Places;
import harpel.app.session.Session;
import harpel.app.session.TraceStore;
import harpel.chain.StageAddress;
import harpel.device.RecordingPort;
import harpel.event.NoteStart;
import harpel.param.Param;
import harpel.testkit.Wire;
import java.util.List;
import java.util.concurrent.Callable;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import javafx.geometry.Bounds;
import javafx.geometry.Point2D;
import javafx.scene.Node;
import javafx.scene.control.Labeled;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.stage.Stage;
import org.junit.jupiter.api.AfterEach;
import org.testfx.framework.junit5.ApplicationTest;
import org.testfx.util.WaitForAsyncUtils;

/** A real window with one piece, driven as a hand would. */
abstract class WindowCase extends ApplicationTest {
    Session session;
    RecordingPort sent;
    HarpelPane pane;

    /** The parts of the piece, as they stand in its file. */
    abstract String parts();

    /** The levers of the piece, in the same form. */
    String levers() {
        return "{'name':'Tide','value':0}";
    }

    @Override
    public void start(Stage stage) {
        HarpelApp.loadFonts();
        session = new Session(WindowTest.piece("{\"harpel\":1,\"piece\":\"Test\",\"key\":\"C major\",\"levers\":["
                + levers().replace('\'', '"') + "]," + "\"parts\":[" + parts().replace('\'', '"') + "]}"));
        sent = session.transport().record();
        pane = WindowTest.show(stage, session);
    }

    @AfterEach
    void end() {
        WindowTest.closeFrames();
        session.close();
    }

    static void await(Callable<Boolean> condition) {
        try {
            WaitForAsyncUtils.waitFor(10, TimeUnit.SECONDS, condition);
        } catch (TimeoutException e) {
            throw new AssertionError("it did not happen within 10 s", e);
        }
    }

    List<byte[]> messages() {
        return sent.sent().stream().map(RecordingPort.Sent::message).toList();
    }

    List<String> starts() {
        return Wire.starts(messages());
    }

    /** Selects a stage of the shown part. */
    void select(String id) {
        interact(() -> session.selection()
                .selected()
                .set(StageAddress.parse(session.selection().partId().get() + "/" + id)));
        WaitForAsyncUtils.waitForFxEvents();
    }

    <T> T value(String stage, Param<T> param) {
        return session.selection()
                .part()
                .chain()
                .find(stage)
                .orElseThrow()
                .params()
                .get(param);
    }

    /** Gives the keyboard to a node without pressing it. */
    void focus(String node) {
        // A menu that has just closed gives the keyboard back a little later.
        WaitForAsyncUtils.waitForFxEvents();
        await(() -> {
            interact(() -> lookup(node).query().requestFocus());
            WaitForAsyncUtils.waitForFxEvents();
            return onFx(() -> lookup(node).query().isFocused());
        });
    }

    /** A place on a node, as shares of its width from the left and of its height from the bottom. */
    Point2D on(String node, double across, double up) {
        Node found = lookup(node).query();
        Bounds bounds = found.localToScreen(found.getBoundsInLocal());
        return new Point2D(bounds.getMinX() + across * bounds.getWidth(), bounds.getMaxY() - up * bounds.getHeight());
    }

    void drag(Point2D from, Point2D to) {
        drag(from);
        moveTo(from.midpoint(to));
        moveTo(to);
        drop();
        WaitForAsyncUtils.waitForFxEvents();
    }

    String text(String label) {
        return lookup(label).queryAs(Labeled.class).getText();
    }

    /** Opens a menu and chooses the item of that id or text. */
    void choose(String button, String item) {
        MenuButton menu = lookup(button).queryAs(MenuButton.class);
        interact(menu::show);
        MenuItem found = menu.getItems().stream()
                .filter(one -> item.equals(one.getId()) || item.equals(one.getText()))
                .findFirst()
                .orElseThrow(() -> new AssertionError("no " + item + " in " + menu.getItems()));
        interact(() -> {
            menu.hide();
            found.fire();
        });
    }

    /** Plays a note and waits until it has been taken note of. */
    NoteStart play(int pitch, int velocity) {
        interact(() -> session.transport().press(pitch, velocity));
        await(() -> onFx(() -> !session.transport()
                .traces()
                .notes(Places.input(session.selection().partId().get()))
                .isEmpty()));
        interact(() -> session.transport().release(pitch));
        List<TraceStore.Drawn> notes = session.transport()
                .traces()
                .notes(Places.input(session.selection().partId().get()));
        return notes.get(notes.size() - 1).note;
    }

    static <T> T onFx(Callable<T> question) {
        return WaitForAsyncUtils.waitForAsyncFx(10_000, question);
    }
}
