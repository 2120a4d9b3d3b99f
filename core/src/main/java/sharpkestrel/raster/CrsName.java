package sharpkestrel.raster;

/**
 * What a grid says of its coordinate reference system: an authority code such as {@code EPSG:32630}, a WKT text, or
 * nothing. The raster package only carries the name; {@code geo.Crs} gives it meaning.
 */
public record CrsName(String text) {

  public static final CrsName NONE = new CrsName("");

  public CrsName {
    text = text.strip();
  }

  public static CrsName epsg(int code) {
    return new CrsName("EPSG:" + code);
  }

  public boolean isKnown() {
    return !text.isEmpty();
  }

  /** The EPSG code, or -1 where the name is not one. */
  public int epsgCode() {
    if (text.regionMatches(true, 0, "EPSG:", 0, 5)) {
      try {
        return Integer.parseInt(text.substring(5).strip());
      } catch (NumberFormatException notACode) {
        return -1;
      }
    }
    return -1;
  }

  @Override
  public String toString() {
    return isKnown() ? text : "none";
  }
}
