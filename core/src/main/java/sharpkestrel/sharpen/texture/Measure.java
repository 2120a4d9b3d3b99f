package sharpkestrel.sharpen.texture;

/**
 * What is measured in a window. Those of pairs are from the symmetric co-occurrence matrix of grey levels i and j, p(i, j)
 * (Haralick, Shanmugam and Dinstein 1973, IEEE Trans. SMC 3(6), 610-621); logarithms are natural.
 *
 * <p>Left out of that paper's set: sum average (twice the mean), sum variance (four variances less the contrast), the second
 * information measure (follows from the first's terms) and the maximal correlation coefficient (eigenvalues of every window,
 * and not stable on few pairs).
 */
public enum Measure {
  RANGE("Range", false),
  MEAN("Mean", false),
  VARIANCE("Variance", false),
  DEVIATION("Standard deviation", false),
  /** Of grey levels. */
  ENTROPY("Entropy", false),
  /** Mean of (i - j)². */
  CONTRAST("Contrast of pairs", true),
  /** Mean of |i - j|. */
  DISSIMILARITY("Dissimilarity of pairs", true),
  /** Mean of 1 / (1 + (i - j)²), the inverse difference moment. */
  HOMOGENEITY("Homogeneity of pairs", true),
  /** Sum of p². */
  SECOND_MOMENT("Angular second moment", true),
  /** Minus the sum of p ln p. */
  PAIR_ENTROPY("Entropy of pairs", true),
  /** Covariance of i and j over their variance; 1 where they do not vary. */
  CORRELATION("Correlation of pairs", true),
  PAIR_MEAN("Mean of pairs", true),
  PAIR_VARIANCE("Variance of pairs", true),
  DIFFERENCE_VARIANCE("Variance of differences", true),
  DIFFERENCE_ENTROPY("Entropy of differences", true),
  SUM_ENTROPY("Entropy of sums", true),
  /** (H(i, j) - 2 H(i)) / H(i): from -1, each level says the other, to 0; 0 where there is one level. */
  INFORMATION("Information of pairs", true);

  private final String title;
  private final boolean ofPairs;

  Measure(String title, boolean ofPairs) {
    this.title = title;
    this.ofPairs = ofPairs;
  }

  public String title() {
    return title;
  }

  public boolean ofPairs() {
    return ofPairs;
  }

  /** Whether it needs counts of pairs rather than sums over them. */
  boolean needsCounts() {
    return switch (this) {
      case SECOND_MOMENT, PAIR_ENTROPY, DIFFERENCE_ENTROPY, SUM_ENTROPY, INFORMATION -> true;
      default -> false;
    };
  }
}
