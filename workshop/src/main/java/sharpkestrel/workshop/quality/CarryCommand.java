package sharpkestrel.workshop.quality;

import java.io.PrintWriter;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.locationtech.jts.geom.Geometry;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Spec;
import sharpkestrel.check.Compare;
import sharpkestrel.check.Scores;
import sharpkestrel.check.SegmentFit;
import sharpkestrel.demo.DemoData;
import sharpkestrel.demo.Mixture;
import sharpkestrel.demo.Survey;
import sharpkestrel.demo.SurveyMaker;
import sharpkestrel.expr.Cql2;
import sharpkestrel.flow.KeptResults;
import sharpkestrel.flow.RunSheet;
import sharpkestrel.flow.Runner;
import sharpkestrel.flow.StepCatalogue;
import sharpkestrel.geo.OutlineSet;
import sharpkestrel.kinds.ResultKinds;
import sharpkestrel.objects.ObjectSet;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.RasterException;
import sharpkestrel.segment.Cut;

/** How far what ships carries: the same merging, model and sheet on every region, season, instrument and sky of the mixture. */
@Command(
    name = "carry",
    description =
        "Measures on held-out seeds how what ships does in each region, season, instrument and sky; writes what came out.",
    mixinStandardHelpOptions = true)
public final class CarryCommand implements Runnable {

  private static final Path SHEET = Path.of("docs/examples/metal-roofs.json");
  private static final String WHOLE = "area >= 25 AND whole = 1";
  private static final String FORGIVEN = "area < 25 OR whole = 0";
  private static final double HALF = 0.5;

  @Mixin
  HeldOut on = new HeldOut();

  @Option(names = "--only", description = "Only circumstances that have this word.")
  String only = "";

  @Option(names = "--out", description = "The page to write.")
  Path page = Path.of("docs/quality/carry.md");

  @Spec
  CommandSpec spec;

  /**
   * What came out of one scene; NaN where something could not be done, and what was said then.
   *
   * @param plain mean best overlap of roofs with any node of the tree by likeness, {@code learned} of the one by the criterion that
   *     ships
   * @param found F1 of all roofs by the model that ships, {@code sheet} of metal roofs by the sheet of thresholds
   */
  private record Row(
      Mixture.Part part,
      int roofs,
      double plain,
      double learned,
      double found,
      double sheet,
      List<String> said) {}

  @Override
  public void run() {
    on.check();
    PrintWriter out = spec.commandLine().getOut();
    Job job = HeldOut.job(spec);
    List<Row> rows = new ArrayList<>();
    for (long seed : on.seeds) {
      for (Mixture.Part part : Mixture.report(seed)) {
        if (only.isEmpty() || part.words().contains(only)) {
          Row row = row(part, job);
          rows.add(row);
          out.printf(
              Locale.ROOT,
              "seed %d, %s: %d roofs, any node %.3f by likeness, %.3f learned; found F1 %.3f; sheet F1 %.3f %s%n",
              seed,
              part.title(),
              row.roofs,
              row.plain,
              row.learned,
              row.found,
              row.sheet,
              row.said);
          out.flush();
        }
      }
    }
    HeldOut.write(spec, page, markdown(rows));
  }

  private Row row(Mixture.Part part, Job job) {
    Survey survey =
        SurveyMaker.make(DemoData.surveys(), part.order(on.size, Survey.Holds.FIRST_SCENE), job);
    Raster scene = SharpenedOrtho.TERRAIN_ORTHO.of(survey, job);
    OutlineSet truth = SharpenedOrtho.TERRAIN_ORTHO.roofs(survey).outlines();
    List<String> said = new ArrayList<>();
    if (truth.count() == 0) {
      said.add(part.title() + ", seed " + part.seed() + ": no roof in sight");
      return new Row(part, 0, Double.NaN, Double.NaN, Double.NaN, Double.NaN, said);
    }
    List<Geometry> roofs = wanted(truth);
    double plain =
        tree(scene, "likeness", said, job).map(cut -> anyNode(cut, roofs, job)).orElse(Double.NaN);
    Optional<Cut> learned = tree(scene, "learned", said, job);
    double carried = learned.map(cut -> anyNode(cut, roofs, job)).orElse(Double.NaN);
    double found = learned.map(cut -> found(cut, scene, truth, said, job)).orElse(Double.NaN);
    return new Row(part, roofs.size(), plain, carried, found, sheet(part, survey, said, job), said);
  }

  private static List<Geometry> wanted(OutlineSet truth) {
    double[] wanted = Cql2.parseTest(WHOLE).evaluate(truth.table());
    return IntStream.range(0, wanted.length)
        .filter(i -> wanted[i] == 1)
        .mapToObj(truth.outlines()::get)
        .toList();
  }

  private static double anyNode(Cut cut, List<Geometry> roofs, Job job) {
    return roofs.isEmpty()
        ? Double.NaN
        : SegmentFit.of(cut, roofs, job).ofAnyNode().meanIou();
  }

  private static Optional<Cut> tree(Raster scene, String criterion, List<String> said, Job job) {
    try {
      return Optional.of((Cut) StepCatalogue.get("segment")
          .make(Map.of("scene", scene), Map.of("criterion", criterion))
          .run(job.withoutWarnings()));
    } catch (RasterException refused) {
      said.add(criterion + ": " + refused.getMessage());
      return Optional.empty();
    }
  }

  private static double found(Cut cut, Raster scene, OutlineSet truth, List<String> said, Job job) {
    try {
      ObjectSet found = (ObjectSet) StepCatalogue.get("find-objects")
          .make(new HashMap<>(Map.of("tree", cut, "scene", scene)), Map.of())
          .run(job.withoutWarnings());
      OutlineSet outlines = (OutlineSet) ResultKinds.as(found, OutlineSet.class);
      return new Compare(outlines, truth, WHOLE, FORGIVEN, HALF).run(job).f1();
    } catch (RasterException refused) {
      said.add("find-objects: " + refused.getMessage());
      return Double.NaN;
    }
  }

  /** The sheet of thresholds, where a delivery is such as it reads. */
  private double sheet(Mixture.Part part, Survey survey, List<String> said, Job job) {
    if (part.scheme().instrument().pan().isEmpty()
        || !part.scheme().instrument().hasGains()) {
      return Double.NaN;
    }
    Path folder = DemoData.home().resolve("runs/carry-" + survey.folder().getFileName());
    Map<String, String> values = new LinkedHashMap<>();
    values.put("survey", survey.folder().toString());
    values.put("out", folder.toString());
    try {
      return new Runner(new KeptResults(folder), List.of(folder))
              .run(RunSheet.read(SHEET), values, job.withoutWarnings(), (entry, value) -> {})
              .values()
              .stream()
              .filter(Scores.class::isInstance)
              .map(value -> ((Scores) value).f1())
              .findFirst()
              .orElse(Double.NaN);
    } catch (RasterException refused) {
      said.add("sheet: " + refused.getMessage());
      return Double.NaN;
    }
  }

  private String markdown(List<Row> rows) {
    StringBuilder text = new StringBuilder("# How far what ships carries\n\n");
    text.append("`./kestrel carry --seeds ")
        .append(on.seedsText())
        .append(" --size ")
        .append(on.size)
        .append(only.isEmpty() ? "" : " --only " + only)
        .append(
            "`: the merging criterion and the model of roofs that ship were learned on the isles alone (six-bands, leaf-on); the"
                + " sheet is `docs/examples/metal-roofs.json`. Scenes are orthorectified over the terrain and sharpened where"
                + " there is a panchromatic band. *Any node* is the mean best intersection over union of a roof of 25 m² and"
                + " more with any node of the merge tree; F1 is at an intersection over union of 0.5, means of the seeds. The"
                + " marked ones are left out of the mixture that anything is learned from later"
                + " (`mixture.json`).\n\n"
                + "| circumstances | left out | roofs | any node, likeness | any node, learned | roofs found, F1 | metal by"
                + " thresholds, F1 |\n|---|---|---|---|---|---|---|\n");
    Map<String, List<Row>> grouped = rows.stream()
        .collect(Collectors.groupingBy(
            row -> row.part.title(), LinkedHashMap::new, Collectors.toList()));
    grouped.forEach((title, group) -> text.append(String.format(
        Locale.ROOT,
        "| %s | %s | %d | %s | %s | %s | %s |%n",
        title,
        group.getFirst().part.leftOut() ? "yes" : "",
        group.stream().mapToInt(Row::roofs).sum(),
        mean(group.stream().mapToDouble(Row::plain).toArray()),
        mean(group.stream().mapToDouble(Row::learned).toArray()),
        mean(group.stream().mapToDouble(Row::found).toArray()),
        mean(group.stream().mapToDouble(Row::sheet).toArray()))));
    List<String> said =
        rows.stream().flatMap(row -> row.said.stream()).distinct().toList();
    if (!said.isEmpty()) {
      text.append("\nWhat was refused:\n\n");
      said.forEach(each -> text.append("- ").append(each).append('\n'));
    }
    return text.toString();
  }

  private static String mean(double[] values) {
    double sum = 0;
    int count = 0;
    for (double value : values) {
      if (!Double.isNaN(value)) {
        sum += value;
        count++;
      }
    }
    return count == 0 ? "–" : String.format(Locale.ROOT, "%.3f", sum / count);
  }
}
