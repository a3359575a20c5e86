package harpel.plan;

import harpel.effect.Chance;
import harpel.effect.Draws;
import harpel.event.EventOrder;
import harpel.event.Message;
import harpel.phrase.Note;
import harpel.phrase.Notes;
import harpel.phrase.Phrase;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/**
 * What a part plays of its phrase, ready to be played: the notes in order and the messages in order and on the part's channel. Shared by
 * live play and print. Compiled by whoever edits, never by the engine's thread.
 *
 * @param channel 0–15
 * @param length in ticks
 * @param ready whether it is heard past the chain
 * @param chance draws for notes that are not always played
 */
record Score(
        Phrase phrase,
        int channel,
        Draws draws,
        long length,
        boolean ready,
        Notes notes,
        List<Message> messages,
        Chance chance) {
    static Score of(Phrase phrase, int channel, Draws draws) {
        List<Message> messages = phrase.messages().stream()
                .map(message -> message.onChannel(channel))
                .sorted(EventOrder.INSTANCE)
                .filter(message -> message.tick() < phrase.length())
                .toList();
        phrase.notes().prepare();
        Chance chance = Chance.of(draws, 0, "phrase/" + phrase.id());
        return new Score(phrase, channel, draws, phrase.length(), phrase.ready(), phrase.notes(), messages, chance);
    }

    /** Whether it is what a phrase would be compiled to; told by what is the same object. */
    boolean isOf(Phrase other, int otherChannel, Draws otherDraws) {
        return phrase == other && channel == otherChannel && draws.equals(otherDraws);
    }

    boolean isEmpty() {
        return length == 0 || notes.isEmpty() && messages.isEmpty();
    }

    /**
     * The places of the messages that hold at a tick of the phrase, in their order: of each controller, the bend, the pressure and the
     * program the last before it.
     *
     * @param again whether the phrase has been played through before, so that what it sets later still holds
     */
    List<Integer> standing(long tick, boolean again) {
        if (messages.isEmpty() || tick == 0 && !again) {
            return List.of();
        }
        Map<Integer, Integer> last = new LinkedHashMap<>();
        int before = 0;
        while (before < messages.size() && messages.get(before).tick() < tick) {
            before++;
        }
        for (int place = before; again && place < messages.size(); place++) {
            hold(last, place);
        }
        for (int place = 0; place < before; place++) {
            hold(last, place);
        }
        return List.copyOf(last.values());
    }

    private void hold(Map<Integer, Integer> last, int place) {
        Message message = messages.get(place);
        int kind = message.status() & 0xF0;
        boolean controls = kind == Message.CONTROL_CHANGE && message.data(1) < Message.ALL_SOUND_OFF;
        boolean holds = controls
                || kind == Message.PITCH_BEND
                || kind == Message.CHANNEL_PRESSURE
                || kind == Message.PROGRAM_CHANGE;
        if (holds) {
            int what = kind << 7 | (controls ? message.data(1) : 0);
            // Behind those that came before it, so that a bank comes before its program.
            last.remove(what);
            last.put(what, place);
        }
    }

    /**
     * Whether a note is played in a round: a draw that depends on the variation, the phrase, the round and the note's place, its start,
     * pitch and how many alike come before it, alone.
     *
     * @param index its place among the notes
     */
    boolean plays(int index, long round) {
        Note note = notes.get(index);
        if (note.traits().off()) {
            return false;
        }
        int percent = note.traits().chance();
        if (percent == 100) {
            return true;
        }
        long place = (note.tick() * 128 + note.pitch()) * 64 + notes.alikeBefore(index);
        return chance.unitInRound(round, place) * 100 < percent;
    }
}
