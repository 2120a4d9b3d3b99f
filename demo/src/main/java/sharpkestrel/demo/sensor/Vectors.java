package sharpkestrel.demo.sensor;

/** Vectors of three numbers. */
final class Vectors {

  private Vectors() {}

  static double dot(double[] a, double[] b) {
    return a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
  }

  static double[] unit(double... a) {
    double l = Math.sqrt(dot(a, a));
    return new double[] {a[0] / l, a[1] / l, a[2] / l};
  }

  static double[] cross(double[] a, double[] b) {
    return new double[] {
      a[1] * b[2] - a[2] * b[1], a[2] * b[0] - a[0] * b[2], a[0] * b[1] - a[1] * b[0]
    };
  }
}
