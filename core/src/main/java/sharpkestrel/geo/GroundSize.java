package sharpkestrel.geo;

import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Raster;

/**
 * Metres in a pixel. From the CRS where there is one; from the sensor model at its mean height where there is none;
 * else the affine is taken to be in metres.
 *
 * @param width metres along a row
 * @param height metres along a column
 */
public record GroundSize(double width, double height) {

  public double area() {
    return width * height;
  }

  /** The side of a square of the same area. */
  public double mean() {
    return Math.sqrt(area());
  }

  public static GroundSize of(Raster raster) {
    Grid grid = raster.grid();
    if (!grid.crs().isKnown()) {
      return raster
          .attachments()
          .get(Rpc.class)
          .map(rpc -> ofModel(rpc, grid))
          .orElseGet(() -> ofAffine(grid));
    }
    return of(grid);
  }

  public static GroundSize of(Grid grid) {
    if (!grid.crs().isKnown()) {
      return ofAffine(grid);
    }
    Crs crs = Crs.of(grid.crs());
    if (!crs.isGeographic()) {
      double k = crs.metresPerUnit();
      return new GroundSize(grid.affine().pixelWidth() * k, grid.affine().pixelHeight() * k);
    }
    double row = grid.height() / 2.0;
    double latitude = grid.affine().y(grid.width() / 2.0, row);
    return new GroundSize(
        grid.affine().pixelWidth() * metresPerDegreeOfLongitude(latitude),
        grid.affine().pixelHeight() * metresPerDegreeOfLatitude(latitude));
  }

  private static GroundSize ofAffine(Grid grid) {
    return new GroundSize(grid.affine().pixelWidth(), grid.affine().pixelHeight());
  }

  private static GroundSize ofModel(Rpc rpc, Grid grid) {
    double col = grid.width() / 2.0;
    double row = grid.height() / 2.0;
    double[] at = new double[2];
    double[] right = new double[2];
    double[] below = new double[2];
    rpc.toGround(col, row, rpc.heightOffset(), at);
    rpc.toGround(col + 1, row, rpc.heightOffset(), right);
    rpc.toGround(col, row + 1, rpc.heightOffset(), below);
    return new GroundSize(metres(at, right), metres(at, below));
  }

  private static double metres(double[] from, double[] to) {
    return Math.hypot(
        (to[0] - from[0]) * metresPerDegreeOfLongitude(from[1]),
        (to[1] - from[1]) * metresPerDegreeOfLatitude(from[1]));
  }

  /** On the WGS 84 ellipsoid: prime vertical radius times cosine of latitude. */
  static double metresPerDegreeOfLongitude(double latitude) {
    double phi = Math.toRadians(latitude);
    double e2 = 0.00669437999014;
    double n = 6_378_137 / Math.sqrt(1 - e2 * Math.sin(phi) * Math.sin(phi));
    return Math.toRadians(1) * n * Math.cos(phi);
  }

  /** On the WGS 84 ellipsoid: radius of the meridian. */
  static double metresPerDegreeOfLatitude(double latitude) {
    double phi = Math.toRadians(latitude);
    double e2 = 0.00669437999014;
    double w = 1 - e2 * Math.sin(phi) * Math.sin(phi);
    return Math.toRadians(1) * 6_378_137 * (1 - e2) / (w * Math.sqrt(w));
  }
}
