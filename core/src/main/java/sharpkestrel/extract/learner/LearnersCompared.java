package sharpkestrel.extract.learner;

import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.SplittableRandom;
import java.util.stream.IntStream;
import sharpkestrel.io.Json;
import sharpkestrel.io.Report;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.RasterException;

/**
 * Ways to learn from the same samples, each seen on the same kept-back blocks of ground; how what one of them says grows with the number
 * of samples; and which features it lives by.
 *
 * @param entries in the order in which they were asked for
 * @param curve of the one that was looked at closer
 * @param features of the same, the one that is needed most first
 */
public record LearnersCompared(
    List<Entry> entries, Learner closer, List<Point> curve, List<Needed> features)
    implements Report {

  private static final int PARTS = 5;
  private static final int STEPS = 5;
  private static final int WRITTEN = 12;

  /** What is told apart. */
  public enum Unit {
    OBJECTS,
    PIXELS
  }

  /**
   * @param places that were kept back and told by others: objects, or for pixels the pieces of ground that have samples, as pixels of one
   *     piece are all right or wrong together
   * @param outOfBag share that trees said right of samples that they had not drawn, neighbours of those that they had; NaN for others
   * @param seconds that learning from all samples took
   */
  public record Entry(
      Unit unit, Learner method, Confusion kept, int places, double outOfBag, double seconds) {

    /** Between what the share that is right lies with 95 % confidence. */
    public double[] interval() {
      return Confusion.interval(kept.accuracy(), places);
    }

    String what() {
      return unit.name().toLowerCase(Locale.ROOT) + ": " + method.title();
    }
  }

  /**
   * @param samples that were learned from, in the mean
   * @param low end of the 95 % interval of the share that was right, and {@code high}
   */
  public record Point(int samples, double right, double low, double high) {}

  /**
   * @param loss of the probability of the right class on kept-back ground when the feature's values are shuffled (Breiman 2001)
   */
  public record Needed(String feature, double loss) {}

  public LearnersCompared {
    entries = List.copyOf(entries);
    curve = List.copyOf(curve);
    features = List.copyOf(features);
  }

  /** The one that told most right. */
  public Entry best() {
    return entries.stream()
        .max(Comparator.comparingDouble(entry -> entry.kept.accuracy()))
        .orElseThrow();
  }

  /**
   * One of the entries.
   *
   * @throws RasterException where there is nothing to learn, or no ground to keep back
   */
  public static Entry entry(Unit unit, Examples all, Learner method, long seed, Job job) {
    all.check();
    Confusion kept = Confusion.of(all, Folds.keptBack(all, method, PARTS, seed, job));
    if (kept.count() == 0) {
      throw new RasterException(
          "All samples lie on one piece of ground, so that none can be kept back to compare by. Label more of each class elsewhere.");
    }
    long start = System.nanoTime();
    double outOfBag = Double.NaN;
    if (method == Learner.FOREST) {
      outOfBag = Confusion.of(all, Learner.forest(all, seed, job).outOfBag()).accuracy();
    } else {
      method.learn(all, seed, job);
    }
    int places = unit == Unit.OBJECTS
        ? (int) kept.count()
        : (int) Arrays.stream(all.blocks()).distinct().count();
    return new Entry(unit, method, kept, places, outOfBag, (System.nanoTime() - start) * 1e-9);
  }

  /** How the share that is right on kept-back ground grows with samples: each smaller number is drawn from the next larger one. */
  public static List<Point> curve(Examples all, Learner method, long seed, Job job) {
    int n = all.count();
    int classes = all.classes().size();
    int[] partOf = Folds.of(all, PARTS, seed);
    double[] chance = new SplittableRandom(seed).doubles(n).toArray();
    List<Point> points = new ArrayList<>();
    float[] row = new float[all.columns().length];
    for (int step = 1; step <= STEPS; step++) {
      float[] shares = new float[n * classes];
      Arrays.fill(shares, Float.NaN);
      double share = (double) step / STEPS;
      long learned = 0;
      int parts = 0;
      for (int part = 0; part < PARTS; part++) {
        int now = part;
        int[] some = IntStream.range(0, n)
            .filter(i -> partOf[i] != now && chance[i] < share)
            .toArray();
        Examples examples = all.select(some);
        boolean two = Arrays.stream(examples.perClass()).filter(c -> c > 0).count() > 1;
        if (!two || Arrays.stream(partOf).noneMatch(p -> p == now)) {
          continue;
        }
        learned += some.length;
        parts++;
        Scorer scorer = method.learn(examples, seed, job);
        float[] out = new float[classes];
        for (int i = 0; i < n; i++) {
          if (partOf[i] == part) {
            all.row(i, row);
            scorer.score(row, out);
            System.arraycopy(out, 0, shares, i * classes, classes);
          }
        }
      }
      Confusion confusion = Confusion.of(all, shares);
      if (parts > 0 && confusion.count() > 0) {
        double[] ends = Confusion.interval(confusion.accuracy(), confusion.count());
        points.add(new Point((int) (learned / parts), confusion.accuracy(), ends[0], ends[1]));
      }
      job.progress("Learning from fewer samples", step, STEPS);
    }
    return points;
  }

  /** What is lost on kept-back ground when one feature after another is shuffled there. */
  public static List<Needed> needed(Examples all, Learner method, long seed, Job job) {
    int n = all.count();
    int[] partOf = Folds.of(all, PARTS, seed);
    double[] lost = new double[all.features().size()];
    int seen = 0;
    for (int part = 0; part < PARTS; part++) {
      int now = part;
      int[] kept = IntStream.range(0, n).filter(i -> partOf[i] == now).toArray();
      Examples some =
          all.select(IntStream.range(0, n).filter(i -> partOf[i] != now).toArray());
      if (kept.length == 0 || Arrays.stream(some.perClass()).filter(c -> c > 0).count() < 2) {
        continue;
      }
      seen += kept.length;
      Scorer scorer = method.learn(some, seed, job);
      Examples test = all.select(kept);
      double whole = right(test, scorer);
      for (int f = 0; f < lost.length; f++) {
        job.cancellation().check();
        float[] column = test.columns()[f].clone();
        shuffle(test.columns()[f], new SplittableRandom(seed + f));
        lost[f] += whole - right(test, scorer);
        test.columns()[f] = column;
      }
      job.progress("Shuffling features", part + 1, PARTS);
    }
    int of = Math.max(1, seen);
    return IntStream.range(0, lost.length)
        .mapToObj(f -> new Needed(all.features().get(f), lost[f] / of))
        .sorted(Comparator.comparingDouble(Needed::loss).reversed())
        .toList();
  }

  /** Sum of the probabilities of the right classes. */
  private static double right(Examples test, Scorer scorer) {
    float[] row = new float[test.columns().length];
    float[] out = new float[test.classes().size()];
    double sum = 0;
    for (int i = 0; i < test.count(); i++) {
      test.row(i, row);
      scorer.score(row, out);
      sum += out[test.classOf()[i]];
    }
    return sum;
  }

  private static void shuffle(float[] column, SplittableRandom random) {
    for (int i = column.length - 1; i > 0; i--) {
      int other = random.nextInt(i + 1);
      float held = column[i];
      column[i] = column[other];
      column[other] = held;
    }
  }

  @Override
  public String toText() {
    StringBuilder text = new StringBuilder(String.format(
        Locale.ROOT,
        "%-36s %7s %15s %9s %10s %8s%n",
        "learned by, on kept-back ground",
        "right",
        "by lot",
        "macro F1",
        "out of bag",
        "seconds"));
    for (Entry entry : entries) {
      double[] ends = entry.interval();
      text.append(String.format(
          Locale.ROOT,
          "%-36s %7.3f %6.3f to %5.3f %9.3f %10s %8.2f%n",
          entry.what(),
          entry.kept.accuracy(),
          ends[0],
          ends[1],
          entry.kept.macroF1(),
          Double.isNaN(entry.outOfBag) ? "" : String.format(Locale.ROOT, "%.3f", entry.outOfBag),
          entry.seconds));
    }
    text.append(String.format(Locale.ROOT, "%n%s, by samples learned from%n", closer.title()));
    for (Point point : curve) {
      text.append(String.format(
          Locale.ROOT,
          "%36d %7.3f %6.3f to %5.3f%n",
          point.samples,
          point.right,
          point.low,
          point.high));
    }
    text.append(String.format(
        Locale.ROOT, "%n%-36s %7s%n", "feature, shuffled on kept-back ground", "lost"));
    for (Needed each : features.subList(0, Math.min(WRITTEN, features.size()))) {
      text.append(String.format(Locale.ROOT, "%-36s %7.4f%n", each.feature, each.loss));
    }
    return text.toString();
  }

  @Override
  public ObjectNode toJson() {
    ObjectNode root = Json.object();
    ArrayNode learners = root.putArray("learners");
    for (Entry entry : entries) {
      double[] ends = entry.interval();
      ObjectNode node = learners
          .addObject()
          .put("learned_by", entry.what())
          .put("right", entry.kept.accuracy())
          .put("low", ends[0])
          .put("high", ends[1])
          .put("of", entry.places)
          .put("macro_f1", entry.kept.macroF1())
          .put("seconds", entry.seconds);
      if (!Double.isNaN(entry.outOfBag)) {
        node.put("out_of_bag", entry.outOfBag);
      }
    }
    root.put("closer", closer.title());
    ArrayNode points = root.putArray("curve");
    curve.forEach(point -> points
        .addObject()
        .put("samples", point.samples)
        .put("right", point.right)
        .put("low", point.low)
        .put("high", point.high));
    ArrayNode list = root.putArray("features");
    features.forEach(each -> list.addObject().put("feature", each.feature).put("lost", each.loss));
    return root;
  }
}
