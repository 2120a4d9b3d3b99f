package sharpkestrel.geo;

/** What the heights of a model are measured from. */
public enum VerticalDatum {
  ELLIPSOID("above the ellipsoid"),
  GEOID("above the geoid"),
  UNKNOWN("above an unknown surface");

  private final String label;

  VerticalDatum(String label) {
    this.label = label;
  }

  public String label() {
    return label;
  }

  /** The datum of an EPSG vertical CRS code, or of one of GeoTIFF 1.0's codes for ellipsoids. */
  public static VerticalDatum ofEpsg(int code) {
    return switch (code) {
      case 4979, 5019, 5030 -> ELLIPSOID;
      case 3855, 5714, 5773, 5798 -> GEOID;
      default -> UNKNOWN;
    };
  }

  /** The code written to files: EGM2008 height for geoid heights, WGS 84 3D for ellipsoidal ones, 0 for none. */
  public int toEpsg() {
    return switch (this) {
      case ELLIPSOID -> 4979;
      case GEOID -> 5714;
      case UNKNOWN -> 0;
    };
  }
}
