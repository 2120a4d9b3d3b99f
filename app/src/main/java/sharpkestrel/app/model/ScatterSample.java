package sharpkestrel.app.model;

import java.util.ArrayList;
import java.util.List;
import org.locationtech.jts.geom.Geometry;
import sharpkestrel.raster.Attachments;
import sharpkestrel.raster.Band;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.DerivedRaster;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.PolygonFill;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.Request;
import sharpkestrel.raster.SampleType;
import sharpkestrel.raster.Window;
import sharpkestrel.raster.Zoom;

/**
 * Values of two bands, pixel by pixel: of what is in view, and of places.
 *
 * @param x of what is in view
 * @param y likewise
 * @param places for each place its values of both bands
 */
public record ScatterSample(float[] x, float[] y, List<float[][]> places) {

  private static final int MOST_OF_A_PLACE = 3000;

  public static ScatterSample of(
      Raster scene, int bandX, int bandY, Window window, List<Geometry> places, Job job) {
    float[][] view = read(scene, bandX, bandY, window, job);
    List<float[][]> ofPlaces = new ArrayList<>();
    for (Geometry place : places) {
      ofPlaces.add(ofPlace(scene, bandX, bandY, place, job));
    }
    return new ScatterSample(view[0], view[1], ofPlaces);
  }

  private static float[][] read(Raster scene, int bandX, int bandY, Window window, Job job) {
    float[][] planes = new float[scene.bands().size()][];
    planes[bandX] = new float[window.area()];
    planes[bandY] = bandX == bandY ? planes[bandX] : new float[window.area()];
    scene.read(0, window, planes, job.request());
    return new float[][] {planes[bandX], planes[bandY]};
  }

  private static float[][] ofPlace(Raster scene, int bandX, int bandY, Geometry place, Job job) {
    PolygonFill fill = new PolygonFill(place, scene.grid());
    Window under = fill.bounds(0).intersect(scene.grid().window());
    if (under.isEmpty()) {
      return new float[2][0];
    }
    int rows = Math.max(1, Math.min(under.height(), (1 << 20) / Math.max(1, under.width())));
    Window part = new Window(under.x(), under.y(), under.width(), rows);
    float[][] both = read(scene, bandX, bandY, part, job);
    boolean[] inside = fill.fill(0, part);
    int count = 0;
    for (boolean in : inside) {
      count += in ? 1 : 0;
    }
    int step = Math.max(1, count / MOST_OF_A_PLACE);
    float[][] kept = new float[2][Math.ceilDiv(count, step)];
    int seen = 0;
    for (int i = 0; i < inside.length; i++) {
      if (inside[i]) {
        if (seen % step == 0) {
          kept[0][seen / step] = both[0][i];
          kept[1][seen / step] = both[1][i];
        }
        seen++;
      }
    }
    return kept;
  }

  /**
   * Where a scene's two bands lie within an area of their plot, as 1 and 0.
   *
   * @param xs corners of the area in values of the first band
   */
  public static Raster within(Raster scene, int bandX, int bandY, double[] xs, double[] ys) {
    Band band = new Band("chosen", BandRole.OTHER, "", SampleType.FLOAT32, Double.NaN);
    return new DerivedRaster(
        scene.grid(), List.of(band), Attachments.NONE, Zoom.POINTWISE.over(scene.zoom())) {
      @Override
      protected void compute(int level, Window window, float[][] target, Request request) {
        float[][] planes = new float[scene.bands().size()][];
        planes[bandX] = new float[window.area()];
        planes[bandY] = bandX == bandY ? planes[bandX] : new float[window.area()];
        scene.read(level, window, planes, request);
        for (int i = 0; i < target[0].length; i++) {
          float x = planes[bandX][i];
          float y = planes[bandY][i];
          target[0][i] = Float.isNaN(x + y) ? Float.NaN : contains(xs, ys, x, y) ? 1 : 0;
        }
      }
    };
  }

  /** Even-odd rule. */
  static boolean contains(double[] xs, double[] ys, double x, double y) {
    boolean inside = false;
    for (int i = 0, j = xs.length - 1; i < xs.length; j = i++) {
      boolean crosses = ys[i] > y != ys[j] > y;
      if (crosses && x < (xs[j] - xs[i]) * (y - ys[i]) / (ys[j] - ys[i]) + xs[i]) {
        inside = !inside;
      }
    }
    return inside;
  }
}
