package sharpkestrel.place.fit;

/** Moves points to about the origin and to about unit size, lest powers of large coordinates eat the digits. */
record Scaling(double middleU, double middleV, double size) {

  static Scaling of(double[][] points) {
    double u = 0;
    double v = 0;
    for (double[] point : points) {
      u += point[0] / points.length;
      v += point[1] / points.length;
    }
    double far = 0;
    for (double[] point : points) {
      far = Math.max(far, Math.max(Math.abs(point[0] - u), Math.abs(point[1] - v)));
    }
    return new Scaling(u, v, far > 0 ? far : 1);
  }

  double u(double u) {
    return (u - middleU) / size;
  }

  double v(double v) {
    return (v - middleV) / size;
  }
}
