package harpel.advice;

import harpel.piece.Part;
import java.util.List;
import java.util.Optional;

/** The machine has no sound device. */
final class NoSound {
    private NoSound() {}

    static Optional<Advice> look(Part part, String noSound, List<String> outputs) {
        Optional<String> output =
                outputs.stream().filter(name -> !name.isEmpty()).findFirst();
        if (noSound.isEmpty() || !part.port().isEmpty() || output.isEmpty()) {
            return Optional.empty();
        }
        return Optional.of(Advice.of(
                part, "No sound device is connected.", "Send to " + output.get(), one -> one.withPort(output.get())));
    }
}
