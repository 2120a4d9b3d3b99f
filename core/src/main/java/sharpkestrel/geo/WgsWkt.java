package sharpkestrel.geo;

/** Well-known text of WGS 84 and its UTM zones, so that they need no look-up. */
final class WgsWkt {

  private static final String BASE = "DATUM[\"World Geodetic System 1984\","
      + "ELLIPSOID[\"WGS 84\",6378137,298.257223563,LENGTHUNIT[\"metre\",1]]],"
      + "PRIMEM[\"Greenwich\",0,ANGLEUNIT[\"degree\",0.0174532925199433]]";

  private WgsWkt() {}

  /** The text for EPSG 4326 and 32601 to 32660, 32701 to 32760; empty for others. */
  static String of(int epsg) {
    if (epsg == 4326) {
      return "GEODCRS[\"WGS 84\","
          + BASE
          + ",CS[ellipsoidal,2],AXIS[\"latitude (Lat)\",north,ORDER[1]],"
          + "AXIS[\"longitude (Lon)\",east,ORDER[2]],ANGLEUNIT[\"degree\",0.0174532925199433]]";
    }
    boolean north = epsg > 32600 && epsg <= 32660;
    boolean south = epsg > 32700 && epsg <= 32760;
    if (!north && !south) {
      return "";
    }
    int zone = epsg % 100;
    int centralMeridian = 6 * zone - 183;
    return "PROJCRS[\"WGS 84 / UTM zone "
        + zone
        + (north ? "N" : "S")
        + "\",BASEGEODCRS[\"WGS 84\","
        + BASE
        + "],CONVERSION[\"UTM zone "
        + zone
        + (north ? "N" : "S")
        + "\",METHOD[\"Transverse Mercator\",ID[\"EPSG\",9807]],"
        + "PARAMETER[\"Latitude of natural origin\",0,ANGLEUNIT[\"degree\",0.0174532925199433]],"
        + "PARAMETER[\"Longitude of natural origin\","
        + centralMeridian
        + ",ANGLEUNIT[\"degree\",0.0174532925199433]],"
        + "PARAMETER[\"Scale factor at natural origin\",0.9996,SCALEUNIT[\"unity\",1]],"
        + "PARAMETER[\"False easting\",500000,LENGTHUNIT[\"metre\",1]],"
        + "PARAMETER[\"False northing\","
        + (north ? 0 : 10_000_000)
        + ",LENGTHUNIT[\"metre\",1]]],CS[Cartesian,2],AXIS[\"(E)\",east,ORDER[1]],"
        + "AXIS[\"(N)\",north,ORDER[2]],LENGTHUNIT[\"metre\",1]]";
  }
}
