package harpel.advice;

import harpel.chain.Stage;
import harpel.move.Source;
import harpel.piece.Block;
import harpel.piece.Instrument;
import harpel.piece.Lane;
import harpel.piece.Part;
import harpel.piece.Piece;
import harpel.piece.Voice;
import harpel.piece.perform.Lever;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;

/** What a part names and what is not there. */
final class Missing {
    /** The phrases that it is to play. */
    static final Rule PHRASES = (piece, part, outputs) -> phrases(piece, part);
    /** The levers that its stages follow. */
    static final Rule LEVERS = (piece, part, outputs) -> levers(piece, part);
    /** The sound that it is to have; sounds of a file have numbers, too, and are looked for there. */
    static final Rule SOUND = (piece, part, outputs) -> sound(piece, part);

    private Missing() {}

    private static Stream<Advice> phrases(Piece piece, Part part) {
        return Stream.concat(
                        Stream.of(part.phrase()).filter(phrase -> !piece.timeline()),
                        part.blocks().stream().filter(block -> piece.timeline()).map(Block::phrase))
                .filter(phrase -> isMissing(piece, phrase))
                .distinct()
                .map(phrase -> Advice.of(
                        part,
                        "It plays “" + phrase + "”, and there is no such phrase.",
                        piece.timeline() ? "Take those blocks away" : "Play none",
                        one -> piece.timeline()
                                ? one.withBlocks(one.blocks().stream()
                                        .filter(block -> !block.phrase().equals(phrase))
                                        .toList())
                                : one.withPhrase("")));
    }

    private static boolean isMissing(Piece piece, String phrase) {
        return !phrase.isEmpty() && piece.phrase(phrase).isEmpty();
    }

    private static Stream<Advice> levers(Piece piece, Part part) {
        Map<String, String> followers = new LinkedHashMap<>();
        Lane.eachStage(
                part.id(),
                List.of(),
                part.chain(),
                (address, stage) -> followed(stage).forEach(lever -> followers.putIfAbsent(lever, stage.name())));
        if (!part.rack().between().isEmpty()) {
            followers.putIfAbsent(part.rack().between(), "The way between its two chains");
        }
        return followers.entrySet().stream()
                .filter(one ->
                        piece.levers().stream().noneMatch(lever -> lever.name().equals(one.getKey())))
                .map(one -> new Advice(
                        "",
                        one.getValue() + " follows the lever “" + one.getKey() + "”, and there is no such lever.",
                        "Make that lever",
                        before -> {
                            List<Lever> more = new ArrayList<>(before.levers());
                            more.add(Lever.of(one.getKey(), 0));
                            return before.withLevers(more);
                        }));
    }

    private static List<String> followed(Stage stage) {
        return stage.moves().byParam().values().stream()
                .flatMap(List::stream)
                .filter(mover -> mover.source() == Source.LEVER)
                .map(mover -> mover.settings().get(Source.NAME))
                .toList();
    }

    private static Stream<Advice> sound(Piece piece, Part part) {
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
