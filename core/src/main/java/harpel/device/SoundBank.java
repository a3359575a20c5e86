package harpel.device;

import harpel.piece.Preset;
import java.io.IOException;
import java.io.InputStream;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import javax.sound.midi.Instrument;
import javax.sound.midi.InvalidMidiDataException;
import javax.sound.midi.MidiSystem;
import javax.sound.midi.Soundbank;
import javax.sound.midi.Synthesizer;

/**
 * The sounds of a SoundFont 2 or DLS file. In the software synthesizer each stands in the place of the built-in one with its bank and
 * program; the other built-in ones stay.
 */
public final class SoundBank {
    private static final String NO_BANK = ": this is neither a SoundFont 2 nor a DLS file";
    /** RIFF, a length, and what it holds: {@code sfbk} (SoundFont 2.04) or {@code DLS } (DLS Level 1). */
    private static final int HEAD = 12;
    /** What stands before that which the length counts. */
    private static final int RIFF_BEGINS = 8;

    private final Path path;
    private final Soundbank sounds;
    private final Map<String, Preset> named = new LinkedHashMap<>();

    private SoundBank(Path path, Soundbank sounds) {
        this.path = path;
        this.sounds = sounds;
        for (Instrument instrument : sounds.getInstruments()) {
            named.putIfAbsent(instrument.getName().strip(), preset(instrument));
        }
    }

    /** @throws IOException when it is not there or is no such file; it names the file */
    public static SoundBank read(Path path) throws IOException {
        try (InputStream in = Files.newInputStream(path)) {
            // The platform's readers take much else for a sound.
            byte[] bytes = in.readNBytes(HEAD);
            String head = new String(bytes, StandardCharsets.ISO_8859_1);
            if (!head.matches("(?s)RIFF....(sfbk|DLS )")) {
                throw new IOException(path + NO_BANK);
            }
            long told = Integer.toUnsignedLong(
                    ByteBuffer.wrap(bytes).order(ByteOrder.LITTLE_ENDIAN).getInt(4));
            if (told + RIFF_BEGINS > Files.size(path)) {
                throw new IOException(path + ": this file is not whole: it says that it has " + (told + RIFF_BEGINS)
                        + " bytes, but it has " + Files.size(path));
            }
        } catch (NoSuchFileException e) {
            throw new IOException(path + ": there is no such file", e);
        }
        try {
            SoundBank bank = new SoundBank(path, MidiSystem.getSoundbank(path.toFile()));
            if (bank.named.isEmpty()) {
                throw new IOException(path + ": there are no sounds in this file");
            }
            return bank;
        } catch (InvalidMidiDataException | RuntimeException | OutOfMemoryError e) {
            // The platform's readers trust whatever lengths a file names.
            throw new IOException(path + NO_BANK, e);
        }
    }

    public Path path() {
        return path;
    }

    /** Its sounds by name, in the order of the file. */
    public Map<String, Preset> named() {
        return Collections.unmodifiableMap(named);
    }

    /**
     * Gives a synthesizer its sounds of a bank and program, in the place of those that are there.
     *
     * @return what was given
     */
    public List<Instrument> give(Preset preset, Synthesizer synthesizer) throws IOException {
        return give(sounds, preset, synthesizer);
    }

    /** Gives a synthesizer the built-in sounds of a bank and program, melodic and percussion. */
    public static List<Instrument> giveBuiltIn(Preset preset, Synthesizer synthesizer) throws IOException {
        Soundbank builtIn = synthesizer.getDefaultSoundbank();
        return builtIn == null ? List.of() : give(builtIn, preset, synthesizer);
    }

    private static List<Instrument> give(Soundbank from, Preset preset, Synthesizer synthesizer) throws IOException {
        List<Instrument> given = new ArrayList<>();
        for (Instrument instrument : from.getInstruments()) {
            if (preset.equals(preset(instrument))) {
                if (!synthesizer.isSoundbankSupported(from) || !synthesizer.loadInstrument(instrument)) {
                    throw new IOException("the synthesizer cannot play “" + instrument.getName() + "”");
                }
                given.add(instrument);
            }
        }
        return given;
    }

    private static Preset preset(Instrument instrument) {
        return new Preset(instrument.getPatch().getBank(), instrument.getPatch().getProgram());
    }
}
