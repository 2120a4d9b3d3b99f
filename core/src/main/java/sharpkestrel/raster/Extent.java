package sharpkestrel.raster;

/** A rectangle on the ground, in the units of its CRS. */
public record Extent(double west, double south, double east, double north) {

  /** The square with sides of twice {@code half} about a point. */
  public static Extent around(double east, double north, double half) {
    return new Extent(east - half, north - half, east + half, north + half);
  }

  /** Larger by a margin on every side. */
  public Extent grown(double margin) {
    return new Extent(west - margin, south - margin, east + margin, north + margin);
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

  public boolean isEmpty() {
    return !(east > west) || !(north > south);
  }

  public Extent intersect(Extent other) {
    return new Extent(
        Math.max(west, other.west),
        Math.max(south, other.south),
        Math.min(east, other.east),
        Math.min(north, other.north));
  }

  public Extent union(Extent other) {
    return new Extent(
        Math.min(west, other.west),
        Math.min(south, other.south),
        Math.max(east, other.east),
        Math.max(north, other.north));
  }

  /** Reads {@code west,south,east,north}. */
  public static Extent parse(String text) {
    String[] parts = text.split(",");
    if (parts.length == 4) {
      try {
        Extent extent = new Extent(
            Double.parseDouble(parts[0].strip()),
            Double.parseDouble(parts[1].strip()),
            Double.parseDouble(parts[2].strip()),
            Double.parseDouble(parts[3].strip()));
        if (!extent.isEmpty()) {
          return extent;
        }
      } catch (NumberFormatException notNumbers) {
        // falls through to the message below, which shows the whole text
      }
    }
    throw new IllegalArgumentException(
        "An extent is west,south,east,north with west < east and south < north, not '" + text
            + "'");
  }

  @Override
  public String toString() {
    return plain(west) + "," + plain(south) + "," + plain(east) + "," + plain(north);
  }

  private static String plain(double value) {
    return value == Math.rint(value) && Math.abs(value) < 1e15
        ? Long.toString((long) value)
        : Double.toString(value);
  }
}
