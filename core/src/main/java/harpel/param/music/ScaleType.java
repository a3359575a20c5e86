package harpel.param.music;

import harpel.param.ParamType;
import harpel.param.type.IntType;
import harpel.param.type.ListType;
import harpel.theory.Scale;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/** A scale by name, a set of one's own as semitones above the root, or "key": the scale of the piece's key (empty here). */
public record ScaleType() implements ParamType<Optional<Scale>> {
    public static final ScaleType SCALE = new ScaleType();
    private static final String KEY = "key";
    private static final ListType<Integer> STEPS = new ListType<>(IntType.of(0, 11, ""), 12);

    @Override
    public Optional<Scale> read(Object plain) {
        if (KEY.equals(plain)) {
            return Optional.empty();
        }
        return Optional.of(plain instanceof String name ? Scale.of(name) : Scale.ofSteps(STEPS.read(plain)));
    }

    @Override
    public Optional<Scale> parse(String typed) {
        String bare = typed.strip().replaceFirst("^steps ", "");
        return bare.matches("\\d.*") ? Optional.of(Scale.ofSteps(STEPS.parse(bare))) : read(bare);
    }

    @Override
    public Object write(Optional<Scale> value) {
        return value.<Object>map(scale -> scale.name().isEmpty() ? scale.steps() : scale.name())
                .orElse(KEY);
    }

    @Override
    public Map<String, Object> schema() {
        return Map.of("anyOf", List.of(Map.of("enum", words()), STEPS.schema()));
    }

    /** "key" and every named scale. */
    public static List<String> words() {
        List<String> words = new ArrayList<>(List.of(KEY));
        words.addAll(Scale.names());
        return words;
    }

    @Override
    public String show(Optional<Scale> value) {
        return value.map(Scale::shown).orElse(KEY);
    }

    @Override
    public String range() {
        return "\"key\" (the piece's), a scale's name (" + String.join(", ", Scale.names())
                + ") or a list of semitones above the root";
    }
}
