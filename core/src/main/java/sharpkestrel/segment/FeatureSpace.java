package sharpkestrel.segment;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.RasterException;
import sharpkestrel.raster.Request;
import sharpkestrel.raster.Statistics;
import sharpkestrel.raster.Window;

/**
 * The space in which pixels are alike or not: square roots of the bands (which evens out noise that grows with the
 * signal), each in units of its spread over the scene, times the square root of its weight.
 */
final class FeatureSpace {

  private final Raster scene;
  private final int[] bands;
  private final float[] scales;

  private FeatureSpace(Raster scene, int[] bands, float[] scales) {
    this.scene = scene;
    this.bands = bands;
    this.scales = scales;
  }

  /**
   * @param weights by role; bands of other roles count 1, of weight 0 not at all
   */
  static FeatureSpace of(Raster scene, Map<BandRole, Double> weights, Job job) {
    List<Integer> used = new ArrayList<>();
    for (int b = 0; b < scene.bands().size(); b++) {
      if (weights.getOrDefault(scene.bands().get(b).role(), 1.0) > 0) {
        used.add(b);
      }
    }
    int level = 0;
    while (scene.grid().atLevel(level).pixels() > 4_000_000 && level < scene.levels() - 1) {
      level++;
    }
    Statistics[] statistics = Statistics.of(scene, level, job);
    List<Integer> kept = new ArrayList<>();
    List<Float> scales = new ArrayList<>();
    boolean anyValid = false;
    for (int b : used) {
      Statistics s = statistics[b];
      anyValid |= s.valid() > 0;
      double low = Math.sqrt(Math.max(0, s.histogram().quantile(0.16)));
      double high = Math.sqrt(Math.max(0, s.histogram().quantile(0.84)));
      double spread = (high - low) / 2;
      if (s.valid() > 0 && spread > 0) {
        kept.add(b);
        double weight = weights.getOrDefault(scene.bands().get(b).role(), 1.0);
        scales.add((float) (Math.sqrt(weight) / spread));
      }
    }
    if (!anyValid) {
      throw new RasterException(
          "There is nothing to segment: every pixel of the scene is no-data. Choose another scene or area.");
    }
    if (kept.isEmpty()) {
      // One colour all over: one band with any scale keeps the geometry and finds no edges.
      kept.add(used.isEmpty() ? 0 : used.get(0));
      scales.add(1f);
    }
    float[] flat = new float[scales.size()];
    for (int i = 0; i < flat.length; i++) {
      flat[i] = scales.get(i);
    }
    return new FeatureSpace(scene, kept.stream().mapToInt(Integer::intValue).toArray(), flat);
  }

  int dimensions() {
    return bands.length;
  }

  /**
   * Reads a window of full-size pixels into the space.
   *
   * @return interleaved, {@link #dimensions()} numbers a pixel; NaN in the first where any band is no-data
   */
  float[] read(Window window, Request request) {
    float[][] planes = new float[scene.bands().size()][];
    for (int b : bands) {
      planes[b] = new float[window.area()];
    }
    scene.read(0, window, planes, request);
    int n = bands.length;
    float[] out = new float[window.area() * n];
    for (int k = 0; k < n; k++) {
      float[] plane = planes[bands[k]];
      float scale = scales[k];
      for (int i = 0, j = k; i < plane.length; i++, j += n) {
        float v = plane[i];
        if (Float.isNaN(v)) {
          out[j - k] = Float.NaN;
        } else if (k == 0 || !Float.isNaN(out[j - k])) {
          out[j] = v > 0 ? (float) Math.sqrt(v) * scale : 0;
        }
      }
    }
    return out;
  }
}
