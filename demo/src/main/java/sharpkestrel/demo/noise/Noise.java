package sharpkestrel.demo.noise;

/** Repeatable noise: hashes of whole numbers, smooth value noise between them, and sums of its octaves. */
public final class Noise {

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
  public double at(long x, long y) {
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
    double u = 1 - at(2 * x, y);
    double v = at(2 * x + 1, y);
    return Math.sqrt(-2 * Math.log(u)) * Math.cos(2 * Math.PI * v);
  }

  /** Smooth noise in [-1, 1] with features of about one unit. */
  public double smooth(double x, double y) {
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

  private static double fade(double t) {
    return t * t * t * (t * (6 * t - 15) + 10);
  }

  /** Octaves of smooth noise, each half as large and half as strong; about -1 to 1. */
  public double octaves(double x, double y, int count) {
    double sum = 0;
    double strength = 0.5;
    double px = x;
    double py = y;
    for (int i = 0; i < count; i++) {
      sum += strength * smooth(px + 17.3 * i, py - 9.1 * i);
      strength *= 0.5;
      // turned a little at each octave, so that the lattice does not show
      double qx = 2 * (0.8 * px - 0.6 * py);
      py = 2 * (0.6 * px + 0.8 * py);
      px = qx;
    }
    return sum;
  }
}
