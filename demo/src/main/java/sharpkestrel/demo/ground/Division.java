package sharpkestrel.demo.ground;

import sharpkestrel.demo.noise.Chance;

/** How the land of a region is parted: cells of a loose lattice, each split again and again across its length. */
public interface Division {

  /** What becomes of a piece of a cell. */
  interface Pieces {

    /**
     * @param ring its corners, convex, anticlockwise
     */
    Parcel of(double[] ring, Chance chance);
  }

  /**
   * How one cell is parted.
   *
   * @param grain square metres that its pieces have, roughly
   * @param turn direction of its lines, radians
   * @param loose spread of the lines' directions, radians
   */
  record Manner(double grain, double turn, double loose, Pieces pieces) {}

  /** Metres from a cell of the lattice to the next. */
  double cell();

  /** How the cell about a place is parted. */
  Manner manner(double e, double n, Chance chance);
}
