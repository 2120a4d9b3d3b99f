package sharpkestrel.place.match;

/**
 * A place of the reference that was found in the scene.
 *
 * @param col place in the scene, pixels
 * @param x place on the ground, in the reference's system
 * @param lean by how many pixels, right and down, what is a metre high is seen off its ground
 */
record Found(double x, double y, double height, double col, double row, double score, Lean lean) {

  /** Pixels a metre; below this, heights do not show. */
  private static final double LEAST = 0.05;

  record Lean(double col, double row) {

    double length() {
      return Math.hypot(col, row);
    }

    boolean shows() {
      return length() >= LEAST;
    }

    /** How far a shift goes the way that high things lean, pixels. */
    double along(double dx, double dy) {
      return (dx * col + dy * row) / length();
    }

    /** How far it goes beside that way. */
    double across(double dx, double dy) {
      return Math.abs(dx * row - dy * col) / length();
    }
  }
}
