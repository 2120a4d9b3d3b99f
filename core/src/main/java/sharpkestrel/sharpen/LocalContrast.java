package sharpkestrel.sharpen;

import java.util.ArrayList;
import java.util.List;
import sharpkestrel.geo.GroundSize;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.RasterException;
import sharpkestrel.raster.Statistics;
import sharpkestrel.sharpen.contrast.ContrastRaster;
import sharpkestrel.step.In;
import sharpkestrel.step.Setting;
import sharpkestrel.step.Stage;
import sharpkestrel.step.Step;
import sharpkestrel.step.StepInfo;

/** Raises contrast where it is low, up to a limit, so that deep shadow and bright roof can be read at once. */
@StepInfo(
    id = "local-contrast",
    stage = Stage.SHARPEN,
    keepsTones = false,
    title = "Local contrast",
    does =
        "Spreads the values of each neighbourhood by contrast-limited adaptive equalisation, on the numbers as they are;"
            + " the result has the scene's sample type and range. By brightness, colours stay: what each band shows above"
            + " its darkest keeps its share.")
public record LocalContrast(
    @In(does = "The scene.") Raster scene,

    @Setting(
        label = "Neighbourhood",
        unit = "m",
        does = "Side of the neighbourhood over which values are spread.",
        min = 0.01,
        initial = "64")
    double neighbourhood,

    @Setting(
        label = "Limit",
        does = "Contrast is raised at most so many times; 1 leaves it as it is.",
        min = 1,
        max = 100,
        initial = "3")
    double limit,

    @Setting(
        label = "Shadow lift",
        does =
            "How far values under the scene's median are first brought nearer to it; 0 leaves them, 0.5 halves their"
                + " distance as a ratio.",
        min = 0,
        max = 0.9,
        initial = "0")
    double lift,

    @Setting(
        label = "By",
        does =
            "brightness: one curve for all bands, from the mean of the visible ones, so that colours stay; band: each"
                + " by itself.",
        initial = "brightness")
    By by)
    implements Step<Raster> {

  /** What is equalised. */
  public enum By {
    BRIGHTNESS,
    BAND
  }

  private static final int LEAST_SIDE = 8;

  /** Share of a band's pixels that is taken to show nothing but haze. */
  private static final double DARKEST = 1e-4;

  @Override
  public Raster run(Job job) {
    double pixel = GroundSize.of(scene).mean();
    long side = Math.round(neighbourhood / pixel);
    if (side < LEAST_SIDE) {
      throw new RasterException("A neighbourhood of " + neighbourhood + " m has " + side
          + " pixels a side here; it needs at least " + LEAST_SIDE + ", " + LEAST_SIDE * pixel
          + " m.");
    }
    int count = scene.bands().size();
    boolean together = by == By.BRIGHTNESS && count > 1;
    List<Brightness> brightness = new ArrayList<>();
    List<Statistics> statistics = new ArrayList<>();
    Statistics[] ofBands = Statistics.kept(scene, scene, "bands", job);
    if (together) {
      brightness.add(Brightness.visible(scene));
      statistics.add(Statistics.kept(brightness.get(0), scene, "brightness", job)[0]);
    } else {
      for (int b = 0; b < count; b++) {
        brightness.add(Brightness.of(scene, b));
        statistics.add(ofBands[b]);
      }
    }
    if (statistics.stream().allMatch(s -> s.valid() == 0)) {
      throw new RasterException("The scene holds no data, so there is no contrast to raise.");
    }
    float[] dark = new float[count];
    for (int b = 0; b < count; b++) {
      dark[b] = ofBands[b].valid() == 0 ? 0 : (float) ofBands[b].histogram().quantile(DARKEST);
    }
    return new ContrastRaster(
        scene,
        brightness,
        statistics,
        limit,
        (int) Math.min(side, Math.max(scene.grid().width(), scene.grid().height())),
        lift,
        together,
        dark,
        brightness.get(0).mean(dark));
  }
}
