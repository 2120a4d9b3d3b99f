package sharpkestrel.app.tools.samples;

import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.stream.IntStream;
import sharpkestrel.extract.LearnBy;
import sharpkestrel.extract.LearnClasses;
import sharpkestrel.extract.learner.Classifier;
import sharpkestrel.extract.learner.Confusion;
import sharpkestrel.extract.learner.Learner;
import sharpkestrel.extract.learner.LearnersCompared;
import sharpkestrel.extract.learner.ObjectSamples;
import sharpkestrel.extract.learner.Reasons;
import sharpkestrel.geo.OutlineSet;
import sharpkestrel.objects.ObjectSet;
import sharpkestrel.raster.Job;

/**
 * What the samples say of all objects.
 *
 * @param classifier what was learned
 * @param shares probabilities of the classes, object by object
 * @param sampleOf for each object the place of the class it was labelled, -1 for none
 * @param isWeighed whether probabilities are those that {@code classify-objects} gives
 * @param kept what was said of blocks that were kept back; empty where there are too few, or not weighed yet
 */
record Answer(
    ObjectSet objects,
    Classifier classifier,
    float[] shares,
    int[] sampleOf,
    boolean isWeighed,
    Optional<Confusion> kept) {

  private static final String COLUMN = "class";

  /**
   * @param weighs whether kept-back blocks are looked at too, as the step does; takes some times as long
   */
  static Answer of(ObjectSet set, OutlineSet samples, Learner how, boolean weighs, Job job) {
    ObjectSamples found = ObjectSamples.of(set, samples, COLUMN, job);
    Classifier classifier = LearnClasses.learn(set, found, LearnBy.of(how), weighs, job);
    return new Answer(
        set,
        classifier,
        classifier.shares(classifier.columns(set.table()), job),
        found.classOf(),
        weighs,
        classifier.kept());
  }

  /** What is told right on kept-back ground by so many samples; empty where that is not known. */
  Optional<LearnersCompared.Point> point() {
    int samples = (int) Arrays.stream(sampleOf).filter(k -> k >= 0).count();
    return kept.map(confusion -> {
      double[] ends = Confusion.interval(confusion.accuracy(), confusion.count());
      return new LearnersCompared.Point(samples, confusion.accuracy(), ends[0], ends[1]);
    });
  }

  List<String> classes() {
    return classifier.classes();
  }

  /** Why an object is what it is said to be. */
  Reasons reasons(int row) {
    int[] samples =
        IntStream.range(0, sampleOf.length).filter(i -> sampleOf[i] >= 0).toArray();
    return Reasons.of(classifier, objects.table(), row, Math.max(0, most(row)), samples);
  }

  /** The likeliest class of an object. */
  int most(int row) {
    return Confusion.most(shares, row * classes().size(), classes().size());
  }

  float share(int row, int ofClass) {
    return shares[row * classes().size() + ofClass];
  }

  /** How near the second class is to the first, 0 to 1. */
  double doubt(int row) {
    return Confusion.doubt(shares, row * classes().size(), classes().size());
  }

  double[] doubts() {
    double[] doubts = new double[objects.count()];
    for (int row = 0; row < doubts.length; row++) {
      doubts[row] = doubt(row);
    }
    return doubts;
  }

  /** Objects that are samples, or were asked about. */
  boolean[] known(int[] asked) {
    boolean[] known = new boolean[objects.count()];
    for (int row = 0; row < known.length; row++) {
      known[row] = sampleOf[row] >= 0;
    }
    for (int row : asked) {
      known[row] = true;
    }
    return known;
  }

  int[] counts() {
    int[] counts = new int[classes().size()];
    for (int row = 0; row < objects.count(); row++) {
      if (most(row) >= 0) {
        counts[most(row)]++;
      }
    }
    return counts;
  }
}
