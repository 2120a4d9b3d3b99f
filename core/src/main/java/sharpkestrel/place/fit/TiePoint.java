package sharpkestrel.place.fit;

/**
 * A thing seen in a scene and known on the ground.
 *
 * @param id stays with the point for good
 * @param col place in the scene, pixels; the centre of the first is (0.5, 0.5)
 * @param x place on the ground, in the system of the points
 * @param height metres above the ellipsoid, NaN where not known
 * @param score how alike both places look, 0 to 1; NaN for points set by hand
 */
public record TiePoint(
    int id, double col, double row, double x, double y, double height, Use use, double score) {

  /** What a point is for. */
  public enum Use {
    /** Models are fitted to it. */
    CONTROL,
    /** Models are checked against it, never fitted. */
    CHECK,
    /** Switched off. */
    OFF
  }

  public TiePoint as(Use other) {
    return new TiePoint(id, col, row, x, y, height, other, score);
  }

  public TiePoint seenAt(double newCol, double newRow) {
    return new TiePoint(id, newCol, newRow, x, y, height, use, score);
  }

  public TiePoint on(double newX, double newY, double newHeight) {
    return new TiePoint(id, col, row, newX, newY, newHeight, use, score);
  }
}
