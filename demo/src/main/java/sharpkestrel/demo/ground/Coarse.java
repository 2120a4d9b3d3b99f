package sharpkestrel.demo.ground;

/**
 * What changes slowly, at nodes {@value #STEP} m apart about a tile, interpolated by cubics (Catmull and Rom 1974): the
 * smooth shore and the broad forms of the relief. Their finest features are five nodes long, so that the interpolated
 * ground differs from the function by a few millimetres.
 */
final class Coarse {

  private static final int STEP = 4;
  private static final int SIDE = (GroundTile.SIDE + 2 * GroundTile.APRON) / STEP + 4;
  private static final int FIELDS = 4;

  private final float[][] fields = new float[FIELDS][SIDE * SIDE];

  /**
   * @param west of the tile's first node
   */
  Coarse(Ground ground, double west, double south) {
    for (int y = 0; y < SIDE; y++) {
      for (int x = 0; x < SIDE; x++) {
        double e = west + (x - 1) * STEP;
        double n = south + (y - 1) * STEP;
        Landform.Broad broad = ground.landform().broad(e, n);
        int at = y * SIDE + x;
        fields[0][at] = (float) ground.landform().smooth(e, n);
        fields[1][at] = (float) broad.cliff();
        fields[2][at] = (float) broad.drop();
        fields[3][at] = (float) broad.ridge();
      }
    }
  }

  /** The fields at a node of the tile, metres from its first one, into {@code values}. */
  void at(int x, int y, double[] values) {
    int cx = x / STEP;
    int cy = y / STEP;
    double fx = (double) (x % STEP) / STEP;
    double fy = (double) (y % STEP) / STEP;
    for (int f = 0; f < FIELDS; f++) {
      float[] field = fields[f];
      int at = cy * SIDE + cx;
      values[f] = cubic(
          fy,
          row(field, at, fx),
          row(field, at + SIDE, fx),
          row(field, at + 2 * SIDE, fx),
          row(field, at + 3 * SIDE, fx));
    }
  }

  private static double row(float[] field, int at, double t) {
    return cubic(t, field[at], field[at + 1], field[at + 2], field[at + 3]);
  }

  private static double cubic(double t, double a, double b, double c, double d) {
    return b + 0.5 * t * (c - a + t * (2 * a - 5 * b + 4 * c - d + t * (3 * (b - c) + d - a)));
  }
}
