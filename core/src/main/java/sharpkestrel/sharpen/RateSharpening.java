package sharpkestrel.sharpen;

import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import sharpkestrel.raster.Extent;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.RasterException;
import sharpkestrel.raster.Window;
import sharpkestrel.sharpen.pan.Method;
import sharpkestrel.sharpen.pan.Pair;
import sharpkestrel.sharpen.pan.Rater;
import sharpkestrel.sharpen.pan.Ratings;
import sharpkestrel.step.Group;
import sharpkestrel.step.Setting;
import sharpkestrel.step.Stage;
import sharpkestrel.step.Step;
import sharpkestrel.step.StepInfo;

/** Ranks ways of sharpening a scene by numbers, with and without a reference. */
@StepInfo(
    id = "rate-sharpening",
    stage = Stage.SHARPEN,
    title = "Rate sharpening",
    does =
        "Ranks the methods of pan-sharpening on a scene beside plain interpolation: error, spectral angle and likeness of"
            + " the scene reduced once more and compared with itself, and distortions at full resolution.")
public record RateSharpening(
    @Setting(
        label = "Area",
        does = "West, south, east, north in the scenes' own coordinates; auto takes all.",
        initial = "auto")
    Optional<Extent> extent,

    @Setting(
        label = "Methods",
        does = "The methods to rate, separated by commas; auto rates all.",
        initial = "auto")
    List<String> methods,

    @Group PanInputs scenes)
    implements Step<Ratings> {

  @Override
  public Ratings run(Job job) {
    Pair pair = scenes.pair(job);
    Grid grid = pair.multispectral().grid();
    Window area = extent.map(grid::under).orElse(grid.window());
    List<Method> wanted = methods.isEmpty()
        ? List.of(Method.values())
        : methods.stream().map(RateSharpening::method).toList();
    return new Rater(pair, scenes.contrast(), scenes.align(), area, job).rate(wanted);
  }

  private static Method method(String text) {
    String name = text.strip().replace('-', '_').replace(' ', '_').toUpperCase(Locale.ROOT);
    return Arrays.stream(Method.values())
        .filter(m -> m.name().equals(name))
        .findFirst()
        .orElseThrow(() -> new RasterException("There is no method '" + text + "'. There are: "
            + String.join(
                ", ",
                Arrays.stream(Method.values())
                    .map(m -> m.name().toLowerCase(Locale.ROOT))
                    .toList())
            + "."));
  }
}
