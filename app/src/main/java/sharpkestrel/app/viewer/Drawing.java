package sharpkestrel.app.viewer;

import java.util.List;
import java.util.Optional;
import org.locationtech.jts.geom.Geometry;
import sharpkestrel.raster.LabelRaster;

/**
 * What a value adds to the picture it lies on: objects, painted as one array says, and outlines.
 *
 * @param paint there where {@code labels} are
 */
public record Drawing(
    Optional<LabelRaster> labels, Optional<ObjectPaint> paint, List<Drawn> outlines) {

  static final Drawing NOTHING = new Drawing(Optional.empty(), Optional.empty(), List.of());

  /**
   * Outlines of one colour.
   *
   * @param outlines in the coordinates of the picture's grid
   */
  record Drawn(List<Geometry> outlines, int colour) {}

  static Drawing of(LabelRaster labels, ObjectPaint paint) {
    return new Drawing(Optional.of(labels), Optional.of(paint), List.of());
  }

  static Drawing of(Drawn... outlines) {
    return new Drawing(Optional.empty(), Optional.empty(), List.of(outlines));
  }
}
