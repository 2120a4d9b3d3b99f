package sharpkestrel.place.match;

/**
 * Finds where in a larger patch a smaller one lies: normalised correlation of their gradient fields at every shift,
 * then the top of a parabola through the best shift and its neighbours.
 */
final class PatchCorrelator {

  /** Beside the best peak no other may come so near to it, as a share, farther than two pixels away. */
  private static final double RIVAL = 0.85;

  private PatchCorrelator() {}

  /**
   * A match.
   *
   * @param dx pixels to the right from where the small patch was expected; {@code dy} down
   * @param score correlation at the best whole shift, up to 1
   * @param distinct whether no other place matches about as well, and the best is not at the edge of the search
   */
  record Match(double dx, double dy, double score, boolean distinct) {}

  /**
   * @param small (input) patch of side n
   * @param large (input) patch of side n + 2 * reach, about the expected place
   */
  static Match find(GradientField small, GradientField large, int reach) {
    int side = 2 * reach + 1;
    double[] scores = new double[side * side];
    int best = 0;
    for (int dy = -reach; dy <= reach; dy++) {
      for (int dx = -reach; dx <= reach; dx++) {
        int k = (dy + reach) * side + dx + reach;
        scores[k] = score(small, large, dx + reach, dy + reach);
        if (scores[k] > scores[best]) {
          best = k;
        }
      }
    }
    int bx = best % side;
    int by = best / side;
    boolean inside = bx > 0 && by > 0 && bx < side - 1 && by < side - 1;
    boolean distinct = inside && scores[best] > 0;
    for (int k = 0; k < scores.length && distinct; k++) {
      boolean away = Math.max(Math.abs(k % side - bx), Math.abs(k / side - by)) > 2;
      distinct = !away || scores[k] < RIVAL * scores[best];
    }
    double dx = bx - reach;
    double dy = by - reach;
    if (inside) {
      double[] top = top(scores, side, bx, by);
      dx += top[0];
      dy += top[1];
    }
    return new Match(dx, dy, scores[best], distinct);
  }

  private static double score(GradientField small, GradientField large, int ox, int oy) {
    int border = GradientField.BORDER;
    double both = 0;
    double one = 0;
    double two = 0;
    for (int y = border; y < small.height() - border; y++) {
      int i = y * small.width() + border;
      int j = (y + oy) * large.width() + border + ox;
      float rowBoth = 0;
      float rowOne = 0;
      float rowTwo = 0;
      for (int x = border; x < small.width() - border; x++, i++, j++) {
        rowBoth += small.re()[i] * large.re()[j] + small.im()[i] * large.im()[j];
        rowOne += small.power()[i];
        rowTwo += large.power()[j];
      }
      both += rowBoth;
      one += rowOne;
      two += rowTwo;
    }
    return one > 0 && two > 0 ? both / Math.sqrt(one * two) : 0;
  }

  /** Top of the quadratic surface that fits the nine scores about the best in the sense of least squares. */
  private static double[] top(double[] s, int side, int bx, int by) {
    double gx = 0;
    double gy = 0;
    double gxx = 0;
    double gyy = 0;
    double gxy = 0;
    for (int y = -1; y <= 1; y++) {
      for (int x = -1; x <= 1; x++) {
        double v = s[(by + y) * side + bx + x];
        gx += x * v / 6;
        gy += y * v / 6;
        gxx += (x == 0 ? -2 : 1) * v / 3;
        gyy += (y == 0 ? -2 : 1) * v / 3;
        gxy += x * y * v / 4;
      }
    }
    double det = gxx * gyy - gxy * gxy;
    if (!(det > 0) || gxx >= 0) {
      return new double[] {0, 0};
    }
    double dx = (gxy * gy - gyy * gx) / det;
    double dy = (gxy * gx - gxx * gy) / det;
    return Math.abs(dx) <= 1 && Math.abs(dy) <= 1 ? new double[] {dx, dy} : new double[] {0, 0};
  }
}
