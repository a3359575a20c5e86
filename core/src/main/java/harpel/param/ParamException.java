package harpel.param;

/** A value that a parameter cannot take. The message names the place, the value, the range and the way out. */
public final class ParamException extends IllegalArgumentException {
    private static final long serialVersionUID = 1L;
    private final String path;
    private final String what;

    public ParamException(String path, String what) {
        super(path.isEmpty() ? what : path + ": " + what);
        this.path = path;
        this.what = what;
    }

    public ParamException(String what) {
        this("", what);
    }

    /** Where in the document, such as {@code chain[2].gate}. */
    public String path() {
        return path;
    }

    /** The same complaint, one level further out. */
    public ParamException under(String outer) {
        String joined = path.isEmpty() || path.startsWith("[") ? outer + path : outer + "." + path;
        return new ParamException(joined, what);
    }
}
