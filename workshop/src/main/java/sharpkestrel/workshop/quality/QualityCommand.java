package sharpkestrel.workshop.quality;

import java.io.PrintWriter;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Spec;
import sharpkestrel.check.Scores;
import sharpkestrel.demo.DemoData;
import sharpkestrel.demo.Survey;
import sharpkestrel.flow.KeptResults;
import sharpkestrel.flow.RunSheet;
import sharpkestrel.flow.Runner;
import sharpkestrel.io.AtomicFile;
import sharpkestrel.io.Layer;
import sharpkestrel.objects.ObjectSet;
import sharpkestrel.raster.Job;

@Command(
    name = "quality",
    description = "Runs the shipped run sheet on held-out seeds and writes what came out.",
    mixinStandardHelpOptions = true)
public final class QualityCommand implements Runnable {

  @Option(names = "--sheet", description = "The run sheet to report on.")
  Path sheet = Path.of("docs/examples/metal-roofs.json");

  @Mixin
  HeldOut on = new HeldOut();

  @Option(
      names = "--baseline",
      description =
          "Also find the best that one range of one feature can do; takes minutes a seed.")
  boolean baseline;

  @Option(names = "--out", description = "The page to write.")
  Path page = Path.of("docs/quality/metal-roofs.md");

  @Spec
  CommandSpec spec;

  private record Row(long seed, Scores scores, SingleFeature.Best best, double seconds) {}

  @Override
  public void run() {
    on.check();
    PrintWriter out = spec.commandLine().getOut();
    Job job = HeldOut.job(spec);
    RunSheet read = RunSheet.read(sheet);
    List<Row> rows = new ArrayList<>();
    for (long seed : on.seeds) {
      String survey = DemoData.resolve("demo:" + seed + ":" + on.size, job);
      Path folder = DemoData.home().resolve("runs/quality-" + seed + "-" + on.size);
      Map<String, String> values = new LinkedHashMap<>();
      values.put("survey", survey);
      values.put("out", folder.toString());
      long start = System.nanoTime();
      Map<String, Object> results = new Runner(new KeptResults(folder), List.of(folder))
          .run(read, values, job, (entry, value) -> {});
      double seconds = (System.nanoTime() - start) / 1e9;
      Scores scores = (Scores)
          results.values().stream().filter(v -> v instanceof Scores).findFirst().orElseThrow();
      ObjectSet measured = (ObjectSet) results.values().stream()
          .filter(v -> v instanceof ObjectSet)
          .findFirst()
          .orElseThrow();
      Layer truth = sharpkestrel.io.GeoPackage.read(new Survey(Path.of(survey)).roofsInOrtho(), "");
      SingleFeature.Best best =
          baseline ? SingleFeature.best(measured, truth, job) : SingleFeature.Best.UNKNOWN;
      rows.add(new Row(seed, scores, best, seconds));
      out.printf(
          Locale.ROOT,
          "seed %d%s: F1 %.3f (precision %.3f, recall %.3f, mean IoU %.3f); best single feature %s; %.1f s%n",
          seed,
          seed < DemoData.FIRST_HELD_OUT ? " (may be tuned on)" : "",
          scores.f1(),
          scores.precision(),
          scores.recall(),
          scores.meanIou(),
          best.cells(),
          seconds);
      out.flush();
    }
    AtomicFile.write(page, temporary -> Files.writeString(temporary, markdown(rows)));
  }

  private String markdown(List<Row> rows) {
    StringBuilder text = new StringBuilder();
    text.append(
        on.onTuningSeeds
            ? "# Sheet-metal roofs, on seeds that settings may be tuned on: no report\n\n"
            : "# Sheet-metal roofs on held-out seeds\n\n");
    text.append("`./kestrel quality --seeds ");
    text.append(on.seedsText());
    text.append(" --size ").append(on.size).append(baseline ? " --baseline" : "");
    text.append("` runs `").append(sheet);
    text.append(
        "` unchanged. Roofs of 25 m² and more, matched at IoU 0.5 with the roof outlines as they lie in the");
    text.append(
        " terrain ortho. With `--baseline`, the last columns are the best that one threshold of one feature of the same objects");
    text.append(
        " can do, chosen with knowledge of the truth, joined and squared likewise, outlines under 20 m² left out.\n\n");
    text.append(
        "| seed | true | found | precision | recall | F1 | mean IoU | area error | best single feature | its F1 | seconds |\n");
    text.append("|---|---|---|---|---|---|---|---|---|---|---|\n");
    double f1 = 0;
    for (Row row : rows) {
      Scores s = row.scores();
      f1 += s.f1() / rows.size();
      text.append(String.format(
          Locale.ROOT,
          "| %d | %d | %d | %.3f | %.3f | %.3f | %.3f | %+.1f %% | %s | %.1f |%n",
          row.seed(),
          s.truth(),
          s.found(),
          s.precision(),
          s.recall(),
          s.f1(),
          s.meanIou(),
          100 * s.areaError(),
          row.best().cells(),
          row.seconds()));
    }
    return text.append(String.format(Locale.ROOT, "%nMean F1 %.3f.%n", f1)).toString();
  }
}
