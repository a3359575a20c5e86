package harpel.app.inspector;

import harpel.app.document.Document;
import harpel.app.document.Selection;
import harpel.app.transport.Transport;
import harpel.app.ui.ParamTile;
import harpel.param.music.RouteType;
import harpel.param.music.RouteType.Route;
import harpel.piece.Part;
import harpel.piece.Routes;
import java.util.ArrayList;
import java.util.List;

/** Where notes can be sent, by name: the way on, the other parts with their channels, channels, outputs. */
final class Routing {
    private Routing() {}

    /** Lets a route be chosen from a list; leaves tiles of other parameters as they are. */
    @SuppressWarnings("unchecked") // a parameter of the type of routes has routes as values
    static void offer(ParamTile<?> tile, Document document, Selection selection, Transport transport) {
        if (tile.param().type() instanceof RouteType) {
            ((ParamTile<Route>) tile)
                    .offer(() -> routes(document, selection, transport), route -> name(document, route));
        }
    }

    static List<Route> routes(Document document, Selection selection, Transport transport) {
        List<Route> routes = new ArrayList<>(List.of(Route.ON));
        for (Part part : document.piece().get().parts()) {
            if (!part.id().equals(selection.partId().get())) {
                routes.add(new Route(0, part.id()));
            }
        }
        for (int channel = 1; channel <= 16; channel++) {
            routes.add(new Route(channel, ""));
        }
        transport.outputs().stream()
                .filter(output -> !output.isEmpty())
                .forEach(output -> routes.add(new Route(0, RouteType.OUTPUT + output)));
        return routes;
    }

    static String name(Document document, Route route) {
        if (route.channel() > 0 || !route.leaves()) {
            return RouteType.ROUTE.show(route);
        }
        if (route.to().startsWith(RouteType.OUTPUT)) {
            return Routes.placeName(document.piece().get(), route.to());
        }
        return document.piece()
                .get()
                .part(route.to())
                .map(part -> part.name() + " · " + (part.port().isEmpty() ? part.sound() : part.port()) + " · "
                        + (part.channel() + 1))
                .orElse(route.to() + " (there is no such part)");
    }
}
