package sharpkestrel.extract.learner;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.stream.IntStream;
import sharpkestrel.expr.Table;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Parallel;
import sharpkestrel.raster.RasterException;

/**
 * A model that tells classes apart, with what it has seen and what it is worth.
 *
 * @param about what it was learned from, for its reader
 * @param features that it looks at, in order
 * @param lows for each feature the least value it has seen but for the outermost hundredth, and {@code highs} the largest
 * @param kept what it said of blocks that were kept back; empty where there were too few
 */
public record Classifier(
    String about,
    Learner method,
    List<String> classes,
    List<String> features,
    float[] lows,
    float[] highs,
    Scorer scorer,
    Calibration calibration,
    Optional<Confusion> kept) {

  private static final int PARTS = 5;
  private static final double TAIL = 0.01;
  private static final int CHUNK = 512;
  private static final int MOST_NAMED = 8;
  private static final int MOST_CLAUSES = 3;

  /** A feature may lie so many of its ranges beyond what was seen before it counts as unlike. */
  private static final double ROOM = 0.25;

  public Classifier {
    classes = List.copyOf(classes);
    features = List.copyOf(features);
    if (scorer.features() != features.size() || scorer.classes() != classes.size()) {
      throw new IllegalArgumentException("The model does not go with its features and classes.");
    }
  }

  /**
   * Learns, and sees on kept-back blocks what that is worth; probabilities are calibrated by those.
   *
   * @throws RasterException where there is nothing to learn
   */
  public static Classifier learn(
      Examples all, Learner method, String about, long seed, boolean checks, Job job) {
    return learn(all, method, about, seed, checks, 1, job);
  }

  /**
   * The same with only a share of the trees, where there are trees: sooner and rougher, for an answer that a better one follows.
   */
  public static Classifier learn(
      Examples all,
      Learner method,
      String about,
      long seed,
      boolean checks,
      double effort,
      Job job) {
    all.check();
    int[] varying = all.varying();
    Examples examples = all.told(varying);
    Calibration calibration = Calibration.none(examples.classes().size());
    Optional<Confusion> kept = Optional.empty();
    if (checks) {
      float[] shares = Folds.keptBack(examples, method, PARTS, seed, job);
      calibration = Calibration.of(examples, shares);
      Confusion confusion = Confusion.of(examples, shares);
      kept = confusion.count() > 0 ? Optional.of(confusion) : Optional.empty();
    }
    float[] lows = new float[varying.length];
    float[] highs = new float[varying.length];
    for (int f = 0; f < varying.length; f++) {
      float[] sorted = examples.columns()[f].clone();
      Arrays.sort(sorted);
      int n = (int)
          IntStream.range(0, sorted.length).filter(i -> !Float.isNaN(sorted[i])).count();
      lows[f] = sorted[(int) (TAIL * (n - 1))];
      highs[f] = sorted[(int) Math.ceil((1 - TAIL) * (n - 1))];
    }
    return new Classifier(
        about,
        method,
        examples.classes(),
        examples.features(),
        lows,
        highs,
        method.learn(examples, seed, effort, job),
        calibration,
        kept);
  }

  /**
   * The same, but nothing is said of what lies too far from the middle of every class.
   *
   * @param farthest in deviations, after Mahalanobis
   * @throws RasterException where the model knows no distances
   */
  public Classifier within(double farthest) {
    if (!(scorer instanceof LikelihoodScorer likelihood)) {
      throw new RasterException(
          "How far something may be is known to maximum likelihood alone, not to "
              + method.title().toLowerCase(Locale.ROOT)
              + ". Choose that method, or leave 'farthest' at auto.");
    }
    return new Classifier(
        about,
        method,
        classes,
        features,
        lows,
        highs,
        likelihood.within(farthest),
        calibration,
        kept);
  }

  /**
   * Its columns of a table.
   *
   * @throws RasterException that names what the table lacks
   */
  public float[][] columns(Table table) {
    float[][] columns = new float[features.size()][];
    List<String> names = table.columns().stream().map(Table.Column::name).toList();
    requireAll(features, names);
    for (int f = 0; f < columns.length; f++) {
      double[] values = table.values(features.get(f));
      columns[f] = new float[values.length];
      for (int i = 0; i < values.length; i++) {
        columns[f][i] = (float) values[i];
      }
    }
    return columns;
  }

  /**
   * Its columns of others.
   *
   * @throws RasterException that names what they lack
   */
  public float[][] columns(List<String> names, float[][] columns) {
    return choose(features, names, columns);
  }

  static float[][] choose(List<String> wanted, List<String> names, float[][] columns) {
    requireAll(wanted, names);
    return wanted.stream().map(name -> columns[names.indexOf(name)]).toArray(float[][]::new);
  }

  private static void requireAll(List<String> wanted, List<String> names) {
    List<String> missing = wanted.stream().filter(f -> !names.contains(f)).toList();
    if (!missing.isEmpty()) {
      throw new RasterException(
          "The model looks at features that these objects do not have: "
              + String.join(", ", missing.subList(0, Math.min(MOST_NAMED, missing.size())))
              + (missing.size() > MOST_NAMED
                  ? " and " + (missing.size() - MOST_NAMED) + " more"
                  : "")
              + ". Measure them with the same groups of features, on a scene with the same band roles, as it was learned from.");
    }
  }

  /**
   * Calibrated probabilities.
   *
   * @param columns as {@link #columns} gives them
   * @return rows of probabilities, one after another
   */
  public float[] shares(float[][] columns, Job job) {
    int rows = columns.length == 0 ? 0 : columns[0].length;
    int classCount = classes.size();
    float[] shares = new float[rows * classCount];
    Parallel.run(Math.ceilDiv(rows, CHUNK), job, chunk -> {
      int from = chunk * CHUNK;
      int count = Math.min(CHUNK, rows - from);
      float[][] some = new float[count][columns.length];
      float[][] out = new float[count][classCount];
      for (int f = 0; f < columns.length; f++) {
        for (int i = 0; i < count; i++) {
          some[i][f] = columns[f][from + i];
        }
      }
      scorer.score(some, count, out);
      for (int i = 0; i < count; i++) {
        calibration.apply(out[i]);
        System.arraycopy(out[i], 0, shares, (from + i) * classCount, classCount);
      }
    });
    return shares;
  }

  /**
   * Calibrated probabilities of one row.
   *
   * @param row (input) a value for each feature
   * @param out (output) a probability for each class
   */
  public void shares(float[] row, float[] out) {
    scorer.score(row, out);
    calibration.apply(out);
  }

  /** Features of which a good part of the values lie beyond what the model has seen, each as a clause; none where all is like it. */
  public List<String> outside(float[][] columns) {
    List<String> found = new ArrayList<>();
    for (int f = 0; f < columns.length; f++) {
      double room = ROOM * (highs[f] - lows[f]);
      int beyond = 0;
      int known = 0;
      for (float v : columns[f]) {
        known += Float.isNaN(v) ? 0 : 1;
        beyond += v < lows[f] - room || v > highs[f] + room ? 1 : 0;
      }
      if (known > 0 && beyond > 0.25 * known) {
        found.add(String.format(
            Locale.ROOT,
            "%s of %.0f %% lies beyond %.4g to %.4g",
            features.get(f),
            100.0 * beyond / known,
            lows[f],
            highs[f]));
      }
    }
    return found;
  }

  /** The first few clauses of a list, and how many more there are. */
  public static String shortList(List<String> clauses) {
    int shown = Math.min(MOST_CLAUSES, clauses.size());
    int rest = clauses.size() - shown;
    return String.join("; ", clauses.subList(0, shown))
        + (rest > 0 ? " and " + rest + " more" : "");
  }

  /** What was learned, in a line. */
  public String toText() {
    String worth = kept.map(confusion -> String.format(
            Locale.ROOT,
            "; on kept-back blocks %.1f %% right of %.0f, macro F1 %.2f",
            100 * confusion.accuracy(),
            confusion.count(),
            confusion.macroF1()))
        .orElse("; not checked, as there were too few blocks of ground");
    return method.title() + " of " + String.join(", ", classes) + " by " + features.size()
        + " features, " + about + worth;
  }
}
