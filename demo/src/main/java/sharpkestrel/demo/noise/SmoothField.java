package sharpkestrel.demo.noise;

/** Smooth noise over the plane, in [-1, 1], with features of about one unit. */
interface SmoothField {

  double at(double x, double y);

  /** Octaves, each half as large and half as strong; about -1 to 1. */
  default double octaves(double x, double y, int count) {
    double sum = 0;
    double strength = 0.5;
    double px = x;
    double py = y;
    for (int i = 0; i < count; i++) {
      sum += strength * at(px + 17.3 * i, py - 9.1 * i);
      strength *= 0.5;
      // turned a little at each octave, so that the lattice does not show
      double qx = 2 * (0.8 * px - 0.6 * py);
      py = 2 * (0.6 * px + 0.8 * py);
      px = qx;
    }
    return sum;
  }
}
