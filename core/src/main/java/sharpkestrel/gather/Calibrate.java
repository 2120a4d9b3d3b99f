package sharpkestrel.gather;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import sharpkestrel.geo.Acquisition;
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
import sharpkestrel.step.Suits;

/**
 * Numbers into top-of-atmosphere reflectance, {@code pi * L * d² / (E * sin(sun elevation))}, so that thresholds mean
 * the same in the next scene. Written as float: a reflectance is a fraction.
 *
 * <p>Haze lights every pixel alike and the short waves most, so ratios of bands drift towards blue the darker a
 * surface is. It is taken for what the darkest pixels of a band show, deep shadow on leaves or peat (dark-object
 * subtraction: Chavez 1988, Remote Sensing of Environment 24, 459-479); valid where the scene holds such pixels.
 */
@StepInfo(
    id = "calibrate",
    stage = Stage.GATHER,
    title = "Calibrate",
    next = "Numbers of the sensor, not reflectance.",
    nextFor = {Suits.NUMBERS, Suits.WITH_GAINS},
    makes = "{} reflectance",
    does =
        "Turns a scene's numbers into top-of-atmosphere reflectance with its gains, its sun and the distance of the"
            + " sun, less the haze where asked, so that thresholds travel from scene to scene. Writes 32-bit floats.")
public record Calibrate(
    @In(does = "A scene whose acquisition and gains are known.", suits = Suits.NUMBERS)
    Raster scene,

    @Setting(
        label = "Haze",
        does =
            "none: as seen from above the air; darkest: less what each band's darkest pixels show (the darkest"
                + " ten-thousandth), so that ratios of bands mean the same on dark and on bright surfaces.",
        initial = "none")
    Haze haze)
    implements Step<Raster> {

  /** What is done about light that the air scatters into the view. */
  public enum Haze {
    NONE,
    DARKEST
  }

  private static final double DARKEST_SHARE = 1e-4;

  /** The unit that marks calibrated bands. */
  public static final String REFLECTANCE = "reflectance";

  @Override
  public Raster run(Job job) {
    if (scene.bands().stream().anyMatch(band -> band.unit().equals(REFLECTANCE))) {
      throw new RasterException(
          "This scene is reflectance already; calibrating it again would scale it twice. Choose the scene it was made"
              + " from.");
    }
    Acquisition acquisition = scene
        .attachments()
        .get(Acquisition.class)
        .orElseThrow(() -> new RasterException(
            "This scene says nothing of its acquisition (time, sun, gains), so its numbers cannot be"
                + " made reflectance. Open it through its STAC item, or skip this step."));
    if (Acquisition.timeOf(scene.attachments()).isEmpty()) {
      throw new RasterException(
          "This scene does not say when it was taken, and the distance of the sun changes reflectance by up to 7 % over the"
              + " year. Tell its date with the step 'describe' (--time 2031-04-03T11:42:00Z), or open it through a STAC"
              + " item that has one.");
    }
    List<Band> bands = new ArrayList<>();
    double[] darkest = haze == Haze.NONE ? new double[0] : darkestNumbers(job);
    float[] factors = new float[scene.bands().size()];
    float[] addends = new float[scene.bands().size()];
    for (int b = 0; b < factors.length; b++) {
      Band band = scene.bands().get(b);
      double[] linear = acquisition
          .reflectance(band.role())
          .orElseThrow(() -> new RasterException("Band '"
              + band.name()
              + "' has no gain and solar irradiance in the scene's metadata, or the sun's elevation"
              + " is not known. Add them to the STAC item (raster:bands, eo:bands,"
              + " view:sun_elevation)."));
      factors[b] = (float) linear[0];
      addends[b] = (float) (haze == Haze.NONE ? linear[1] : -linear[0] * darkest[b]);
      bands.add(band.withType(SampleType.FLOAT32, Double.NaN).withUnit(REFLECTANCE));
    }
    return new DerivedRaster(
        scene.grid(), bands, scene.attachments(), Zoom.POINTWISE.over(scene.zoom())) {
      @Override
      protected void compute(int level, Window window, float[][] target, Request request) {
        scene.read(level, window, target, request);
        for (int b = 0; b < target.length; b++) {
          if (target[b] != null) {
            for (int i = 0; i < target[b].length; i++) {
              target[b][i] = target[b][i] * factors[b] + addends[b];
            }
          }
        }
      }
    };
  }

  private double[] darkestNumbers(Job job) {
    return Arrays.stream(Statistics.of(scene, 0, job))
        .mapToDouble(s -> s.valid() == 0 ? 0 : s.histogram().quantile(DARKEST_SHARE))
        .toArray();
  }
}
