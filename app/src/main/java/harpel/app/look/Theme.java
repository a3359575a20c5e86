package harpel.app.look;

import harpel.app.ui.Type;
import java.nio.charset.StandardCharsets;
import java.util.Base64;
import java.util.List;
import java.util.Locale;
import javafx.scene.paint.Color;

/** The two sets of colour tokens: paper by day, ink by night. Style sheets name the tokens; only here they have values. */
public enum Theme {
    DAY(
            "#F7F2E8", "#EFE7D8", "#FBF8F1", "#D9CDB8", "#1F2933", "#6A6051", "#8A5F1E", "#A9772B", "#B23A2E",
            "#2C5AA0", "#4C7A5B", "#1F2933", "#F7F2E8", "#FFFDF8"),
    NIGHT(
            "#161D26", "#1D2631", "#232D3A", "#39465A", "#EDE6D8", "#A9A292", "#E0B266", "#C8923F", "#E07A6C",
            "#7FA6E0", "#7FB492", "#0F151C", "#EDE6D8", "#D8D2C4");

    /** As style sheets read them. */
    private final String tokens;

    public final Color paper;
    public final Color panel;
    public final Color raised;
    public final Color rule;
    public final Color ink;
    public final Color soft;
    /** Brass dark or light enough to be read as text. */
    public final Color brassText;

    public final Color brass;
    public final Color red;
    public final Color blue;
    public final Color sage;
    public final Color bar;
    public final Color onBar;
    public final Color ivory;

    Theme(
            String paper,
            String panel,
            String raised,
            String rule,
            String ink,
            String soft,
            String brassText,
            String brass,
            String red,
            String blue,
            String sage,
            String bar,
            String onBar,
            String ivory) {
        tokens = token("paper", paper)
                + token("panel", panel)
                + token("raised", raised)
                + token("rule", rule)
                + token("ink", ink)
                + token("soft", soft)
                + token("brass-text", brassText)
                + token("brass", brass)
                + token("red", red)
                + token("blue", blue)
                + token("sage", sage)
                + token("bar", bar)
                + token("on-bar", onBar)
                + token("ivory", ivory);
        this.paper = Color.web(paper);
        this.panel = Color.web(panel);
        this.raised = Color.web(raised);
        this.rule = Color.web(rule);
        this.ink = Color.web(ink);
        this.soft = Color.web(soft);
        this.brassText = Color.web(brassText);
        this.brass = Color.web(brass);
        this.red = Color.web(red);
        this.blue = Color.web(blue);
        this.sage = Color.web(sage);
        this.bar = Color.web(bar);
        this.onBar = Color.web(onBar);
        this.ivory = Color.web(ivory);
    }

    public Theme other() {
        return this == DAY ? NIGHT : DAY;
    }

    /**
     * The style sheets of a scene or dialog in this theme.
     *
     * @param size how much larger menus, tooltips and dialogs are, which stand in windows of their own; 1 as designed
     */
    public List<String> styles(double size) {
        return List.of(Theme.class.getResource("/harpel/app/harpel.bss").toExternalForm(), tokenSheet(size));
    }

    /** What gives the tokens their values. */
    String tokenRule() {
        return ".root {" + tokens + "}";
    }

    /** The tokens as a style sheet of its own, so that menus and other popups know them too. */
    private String tokenSheet(double size) {
        String popups = size == 1
                ? ""
                : String.format(
                        Locale.ROOT,
                        ".context-menu, .tooltip, .dialog-pane { -fx-font-size: %.1fpx; }",
                        Type.TEXT * size);
        String sheet = tokenRule() + popups;
        return "data:text/css;base64," + Base64.getEncoder().encodeToString(sheet.getBytes(StandardCharsets.UTF_8));
    }

    private static String token(String name, String color) {
        return "-hp-" + name + ": " + color + ";";
    }
}
