package sharpkestrel.extract.learner;

import java.util.Arrays;
import java.util.stream.IntStream;
import sharpkestrel.raster.Job;

/**
 * What is kept back to see what a learner is worth: blocks of ground, each in one of several parts by its number alone, so that it stays
 * in that part as samples are added. Samples of one block resemble each other; kept back at random, they would be told from
 * their neighbours.
 */
public final class Folds {

  private Folds() {}

  /** For each example the part, 0 to {@code parts} - 1, in which it is kept back. */
  public static int[] of(Examples examples, int parts, long seed) {
    int[] part = new int[examples.count()];
    for (int i = 0; i < part.length; i++) {
      part[i] = Math.floorMod(mixed(examples.blocks()[i] * 0x9e3779b97f4a7c15L + seed), parts);
    }
    return part;
  }

  /** Steele, Lea and Flood 2014, OOPSLA: spreads numbers that follow each other. */
  private static int mixed(long number) {
    long z = (number ^ number >>> 30) * 0xbf58476d1ce4e5b9L;
    z = (z ^ z >>> 27) * 0x94d049bb133111ebL;
    return (int) ((z ^ z >>> 31) >>> 32);
  }

  /**
   * What each example is said to be by a learner that has not seen its part.
   *
   * @return rows of probabilities, one after another; NaN where what remained had fewer than two classes
   */
  public static float[] keptBack(Examples examples, Learner method, int parts, long seed, Job job) {
    int classes = examples.classes().size();
    float[] shares = new float[examples.count() * classes];
    Arrays.fill(shares, Float.NaN);
    int[] partOf = of(examples, parts, seed);
    float[] row = new float[examples.columns().length];
    float[] out = new float[classes];
    for (int part = 0; part < parts; part++) {
      int now = part;
      int[] learned =
          IntStream.range(0, examples.count()).filter(i -> partOf[i] != now).toArray();
      Examples some = examples.select(learned);
      long present = Arrays.stream(some.perClass()).filter(n -> n > 0).count();
      if (learned.length == examples.count() || present < 2) {
        continue;
      }
      Scorer scorer = method.learn(some, seed, job);
      for (int i = 0; i < examples.count(); i++) {
        if (partOf[i] == part) {
          examples.row(i, row);
          scorer.score(row, out);
          System.arraycopy(out, 0, shares, i * classes, classes);
        }
      }
      job.progress("Checking on kept-back blocks", part + 1, parts);
    }
    return shares;
  }
}
