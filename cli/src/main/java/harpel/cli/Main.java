package harpel.cli;

import harpel.format.FileException;
import harpel.param.ParamException;
import java.io.IOException;
import java.io.InputStream;
import java.io.PrintWriter;
import java.nio.charset.StandardCharsets;
import java.nio.file.NoSuchFileException;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Supplier;
import picocli.CommandLine;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Spec;

/** {@code harpel print}, {@code harpel sound} and {@code harpel describe}. Exit codes: 0 done, 1 it could not, 2 wrong words. */
@Command(
        name = "harpel",
        description = "Chains of live MIDI effects, on the command line.",
        mixinStandardHelpOptions = true,
        versionProvider = Main.Version.class)
public final class Main implements Runnable {
    static final int COULD_NOT = 1;
    static final int WRONG_WORDS = 2;

    /** The version that the build wrote down. */
    static final class Version implements CommandLine.IVersionProvider {
        @Override
        public String[] getVersion() throws IOException {
            try (InputStream in = Main.class.getResourceAsStream("/harpel/version.txt")) {
                return new String[] {"Harpel " + new String(in.readAllBytes(), StandardCharsets.UTF_8).strip()};
            }
        }
    }

    @Spec
    private CommandSpec spec;

    @Override
    public void run() {
        throw new ParameterException(spec.commandLine(), "say what to do: print, sound or describe");
    }

    public static void main(String[] args) {
        int code = commandLine(args).execute(args);
        System.exit(code);
    }

    /** Of the commands only the one that is meant, where it is one: the library takes its time to make each ready. */
    static CommandLine commandLine(String... args) {
        Map<String, Supplier<Object>> commands = new LinkedHashMap<>();
        commands.put("print", PrintCommand::new);
        commands.put("sound", SoundCommand::new);
        commands.put("describe", DescribeCommand::new);
        if (args.length > 0 && commands.containsKey(args[0])) {
            commands.keySet().retainAll(List.of(args[0]));
        }
        CommandLine line = new CommandLine(new Main());
        commands.forEach((name, command) -> line.addSubcommand(name, command.get()));
        return line.setExecutionExceptionHandler((e, command, parsed) -> {
                    command.getErr().println("harpel: " + message(e));
                    return COULD_NOT;
                })
                .setParameterExceptionHandler((e, words) -> {
                    CommandLine command = e.getCommandLine();
                    command.getErr().println("harpel: " + e.getMessage());
                    command.getErr()
                            .println("Try: harpel "
                                    + (command.getParent() == null ? "" : command.getCommandName() + " ") + "--help");
                    return WRONG_WORDS;
                });
    }

    private static String message(Exception e) {
        if (e instanceof NoSuchFileException) {
            return e.getMessage().contains(":") ? e.getMessage() : e.getMessage() + ": there is no such file";
        }
        boolean ours = e instanceof FileException || e instanceof ParamException || e instanceof CouldNot;
        if (ours || e instanceof IOException && e.getMessage() != null) {
            return e.getMessage();
        }
        // Nobody is helped by a stack of calls; what it was is still said.
        return "this could not be done: " + e;
    }

    /** Makes sure that what was written has arrived. */
    static void flush(PrintWriter out) throws CouldNot {
        out.flush();
        if (out.checkError()) {
            throw new CouldNot("standard output could not be written");
        }
    }
}
