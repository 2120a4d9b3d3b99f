package sharpkestrel.extract;

import java.util.List;
import java.util.Locale;
import sharpkestrel.expr.Table;
import sharpkestrel.extract.learner.Classifier;
import sharpkestrel.extract.learner.Examples;
import sharpkestrel.extract.learner.ObjectSamples;
import sharpkestrel.geo.OutlineSet;
import sharpkestrel.objects.ObjectSet;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.RasterException;
import sharpkestrel.step.Group;
import sharpkestrel.step.In;
import sharpkestrel.step.Stage;
import sharpkestrel.step.Step;
import sharpkestrel.step.StepInfo;
import sharpkestrel.step.Suits;

/** Learns classes of objects from samples. */
@StepInfo(
    id = "learn-classes",
    stage = Stage.EXTRACT,
    family = "Examples",
    title = "Learn classes",
    makes = "Classifier",
    does =
        "Learns from samples to tell classes of objects apart by their features, and says what that is worth on blocks of ground that"
            + " were kept back. The model is a file that other scenes can be classified with.")
public record LearnClasses(
    @In(does = "The objects, measured.", suits = Suits.MEASURED)
    ObjectSet objects,

    @In(
        does =
            "Samples: outlines or points with a class. An object is a sample of the class that has more than half of it, or whose"
                + " outline lies for more than half in it.",
        byHand = true,
        suits = {Suits.OBJECTS, Suits.POINTS})
    OutlineSet samples,

    @Group LearnBy by)
    implements Step<Classifier> {

  /** Columns that say where or which an object is, or which way it lies, not what it is. */
  private static final List<String> NOT_TOLD_BY = List.of(
      "orientation",
      "id",
      "zone",
      "rank",
      "likeness",
      "degree",
      "probability",
      "doubt",
      "score",
      "fit");

  private static final int MANY = 200_000;
  private static final double ROUGH = 0.4;

  @Override
  public Classifier run(Job job) {
    ObjectSamples found = ObjectSamples.of(objects, samples, by.use().column(), job);
    if (found.claimed() > 0) {
      job.warn(found.claimed()
          + " objects are claimed by samples of two classes; the one with more of an object has it. Samples that contradict each"
          + " other make a model worse.");
    }
    return learn(objects, found, by, true, job);
  }

  /**
   * Learns from objects that are samples.
   *
   * @param checks whether kept-back blocks say what it is worth, and probabilities are calibrated by them; where not, and the
   *     objects are very many, a share of the trees has to do
   */
  public static Classifier learn(
      ObjectSet objects, ObjectSamples found, LearnBy by, boolean checks, Job job) {
    Examples examples = examples(objects, found, by);
    String about = String.format(Locale.ROOT, "from %d samples in one scene", examples.count());
    double effort = checks || objects.count() <= MANY ? 1 : ROUGH;
    return by.use().learn(examples, by.method(), about, checks, effort, job);
  }

  /**
   * Objects that are samples, with what they are told by.
   *
   * @param by says which columns; none for all that say what an object is
   */
  static Examples examples(ObjectSet objects, ObjectSamples found, LearnBy by) {
    Table table = objects.table();
    List<String> wanted = by.features().stream().map(String::strip).toList();
    wanted.forEach(table::column);
    Examples examples = found.examples(
        table, wanted.isEmpty() ? features(table) : wanted, ObjectSamples.blocks(objects));
    return by.use().weighted(examples).thinned(by.thin());
  }

  /**
   * Columns that say what an object is.
   *
   * @throws RasterException where there are hardly any
   */
  public static List<String> features(Table table) {
    List<String> numbers = table.columns().stream()
        .filter(column -> !column.isText() && !NOT_TOLD_BY.contains(column.name()))
        .filter(column -> !column.name().startsWith("p_"))
        .map(Table.Column::name)
        .toList();
    if (numbers.size() < 2) {
      throw new RasterException(
          "The objects have no features to tell classes by. Measure them first.");
    }
    return numbers;
  }

  /** What all objects are told by, column by column. */
  public static float[][] columns(Table table) {
    List<String> names = features(table);
    float[][] columns = new float[names.size()][table.rows()];
    for (int f = 0; f < columns.length; f++) {
      double[] values = table.values(names.get(f));
      for (int i = 0; i < values.length; i++) {
        columns[f][i] = (float) values[i];
      }
    }
    return columns;
  }
}
