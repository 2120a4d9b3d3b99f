package sharpkestrel.extract.learner;

import java.util.Arrays;
import java.util.Locale;
import java.util.stream.Collectors;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.RasterException;

/** Ways to learn classes from examples. */
public enum Learner {
  /** Trees on samples with replacement. */
  FOREST("Random forest"),
  /** Trees whose splits are drawn; smoother, and sound with few examples. */
  EXTREME_TREES("Randomised trees"),
  BOOSTING("Gradient boosting"),
  LIKELIHOOD("Maximum likelihood"),
  NEAREST("Nearest neighbours"),
  VECTORS("Support vectors");

  private static final int FOREST_TREES = 200;
  private static final int EXTREME_TREES_COUNT = 300;
  private static final int DEEPEST = 40;
  private static final int NEIGHBOURS = 7;

  private final String title;

  Learner(String title) {
    this.title = title;
  }

  /**
   * @throws RasterException that names those there are
   */
  public static Learner named(String name) {
    String plain = name.strip().toUpperCase(Locale.ROOT).replace('-', '_');
    return Arrays.stream(values())
        .filter(each -> each.name().equals(plain))
        .findFirst()
        .orElseThrow(() -> new RasterException("There is no way to learn called '" + name.strip()
            + "'. There are "
            + Arrays.stream(values())
                .map(each -> each.name().toLowerCase(Locale.ROOT))
                .collect(Collectors.joining(", "))
            + "."));
  }

  public String title() {
    return title;
  }

  /**
   * @param examples that have passed {@link Examples#check}
   */
  public Scorer learn(Examples examples, long seed, Job job) {
    return learn(examples, seed, 1, job);
  }

  /**
   * @param effort share of the trees that a forest has, above 0 and up to 1
   */
  Scorer learn(Examples examples, long seed, double effort, Job job) {
    return switch (this) {
      case FOREST, EXTREME_TREES ->
        new TreeScorer(grown(examples, seed, effort, job).trees(), TreeScorer.Link.SHARES);
      case BOOSTING -> boosted(examples, BoostingGrower.Settings.USUAL, seed, job);
      case LIKELIHOOD -> LikelihoodScorer.learn(examples, new double[0], Double.POSITIVE_INFINITY);
      case NEAREST -> NearestScorer.learn(examples, NEIGHBOURS);
      case VECTORS -> VectorLearner.learn(examples, seed, job);
    };
  }

  /** The trees of a forest with what they say of rows that they have not seen. */
  static ForestGrower.Forest forest(Examples examples, long seed, Job job) {
    return FOREST.grown(examples, seed, 1, job);
  }

  private ForestGrower.Forest grown(Examples examples, long seed, double effort, Job job) {
    boolean extreme = this == EXTREME_TREES;
    int trees = (int) Math.ceil(effort * (extreme ? EXTREME_TREES_COUNT : FOREST_TREES));
    ForestGrower.Settings settings = new ForestGrower.Settings(trees, 0, 1, DEEPEST, extreme);
    return ForestGrower.grow(examples, Bins.of(examples, job), settings, seed, job);
  }

  static TreeScorer boosted(
      Examples examples, BoostingGrower.Settings settings, long seed, Job job) {
    boolean two = examples.classes().size() == 2;
    float[] targets = new float[examples.count()];
    for (int i = 0; i < targets.length; i++) {
      targets[i] = examples.classOf()[i];
    }
    Trees trees = BoostingGrower.grow(
        examples,
        Bins.of(examples, job),
        two ? BoostingGrower.Loss.LOGISTIC : BoostingGrower.Loss.SOFTMAX,
        targets,
        two
            ? settings
            : settings.withRounds(
                Math.max(60, 2 * settings.rounds() / examples.classes().size())),
        seed,
        job);
    return new TreeScorer(trees, two ? TreeScorer.Link.ODDS : TreeScorer.Link.LOGARITHMS);
  }
}
