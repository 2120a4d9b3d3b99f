package sharpkestrel.extract.learner;

import java.util.Arrays;

/**
 * Trees that vote, or whose sum is turned into probabilities.
 *
 * @param link what the sum of the trees stands for
 */
public record TreeScorer(Trees trees, Link link) implements Scorer {

  /** What sums of trees stand for. */
  public enum Link {
    /** Shares of the classes. */
    SHARES,
    /** The logarithm of the odds of the second of two classes. */
    ODDS,
    /** Logarithms of the shares, but for what is common to them. */
    LOGARITHMS
  }

  @Override
  public int classes() {
    return link == Link.ODDS ? 2 : trees.outputs();
  }

  @Override
  public int features() {
    return trees.features();
  }

  @Override
  public void score(float[] row, float[] out) {
    trees.sum(row, out);
    turn(out);
  }

  @Override
  public void score(float[][] rows, int count, float[][] out) {
    trees.sum(rows, count, out);
    for (int i = 0; i < count; i++) {
      turn(out[i]);
    }
  }

  /** Turns sums into probabilities. */
  private void turn(float[] out) {
    if (link == Link.ODDS) {
      out[1] = BoostingGrower.logistic(out[0]);
      out[0] = 1 - out[1];
    } else if (link == Link.LOGARITHMS) {
      BoostingGrower.softmax(out);
    } else {
      float all = 0;
      for (float share : out) {
        all += share;
      }
      for (int k = 0; k < out.length; k++) {
        out[k] = all > 0 ? out[k] / all : 0;
      }
    }
  }

  /**
   * What each feature speaks for a class, or against it where it is below 0: in shares, or in logarithms of odds where trees were
   * boosted.
   */
  public double[] contributions(float[] row, int ofClass) {
    double[] each = new double[trees.features()];
    trees.contributions(row, link == Link.ODDS ? 0 : ofClass, each);
    if (link == Link.ODDS && ofClass == 0) {
      Arrays.setAll(each, f -> -each[f]);
    }
    return each;
  }
}
