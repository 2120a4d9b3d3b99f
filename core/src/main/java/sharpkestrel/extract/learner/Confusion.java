package sharpkestrel.extract.learner;

import java.util.List;

/**
 * How often a class was said to be which.
 *
 * @param counts by class as it is, then as it was said to be
 */
public record Confusion(List<String> classes, double[][] counts) {

  private static final double Z = 1.96;

  /**
   * @param shares rows of probabilities, one after another; rows of NaN or 0 are passed over
   */
  public static Confusion of(Examples examples, float[] shares) {
    int classes = examples.classes().size();
    double[][] counts = new double[classes][classes];
    for (int i = 0; i < examples.count(); i++) {
      int said = most(shares, i * classes, classes);
      if (said >= 0) {
        counts[examples.classOf()[i]][said]++;
      }
    }
    return new Confusion(examples.classes(), counts);
  }

  /** The place of the largest share; -1 where none is above 0. */
  public static int most(float[] shares, int from, int classes) {
    int most = -1;
    float largest = 0;
    for (int k = 0; k < classes; k++) {
      if (shares[from + k] > largest) {
        largest = shares[from + k];
        most = k;
      }
    }
    return most;
  }

  /** How near the second share is to the first, 0 to 1; 1 where none is above 0. */
  public static double doubt(float[] shares, int from, int classes) {
    int most = most(shares, from, classes);
    float second = 0;
    for (int k = 0; k < classes; k++) {
      second = k == most ? second : Math.max(second, shares[from + k]);
    }
    return most < 0 ? 1 : second / shares[from + most];
  }

  public double count() {
    double all = 0;
    for (double[] row : counts) {
      for (double n : row) {
        all += n;
      }
    }
    return all;
  }

  /** Share that was said right. */
  public double accuracy() {
    double right = 0;
    for (int k = 0; k < counts.length; k++) {
      right += counts[k][k];
    }
    return right / count();
  }

  /** Of what was said to be a class, the share that is; NaN where nothing was. */
  public double precision(int ofClass) {
    double said = 0;
    for (double[] row : counts) {
      said += row[ofClass];
    }
    return counts[ofClass][ofClass] / said;
  }

  /** Of what is a class, the share that was said to be; NaN where nothing is. */
  public double recall(int ofClass) {
    double is = 0;
    for (double n : counts[ofClass]) {
      is += n;
    }
    return counts[ofClass][ofClass] / is;
  }

  public double f1(int ofClass) {
    double both = 0;
    for (int k = 0; k < counts.length; k++) {
      both += counts[ofClass][k] + counts[k][ofClass];
    }
    return 2 * counts[ofClass][ofClass] / both;
  }

  /** Mean over the classes that there are of their F1. */
  public double macroF1() {
    double sum = 0;
    int n = 0;
    for (int k = 0; k < counts.length; k++) {
      if (!Double.isNaN(f1(k))) {
        sum += f1(k);
        n++;
      }
    }
    return sum / n;
  }

  /**
   * Between what a share lies with 95 % confidence where each of so many was drawn for itself (Wilson 1927, JASA 22).
   *
   * @return low and high
   */
  public static double[] interval(double share, double of) {
    double z2 = Z * Z;
    double middle = (share + z2 / (2 * of)) / (1 + z2 / of);
    double half = Z / (1 + z2 / of) * Math.sqrt(share * (1 - share) / of + z2 / (4 * of * of));
    return new double[] {Math.max(0, middle - half), Math.min(1, middle + half)};
  }
}
