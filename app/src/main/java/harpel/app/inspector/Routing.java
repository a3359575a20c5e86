package harpel.app.inspector;

import harpel.app.session.Session;
import harpel.app.ui.ParamTile;
import harpel.param.RouteType;
import harpel.param.RouteType.Route;
import harpel.piece.Part;
import java.util.ArrayList;
import java.util.List;

/** Where notes can be sent, by name: the way on, the other parts with their channels, channels, outputs. */
final class Routing {
    private Routing() {}

    /** Lets a route be chosen from a list; leaves tiles of other parameters as they are. */
    @SuppressWarnings("unchecked") // a parameter of the type of routes has routes as values
    static void offer(ParamTile<?> tile, Session session) {
        if (tile.param().type() instanceof RouteType) {
            ((ParamTile<Route>) tile).offer(() -> routes(session), route -> name(session, route));
        }
    }

    static List<Route> routes(Session session) {
        List<Route> routes = new ArrayList<>(List.of(Route.ON));
        for (Part part : session.document().piece().get().parts()) {
            if (!part.id().equals(session.selection().partId().get())) {
                routes.add(new Route(0, part.id()));
            }
        }
        for (int channel = 1; channel <= 16; channel++) {
            routes.add(new Route(channel, ""));
        }
        session.transport().outputs().stream()
                .filter(output -> !output.isEmpty())
                .forEach(output -> routes.add(new Route(0, RouteType.OUTPUT + output)));
        return routes;
    }

    static String name(Session session, Route route) {
        if (route.channel() > 0 || !route.leaves()) {
            return RouteType.ROUTE.show(route);
        }
        if (route.to().startsWith(RouteType.OUTPUT)) {
            return "output " + route.to().substring(RouteType.OUTPUT.length());
        }
        return session.document()
                .piece()
                .get()
                .part(route.to())
                .map(part -> part.name() + " · " + (part.port().isEmpty() ? part.sound() : part.port()) + " · "
                        + (part.channel() + 1))
                .orElse(route.to() + " (there is no such part)");
    }
}
