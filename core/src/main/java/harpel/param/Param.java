package harpel.param;

import harpel.theory.Spelling;

/**
 * One parameter's descriptor.
 *
 * @param id the name in files, on the command line and in automation
 * @param label the name on the screen
 * @param help one sentence
 */
public record Param<T>(String id, String label, ParamType<T> type, T defaultValue, String help) {
    /** A descriptor labelled by its id: {@code late-catch} becomes "Late catch". */
    public static <T> Param<T> of(String id, ParamType<T> type, T defaultValue, String help) {
        String words = id.replace('-', ' ');
        return new Param<>(id, Character.toUpperCase(words.charAt(0)) + words.substring(1), type, defaultValue, help);
    }

    /** "60 %", notes as a key writes them. */
    public String show(ParamSet values, Spelling spelling) {
        return type.show(values.get(this), spelling);
    }

    /** "60 %"; black keys are sharps. */
    public String show(ParamSet values) {
        return type.show(values.get(this));
    }

    @Override
    public boolean equals(Object other) {
        return this == other;
    }

    @Override
    public int hashCode() {
        return id.hashCode();
    }
}
