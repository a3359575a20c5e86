package harpel.app.chain;

import harpel.app.document.Selection;
import harpel.app.look.Look;
import harpel.app.look.Messages;
import harpel.app.ui.Buttons;
import harpel.app.ui.Menus;
import harpel.app.ui.Space;
import harpel.chain.Stage;
import harpel.chain.StageAddress;
import harpel.effect.EffectKind;
import harpel.format.AtomicFile;
import harpel.format.Presets;
import harpel.format.Presets.Preset;
import harpel.param.ParamSet;
import harpel.script.Script;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.CustomMenuItem;
import javafx.scene.control.Label;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.control.SeparatorMenuItem;
import javafx.scene.control.TextInputDialog;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;

/** The presets of one effect, or of whole chains; choosing one is heard at once, also while it plays. */
public final class PresetMenu {
    private PresetMenu() {}

    /** The presets of the stage's kind, to choose from or to go through one by one. */
    public static HBox ofStage(Selection selection, Look look, Messages messages, StageAddress address, Stage stage) {
        Button back = Buttons.button(
                "‹", "preset-back", "The preset before, heard at once", () -> step(selection, messages, address, -1));
        Button forth = Buttons.button(
                "›", "preset-next", "The next preset, heard at once", () -> step(selection, messages, address, 1));
        back.setAccessibleText("The preset before");
        forth.setAccessibleText("The next preset");
        HBox row = new HBox(Space.TIGHT, menuOfStage(selection, look, messages, address, stage), back, forth);
        row.setAlignment(Pos.CENTER_LEFT);
        return row;
    }

    /** Gives a stage the settings of a preset, heard at once; one undo. */
    public static void use(Selection selection, StageAddress address, Preset preset) {
        selection.editStage("Preset " + preset.name(), "", address, before -> taken(before, preset.stage()));
    }

    /** Goes to another preset of a stage's kind; one undo takes all steps back. */
    private static void step(Selection selection, Messages messages, StageAddress address, int by) {
        Stage now = selection.stage(address).orElseThrow();
        List<Preset> presets = Presets.with(Presets.userFolder()).of(now.kind());
        if (presets.isEmpty()) {
            messages.say(now.kind().words().label() + " has no presets yet.");
            return;
        }
        int at = -1;
        for (int i = 0; i < presets.size(); i++) {
            at = taken(now, presets.get(i).stage()).equals(now) ? i : at;
        }
        // From settings of one's own it goes to the first or the last.
        int from = at < 0 && by < 0 ? 0 : at;
        Preset preset = presets.get(Math.floorMod(from + by, presets.size()));
        selection.editStage(
                "Preset " + preset.name(), address + " presets", address, before -> taken(before, preset.stage()));
        messages.say("“" + preset.name() + "”: " + preset.does());
    }

    private static MenuButton menuOfStage(
            Selection selection, Look look, Messages messages, StageAddress address, Stage stage) {
        String words = stage.kind() instanceof Script ? "Examples" : "Presets";
        String tip = "Settings with a name; what you choose is heard at once and can be undone";
        return Menus.button(words, "presets", tip, button -> {
            Presets presets = Presets.with(Presets.userFolder());
            presets.problems().forEach(messages::say);
            button.getItems()
                    .setAll(presets.of(stage.kind()).stream()
                            .map(preset -> item(preset, () -> use(selection, address, preset)))
                            .toList());
            MenuItem save = new MenuItem("Save as a preset…");
            save.setOnAction(saving -> selection.stage(address).ifPresent(now -> save(look, messages, now)));
            button.getItems().addAll(new SeparatorMenuItem(), save);
        });
    }

    /** The stage in its place with the settings, movers and branches of a preset; its name, channel and switch stay. */
    private static Stage taken(Stage before, Stage preset) {
        ParamSet own = before.params();
        ParamSet params = preset.params()
                .with(EffectKind.LABEL, own.get(EffectKind.LABEL))
                .with(EffectKind.CHANNEL, own.get(EffectKind.CHANNEL))
                .with(EffectKind.ON, own.get(EffectKind.ON));
        return before.withParams(params).withMoves(preset.moves()).withBranches(preset.branches());
    }

    /** Presets of whole chains, in place of the shown part's. */
    static MenuButton ofChains(Selection selection, Messages messages) {
        String tip = "Ready chains; one takes the place of this part's chain and can be undone";
        MenuButton menu = Menus.button("Chains", "chain-presets", tip, button -> {
            Presets presets = Presets.with(Presets.userFolder());
            presets.problems().forEach(messages::say);
            button.getItems()
                    .setAll(presets.chains().stream()
                            .map(preset -> item(preset, () -> {
                                selection.selected().set(null);
                                selection.edit("Chain " + preset.name(), "", List.of(), before -> preset.chain());
                            }))
                            .toList());
        });
        menu.setMinWidth(Region.USE_PREF_SIZE);
        return menu;
    }

    private static MenuItem item(Preset preset, Runnable choose) {
        Label name = new Label(preset.name());
        Label does = new Label(preset.does());
        does.getStyleClass().add("soft");
        CustomMenuItem item = new CustomMenuItem(new VBox(0, name, does));
        item.setText(preset.name());
        item.setOnAction(event -> choose.run());
        return item;
    }

    private static void save(Look look, Messages messages, Stage stage) {
        TextInputDialog dialog = new TextInputDialog(stage.name());
        dialog.setTitle("Save as a preset");
        dialog.setHeaderText(
                "A name for these settings of " + stage.kind().words().label());
        dialog.setGraphic(null);
        dialog.getDialogPane().getStylesheets().setAll(look.styles());
        Optional<String> name = dialog.showAndWait();
        if (name.isEmpty() || name.get().isBlank()) {
            return;
        }
        try {
            messages.say("Saved “" + name.get() + "” in " + keep(Presets.userFolder(), name.get(), stage));
        } catch (IOException | IllegalArgumentException e) {
            messages.say("The preset could not be saved: " + e.getMessage());
        }
    }

    /** Adds a preset to the user's own file and says which that is. */
    public static Path keep(Path folder, String name, Stage stage) throws IOException {
        Path file = folder.resolve("my-presets.json");
        // What a newer version wrote is left as it is.
        for (int i = 2; Files.exists(file) && Presets.isNewer(Files.readAllBytes(file)); i++) {
            file = folder.resolve("my-presets-" + i + ".json");
        }
        List<Preset> presets = new ArrayList<>();
        if (Files.exists(file)) {
            presets.addAll(Presets.read(Files.readAllBytes(file)));
        }
        presets.removeIf(one ->
                !one.wholeChain() && one.name().equals(name) && one.stage().kind() == stage.kind());
        presets.add(new Preset(name, "One of your own.", harpel.chain.Chain.EMPTY.plus(0, stage), false));
        Files.createDirectories(folder);
        AtomicFile.write(file, Presets.write(presets).getBytes(StandardCharsets.UTF_8));
        return file;
    }
}
