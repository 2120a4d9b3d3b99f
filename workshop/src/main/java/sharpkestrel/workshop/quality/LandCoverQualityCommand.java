package sharpkestrel.workshop.quality;

import java.io.PrintWriter;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Random;
import java.util.stream.IntStream;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Spec;
import sharpkestrel.demo.Survey;
import sharpkestrel.expr.Table;
import sharpkestrel.extract.LearnBy;
import sharpkestrel.extract.LearnClasses;
import sharpkestrel.extract.learner.Classifier;
import sharpkestrel.extract.learner.Confusion;
import sharpkestrel.extract.learner.Learner;
import sharpkestrel.extract.learner.NextQuestion;
import sharpkestrel.extract.learner.ObjectSamples;
import sharpkestrel.flow.StepCatalogue;
import sharpkestrel.io.GeoPackage;
import sharpkestrel.io.Layer;
import sharpkestrel.io.RasterFiles;
import sharpkestrel.objects.ObjectGeometry;
import sharpkestrel.objects.ObjectSet;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Raster;

/** How well land cover is told by object from a few samples, and what questions save against labels at random places. */
@Command(
    name = "land-cover-quality",
    description = {
      "Lets a simulated user label some objects of nine classes of land cover, classifies all others, and writes",
      "docs/quality/land-cover-SIZE.md; then the same by answers to questions against labels at random places."
    },
    mixinStandardHelpOptions = true)
public final class LandCoverQualityCommand implements Runnable {

  /** So much of an object must be of one class for somebody to point at it as an example. */
  private static final double PLAIN = 0.8;

  @Mixin
  HeldOut on;

  /** What objects are told apart by. */
  enum Of {
    COVER,
    ROOFS
  }

  @Option(
      names = "--of",
      description =
          "Nine classes of land cover for all objects, or the material for those that are roofs: ${COMPLETION-CANDIDATES}.")
  Of of = Of.COVER;

  @Option(names = "--samples", description = "Objects of each class that are labelled.")
  int samples = 15;

  @Option(names = "--method", description = "As of classify-objects.")
  Learner method = Learner.EXTREME_TREES;

  @Option(names = "--grain", description = "As of segment, in square metres.")
  double grain = 200;

  @Option(names = "--criterion", description = "As of segment.")
  String criterion = "likeness";

  @Option(names = "--heights", description = "With the height models of the survey.")
  boolean heights;

  @Option(names = "--trials", description = "Users, each with other labels.")
  int trials = 3;

  @Option(names = "--questions", description = "Answers to questions, the first 20 at random.")
  int questions = 60;

  @Option(
      names = "--keep-samples",
      description = "Where to write what the first user labelled of each class on the first seed.")
  Path keep;

  @Option(names = "--out", description = "Folder of the page.")
  Path folder = Path.of("docs/quality");

  @Spec
  CommandSpec spec;

  /** A share of ground, of objects, and of those that are plainly of one class that was told right; mean F1 of the classes by object. */
  private record Row(
      long seed, int trial, String how, double ground, double objects, double plain, double f1) {}

  @Override
  public void run() {
    on.check();
    PrintWriter out = spec.commandLine().getOut();
    Job job = HeldOut.job(spec);
    List<Row> rows = new ArrayList<>();
    for (long seed : on.seeds) {
      Survey survey = on.withCover(seed, job);
      Raster scene = SharpenedOrtho.TRUE_ORTHO.of(survey, job);
      Map<String, Object> inputs = new HashMap<>(Map.of("scene", scene));
      if (heights) {
        inputs.put("surface", RasterFiles.open(survey.surface()));
        inputs.put("heights", RasterFiles.open(survey.heights()));
      }
      Object cut = StepCatalogue.get("segment")
          .make(inputs, Map.of("grain", String.valueOf(grain), "criterion", criterion))
          .run(job);
      inputs.put("objects", cut);
      ObjectSet objects =
          (ObjectSet) StepCatalogue.get("measure").make(inputs, Map.of()).run(job);
      Person person = new Person(objects, truth(objects, survey), job);
      for (int trial = 0; trial < trials; trial++) {
        Random random = new Random(104_729L * trial + 7);
        if (keep != null && seed == on.seeds.getFirst() && trial == 0) {
          person.write(person.ofEach(samples, new Random(7)), keep);
        }
        int[] random180 = person.atRandom(3 * questions, random);
        List<Row> now = List.of(
            person.row(seed, trial, samples + " a class", person.ofEach(samples, random)),
            person.row(seed, trial, questions + " answers", person.asked(random180)),
            person.row(seed, trial, questions + " at random", Arrays.copyOf(random180, questions)),
            person.row(seed, trial, 3 * questions + " at random", random180));
        for (Row row : now) {
          out.printf(
              Locale.ROOT,
              "seed %d, user %d, %s: %.3f of the ground, %.3f of the objects, %.3f of plain ones, macro F1 %.3f%n",
              row.seed,
              row.trial + 1,
              row.how,
              row.ground,
              row.objects,
              row.plain,
              row.f1);
        }
        out.flush();
        rows.addAll(now);
      }
    }
    write(rows);
  }

  private ObjectTruth truth(ObjectSet objects, Survey survey) {
    return of == Of.COVER
        ? ObjectTruth.ofCover(objects, survey)
        : ObjectTruth.ofRoofs(objects, SharpenedOrtho.TRUE_ORTHO.roofs(survey).outlines());
  }

  /** Somebody who knows what everything is. */
  private final class Person {
    private static final int START = 20;

    private final ObjectSet objects;
    private final ObjectTruth truth;
    private final int classCount;
    private final Job job;
    private final int[] rows;

    Person(ObjectSet objects, ObjectTruth truth, Job job) {
      this.objects = objects;
      this.truth = truth;
      classCount = truth.classes().size();
      this.job = job;
      rows = IntStream.range(0, objects.count())
          .filter(row -> truth.most(row) >= 0)
          .toArray();
    }

    /** Plain examples of each class. */
    int[] ofEach(int count, Random random) {
      List<Integer> order = shuffled(random);
      int[] left = new int[classCount];
      Arrays.fill(left, count);
      return order.stream()
          .filter(row -> truth.purity(row) >= PLAIN && left[truth.most(row)]-- > 0)
          .mapToInt(Integer::intValue)
          .toArray();
    }

    void write(int[] labelled, Path file) {
      ObjectGeometry places = ObjectGeometry.of(objects);
      List<String> classes = Arrays.stream(labelled)
          .mapToObj(row -> truth.classes().get(truth.most(row)))
          .toList();
      Layer layer = new Layer(
          "samples",
          objects.labels().grid().crs(),
          Arrays.stream(labelled).mapToObj(places::outline).toList(),
          new Table(classes.size(), List.of(Table.Column.ofTexts("class", "Class", classes))),
          Map.of());
      GeoPackage.write(layer, file);
    }

    /** Objects as they come. */
    int[] atRandom(int count, Random random) {
      return shuffled(random).stream().limit(count).mapToInt(Integer::intValue).toArray();
    }

    private List<Integer> shuffled(Random random) {
      List<Integer> order = new ArrayList<>(Arrays.stream(rows).boxed().toList());
      Collections.shuffle(order, random);
      return order;
    }

    /** The first few of some labels, then what is asked for. */
    int[] asked(int[] start) {
      List<Integer> labelled =
          new ArrayList<>(Arrays.stream(start).limit(START).boxed().toList());
      NextQuestion next = new NextQuestion(LearnClasses.columns(objects.table()), 1);
      while (labelled.size() < questions) {
        float[] shares = shares(ints(labelled), Learner.EXTREME_TREES, false);
        int classes = shares.length / objects.count();
        double[] doubts = IntStream.range(0, objects.count())
            .mapToDouble(row -> Confusion.doubt(shares, row * classes, classes))
            .toArray();
        boolean[] known = new boolean[objects.count()];
        Arrays.fill(known, true);
        for (int row : rows) {
          known[row] = false;
        }
        labelled.forEach(row -> known[row] = true);
        labelled.add(next.next(doubts, known, ints(labelled)));
      }
      return ints(labelled);
    }

    private int[] ints(List<Integer> list) {
      return list.stream().mapToInt(Integer::intValue).toArray();
    }

    /** Probabilities of the classes that two labels or more have, and which those are. */
    private float[] shares(int[] labelled, Learner how, boolean weighs) {
      Classifier classifier = classifier(labelled, how, weighs);
      return classifier.shares(classifier.columns(objects.table()), job);
    }

    private Classifier classifier(int[] labelled, Learner how, boolean weighs) {
      int[] counts = new int[classCount];
      for (int row : labelled) {
        counts[truth.most(row)]++;
      }
      List<String> there = IntStream.range(0, classCount)
          .filter(k -> counts[k] > 1)
          .mapToObj(truth.classes()::get)
          .toList();
      int[] classOf = new int[objects.count()];
      Arrays.fill(classOf, -1);
      for (int row : labelled) {
        classOf[row] = there.indexOf(truth.classes().get(truth.most(row)));
      }
      return LearnClasses.learn(
          objects, new ObjectSamples(there, classOf, 0), LearnBy.of(how), weighs, job);
    }

    Row row(long seed, int trial, String how, int[] labelled) {
      Classifier classifier = classifier(labelled, method, true);
      float[] shares = classifier.shares(classifier.columns(objects.table()), job);
      int classes = classifier.classes().size();
      boolean[] known = new boolean[objects.count()];
      for (int row : labelled) {
        known[row] = true;
      }
      double[][] counts = new double[classCount][classCount];
      double plainRight = 0;
      double plain = 0;
      double right = 0;
      double all = 0;
      for (int row : rows) {
        int said = Confusion.most(shares, row * classes, classes);
        int told = said < 0 ? 0 : truth.classes().indexOf(classifier.classes().get(said));
        for (int k = 0; k < classCount; k++) {
          right += k == told ? truth.pixels(row, k) : 0;
          all += truth.pixels(row, k);
        }
        if (!known[row]) {
          counts[truth.most(row)][told]++;
          boolean isPlain = truth.purity(row) >= PLAIN;
          plain += isPlain ? 1 : 0;
          plainRight += isPlain && truth.most(row) == told ? 1 : 0;
        }
      }
      Confusion confusion = new Confusion(truth.classes(), counts);
      return new Row(
          seed,
          trial,
          how,
          right / all,
          confusion.accuracy(),
          plainRight / plain,
          confusion.macroF1());
    }
  }

  private void write(List<Row> rows) {
    StringBuilder page = new StringBuilder(
        of == Of.COVER
            ? "# Land cover by object from a few samples\n\n"
            : "# Roofs by material from a few samples\n\n");
    page.append("Made by `./kestrel land-cover-quality --size=").append(on.size);
    page.append(" --seeds=").append(on.seedsText()).append(" --trials=").append(trials);
    page.append(of == Of.COVER ? "" : " --of=ROOFS")
        .append(heights ? " --heights" : "")
        .append("`, by ")
        .append(method.title().toLowerCase(Locale.ROOT))
        .append(" on objects of ");
    page.append(grain).append(" m². A made-up user labels objects ");
    page.append(
        of == Of.COVER ? "of nine classes of land cover" : "that are roofs by their material");
    page.append(
        " in a true ortho: plain ones of each class; or those that are asked for, after twenty at random; or any at random. All others");
    page.append(
        " are told by them. An object is in truth what most of it is, plainly so from four fifths on; objects are counted, ground is by pixel.");
    page.append(on.tuningNote());
    page.append(
        "\n\n| seed | user | labels | ground right | objects right | plain ones right | macro F1 |\n");
    page.append("|---|---|---|---|---|---|---|\n");
    for (Row row : rows) {
      page.append(String.format(
          Locale.ROOT,
          "| %d | %d | %s | %.3f | %.3f | %.3f | %.3f |%n",
          row.seed,
          row.trial + 1,
          row.how,
          row.ground,
          row.objects,
          row.plain,
          row.f1));
    }
    rows.stream().map(Row::how).distinct().forEach(how -> {
      List<Row> those = rows.stream().filter(row -> row.how.equals(how)).toList();
      page.append(String.format(
          Locale.ROOT,
          "| **mean** | | %s | **%.3f** | **%.3f** | **%.3f** | **%.3f** |%n",
          how,
          those.stream().mapToDouble(Row::ground).average().orElseThrow(),
          those.stream().mapToDouble(Row::objects).average().orElseThrow(),
          those.stream().mapToDouble(Row::plain).average().orElseThrow(),
          those.stream().mapToDouble(Row::f1).average().orElseThrow()));
    });
    Path file =
        folder.resolve((of == Of.COVER ? "land-cover-" : "roof-materials-") + on.size + ".md");
    HeldOut.write(spec, file, page);
  }
}
