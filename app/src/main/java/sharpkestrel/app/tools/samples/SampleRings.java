package sharpkestrel.app.tools.samples;

import java.util.List;
import java.util.function.Function;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.paint.Color;
import org.locationtech.jts.geom.Coordinate;
import sharpkestrel.app.samples.Sample;
import sharpkestrel.app.viewer.Ring;
import sharpkestrel.raster.Affine;

/** Samples over the picture: rings around areas, dots on points and on the corners of lines. */
final class SampleRings {

  private static final Color HALO = Color.rgb(20, 22, 24, 0.75);
  private static final double DOT = 3;

  private SampleRings() {}

  /**
   * @param map from the ground to the screen
   */
  static void draw(
      GraphicsContext g, List<Sample> samples, Affine map, Function<Sample, Color> colour) {
    for (Sample sample : samples) {
      if (sample.outline().getDimension() == 2) {
        Ring.draw(g, sample.outline(), map, colour.apply(sample));
      } else {
        dots(g, List.of(sample.outline().getCoordinates()), map, colour.apply(sample));
      }
    }
  }

  static void dots(GraphicsContext g, List<Coordinate> places, Affine map, Color colour) {
    for (Coordinate at : places) {
      double x = map.x(at.x, at.y);
      double y = map.y(at.x, at.y);
      g.setFill(HALO);
      g.fillOval(x - DOT - 1, y - DOT - 1, 2 * DOT + 2, 2 * DOT + 2);
      g.setFill(colour);
      g.fillOval(x - DOT, y - DOT, 2 * DOT, 2 * DOT);
    }
  }
}
