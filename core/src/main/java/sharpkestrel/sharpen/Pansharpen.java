package sharpkestrel.sharpen;

import java.util.List;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.RasterException;
import sharpkestrel.sharpen.pan.Alignment;
import sharpkestrel.sharpen.pan.Method;
import sharpkestrel.sharpen.pan.Pair;
import sharpkestrel.sharpen.pan.PanModel;
import sharpkestrel.sharpen.pan.SharpenedRaster;
import sharpkestrel.step.Group;
import sharpkestrel.step.Setting;
import sharpkestrel.step.Stage;
import sharpkestrel.step.Step;
import sharpkestrel.step.StepInfo;

/**
 * Gives the bands of a multispectral scene the detail of a panchromatic one, by one of seven methods in one frame
 * ({@link PanModel}).
 */
@StepInfo(
    id = "pansharpen",
    stage = Stage.SHARPEN,
    title = "Pan-sharpen",
    next = "A finer panchromatic band of the same ground is at hand.",
    makes = "Sharpened",
    does =
        "Gives a multispectral scene the detail of its panchromatic band, on the panchromatic grid. The result keeps the"
            + " multispectral bands' order, roles and sample type.")
public record Pansharpen(
    @Setting(
        label = "Method",
        does =
            "adaptive: Gram-Schmidt with an intensity fitted to the sensor and a gain for each band; brovey: every band"
                + " times panchromatic over intensity, which keeps ratios of bands; principal_component: the first"
                + " component gives way; gram_schmidt: the mean of the bands gives way; high_pass: what a box filter leaves"
                + " of the panchromatic band is added; smoothing: every band times panchromatic over its own local mean;"
                + " laplacian: a pyramid matched to the sensor, its gain taken from what surrounds each pixel.",
        initial = "adaptive")
    Method method,

    @Setting(
        label = "Weights",
        does =
            "Share of each band in the panchromatic one, separated by commas, in the order of the bands, for methods that"
                + " make an intensity; auto fits them to the scene (gram_schmidt: all alike).",
        initial = "auto")
    List<Double> weights,

    @Group PanInputs scenes)
    implements Step<Raster> {

  public Pansharpen {
    double sum = 0;
    for (double weight : weights) {
      if (!(weight >= 0)) {
        throw new IllegalArgumentException("Weights must not be below 0; one is " + weight + ".");
      }
      sum += weight;
    }
    if (!weights.isEmpty() && !(sum > 0)) {
      throw new IllegalArgumentException("At least one weight must be above 0.");
    }
  }

  @Override
  public Raster run(Job job) {
    Pair pair = scenes.pair(job);
    int bands = pair.multispectral().bands().size();
    if (!weights.isEmpty() && weights.size() != bands) {
      throw new RasterException("There are " + weights.size() + " weights for " + bands
          + " multispectral bands; give one for each.");
    }
    double[] given = weights.stream().mapToDouble(Double::doubleValue).toArray();
    if (given.length > 0 && (!method.substitutes() || method == Method.PRINCIPAL_COMPONENT)) {
      throw new RasterException("The method '" + method.title()
          + "' takes no weights. Leave them out, or choose adaptive, brovey or gram_schmidt.");
    }
    Alignment alignment =
        scenes.align() ? Alignment.find(pair, scenes.contrast(), job) : Alignment.none(bands);
    PanModel model = PanModel.fit(pair, method, given, scenes.contrast(), alignment, job);
    return new SharpenedRaster(pair, model, scenes.contrast());
  }
}
