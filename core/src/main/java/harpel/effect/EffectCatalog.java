package harpel.effect;

import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.ServiceLoader;

/** Every kind of effect there is, found through {@link ServiceLoader}. */
public final class EffectCatalog {
    private static final List<EffectKind> KINDS = ServiceLoader.load(EffectKind.class).stream()
            .map(ServiceLoader.Provider::get)
            .sorted(Comparator.comparing((EffectKind kind) -> kind.words().family())
                    .thenComparing(kind -> kind.words().label()))
            .toList();

    private EffectCatalog() {}

    /** All kinds, by family and name. */
    public static List<EffectKind> kinds() {
        return KINDS;
    }

    /** The kinds that fit what was typed, a name or what one wants, best ones first; all for nothing. */
    public static List<EffectKind> found(String typed) {
        return KINDS.stream()
                .filter(kind -> fits(kind, typed) >= 0)
                .sorted(Comparator.comparingInt(kind -> typed.isBlank() ? 0 : fits(kind, typed)))
                .toList();
    }

    private static int fits(EffectKind kind, String typed) {
        return kind.words().fits(typed, kind.has(Trait.DRAWS));
    }

    public static Optional<EffectKind> find(String id) {
        return KINDS.stream().filter(kind -> kind.id().equals(id)).findFirst();
    }

    /**
     * The kind of that id.
     *
     * @throws IllegalArgumentException naming the known ones
     */
    public static EffectKind of(String id) {
        return find(id).orElseThrow(
                        () -> new IllegalArgumentException("there is no effect \"" + id + "\"; known are " + ids()));
    }

    public static String ids() {
        return String.join(", ", KINDS.stream().map(EffectKind::id).toList());
    }
}
