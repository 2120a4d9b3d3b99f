package sharpkestrel.demo.things;

import sharpkestrel.demo.ground.Polygons;
import sharpkestrel.demo.light.Surface;

/** A piece of ground that is covered otherwise than the land about it: a yard, a bleached sward, a bare rock. */
public final class Patch {

  public final double east;
  public final double north;
  public final double reach;
  public final Surface surface;
  /** How far its edge frays, metres. */
  public final double ragged;

  private final double[] ring;
  private final double[] sides;

  /**
   * @param ring convex, anticlockwise
   */
  public Patch(double[] ring, Surface surface, double ragged) {
    this.ring = ring.clone();
    this.surface = surface;
    this.ragged = ragged;
    double[] middle = Polygons.middle(ring);
    east = middle[0];
    north = middle[1];
    double far = 0;
    for (int i = 0; i < ring.length; i += 2) {
      far = Math.max(far, Math.hypot(ring[i] - east, ring[i + 1] - north));
    }
    reach = far + ragged;
    sides = new double[ring.length / 2 * 3];
    for (int i = 0, k = 0; i < ring.length; i += 2, k += 3) {
      int j = (i + 2) % ring.length;
      double a = ring[i + 1] - ring[j + 1];
      double b = ring[j] - ring[i];
      double length = Math.hypot(a, b);
      sides[k] = a / length;
      sides[k + 1] = b / length;
      sides[k + 2] = (a * (east - ring[i]) + b * (north - ring[i + 1])) / length;
    }
  }

  /** Metres from a point within to the nearest side; below 0 outside. */
  public double inside(double e, double n) {
    double least = Double.POSITIVE_INFINITY;
    for (int k = 0; k < sides.length; k += 3) {
      least = Math.min(least, sides[k] * (e - east) + sides[k + 1] * (n - north) + sides[k + 2]);
    }
    return least;
  }

  public double[] ring() {
    return ring.clone();
  }
}
