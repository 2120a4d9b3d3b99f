package sharpkestrel.raster;

/**
 * Counts in equal bins from {@code low} to {@code high}; values at or above {@code high} fall in the last bin, below
 * {@code low} in the first.
 */
public record Histogram(double low, double high, long[] counts) {

  public double binWidth() {
    return (high - low) / counts.length;
  }

  public long total() {
    long total = 0;
    for (long count : counts) {
      total += count;
    }
    return total;
  }

  /** The value under which a fraction of the counts lies, linear within its bin; NaN where empty. */
  public double quantile(double fraction) {
    long total = total();
    if (total == 0) {
      return Double.NaN;
    }
    double wanted = fraction * total;
    double seen = 0;
    for (int i = 0; i < counts.length; i++) {
      if (seen + counts[i] >= wanted && counts[i] > 0) {
        return low + (i + (wanted - seen) / counts[i]) * binWidth();
      }
      seen += counts[i];
    }
    return high;
  }
}
