package sharpkestrel.sharpen;

import java.util.List;
import java.util.Optional;
import sharpkestrel.raster.Band;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.DerivedRaster;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.RasterException;
import sharpkestrel.raster.Request;
import sharpkestrel.raster.SampleType;
import sharpkestrel.raster.Statistics;
import sharpkestrel.raster.Window;
import sharpkestrel.sharpen.texture.Binning;
import sharpkestrel.sharpen.texture.BuiltUpRaster;
import sharpkestrel.sharpen.texture.Direction;
import sharpkestrel.step.Group;
import sharpkestrel.step.Setting;
import sharpkestrel.step.Stage;
import sharpkestrel.step.Step;
import sharpkestrel.step.StepInfo;

/** Where there are edges in every direction, as among buildings; a mask where a threshold is given. */
@StepInfo(
    id = "builtup",
    stage = Stage.SHARPEN,
    title = "Built-up index",
    does =
        "The lowest contrast of pairs of grey levels over ten displacements: high where there are edges in every direction,"
            + " as among buildings. With a threshold, a mask of 1 and 0.")
public record BuiltUp(
    @Group TextureSource source,

    @Setting(
        label = "Window",
        does =
            "Side of the window: an odd number of pixels, or metres with an m behind, e.g. 20 m; auto is 20 m, from 9 to 101 pixels.",
        initial = "auto")
    Optional<String> window,

    @Setting(
        label = "Levels",
        does = "Grey levels of one width into which values are sorted.",
        min = 8,
        max = 256,
        initial = "128")
    int levels,

    @Setting(
        label = "Left out",
        unit = "%",
        does = "Share of the pixels at either end that share the outermost level.",
        min = 0,
        max = 20,
        initial = "0.5")
    double leftOut,

    @Setting(
        label = "Threshold",
        does = "From which value on a place counts as built up; auto leaves the index as it is.",
        initial = "auto")
    double threshold)
    implements Step<Raster> {

  @Override
  public Raster run(Job job) {
    int side = window.map(source::pixels).orElseGet(source::usualPixels);
    if (side < 5) {
      throw new RasterException(
          "The window must have at least 5 pixels, as pairs lie up to 2 apart; "
              + window.orElse("the usual one").strip() + " has " + side + " here.");
    }
    Raster values = source.values();
    Statistics statistics = source.statistics(job);
    Texture.Pairs pairs =
        new Texture.Pairs(1, Direction.MIN, levels, Binning.EQUAL_WIDTH, List.of(), leftOut);
    boolean whole = values.bands().get(0).type().isWhole();
    Raster index = new BuiltUpRaster(values, pairs.of(statistics, whole, job), side);
    return Double.isNaN(threshold) ? index : mask(index);
  }

  private Raster mask(Raster index) {
    float least = (float) threshold;
    Band band = new Band("built_up", BandRole.OTHER, "", SampleType.UINT8, 255);
    return new DerivedRaster(index.grid(), List.of(band), index.attachments(), index.zoom()) {
      @Override
      protected void compute(int level, Window window, float[][] target, Request request) {
        index.read(level, window, target, request);
        float[] values = target[0];
        for (int i = 0; i < values.length; i++) {
          values[i] = Float.isNaN(values[i]) ? Float.NaN : values[i] >= least ? 1 : 0;
        }
      }
    };
  }
}
