package sharpkestrel.extract;

import java.util.List;
import java.util.Optional;
import sharpkestrel.extract.learner.Classifier;
import sharpkestrel.extract.learner.Examples;
import sharpkestrel.extract.learner.Learner;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.RasterException;
import sharpkestrel.step.Setting;

/** What is taken of samples, whatever is learned from them. */
public record SampleUse(
    @Setting(
        label = "Class column",
        does =
            "Column of the samples that holds the class; auto is 'class', or the only column of texts.",
        initial = "auto")
    Optional<String> classColumn,

    @Setting(
        label = "Balance",
        does = "Whether every class counts the same, however many samples it has.",
        initial = "true")
    boolean balance,

    @Setting(
        label = "Priors",
        does =
            "How common classes are thought to be, such as roof=0.1,ground=0.9, whatever was labelled; classes that are not named share the"
                + " rest. auto goes by Balance.",
        initial = "auto")
    List<String> priors,

    @Setting(
        label = "Farthest",
        does =
            "For maximum likelihood: what lies farther than this from the middle of every class is given none, in deviations"
                + " (Mahalanobis distance); auto gives all a class.",
        min = 0,
        max = 1e6,
        initial = "auto",
        when = "method=likelihood")
    double farthest,

    @Setting(
        label = "Seed",
        does = "Start of what is drawn by chance; the same gives the same classes.",
        min = 0,
        max = 1e9,
        initial = "1")
    int seed) {

  /** The column that is usual, every class counting the same, all given one. */
  static final SampleUse USUAL = new SampleUse(Optional.empty(), true, List.of(), Double.NaN, 1);

  /** The column's name; empty for the usual one. */
  String column() {
    return classColumn.orElse("");
  }

  public SampleUse {
    Priors.parse(priors);
  }

  /**
   * Examples with weights as they are asked for.
   *
   * @throws RasterException where a prior is of a class that there is no sample of
   */
  Examples weighted(Examples examples) {
    return priors.isEmpty()
        ? balance ? examples.balanced() : examples
        : examples.weighted(Priors.of(priors, examples.classes()));
  }

  /**
   * Learns, so that nothing is said of what is too far where that was asked for.
   *
   * @param effort share of the trees, where there are trees
   * @throws RasterException where there is nothing to learn
   */
  Classifier learn(
      Examples examples, Learner method, String about, boolean checks, double effort, Job job) {
    Classifier classifier = Classifier.learn(examples, method, about, seed, checks, effort, job);
    return Double.isNaN(farthest) || method != Learner.LIKELIHOOD
        ? classifier
        : classifier.within(farthest);
  }
}
