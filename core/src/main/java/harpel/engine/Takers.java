package harpel.engine;

import harpel.piece.Hearing;
import harpel.piece.Part;
import harpel.piece.Piece;
import harpel.piece.Routes;
import harpel.port.InputPort;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/** Which parts hear what comes in: looked for once for a way in and channel, not at each key. Owned by the engine thread. */
final class Takers {
    private static final int CHANNELS = 16;

    private final Map<String, List<List<Part>>> known = new HashMap<>();
    private Piece piece;
    private String keyPart;

    /** The first part is the chosen one, until another is. */
    Takers(Piece piece) {
        this.piece = piece;
        this.keyPart = piece.parts().isEmpty() ? "" : piece.parts().get(0).id();
    }

    void take(Piece newPiece) {
        piece = newPiece;
        known.clear();
    }

    /** @param part the id of the chosen part, which keys play */
    void keysTo(String part) {
        keyPart = part;
        known.clear();
    }

    /**
     * The parts that hear a way in on a channel; one that no part has taken for itself plays the chosen part, or where that hears another
     * the one at the head of the way.
     *
     * @param channel 0–15
     */
    List<Part> of(String port, int channel) {
        List<List<Part>> channels = known.get(port);
        if (channels == null) {
            channels = new ArrayList<>(Collections.nCopies(CHANNELS, null));
            known.put(port, channels);
        }
        List<Part> takers = channels.get(channel);
        if (takers == null) {
            takers = find(port, channel + 1);
            channels.set(channel, takers);
        }
        return takers;
    }

    private List<Part> find(String port, int channel) {
        if (port.startsWith(InputPort.TO_PART)) {
            return piece.part(port.substring(InputPort.TO_PART.length())).stream()
                    .toList();
        }
        if (port.equals(InputPort.AUDITION)) {
            return piece.part(keyPart).stream().toList();
        }
        Optional<Part> played = Routes.played(piece, keyPart);
        if (port.equals(InputPort.KEYS)) {
            return played.stream().toList();
        }
        List<Part> own = piece.parts().stream()
                .filter(part -> part.hearing().takes(port, channel))
                .toList();
        return own.isEmpty()
                ? played
                        .filter(part -> part.hearing().equals(Hearing.KEYS)
                                || part.hearing().keysHere())
                        .stream()
                        .toList()
                : own;
    }
}
