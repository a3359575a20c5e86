package harpel.app;

import ch.qos.logback.classic.Level;
import ch.qos.logback.classic.LoggerContext;
import ch.qos.logback.classic.encoder.PatternLayoutEncoder;
import ch.qos.logback.classic.spi.Configurator;
import ch.qos.logback.classic.spi.ILoggingEvent;
import ch.qos.logback.core.ConsoleAppender;
import ch.qos.logback.core.OutputStreamAppender;
import ch.qos.logback.core.rolling.FixedWindowRollingPolicy;
import ch.qos.logback.core.rolling.RollingFileAppender;
import ch.qos.logback.core.rolling.SizeBasedTriggeringPolicy;
import ch.qos.logback.core.spi.ContextAwareBase;
import ch.qos.logback.core.util.FileSize;
import com.google.auto.service.AutoService;
import java.nio.file.Path;

/**
 * Where Harpel writes what happened: warnings to standard error, and all that is worth knowing into a file where the system wants it,
 * begun anew at a megabyte, the last three kept. With {@code --verbose} everything, to both. In code rather than in a file of its own,
 * which would cost a tenth of a second at each start.
 */
@AutoService(Configurator.class)
public final class LogSetup extends ContextAwareBase implements Configurator {
    private static final String VERBOSE = "harpel.verbose";
    private static final int KEPT = 3;
    /** The name of the log. */
    static final String FILE = "harpel.log";

    /** Everything is written from now on; called before the first word. */
    static void beVerbose() {
        System.setProperty(VERBOSE, "true");
    }

    /** The folder for logs: {@code ~/.local/state/harpel} or what {@code XDG_STATE_HOME} says, {@code ~/Library/Logs/Harpel}, {@code %LOCALAPPDATA%\\Harpel}. */
    static Path folder() {
        String home = System.getProperty("user.home");
        String system = System.getProperty("os.name", "");
        String state = System.getenv("XDG_STATE_HOME");
        String local = System.getenv("LOCALAPPDATA");
        if (system.startsWith("Mac")) {
            return Path.of(home, "Library", "Logs", "Harpel");
        }
        if (system.startsWith("Windows") && local != null) {
            return Path.of(local, "Harpel");
        }
        return state == null ? Path.of(home, ".local", "state", "harpel") : Path.of(state, "harpel");
    }

    @Override
    public ExecutionStatus configure(LoggerContext context) {
        boolean verbose = Boolean.getBoolean(VERBOSE);
        ConsoleAppender<ILoggingEvent> console = new ConsoleAppender<>();
        console.setTarget("System.err");
        start(console, context, "harpel: %level %msg%n", verbose ? Level.DEBUG : Level.WARN);
        Path file = folder().resolve(FILE);
        RollingFileAppender<ILoggingEvent> log = new RollingFileAppender<>();
        log.setFile(file.toString());
        FixedWindowRollingPolicy keep = new FixedWindowRollingPolicy();
        keep.setContext(context);
        keep.setParent(log);
        keep.setMinIndex(1);
        keep.setMaxIndex(KEPT);
        keep.setFileNamePattern(file + ".%i");
        keep.start();
        SizeBasedTriggeringPolicy<ILoggingEvent> large = new SizeBasedTriggeringPolicy<>();
        large.setContext(context);
        large.setMaxFileSize(FileSize.valueOf("1MB"));
        large.start();
        log.setRollingPolicy(keep);
        log.setTriggeringPolicy(large);
        start(log, context, "%d %level %thread %logger{20} %msg%n", verbose ? Level.DEBUG : Level.INFO);
        context.getLogger("ROOT").setLevel(verbose ? Level.DEBUG : Level.INFO);
        return ExecutionStatus.DO_NOT_INVOKE_NEXT_IF_ANY;
    }

    private static void start(
            OutputStreamAppender<ILoggingEvent> appender, LoggerContext context, String pattern, Level least) {
        PatternLayoutEncoder encoder = new PatternLayoutEncoder();
        encoder.setContext(context);
        encoder.setPattern(pattern);
        encoder.start();
        appender.setContext(context);
        appender.setEncoder(encoder);
        ch.qos.logback.classic.filter.ThresholdFilter filter = new ch.qos.logback.classic.filter.ThresholdFilter();
        filter.setLevel(least.toString());
        filter.start();
        appender.addFilter(filter);
        appender.start();
        context.getLogger("ROOT").addAppender(appender);
    }
}
