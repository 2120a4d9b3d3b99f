package sharpkestrel.cli;

import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.PrintWriter;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.Locale;
import java.util.Map;
import picocli.CommandLine;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Model.OptionSpec;
import sharpkestrel.check.Scores;
import sharpkestrel.flow.StepCatalogue;
import sharpkestrel.flow.StepSpec;
import sharpkestrel.io.Compression;
import sharpkestrel.io.Json;
import sharpkestrel.io.Report;
import sharpkestrel.kinds.ResultKind;
import sharpkestrel.kinds.ResultKinds;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.RasterException;

/** One command for each step, its options made from the step's declaration. */
final class StepCommands {

  private StepCommands() {}

  static CommandLine commandLine() {
    CommandSpec spec = CommandSpec.create().name("step");
    spec.usageMessage().description("Runs one step on files.");
    spec.addOption(help());
    CommandLine line = new CommandLine(spec);
    for (StepSpec step : StepCatalogue.all()) {
      line.addSubcommand(step.id(), command(step));
    }
    return line;
  }

  private static OptionSpec help() {
    return OptionSpec.builder("-h", "--help")
        .usageHelp(true)
        .description("Show this help.")
        .build();
  }

  private static CommandSpec command(StepSpec step) {
    CommandSpec spec = CommandSpec.wrapWithoutInspection((Runnable) () -> {});
    spec.usageMessage().description(step.does()).sortOptions(false).width(100);
    for (StepSpec.Input input : step.inputs()) {
      spec.addOption(OptionSpec.builder("--" + input.name())
          .type(input.several() ? Path[].class : Path.class)
          .arity(input.several() ? "1..*" : "1")
          .paramLabel("FILE")
          .required(!input.optional())
          .description(input.does())
          .build());
    }
    for (StepSpec.Option option : step.options()) {
      String range = option.range().isEmpty() ? "" : " [" + option.range() + "]";
      String initial = option.isRequired() ? "" : " Initially " + option.initial() + ".";
      spec.addOption(OptionSpec.builder("--" + option.name())
          .type(String.class)
          .paramLabel(option.unit().isEmpty() ? "VALUE" : option.unit().toUpperCase(Locale.ROOT))
          .required(option.isRequired())
          .description(escape(option.does() + range + initial))
          .build());
    }
    boolean writes =
        !Report.class.isAssignableFrom(step.resultType()) && step.resultType() != Path.class;
    spec.addOption(OptionSpec.builder("--out")
        .type(Path.class)
        .paramLabel("FILE")
        .required(writes)
        .description("File to write the result to; its ending tells the kind.")
        .build());
    if (writes) {
      spec.addOption(OptionSpec.builder("--compression")
          .type(Compression.class)
          .defaultValue("DEFLATE")
          .description("Of a raster result: none, lzw, deflate, zstd. Initially deflate.")
          .build());
      spec.addOption(OptionSpec.builder("--no-overviews")
          .type(boolean.class)
          .description("Write a raster result without reduced copies.")
          .build());
    }
    spec.addOption(OptionSpec.builder("--threads")
        .type(int.class)
        .defaultValue("" + Runtime.getRuntime().availableProcessors())
        .description("How many threads to use.")
        .build());
    spec.addOption(OptionSpec.builder("--tile-size")
        .type(int.class)
        .defaultValue("512")
        .description("Side of computing tiles; results do not depend on it.")
        .build());
    spec.addOption(OptionSpec.builder("--json")
        .type(boolean.class)
        .description("End the output with one JSON object.")
        .build());
    spec.addOption(help());
    spec.parser().caseInsensitiveEnumValuesAllowed(true);
    CommandSpec finished = CommandSpec.wrapWithoutInspection(new Runs(step, spec));
    finished.usageMessage().description(escape(step.does())).sortOptions(false).width(100);
    finished.parser().caseInsensitiveEnumValuesAllowed(true);
    spec.options().forEach(finished::addOption);
    ((Runs) finished.userObject()).spec = finished;
    return finished;
  }

  private static String escape(String text) {
    return text.replace("%", "%%");
  }

  /** What a step's command does. */
  private static final class Runs implements Runnable {
    private final StepSpec step;
    private CommandSpec spec;

    Runs(StepSpec step, CommandSpec spec) {
      this.step = step;
      this.spec = spec;
    }

    private <T> T value(String option) {
      return spec.findOption(option).getValue();
    }

    @Override
    public void run() {
      PrintWriter out = spec.commandLine().getOut();
      int threads = StepCommands.Runs.this.<Integer>value("--threads");
      int tile = StepCommands.Runs.this.<Integer>value("--tile-size");
      if (threads < 1 || tile < 16) {
        throw new RasterException("At least one thread and tiles of 16 pixels are needed.");
      }
      ConsoleJob job = new ConsoleJob(spec.commandLine().getErr(), threads, tile);
      Map<String, Object> inputs = new HashMap<>();
      for (StepSpec.Input input : step.inputs()) {
        if (input.several()) {
          Path[] files = value("--" + input.name());
          for (int i = 0; i < files.length; i++) {
            inputs.put(input.nth(i + 1), ResultKinds.open(files[i], input.type(), job));
          }
          continue;
        }
        Path file = value("--" + input.name());
        if (file != null) {
          inputs.put(input.name(), ResultKinds.open(file, input.type(), job));
        }
      }
      Map<String, String> settings = new LinkedHashMap<>();
      for (StepSpec.Option option : step.options()) {
        String text = value("--" + option.name());
        if (text != null) {
          settings.put(option.name(), text);
        }
      }
      long start = System.nanoTime();
      Object result = step.make(inputs, settings).run(job);
      Path file = value("--out");
      ObjectNode json = Json.object().put("step", step.id());
      if (result instanceof Report report) {
        out.println(report.toText());
        json.set(report instanceof Scores ? "scores" : "report", report.toJson());
        if (file != null) {
          Json.write(report.toJson(), file);
        }
      } else if (result instanceof Path written) {
        out.println(written);
        json.put("out", written.toString());
      } else {
        boolean bare = Boolean.TRUE.equals(StepCommands.Runs.this.<Boolean>value("--no-overviews"));
        ResultKind.Delivery delivery =
            new ResultKind.Delivery("outlines", value("--compression"), !bare);
        ResultKinds.write(result, file, delivery, job);
        out.println(file + ": " + ResultKinds.describe(result));
        json.put("out", file.toString());
        if (result instanceof Raster raster) {
          json.put("width", raster.grid().width()).put("height", raster.grid().height());
        }
      }
      json.put("seconds", Math.round((System.nanoTime() - start) / 1e7) / 100.0);
      Boolean wantsJson = value("--json");
      if (Boolean.TRUE.equals(wantsJson)) {
        out.println(Json.line(json));
      }
      out.flush();
    }
  }
}
