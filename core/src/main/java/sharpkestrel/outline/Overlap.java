package sharpkestrel.outline;

import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.operation.overlayng.OverlayNG;
import org.locationtech.jts.operation.overlayng.OverlayNGRobust;

/** How much two outlines have in common; robust for outlines that share sides or touch themselves. */
public final class Overlap {

  private Overlap() {}

  public static double commonArea(Geometry a, Geometry b) {
    return OverlayNGRobust.overlay(a, b, OverlayNG.INTERSECTION).getArea();
  }

  /** Intersection over union of the areas, 0 to 1. */
  public static double iou(Geometry a, Geometry b) {
    double common = commonArea(a, b);
    double all = a.getArea() + b.getArea() - common;
    return all > 0 ? common / all : 0;
  }
}
