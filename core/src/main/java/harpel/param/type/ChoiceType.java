package harpel.param.type;

import harpel.param.ParamException;
import harpel.param.ParamType;
import harpel.param.Plain;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Map;

/** One of a few words. The words are the constants' names: {@code UP_DOWN} is "up-down". */
public record ChoiceType<E extends Enum<E>>(Class<E> choices) implements ParamType<E> {
    public static <E extends Enum<E>> ChoiceType<E> of(Class<E> choices) {
        return new ChoiceType<>(choices);
    }

    public static String word(Enum<?> choice) {
        return choice.name().toLowerCase(Locale.ROOT).replace('_', '-');
    }

    public List<E> values() {
        return Arrays.asList(choices.getEnumConstants());
    }

    private List<String> words() {
        return values().stream().map(ChoiceType::word).toList();
    }

    @Override
    public E read(Object plain) {
        return values().stream()
                .filter(choice -> word(choice).equals(plain))
                .findFirst()
                .orElseThrow(() -> new ParamException("must be one of " + range() + " but was " + Plain.quote(plain)));
    }

    @Override
    public E parse(String typed) {
        return read(typed.strip().toLowerCase(Locale.ROOT).replace(' ', '-'));
    }

    @Override
    public Object write(E value) {
        return word(value);
    }

    @Override
    public Map<String, Object> schema() {
        return Map.of("enum", words());
    }

    @Override
    public String show(E value) {
        return word(value).replace('-', ' ');
    }

    @Override
    public String range() {
        return String.join(", ", words());
    }

    @Override
    public double fraction(E value) {
        return values().size() < 2 ? 0 : value.ordinal() / (double) (values().size() - 1);
    }

    @Override
    public E atFraction(double fraction) {
        return values().get((int) Math.round(Math.max(0, Math.min(1, fraction)) * (values().size() - 1)));
    }

    @Override
    public boolean flows() {
        return false;
    }

    @Override
    public E step(E value, int direction, boolean fine) {
        return values().get(Math.max(0, Math.min(values().size() - 1, value.ordinal() + direction)));
    }
}
