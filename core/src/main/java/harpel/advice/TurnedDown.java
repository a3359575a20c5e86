package harpel.advice;

import harpel.piece.Part;
import harpel.piece.Piece;
import java.util.List;
import java.util.stream.Stream;

/** The part is mute, or its level is nought. */
final class TurnedDown implements Rule {
    @Override
    public Stream<Advice> look(Piece piece, Part part, List<String> outputs) {
        Advice mute =
                Advice.of(part, "Muted.", "Unmute", one -> one.withMix(one.mix().withMute(false)));
        Advice nought = Advice.of(
                part,
                "Its level is 0 %.",
                "Level 100 %",
                one -> one.withMix(one.mix().withLevel(100)));
        return Stream.concat(
                part.mix().mute() ? Stream.of(mute) : Stream.empty(),
                part.mix().level() == 0 ? Stream.of(nought) : Stream.empty());
    }
}
