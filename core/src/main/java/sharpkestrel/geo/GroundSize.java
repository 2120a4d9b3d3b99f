package sharpkestrel.geo;

import sharpkestrel.raster.Affine;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Raster;

/**
 * Metres in a pixel, on the ellipsoid. From the CRS where there is one, by what its projection does to lengths there; from
 * the sensor model at its mean height where there is none; else the affine is taken to be in metres.
 *
 * @param width metres along a row; where rows and columns are not square to each other on the ground, the sides of a rectangle
 *     of the same area
 * @param height metres along a column
 * @param inMetres false where nothing is known of the ground, and both are 1 pixel
 */
public record GroundSize(double width, double height, boolean inMetres) {

  public GroundSize(double width, double height) {
    this(width, height, true);
  }

  /** What areas are in: m², or px for counted pixels. */
  public String areaUnit() {
    return inMetres ? "m²" : "px";
  }

  /** What lengths are in. */
  public String lengthUnit() {
    return inMetres ? "m" : "px";
  }

  /** A length in metres that makes sense at this size of pixels: at least so many of them, and where there are no metres as many. */
  public double lengthOf(double metres, double leastPixels) {
    return inMetres ? Math.max(metres, leastPixels * mean()) : leastPixels;
  }

  /** An area that makes sense at this size of pixels: as it is where it has enough of them, else as many as there should be. */
  public double areaOf(double squareMetres, double enoughPixels, double usualPixels) {
    return !inMetres
        ? usualPixels
        : squareMetres >= enoughPixels * area() ? squareMetres : usualPixels * area();
  }

  /** As text that {@link #parse} reads. */
  public String toText() {
    return width + "," + height + (inMetres ? "" : ",px");
  }

  /**
   * @throws IllegalArgumentException where the text is none
   */
  public static GroundSize parse(String text) {
    String[] parts = text.split(",");
    if (parts.length != 2 && parts.length != 3) {
      throw new IllegalArgumentException("'" + text + "' is no size of a pixel");
    }
    return new GroundSize(
        Double.parseDouble(parts[0]), Double.parseDouble(parts[1]), parts.length == 2);
  }

  /** Metres to each side over which a length is measured. */
  private static final double ABOUT = 50;

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
    return at(grid, grid.width() / 2.0, grid.height() / 2.0);
  }

  /** In the middle of a grid, or elsewhere in it. */
  static GroundSize at(Grid grid, double col, double row) {
    if (!grid.crs().isKnown()) {
      return ofAffine(grid);
    }
    Crs crs = Crs.of(grid.crs());
    CoordinateMap toDegrees = crs.toOwnDegrees();
    Affine affine = grid.affine();
    // as far to each side as rounding leaves alone and no projection bends
    double away = Math.max(1, ABOUT / Math.max(1e-9, Math.sqrt(pixelMetres(crs, grid))));
    double[] xy = new double[10];
    double[] cols = {col, col + away, col - away, col, col};
    double[] rows = {row, row, row, row + away, row - away};
    for (int i = 0; i < 5; i++) {
      xy[2 * i] = affine.x(cols[i], rows[i]);
      xy[2 * i + 1] = affine.y(cols[i], rows[i]);
    }
    toDegrees.apply(xy, 5);
    DatumShift.Ellipsoid on = crs.ellipsoid();
    double east = metresPerDegreeOfLongitude(on, xy[1]) / (2 * away);
    double north = metresPerDegreeOfLatitude(on, xy[1]) / (2 * away);
    double rightX = around(xy[2] - xy[4]) * east;
    double rightY = (xy[3] - xy[5]) * north;
    double downX = around(xy[6] - xy[8]) * east;
    double downY = (xy[7] - xy[9]) * north;
    double area = Math.abs(rightX * downY - rightY * downX);
    double width = Math.hypot(rightX, rightY);
    double height = Math.hypot(downX, downY);
    if (!(area > 0) || !Double.isFinite(area)) {
      // outside of where the projection is defined
      double k = crs.isGeographic() ? 1 : crs.metresPerUnit();
      return new GroundSize(affine.pixelWidth() * k, affine.pixelHeight() * k);
    }
    double square = Math.sqrt(area / (width * height));
    return new GroundSize(width * square, height * square);
  }

  /** Square metres of a pixel, roughly. */
  private static double pixelMetres(Crs crs, Grid grid) {
    double unit = crs.isGeographic() ? 111_000 : crs.metresPerUnit();
    return grid.pixelArea() * unit * unit;
  }

  /** A difference of longitudes the short way around. */
  private static double around(double degrees) {
    return degrees - 360 * Math.rint(degrees / 360);
  }

  private static GroundSize ofAffine(Grid grid) {
    return new GroundSize(
        grid.affine().pixelWidth(),
        grid.affine().pixelHeight(),
        !grid.affine().equals(Affine.IDENTITY));
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

  /** Prime vertical radius times cosine of latitude. */
  private static double metresPerDegreeOfLongitude(DatumShift.Ellipsoid on, double latitude) {
    double phi = Math.toRadians(latitude);
    double n = on.a() / Math.sqrt(1 - on.e2() * Math.sin(phi) * Math.sin(phi));
    return Math.toRadians(1) * n * Math.cos(phi);
  }

  /** Radius of the meridian. */
  private static double metresPerDegreeOfLatitude(DatumShift.Ellipsoid on, double latitude) {
    double phi = Math.toRadians(latitude);
    double w = 1 - on.e2() * Math.sin(phi) * Math.sin(phi);
    return Math.toRadians(1) * on.a() * (1 - on.e2()) / (w * Math.sqrt(w));
  }

  static double metresPerDegreeOfLongitude(double latitude) {
    return metresPerDegreeOfLongitude(DatumShift.Ellipsoid.WGS84, latitude);
  }

  static double metresPerDegreeOfLatitude(double latitude) {
    return metresPerDegreeOfLatitude(DatumShift.Ellipsoid.WGS84, latitude);
  }
}
