package harpel.script;

import com.google.auto.service.AutoService;
import harpel.effect.Effect;
import harpel.effect.EffectKind;
import harpel.effect.EffectNature;
import harpel.effect.EffectWords;
import harpel.effect.Family;
import harpel.effect.Trait;
import harpel.param.Param;
import harpel.param.ParamSet;
import harpel.param.ParamSpec;
import harpel.param.type.CodeType;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** A user's own effect in JavaScript. */
@AutoService(EffectKind.class)
public final class Script extends EffectKind {
    private static final Pattern TITLE = Pattern.compile("^\\s*//\\s*(.{1,60})");

    public static final Param<String> CODE = Param.of(
            "code",
            new CodeType(100_000),
            "// Every note passes on\nfunction onNote(note) {\n  play(note);\n}\n",
            "The script. Its controls appear beside those of every effect; docs/scripting.md is the guide.");

    /** So many steps a call of a script may take. */
    public static final long CALL_STEPS = 500_000;

    /** What every script has, whatever controls it declares. */
    static final ParamSpec BASE = ParamSpec.of(CODE, SEED, ON, LABEL, CHANNEL);

    private static final EffectWords WORDS = EffectWords.of(
                    "Script", Family.ROUTE, "runs an effect of your own in JavaScript")
            .withFoundBy("javascript code own")
            .withSetting(Script::describe)
            .withNotes(
                    "The script's first line, if it is a comment, is its title. Each `control(…)` it declares is a parameter of the stage and"
                            + " is written beside `code` by its id. A call has a budget of 500,000 steps, the same on every machine; a script that"
                            + " goes over it is switched off with its notes ended, and passes everything from then on. docs/scripting.md has the"
                            + " interface and eight examples.");
    private static final EffectNature NATURE = EffectNature.of(Trait.PLAYS_BY_ITSELF)
            .withMessages(values -> ScriptSource.of(values.get(CODE)).hearsControllers());

    public Script() {
        super("script", WORDS, NATURE, CODE, SEED);
    }

    @Override
    public Effect create() {
        return new ScriptRun();
    }

    private static String describe(ParamSet values) {
        String problem = problem(values.get(CODE));
        Matcher title = TITLE.matcher(values.get(CODE));
        return !problem.isEmpty() ? problem : title.find() ? title.group(1).strip() : "no title";
    }

    /** The values with the controls that the script declares; those of the last good script while it has an error. */
    @Override
    public ParamSet fit(ParamSet values) {
        ScriptSource source = ScriptSource.of(values.get(CODE));
        if (source.error() != null) {
            return values.spec() == spec() ? values.onto(BASE) : values;
        }
        return values.onto(source.spec());
    }

    @Override
    public boolean declaresMore() {
        return true;
    }

    @Override
    public boolean keepsUnknown(ParamSet values) {
        return ScriptSource.of(values.get(CODE)).error() != null;
    }

    @Override
    public void prepare(List<ParamSet> stages) {
        Map<String, Integer> uses = new HashMap<>();
        stages.forEach(stage -> uses.merge(stage.get(CODE), 1, Integer::sum));
        uses.forEach((code, count) -> {
            ScriptSource source = ScriptSource.of(code);
            if (source.error() == null) {
                source.keepReady(count);
            }
        });
    }

    /** What is wrong with a script, in words; empty when nothing is. */
    public static String problem(String code) {
        ScriptError error = ScriptSource.of(code).error();
        return error == null ? "" : error.shown();
    }
}
