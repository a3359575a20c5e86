package harpel.app.parts;

import harpel.app.document.Document;
import harpel.app.document.Selection;
import harpel.app.draw.Drawing;
import harpel.app.look.Look;
import harpel.app.look.Theme;
import harpel.app.transport.Transport;
import harpel.app.transport.Words;
import harpel.app.ui.Buttons;
import harpel.app.ui.Space;
import harpel.app.ui.Tips;
import harpel.param.music.RouteType;
import harpel.piece.Part;
import harpel.piece.Piece;
import harpel.piece.Routes;
import java.util.List;
import javafx.geometry.Insets;
import javafx.geometry.Pos;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.control.Label;
import javafx.scene.input.KeyEvent;
import javafx.scene.input.MouseEvent;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;

/** Who hears whom: the parts with what they take notes from at the left and what they sound on at the right, and the ways between them. */
public final class RoutesPage extends VBox {
    private static final double TALL = 420;
    private static final double BOX = 190;
    private static final double BOX_TALL = 34;

    private final Document document;
    private final Selection selection;
    private final Look look;
    private final Transport transport;
    private final Map map;
    private final Label problems = new Label();

    public RoutesPage(Document document, Selection selection, Look look, Transport transport) {
        super(Space.GAP);
        this.document = document;
        this.selection = selection;
        this.look = look;
        this.transport = transport;
        getStyleClass().addAll("inspector", "large-editor");
        setPadding(new Insets(Space.CLOSE, Space.EDGE, Space.ROOM, Space.EDGE));
        Label title = new Label("Routes");
        title.getStyleClass().add("part-title");
        Region space = new Region();
        HBox.setHgrow(space, Priority.ALWAYS);
        HBox head = new HBox(
                Space.GAP,
                title,
                space,
                Buttons.button(
                        "Back to the rows",
                        "close-routes",
                        "Shows the chain again  (F8)",
                        () -> look.routes().set(false)));
        head.setAlignment(Pos.CENTER_LEFT);
        map = new Map(look);
        problems.setId("route-problems");
        problems.setWrapText(true);
        problems.setMinHeight(USE_PREF_SIZE);
        getChildren().addAll(head, map, problems);
        document.piece().addListener((property, before, now) -> show());
        selection.partId().addListener((property, before, now) -> show());
        show();
    }

    private void show() {
        Piece piece = document.piece().get();
        List<String> wrong = Routes.of(piece).problems(transport.outputs());
        problems.setText(
                wrong.isEmpty() ? "Every way leads somewhere, and nothing comes twice." : String.join("\n", wrong));
        problems.getStyleClass().setAll("label", wrong.isEmpty() ? "soft" : "problem");
        map.say();
    }

    /** Draws a frame. */
    public void draw() {
        map.draw();
    }

    private final class Map extends Drawing {
        private Map(Look look) {
            super(look, "routes", TALL);
            addEventHandler(MouseEvent.MOUSE_PRESSED, event -> {
                int row = (int) Math.floor((1 - up(event)) * parts().size());
                choose(row);
                if (event.getClickCount() == 2) {
                    look.routes().set(false);
                }
            });
            Tips.set(
                    this,
                    "Press a part to choose it, twice to see its chain. Up and Down choose, Enter shows.\nRed ways lead nowhere, brass"
                            + " ones bring the same notes twice; dashed ways come from effects that send.");
        }

        private List<Part> parts() {
            return document.piece().get().parts();
        }

        private int chosen() {
            return indexOf(selection.partId().get());
        }

        private int indexOf(String id) {
            return parts().stream().map(Part::id).toList().indexOf(id);
        }

        private void choose(int row) {
            Part part = parts().get((int) clamp(row, 0, parts().size() - 1.0));
            selection.partId().set(part.id());
        }

        void say() {
            Part part = selection.part();
            long to = Routes.of(document.piece().get()).ways().stream()
                    .filter(way -> way.from().equals(part.id()))
                    .count();
            setAccessibleText("Routes. " + part.name() + ": "
                    + Words.takes(document.piece().get(), part) + ", sounds on " + sounds(part)
                    + ", sends to " + to + (to == 1 ? " other." : " others."));
            repaint();
        }

        @Override
        public boolean key(KeyEvent event) {
            switch (event.getCode()) {
                case UP -> choose(chosen() - 1);
                case DOWN -> choose(chosen() + 1);
                case ENTER -> look.routes().set(false);
                default -> {
                    return false;
                }
            }
            return true;
        }

        private String sounds(Part part) {
            return (part.port().isEmpty() ? part.sound() : part.port()) + " · " + (part.channel() + 1);
        }

        @Override
        public void paint(GraphicsContext g, Theme theme, double width, double height) {
            List<Part> parts = parts();
            double row = height / parts.size();
            double left = width * 0.32;
            double right = left + BOX;
            for (int i = 0; i < parts.size(); i++) {
                double y = (i + 0.5) * row;
                Part part = parts.get(i);
                boolean here = i == chosen();
                g.setStroke(faint(theme.ink, 0.5));
                g.strokeLine(left - 26, y, left, y);
                g.strokeLine(right, y, width * 0.78, y);
                arrow(g, left, y, 1);
                arrow(g, width * 0.78, y, 1);
                g.setFill(theme.raised);
                g.fillRect(left, y - BOX_TALL / 2, BOX, BOX_TALL);
                g.setStroke(here ? theme.brassText : theme.rule);
                g.setLineWidth(here ? 2 : 1);
                g.strokeRect(left, y - BOX_TALL / 2, BOX, BOX_TALL);
                g.setLineWidth(1);
                g.setFill(theme.ink);
                g.fillText(part.name() + (part.mix().mute() ? "  (mute)" : ""), left + 10, y + 4, BOX - 20);
                g.setFill(theme.soft);
                // Who sends here is drawn; in words it is told in the rows and on the card.
                Piece piece = document.piece().get();
                String keys = Words.keysElsewhere(piece, part);
                String phrase = piece.phrase(part.phrase())
                        .map(one -> " + “" + one.name() + "”")
                        .orElse("");
                String hears =
                        Words.hears(piece, part.hearing()) + (part.hearing().keysHere() ? " + keys" : "") + phrase;
                double line = keys.isEmpty() ? y + 4 : y - 4;
                g.fillText(hears, 6, line, left - 60);
                g.fillText(keys.strip(), 6, line + 15, left - 60);
                g.fillText(sounds(part), width * 0.78 + 8, y + 4, width * 0.22 - 10);
            }
            paintWays(g, theme, width, row, left, right);
        }

        private void paintWays(GraphicsContext g, Theme theme, double width, double row, double left, double right) {
            Piece piece = document.piece().get();
            Routes routes = Routes.of(piece);
            List<String> outputs = transport.outputs();
            double out = 0;
            for (Routes.Way way : routes.ways()) {
                out += 9;
                int from = indexOf(way.from());
                int to = indexOf(way.to());
                boolean dead = routes.isDead(way, outputs);
                g.setStroke(dead ? theme.red : routes.isDoubled(way) ? theme.brass : theme.blue);
                g.setLineWidth(1.8);
                g.setLineDashes(way.sent() ? new double[] {5, 4} : new double[0]);
                if (from >= 0 && to >= 0) {
                    double y = (from + 0.5) * row;
                    double end = (to + 0.5) * row + 6;
                    double x = right + 12 + out;
                    // Between the rows, over the one it comes to, and in where that takes its notes.
                    double over = to * row + 4 + out / 3;
                    double before = left - 10 - out / 3;
                    g.strokePolyline(
                            new double[] {right, x, x, before, before, left},
                            new double[] {y - 6, y - 6, over, over, end, end},
                            6);
                    g.setLineDashes();
                    arrow(g, left, end, 1);
                } else if (from >= 0) {
                    double y = (from + 0.5) * row + 10;
                    g.strokeLine(right, y, width * 0.74, y);
                    g.setLineDashes();
                    arrow(g, width * 0.74, y, 1);
                    g.setFill(dead ? theme.red : theme.soft);
                    String name = way.to().startsWith(RouteType.OUTPUT)
                            ? "output " + way.to().substring(RouteType.OUTPUT.length())
                            : way.to();
                    g.fillText(name + (dead ? " is not there" : ""), right + 20 + out, y + 13);
                } else if (to >= 0) {
                    double y = (to + 0.5) * row + 10;
                    g.strokeLine(left - 30, y, left, y);
                    g.setLineDashes();
                    g.setFill(theme.red);
                    g.fillText(way.from() + " is not there", left - 150, y + 13);
                }
            }
            g.setLineDashes();
            g.setLineWidth(1);
        }

        private static void arrow(GraphicsContext g, double x, double y, int way) {
            g.strokeLine(x, y, x - way * 6, y - 4);
            g.strokeLine(x, y, x - way * 6, y + 4);
        }
    }
}
