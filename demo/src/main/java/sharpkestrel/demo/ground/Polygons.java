package sharpkestrel.demo.ground;

import java.util.Arrays;

/** Convex polygons as corners in turn, east and north. */
public final class Polygons {

  private Polygons() {}

  /** The part of a convex polygon where {@code a * e + b * n <= c}; empty where there is none. */
  public static double[] clip(double[] ring, double a, double b, double c) {
    double[] result = new double[ring.length + 2];
    int size = 0;
    int points = ring.length / 2;
    for (int i = 0; i < points; i++) {
      int j = (i + 1) % points;
      double here = a * ring[2 * i] + b * ring[2 * i + 1] - c;
      double next = a * ring[2 * j] + b * ring[2 * j + 1] - c;
      if (here <= 0) {
        result[size++] = ring[2 * i];
        result[size++] = ring[2 * i + 1];
      }
      if (here < 0 && next > 0 || here > 0 && next < 0) {
        double t = here / (here - next);
        if (size + 2 > result.length) {
          result = Arrays.copyOf(result, size + 4);
        }
        result[size++] = ring[2 * i] + t * (ring[2 * j] - ring[2 * i]);
        result[size++] = ring[2 * i + 1] + t * (ring[2 * j + 1] - ring[2 * i + 1]);
      }
    }
    return distinct(result, size);
  }

  /** Without corners that rounding has doubled. */
  private static double[] distinct(double[] ring, int size) {
    double[] result = new double[size];
    int kept = 0;
    for (int i = 0; i < size; i += 2) {
      int before = kept == 0 ? size - 2 : kept - 2;
      double[] from = kept == 0 ? ring : result;
      if (Math.abs(ring[i] - from[before]) > 1e-9
          || Math.abs(ring[i + 1] - from[before + 1]) > 1e-9) {
        result[kept++] = ring[i];
        result[kept++] = ring[i + 1];
      }
    }
    return kept < 6 ? new double[0] : Arrays.copyOf(result, kept);
  }

  /** Area, above 0 where the corners run anticlockwise. */
  public static double area(double[] ring) {
    double sum = 0;
    int points = ring.length / 2;
    // relative to the first corner: map coordinates squared would eat the digits
    for (int i = 0; i < points; i++) {
      int j = (i + 1) % points;
      sum += (ring[2 * i] - ring[0]) * (ring[2 * j + 1] - ring[1])
          - (ring[2 * j] - ring[0]) * (ring[2 * i + 1] - ring[1]);
    }
    return sum / 2;
  }

  /** Mean of the corners. */
  public static double[] middle(double[] ring) {
    double e = 0;
    double n = 0;
    int points = ring.length / 2;
    for (int i = 0; i < points; i++) {
      e += ring[2 * i] / points;
      n += ring[2 * i + 1] / points;
    }
    return new double[] {e, n};
  }

  /** An oblong's corners, anticlockwise; {@code angle} of its length in radians from east. */
  public static double[] oblong(double e, double n, double angle, double length, double width) {
    double cos = Math.cos(angle);
    double sin = Math.sin(angle);
    double l = length / 2;
    double w = width / 2;
    double[] ring = new double[8];
    double[][] plan = {{-l, -w}, {l, -w}, {l, w}, {-l, w}};
    for (int i = 0; i < 4; i++) {
      ring[2 * i] = e + plan[i][0] * cos - plan[i][1] * sin;
      ring[2 * i + 1] = n + plan[i][0] * sin + plan[i][1] * cos;
    }
    return ring;
  }

  /** Whether a convex polygon, anticlockwise, holds a point. */
  public static boolean holds(double[] ring, double e, double n) {
    for (int i = 0; i < ring.length; i += 2) {
      int j = (i + 2) % ring.length;
      if ((ring[j] - ring[i]) * (n - ring[i + 1]) - (ring[j + 1] - ring[i + 1]) * (e - ring[i])
          < 0) {
        return false;
      }
    }
    return true;
  }

  /**
   * A convex polygon, anticlockwise, whose sides are moved inwards, each by its own metres; empty where nothing is left.
   */
  public static double[] inset(double[] ring, double... by) {
    double[] left = ring;
    for (int i = 0, side = 0; i < ring.length && left.length > 0; i += 2, side++) {
      int j = (i + 2) % ring.length;
      double de = ring[j] - ring[i];
      double dn = ring[j + 1] - ring[i + 1];
      double length = Math.hypot(de, dn);
      double a = dn / length;
      double b = -de / length;
      double c = a * ring[i] + b * ring[i + 1] - by[Math.min(side, by.length - 1)];
      left = clip(left, a, b, c);
    }
    return left;
  }

  /** Whether two convex polygons have ground in common (separating axes). */
  public static boolean overlap(double[] one, double[] two) {
    return !parted(one, two) && !parted(two, one);
  }

  private static boolean parted(double[] ring, double[] other) {
    int points = ring.length / 2;
    for (int i = 0; i < points; i++) {
      int j = (i + 1) % points;
      double a = ring[2 * j + 1] - ring[2 * i + 1];
      double b = ring[2 * i] - ring[2 * j];
      boolean apart = true;
      for (int k = 0; k < other.length && apart; k += 2) {
        apart = a * (other[k] - ring[2 * i]) + b * (other[k + 1] - ring[2 * i + 1]) >= 0;
      }
      if (apart) {
        return true;
      }
    }
    return false;
  }
}
