package harpel.format;

/** Tries broken files of every kind. Arguments: how many of each, and the first seed. Exit code 1 when one was not taken as it should. */
public final class FilesSoak {
    private static final int MOST_FAILED = 5;

    private FilesSoak() {}

    public static void main(String[] args) {
        long count = args.length > 0 ? Long.parseLong(args[0]) : 100_000;
        long first = args.length > 1 ? Long.parseLong(args[1]) : 1;
        int failed = 0;
        for (Broken.Kind kind : Broken.Kind.values()) {
            long seed = first;
            for (; seed < first + count && failed < MOST_FAILED; seed++) {
                try {
                    Broken.holds(kind, seed);
                } catch (AssertionError e) {
                    System.out.println(e.getMessage());
                    failed++;
                }
            }
            System.out.printf("%8d broken files: %s%n", seed - first, kind);
        }
        System.out.println(failed == 0 ? "each was read, or refused in words" : failed + " failed");
        System.exit(failed == 0 ? 0 : 1);
    }
}
