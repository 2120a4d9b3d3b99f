package sharpkestrel.place.fit;

import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.UnaryOperator;
import sharpkestrel.raster.CrsName;
import sharpkestrel.raster.RasterException;

/**
 * The points of one scene.
 *
 * @param crs of the places on the ground
 * @param width of the scene in pixels; points serve other bands of the scene, of other sizes, in proportion
 */
public record TiePoints(CrsName crs, int width, int height, List<TiePoint> points) {

  /** Cells along each side of a scene in which its coverage is told. */
  public static final int CELLS = 4;

  /** By how many pixels of the smaller image one of the same scene may be longer or shorter than the other says. */
  private static final double FORM_PIXELS = 4;

  public TiePoints {
    points = List.copyOf(points);
  }

  public List<TiePoint> of(TiePoint.Use use) {
    return points.stream().filter(p -> p.use() == use).toList();
  }

  public TiePoints with(List<TiePoint> others) {
    return new TiePoints(crs, width, height, others);
  }

  public TiePoints each(UnaryOperator<TiePoint> change) {
    return with(points.stream().map(change).toList());
  }

  /**
   * The same points in another image of the scene, whose pixels are of another size.
   *
   * @throws RasterException where the other image is not of the same form, and so not of the same scene
   */
  public TiePoints scaledTo(int otherWidth, int otherHeight) {
    double sx = (double) otherWidth / width;
    double sy = (double) otherHeight / height;
    // sizes are whole numbers, so the shares of a scene's images may differ by a pixel or two of
    // the smaller one
    double off = Math.abs(sx - sy) * Math.min(width, height) / Math.max(sx, 1);
    if (off > FORM_PIXELS) {
      throw new RasterException("These points are of an image of " + width + " x " + height
          + " pixels, and this one has " + otherWidth + " x " + otherHeight
          + ": it is another image. Find points in this one.");
    }
    return new TiePoints(
        crs,
        otherWidth,
        otherHeight,
        points.stream().map(p -> p.seenAt(p.col() * sx, p.row() * sy)).toList());
  }

  /** Numbers, row by row, of the cells of the scene that hold a control point. */
  public Set<Integer> coverage() {
    Set<Integer> covered = new TreeSet<>();
    for (TiePoint point : of(TiePoint.Use.CONTROL)) {
      int x = (int) Math.max(0, Math.min(CELLS - 1, CELLS * point.col() / width));
      int y = (int) Math.max(0, Math.min(CELLS - 1, CELLS * point.row() / height));
      covered.add(y * CELLS + x);
    }
    return covered;
  }
}
