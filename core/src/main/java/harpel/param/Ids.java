package harpel.param;

import java.util.regex.Pattern;

/** What ids are made of: lower-case letters, digits and hyphens. */
public final class Ids {
    /** As a regular expression: the id of a part or a phrase. */
    public static final String FORM = "[a-z0-9][a-z0-9-]*";
    /** The id of a stage, which begins with a letter. */
    public static final String STAGE_FORM = "[a-z][a-z0-9-]*";

    private static final Pattern ONE = Pattern.compile(FORM);
    private static final Pattern OF_STAGE = Pattern.compile(STAGE_FORM);

    private Ids() {}

    /** Whether it can be the id of a part or a phrase. */
    public static boolean isOne(String id) {
        return ONE.matcher(id).matches();
    }

    /** Whether it can be the id of a stage. */
    public static boolean isOfStage(String id) {
        return OF_STAGE.matcher(id).matches();
    }
}
