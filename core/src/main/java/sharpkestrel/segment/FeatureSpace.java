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
 * The space in which pixels are alike or not. Bands are taken as logarithms, so that a tenth brighter is the same step
 * on dark water and on a bright roof, and so that light and shade add the same amount to every band. The mean over the
 * bands is the first coordinate (light); what each band has beyond it are the others (colour), which light and shade
 * leave alone; they weigh less all the same, because after sharpening colour is only as fine as the multispectral
 * bands and would draw rims around small things. One unit is a tenth.
 */
final class FeatureSpace {

  private static final float PER_UNIT = 10f;
  private static final float LIGHT_WEIGHT = 0.7f;
  private static final float COLOUR_WEIGHT = 0.25f;

  private final Raster scene;
  private final int[] bands;
  private final float[] weights;
  private final float[] floors;

  private FeatureSpace(Raster scene, int[] bands, float[] weights, float[] floors) {
    this.scene = scene;
    this.bands = bands;
    this.weights = weights;
    this.floors = floors;
  }

  /**
   * @param weights by role; bands of other roles count 1, of weight 0 not at all
   */
  static FeatureSpace of(Raster scene, Map<BandRole, Double> weights, Job job) {
    // Of every pixel: reduced levels of a lazy and of a written scene differ.
    Statistics[] statistics = Statistics.of(scene, 0, job);
    List<Integer> used = new ArrayList<>();
    List<Float> usedWeights = new ArrayList<>();
    List<Float> floors = new ArrayList<>();
    boolean anyValid = false;
    for (int b = 0; b < statistics.length; b++) {
      anyValid |= statistics[b].valid() > 0;
      double weight = weights.getOrDefault(scene.bands().get(b).role(), 1.0);
      if (weight > 0 && statistics[b].valid() > 0) {
        used.add(b);
        usedWeights.add((float) weight);
        // Added before the logarithm, so that the noise of near-black pixels does not count as
        // colour.
        double median = statistics[b].histogram().quantile(0.5);
        floors.add((float) Math.max(1e-6, 0.15 * Math.abs(median)));
      }
    }
    if (!anyValid) {
      throw new RasterException(
          "There is nothing to segment: every pixel of the scene is no-data. Choose another scene or area.");
    }
    if (used.isEmpty()) {
      throw new RasterException("Every band has weight 0; give at least one of them more.");
    }
    return new FeatureSpace(
        scene,
        used.stream().mapToInt(Integer::intValue).toArray(),
        floats(usedWeights),
        floats(floors));
  }

  private static float[] floats(List<Float> list) {
    float[] flat = new float[list.size()];
    for (int i = 0; i < flat.length; i++) {
      flat[i] = list.get(i);
    }
    return flat;
  }

  /** Light, and a colour for each band where there are several. */
  int dimensions() {
    return bands.length == 1 ? 1 : bands.length + 1;
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
    int dimensions = dimensions();
    float[] out = new float[window.area() * dimensions];
    float[] logs = new float[n];
    float lightScale = PER_UNIT * (float) Math.sqrt(LIGHT_WEIGHT);
    float colourScale = PER_UNIT * (float) Math.sqrt(COLOUR_WEIGHT / n);
    float total = 0;
    for (float weight : weights) {
      total += weight;
    }
    for (int i = 0, j = 0; i < window.area(); i++, j += dimensions) {
      float light = 0;
      for (int k = 0; k < n; k++) {
        float v = planes[bands[k]][i];
        logs[k] = (float) Math.log(Math.max(0, v) + floors[k]);
        light += weights[k] * (Float.isNaN(v) ? Float.NaN : logs[k]);
      }
      light /= total;
      out[j] = light * lightScale;
      if (n > 1) {
        for (int k = 0; k < n; k++) {
          out[j + 1 + k] = (logs[k] - light) * colourScale * (float) Math.sqrt(weights[k]);
        }
      }
    }
    return out;
  }
}
