package sharpkestrel.app.viewer;

import javafx.scene.canvas.GraphicsContext;
import javafx.scene.paint.Color;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.Polygon;
import sharpkestrel.raster.Affine;

/** A closed line over the picture, in a colour over a dark halo, so that it shows on anything. */
public final class Ring {

  private static final Color HALO = Color.rgb(0, 0, 0, 0.7);

  /** Screen pixels under which it is drawn as a dot. */
  private static final double DOT = 8;

  private Ring() {}

  /** All rings of areas, those around their holes too. */
  public static void draw(GraphicsContext g, Geometry areas, Affine map, Color colour) {
    for (int k = 0; k < areas.getNumGeometries(); k++) {
      if (areas.getGeometryN(k) instanceof Polygon polygon && !polygon.isEmpty()) {
        draw(g, polygon.getExteriorRing().getCoordinates(), map, colour);
        for (int hole = 0; hole < polygon.getNumInteriorRing(); hole++) {
          draw(g, polygon.getInteriorRingN(hole).getCoordinates(), map, colour);
        }
      }
    }
  }

  /**
   * @param corners in ground coordinates, the first again at the end
   * @param map from the ground to the screen
   */
  public static void draw(GraphicsContext g, Coordinate[] corners, Affine map, Color colour) {
    double[] xs = new double[corners.length];
    double[] ys = new double[corners.length];
    double reach = 0;
    for (int i = 0; i < corners.length; i++) {
      xs[i] = map.x(corners[i].x, corners[i].y);
      ys[i] = map.y(corners[i].x, corners[i].y);
      reach = Math.max(reach, Math.hypot(xs[i] - xs[0], ys[i] - ys[0]));
    }
    for (int pass = 0; pass < 2; pass++) {
      g.setStroke(pass == 0 ? HALO : colour);
      g.setLineWidth(pass == 0 ? 4 : 2);
      if (reach < DOT) {
        // a pixel, or an area too far off to be seen
        g.strokeOval(xs[0] + reach / 2 - 5, ys[0] + reach / 2 - 5, 10, 10);
      } else {
        g.strokePolyline(xs, ys, xs.length);
      }
    }
  }
}
