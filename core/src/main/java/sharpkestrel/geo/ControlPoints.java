package sharpkestrel.geo;

import java.util.List;
import sharpkestrel.raster.CrsName;

/**
 * Ground control points that a file gives in place of a grid: pixels whose place on the ground is known. They say where a
 * raster lies only once a model is fitted to them.
 */
public record ControlPoints(CrsName crs, List<Point> points) {

  public static final ControlPoints NONE = new ControlPoints(CrsName.NONE, List.of());

  /**
   * @param col pixels from the left edge; the centre of the first pixel is at 0.5
   * @param row pixels from the upper edge
   * @param x east, or longitude, in the system of the points
   * @param y north, or latitude
   * @param height in the unit of the file, 0 where it tells none
   */
  public record Point(double col, double row, double x, double y, double height) {}

  public ControlPoints {
    points = List.copyOf(points);
  }
}
