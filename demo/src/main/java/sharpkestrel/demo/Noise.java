package sharpkestrel.demo;

/** Repeatable noise: hashes of whole numbers, smooth value noise between them, and sums of its octaves. */
final class Noise {

  private final long seed;

  Noise(long seed) {
    this.seed = mix(seed * 0x9E3779B97F4A7C15L + 0x632BE59BD9B4E019L);
  }

  /** SplitMix64's finaliser. */
  static long mix(long z) {
    long a = (z ^ (z >>> 30)) * 0xBF58476D1CE4E5B9L;
    long b = (a ^ (a >>> 27)) * 0x94D049BB133111EBL;
    return b ^ (b >>> 31);
  }

  /** Uniform in [0, 1) for a lattice point. */
  double at(long x, long y) {
    return (mix(seed ^ x * 0x9E3779B97F4A7C15L ^ mix(y + 0x7F4A7C15L)) >>> 11) * 0x1.0p-53;
  }

  /** Normal with mean 0 and spread 1 for a lattice point (Box and Muller 1958). */
  double gaussianAt(long x, long y) {
    double u = 1 - at(2 * x, y);
    double v = at(2 * x + 1, y);
    return Math.sqrt(-2 * Math.log(u)) * Math.cos(2 * Math.PI * v);
  }

  /** Smooth noise in [-1, 1] with features of about one unit. */
  double smooth(double x, double y) {
    long ix = (long) Math.floor(x);
    long iy = (long) Math.floor(y);
    double fx = fade(x - ix);
    double fy = fade(y - iy);
    double top = at(ix, iy) + (at(ix + 1, iy) - at(ix, iy)) * fx;
    double bottom = at(ix, iy + 1) + (at(ix + 1, iy + 1) - at(ix, iy + 1)) * fx;
    return 2 * (top + (bottom - top) * fy) - 1;
  }

  private static double fade(double t) {
    return t * t * t * (t * (6 * t - 15) + 10);
  }

  /** Octaves of smooth noise, each half as large and half as strong; about -1 to 1. */
  double octaves(double x, double y, int count) {
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
