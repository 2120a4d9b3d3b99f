package sharpkestrel.extract;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import sharpkestrel.expr.Table;
import sharpkestrel.extract.classmap.ClassMap;
import sharpkestrel.extract.learner.Classifier;
import sharpkestrel.extract.learner.Confusion;
import sharpkestrel.geo.OutlineSet;
import sharpkestrel.objects.ObjectSet;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.RasterException;
import sharpkestrel.step.Group;
import sharpkestrel.step.In;
import sharpkestrel.step.Setting;
import sharpkestrel.step.Stage;
import sharpkestrel.step.Step;
import sharpkestrel.step.StepInfo;
import sharpkestrel.step.Suits;

/** Classes of objects, by samples or by a model. */
@StepInfo(
    id = "classify-objects",
    stage = Stage.EXTRACT,
    family = "Examples",
    title = "Classify objects",
    makes = "Classes",
    version = 2,
    does =
        "Gives every object a class with its probability, by samples in the scene or by a model that was learned before. Each object"
            + " also has the probability of every class, and its doubt: the second probability over the first.")
public record ClassifyObjects(
    @In(does = "The objects, measured.", suits = Suits.MEASURED)
    ObjectSet objects,

    @In(
        does = "Samples to learn from: outlines or points with a class.",
        optional = true,
        byHand = true,
        suits = {Suits.OBJECTS, Suits.POINTS})
    Optional<OutlineSet> samples,

    @In(does = "A model to classify by, in place of samples.", optional = true, byHand = true)
    Optional<Classifier> model,

    @Group LearnBy by,

    @Setting(
        label = "Least probability",
        does = "An object whose likeliest class has less is given none.",
        min = 0,
        max = 1,
        initial = "0")
    double leastProbability)
    implements Step<ObjectSet> {

  @Override
  public ObjectSet run(Job job) {
    if (samples.isPresent() == model.isPresent()) {
      throw new RasterException(
          "Classes come from samples or from a model: give one of the two (--samples or --model).");
    }
    Classifier classifier =
        model.orElseGet(() -> new LearnClasses(objects, samples.orElseThrow(), by).run(job));
    float[][] columns = classifier.columns(objects.table());
    List<String> outside = classifier.outside(columns);
    if (model.isPresent() && !outside.isEmpty()) {
      job.warn("These objects lie beyond what the model has seen (" + classifier.about() + "): "
          + Classifier.shortList(outside)
          + ". What it says of them is a guess: label some of them and learn again.");
    }
    return withClasses(
        objects,
        classifier.classes(),
        ClassMap.colours(classifier.classes(), samples),
        classifier.shares(columns, job),
        leastProbability);
  }

  /**
   * Objects with their classes.
   *
   * @param colours of the classes, in their order
   * @param shares rows of probabilities of the classes, one after another
   */
  private static ObjectSet withClasses(
      ObjectSet objects, List<String> classes, List<String> colours, float[] shares, double least) {
    int n = objects.count();
    int k = classes.size();
    List<String> said = new ArrayList<>();
    double[] probability = new double[n];
    double[] doubt = new double[n];
    double[][] each = new double[k][n];
    for (int i = 0; i < n; i++) {
      int most = Confusion.most(shares, i * k, k);
      double first = most < 0 ? 0 : shares[i * k + most];
      for (int c = 0; c < k; c++) {
        each[c][i] = shares[i * k + c];
      }
      said.add(most < 0 || first < least ? null : classes.get(most));
      probability[i] = first;
      doubt[i] = Confusion.doubt(shares, i * k, k);
    }
    List<Table.Column> added = new ArrayList<>();
    added.add(Table.Column.ofTexts(ClassMap.CLASS, "Class", said));
    added.add(Table.Column.ofTexts(
        ClassMap.COLOUR,
        "Colour",
        said.stream()
            .map(name -> name == null ? null : colours.get(classes.indexOf(name)))
            .toList()));
    added.add(new Table.Column("probability", "Probability", "", probability));
    added.add(new Table.Column("doubt", "Doubt", "", doubt));
    for (int c = 0; c < k; c++) {
      added.add(new Table.Column(
          "p_" + columnName(classes.get(c)), "Probability of " + classes.get(c), "", each[c]));
    }
    List<String> names = added.stream().map(Table.Column::name).toList();
    List<Table.Column> columns = new ArrayList<>(objects.table().columns().stream()
        .filter(column -> !names.contains(column.name()))
        .toList());
    columns.addAll(added);
    return objects.withTable(new Table(n, columns));
  }

  /** A class's name as part of a column's: letters and digits in lower case, all else an underscore. */
  static String columnName(String ofClass) {
    char[] letters = ofClass.toLowerCase(java.util.Locale.ROOT).toCharArray();
    for (int i = 0; i < letters.length; i++) {
      letters[i] = Character.isLetterOrDigit(letters[i]) ? letters[i] : '_';
    }
    return new String(letters);
  }
}
