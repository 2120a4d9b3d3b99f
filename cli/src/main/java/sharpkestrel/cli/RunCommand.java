package sharpkestrel.cli;

import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.PrintWriter;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;
import sharpkestrel.check.Scores;
import sharpkestrel.demo.DemoData;
import sharpkestrel.flow.KeptResults;
import sharpkestrel.flow.RunSheet;
import sharpkestrel.flow.Runner;
import sharpkestrel.io.Json;
import sharpkestrel.io.Report;
import sharpkestrel.kinds.ResultKinds;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Scratch;

@Command(
    name = "run",
    description =
        "Runs the steps of a run sheet. A variable such as demo:101 or demo:101:2048 is a demo survey of that seed and"
            + " size, made where it is not there yet.",
    mixinStandardHelpOptions = true)
final class RunCommand implements Runnable {

  @Parameters(paramLabel = "SHEET", description = "The run sheet (JSON).")
  Path sheet;

  @Option(
      names = "--set",
      paramLabel = "NAME=VALUE",
      description = "Replaces a variable of the sheet.")
  Map<String, String> variables = new LinkedHashMap<>();

  @Option(names = "--work", description = "Folder for kept rasters and for results.")
  Path work;

  @Option(
      names = "--to",
      paramLabel = "FOLDER",
      description =
          "Lets the sheet write files there, too; else only within the folder for results.")
  List<Path> to = new ArrayList<>();

  @Option(names = "--threads", description = "How many threads to use.")
  int threads = Runtime.getRuntime().availableProcessors();

  @Option(names = "--json", description = "End the output with one JSON object.")
  boolean json;

  @Option(
      names = "--digests",
      description = "Tell what each result is by a digest of its pixels, numbers and shapes.")
  boolean digests;

  @Spec
  CommandSpec spec;

  @Override
  public void run() {
    PrintWriter out = spec.commandLine().getOut();
    ConsoleJob job = new ConsoleJob(spec.commandLine().getErr(), threads, 512);
    Map<String, Object> results = run(sheet, variables, folder(), to, job, out);
    if (json) {
      ObjectNode result = Json.object().put("sheet", sheet.toString());
      ObjectNode scores = result.putObject("scores");
      results.forEach((name, value) -> {
        if (value instanceof Scores found) {
          scores.set(name, found.toJson());
        }
      });
      if (digests) {
        ObjectNode all = result.putObject("digests");
        results.forEach((name, value) -> all.put(name, ResultKinds.digest(value, job)));
      }
      out.println(Json.line(result));
    } else if (digests) {
      results.forEach((name, value) -> out.println(ResultKinds.digest(value, job) + "  " + name));
    }
    out.flush();
  }

  private Path folder() {
    return work != null
        ? work
        : DemoData.home()
            .resolve("runs")
            .resolve(sheet.getFileName().toString().replace(".json", ""));
  }

  /**
   * Runs a sheet and prints a line for each step as it is done.
   *
   * @return results by name
   */
  static Map<String, Object> run(
      Path sheet,
      Map<String, String> variables,
      Path folder,
      List<Path> to,
      Job job,
      PrintWriter out) {
    RunSheet read = RunSheet.read(sheet);
    if (!read.title().isEmpty()) {
      out.println(read.title());
    }
    Map<String, String> values = resolved(read, variables, folder, job);
    values.forEach((name, value) -> out.println("  " + name + " = " + value));
    if (values.values().stream().anyMatch(DemoData::isForTuning)) {
      job.warn(
          "This survey's seed is one that settings may be tuned on: what comes out is no report. Reports are made"
              + " on seeds " + DemoData.FIRST_HELD_OUT + " and up.");
    }
    out.flush();
    long start = System.nanoTime();
    KeptResults kept = new KeptResults(folder);
    kept.sweep();
    Scratch.in(folder.resolve("scratch"));
    List<Path> writable = new ArrayList<>(to);
    writable.add(folder);
    if (variables.containsKey("out")) {
      writable.add(Path.of(variables.get("out")));
    }
    return new Runner(kept, writable).run(read, values, job, (entry, value) -> {
      out.printf(
          "%6.1f s  %-18s %s%n",
          (System.nanoTime() - start) / 1e9, entry.name(), ResultKinds.describe(value));
      if (value instanceof Report found) {
        out.println(found.toText().indent(10).stripTrailing());
      }
      out.flush();
    });
  }

  /** Variables with demo surveys made and named by their folders; {@code out} is where results go. */
  static Map<String, String> resolved(
      RunSheet sheet, Map<String, String> given, Path folder, Job job) {
    Map<String, String> values = new LinkedHashMap<>(sheet.variables());
    values.putAll(given);
    values.replaceAll((name, value) -> DemoData.resolve(value, job));
    values.putIfAbsent("out", folder.toString());
    return values;
  }
}
