package sharpkestrel.workshop.quality;

import java.io.PrintWriter;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Spec;
import sharpkestrel.check.Compare;
import sharpkestrel.check.Scores;
import sharpkestrel.demo.DemoData;
import sharpkestrel.demo.Scenario;
import sharpkestrel.demo.Survey;
import sharpkestrel.demo.SurveyMaker;
import sharpkestrel.expr.Table;
import sharpkestrel.extract.FindObjects;
import sharpkestrel.extract.everysize.Finder;
import sharpkestrel.extract.everysize.FinderFile;
import sharpkestrel.extract.everysize.FinderSchool;
import sharpkestrel.extract.learner.Learner;
import sharpkestrel.extract.learner.Samples;
import sharpkestrel.flow.StepCatalogue;
import sharpkestrel.geo.OutlineSet;
import sharpkestrel.io.GeoPackage;
import sharpkestrel.io.RasterFiles;
import sharpkestrel.kinds.ResultKinds;
import sharpkestrel.objects.ObjectSet;
import sharpkestrel.place.HeightModels;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.RasterException;
import sharpkestrel.segment.Cut;
import sharpkestrel.segment.MergingSchool;
import sharpkestrel.segment.learn.MergingModel;

/** Learns what roofs or vessels look like among all nodes of a tree, and how many are found on surveys that were not learned from. */
@Command(
    name = "extract-quality",
    description = {
      "Learns roofs of every size on some demo surveys, or vessels with a merging of their own, finds them on held-out ones, and writes",
      "docs/quality/extract-SIZE.md.",
      "With --keep the model is written, as the application ships it."
    },
    mixinStandardHelpOptions = true)
public final class ExtractQualityCommand implements Runnable {

  private static final int USUAL_SEEDS = 9;
  private static final String SMALL_ROOF = "area < 25 OR whole = 0";

  /** What is looked for: a name, the classes that find it, and the test of the outlines that count. */
  private record Target(String title, List<String> classes, String wanted, String forgiven) {

    static Target ofMaterial(String material) {
      String test = "material = '" + material + "' AND ";
      return new Target(
          material + " roofs of 25 m² and more",
          List.of(material),
          test + "area >= 25 AND whole = 1",
          test + "(" + SMALL_ROOF + ")");
    }

    /** Whether it is one of those that macro F1 is the mean of. */
    boolean isOneMaterial() {
      return classes.size() == 1;
    }
  }

  /** What is learned. */
  enum Things {
    ROOFS(
        "roofs-terrain-ortho.gpkg",
        20,
        List.of(
            Target.ofMaterial("metal"),
            new Target(
                "all roofs of 25 m² and more", List.of(), "area >= 25 AND whole = 1", SMALL_ROOF))),
    VESSELS(
        "vessels-terrain-ortho.gpkg",
        8,
        List.of(new Target(
            "vessels of 8 m and more",
            List.of(),
            "length >= 8 AND whole = 1",
            "length < 8 OR whole = 0")));

    private final String truth;
    private final double leastArea;
    private final List<Target> targets;

    Things(String truth, double leastArea, List<Target> targets) {
      this.truth = truth;
      this.leastArea = leastArea;
      this.targets = targets;
    }

    OutlineSet outlines(Survey survey, SharpenedOrtho product) {
      return this == ROOFS
          ? product.roofs(survey).outlines()
          : GeoPackage.read(survey.truth("scene-one", truth), "").outlines();
    }

    /** What is looked for with a model: for roofs also each of its materials by itself. */
    List<Target> targets(Finder finder) {
      List<Target> all = new ArrayList<>(targets);
      for (String material : this == ROOFS ? finder.classes() : List.<String>of()) {
        if (!material.equals("metal") && !material.equals(Finder.OTHER)) {
          all.add(Target.ofMaterial(material));
        }
      }
      return all;
    }

    String plural() {
      return name().toLowerCase(Locale.ROOT);
    }

    /** The outlines with their class in the column {@code class}: roofs by material, vessels all alike. */
    Samples samples(Survey survey, SharpenedOrtho product) {
      OutlineSet all = outlines(survey, product);
      if (this == ROOFS) {
        return Samples.of(all, "material");
      }
      List<String> one = Collections.nCopies(all.count(), "vessel");
      return Samples.of(
          new OutlineSet(
              all.crs(),
              all.outlines(),
              new Table(all.count(), List.of(Table.Column.ofTexts("class", "Class", one)))),
          "class");
    }
  }

  @Mixin
  HeldOut on;

  @Option(names = "--things", description = "What is learned: ${COMPLETION-CANDIDATES}.")
  Things things = Things.ROOFS;

  @Option(names = "--criterion", description = "As of segment; likeness is the plain tree.")
  String criterion = "learned";

  @Option(
      names = "--with-heights",
      description = "On true orthos, with surface and terrain for the tree and for the model.")
  boolean withHeights;

  @Option(names = "--superpixel", description = "As of segment.")
  int superpixel = 25;

  @Option(names = "--learn", split = ",", description = "Surveys to learn from, seeds below 101.")
  List<Long> learn = List.of(1L, 2L, 3L, 4L, 5L, 6L, 7L, 8L, 9L);

  @Option(names = "--learn-size", description = "Panchromatic pixels along one side of those.")
  int learnSize = 2048;

  @Option(names = "--model", description = "A model to use; nothing is learned then.")
  Path model;

  @Option(names = "--least-probability", description = "As of find-objects.")
  double leastProbability = 0.3;

  @Option(names = "--keep", description = "Where to write what was learned.")
  Path keep;

  @Option(names = "--out", description = "Folder of the page.")
  Path folder = Path.of("docs/quality");

  @Spec
  CommandSpec spec;

  /** Of vessels what belongs together; empty for the merging that ships. */
  private Optional<MergingModel> merging = Optional.empty();

  private record Row(long seed, Target target, Scores half, Scores most) {}

  @Override
  public void run() {
    on.check();
    PrintWriter out = spec.commandLine().getOut();
    Job job = HeldOut.job(spec);
    if (things == Things.VESSELS && criterion.equals("learned")) {
      merging = Optional.of(merging(job));
    }
    Finder finder = model == null ? learned(job, out) : FinderFile.read(model);
    if (keep != null) {
      FinderFile.write(finder, keep);
    }
    List<Row> rows = new ArrayList<>();
    for (long seed : on.seeds) {
      Survey survey = on.survey(seed, 0, job);
      Raster scene = product().of(survey, job);
      OutlineSet truth = things.outlines(survey, product());
      HeightModels models = models(survey);
      Cut cut = tree(scene, models, job);
      for (Target target : things.targets(finder)) {
        ObjectSet found = new FindObjects(
                cut,
                scene,
                models,
                Optional.of(finder),
                target.classes,
                0.5,
                leastProbability,
                things.leastArea)
            .run(job);
        OutlineSet outlines = (OutlineSet) ResultKinds.as(found, OutlineSet.class);
        Row row = new Row(
            seed,
            target,
            scores(outlines, truth, target, 0.5, job),
            scores(outlines, truth, target, 0.7, job));
        rows.add(row);
        out.printf(
            Locale.ROOT,
            "seed %d, %s: F1 %.3f (precision %.3f, recall %.3f), at 0.7 %.3f%n",
            seed,
            target.title,
            row.half.f1(),
            row.half.precision(),
            row.half.recall(),
            row.most.f1());
        out.flush();
      }
    }
    write(finder, rows);
  }

  private static Scores scores(
      OutlineSet found, OutlineSet truth, Target target, double overlap, Job job) {
    return new Compare(found, truth, target.wanted, target.forgiven, overlap).run(job);
  }

  private SharpenedOrtho product() {
    return withHeights ? SharpenedOrtho.TRUE_ORTHO : SharpenedOrtho.TERRAIN_ORTHO;
  }

  private HeightModels models(Survey survey) {
    return withHeights
        ? new HeightModels(
            Optional.of(RasterFiles.open(survey.surface())),
            Optional.of(RasterFiles.open(survey.heights())))
        : HeightModels.NONE;
  }

  private Cut tree(Raster scene, HeightModels models, Job job) {
    Map<String, Object> inputs = new HashMap<>(Map.of("scene", scene));
    models.surface().ifPresent(surface -> inputs.put("surface", surface));
    models.heights().ifPresent(heights -> inputs.put("heights", heights));
    merging.ifPresent(learned -> inputs.put("model", learned));
    return (Cut) StepCatalogue.get("segment")
        .make(inputs, Map.of("criterion", criterion, "superpixel", String.valueOf(superpixel)))
        .run(job);
  }

  /** What belongs together, learned from the same things: a merging that was learned from roofs holds hardly half of the vessels. */
  private MergingModel merging(Job job) {
    List<MergingSchool> schools = new ArrayList<>();
    for (long seed : learn) {
      Survey survey = toLearnFrom(seed, job);
      schools.add(MergingSchool.of(
          SharpenedOrtho.TERRAIN_ORTHO.of(survey, job),
          things.outlines(survey, SharpenedOrtho.TERRAIN_ORTHO),
          job));
    }
    return MergingSchool.learn(schools, 3, "from " + things.plural(), job);
  }

  private Survey toLearnFrom(long seed, Job job) {
    if (seed >= DemoData.FIRST_HELD_OUT) {
      throw new RasterException("Seed " + seed
          + " is held out: reports are made on it, so nothing may be learned from it. Give seeds below "
          + DemoData.FIRST_HELD_OUT + ".");
    }
    Survey.Holds holds = withHeights ? Survey.Holds.ALL_FILES : Survey.Holds.FIRST_SCENE;
    return SurveyMaker.make(
        DemoData.surveys(), new Survey.Order(seed, learnSize, Scenario.WHOLE, 0, holds), job);
  }

  private Finder learned(Job job, PrintWriter out) {
    List<FinderSchool> schools = new ArrayList<>();
    int count = 0;
    List<String> classes = List.of();
    for (long seed : learn) {
      Survey survey = toLearnFrom(seed, job);
      Raster scene = product().of(survey, job);
      HeightModels models = models(survey);
      Samples samples = things.samples(survey, product());
      if (!classes.isEmpty() && !classes.equals(samples.classes())) {
        throw new RasterException(
            "Seed " + seed + " has other materials than the seeds before it.");
      }
      classes = samples.classes();
      OutlineSet outlines = new OutlineSet(
          scene.grid().crs(), samples.shapes(), new Table(samples.count(), List.of()));
      schools.add(FinderSchool.of(
          scene, models, tree(scene, models, job), outlines, samples.classOf(), job));
      count += samples.count();
      out.println("seed " + seed + ": " + samples.count() + " " + things.plural());
      out.flush();
    }
    return Finder.learn(
        schools,
        classes,
        Learner.BOOSTING,
        "from " + count + " " + things.plural() + " in " + learn.size()
            + " scenes of Fenwrack Sound with pixels of 0.5 m",
        1,
        job);
  }

  private String learnText() {
    return String.join(",", learn.stream().map(String::valueOf).toList());
  }

  private void write(Finder finder, List<Row> rows) {
    StringBuilder page = new StringBuilder();
    page.append("# ")
        .append(things == Things.ROOFS ? "Roofs" : "Vessels")
        .append(" of every size\n\n");
    page.append("Made by `./kestrel extract-quality --size=").append(on.size).append(" --seeds=");
    page.append(on.seedsText()).append(model == null ? "" : " --model " + model);
    page.append(things == Things.ROOFS ? "" : " --things=" + things);
    page.append(model == null && learn.size() != USUAL_SEEDS ? " --learn=" + learnText() : "");
    page.append(criterion.equals("learned") ? "" : " --criterion=" + criterion);
    page.append(withHeights ? " --with-heights" : "");
    page.append(superpixel == 25 ? "" : " --superpixel=" + superpixel).append("`. ");
    page.append(
            withHeights
                ? "On true orthos, heights above the ground beside the imagery; the model was learned "
                : "Imagery alone; the model was learned ")
        .append(finder.classifier().about());
    page.append(", none of them below. Overlap is intersection over union with the true outlines.");
    page.append(on.tuningNote());
    page.append("\n\n| what | seed | F1 at 0.5 | precision | recall | F1 at 0.7 |\n");
    page.append("|---|---|---|---|---|---|\n");
    Map<Target, double[]> sums = new LinkedHashMap<>();
    for (Row row : rows) {
      page.append(String.format(
          Locale.ROOT,
          "| %s | %d | %.3f | %.3f | %.3f | %.3f |%n",
          row.target.title,
          row.seed,
          row.half.f1(),
          row.half.precision(),
          row.half.recall(),
          row.most.f1()));
      double[] sum = sums.computeIfAbsent(row.target, t -> new double[2]);
      sum[0] += row.half.f1() / on.seeds.size();
      sum[1] += row.most.f1() / on.seeds.size();
    }
    sums.forEach((target, sum) -> page.append(String.format(
        Locale.ROOT,
        "| %s | **mean** | **%.3f** | | | **%.3f** |%n",
        target.title,
        sum[0],
        sum[1])));
    double[] macro = new double[2];
    List<Map.Entry<Target, double[]>> materials =
        sums.entrySet().stream().filter(entry -> entry.getKey().isOneMaterial()).toList();
    for (Map.Entry<Target, double[]> each : materials) {
      macro[0] += each.getValue()[0] / materials.size();
      macro[1] += each.getValue()[1] / materials.size();
    }
    if (materials.size() > 1) {
      page.append(String.format(
          Locale.ROOT,
          "| by material | **macro F1** | **%.3f** | | | **%.3f** |%n",
          macro[0],
          macro[1]));
    }
    Path file = folder.resolve((things == Things.ROOFS ? "extract" : things.plural())
        + (criterion.equals("learned") ? "-" : "-" + criterion + "-")
        + (withHeights ? "heights-" : "") + on.size + ".md");
    HeldOut.write(spec, file, page);
  }
}
