package sharpkestrel.demo.noise;

/** Repeatable noise: hashes of whole numbers, smooth value noise between them, and sums of its octaves. */
public final class Noise implements SmoothField {

  private final long seed;

  public Noise(long seed) {
    this.seed = mix(seed * 0x9E3779B97F4A7C15L + 0x632BE59BD9B4E019L);
  }

  /** SplitMix64's finaliser. */
  public static long mix(long z) {
    long a = (z ^ (z >>> 30)) * 0xBF58476D1CE4E5B9L;
    long b = (a ^ (a >>> 27)) * 0x94D049BB133111EBL;
    return b ^ (b >>> 31);
  }

  /** Uniform in [0, 1) for a lattice point. */
  public double unitAt(long x, long y) {
    return along(row(y), x);
  }

  private long row(long y) {
    return seed ^ mix(y + 0x7F4A7C15L);
  }

  private static double along(long row, long x) {
    return (mix(row ^ x * 0x9E3779B97F4A7C15L) >>> 11) * 0x1.0p-53;
  }

  /** Normal with mean 0 and spread 1 for a lattice point (Box and Muller 1958). */
  public double gaussianAt(long x, long y) {
    double u = 1 - unitAt(2 * x, y);
    double v = unitAt(2 * x + 1, y);
    return Math.sqrt(-2 * Math.log(u)) * Math.cos(2 * Math.PI * v);
  }

  @Override
  public double at(double x, double y) {
    long ix = (long) Math.floor(x);
    long iy = (long) Math.floor(y);
    double fx = fade(x - ix);
    double fy = fade(y - iy);
    long first = row(iy);
    long next = row(iy + 1);
    double corner = along(first, ix);
    double top = corner + (along(first, ix + 1) - corner) * fx;
    corner = along(next, ix);
    double bottom = corner + (along(next, ix + 1) - corner) * fx;
    return 2 * (top + (bottom - top) * fy) - 1;
  }

  static double fade(double t) {
    return t * t * t * (t * (6 * t - 15) + 10);
  }
}
