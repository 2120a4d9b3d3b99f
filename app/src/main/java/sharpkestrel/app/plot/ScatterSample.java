package sharpkestrel.app.plot;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.locationtech.jts.geom.Geometry;
import sharpkestrel.raster.Attachments;
import sharpkestrel.raster.Band;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.BandsOf;
import sharpkestrel.raster.DerivedRaster;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.PolygonFill;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.Request;
import sharpkestrel.raster.SampleType;
import sharpkestrel.raster.Window;
import sharpkestrel.raster.Zoom;
import sharpkestrel.sharpen.Index;
import sharpkestrel.sharpen.IndexKind;

/**
 * Two values of every pixel, bands or indices: of what is in view, and of places.
 *
 * @param x of what is in view
 * @param y likewise
 * @param places for each place both values of its pixels
 */
public record ScatterSample(float[] x, float[] y, List<float[][]> places) {

  private static final int MOST_OF_A_PLACE = 3000;

  /** What can be plotted of a scene, by name, each a raster of one band: its bands, then the indices that they make. */
  public static Map<String, Raster> axes(Raster scene, Job job) {
    Map<String, Raster> axes = new LinkedHashMap<>();
    for (int b = 0; b < scene.bands().size(); b++) {
      axes.put(scene.bands().get(b).name(), new BandsOf(scene, b));
    }
    for (IndexKind kind : IndexKind.of(scene)) {
      axes.putIfAbsent(kind.title(), Index.of(scene, kind).run(job));
    }
    return axes;
  }

  /**
   * @param x one band, as has y
   */
  public static ScatterSample of(
      Raster x, Raster y, Window window, List<Geometry> places, Job job) {
    List<float[][]> ofPlaces = new ArrayList<>();
    for (Geometry place : places) {
      ofPlaces.add(ofPlace(x, y, place, job));
    }
    return new ScatterSample(read(x, window, job), read(y, window, job), ofPlaces);
  }

  private static float[] read(Raster axis, Window window, Job job) {
    return axis.read(0, window, job.request())[0];
  }

  private static float[][] ofPlace(Raster x, Raster y, Geometry place, Job job) {
    PolygonFill fill = new PolygonFill(place, x.grid());
    Window under = fill.bounds(0).intersect(x.grid().window());
    if (under.isEmpty()) {
      return new float[2][0];
    }
    int rows = Math.max(1, Math.min(under.height(), (1 << 20) / Math.max(1, under.width())));
    Window part = new Window(under.x(), under.y(), under.width(), rows);
    float[][] both = {read(x, part, job), read(y, part, job)};
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
   * Where both values lie within an area of their plot, as 1 and 0.
   *
   * @param xs corners of the area in values of the first
   */
  public static Raster within(Raster x, Raster y, double[] xs, double[] ys) {
    Band band = new Band("chosen", BandRole.OTHER, "", SampleType.FLOAT32, Double.NaN);
    return new DerivedRaster(
        x.grid(), List.of(band), Attachments.NONE, Zoom.POINTWISE.over(x.zoom())) {
      @Override
      protected void compute(int level, Window window, float[][] target, Request request) {
        float[] across = x.read(level, window, request)[0];
        float[] up = y.read(level, window, request)[0];
        for (int i = 0; i < target[0].length; i++) {
          boolean nothing = Float.isNaN(across[i] + up[i]);
          target[0][i] = nothing ? Float.NaN : contains(xs, ys, across[i], up[i]) ? 1 : 0;
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
