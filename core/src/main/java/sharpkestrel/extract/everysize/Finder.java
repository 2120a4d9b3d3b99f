package sharpkestrel.extract.everysize;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import sharpkestrel.extract.learner.Classifier;
import sharpkestrel.extract.learner.Examples;
import sharpkestrel.extract.learner.Fit;
import sharpkestrel.extract.learner.Learner;
import sharpkestrel.place.HeightModels;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.RasterException;
import sharpkestrel.segment.Cut;
import sharpkestrel.segment.learn.Card;
import sharpkestrel.segment.regions.FeatureSpace;

/**
 * A model that finds things among all nodes of a tree. Of every node a classifier says of what class it is, and a fit how well it
 * would overlap such a thing: the class alone is as sure of half a roof as of a whole one.
 *
 * <p>Tried and left out: a second fit that also sees what the nodes above and below were said to be. It found no more on scenes that
 * were not learned from.
 *
 * @param card what scenes it has seen
 * @param classifier whose first class is what is none of the others
 * @param fit what intersection over union a node would have
 * @param fromSome whether it was learned where only some of what there is had been outlined
 */
public record Finder(Card card, Classifier classifier, Fit fit, boolean fromSome) {

  /** Name of the class of what is not looked for. */
  public static final String OTHER = "other";

  /** What was chosen on surveys 8 and 9, and with clicks in surveys 5 and 6. */
  private static final double LEAST_SCORE = 0.5;

  private static final double LEAST_PROBABILITY = 0.3;
  private static final double LEAST_SCORE_OF_SOME = 0.3;
  private static final double LEAST_PROBABILITY_OF_SOME = 0.5;

  private static final int HARD = 1500;
  private static final double LIKE = 0.05;

  /**
   * What is said of each node.
   *
   * @param classOf place of the likeliest class but {@link #OTHER}, from 0 on
   * @param probability of that class
   * @param fit intersection over union that the node would have with such a thing
   */
  public record Said(int[] classOf, float[] probability, float[] fit) {

    /** How good a node is to take. */
    public double score(int i) {
      return Math.clamp(fit[i], 0, 1);
    }
  }

  /** The score from which on nodes are usually taken. */
  public double usualScore() {
    return fromSome ? LEAST_SCORE_OF_SOME : LEAST_SCORE;
  }

  /** The probability from which on they are. */
  public double usualProbability() {
    return fromSome ? LEAST_PROBABILITY_OF_SOME : LEAST_PROBABILITY;
  }

  /** What it finds. */
  public List<String> classes() {
    return classifier.classes().subList(1, classifier.classes().size());
  }

  /**
   * What is measured of the nodes of a scene's tree for this model.
   *
   * @param models that tell heights above the ground; looked at where the model has learned from heights
   * @throws RasterException where it has, and there are none
   */
  public NodeFeatures features(Raster scene, HeightModels models, Cut tree, Job job) {
    boolean known = models.surface().isPresent();
    if (looksAtHeights() && !known) {
      throw new RasterException(
          "The model looks at heights above the ground. Give the surface model and the height model of the ground (--surface, --heights), or a model that was learned without them.");
    }
    if (known && !looksAtHeights()) {
      job.warn(
          "The model was learned without heights, so that those given say nothing to it. Learn one with them ('learn-objects').");
    }
    return FinderSchool.features(
        scene, looksAtHeights() ? models : HeightModels.NONE, tree, Optional.of(card), job);
  }

  private boolean looksAtHeights() {
    return classifier.features().contains("mean_" + FeatureSpace.HEIGHT);
  }

  /** In what a scene differs from all that it has seen, each as a clause; none where it does not. */
  public List<String> outside(NodeFeatures features) {
    List<String> differs = new ArrayList<>(card.outside(features.card()));
    // a few labels have not seen most of their own scene either
    if (differs.isEmpty() && !fromSome) {
      differs.addAll(classifier.outside(classifier.columns(features.names(), features.columns())));
    }
    return differs;
  }

  private void requireBands(NodeFeatures features) {
    List<String> missing = card.bands().stream()
        .filter(band -> !features.card().bands().contains(band))
        .toList();
    boolean lacks = !features.names().containsAll(classifier.features());
    if (lacks) {
      throw new RasterException(
          "The model looks at bands that this scene has not, or that have no role: "
              + String.join(", ", missing).replace('_', ' ')
              + ". Give roles with 'describe', or learn from outlines in this scene with 'learn-objects'.");
    }
  }

  /**
   * @throws RasterException where the scene has not the bands that it looks at
   */
  public Said of(NodeFeatures features, Job job) {
    requireBands(features);
    float[][] columns = classifier.columns(features.names(), features.columns());
    float[] shares = classifier.shares(columns, job);
    int count = classifier.classes().size();
    int[] classOf = new int[features.count()];
    float[] probability = new float[classOf.length];
    for (int i = 0; i < classOf.length; i++) {
      int most = 1;
      for (int k = 2; k < count; k++) {
        most = shares[i * count + k] > shares[i * count + most] ? k : most;
      }
      classOf[i] = most - 1;
      probability[i] = shares[i * count + most];
    }
    return new Said(classOf, probability, fit.of(features.names(), features.columns(), job));
  }

  /**
   * @param classes names of those that are looked for
   */
  public static Finder learn(
      List<FinderSchool> schools,
      List<String> classes,
      Learner method,
      String about,
      long seed,
      Job job) {
    return new Lesson(
            schools,
            Stream.concat(Stream.of(OTHER), classes.stream()).toList(),
            method,
            about,
            seed,
            job)
        .learn();
  }

  /** One course of learning. */
  private record Lesson(
      List<FinderSchool> schools,
      List<String> classes,
      Learner method,
      String about,
      long seed,
      Job job) {

    Finder learn() {
      List<int[]> rows = new ArrayList<>();
      for (int s = 0; s < schools.size(); s++) {
        rows.add(schools.get(s).lessons(seed + s));
      }
      // what is hard is found by a model that has seen some of it
      Classifier start = classifier(rows);
      job.progress("Learning every size", 1, 3);
      List<int[]> near = new ArrayList<>();
      for (int s = 0; s < schools.size(); s++) {
        FinderSchool school = schools.get(s);
        int[] hard = school.hardest(likeness(start, school.features), HARD, LIKE, rows.get(s));
        rows.set(s, joined(rows.get(s), hard));
        near.add(joined(rows.get(s), school.touching(seed + 100 + s)));
      }
      Classifier classifier = classifier(rows);
      job.progress("Learning every size", 2, 3);
      return new Finder(
          card(),
          classifier,
          Fit.learn(examples(near), overlaps(near), seed, job),
          schools.stream().anyMatch(FinderSchool::isPartial));
    }

    private Card card() {
      return schools.stream()
          .map(school -> school.features.card())
          .reduce(Card::with)
          .orElseThrow();
    }

    private float[] likeness(Classifier start, NodeFeatures features) {
      float[] shares = start.shares(start.columns(features.names(), features.columns()), job);
      float[] like = new float[features.count()];
      for (int i = 0; i < like.length; i++) {
        like[i] = 1 - shares[i * classes.size()];
      }
      return like;
    }

    private static int[] joined(int[] some, int[] others) {
      return IntStream.concat(Arrays.stream(some), Arrays.stream(others))
          .distinct()
          .sorted()
          .toArray();
    }

    private Classifier classifier(List<int[]> rows) {
      Examples examples = examples(rows);
      boolean few = schools.stream().anyMatch(FinderSchool::isPartial);
      return Classifier.learn(
          few ? examples.balanced() : examples, method, about, seed, false, job);
    }

    private float[] overlaps(List<int[]> rows) {
      float[] overlaps = new float[rows.stream().mapToInt(each -> each.length).sum()];
      int at = 0;
      for (int s = 0; s < rows.size(); s++) {
        for (int i : rows.get(s)) {
          overlaps[at++] = (float) schools.get(s).overlap(i);
        }
      }
      return overlaps;
    }

    private Examples examples(List<int[]> rows) {
      List<String> names = schools.getFirst().features.names();
      int count = rows.stream().mapToInt(each -> each.length).sum();
      float[][] columns = new float[names.size()][count];
      int[] classOf = new int[count];
      float[] weights = new float[count];
      int[] blocks = new int[count];
      Arrays.fill(weights, 1);
      int at = 0;
      for (int s = 0; s < rows.size(); s++) {
        FinderSchool school = schools.get(s);
        for (int i : rows.get(s)) {
          for (int f = 0; f < columns.length; f++) {
            columns[f][at] = school.features.columns()[f][i];
          }
          boolean right = school.overlap(i) >= FinderSchool.RIGHT;
          classOf[at] = right ? 1 + school.classOf(i) : 0;
          blocks[at++] = s << 8 | school.features.blocks()[i];
        }
      }
      return new Examples(names, columns, classes, classOf, weights, blocks);
    }
  }
}
