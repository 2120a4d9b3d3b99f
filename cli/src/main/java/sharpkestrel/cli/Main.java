package sharpkestrel.cli;

import java.io.PrintWriter;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.concurrent.CancellationException;
import picocli.CommandLine;
import picocli.CommandLine.Model.CommandSpec;
import sharpkestrel.expr.ExpressionException;
import sharpkestrel.raster.Heap;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.RasterException;

/** Entry of the command line. */
public final class Main {

  private Main() {}

  public static void main(String[] args) {
    System.exit(commandLine().execute(args));
  }

  /**
   * Runs a sheet as {@code kestrel run} does, printing to the terminal.
   *
   * @param folder for kept rasters and for results
   * @return results by name
   */
  public static Map<String, Object> run(Path sheet, Map<String, String> variables, Path folder) {
    PrintWriter out = new PrintWriter(System.out, true, StandardCharsets.UTF_8);
    PrintWriter err = new PrintWriter(System.err, true, StandardCharsets.UTF_8);
    Job job = new ConsoleJob(err, Runtime.getRuntime().availableProcessors(), 512);
    return RunCommand.run(sheet, variables, folder, List.of(), job, out);
  }

  /** The commands that need no window. */
  public static CommandLine commandLine() {
    CommandSpec root = CommandSpec.create().name("kestrel");
    root.usageMessage()
        .description("Sharp Kestrel: from very-high-resolution imagery to checked outlines.")
        .footer(
            "",
            "In a window: kestrel, kestrel demo, kestrel FILE|FOLDER..., kestrel open.",
            "For developers: kestrel test, format, quality, place-quality, segment-quality, sharpen-quality, extract-quality,",
            "separability, learn-roofs, fuzz, reference, shots, how-soon.");
    CommandLine line = new CommandLine(root);
    line.addSubcommand("run", new RunCommand());
    line.addSubcommand("step", StepCommands.commandLine());
    line.addSubcommand("info", new InfoCommand());
    line.addSubcommand("world", new WorldCommand());
    root.addOption(CommandLine.Model.OptionSpec.builder("-h", "--help")
        .usageHelp(true)
        .description("Show this help.")
        .build());
    root.parser().caseInsensitiveEnumValuesAllowed(true);
    line.setExecutionStrategy(parsed -> {
      try {
        return new CommandLine.RunLast().execute(parsed);
      } catch (OutOfMemoryError full) {
        line.getErr().println("kestrel: " + Heap.exhausted());
        return 1;
      }
    });
    line.setExecutionExceptionHandler((exception, commandLine, result) -> {
      if (exception instanceof RasterException
          || exception instanceof ExpressionException
          || exception instanceof IllegalArgumentException
          || exception instanceof CancellationException) {
        commandLine.getErr().println("kestrel: " + exception.getMessage());
        return 1;
      }
      throw exception;
    });
    return line;
  }
}
