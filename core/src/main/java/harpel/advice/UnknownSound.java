package harpel.advice;

import harpel.piece.Instrument;
import harpel.piece.Part;
import harpel.piece.Piece;
import harpel.piece.Voice;
import java.util.List;
import java.util.stream.Stream;

/** A part is to sound like something that no sound is called; sounds of a file have numbers, too, and are looked for there. */
final class UnknownSound implements Rule {
    @Override
    public Stream<Advice> look(Piece piece, Part part, List<String> outputs) {
        Voice voice = part.voice();
        boolean known = Instrument.every().stream().anyMatch(one -> one.name().equals(voice.sound()));
        if (known || voice.preset() != null || !voice.port().equals(Voice.BUILT_IN)) {
            return Stream.empty();
        }
        String instead = Instrument.named(voice.sound()).name();
        return Stream.of(Advice.of(
                part,
                "No sound is called “" + voice.sound() + "”; " + instead + " plays in its place.",
                "Take " + instead,
                one -> one.withSound(instead)));
    }
}
