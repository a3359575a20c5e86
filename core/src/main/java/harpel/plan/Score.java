package harpel.plan;

import harpel.effect.Chance;
import harpel.effect.Draws;
import harpel.event.EventOrder;
import harpel.event.Message;
import harpel.phrase.Note;
import harpel.phrase.Notes;
import harpel.phrase.Phrase;
import java.util.List;

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
