package sharpkestrel.demo.ground;

/**
 * A piece of land that is worked as one.
 *
 * @param ring corners in turn, east and north
 * @param bright factor of its reflectance
 * @param rows direction of its furrows, radians
 * @param dry share of dry stalks, 0 to 1
 */
public record Parcel(Use use, double[] ring, double bright, double rows, double dry) {

  /** What grows on it. */
  public enum Use {
    OPEN,
    PASTURE,
    MEADOW,
    STUBBLE,
    PLOUGHED,
    OATS,
    ROOTS,
    RUSHES,
    PLANTATION;

    /** Whether it is fenced off from the open land. */
    public boolean worked() {
      return this != OPEN;
    }
  }
}
