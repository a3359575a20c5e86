package harpel.advice;

import harpel.chain.Stage;
import harpel.move.Source;
import harpel.piece.Lane;
import harpel.piece.Part;
import harpel.piece.Piece;
import harpel.piece.perform.Lever;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;

/** A stage follows a lever that is not there. */
final class MissingLever implements Rule {
    @Override
    public Stream<Advice> look(Piece piece, Part part, List<String> outputs) {
        Map<String, String> followers = new LinkedHashMap<>();
        Lane.eachStage(
                part.id(),
                List.of(),
                part.chain(),
                (address, stage) -> levers(stage).forEach(lever -> followers.putIfAbsent(lever, stage.name())));
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

    private static List<String> levers(Stage stage) {
        return stage.moves().byParam().values().stream()
                .flatMap(List::stream)
                .filter(mover -> mover.source() == Source.LEVER)
                .map(mover -> mover.settings().get(Source.NAME))
                .toList();
    }
}
