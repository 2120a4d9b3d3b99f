package sharpkestrel.sharpen;

import java.util.ArrayList;
import java.util.List;
import sharpkestrel.gather.Calibrate;
import sharpkestrel.raster.Band;
import sharpkestrel.raster.DerivedRaster;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.RasterException;
import sharpkestrel.raster.Request;
import sharpkestrel.raster.SampleType;
import sharpkestrel.raster.Statistics;
import sharpkestrel.raster.Window;
import sharpkestrel.raster.Zoom;
import sharpkestrel.step.In;
import sharpkestrel.step.Setting;
import sharpkestrel.step.Stage;
import sharpkestrel.step.Step;
import sharpkestrel.step.StepInfo;

/**
 * Takes haze off a scene of which nothing is known but its numbers: what a band's darkest pixels show is haze (dark-object
 * subtraction: Chavez 1988, Remote Sensing of Environment 24, 459-479), and its brightest ones reflect as much as those of
 * every other band (the white patch of Land 1977, Scientific American 237(6), 108-128). Good for looking and for ratios; a
 * scene with gains and sun is better calibrated.
 */
@StepInfo(
    id = "dehaze",
    stage = Stage.SHARPEN,
    keepsTones = false,
    title = "De-haze",
    does =
        "Takes off each band what its darkest pixels show, and scales it so that its brightest ones reflect alike in all"
            + " bands: numbers like reflectance for a scene whose gains are not known. Writes 32-bit floats.")
public record Dehaze(
    @In(does = "The scene, in numbers of the sensor.") Raster scene,

    @Setting(
        label = "Darkest",
        unit = "%",
        does = "Share of a band's pixels that is taken to show nothing but haze.",
        min = 0,
        max = 10,
        initial = "0.01")
    double darkest,

    @Setting(
        label = "Brightest",
        unit = "%",
        does = "Share of a band's pixels that is taken to reflect as much in every band.",
        min = 0,
        max = 10,
        initial = "0.1")
    double brightest,

    @Setting(
        label = "Bright reflects",
        does = "The reflectance given to those.",
        min = 0.01,
        max = 1,
        initial = "0.6")
    double reflects)
    implements Step<Raster> {

  @Override
  public Raster run(Job job) {
    if (scene.bands().stream().anyMatch(band -> band.unit().equals(Calibrate.REFLECTANCE))) {
      throw new RasterException(
          "This scene is reflectance already. Choose the scene it was made from, or calibrate that with haze 'darkest'.");
    }
    Statistics[] statistics = Statistics.kept(scene, scene, "bands", job);
    int count = scene.bands().size();
    float[] factors = new float[count];
    float[] dark = new float[count];
    List<Band> bands = new ArrayList<>();
    for (int b = 0; b < count; b++) {
      Band band = scene.bands().get(b);
      double low = statistics[b].histogram().quantile(darkest / 100);
      double high = statistics[b].histogram().quantile(1 - brightest / 100);
      if (!(statistics[b].max() > statistics[b].min()) || !(high > low)) {
        throw new RasterException("Band '" + band.name()
            + "' has no bright and dark pixels to tell haze by: "
            + (statistics[b].valid() == 0 ? "it holds no data." : "it has one value everywhere."));
      }
      dark[b] = (float) low;
      factors[b] = (float) (reflects / (high - low));
      bands.add(band.withType(SampleType.FLOAT32, Double.NaN).withUnit("relative reflectance"));
    }
    return new DerivedRaster(
        scene.grid(), bands, scene.attachments(), Zoom.POINTWISE.over(scene.zoom())) {
      @Override
      protected void compute(int level, Window window, float[][] target, Request request) {
        scene.read(level, window, target, request);
        for (int b = 0; b < count; b++) {
          for (int i = 0; target[b] != null && i < target[b].length; i++) {
            target[b][i] = (target[b][i] - dark[b]) * factors[b];
          }
        }
      }
    };
  }
}
