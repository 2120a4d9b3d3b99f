package sharpkestrel.sharpen;

import java.util.List;
import sharpkestrel.raster.Band;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.DerivedRaster;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.Request;
import sharpkestrel.raster.SampleType;
import sharpkestrel.raster.Window;
import sharpkestrel.raster.Zoom;
import sharpkestrel.step.In;
import sharpkestrel.step.Setting;
import sharpkestrel.step.Stage;
import sharpkestrel.step.Step;
import sharpkestrel.step.StepInfo;
import sharpkestrel.step.Suits;

/** Normalised difference of two bands chosen by role, {@code (first - second) / (first + second)}, from -1 to 1. */
@StepInfo(
    id = "index",
    stage = Stage.SHARPEN,
    title = "Index",
    does =
        "Normalised difference of two bands by role, (first - second) / (first + second); near infrared and red give"
            + " the vegetation index. Writes 32-bit floats; no data where the sum is not above 0.")
public record Index(
    @In(does = "A scene with both bands.", suits = Suits.SEVERAL_BANDS)
    Raster scene,

    @Setting(label = "First", does = "Role of the first band.", initial = "near_infrared")
    BandRole first,

    @Setting(label = "Second", does = "Role of the second band.", initial = "red")
    BandRole second)
    implements Step<Raster> {

  public Index {
    if (first == second) {
      throw new IllegalArgumentException(
          "First and second must be different roles; both are " + first.label() + ".");
    }
  }

  @Override
  public Raster run(Job job) {
    int one = scene.require(first);
    int two = scene.require(second);
    String name = "nd_" + first.key() + "_" + second.key();
    Band band = new Band(name, BandRole.OTHER, "", SampleType.FLOAT32, Double.NaN);
    return new DerivedRaster(
        scene.grid(), List.of(band), scene.attachments(), Zoom.POINTWISE.over(scene.zoom())) {
      @Override
      protected void compute(int level, Window window, float[][] target, Request request) {
        if (target[0] == null) {
          return;
        }
        float[][] planes = new float[scene.bands().size()][];
        planes[one] = new float[window.area()];
        planes[two] = new float[window.area()];
        scene.read(level, window, planes, request);
        normalisedDifference(planes[one], planes[two], target[0]);
      }
    };
  }

  static void normalisedDifference(float[] a, float[] b, float[] out) {
    for (int i = 0; i < out.length; i++) {
      float sum = a[i] + b[i];
      out[i] = sum > 0 ? (a[i] - b[i]) / sum : Float.NaN;
    }
  }
}
