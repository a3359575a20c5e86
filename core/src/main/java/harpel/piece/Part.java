package harpel.piece;

import harpel.chain.Chain;
import harpel.event.Message;
import harpel.param.Ids;
import harpel.theory.Words;
import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.ArrayList;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/**
 * One line of music: what it hears, its chain, its sound.
 *
 * @param id the part's name in addresses of stages
 * @param run whether its chain runs by the keys alone when the transport stands
 * @param stars the variations of it that were starred, such as "chance 43"
 * @param unknown what a newer version wrote
 */
@RecordBuilder
public record Part(
        String id,
        String name,
        Hearing hearing,
        Run run,
        Playing playing,
        Rack rack,
        Voice voice,
        Mix mix,
        List<String> stars,
        Map<String, Object> unknown)
        implements PartBuilder.With {
    /** What makes the chain's time go. */
    public enum Run {
        KEYS,
        TRANSPORT
    }

    public Part {
        if (!Ids.isOne(id)) {
            throw new IllegalArgumentException(
                    "a part's id is lower-case letters, digits and hyphens but was \"" + id + "\"");
        }
        stars = List.copyOf(stars);
        unknown = unknown.isEmpty() ? Map.of() : Collections.unmodifiableMap(new LinkedHashMap<>(unknown));
    }

    public static Part of(String name, Chain chain) {
        return new Part(
                idFor(name),
                name,
                Hearing.KEYS,
                Run.KEYS,
                Playing.NOTHING,
                Rack.of(chain),
                Voice.FIRST,
                Mix.PLAIN,
                List.of(),
                Map.of());
    }

    /** An id made from a name: "Harbour bells" is harbour-bells. */
    public static String idFor(String name) {
        String id = Words.idFor(name);
        return id.isEmpty() ? "part" : id;
    }

    /** The chain that is heard, or would be were it not off. */
    public Chain chain() {
        return rack.chain();
    }

    /** The id of the phrase it plays, or empty. */
    public String phrase() {
        return playing.phrase();
    }

    /** What an instrument is told on a channel to sound as the part: bank and program, where the part has a built-in sound, and its level. */
    public List<Message> sounds(int channel) {
        List<Message> told = new ArrayList<>();
        if (voice.port().equals(Voice.BUILT_IN)) {
            Preset preset = voice.played();
            told.add(Message.control(0, 0, channel, Message.BANK, preset.bank() >> 7));
            told.add(Message.control(0, 0, channel, Message.BANK_FINE, preset.bank() & 0x7F));
            told.add(new Message(0, 0, (byte) (Message.PROGRAM_CHANGE | channel), (byte) preset.program()));
        }
        told.add(Message.control(0, 0, channel, Message.VOLUME, mix.volume()));
        return told;
    }

    /** Its channel, 0–15. */
    public int channel() {
        return voice.channel();
    }

    /** The name of its output; empty for the built-in sounds. */
    public String port() {
        return voice.port();
    }

    public Part withChain(Chain chain) {
        return withRack(rack.withChain(chain));
    }

    /** With the phrase of that id over and over; with none where it is empty. */
    public Part withPhrase(String phrase) {
        return withPlaying(playing.withPhrase(phrase));
    }

    /** With variations that are taken in turn, one a round of its phrase; with none the piece's holds. */
    public Part withVariations(List<Long> variations) {
        return withPlaying(playing.withVariations(variations));
    }

    /** With other blocks on the timeline. */
    public Part withBlocks(List<Block> blocks) {
        return withPlaying(playing.withBlocks(blocks));
    }

    /** Its blocks on the timeline, in the order of time. */
    public List<Block> blocks() {
        return playing.blocks();
    }

    /** The name of its stand-in instrument. */
    public String sound() {
        return voice.sound();
    }

    public Part withChannel(int channel) {
        return withVoice(voice.withChannel(channel));
    }

    public Part withPort(String port) {
        return withVoice(voice.withPort(port));
    }

    public Part withSound(String sound) {
        return withVoice(voice.withSound(sound).withPreset(null));
    }

    /** Heard without its chain, or with it again. */
    public Part withChainOff(boolean off) {
        return withRack(rack.withOff(off));
    }

    /** With the other chain in place of this one, which waits; the first time both are alike. */
    public Part withOtherChain() {
        return withRack(rack.turned());
    }

    /** With the other chain made like this one. */
    public Part withOtherAlike() {
        return withRack(rack.withOther(rack.chain()));
    }
}
