package harpel.advice;

import harpel.chain.Stage;
import harpel.effect.EffectKind;
import harpel.param.music.RouteType;
import harpel.piece.Part;
import harpel.piece.Piece;
import harpel.piece.Routes;
import java.util.List;
import java.util.stream.Stream;

/** A stage sends to a part that is not there. */
final class DeadSend implements Rule {
    @Override
    public Stream<Advice> look(Piece piece, Part part, List<String> outputs) {
        return part.chain().stages().stream()
                .filter(Stage::on)
                .flatMap(stage -> Routes.routes(stage.params()).stream()
                        .filter(route -> route.leaves() && !route.to().startsWith(RouteType.OUTPUT))
                        .filter(route -> piece.part(route.to()).isEmpty())
                        .limit(1)
                        .map(route -> Advice.of(
                                part,
                                stage,
                                "It sends to “" + route.to() + "”, and there is no such part.",
                                "Switch it off",
                                one -> one.with(EffectKind.ON, false))));
    }
}
