package harpel.app.transport;

import harpel.app.document.Document;
import harpel.app.look.Messages;
import harpel.device.SoundBank;
import harpel.piece.Instrument;
import harpel.piece.Part;
import harpel.piece.Piece;
import harpel.piece.PieceEdit;
import harpel.piece.Preset;
import harpel.theory.GeneralMidi;
import harpel.theory.Words;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import javafx.application.Platform;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.SimpleObjectProperty;

/**
 * The file of sounds that stands in for the built-in ones of the piece; it is read in the background whenever the piece names another.
 * Interface thread.
 */
public final class Sounds implements AutoCloseable {
    private final Document document;
    private final Transport transport;
    private final Messages messages;
    private final ExecutorService reader = Executors.newSingleThreadExecutor(work -> {
        Thread thread = new Thread(work, "harpel-sounds");
        thread.setDaemon(true);
        return thread;
    });
    private final ObjectProperty<SoundBank> bank = new SimpleObjectProperty<>();
    private String wanted = "";

    public Sounds(Document document, Transport transport, Messages messages) {
        this.document = document;
        this.transport = transport;
        this.messages = messages;
        document.piece().addListener((property, before, now) -> look());
        look();
    }

    /** The file that is in use; null while the built-in sounds are, because none was chosen or it cannot be read. */
    public ObjectProperty<SoundBank> bank() {
        return bank;
    }

    /** Another file for the piece. */
    public void choose(Path path) {
        String name = path.toAbsolutePath().toString();
        document.apply(PieceEdit.of("Sounds of " + path.getFileName(), piece -> piece.withSounds(name)));
    }

    /** The built-in sounds again. Parts keep the names of theirs, should the file come back. */
    public void builtIn() {
        document.apply(PieceEdit.of("Built-in sounds", piece -> piece.withSounds("")));
    }

    /** A sound that can be found: its name, and to which family of General MIDI it belongs. */
    public record Sound(String name, int program) {
        public String family() {
            return GeneralMidi.family(program);
        }
    }

    /** The names a part can choose from at once: the stand-in instruments, what it has, then what the file has. */
    public List<String> names(Part part) {
        Set<String> names = new LinkedHashSet<>();
        Instrument.all().forEach(one -> names.add(one.name()));
        if (part.voice().preset() == null) {
            names.add(part.sound());
        }
        if (bank.get() != null) {
            names.addAll(bank.get().named().keySet());
        }
        return List.copyOf(names);
    }

    /** All sounds there are whose name or family has what was typed, by family; those of the file first. */
    public List<Sound> found(String typed) {
        List<Sound> all = new ArrayList<>();
        if (bank.get() != null) {
            bank.get().named().forEach((name, preset) -> all.add(new Sound(name, preset.program())));
        }
        List<Sound> builtIn = new ArrayList<>();
        Instrument.every().stream()
                .map(one -> new Sound(one.name(), one.program()))
                .filter(one -> all.stream().noneMatch(other -> other.name().equals(one.name())))
                .forEach(builtIn::add);
        builtIn.sort(Comparator.comparingInt(Sound::program));
        all.addAll(builtIn);
        all.removeIf(one -> !Words.finds(typed, one.name() + " " + one.family()));
        return all;
    }

    /**
     * Gives a part the sound of that name; a drum elsewhere than on the channel of drums is offered that.
     *
     * @param gesture what several choices are one undo in; empty for none
     */
    public void choose(String part, String name, String gesture) {
        document.apply(new PieceEdit("Choose sound", gesture, piece -> piece.withPart(part, one -> with(one, name))));
        document.piece()
                .get()
                .part(part)
                .filter(one -> one.channel() != GeneralMidi.PERCUSSION_CHANNEL
                        && one.voice().preset() == null)
                .filter(one -> GeneralMidi.isDrum(one.voice().played().program()))
                .ifPresent(one -> messages.offer(
                        name + " is one drum at every pitch. On channel 10 each key is a drum of its own.",
                        "use channel 10",
                        () -> document.apply(PieceEdit.of(
                                "Choose channel",
                                piece -> piece.withPart(
                                        part, drums -> drums.withChannel(GeneralMidi.PERCUSSION_CHANNEL))))));
    }

    /** A part with the sound of that name. */
    private Part with(Part part, String name) {
        Preset preset = bank.get() == null ? null : bank.get().named().get(name);
        return part.withVoice(part.voice().withSound(name).withPreset(preset));
    }

    private void look() {
        Piece piece = document.piece().get();
        if (piece.sounds().equals(wanted)) {
            return;
        }
        wanted = piece.sounds();
        if (wanted.isEmpty()) {
            take(null, "");
            return;
        }
        Path file = document.file().get();
        Path path = file == null ? Path.of(wanted) : file.toAbsolutePath().resolveSibling(wanted);
        String asked = wanted;
        reader.execute(() -> {
            try {
                SoundBank read = SoundBank.read(path);
                Platform.runLater(() -> found(asked, read, ""));
            } catch (IOException e) {
                Platform.runLater(() -> found(asked, null, e.getMessage()));
            }
        });
    }

    private void found(String asked, SoundBank read, String problem) {
        if (asked.equals(wanted)) {
            take(
                    read,
                    read == null
                            ? "The piece’s sounds cannot be used, the built-in ones play instead: " + problem
                            : "Sounds of " + read.path().getFileName() + ": "
                                    + read.named().size() + ". " + inPlace(read));
        }
    }

    /** Names the parts whose sound the file does not have. */
    private String inPlace(SoundBank read) {
        List<String> missing = document.piece().get().parts().stream()
                .filter(part -> part.voice().preset() != null
                        && !read.named().containsValue(part.voice().preset()))
                .map(part -> part.name() + " plays a built-in sound, for it has no “" + part.sound() + "”.")
                .toList();
        return missing.isEmpty() ? "Parts choose among them." : String.join(" ", missing);
    }

    private void take(SoundBank newBank, String words) {
        bank.set(newBank);
        if (!words.isEmpty()) {
            messages.say(words);
        }
        reader.execute(() -> {
            try {
                transport.useSounds(newBank);
            } catch (IOException e) {
                Platform.runLater(() -> messages.say("The built-in sounds play instead: " + e.getMessage()));
            }
        });
    }

    @Override
    public void close() {
        reader.shutdownNow();
    }
}
