package sharpkestrel.demo.ground;

/**
 * A road along a line.
 *
 * @param line points in turn, east and north
 */
public record Road(Kind kind, double[] line) {

  /** What it is made of and how wide. */
  public enum Kind {
    MAIN(3.3),
    STREET(2.7),
    LANE(1.7),
    MINOR(2.1),
    TRACK(1.5),
    /** Four lanes of asphalt. */
    AVENUE(6.6),
    /** A street of bare earth. */
    DIRT(2.8),
    RAIL(2.3);

    /** Metres from the middle to the edge. */
    public final double half;

    Kind(double half) {
      this.half = half;
    }
  }

  public int points() {
    return line.length / 2;
  }

  public double e(int point) {
    return line[2 * point];
  }

  public double n(int point) {
    return line[2 * point + 1];
  }
}
