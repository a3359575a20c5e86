package harpel.cli;

import harpel.effect.EffectCatalog;
import harpel.effect.EffectKind;
import harpel.format.Json;
import harpel.format.Presets;
import harpel.format.Reference;
import java.util.concurrent.Callable;
import picocli.CommandLine.ArgGroup;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

@Command(
        name = "describe",
        description = "Says what every effect and parameter means, from the descriptors that drive the program.",
        mixinStandardHelpOptions = true)
final class DescribeCommand implements Callable<Integer> {
    @Spec
    private CommandSpec spec;

    @Parameters(arity = "0..1", paramLabel = "EFFECT", description = "Only this effect, such as arpeggio.")
    private String effect;

    @ArgGroup
    private Form form = new Form();

    /** How to say it. */
    static final class Form {
        @Option(names = "--json", description = "As JSON.")
        private boolean json;

        @Option(names = "--markdown", description = "As Markdown, as docs/effects.md is made.")
        private boolean markdown;

        @Option(names = "--schema", description = "The JSON Schema of chain and piece files.")
        private boolean schema;

        @Option(
                names = "--presets",
                description = "The presets of every effect, or of one, and whole chains; with those of your own.")
        private boolean presets;
    }

    @Override
    public Integer call() throws CouldNot {
        EffectKind kind = null;
        if (effect != null) {
            kind = EffectCatalog.find(effect)
                    .orElseThrow(() -> new ParameterException(
                            spec.commandLine(),
                            "there is no effect \"" + effect + "\"; known are " + EffectCatalog.ids()));
        }
        spec.commandLine().getOut().print(text(kind));
        Main.flush(spec.commandLine().getOut());
        return 0;
    }

    private String text(EffectKind kind) {
        if (form.presets) {
            Presets presets = Presets.with(Presets.userFolder());
            presets.problems().forEach(problem -> spec.commandLine().getErr().println("harpel: " + problem));
            return Reference.presets(presets, kind);
        }
        if (form.schema) {
            return Json.writeSorted(Reference.schema());
        }
        if (form.json) {
            return Json.write(kind == null ? Reference.json(null) : Reference.json(kind));
        }
        if (form.markdown) {
            return kind == null ? Reference.markdown() : Reference.markdown(kind);
        }
        if (kind != null) {
            return Reference.text(kind);
        }
        StringBuilder all = new StringBuilder();
        EffectCatalog.kinds().forEach(one -> all.append(Reference.text(one)).append('\n'));
        return all.toString();
    }
}
