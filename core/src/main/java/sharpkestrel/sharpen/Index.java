package sharpkestrel.sharpen;

import java.util.List;
import java.util.Optional;
import sharpkestrel.gather.Calibrate;
import sharpkestrel.geo.Acquisition;
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

/** A normalised difference of two bands by role, from -1 to 1, or a formula over the bands. */
@StepInfo(
    id = "index",
    stage = Stage.SHARPEN,
    title = "Index",
    does =
        "Normalised difference of two bands by role, (first - second) / (first + second), or a formula over the bands; on"
            + " reflectance where the scene can be calibrated. Writes 32-bit floats; no data where the sum is not above 0.")
public record Index(
    @In(does = "A scene with the bands.", suits = Suits.SEVERAL_BANDS)
    Raster scene,

    @Setting(
        label = "Index",
        does =
            "vegetation: near infrared and red; green_vegetation: near infrared and green; red_edge_vegetation: near"
                + " infrared and red edge; water: green and near infrared; green_red, red_blue, blue_green: as they say;"
                + " bands: the two given; formula: the one given.",
        initial = "vegetation")
    IndexKind index,

    @Setting(
        label = "First",
        does = "Role of the first band, for 'bands'.",
        initial = "near_infrared")
    BandRole first,

    @Setting(label = "Second", does = "Role of the second band, for 'bands'.", initial = "red")
    BandRole second,

    @Setting(
        label = "Formula",
        does =
            "For 'formula': CQL2 arithmetic over band roles, e.g. (near_infrared - red) / (near_infrared + red + 0.5) * 1.5;"
                + " a test, e.g. near_infrared > 2 * red, gives 1 and 0.",
        initial = "none")
    String formula,

    @Setting(
        label = "On",
        does =
            "reflectance: as it is, or calibrated first where the scene's gains and sun are known; numbers: as they are.",
        initial = "reflectance")
    On on)
    implements Step<Raster> {

  /** What is compared. */
  public enum On {
    REFLECTANCE,
    NUMBERS
  }

  private static final String NONE = "none";

  /** A named one on reflectance where that can be had. */
  public static Index of(Raster scene, IndexKind kind) {
    return new Index(scene, kind, BandRole.NEAR_INFRARED, BandRole.RED, NONE, On.REFLECTANCE);
  }

  public Index {
    if (index == IndexKind.BANDS && first == second) {
      throw new IllegalArgumentException(
          "First and second must be different roles; both are " + first.label() + ".");
    }
    if (index == IndexKind.FORMULA && (formula.isBlank() || formula.equals(NONE))) {
      throw new IllegalArgumentException(
          "The index 'formula' needs a formula over band roles, e.g. near_infrared / red.");
    }
    if (index != IndexKind.FORMULA && !formula.isBlank() && !formula.equals(NONE)) {
      throw new IllegalArgumentException("A formula is given, but the index is '" + index.title()
          + "'. Choose the index 'formula', or leave the formula out.");
    }
  }

  @Override
  public Raster run(Job job) {
    Raster from = on == On.REFLECTANCE ? calibrated(job) : scene;
    if (index == IndexKind.FORMULA) {
      return BandFormula.of(from, formula, "formula");
    }
    BandRole plus = index.first(first);
    BandRole minus = index.second(second);
    int one = from.require(plus);
    int two = from.require(minus);
    String name = "nd_" + plus.key() + "_" + minus.key();
    Band band = new Band(name, BandRole.OTHER, "", SampleType.FLOAT32, Double.NaN);
    return new DerivedRaster(
        from.grid(), List.of(band), from.attachments(), Zoom.POINTWISE.over(from.zoom())) {
      @Override
      protected void compute(int level, Window window, float[][] target, Request request) {
        if (target[0] == null) {
          return;
        }
        float[][] planes = new float[from.bands().size()][];
        planes[one] = new float[window.area()];
        planes[two] = new float[window.area()];
        from.read(level, window, planes, request);
        normalisedDifference(planes[one], planes[two], target[0]);
      }
    };
  }

  /** The scene as reflectance where it is not yet and its gains and sun are known. */
  private Raster calibrated(Job job) {
    boolean already = scene.bands().stream().anyMatch(b -> b.unit().equals(Calibrate.REFLECTANCE));
    Optional<Acquisition> acquisition = scene.attachments().get(Acquisition.class);
    boolean can = acquisition.isPresent()
        && scene.bands().stream()
            .allMatch(b -> acquisition.get().reflectance(b.role()).isPresent());
    return !already && can ? new Calibrate(scene, Calibrate.Haze.NONE).run(job) : scene;
  }

  static void normalisedDifference(float[] a, float[] b, float[] out) {
    for (int i = 0; i < out.length; i++) {
      float sum = a[i] + b[i];
      out[i] = sum > 0 ? (a[i] - b[i]) / sum : Float.NaN;
    }
  }
}
