package sharpkestrel.demo.ground;

/** A box of ground, metres east and north. */
public record Extent(double west, double south, double east, double north) {

  public static Extent around(double e, double n, double half) {
    return new Extent(e - half, n - half, e + half, n + half);
  }

  public Extent grown(double margin) {
    return new Extent(west - margin, south - margin, east + margin, north + margin);
  }

  public Extent union(Extent other) {
    return new Extent(
        Math.min(west, other.west),
        Math.min(south, other.south),
        Math.max(east, other.east),
        Math.max(north, other.north));
  }

  public boolean holds(double e, double n) {
    return e >= west && e <= east && n >= south && n <= north;
  }

  public double width() {
    return east - west;
  }

  public double height() {
    return north - south;
  }
}
