package sharpkestrel.raster;

import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * What a grid says of its coordinate reference system: an authority code such as {@code EPSG:32630}, a WKT text, or
 * nothing. The raster package only carries the name; {@code geo.Crs} gives it meaning.
 */
public record CrsName(String text) {

  public static final CrsName NONE = new CrsName("");

  private static final Pattern CODE_AT_END = Pattern.compile(
      "(?:AUTHORITY|ID)\\s*\\[\\s*\"EPSG\"\\s*,\\s*\"?(\\d{1,7})\"?\\s*\\]\\s*\\]$");

  public CrsName {
    text = text.strip();
  }

  public static CrsName epsg(int code) {
    return new CrsName("EPSG:" + code);
  }

  /** Well-known text, by its code where it ends with one of EPSG. */
  public static CrsName ofWkt(String wkt) {
    Matcher coded = CODE_AT_END.matcher(wkt.strip());
    return coded.find() && wkt.strip().matches("(?s)(PROJ|GEO).*")
        ? epsg(Integer.parseInt(coded.group(1)))
        : new CrsName(wkt);
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
