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
    PLANTATION,
    WHEAT,
    MAIZE,
    OILSEED,
    ORCHARD,
    WOOD,
    PARK,
    /** Rows of houses wall to wall about courts. */
    ROWS,
    /** Houses in walled yards. */
    YARDS,
    /** Houses each in its garden. */
    HOUSES,
    /** Halls with what lies about them. */
    WORKS,
    /** A farmstead. */
    STEADING;

    /** Whether it is fenced off from the open land. */
    public boolean worked() {
      return this != OPEN;
    }

    /** Whether people live or work on it. */
    public boolean built() {
      return ordinal() >= ROWS.ordinal();
    }
  }
}
