package harpel.app.ui;

import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.concurrent.TimeUnit;
import java.util.function.Function;
import javafx.scene.input.KeyEvent;

/** Letters that are typed soon one after the other, by which a thing in a list is found: the first whose words begin with them. */
final class Letters {
    private static final long TOGETHER_NANOS = TimeUnit.SECONDS.toNanos(1);

    private String typed = "";
    private long lastNanos;

    /** Whether a key writes a character; a blank does within words only. */
    boolean isOne(KeyEvent event) {
        String character = event.getCharacter();
        boolean printed = !character.isEmpty() && character.charAt(0) >= ' ' && character.charAt(0) != 127;
        boolean begins = !character.equals(" ") || isWithin();
        return printed && begins && !event.isShortcutDown() && !event.isAltDown();
    }

    private boolean isWithin() {
        return !typed.isEmpty() && System.nanoTime() - lastNanos < TOGETHER_NANOS;
    }

    /** What is found once this letter is typed, too. */
    <T> Optional<T> find(String letter, List<T> things, Function<T, String> words) {
        typed = (isWithin() ? typed : "") + letter.toLowerCase(Locale.ROOT);
        lastNanos = System.nanoTime();
        return things.stream()
                .filter(one -> words.apply(one).toLowerCase(Locale.ROOT).startsWith(typed))
                .findFirst();
    }
}
